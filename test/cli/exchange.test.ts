import { afterAll, beforeEach, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cleanUp, filesIn, fond, smallProject, temporaryProject } from "../support/project.js";

afterAll(cleanUp);

/** A project whose Polish lacks two texts of three, one of them a plural. */
const files = smallProject({
  "texts/en.json": `{
  "home": {
    "title": "Sailings",
    "count": "{n, plural, one {# boat} other {# boats}}",
    "rules": "Read <b>the rules</b>, {name}"
  }
}
`,
  "texts/pl.json": '{\n  "home": {\n    "title": "Rejsy"\n  }\n}\n',
});

let folder = "";
beforeEach(() => {
  folder = temporaryProject(files);
});

const read = (file: string) => readFileSync(join(folder, file), "utf8");
const polish = () => JSON.parse(read("texts/pl.json")) as { home: Record<string, string> };

/** Fills the cells of a table: the translation by the unit's id. */
function fill(file: string, texts: Readonly<Record<string, string>>, note = ""): void {
  const lines = read(file).split("\r\n");
  const done = lines.map((line) => {
    const id = Object.keys(texts).find((one) => line.includes(`,app:${one},`));
    if (id === undefined || !line.includes(`,app:${id},`)) return line;
    const cells = [...line.matchAll(/("(?:[^"]|"")*"|[^,]*)(?:,|$)/g)].map(([, cell = ""]) => cell);
    cells[3] = `"${(texts[id] ?? "").replaceAll('"', '""')}"`;
    cells[5] = note;
    return cells.slice(0, 9).join(",");
  });
  writeFileSync(join(folder, file), done.join("\r\n"));
}

const count = {
  "home.count--one": "{n} statek",
  "home.count--few": "{n} statki",
  "home.count--many": "{n} statków",
  "home.count--other": "{n} statku",
};

/** Hands the Polish work out as a table, fills it, and takes it in. */
async function there(texts: Readonly<Record<string, string>>, ...options: string[]) {
  await fond(folder, "handoff", "--to", "csv", "--locale", "pl", "--write");
  fill("handoff/pl.csv", texts);
  return fond(folder, "intake", "handoff/pl.csv", "--write", ...options);
}

describe("fond handoff", () => {
  test("lists what it would write, and writes with --write", async () => {
    const plan = await fond(folder, "handoff", "--locale", "pl");
    expect(plan.stdout).toContain("handoff/pl.xlf");
    expect(plan.stdout).toContain("1 file with 5 texts.");
    expect(existsSync(join(folder, "handoff"))).toBe(false);
    expect((await fond(folder, "handoff", "--locale", "pl", "--check")).status).toBe(1);
    await fond(folder, "handoff", "--locale", "pl", "--write");
    expect(read("handoff/pl.xlf")).toContain("src/home.tsx:7");
    expect(read("handoff/pl.xlf")).toContain("few (2, 3, 4, 22 …)");
  });

  test("of what is done, only what is asked for", async () => {
    const listed = async (...options: string[]) => {
      const { stdout } = await fond(folder, "handoff", "--locale", "pl", "--format", "json", ...options);
      const { files: all } = JSON.parse(stdout) as { files: { texts: number }[] };
      return all.map(({ texts }) => texts);
    };
    expect(await listed()).toEqual([5]);
    expect(await listed("--all")).toEqual([6]);
    expect(await listed("--stale")).toEqual([]);
    expect(await listed("--state", "translated")).toEqual([1]);
    expect(await listed("--split", "2")).toEqual([4, 1]);
    expect((await fond(folder, "handoff", "home.nothing")).status).toBe(2);
    expect((await fond(folder, "handoff", "--state", "tanslated")).stderr).toContain(
      "did you mean translated?",
    );
  });

  test("of a translation that lacks a plural form, what is there and what is not", async () => {
    writeFileSync(
      join(folder, "texts/pl.json"),
      '{ "home": { "title": "Rejsy", "count": "{n, plural, one {# statek} other {# statku}}", "rules": "Przeczytaj <b>zasady</b>, {name}" } }\n',
    );
    await fond(folder, "handoff", "--to", "csv", "--locale", "pl", "--write");
    const rows = read("handoff/pl.csv").split("\r\n");
    expect(rows.filter((row) => row.startsWith("home.count,"))).toHaveLength(4);
    expect(rows.find((row) => row.includes("home.count--one"))).toContain("{n} statek");
    expect(rows.find((row) => row.includes("home.count--few"))).not.toContain("statk");
  });

  test("since a revision, what has changed in the source", async () => {
    const git = (...args: string[]) =>
      execFileSync("git", ["-c", "user.name=x", "-c", "user.email=x@x.example", ...args], {
        cwd: folder,
        stdio: "ignore",
      });
    git("init", "-q");
    git("add", "-A");
    git("commit", "-qm", "before");
    writeFileSync(join(folder, "texts/en.json"), read("texts/en.json").replace("Sailings", "All sailings"));
    const { stdout } = await fond(
      folder,
      "handoff",
      "--since",
      "HEAD",
      "--locale",
      "pl",
      "--to",
      "csv",
      "--write",
    );
    expect(stdout).toContain("1 file with 1 text.");
    expect(read("handoff/pl.csv")).toContain("All sailings");
    expect((await fond(folder, "handoff", "--since", "nothing")).status).toBe(2);
  });
});

describe("fond intake", () => {
  test("shows its plan, writes with --write, records states, and takes the same file once", async () => {
    await fond(folder, "handoff", "--to", "csv", "--locale", "pl", "--write");
    fill(
      "handoff/pl.csv",
      { ...count, "home.rules": "Przeczytaj <b>zasady</b>, {name}" },
      "Is {name} a person?",
    );
    const plan = await fond(folder, "intake", "handoff/pl.csv");
    expect(plan.stdout).toContain("2 translations taken in");
    expect(polish().home).toEqual({ title: "Rejsy" });
    expect((await fond(folder, "intake", "handoff/pl.csv", "--write")).status).toBe(0);
    expect(polish().home).toEqual({
      title: "Rejsy",
      count: "{n, plural, one {# statek} few {# statki} many {# statków} other {# statku}}",
      rules: "Przeczytaj <b>zasady</b>, {name}",
    });
    expect(read("fond-ledger/app.pl.txt")).toMatch(/home\.rules\ttranslated\t\w{16}\t\w{16}\tperson\t/);
    expect(read("fond-ledger/app.pl.notes.txt")).toContain("Is {name} a person?");
    const before = filesIn(folder);
    const again = await fond(folder, "intake", "handoff/pl.csv", "--write");
    expect(again.stdout).toContain("Nothing to do.");
    expect(filesIn(folder)).toEqual(before);
  });

  test("leaves what is not filled in", async () => {
    const { stdout, status } = await there({ "home.rules": "Przeczytaj <b>zasady</b>, {name}" });
    expect(status).toBe(0);
    expect(stdout).toContain("1 text not filled in");
    expect(Object.keys(polish().home)).toEqual(["title", "rules"]);
  });

  const rules = "home.rules";
  test.each([
    ["a lost value", { [rules]: "Przeczytaj <b>zasady</b>" }, "has lost {name}"],
    ["an invented code", { [rules]: "Przeczytaj <b>zasady</b>, {imię}" }, "is torn"],
    [
      "an unknown code",
      { [rules]: "Przeczytaj <b>zasady</b>, {imie}" },
      "has a code that its source does not have: imie",
    ],
    ["a torn element", { [rules]: "Przeczytaj <b>zasady, {name}" }, "is torn"],
    ["a lost element", { [rules]: "Przeczytaj zasady, {name}" }, "has lost <b>"],
    ["a missing form", { ...count, "home.count--few": "" }, 'lacks "few (2, 3, 4, 22 …)"'],
    [
      "a value as an element",
      { [rules]: "<name>Przeczytaj</name> <b>zasady</b>" },
      "cannot stand where it does",
    ],
  ])("keeps %s out and says why, and takes the rest", async (_what, texts, said) => {
    const all =
      "home.count--one" in texts
        ? { [rules]: "Przeczytaj <b>zasady</b>, {name}", ...texts }
        : { ...count, ...texts };
    const { stdout, status } = await there(all);
    expect(status).toBe(1);
    expect(stdout).toContain(said);
    expect(stdout).toContain("1 text not taken");
    expect(Object.keys(polish().home)).toEqual(
      "home.count--one" in texts ? ["title", "rules"] : ["title", "count"],
    );
    // What stays out is still to do.
    expect((await fond(folder, "handoff", "--locale", "pl", "--format", "json")).stdout).toContain(
      '"missing": 1',
    );
  });

  test("with --all-or-nothing takes nothing where anything stays out", async () => {
    const before = read("texts/pl.json");
    const { stdout, status } = await there({ ...count, [rules]: "Przeczytaj" }, "--all-or-nothing");
    expect(status).toBe(1);
    expect(stdout).toContain("not taken");
    expect(read("texts/pl.json")).toBe(before);
  });

  test("shows both where the source changed since, and takes it as stale if told to", async () => {
    await fond(folder, "handoff", "--to", "csv", "--locale", "pl", "--write");
    fill("handoff/pl.csv", { [rules]: "Przeczytaj <b>zasady</b>, {name}" });
    writeFileSync(
      join(folder, "texts/en.json"),
      read("texts/en.json").replace("Read <b>the rules", "Read <b>all rules"),
    );
    const refused = await fond(folder, "intake", "handoff/pl.csv", "--write");
    expect(refused.status).toBe(1);
    expect(refused.stdout).toContain('the source of "home.rules" has changed since');
    expect(refused.stdout).toContain("it now reads");
    expect((await fond(folder, "intake", "handoff/pl.csv", "--write", "--prefer", "file")).status).toBe(0);
    expect((await fond(folder, "balance", "--format", "json", "--locale", "pl")).stdout).toContain(
      '"stale": 1',
    );
  });

  test("shows both where the text was edited here meanwhile; --prefer decides", async () => {
    await there(count);
    await fond(folder, "handoff", "home.title", "--all", "--to", "csv", "--locale", "pl", "--write");
    fill("handoff/pl.csv", { "home.title": "Kursy" });
    const edited = read("texts/pl.json").replace("Rejsy", "Rozkład");
    writeFileSync(join(folder, "texts/pl.json"), edited);
    const refused = await fond(folder, "intake", "handoff/pl.csv", "--write");
    expect(refused.stdout).toContain('"Rozkład" here, "Kursy" in the file');
    expect((await fond(folder, "intake", "handoff/pl.csv", "--write", "--prefer", "project")).status).toBe(0);
    expect(polish().home["title"]).toBe("Rozkład");
    expect((await fond(folder, "intake", "handoff/pl.csv", "--write", "--prefer", "file")).status).toBe(0);
    expect(polish().home["title"]).toBe("Kursy");
  });

  test("says what is unknown, for another locale, or no such file", async () => {
    await fond(folder, "handoff", "--to", "csv", "--locale", "pl", "--write");
    const table = read("handoff/pl.csv");
    writeFileSync(
      join(folder, "gone.csv"),
      table.replaceAll("home.rules", "home.law").replace(/,,initial/, ",Prawo,initial"),
    );
    expect((await fond(folder, "intake", "gone.csv")).stdout).toContain('unknown text "app:home.law"');
    writeFileSync(join(folder, "fr.csv"), table.replace("translation pl", "translation fr"));
    const other = await fond(folder, "intake", "fr.csv");
    expect(other).toMatchObject({ status: 2 });
    expect(other.stderr).toContain('the file is for "fr", which is no target locale');
    const wrong = await fond(folder, "intake", "handoff/pl.csv", "--locale", "de");
    expect(wrong.stderr).toContain("the file is for pl, not for de");
    expect((await fond(folder, "intake", "nothing.csv")).status).toBe(3);
    writeFileSync(join(folder, "notes.doc"), "hello");
    expect((await fond(folder, "intake", "notes.doc")).stderr).toContain("no document that a handoff wrote");
    writeFileSync(join(folder, "bad.xlf"), '<!DOCTYPE x><xliff version="2.1"/>');
    expect(await fond(folder, "intake", "bad.xlf")).toMatchObject({ status: 3 });
  });

  test("several files are taken in one after the other, as one plan", async () => {
    await fond(folder, "handoff", "--locale", "pl", "--to", "csv", "--split", "2", "--write");
    fill("handoff/pl-1.csv", count);
    fill("handoff/pl-2.csv", { [rules]: "Przeczytaj <b>zasady</b>, {name}" });
    const { status, stdout } = await fond(
      folder,
      "intake",
      "handoff/pl-1.csv",
      "handoff/pl-2.csv",
      "--write",
    );
    expect(status).toBe(0);
    expect(stdout).toContain("2 translations taken in");
    expect(Object.keys(polish().home)).toEqual(["title", "count", "rules"]);
  });

  test("a translation whose form is cut off keeps the others that are there", async () => {
    await there(count);
    await fond(folder, "handoff", "home.count", "--all", "--to", "csv", "--locale", "pl", "--write");
    fill("handoff/pl.csv", { "home.count--few": "{n} stateczki" });
    const rows = read("handoff/pl.csv").split("\r\n");
    writeFileSync(
      join(folder, "handoff/pl.csv"),
      rows.filter((row, index) => index === 0 || row.includes("--few")).join("\r\n"),
    );
    expect((await fond(folder, "intake", "handoff/pl.csv", "--write")).status).toBe(0);
    expect(polish().home["count"]).toBe(
      "{n, plural, one {# statek} few {# stateczki} many {# statków} other {# statku}}",
    );
  });
});

describe("catalogs that were edited by hand come back the same way", () => {
  const book = (more: object) =>
    JSON.stringify({ source: "en", targets: ["de"], books: [{ name: "app", code: [], ...more }] });
  test.each([
    [
      "json",
      { files: "t/{locale}.json" },
      "t/en.json",
      '{ "a": "Book {n}" }',
      '{ "a": "Buchen {n}" }',
      '{ "a": "Buchen" }',
    ],
    [
      "yaml",
      { files: "t/{locale}.yaml", root: "{locale}" },
      "t/en.yaml",
      "en:\n  a: Book {n}\n",
      "de:\n  a: Buchen {n}\n",
      "de:\n  a: Buchen\n",
    ],
    [
      "properties",
      { files: "t/m_{locale}.properties", syntax: "java" },
      "t/m_en.properties",
      "a=Book {0}\n",
      "a=Buchen {0}\n",
      "a=Buchen\n",
    ],
    [
      "php",
      { files: "t/{locale}/x.php", syntax: "colon" },
      "t/en/x.php",
      "<?php return ['a' => 'Book :n'];\n",
      "<?php return ['a' => 'Buchen :n'];\n",
      "<?php return ['a' => 'Buchen'];\n",
    ],
  ])("%s", async (_name, settings, source, text, good, bad) => {
    const place = source.replace("en", "de");
    folder = temporaryProject({ "fond.config.json": book(settings), [source]: text, [`back/${place}`]: bad });
    const refused = await fond(folder, "intake", `back/${place}`, "--write");
    expect(refused.status).toBe(1);
    expect(refused.stdout).toContain("missing argument");
    expect(existsSync(join(folder, place))).toBe(false);
    writeFileSync(join(folder, "back", place), good);
    expect((await fond(folder, "intake", `back/${place}`, "--write")).status).toBe(0);
    expect(read(place)).toContain("Buchen");
    expect(read("fond-ledger/app.de.txt")).toContain("a\ttranslated\t");
    writeFileSync(join(folder, "back", place), "{ <?php = : broken");
    rmSync(join(folder, "fond-ledger"), { recursive: true });
    expect((await fond(folder, "intake", `back/${place}`)).status).not.toBe(1);
  });
});

describe("fond pseudo", () => {
  test("writes a locale that is no language, and again the same; lint and balance leave it alone", async () => {
    const plan = await fond(folder, "pseudo");
    expect(plan.stdout).toContain("⟦Šåîļîñĝš ~~~~~~~⟧");
    expect((await fond(folder, "pseudo", "--write")).status).toBe(0);
    expect((await fond(folder, "pseudo", "--check")).stdout).toBe("Nothing to do.\n");
    const { stdout } = await fond(folder, "lint", "--format", "json");
    expect(stdout).not.toContain("en-XA");
    expect((await fond(folder, "balance", "--format", "json")).stdout).not.toContain("en-XA");
    // What leaves the source leaves it, too.
    writeFileSync(join(folder, "texts/en.json"), '{ "home": { "title": "Crossings" } }\n');
    await fond(folder, "pseudo", "--write");
    expect(JSON.parse(read("texts/en-XA.json"))).toEqual({ home: { title: "⟦Çŕöššîñĝš ~~~~~~~~⟧" } });
  });

  test("never takes the place of people's translations", async () => {
    expect(await fond(folder, "pseudo", "pl", "--write")).toMatchObject({ status: 2 });
  });
});
