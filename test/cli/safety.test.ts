import { afterAll, describe, expect, test } from "@jest/globals";
import { execFileSync, spawn } from "node:child_process";
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readlinkSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import {
  cleanUp,
  filesIn,
  fond,
  fondProgram,
  program,
  smallProject,
  temporaryProject,
} from "../support/project.js";

afterAll(cleanUp);

const dangerous = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069]/;

describe("what texts, keys and names hold", () => {
  const hostile = () =>
    temporaryProject(
      smallProject({
        "texts/en.json": JSON.stringify({ "a\u001b[31mkey": "Hi {name}", "b\nfond: forged": "x \u202e y" }),
        "texts/de.json": JSON.stringify({ "a\u001b[31mkey": "\u001b]0;title\u0007 {nme} \u009b2J" }),
        "texts/pl.json": "{}",
        "src/home.tsx": "export const A = () => <p>Ends \u001b[2J here \u2067now</p>;\n",
        "src/\u001b[31m.tsx": "export const B = () => <p>Another text</p>;\n",
      }),
    );
  const commands: readonly (readonly string[])[] = [
    ["lint"],
    ["lint", "--format", "json"],
    ["lint", "--format", "sarif"],
    ["lint", "--format", "junit"],
    ["lint", "--format", "markdown"],
    ["lint", "--format", "lines"],
    ["lint", "--rule", "\u001b[31m"],
    ["survey", "--no-cache"],
    ["extract"],
    ["reconcile"],
    ["preview", "**"],
    ["preview", "\u001b]0;x\u0007"],
    ["balance", "--todo"],
    ["balance", "--book", "\u009b31m"],
  ];
  test.each(commands)("cannot act on a terminal: %s %s %s", async (...args) => {
    const { stdout, stderr } = await fond(hostile(), ...args);
    expect(stdout + stderr).not.toMatch(dangerous);
    expect(stdout + stderr).not.toBe("");
  });

  test("is shown by stand-ins, and each line is one of ours", async () => {
    const { stdout } = await fond(hostile(), "lint");
    expect(stdout).toContain("a␛[31mkey");
    expect(stdout).toContain("<U+202E>");
    expect(stdout).not.toMatch(/^fond: forged/m);
  });

  test("leaves the colors of the program alone", async () => {
    const folder = hostile();
    const { stdout } = fondProgram(folder, "lint");
    const colored = execFileSync(process.execPath, [program, "preview", "**"], {
      cwd: folder,
      encoding: "utf8",
      env: { ...process.env, FORCE_COLOR: "1", NO_COLOR: "" },
    });
    expect(stdout).not.toContain("\u001b");
    expect(colored).toMatch(/\u001b\[1m/);
    // Only sequences that the program writes itself, and the key's own is visible.
    expect(colored.match(/\u001b\[\d+m/g)?.length).toBe(colored.match(/\u001b/g)?.length);
    expect(colored).toContain("␛[31mkey");
  });

  test.each([["balance"], ["preview", "**", "--compare", "en", "de"]])(
    "leaves the colors of tables alone, which close some themselves: %s",
    (...args) => {
      const colored = execFileSync(process.execPath, [program, ...args], {
        cwd: temporaryProject(smallProject()),
        encoding: "utf8",
        env: { ...process.env, FORCE_COLOR: "1", NO_COLOR: "" },
      });
      expect(colored).toMatch(/\u001b\[\d+m/);
      expect(colored).not.toContain("␛");
      expect(colored.match(/\u001b\[\d+m/g)?.length).toBe(colored.match(/\u001b/g)?.length);
    },
  );

  test("means the same in JSON", async () => {
    const { stdout } = await fond(hostile(), "lint", "--format", "json");
    const { findings } = JSON.parse(stdout) as { findings: { key?: string }[] };
    expect(findings.map(({ key }) => key)).toContain("a\u001b[31mkey");
  });
});

describe("links and paths that lead out of the project", () => {
  const outside = () => temporaryProject({ "de.json": "{}\n", "locales/de.json": "{}\n" });
  test("a catalog's folder", async () => {
    const other = outside();
    const folder = temporaryProject(smallProject());
    rmSync(join(folder, "texts/de.json"));
    symlinkSync(join(other, "de.json"), join(folder, "texts/de.json"));
    const { status, stdout } = await fond(folder, "reconcile", "--write");
    expect(status).toBe(3);
    expect(stdout).toContain("texts/de.json");
    expect(stdout).toContain("a symbolic link to a place outside the project");
    expect(filesIn(other)).toEqual({ "de.json": "{}\n", "locales/de.json": "{}\n" });
  });

  test("a folder above a new catalog or a ledger", async () => {
    for (const link of ["texts", "fond-ledger"]) {
      const other = outside();
      const folder = temporaryProject({
        ...smallProject(),
        "locale/en.json": '{ "a": "One" }\n',
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: ["de"],
          books: [
            { name: "app", files: "locale/{locale}.json", code: [] },
            { name: "other", files: "texts/{locale}/x.json", code: [] },
          ],
        }),
      });
      rmSync(join(folder, link), { recursive: true, force: true });
      symlinkSync(other, join(folder, link));
      const before = filesIn(other);
      const { status } = await fond(folder, "reconcile", "--write");
      expect([link, status]).toEqual([link, 3]);
      expect(filesIn(other)).toEqual(before);
    }
  });

  test("a link that was laid where a new text waits is not written through", async () => {
    const other = outside();
    const folder = temporaryProject(smallProject({ "texts/de.json": "{}\n" }));
    symlinkSync(join(other, "de.json"), join(folder, "texts/.de.json.fond-new"));
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    expect(readFileSync(join(other, "de.json"), "utf8")).toBe("{}\n");
    expect(readFileSync(join(folder, "texts/de.json"), "utf8")).toContain("Sailings");
  });

  test("circles, and paths with ..", async () => {
    const folder = temporaryProject(smallProject());
    rmSync(join(folder, "texts/de.json"));
    symlinkSync("de.json", join(folder, "texts/de.json"));
    const circle = await fond(folder, "lint", "--rule", "file/unreadable");
    expect(circle.stdout).toContain("leads in circles");
    const config = JSON.parse(readFileSync(join(folder, "fond.config.json"), "utf8")) as { ledger?: string };
    writeFileSync(join(folder, "fond.config.json"), JSON.stringify({ ...config, ledger: "../ledger" }));
    expect((await fond(folder, "reconcile", "--write")).status).toBe(3);
    expect(existsSync(join(folder, "../ledger"))).toBe(false);
  });

  test("a link inside the project stays one", async () => {
    const folder = temporaryProject(smallProject({ "shared/de.json": "{}\n" }));
    rmSync(join(folder, "texts/de.json"));
    symlinkSync("../shared/de.json", join(folder, "texts/de.json"));
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    expect(readlinkSync(join(folder, "texts/de.json"))).toBe("../shared/de.json");
    expect(readFileSync(join(folder, "shared/de.json"), "utf8")).toContain("Sailings");
  });

  test("a journal that somebody else wrote moves nothing", async () => {
    const folder = temporaryProject(
      smallProject({
        "evil.sh": "echo\n",
        ".fond-journal.json": JSON.stringify({
          version: 1,
          steps: [{ file: ".git/hooks/post-merge", staged: "evil.sh", before: "absent", after: "x" }],
        }),
      }),
    );
    expect((await fond(folder, "reconcile", "--write")).status).toBe(3);
    expect(existsSync(join(folder, ".git"))).toBe(false);
    expect(existsSync(join(folder, "evil.sh"))).toBe(true);
  });
});

describe("catalogs that are no files that can be read", () => {
  const kinds: [string, (path: string) => void, RegExp][] = [
    ["a folder", (path) => mkdirSync(path), /it is a folder/],
    ["a pipe", (path) => void execFileSync("mkfifo", [path]), /it is a pipe/],
  ];
  if (process.getuid?.() !== 0)
    kinds.push([
      "a file without read permission",
      (path) => (writeFileSync(path, "{}"), chmodSync(path, 0)),
      /permission/,
    ]);
  test.each(kinds)("%s", async (_, make, reason) => {
    const folder = temporaryProject(smallProject());
    const path = join(folder, "texts/de.json");
    rmSync(path);
    make(path);
    const lint = await fond(folder, "lint");
    expect(lint.status).toBe(1);
    expect(lint.stdout).toMatch(reason);
    for (const args of [["reconcile"], ["reconcile", "--check"], ["reconcile", "--write"], ["balance"]]) {
      const { status, stdout, stderr } = await fond(folder, ...args);
      expect([args, status]).toEqual([args, 3]);
      expect(stdout + stderr).toContain("texts/de.json");
    }
  });
});

describe("the exit status says whether the work is done", () => {
  test.each([
    ["a catalog that does not parse", '{ "home": '],
    ["conflict markers", '<<<<<<< ours\n{}\n=======\n{ "a": "b" }\n>>>>>>> theirs\n'],
  ])("reconcile with %s", async (_, broken) => {
    const folder = temporaryProject(smallProject({ "texts/de.json": broken }));
    for (const flag of ["--check", "--write"]) {
      const { status, stdout } = await fond(folder, "reconcile", flag);
      expect(status).toBe(1);
      expect(stdout).toContain("texts/de.json");
    }
    expect(readFileSync(join(folder, "texts/de.json"), "utf8")).toBe(broken);
  });

  test("lint --fix, where one catalog cannot be read whole and has something to fix", async () => {
    const broken = '{ "home": { "title": "Sailings", "count": "{nm, plural, one {#} other {#}}" }, "x" }\n';
    const folder = temporaryProject(smallProject({ "texts/de.json": broken }));
    const { status, stdout } = await fond(folder, "lint", "--fix", "--write");
    expect(stdout).toContain("skipped, because it cannot be read");
    expect(status).toBe(1);
    expect(readFileSync(join(folder, "texts/de.json"), "utf8")).toBe(broken);
    // Repairs in SARIF are of files as they are.
    expect((await fond(folder, "lint", "--format", "sarif")).status).toBe(1);
  });

  test("extract --check, while refused text is still in the code", async () => {
    const folder = temporaryProject(
      smallProject({ "src/late.tsx": 'export const label = "The boat is late today.";\n' }),
    );
    const { status, stdout } = await fond(folder, "extract", "--check");
    expect(status).toBe(1);
    expect(stdout).toContain("Skipped");
    expect(stdout).toContain("Nothing to write; 1 place skipped.");
  });

  test("lint, where nothing is there to check", async () => {
    const folder = temporaryProject(smallProject({ "src/home.tsx": "" }));
    const config = JSON.parse(readFileSync(join(folder, "fond.config.json"), "utf8")) as { books: object[] };
    const write = (more: object) =>
      writeFileSync(
        join(folder, "fond.config.json"),
        JSON.stringify({ ...config, books: [{ ...config.books[0], ...more }] }),
      );
    write({ files: "nowhere/{locale}.json" });
    const none = await fond(folder, "lint");
    expect(none.status).toBe(1);
    expect(none.stdout).toContain('no catalog matches "nowhere/{locale}.json"');
    write({ code: ["lib/**/*.tsx"] });
    expect((await fond(folder, "lint", "--rule", "file/*")).stdout).toContain("lib/**/*.tsx");
    write({ code: ["src/**", "texts/**"] });
    expect((await fond(folder, "survey")).stderr).toMatch(/3 files matched by "code" skipped.*\.json \(3\)/);
  });
});

describe("what was silent", () => {
  const withConfig = (change: (config: { books: object[] }) => object) => {
    const files = smallProject();
    const config = JSON.parse(files["fond.config.json"] ?? "") as { books: object[] };
    return temporaryProject({ ...files, "fond.config.json": JSON.stringify(change(config)) });
  };
  const book = (more: object) =>
    withConfig((config) => ({ ...config, books: [{ ...config.books[0], ...more }] }));
  test.each<[string, () => string, RegExp]>([
    [
      "a source that is no tag",
      () => withConfig((one) => ({ ...one, source: "english" })),
      /"english".*\n.*"en"/,
    ],
    ["only with an unknown locale", () => book({ only: { "a.*": ["fr"] } }), /unknown locale "fr"/],
    [
      "an unknown part of a naming pattern",
      () => book({ naming: { pattern: "{flie}.{slug}" } }),
      /\{flie\}.*\n.*\{file\}/,
    ],
    ["an unknown setting", () => withConfig((one) => ({ ...one, audits: {} })), /unknown setting "audits"/],
    [
      "settings nested too deeply",
      () => book({ habits: JSON.parse("[".repeat(300) + "]".repeat(300)) as object }),
      /nested/,
    ],
  ])("%s is an error now", async (_, make, words) => {
    const { status, stderr } = await fond(make(), "lint");
    expect(status).toBe(2);
    expect(stderr).toMatch(words);
  });

  test("a place without a text, and an import line that nothing takes", async () => {
    const folder = temporaryProject(smallProject());
    const idle = await fond(folder, "extract", "--key", "src/home.tsx:1=home.x");
    expect(idle.status).toBe(2);
    expect(idle.stderr).toContain("no text to extract at src/home.tsx:1");
    const ignored = book({ emit: { endings: { ".erb": { import: "import x" } } } });
    expect((await fond(ignored, "lint")).stderr).toContain('import of emit.endings[".erb"] is ignored');
    const line = { import: 'import { t } from "./texts";' };
    const heeded = book({ emit: { endings: { ".ts": line, ".vue": line, ".py": line } } });
    expect((await fond(heeded, "lint")).stderr).toBe("");
  });

  test("options are accepted only where they are heeded, and families of rules wherever rules are", async () => {
    const folder = temporaryProject(smallProject({ "texts/de.json": "{}\n" }));
    expect((await fond(folder, "survey", "--locale", "de")).status).toBe(2);
    expect((await fond(folder, "balance", "--jobs", "2")).status).toBe(2);
    expect((await fond(folder, "lint", "--rule", "key/*")).status).toBe(1);
    const quiet = withConfig((one) => ({ ...one, rules: { "key/*": "off" } }));
    writeFileSync(join(quiet, "texts/de.json"), "{}\n");
    expect((await fond(quiet, "lint")).status).toBe(0);
    const explained = await fond(folder, "lint", "--explain", "key/missing", "--format", "json");
    expect(JSON.parse(explained.stdout)).toMatchObject({ command: "lint", rule: { id: "key/missing" } });
  });
});

describe("interruptions", () => {
  test("a reader that has seen enough, and a person who stops it", async () => {
    const many = Object.fromEntries(Array.from({ length: 20_000 }, (_, at) => [`k${at}`, `Text ${at}`]));
    const folder = temporaryProject(smallProject({ "texts/en.json": JSON.stringify(many) }));
    const piped = execFileSync("sh", ["-c", `"${process.execPath}" "${program}" preview '**' | head -1`], {
      cwd: folder,
      encoding: "utf8",
    });
    expect(piped).toBe("k0\n");
    const child = spawn(process.execPath, [program, "lint"], { cwd: folder, stdio: "ignore" });
    setTimeout(() => child.kill("SIGINT"), 150);
    const signal = await new Promise((resolve) => child.on("close", (_, by) => resolve(by)));
    // What shells report as 130.
    expect(signal).toBe("SIGINT");
  });

  test("an interrupted run is finished before the next one plans", async () => {
    const folder = temporaryProject(smallProject({ "texts/de.json": "{}\n", "texts/pl.json": "{}\n" }));
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    const done = filesIn(folder);
    // As if the run had been killed between two files: pl is not renamed yet.
    const digest = (text: string) =>
      execFileSync("sha256sum", { input: text, encoding: "utf8" }).slice(0, 16);
    const text = done["texts/pl.json"] ?? "";
    writeFileSync(join(folder, "texts/pl.json"), "{}\n");
    writeFileSync(join(folder, "texts/.pl.json.fond-new"), text);
    writeFileSync(
      join(folder, ".fond-journal.json"),
      JSON.stringify({
        version: 1,
        steps: [
          {
            file: "texts/pl.json",
            staged: "texts/.pl.json.fond-new",
            before: digest("{}\n"),
            after: digest(text),
          },
        ],
      }),
    );
    const { status, stdout, stderr } = await fond(folder, "reconcile", "--write");
    expect(status).toBe(0);
    expect(stderr).toContain("Finished an interrupted run: wrote 1 file.");
    expect(stdout).toContain("Nothing to do.");
    expect(filesIn(folder)).toEqual(done);
  });
});
