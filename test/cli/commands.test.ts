import { afterAll, describe, expect, test } from "@jest/globals";
import {
  chmodSync,
  existsSync,
  lstatSync,
  mkdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import {
  cleanUp,
  filesIn,
  fond,
  fondTold,
  root,
  smallProject,
  temporaryProject,
} from "../support/project.js";

afterAll(cleanUp);

const hardCoded =
  'export function Late({ boat }: { boat: string }) {\n  return <p title="Delay notice">The {boat} is late</p>;\n}\n';
const json = (text: string) => JSON.parse(text) as Record<string, unknown>;

describe("every command that writes", () => {
  const commands: [string, string[], Record<string, string>][] = [
    ["extract", [], { "src/late.tsx": hardCoded }],
    ["reconcile", [], { "texts/de.json": "{}\n" }],
  ];
  test.each(commands)(
    "%s prints its plan and changes nothing; --check says whether it is empty; --write carries it out",
    async (command, args, more) => {
      const folder = temporaryProject(smallProject(more));
      const before = filesIn(folder);
      const dry = await fond(folder, command, ...args);
      expect(dry.status).toBe(0);
      expect(dry.stdout).toMatch(/^\+/m);
      expect(dry.stderr).toContain("--write");
      expect(filesIn(folder)).toEqual(before);
      expect((await fond(folder, command, ...args, "--check")).status).toBe(1);
      expect(filesIn(folder)).toEqual(before);
      expect((await fond(folder, command, ...args, "--write")).status).toBe(0);
      expect(filesIn(folder)).not.toEqual(before);
      const again = await fond(folder, command, ...args, "--check");
      expect(again).toMatchObject({ status: 0 });
      expect(again.stdout).toContain("Nothing to do.");
    },
  );

  test("a plan as JSON holds edits with file, kind and diff, and a summary", async () => {
    const folder = temporaryProject(smallProject({ "src/late.tsx": hardCoded }));
    const { status, stdout } = await fond(folder, "extract", "--format", "json");
    expect(status).toBe(0);
    const result = json(stdout);
    expect(result).toMatchObject({
      command: "extract",
      version: 1,
      summary: { "texts replaced": 2, "files rewritten": 1, "keys added": 2 },
    });
    const edits = result["edits"] as { file: string; kind: string; diff: string }[];
    expect(edits.map(({ file, kind }) => [file, kind])).toEqual([
      ["src/late.tsx", "change"],
      ["texts/en.json", "change"],
    ]);
    expect(edits[0]?.diff).toContain(
      '+  return <p title={t("late.delayNotice")}>{t("late.lateBoat", { boat })}</p>;',
    );
  });
});

describe("extract, text by text", () => {
  const three =
    "export const A = () => (\n  <div>\n    <h1>One text</h1>\n    <p>Two texts</p>\n    <p>Three texts</p>\n  </div>\n);\n";
  const start = () =>
    temporaryProject(smallProject({ "src/a.tsx": `import { t } from "./messages";\n${three}` }));
  const codeOf = (folder: string) => readFileSync(join(folder, "src/a.tsx"), "utf8");

  test("takes, renames, words anew, waives, and leaves what comes after a stop", async () => {
    const folder = start();
    const answers = "k\na.first\nm\nThe first text\n\nw\na name\nq\n";
    const { status, stdout } = await fondTold(folder, answers, "extract", "src/a.tsx", "--review");
    expect(status).toBe(0);
    expect(stdout).toContain("1/3");
    expect(codeOf(folder)).toContain('<h1>{t("a.first")}</h1>\n    <p>Two texts</p>\n    <p>Three texts</p>');
    expect(readFileSync(join(folder, "texts/en.json"), "utf8")).toContain('"first": "The first text"');
    expect(readFileSync(join(folder, "fond.waivers.json"), "utf8")).toContain('"reason": "a name"');
    const rest = await fondTold(folder, "A\n", "extract", "src/a.tsx", "--review");
    expect(rest.stdout).toContain("1/1");
    expect(codeOf(folder)).toContain('<p>Two texts</p>\n    <p>{t("a.threeTexts")}</p>');
  });

  test("all of a kind at once; a fault in an answer is said and asked again", async () => {
    const folder = start();
    const { stdout } = await fondTold(folder, "x\ns\na\n", "extract", "src/a.tsx", "--review");
    expect(stdout).toContain('unknown answer "x"');
    expect(codeOf(folder)).toContain(
      '<h1>One text</h1>\n    <p>{t("a.twoTexts")}</p>\n    <p>{t("a.threeTexts")}</p>',
    );
  });

  test("the end of the answers is a stop: nothing is taken that was not agreed to", async () => {
    const folder = start();
    const before = filesIn(folder);
    expect((await fondTold(folder, "", "extract", "src/a.tsx", "--review")).status).toBe(0);
    expect(filesIn(folder)).toEqual(before);
  });

  test("keys by place on the command line; one that is taken is refused", async () => {
    const folder = start();
    await fond(
      folder,
      "extract",
      "src/a.tsx",
      "--write",
      "--key",
      "src/a.tsx:4=home.lead",
      "--key",
      "src/a.tsx:5=home",
    );
    expect(codeOf(folder)).toContain(
      '<h1>{t("home.lead")}</h1>\n    <p>Two texts</p>\n    <p>{t("a.threeTexts")}</p>',
    );
    expect((await fond(folder, "extract", "--key", "nothing")).status).toBe(2);
  });
});

describe("without a configuration", () => {
  const small = smallProject({ "src/late.tsx": hardCoded });
  const found = Object.fromEntries(Object.entries(small).filter(([file]) => file !== "fond.config.json"));

  test.each([
    ["survey", /Delay notice/],
    ["lint", /no findings|\d (?:errors?|warnings?|info)/],
    ["balance", /\bde +[^a-z]*100/],
    ["preview", /Abfahrten/],
  ])("%s reads what init would propose, and says so", async (command, expected) => {
    const folder = temporaryProject(found);
    const before = filesIn(folder);
    const { stdout, stderr } = await fond(folder, command, ...(command === "preview" ? ["**"] : []));
    expect(stderr).toContain("No configuration: reading texts/{locale}.json with source locale en.");
    expect(stdout).toMatch(expected);
    expect(filesIn(folder)).toEqual(before);
  });

  test("commands that write, and folders with nothing to read, ask for one", async () => {
    for (const args of [["reconcile"], ["extract"], ["lint", "--fix"], ["survey", "--baseline"]]) {
      const { status, stderr } = await fond(temporaryProject(found), ...args);
      expect([args.join(" "), status]).toEqual([args.join(" "), 2]);
      expect(stderr).toContain("fond init");
    }
    const empty = await fond(temporaryProject({ "notes.txt": "" }), "survey");
    expect([empty.status, empty.stdout]).toEqual([2, ""]);
  });
});

test("a gate says what it could not look at", async () => {
  const broken = temporaryProject(smallProject({ "src/late.tsx": "const x = ;\n" }));
  const partly = await fond(broken, "survey", "--check");
  expect([partly.status, partly.stdout]).toEqual([
    0,
    "No text in what could be read; 1 file was not read whole.\n",
  ]);
  writeFileSync(join(broken, "src/late.tsx"), Buffer.from([0xff, 0xfe, 0x3c]));
  expect((await fond(broken, "survey", "--check")).status).toBe(3);
});

describe("extract in a project with a formatter of its own", () => {
  const wide =
    'import { t } from "./messages";\n\nexport const Fare = ({ boat, count }) => (\n  <p>\n    You have {count} seats in {boat.name} from the harbor\n  </p>\n);\n';
  const folder = temporaryProject(
    smallProject({
      "package.json": '{ "devDependencies": { "prettier": "*" }, "prettier": { "printWidth": 57 } }',
      "src/wide.tsx": wide,
      "src/other.tsx": wide.replace("  <p>", "    <p>"),
    }),
  );
  mkdirSync(join(folder, "node_modules"));
  symlinkSync(join(root, "node_modules/prettier"), join(folder, "node_modules/prettier"), "dir");

  test("formats the files that it had formatted, and no others", async () => {
    const { stdout } = await fond(folder, "extract", "--no-review");
    expect(stdout).toMatch(
      /^\+ {4}\{t\("wide\.[a-zA-Z]+", \{\n\+ {6}count,\n\+ {6}name: boat\.name,\n\+ {4}\}\)\}$/m,
    );
    expect(stdout).toMatch(/^\+ {4}\{t\("other\.[a-zA-Z0-9]+", \{ count, name: boat\.name \}\)\}$/m);
  });

  test("or none, if that is wanted", async () => {
    const { stdout } = await fond(folder, "extract", "--no-review", "--as-written");
    expect(stdout).toMatch(/^\+ {4}\{t\("wide\.[a-zA-Z0-9]+", \{ count, name: boat\.name \}\)\}$/m);
  });

  test("and goes on as before where that is not installed, or cannot read the file", async () => {
    rmSync(join(folder, "node_modules"), { recursive: true });
    const { status, stdout } = await fond(folder, "extract", "--no-review");
    expect(status).toBe(0);
    expect(stdout).toContain("+");
  });
});

describe("extract --collect", () => {
  const config = JSON.stringify({
    source: "en",
    targets: [],
    books: [
      {
        name: "site",
        code: ["pages/**"],
        files: "texts/{locale}.json",
        lookups: [{ call: "t", default: 1 }],
        marked: [{ attribute: "data-say", key: "data-key", note: "data-note" }],
      },
    ],
  });
  const page =
    '<p data-say data-key="top.hello">{n, plural, one {One guest} other {# guests}}</p>\n<p>Not marked</p>\n';
  const files = {
    "fond.config.json": config,
    "texts/en.json": "{}\n",
    "pages/top.html": page,
    "pages/a.ts": 'export const f = () => t("top.late", "The boat is late");\n',
  };

  test("takes what has its key in code and templates, and changes none of them", async () => {
    const folder = temporaryProject(files);
    expect((await fond(folder, "extract", "--collect", "--write")).status).toBe(0);
    expect(json(filesIn(folder)["texts/en.json"] ?? "")).toEqual({
      top: { hello: "{n, plural, one {One guest} other {# guests}}", late: "The boat is late" },
    });
    expect(filesIn(folder)["pages/top.html"]).toBe(page);
    expect((await fond(folder, "extract", "--collect", "--check")).status).toBe(0);
    expect((await fond(folder, "lint", "--max-warnings", "0")).stdout).toContain("no findings");
  });

  test("of a mark without a key says so, unless texts are their own keys", async () => {
    const marked = { ...files, "pages/top.html": `${page}<p data-say>No key</p>\n` };
    const folder = temporaryProject(marked);
    const { stdout } = await fond(folder, "extract", "--collect");
    expect((await fond(folder, "extract", "--collect", "--check")).status).toBe(1);
    expect(stdout).toContain('pages/top.html:3:13  "No key" is marked, and its mark gives no key');
    const texts = JSON.parse(config) as { books: object[] };
    const books = [{ ...texts.books[0], naming: { pattern: "{text}" } }];
    const other = temporaryProject({ ...marked, "fond.config.json": JSON.stringify({ ...texts, books }) });
    expect((await fond(other, "extract", "--collect", "--write")).status).toBe(0);
    expect(json(filesIn(other)["texts/en.json"] ?? "")).toMatchObject({ "No key": "No key" });
  });

  test("says where a key has another text already, and leaves that", async () => {
    const texts = '{ "top.hello": "Good day" }\n';
    const folder = temporaryProject({ ...files, "texts/en.json": texts });
    const { stdout, stderr } = await fond(folder, "extract", "--collect", "--write");
    expect(stdout + stderr).toContain('key "top.hello" has a different default text here');
    expect(json(filesIn(folder)["texts/en.json"] ?? "")).toMatchObject({ "top.hello": "Good day" });
  });
});

describe("list", () => {
  const project = () =>
    temporaryProject(
      smallProject({
        "texts/en.json":
          '{\n  "nav.home": "Home page",\n  "nav.boats": "{n, plural, one {# boat} other {# boats}}"\n}\n',
        "texts/de.json": '{\n  "nav.home": "Startseite"\n}\n',
      }),
    );

  test("keys by pattern, with text, state and place in each locale", async () => {
    const { status, stdout } = await fond(project(), "list", "nav.*", "--locale", "en", "de");
    expect(status).toBe(0);
    expect(stdout).toBe(
      "nav.home\n  en  source      Home page  texts/en.json:2\n  de  translated  Startseite  texts/de.json:2\n\n" +
        "nav.boats\n  en  source      {n, plural, one {# boat} other {# boats}}  texts/en.json:3\n  de  missing\n",
    );
  });

  test("as JSON, one locale, and a key that is none", async () => {
    const folder = project();
    const { keys } = json(
      (await fond(folder, "list", "nav.home", "--locale", "de", "--format", "json")).stdout,
    );
    expect(keys).toEqual([
      {
        book: expect.any(String),
        key: "nav.home",
        texts: [{ locale: "de", text: "Startseite", file: "texts/de.json", line: 2, state: "translated" }],
      },
    ]);
    const wrong = await fond(folder, "list", "nav.hom");
    expect([wrong.status, wrong.stderr]).toEqual([2, expect.stringContaining("did you mean nav.home")]);
  });
});

test("list tells what cannot be read from what is missing", async () => {
  const folder = temporaryProject(
    smallProject({ "texts/en.json": '{ "nav.home": "Home page" }', "texts/de.json": '{ "nav.home": "Start' }),
  );
  const { status, stdout, stderr } = await fond(folder, "list");
  expect([status, stdout]).toEqual([
    3,
    "nav.home\n  en  source      Home page  texts/en.json:1\n  de  unreadable\n  pl  missing\n",
  ]);
  expect(stderr).toContain("texts/de.json: cannot be read");
});

describe("a long plan of extract", () => {
  const many = Object.fromEntries(
    Array.from({ length: 27 }, (_, at) => [
      `src/pages/p${at}.tsx`,
      `import { t } from "../messages";\nexport const A${at} = () => <p>Boat number ${at} left</p>;\nconst labels${at} = made({ title: "Deck plan ${at}" });\n`,
    ]),
  );

  test("is summed up by folder, lists its files until diffs are asked for, and tells equal reasons once", async () => {
    const folder = temporaryProject(smallProject(many));
    const { stdout } = await fond(folder, "extract", "--no-review");
    expect(stdout).toMatch(/^Folder +moved +refused\nsrc\/pages +27 +27\n27 between tags\n/);
    expect(stdout).not.toContain("@@");
    expect(stdout).toContain("  change  src/pages/p0.tsx\n");
    expect(stdout).toContain("27 not extracted: it is evaluated when the file is loaded");
    expect(stdout).toContain("… and 24 more (--verbose shows them)");
    const whole = (await fond(folder, "extract", "--no-review", "--diff")).stdout;
    expect(whole).toContain('+export const A26 = () => <p>{t("p26.boatNumber26Left")}</p>;');
    const verbose = (await fond(folder, "extract", "--no-review", "--verbose")).stdout;
    expect(verbose.split("evaluated when the file is loaded")).toHaveLength(28);
  });

  test("shows the riskiest files first", async () => {
    const folder = temporaryProject(
      smallProject({
        "src/a.tsx": 'import { t } from "./messages";\nexport const A = () => <p>All boats left</p>;\n',
        "src/b.tsx":
          'import { t } from "./messages";\nexport const B = ({ n }) => <p>{n === 1 ? "One boat" : `${n} boats`}</p>;\n',
      }),
    );
    const { stdout } = await fond(folder, "extract", "--no-review");
    expect(stdout.indexOf("src/b.tsx (")).toBeLessThan(stdout.indexOf("src/a.tsx ("));
    expect(stdout.indexOf("src/b.tsx (")).toBeGreaterThan(0);
  });

  test("takes what is likely when asked to", async () => {
    const folder = temporaryProject(
      smallProject({
        "src/a.tsx":
          'import { t } from "./messages";\nexport const f = () => ({ caption: go("Many boats left") });\n',
      }),
    );
    const sure = json((await fond(folder, "extract", "--no-review", "--format", "json")).stdout);
    expect(sure["summary"]).toEqual({ "likely texts left": 1 });
    const likely = json(
      (await fond(folder, "extract", "--no-review", "--format", "json", "--include", "likely")).stdout,
    );
    expect(likely["summary"]).toMatchObject({ "texts replaced": 1 });
    expect((await fond(folder, "extract", "--include", "everything")).status).toBe(2);
  });
});

describe("survey", () => {
  test("leaves tests and libraries out, says so, and reads them where asked to", async () => {
    const folder = temporaryProject(
      smallProject({
        "src/late.tsx": hardCoded,
        "src/late.test.tsx": hardCoded,
        "src/vendor/pick.tsx": hardCoded,
      }),
    );
    const { stdout } = await fond(folder, "survey");
    expect(stdout).toContain("tests (1 file), vendored (1 file); --everything reads them");
    expect(stdout).toContain("2 text (2 sure)");
    expect((await fond(folder, "survey", "--everything")).stdout).toContain("6 text (6 sure)");
    expect(json((await fond(folder, "survey", "--format", "json")).stdout)).toMatchObject({
      counts: { text: 2 },
      leftOut: { tests: 1, vendored: 1 },
    });
    const planned = json((await fond(folder, "extract", "--format", "json", "--no-review")).stdout);
    expect((planned["edits"] as { file: string }[]).map(({ file }) => file)).not.toContain(
      "src/late.test.tsx",
    );
  });

  test("explains a line: all evidence for and against", async () => {
    const folder = temporaryProject(smallProject({ "src/late.tsx": hardCoded }));
    const { stdout, status } = await fond(folder, "survey", "--explain", "src/late.tsx:2");
    expect(status).toBe(0);
    expect(stdout).toMatch(
      /Delay notice\n.*\n.*\^{14}\n {2}surely text, \d+ % likely to be text\n {4}for +3\.5 {2}title of <p>/,
    );
    const { literals } = json(
      (await fond(folder, "survey", "--explain", "src/late.tsx:2", "--format", "json")).stdout,
    );
    expect((literals as { evidence: object[] }[])[0]?.evidence).toContainEqual({
      name: "textAttribute",
      reason: "title of <p>",
      weight: 3.5,
    });
    expect((await fond(folder, "survey", "--explain", "src/late.tsx:1")).stderr).toContain(
      "no string at src/late.tsx:1",
    );
    expect((await fond(folder, "survey", "--explain", "src/late.tsx")).status).toBe(2);
  });

  test("--check fails for text that is neither waived nor in the baseline, which only what is written changes", async () => {
    const folder = temporaryProject(smallProject({ "src/late.tsx": hardCoded }));
    expect((await fond(folder, "survey", "--check")).status).toBe(1);
    expect((await fond(folder, "survey", "--write")).status).toBe(2);
    expect((await fond(folder, "survey", "--baseline", "src")).status).toBe(2);
    const before = filesIn(folder);
    expect((await fond(folder, "survey", "--baseline")).status).toBe(0);
    expect(filesIn(folder)).toEqual(before);
    expect((await fond(folder, "survey", "--baseline", "--write")).status).toBe(0);
    expect(readFileSync(join(folder, "fond-ledger/code.txt"), "utf8")).toBe(
      "# Fond Ledger 1: texts left in code\n1\tapp\tDelay notice\n1\tapp\tThe {boat} is late\n",
    );
    const clean = await fond(folder, "survey", "--check");
    expect(clean.status).toBe(0);
    expect(clean.stdout).toContain("No text in code that the baseline does not have.");
    // The same text once more is more than the baseline allows, in whatever file.
    writeFileSync(join(folder, "src/more.tsx"), hardCoded.replace("Delay notice", "A new notice"));
    const more = await fond(folder, "survey", "--check");
    expect(more.status).toBe(1);
    expect(more.stdout).toContain("A new notice");
    expect(more.stdout).toContain("2 texts in code that the baseline does not have");
    expect(
      (json((await fond(folder, "survey", "--check", "--format", "json")).stdout)["literals"] as object[])
        .length,
    ).toBe(2);
    // With less text the baseline shrinks, and goes away with the last.
    rmSync(join(folder, "src/more.tsx"));
    rmSync(join(folder, "src/late.tsx"));
    expect((await fond(folder, "survey", "--baseline", "--write")).status).toBe(0);
    expect(existsSync(join(folder, "fond-ledger/code.txt"))).toBe(false);
  });

  test("as JSON: every field of the contract", async () => {
    const folder = temporaryProject(smallProject({ "src/late.tsx": hardCoded }));
    const { status, stdout, stderr } = await fond(folder, "survey", "--format", "json");
    expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
    const result = json(stdout);
    expect(result).toMatchObject({
      command: "survey",
      version: 1,
      counts: { text: 2, unclear: 0, code: 0, waived: 0 },
    });
    expect((result["literals"] as object[])[1]).toEqual({
      isSure: true,
      file: "src/late.tsx",
      line: 2,
      column: 34,
      endLine: 2,
      endColumn: 52,
      text: "The {boat} is late",
      message: "The {boat} is late",
      verdict: "text",
      score: expect.any(Number),
      reason: expect.stringContaining("<p>"),
      context: expect.objectContaining({ role: "content", element: "p", component: "Late" }),
      book: "app",
    });
  });

  test("paths narrow it, from wherever it is called", async () => {
    const folder = temporaryProject(
      smallProject({
        "src/late.tsx": hardCoded,
        "src/deep/other.tsx": "export const A = () => <p>Other text</p>;",
      }),
    );
    const files = (outcome: { stdout: string }) =>
      (json(outcome.stdout)["literals"] as { file: string }[]).map(({ file }) => file);
    expect(files(await fond(folder, "survey", "--format", "json", "src/deep"))).toEqual([
      "src/deep/other.tsx",
    ]);
    expect(
      files(await fond(join(folder, "src"), "survey", "--format", "json", "--cwd", "..", "deep")),
    ).toEqual(["src/deep/other.tsx"]);
  });

  test("for people: file, line with the place marked, reason, counts", async () => {
    const folder = temporaryProject(smallProject({ "src/late.tsx": hardCoded }));
    const { stdout } = await fond(folder, "survey", "--verbose");
    expect(stdout).toContain("src/late.tsx\n");
    expect(stdout).toMatch(/2 │ return <p title="Delay notice">.*\n\s+│ \s+\^{14}\n/);
    expect(stdout).toContain("2 text (2 sure), 0 unclear, 0 code in 2 files.");
  });

  test("a file that does not parse is told of, and the others are read", async () => {
    const folder = temporaryProject(
      smallProject({ "src/late.tsx": hardCoded, "src/broken.tsx": "let x = ;" }),
    );
    const { status, stdout, stderr } = await fond(folder, "survey", "--format", "json");
    expect(status).toBe(0);
    expect(stderr).toMatch(/^src\/broken\.tsx:1:9: /);
    expect(json(stdout)).toMatchObject({ counts: { text: 2 } });
  });

  test("a file that is no text is told of with status 3", async () => {
    const folder = temporaryProject(smallProject());
    writeFileSync(join(folder, "src/binary.tsx"), Buffer.from([0x61, 0xff, 0xfe, 0x00]));
    const { status, stderr } = await fond(folder, "survey");
    expect(status).toBe(3);
    expect(stderr).toMatch(/src\/binary\.tsx: not read: byte 1 is not valid UTF-8/);
  });

  test("files that .gitignore excludes are not code", async () => {
    const folder = temporaryProject(smallProject({ ".gitignore": "late.*\n", "src/late.tsx": hardCoded }));
    expect(json((await fond(folder, "survey", "--format", "json")).stdout)).toMatchObject({
      counts: { text: 0 },
    });
  });
});

describe("lint", () => {
  test("in order: status 0", async () => {
    const { status, stdout } = await fond(temporaryProject(smallProject()), "lint");
    expect({ status, stdout }).toEqual({ status: 0, stdout: "✓ no findings\n" });
  });

  test("an error: status 1, and every field of the contract", async () => {
    const folder = temporaryProject(
      smallProject({ "texts/de.json": '{\n  "home": {\n    "title": "Abfahrten"\n  }\n}\n' }),
    );
    const { status, stdout } = await fond(folder, "lint", "--format", "json");
    expect(status).toBe(1);
    expect(json(stdout)).toEqual({
      command: "lint",
      version: 1,
      findings: [
        {
          rule: "key/missing",
          messageId: "missing",
          data: { key: "home.count", locale: "de", source: expect.any(String) },
          severity: "error",
          message: expect.stringContaining("home.count"),
          remedy: expect.any(String),
          file: "texts/de.json",
          line: 3,
          column: 25,
          endLine: 3,
          endColumn: 25,
          book: "app",
          locale: "de",
          key: "home.count",
        },
      ],
      counts: { error: 1, warning: 0, info: 0 },
    });
  });

  test("warnings alone: status 0; a rule's level is the configuration's", async () => {
    const folder = temporaryProject(
      smallProject({ "src/home.tsx": 'export const a = () => t("home.title");\n' }),
    );
    expect((await fond(folder, "lint")).status).toBe(0);
    const config = json(readFileSync(join(folder, "fond.config.json"), "utf8"));
    writeFileSync(
      join(folder, "fond.config.json"),
      JSON.stringify({ ...config, rules: { "key/unused": "error" } }),
    );
    expect((await fond(folder, "lint")).status).toBe(1);
    writeFileSync(
      join(folder, "fond.config.json"),
      JSON.stringify({ ...config, rules: { "key/unused": "off" } }),
    );
    expect((await fond(folder, "lint")).stdout).toContain("no findings");
  });

  test("--locale and paths narrow what is reported", async () => {
    const folder = temporaryProject(smallProject({ "texts/de.json": "{}", "texts/pl.json": "{}" }));
    const files = async (...args: string[]) =>
      new Set(
        (
          json((await fond(folder, "lint", "--format", "json", ...args)).stdout)["findings"] as {
            file: string;
          }[]
        ).map(({ file }) => file),
      );
    expect([...(await files())]).toEqual(["texts/de.json", "texts/pl.json"]);
    expect([...(await files("--locale", "pl"))]).toEqual(["texts/pl.json"]);
    expect([...(await files("texts/de.json"))]).toEqual(["texts/de.json"]);
  });

  test("one broken file does not hide findings in others", async () => {
    const folder = temporaryProject(
      smallProject({ "texts/de.json": '{ "home": ', "texts/pl.json": '{ "home": { "title": "Rejsy" } }' }),
    );
    const found = (
      json((await fond(folder, "lint", "--format", "json")).stdout)["findings"] as {
        rule: string;
        file: string;
      }[]
    ).map(({ rule, file }) => `${rule} ${file}`);
    expect(found).toEqual(["file/unreadable texts/de.json", "key/missing texts/pl.json"]);
  });

  test("--output writes the result to a file", async () => {
    const folder = temporaryProject(smallProject());
    const { stdout } = await fond(folder, "lint", "--format", "json", "--output", "found.json");
    expect(stdout).toBe("");
    expect(json(readFileSync(join(folder, "found.json"), "utf8"))).toMatchObject({ command: "lint" });
  });
});

describe("balance", () => {
  test("as JSON and for people", async () => {
    const folder = temporaryProject(
      smallProject({ "texts/pl.json": '{ "home": { "title": "Sailings", "more": "x" } }' }),
    );
    expect(json((await fond(folder, "balance", "--format", "json")).stdout)).toEqual({
      command: "balance",
      version: 1,
      books: [
        {
          name: "app",
          keys: 2,
          locales: [
            {
              locale: "de",
              translated: 2,
              reviewed: 0,
              stale: 0,
              initial: 0,
              missing: 0,
              extra: 0,
              words: 0,
              share: 1,
            },
            {
              locale: "pl",
              translated: 0,
              reviewed: 0,
              stale: 0,
              initial: 1,
              missing: 1,
              extra: 1,
              words: 3,
              share: 0,
            },
          ],
        },
      ],
    });
    const { stdout } = await fond(folder, "balance");
    expect(stdout).toMatch(/^app 2 keys\n/);
    expect(stdout).toMatch(/^pl\s+░+\s+0\.0 %\s+0\s+0\s+0\s+1\s+1\s+1\s+3$/m);
    expect(stdout).toMatch(/^de\s+█+\s+100\.0 %/m);
  });
});

describe("init", () => {
  test("finds catalogs, locales, source, lookups and where they are imported from", async () => {
    const folder = temporaryProject(smallProject());
    rmSync(join(folder, "fond.config.json"));
    const dry = await fond(folder, "init");
    expect(dry.status).toBe(0);
    expect(existsSync(join(folder, "fond.config.json"))).toBe(false);
    expect(dry.stderr).toContain("texts/{locale}.json has 2 keys in de, en, pl.");
    expect((await fond(folder, "init", "--write")).status).toBe(0);
    expect(json(readFileSync(join(folder, "fond.config.json"), "utf8"))).toEqual({
      source: "en",
      targets: ["de", "pl"],
      books: [
        {
          name: "texts",
          code: ["src/**/*.tsx"],
          files: "texts/{locale}.json",
          lookups: [{ call: "t" }],
          emit: { call: 't("{key}"{args})', import: 'import { t } from "{to:src/messages}";' },
        },
      ],
    });
    expect((await fond(folder, "lint")).status).toBe(0);
    expect(await fond(folder, "init", "--write")).toMatchObject({ status: 2 });
  });

  test("finds namespaces, underscores and components", async () => {
    const catalog = (text: string) => JSON.stringify({ title: text, note: text });
    const folder = temporaryProject({
      "app/locales/en/home.json": catalog("Home"),
      "app/locales/en/fares.json": catalog("Fares"),
      "app/locales/pt_BR/home.json": catalog("Início"),
      "app/locales/pt_BR/fares.json": catalog("Tarifas"),
      "app/page.jsx": 'export const A = () => <Text id="home.title">{say("fares.note")}</Text>;',
      "package.json": '{ "name": "en" }',
    });
    await fond(folder, "init", "--write");
    expect(json(readFileSync(join(folder, "fond.config.json"), "utf8"))).toMatchObject({
      source: "en",
      targets: ["pt-BR"],
      books: [
        {
          code: ["app/**/*.jsx"],
          files: "app/locales/{locale}/{namespace}.json",
          spelling: "underscore",
          lookups: [{ call: "say" }, { component: "Text", key: "id" }],
        },
      ],
    });
    expect((await fond(folder, "balance")).status).toBe(0);
  });

  test("an empty project gets a configuration to start from", async () => {
    const folder = temporaryProject();
    expect((await fond(folder, "init", "--write")).status).toBe(0);
    for (const command of ["survey", "extract", "reconcile", "balance"])
      expect([command, (await fond(folder, command)).status]).toEqual([command, 0]);
    const { status, stdout } = await fond(folder, "lint");
    expect(status).toBe(1);
    expect(stdout).toContain("no catalog matches");
  });
});

describe("wrong usage and trouble", () => {
  const cases: [string, Record<string, string>, string[], number, RegExp][] = [
    ["no configuration", {}, ["lint"], 2, /fond\.config\.json.*\n.*fond init/],
    [
      "a broken configuration",
      { "fond.config.json": "{" },
      ["lint"],
      2,
      /fond\.config\.json:1:\d: invalid JSON/,
    ],
    [
      "a wrong setting",
      { "fond.config.json": '{ "source": "en", "targets": [], "books": [], "bokos": 1 }' },
      ["lint"],
      2,
      /1:47: bokos: .*\n.*"books"/,
    ],
    [
      "a rule that is none",
      smallProject({
        "fond.config.json":
          '{ "source": "en", "targets": [], "books": [{ "name": "a", "files": "{locale}.json" }], "rules": { "key/mising": "off" } }',
      }),
      ["lint"],
      2,
      /unknown rule "key\/mising"/,
    ],
    ["an unknown command", {}, ["lnit"], 2, /unknown command 'lnit'/],
    ["an unknown option", {}, ["lint", "--fromat", "json"], 2, /unknown option '--fromat'/],
    ["an unknown format", {}, ["lint", "--format", "jsn"], 2, /did you mean json/],
    ["an unknown locale", smallProject(), ["lint", "--locale", "dee"], 2, /unknown locale "dee"\n.*"de"/],
    ["an unknown book", smallProject(), ["lint", "--book", "ap"], 2, /unknown book "ap"\n.*"app"/],
    ["a path that is not there", smallProject(), ["survey", "sorc"], 2, /no file or folder "sorc"/],
    ["a folder that is not there", {}, ["lint", "--cwd", "nowhere"], 2, /no folder "nowhere"/],
    ["a limit that is no number", smallProject(), ["extract", "--limit", "some"], 2, /whole number/],
    [
      "an output that cannot be written",
      smallProject(),
      ["lint", "--output", "no/such/folder.json"],
      3,
      /cannot be written/,
    ],
  ];
  test.each(cases)("%s", async (_, files, args, status, words) => {
    const folder = temporaryProject(files);
    const before = filesIn(folder);
    const outcome = await fond(folder, ...args);
    expect(outcome.stderr).toMatch(words);
    expect(outcome.stderr).not.toContain("    at ");
    expect(outcome.status).toBe(status);
    expect(outcome.stdout).toBe("");
    expect(filesIn(folder)).toEqual(before);
  });

  test("a rule of another version is told of and passed over", async () => {
    const config = json(smallProject()["fond.config.json"] ?? "");
    const folder = temporaryProject(
      smallProject({
        "fond.config.json": JSON.stringify({
          ...config,
          rules: { "shape/of-things-to-come": "off" },
        }),
      }),
    );
    const { status, stderr, stdout } = await fond(folder, "lint");
    expect({ status, stdout }).toEqual({ status: 0, stdout: "✓ no findings\n" });
    expect(stderr).toContain('"shape/of-things-to-come"');
  });

  test("a source catalog that is not there is one finding, not one for each key", async () => {
    const folder = temporaryProject(smallProject({ "src/home.tsx": "export const nothing = 0;\n" }));
    rmSync(join(folder, "texts/en.json"));
    const { stdout, status } = await fond(folder, "lint", "--format", "json");
    const found = json(stdout)["findings"] as { rule: string; file: string }[];
    expect(found.map(({ rule, file }) => [rule, file])).toEqual([["file/missing", "texts/en.json"]]);
    expect(status).toBe(1);
  });

  test("no catalogs at all are one finding, and reconcile has nothing to go by", async () => {
    const folder = temporaryProject(smallProject());
    rmSync(join(folder, "texts"), { recursive: true });
    const found = json((await fond(folder, "lint", "--format", "json")).stdout)["findings"] as {
      rule: string;
    }[];
    expect(new Set(found.map(({ rule }) => rule))).toEqual(new Set(["file/missing"]));
    expect((await fond(folder, "reconcile", "--check")).status).toBe(1);
  });

  test("a folder that cannot be written to: status 3, nothing changed", async () => {
    if (process.getuid?.() === 0) return;
    const folder = temporaryProject(smallProject({ "texts/de.json": "{}\n" }));
    chmodSync(join(folder, "texts"), 0o555);
    const outcome = await fond(folder, "reconcile", "--write");
    chmodSync(join(folder, "texts"), 0o755);
    expect(outcome.status).toBe(3);
    expect(readFileSync(join(folder, "texts/de.json"), "utf8")).toBe("{}\n");
  });

  test("a file where a folder must be made: status 3, nothing changed", async () => {
    const folder = temporaryProject(smallProject({ "fond-ledger": "in the way", "texts/de.json": "{}\n" }));
    const before = filesIn(folder);
    const outcome = await fond(folder, "reconcile", "--write");
    expect(outcome.status).toBe(3);
    expect(outcome.stderr).toContain("fond-ledger");
    expect(filesIn(folder)).toEqual(before);
  });

  test("--help and --version are no errors", async () => {
    const folder = temporaryProject();
    expect(await fond(folder, "--help")).toMatchObject({ status: 0 });
    expect((await fond(folder, "lint", "--help")).stdout).toContain("--locale");
    expect((await fond(folder, "--version")).stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
  });
});

describe("catalogs in other formats", () => {
  const project = (ending: string, more: object = {}) =>
    JSON.stringify({
      source: "en",
      targets: ["de"],
      books: [{ name: "app", files: `t/{locale}.${ending}`, ...more }],
    });

  test("ISO-8859-1 stays ISO-8859-1, with escapes for what it lacks", async () => {
    const folder = temporaryProject({
      "fond.config.json": project("properties"),
      "t/en.properties": Buffer.from("a=caf\u00e9\nb=\\u4e2d\n", "latin1"),
      "t/de.properties": Buffer.from("a=Caf\u00e9\n", "latin1"),
    });
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    const bytes = readFileSync(join(folder, "t/de.properties"));
    expect(bytes.equals(Buffer.from("a=Caf\u00e9\nb=\\u4e2d\n", "latin1"))).toBe(true);
    expect((await fond(folder, "reconcile", "--check")).status).toBe(0);
  });

  test("a link to outside the project is not read, one inside stays a link, and a read-only file is said", async () => {
    const outside = temporaryProject({ "secret.json": '{"a": "x"}' });
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de", "fr"],
        books: [{ name: "app", files: "t/{locale}.json" }],
      }),
      "t/en.json": '{\n  "a": "One"\n}\n',
      "held/french.json": "{}\n",
    });
    symlinkSync(join(outside, "secret.json"), join(folder, "t/de.json"));
    symlinkSync("../held/french.json", join(folder, "t/fr.json"));
    const done = await fond(folder, "reconcile", "--write");
    expect(done.stdout).toContain("symbolic link");
    expect(readFileSync(join(outside, "secret.json"), "utf8")).toBe('{"a": "x"}');
    expect(lstatSync(join(folder, "t/fr.json")).isSymbolicLink()).toBe(true);
    expect(readFileSync(join(folder, "held/french.json"), "utf8")).toContain("One");
    writeFileSync(join(folder, "t/en.json"), '{\n  "a": "One",\n  "b": "Two"\n}\n');
    chmodSync(join(folder, "held/french.json"), 0o444);
    const refused = await fond(folder, "reconcile", "--write");
    expect(refused).toMatchObject({ status: 3 });
    expect(refused.stderr).toContain("read-only");
    expect(readFileSync(join(folder, "held/french.json"), "utf8")).not.toContain("Two");
  });

  test("convert moves the book, its configuration and nothing else; a refusal says why", async () => {
    const folder = temporaryProject({
      "fond.config.json": project("json"),
      "t/en.json": '{\n  "a": { "b": "One" }\n}\n',
      "t/de.json": '{\n  "a": { "b": "Eins" }\n}\n',
    });
    expect(await fond(folder, "convert")).toMatchObject({ status: 2 });
    expect(await fond(folder, "convert", "--to", "yml")).toMatchObject({ status: 2 });
    expect((await fond(folder, "convert", "--to", "yaml", "--write")).status).toBe(0);
    const after = filesIn(folder);
    expect(Object.keys(after)).toEqual(["fond.config.json", "t/de.yaml", "t/en.yaml"]);
    expect(after["t/de.yaml"]).toBe("a:\n  b: Eins\n");
    expect((await fond(folder, "lint")).status).toBe(0);
    writeFileSync(join(folder, "t/en.yaml"), "a: x\na: y\n");
    const refused = await fond(folder, "convert", "--to", "json", "--write");
    expect(refused.status).toBe(1);
    expect(refused.stderr).toContain("t/en.yaml:1:1");
  });
});

describe("lint for old projects", () => {
  const files = smallProject({ "texts/de.json": '{\n  "home": {\n    "title": "Sailings"\n  }\n}\n' });

  test("a baseline accepts what is there, and only what is new shows", async () => {
    const folder = temporaryProject(files);
    expect((await fond(folder, "lint")).status).toBe(1);
    expect((await fond(folder, "lint", "--baseline", "--write")).status).toBe(0);
    const after = await fond(folder, "lint", "--format", "json");
    expect(after.status).toBe(0);
    expect(json(after.stdout)["findings"]).toEqual([]);
    writeFileSync(join(folder, "texts/pl.json"), "{}\n");
    const found = json((await fond(folder, "lint", "--format", "json")).stdout)["findings"] as {
      locale: string;
    }[];
    expect(found.length).toBeGreaterThan(0);
    expect(found.every(({ locale }) => locale === "pl")).toBe(true);
  });

  test("--rule narrows, --max-warnings fails, and both say what is wrong with them", async () => {
    const folder = temporaryProject(files);
    const only = json((await fond(folder, "lint", "--rule", "text/untranslated", "--format", "json")).stdout);
    expect((only["findings"] as { rule: string }[]).map(({ rule }) => rule)).toEqual(["text/untranslated"]);
    expect((await fond(folder, "lint", "--rule", "text/untranslated")).status).toBe(0);
    expect((await fond(folder, "lint", "--rule", "text/untranslated", "--max-warnings", "0")).status).toBe(1);
    expect(await fond(folder, "lint", "--max-warnings", "few")).toMatchObject({ status: 2 });
    expect(await fond(folder, "lint", "--write")).toMatchObject({ status: 2 });
    const near = await fond(folder, "lint", "--rule", "text/untranslatd");
    expect(near.status).toBe(2);
    expect(near.stderr).toContain("text/untranslated");
  });
});

describe("lint in other forms", () => {
  const faulty = smallProject({
    "texts/de.json": '{ "home": { "title": "Abfahrten <&\\" ", "count": "{n} Boote" } }\n',
  });
  test("SARIF holds rules, places and fingerprints that stay when lines move", async () => {
    const folder = temporaryProject(faulty);
    const read = async () =>
      JSON.parse((await fond(folder, "lint", "--format", "sarif")).stdout) as {
        version: string;
        runs: {
          tool: { driver: { rules: { id: string }[] } };
          results: {
            ruleId: string;
            ruleIndex: number;
            partialFingerprints: Record<string, string>;
            fixes?: {
              artifactChanges: {
                artifactLocation: { uri: string };
                replacements: {
                  deletedRegion: { startColumn: number; endColumn: number };
                  insertedContent: { text: string };
                }[];
              }[];
            }[];
            locations: { physicalLocation: { region: { startLine: number } } }[];
          }[];
        }[];
      };
    const before = await read();
    const [run] = before.runs;
    expect(before.version).toBe("2.1.0");
    expect(run?.results.length).toBeGreaterThan(1);
    for (const { ruleId, ruleIndex } of run?.results ?? [])
      expect(run?.tool.driver.rules[ruleIndex]?.id).toBe(ruleId);
    const [fix] = run?.results.flatMap(({ fixes = [] }) => fixes) ?? [];
    const [change] = fix?.artifactChanges ?? [];
    const line = readFileSync(join(folder, change?.artifactLocation.uri ?? ""), "utf8").split("\n")[0] ?? "";
    const { deletedRegion: region, insertedContent } = change?.replacements[0] ?? {};
    const mended =
      line.slice(0, (region?.startColumn ?? 1) - 1) +
      (insertedContent?.text ?? "") +
      line.slice((region?.endColumn ?? 1) - 1);
    expect(mended).toBe(line.replace('<&\\" "', '<&\\""'));
    const prints = (log: typeof before) =>
      log.runs[0]?.results.map(({ partialFingerprints }) => partialFingerprints);
    expect(new Set(prints(before)?.map((one) => JSON.stringify(one))).size).toBe(run?.results.length);
    const file = join(folder, "texts/de.json");
    writeFileSync(file, `\n\n${readFileSync(file, "utf8")}`);
    const after = await read();
    expect(prints(after)).toEqual(prints(before));
    expect(after.runs[0]?.results[0]?.locations[0]?.physicalLocation.region.startLine).toBe(3);
  });

  test("JUnit escapes what XML cannot hold; lines are one a finding; a table for a merge request", async () => {
    const folder = temporaryProject(faulty);
    const xml = await fond(folder, "lint", "--format", "junit");
    expect(xml.status).toBe(1);
    expect(xml.stdout).toMatch(/<testsuites name="fond lint" tests="\d+" failures="\d+">/);
    expect(xml.stdout.replace(/<[^<>]*>/g, "")).not.toMatch(/[<>]/);
    const lines = (await fond(folder, "lint", "--format", "lines")).stdout.trim().split("\n");
    for (const line of lines)
      expect(line).toMatch(/^texts\/\w+\.json:\d+:\d+: (?:error|warning|info): .+ \[\w+\/[\w-]+\]$/);
    const table = (await fond(folder, "lint", "--format", "markdown")).stdout;
    expect(table.split("\n").filter((line) => line.startsWith("| ")).length).toBe(lines.length + 1);
    expect((await fond(folder, "lint", "--format", "markdown", "--output", "report.md")).stdout).toBe("");
    expect(readFileSync(join(folder, "report.md"), "utf8")).toBe(table);
    expect((await fond(folder, "survey", "--format", "sarif")).status).toBe(2);
  });

  test("a text or key of several lines is printed on one", async () => {
    const folder = temporaryProject({
      ...faulty,
      "texts/en.json": JSON.stringify({ "two\nlines": "First line\nsecond line" }),
      "texts/de.json": "{}",
    });
    const { stdout } = await fond(folder, "lint", "--rule", "key/missing");
    expect(stdout).toContain('missing key "two⏎lines"');
    expect(stdout).toContain('translate "First line⏎second line"');
    const lines = (await fond(folder, "lint", "--rule", "key/missing", "--format", "lines")).stdout
      .trim()
      .split("\n");
    for (const line of lines) expect(line).toMatch(/^texts\/\w+\.json:1:1: error: .+ \[key\/missing\]$/);
  });

  test("--fix shows its plan, --write carries it out, --explain prints a rule", async () => {
    const folder = temporaryProject(faulty);
    expect((await fond(folder, "lint", "--fix")).stdout).toContain("1 finding mended");
    expect((await fond(folder, "lint", "--fix", "--check")).status).toBe(1);
    expect((await fond(folder, "lint", "--fix", "--write")).status).toBe(0);
    expect(readFileSync(join(folder, "texts/de.json"), "utf8")).toContain('"Abfahrten <&\\""');
    expect((await fond(folder, "lint", "--fix", "--check")).status).toBe(0);
    expect((await fond(folder, "lint", "--explain", "plural/flattened")).stdout).toContain("1 Boote");
    expect((await fond(folder, "lint", "--explain", "plural/flatened")).stderr).toContain("plural/flattened");
    expect((await fond(folder, "lint", "--write")).status).toBe(2);
  });
});

test("preview sets locales beside each other", async () => {
  const { stdout } = await fond(
    temporaryProject(smallProject()),
    "preview",
    "home.count",
    "--compare",
    "en",
    "pl",
  );
  const rows = stdout.split("\n").filter((line) => line.includes("n = "));
  expect(stdout).toMatch(/^ +en +pl$/m);
  expect(rows.some((row) => /^n = 1 +1 boat {2,}1 \S+/.test(row))).toBe(true);
});

describe("init asks what the files do not tell", () => {
  const page = { "src/a.tsx": "export const A = () => <h1>Sailings of today</h1>;\n" };
  const configOf = (folder: string): unknown => JSON.parse(filesIn(folder)["fond.config.json"] ?? "null");

  test("what is answered stands in the configuration; an answer that is none is asked for again", async () => {
    const folder = temporaryProject(page);
    const answers = 'en\nde, dog!\nde pt-br\nmsg\nimport { msg } from "{to:src/msg}";\n\n';
    const { status, stdout } = await fondTold(folder, answers, "init", "--ask");
    expect(status).toBe(0);
    expect(stdout).toContain("Write tags such as de or pt-BR");
    expect(configOf(folder)).toMatchObject({
      source: "en",
      targets: ["de", "pt-BR"],
      books: [
        {
          lookups: [{ call: "msg" }],
          emit: { call: 'msg("{key}"{args})', import: 'import { msg } from "{to:src/msg}";' },
        },
      ],
    });
    expect((await fond(folder, "extract", "--write")).status).toBe(0);
    expect(filesIn(folder)["src/a.tsx"]).toContain("import { msg } from");
  });

  test("at the end of the input, or with no, nothing is written", async () => {
    const folder = temporaryProject(page);
    expect((await fondTold(folder, "", "init", "--ask")).status).toBe(0);
    expect((await fondTold(folder, "\nde\n\n\nn\n", "init", "--ask")).stdout).toContain('"targets": ["de"]');
    expect(configOf(folder)).toBeNull();
  });

  test("what is proposed is what the files make likely", async () => {
    const folder = temporaryProject({
      "l/fr.json": '{ "a": "Les bateaux" }\n',
      "l/it.json": '{ "a": "Le barche" }\n',
    });
    expect((await fondTold(folder, "\n\n", "init", "--ask")).stdout).toContain("Source locale? [fr]");
    expect(configOf(folder)).toMatchObject({ source: "fr", targets: ["it"] });
  });

  test("nothing is asked where all is found, or with --yes", async () => {
    const known = {
      "src/a.tsx": 'import { t } from "./t";\nexport const A = () => <h1>{t("home.title")}</h1>;\n',
      "l/en.json": '{ "home": { "title": "Sailings" } }\n',
      "l/de.json": '{ "home": { "title": "Abfahrten" } }\n',
    };
    expect((await fondTold(temporaryProject(known), "", "init", "--ask")).stdout).not.toContain("?");
    const folder = temporaryProject(page);
    expect((await fond(folder, "init", "--yes", "--write")).status).toBe(0);
    expect(configOf(folder)).toMatchObject({ source: "en", targets: [] });
  });

  test("what another program reads has no questions in it", async () => {
    const { stdout, stderr } = await fondTold(
      temporaryProject(page),
      "",
      "init",
      "--ask",
      "--format",
      "json",
    );
    expect(JSON.parse(stdout)).toMatchObject({ command: "init" });
    expect(stderr).toContain("Source locale?");
  });
});

describe("plural forms that are kept in several keys", () => {
  const book = {
    name: "app",
    files: "t/{locale}.json",
    syntax: "double-brace",
    plurals: "suffix",
    code: ["c.tsx"],
    lookups: [{ call: "t", default: 1 }],
  };
  const folder = () =>
    temporaryProject({
      "fond.config.json": JSON.stringify({ source: "en", targets: ["de", "pl"], books: [book] }),
      "c.tsx": 'export const a = () => [t("boat", "x {{count}} y", { count: 1 }), t("gone")];\n',
      "t/en.json":
        '{"boat_one":"{{count}} boat  ","boat_other":"{{count}} boats","car_one":"TODO car","car_other":"cars"}',
      "t/de.json": '{"boat_one":"{{cuont}} Boot","boat_other":"{{count}} Boote ","x_one":"q","x_other":"r"}',
      "t/pl.json": '{"boat_one":"","boat_other":"","car_one":"","car_other":null}',
    });

  test.each<readonly [string, ...string[]]>([
    ["lint"],
    ["lint", "--format", "json"],
    ["lint", "--format", "sarif"],
    ["lint", "--format", "markdown"],
    ["lint", "--fix"],
    ["reconcile"],
    ["balance", "--todo"],
    ["balance", "--todo", "--format", "json"],
    ["preview", "**"],
    ["convert", "--plurals", "inline", "--syntax", "icu"],
  ])("are shown as forms by %s %s %s", async (...args) => {
    const { stdout, stderr } = await fond(folder(), ...args);
    expect(stdout + stderr).not.toContain("\ufdd0");
    expect((stdout + stderr).length).toBeGreaterThan(20);
  });

  test("a fix lists them by category", async () => {
    const { findings } = json((await fond(folder(), "lint", "--format", "json")).stdout) as {
      findings: { fix?: object }[];
    };
    expect(findings.flatMap(({ fix }) => fix ?? [])).toContainEqual({
      forms: { one: "{{cuont}} Boot", other: "{{count}} Boote" },
    });
  });
});
