import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { fixProject, lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { readGlossary, termTest } from "../../../src/core/lint/glossary.js";

const files = (
  config: Record<string, unknown>,
  book: Record<string, unknown>,
  more: Record<string, string> = {},
) =>
  memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de", "fr"],
      books: [{ name: "app", code: [], files: "t/{locale}.json", ...book }],
      ...config,
    }),
    "t/en.json": '{ "a": "Text", "legal.b": "More text" }',
    "t/de.json": '{ "a": "Wort ", "legal.b": "Mehr  Worte" }',
    "t/fr.json": '{ "a": "Mot ", "legal.b": "Plus  de mots" }',
    ...more,
  });

async function levelsOf(config: Record<string, unknown>, book: Record<string, unknown> = {}) {
  const opened = openProject(files(config, book));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return (await lintProject(opened.project)).map(
    ({ locale, key, severity }) => `${locale ?? ""} ${key ?? ""} ${severity}`,
  );
}

describe("levels", () => {
  const all = ["de a", "de legal.b", "fr a", "fr legal.b"];
  test.each<[string, Record<string, unknown>, Record<string, unknown>, string[]]>([
    ["a rule's own", {}, {}, all.map((one) => `${one} warning`)],
    ["of the project", { rules: { "text/space": "error" } }, {}, all.map((one) => `${one} error`)],
    [
      "of a book, before the project's",
      { rules: { "text/space": "error" } },
      { rules: { "text/space": "off" } },
      [],
    ],
    [
      "of a locale",
      { levels: [{ rules: ["text/*"], locales: ["fr"], level: "info" }] },
      {},
      ["de a warning", "de legal.b warning", "fr a info", "fr legal.b info"],
    ],
    [
      "of keys, the last that fits",
      {
        rules: { "text/space": "off" },
        levels: [
          { rules: ["text/space"], keys: ["legal.*"], level: "error" },
          { rules: ["text/space"], keys: ["legal.*"], locales: ["fr"], level: "off" },
        ],
      },
      {},
      ["de legal.b error"],
    ],
  ])("%s", async (_, config, book, expected) => {
    expect(await levelsOf(config, book)).toEqual(expected);
  });

  test("of a rule that is misspelled are an error", () => {
    const opened = openProject(files({ levels: [{ rules: ["text/spce"], level: "off" }] }, {}));
    expect(opened.ok ? "" : opened.problems[0]?.remedy).toContain("text/space");
  });
});

test("mending changes only the faults, several in one text, and leaves nothing to mend", async () => {
  const made = files(
    {},
    {},
    { "t/de.json": '{\n  "a": "Wort ",\n  "legal.b": " Fa\u0308hren  und  mehr"\n}\n' },
  );
  const open = () => {
    const opened = openProject(made);
    if (!opened.ok) throw new Error("the configuration is sound");
    return opened.project;
  };
  const plan = await fixProject(open(), { locales: ["de"] });
  expect(plan.changes.map(({ file }) => file)).toEqual(["t/de.json"]);
  applyPlan(made, plan);
  expect(made.contents.get("t/de.json")).toBe('{\n  "a": "Wort",\n  "legal.b": "Fähren und mehr"\n}\n');
  expect((await fixProject(open(), { locales: ["de"] })).changes).toEqual([]);
});

describe("glossaries", () => {
  const tbx = `<?xml version="1.0"?><tbx type="TBX-Basic"><text><body>
<conceptEntry id="1"><langSec xml:lang="en"><termSec><term>berth</term></termSec></langSec>
<langSec xml:lang="de"><termSec><term>Koje</term><termNote type="administrativeStatus">preferredTerm-admn-sts</termNote></termSec>
<termSec><term>Bett &amp; Co</term><termNote type="administrativeStatus">deprecatedTerm-admn-sts</termNote></termSec></langSec></conceptEntry></body></text></tbx>`;
  test.each<[string, string]>([
    ["terms.csv", "en,de,de avoid\nberth,Koje,Bett & Co\n"],
    ["terms.tbx", tbx],
  ])("%s", (file, text) => {
    const read = readGlossary(memoryFiles({ [file]: text }), file);
    expect(read.ok && read.concepts.map(({ terms, avoided }) => [[...terms], [...avoided]])).toEqual([
      [
        [
          ["en", ["berth"]],
          ["de", ["Koje"]],
        ],
        [["de", ["Bett & Co"]]],
      ],
    ]);
  });

  test.each<[string, string, boolean]>([
    ["berth", "Two berths left", true],
    ["berth", "Rebirth", false],
    ["Koje", "in den Kojen", true],
    ["Fahrkarte", "zwei Fahrkarten", true],
    ["buch*", "Sie buchten", true],
    ["boarding pass", "your Boarding\u00a0Pass", true],
    ["切符", "この切符は", true],
  ])("“%s” in “%s”: %s", (term, text, expected) => {
    expect(termTest(term).test(text)).toBe(expected);
  });

  test("one that cannot be read keeps the project from opening, with a remedy", () => {
    for (const [file, text] of [
      ["terms.csv", "word,other\n"],
      ["terms.csv", `en,de\nberth,${"x".repeat(40_000)}\n`],
      ["terms.tbx", "<tbx/>"],
    ] as const) {
      const opened = openProject(files({ glossary: file }, {}, { [file]: text }));
      expect(opened.ok ? "" : opened.problems[0]?.remedy).not.toBe("");
    }
    expect(openProject(files({ glossary: "none.csv" }, {})).ok).toBe(false);
  });
});

test.each<[string, (mark: string) => string]>([
  ["yaml", (mark) => `# ${mark}\na: "Wort "\n`],
  ["properties", (mark) => `! ${mark}\na=Wort\\u0020\n`],
  ["jsonc", (mark) => `{\n  // ${mark}\n  "a": "Wort "\n}\n`],
  ["json5", (mark) => `{\n  /* ${mark} */\n  "a": "Wort "\n}\n`],
])("marks in comments accept findings on the entry below: %s", async (ending, fileOf) => {
  const lint = async (mark: string) => {
    const opened = openProject(
      memoryFiles({
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: ["de"],
          books: [{ name: "app", code: [], files: `t/{locale}.${ending}` }],
        }),
        [`t/en.${ending}`]: fileOf("a text").replace("Wort ", "Text").replace("Wort\\u0020", "Text"),
        [`t/de.${ending}`]: fileOf(mark),
      }),
    );
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    const found = await lintProject(opened.project);
    // What a run waives is not remembered: the next one finds the same, even after one of a single rule.
    await lintProject(opened.project, {}, []);
    expect(await lintProject(opened.project)).toEqual(found);
    return found.map(({ rule, line }) => `${rule} ${line}`);
  };
  const line = ending.startsWith("json") ? 3 : 2;
  expect(await lint("only a comment")).toEqual([`text/space ${line}`]);
  expect(await lint("fond: waive text/space another text follows")).toEqual([]);
  expect(await lint("fond: waive text/* another text follows")).toEqual([]);
  expect(await lint("fond: waive text/space")).toEqual([`waiver/idle ${line - 1}`, `text/space ${line}`]);
  expect(await lint("fond: waive text/ending it ends otherwise")).toEqual([
    `waiver/idle ${line - 1}`,
    `text/space ${line}`,
  ]);
});

test("a remedy speaks the book's own syntax", async () => {
  const message = (rows: string) => JSON.stringify({ a: `.input {$n :number} .match $n ${rows}` });
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["pl"],
        books: [{ name: "app", code: [], files: "t/{locale}.json", syntax: "mf2" }],
      }),
      "t/en.json": message("one {{a boat}} * {{boats}}"),
      "t/pl.json": message("one {{łódź}} many {{łodzi}}"),
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const remedies = (await lintProject(opened.project)).map(({ rule, remedy }) => `${rule}: ${remedy}`);
  expect(remedies.join("\n")).toMatch(/plural\/no-other: add \* \{\{…\}\}/);
  expect(remedies).toContain("plural/missing-category: add few {{…}}");
});

/** The findings of one rule on two texts of a book. */
async function findingsOf(rule: string, book: object, en: string, texts: Record<string, string>) {
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: Object.keys(texts),
        books: [{ name: "app", files: "t/{locale}.json", ...book }],
      }),
      "t/en.json": en,
      ...Object.fromEntries(Object.entries(texts).map(([locale, text]) => [`t/${locale}.json`, text])),
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const all = await lintProject(opened.project);
  return all.filter((one) => one.rule === rule).map(({ locale, key, column }) => [locale, key, column]);
}

test("a form that stands for two categories is reported once, each of two forms by itself", async () => {
  const find = (pl: string) =>
    findingsOf("argument/unknown", { syntax: "colon", plurals: "bar" }, '{"a":"One boat|:count boats"}', {
      pl: JSON.stringify({ a: pl }),
    });
  expect(await find("a :count|b :count|c :nmae")).toEqual([["pl", "a", 28]]);
  expect(await find("a :count|b :nmae|c :nmae")).toEqual([
    ["pl", "a", 19],
    ["pl", "a", 27],
  ]);
});

test.each<[string, object, readonly string[]]>([
  ["characters", { a: 4, b: { characters: 4 } }, ["a", "b"]],
  ["more characters", { a: 5, b: { characters: 5 } }, []],
  ["columns, of which wide letters take two", { a: { columns: 9 }, b: { columns: 5 } }, ["a"]],
  ["as many columns as it takes", { a: { columns: 10 } }, []],
  ["columns of plain letters", { b: { columns: 4 } }, ["b"]],
])("limits in %s", async (_, limits, keys) => {
  const found = await findingsOf("text/length", { limits }, '{"a":"x","b":"x"}', {
    ja: '{"a":"時刻表一覧","b":"abcde"}',
  });
  expect(found.map(([, key]) => key)).toEqual(keys);
});

test("patterns of `only` go by the book's own separator", async () => {
  const find = (separator: string, pattern: string) =>
    findingsOf(
      "key/missing",
      { naming: { separator, shape: "flat" }, only: { [pattern]: ["de"] } },
      `{"legal${separator}note":"x","legal${separator}a${separator}b":"x"}`,
      { de: `{"legal${separator}note":"x","legal${separator}a${separator}b":"x"}`, fr: "{}" },
    );
  expect((await find("/", "legal/*")).map(([locale, key]) => [locale, key])).toEqual([["fr", "legal/a/b"]]);
  expect(await find("/", "legal/**")).toEqual([]);
  expect((await find("/", "legal.*")).map(([, key]) => key)).toEqual(["legal/a/b", "legal/note"]);
  expect((await find(".", "legal.*")).map(([, key]) => key)).toEqual(["legal.a.b"]);
});
