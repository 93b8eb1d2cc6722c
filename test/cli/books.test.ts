import { afterAll, describe, expect, test } from "@jest/globals";
import { execFileSync, spawn } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, fond, program, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

const git = (cwd: string, ...args: string[]) =>
  execFileSync("git", ["-c", "user.name=Ines", "-c", "user.email=ines@quay.test", ...args], {
    cwd,
    encoding: "utf8",
    stdio: ["ignore", "pipe", "pipe"],
  });

describe("the driver for Git", () => {
  const versions = {
    json: [
      '{\n  "a": "1",\n  "z": "9"\n}\n',
      '{\n  "a": "1",\n  "m": "ours",\n  "z": "9"\n}\n',
      '{\n  "a": "1",\n  "n": "theirs",\n  "z": "9"\n}\n',
    ],
    yaml: ["a: one\nz: nine\n", "a: one\nm: ours\nz: nine\n", "a: one\nn: theirs\nz: nine\n"],
    properties: ["a=1\nz=9\n", "a=1\nm=ours\nz=9\n", "a=1\nn=theirs\nz=9\n"],
  } as const;
  test.each(Object.keys(versions) as (keyof typeof versions)[])(
    "two branches that add neighbouring keys merge without a conflict: %s",
    async (ending) => {
      const [base, ours, theirs] = versions[ending];
      const folder = temporaryProject({
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: ["de"],
          books: [{ name: "app", code: [], files: `texts/{locale}.${ending}` }],
        }),
        [`texts/en.${ending}`]: base,
      });
      git(folder, "init", "-q", "-b", "main");
      expect((await fond(folder, "init", "--merge-driver", "--write")).status).toBe(0);
      expect((await fond(folder, "init", "--merge-driver", "--check")).status).toBe(0);
      const commit = async (text: string, message: string) => {
        writeFileSync(join(folder, `texts/en.${ending}`), text);
        await fond(folder, "reconcile", "--write");
        git(folder, "add", "-A");
        git(folder, "commit", "-q", "-m", message);
      };
      await commit(base, "base");
      git(folder, "checkout", "-q", "-b", "theirs");
      await commit(theirs, "theirs");
      git(folder, "checkout", "-q", "main");
      await commit(ours, "ours");
      git(folder, "merge", "-q", "theirs", "-m", "merged");
      expect((await fond(folder, "reconcile", "--check")).status).toBe(0);
      const shown = (await fond(folder, "preview", "m", "n", "--locale", "en")).stdout;
      expect(shown).toContain("ours");
      expect(shown).toContain("theirs");
    },
  );

  test.each([
    ["that works", /^$/, ""],
    ["that cannot be run any more", /^'[^']*'/, "'/nowhere/node'"],
    ["that is gone", /'[^']*main\.js'/, "'/nowhere/main.js'"],
  ])("with a program %s, a conflict is one for Git, both sides between markers", async (_, part, gone) => {
    const folder = temporaryProject({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [{ name: "app", code: [], files: "texts/{locale}.json" }],
      }),
      "texts/en.json": '{\n  "a": "1"\n}\n',
    });
    git(folder, "init", "-q", "-b", "main");
    expect((await fond(folder, "init", "--merge-driver", "--write")).status).toBe(0);
    const driver = git(folder, "config", "merge.fond.driver");
    expect(driver).not.toContain("npx");
    git(folder, "config", "merge.fond.driver", driver.replace(part, gone).trim());
    const commit = (text: string) => {
      writeFileSync(join(folder, "texts/en.json"), `{\n  "a": "${text}"\n}\n`);
      git(folder, "add", "-A");
      git(folder, "commit", "-q", "-m", text);
    };
    commit("base");
    git(folder, "checkout", "-q", "-b", "theirs");
    commit("from theirs");
    git(folder, "checkout", "-q", "main");
    commit("from ours");
    expect(() => git(folder, "merge", "-q", "theirs", "-m", "merged")).toThrow();
    expect(readFileSync(join(folder, "texts/en.json"), "utf8")).toMatch(
      /<<<<<<< ours\n.*from ours.*\n=======\n.*from theirs.*\n>>>>>>> theirs/,
    );
    expect(git(folder, "status", "--porcelain")).toContain("UU texts/en.json");
  });

  test("a text that both changed is a conflict, said by its key", async () => {
    const folder = temporaryProject({
      "base.json": '{\n  "a": "1",\n  "b": "2"\n}\n',
      "ours.json": '{\n  "a": "one",\n  "b": "2"\n}\n',
      "theirs.json": '{\n  "a": "uno",\n  "b": "2"\n}\n',
    });
    const { status, stderr } = await fond(folder, "merge", "base.json", "ours.json", "theirs.json");
    expect(status).toBe(1);
    expect(stderr).toContain("both sides changed a");
    expect(readFileSync(join(folder, "ours.json"), "utf8")).toContain("<<<<<<< ours");
  });
});

/** Starts the program and gives its status when it has ended. */
function start(cwd: string, args: readonly string[], killAfter?: number): Promise<number | null> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [program, ...args], { cwd, stdio: "ignore" });
    if (killAfter !== undefined) setTimeout(() => child.kill("SIGKILL"), killAfter);
    child.on("close", (code) => resolve(code));
  });
}

const many = Object.fromEntries(
  Array.from({ length: 400 }, (_, index) => [`key${index}`, `Text number ${index}`]),
);
const manyProject = () =>
  temporaryProject(
    smallProject({
      "texts/en.json": `${JSON.stringify(many, undefined, 2)}\n`,
      "texts/de.json": "{}\n",
      "texts/pl.json": "{}\n",
    }),
  );
const keysOf = (folder: string, locale: string) =>
  Object.keys(JSON.parse(readFileSync(join(folder, `texts/${locale}.json`), "utf8")) as object).length;

describe("more than one run", () => {
  test("several at once lose nothing, and leave no lock", async () => {
    const folder = manyProject();
    const statuses = await Promise.all([1, 2, 3, 4].map(() => start(folder, ["reconcile", "--write"])));
    // One that planned with files that another has changed since says so; none writes over the other.
    for (const status of statuses) expect([0, 3]).toContain(status);
    expect(statuses).toContain(0);
    expect([keysOf(folder, "de"), keysOf(folder, "pl")]).toEqual([400, 400]);
    expect((await fond(folder, "reconcile", "--check")).status).toBe(0);
    expect(existsSync(join(folder, ".fond-lock"))).toBe(false);
  });

  test("the lock of a run that is gone is taken over", async () => {
    const folder = manyProject();
    writeFileSync(
      join(folder, ".fond-lock"),
      JSON.stringify({ process: 2 ** 22 + 1, host: execFileSync("hostname", { encoding: "utf8" }).trim() }),
    );
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    expect(keysOf(folder, "de")).toBe(400);
  });

  test("killed at many moments, each file is old or new, and the next run ends it", async () => {
    const folder = manyProject();
    for (let moment = 0; moment < 6; moment++) {
      for (const locale of ["de", "pl"]) writeFileSync(join(folder, `texts/${locale}.json`), "{}\n");
      await start(folder, ["reconcile", "--write"], 140 + moment * 45);
      const halfway = ["de", "pl"].map((locale) => keysOf(folder, locale));
      for (const count of halfway) expect([0, 400]).toContain(count);
      expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
      expect([keysOf(folder, "de"), keysOf(folder, "pl")]).toEqual([400, 400]);
      expect((await fond(folder, "reconcile", "--check")).status).toBe(0);
    }
  }, 120_000);
});

describe("the account of the locales", () => {
  test("locale, rekey, review and balance work together", async () => {
    const folder = temporaryProject(smallProject());
    expect((await fond(folder, "reconcile", "--write")).status).toBe(0);
    expect((await fond(folder, "locale", "add", "ar", "--write")).stdout).toContain(
      "zero one two few many other",
    );
    expect((await fond(folder, "locale")).stdout).toMatch(/ar +Arabic {2}0\.0 %\n.*right to left/);
    expect((await fond(folder, "locale", "grow", "ar")).status).toBe(2);
    expect((await fond(folder, "review", "home.title", "--locale", "de", "--write")).status).toBe(0);
    const before = JSON.parse((await fond(folder, "balance", "--format", "json")).stdout) as {
      books: { locales: { locale: string; reviewed: number; words: number }[] }[];
    };
    expect(before.books[0]?.locales.map(({ locale, reviewed }) => [locale, reviewed])).toEqual([
      ["de", 1],
      ["pl", 0],
      ["ar", 0],
    ]);
    expect((await fond(folder, "rekey", "home.title", "home.heading", "--write")).stdout).toContain(
      "1 lookup rewritten",
    );
    expect((await fond(folder, "lint")).stdout).not.toContain("key/undefined");
    const todo = (await fond(folder, "balance", "--todo", "--locale", "ar")).stdout;
    expect(todo).toMatch(/initial home\.heading {2}texts\/ar\.json:\d+\n +Sailings/);
  });

  test("without a ledger Git's history shows what is stale", async () => {
    const folder = temporaryProject(smallProject());
    git(folder, "init", "-q");
    const commit = () => {
      git(folder, "add", "-A");
      git(folder, "commit", "-q", "-m", "one");
    };
    const change = (file: string, from: string, to: string) => {
      const path = join(folder, file);
      writeFileSync(path, readFileSync(path, "utf8").replace(from, to));
      commit();
    };
    commit();
    change("texts/en.json", "Sailings", "All sailings today");
    change("texts/de.json", "Abfahrten", "Alle Abfahrten heute");
    expect((await fond(folder, "reconcile", "--from-history", "--write")).stdout).toContain(
      "1 translation stale",
    );
    const { outstanding } = JSON.parse(
      (await fond(folder, "balance", "--stale", "--format", "json")).stdout,
    ) as {
      outstanding: { locale: string; former: string }[];
    };
    expect(outstanding.map(({ locale, former }) => [locale, former])).toEqual([["pl", "Sailings"]]);
    expect((await fond(folder, "reconcile", "--check")).status).toBe(0);
    expect((await fond(temporaryProject(smallProject()), "reconcile", "--from-history")).status).toBe(2);
  });

  test("what was translated from an older source is shown word by word, and how the shares went", async () => {
    const folder = temporaryProject(smallProject());
    git(folder, "init", "-q");
    const commit = async () => {
      await fond(folder, "reconcile", "--write");
      git(folder, "add", "-A");
      git(folder, "commit", "-q", "-m", "one");
    };
    await commit();
    const source = join(folder, "texts/en.json");
    writeFileSync(source, readFileSync(source, "utf8").replace("Sailings", "All sailings today"));
    await commit();
    expect((await fond(folder, "balance", "--stale")).stdout).toContain("[-Sailings-]{+All sailings today+}");
    const { trend } = JSON.parse((await fond(folder, "balance", "--trend", "--format", "json")).stdout) as {
      trend: { books: { locales: { share: number }[] }[] }[];
    };
    expect(trend.map(({ books }) => books[0]?.locales[0]?.share)).toEqual([1, 0.5]);
    expect((await fond(folder, "balance", "--trend")).stdout).toMatch(/de +█▅ 50\.0 %/);
    const none = temporaryProject(smallProject());
    expect((await fond(none, "balance", "--trend")).status).toBe(2);
  });
});
