import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { balanceProject, openProject } from "../../../src/core/project/project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";

function project(book: object, files: Record<string, string>, targets: string[] = ["de"], source = "en") {
  const config = { source, targets, books: [{ name: "app", fill: "empty", hints: false, ...book }] };
  const held = memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) });
  const opened = openProject(held, undefined, "2031-05-04");
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

/** What reconciling leaves of the catalogs, by file. */
function reconciled(book: object, files: Record<string, string>, targets?: string[], source?: string) {
  const plan = reconcileProject(project(book, files, targets, source), {}, "2031-05-04");
  expect(plan.notes).toEqual([]);
  const changes = plan.changes.filter(({ file }) => !file.startsWith("fond-ledger"));
  return Object.fromEntries(changes.map(({ file, after }) => [file, after]));
}

describe("a missing key is added where it belongs, and nothing else is touched", () => {
  const cases: [string, object, Record<string, string>, Record<string, string>, string[]?, string?][] = [
    [
      "properties with a source file without a suffix",
      { files: "i/messages_{locale}.properties", spelling: { en: "", de: "de_DE" } },
      { "i/messages.properties": "a=One\nb=Two\n", "i/messages_de_DE.properties": "# von Hand\na=Eins\n" },
      { "i/messages_de_DE.properties": "# von Hand\na=Eins\nb=\n" },
    ],
    [
      "several modules with the same bundle name",
      { files: "{dir}/messages_{locale}.properties", spelling: { en: "" } },
      {
        "shop/messages.properties": "title=Shop\n",
        "mail/in/messages.properties": "title=Mail\nend=Bye\n",
        "mail/in/messages_de.properties": "title=Post\n",
      },
      { "mail/in/messages_de.properties": "title=Post\nend=\n", "shop/messages_de.properties": "title=\n" },
    ],
    [
      "one file per component beside the component",
      { files: "src/{dir}/{name}.{locale}.yaml" },
      {
        "src/a/b/Card.en.yaml": "title: Card\n",
        "src/a/Menu.en.yaml": "open: Open\n",
        "src/a/Menu.de.yaml": "open: Öffnen\n",
      },
      { "src/a/b/Card.de.yaml": 'title: ""\n' },
    ],
    [
      "one name around all texts of a file",
      { files: "t/{locale}.json", root: "texts" },
      {
        "t/en.json": '{\n  "texts": {\n    "title": "Home",\n    "end": "Bye"\n  }\n}\n',
        "t/de.json": '{\n  "texts": {\n    "title": "Start"\n  }\n}\n',
      },
      { "t/de.json": '{\n  "texts": {\n    "title": "Start",\n    "end": ""\n  }\n}\n' },
    ],
    [
      "all locales in one file, each with a name around its texts",
      { files: "texts.json", root: "{locale}.texts" },
      {
        "texts.json":
          '{\n  "en": {\n    "texts": {\n      "title": "Home",\n      "end": "Bye"\n    }\n  },\n  "de": {\n    "texts": {\n      "title": "Start"\n    }\n  }\n}\n',
      },
      {
        "texts.json":
          '{\n  "en": {\n    "texts": {\n      "title": "Home",\n      "end": "Bye"\n    }\n  },\n  "de": {\n    "texts": {\n      "title": "Start",\n      "end": ""\n    }\n  }\n}\n',
      },
    ],
    [
      "a folder a locale and a namespace a file, in YAML with the locale at the root",
      { files: "t/{locale}/{namespace}.yml", root: "{locale}" },
      {
        "t/en/home.yml": "en:\n  title: Home # said once\n  menu:\n    open: Open\n",
        "t/de/home.yml": "de:\n  title: Start # einmal\n",
      },
      { "t/de/home.yml": 'de:\n  title: Start # einmal\n  menu:\n    open: ""\n' },
    ],
    [
      "all locales in one file, each below its root",
      { files: "texts.yaml", root: "{locale}" },
      { "texts.yaml": "en:\n  a: One\n  b: Two\nno:\n  a: En\nde:\n  b: Zwei\n" },
      { "texts.yaml": 'en:\n  a: One\n  b: Two\nno:\n  a: En\n  b: ""\nde:\n  a: ""\n  b: Zwei\n' },
      ["de", "no"],
    ],
    [
      "all locales in one file, each key holding its locales",
      { files: "texts.json", leaf: "{locale}" },
      {
        "texts.json":
          '{\n  "a": {\n    "en": "One",\n    "de": "Eins"\n  },\n  "b": {\n    "en": "Two"\n  }\n}\n',
      },
      {
        "texts.json":
          '{\n  "a": {\n    "en": "One",\n    "de": "Eins"\n  },\n  "b": {\n    "en": "Two",\n    "de": ""\n  }\n}\n',
      },
    ],
    [
      "objects that hold a text and what is said of it",
      { files: "t/{locale}/texts.json", leaf: "message" },
      {
        "t/en/texts.json":
          '{\n  "a": { "message": "One", "about": "The first" },\n  "b": { "message": "Two $N$", "values": { "n": { "content": "$1" } } }\n}\n',
        "t/de/texts.json":
          '{\n  "a": { "message": "Eins" },\n  "old": { "message": "Alt", "about": "Gone" }\n}\n',
      },
      { "t/de/texts.json": '{\n  "a": { "message": "Eins" },\n  "b": {\n    "message": ""\n  }\n}\n' },
    ],
    [
      "a table with a locale column",
      { files: "data/places.csv", table: { id: ["id"], locale: "lang", text: ["name", "note"] } },
      { "data/places.csv": 'id,lang,name,note,rank\n1,en,Quay,"A, B",7\n1,de,Kai,,7\n2,en,Pier,,8\n' },
      {
        "data/places.csv": 'id,lang,name,note,rank\n1,en,Quay,"A, B",7\n1,de,Kai,,7\n2,en,Pier,,8\n2,de,,,\n',
      },
    ],
    [
      "underscores and scripts in tags",
      { files: "t/{locale}.json", spelling: "underscore" },
      {
        "t/en.json": '{ "a": "One", "b": "Two" }\n',
        "t/pt_BR.json": '{ "a": "Um" }\n',
        "t/zh_Hans.json": '{ "b": "二" }\n',
      },
      { "t/pt_BR.json": '{ "a": "Um", "b": "" }\n', "t/zh_Hans.json": '{ "a": "", "b": "二" }\n' },
      ["pt-BR", "zh-Hans"],
    ],
    [
      "JSON with comments",
      { files: "t/{locale}.jsonc" },
      {
        "t/en.jsonc": '{\n  // first\n  "a": "One", // one\n  "b": "Two",\n}\n',
        "t/de.jsonc": '{\n  // erster\n  "a": "Eins", // eins\n}\n',
      },
      { "t/de.jsonc": '{\n  // erster\n  "a": "Eins", // eins\n  "b": "",\n}\n' },
    ],
    [
      "JSON5 in its own hand",
      { files: "t/{locale}.json5" },
      { "t/en.json5": "{ a: 'One', b: { c: 'Two' } }\n", "t/de.json5": "{\r\n\ta: 'Eins'\r\n}\r\n" },
      { "t/de.json5": "{\r\n\ta: 'Eins',\r\n\tb: {\r\n\t\tc: ''\r\n\t}\r\n}\r\n" },
    ],
  ];
  test.each(cases)("%s", (...[, book, files, expected, targets, source]) => {
    expect(reconciled(book, files, targets, source)).toEqual(expected);
    const done = { ...files, ...expected };
    expect(reconciled(book, done, targets, source)).toEqual({});
  });
});

test("a variant holds only its differences, and lacks nothing that its parent has", async () => {
  const files = {
    "t/en.yaml": "a: One\nb: Two\n",
    "t/fr.yaml": "a: Un\nb: Deux\n",
    "t/fr-CA.yaml": "b: Deusse\n",
  };
  const opened = project({ files: "t/{locale}.yaml" }, files, ["fr", "fr-CA"]);
  expect(reconciled({ files: "t/{locale}.yaml" }, files, ["fr", "fr-CA"])).toEqual({});
  expect((await lintProject(opened)).filter(({ rule }) => rule.startsWith("key/"))).toEqual([]);
});

describe("keys that only some locales have", () => {
  const book = { files: "t/{locale}.json", only: { "imprint.*": ["de"], "legal.us": ["en"] } };
  const files = {
    "t/en.json": '{ "a": "One", "legal": { "us": "See you in court" } }\n',
    "t/de.json": '{ "a": "Eins", "imprint": { "owner": "Die Kapitänin" } }\n',
    "t/fr.json": '{ "a": "Un", "imprint": { "owner": "La capitaine" } }\n',
  };
  test("are neither missing nor extra there, and extra elsewhere", async () => {
    const opened = project(book, files, ["de", "fr"]);
    const found = (await lintProject(opened)).filter(({ rule }) => rule.startsWith("key/"));
    expect(found.map(({ rule, locale, key }) => [rule, locale, key])).toEqual([
      ["key/extra", "fr", "imprint.owner"],
    ]);
    const [balance] = balanceProject(opened);
    expect(
      balance?.locales.map(({ locale, missing, extra, share }) => [locale, missing, extra, share]),
    ).toEqual([
      ["de", 0, 0, 1],
      ["fr", 0, 1, 1],
    ]);
    expect(Object.keys(reconciled(book, files, ["de", "fr"]))).toEqual(["t/fr.json"]);
  });
});

describe("what cannot be read is said, and everything else is", () => {
  test.each<[string, string, string | (() => string), RegExp]>([
    [
      "a merge conflict in YAML",
      "t/de.yaml",
      "a: 1\n<<<<<<< ours\nb: x\n=======\nb: y\n>>>>>>> theirs\n",
      /conflict marker/,
    ],
    ["a text that starts with a brace", "t/de.yaml", "a: Eins\nb: {name} ist da\n", /starts with \{/],
    ["a colon inside a text", "t/de.yaml", "a: Hinweis: so\n", /colon inside/],
    ["a quote that ends early", "t/de.yaml", 'a: "Das "Boot""\n', /quote inside a text/],
    ["a tab", "t/de.yaml", "a:\n\tb: x\n", /tab/],
    [
      "an alias bomb",
      "t/de.yaml",
      () =>
        `a: &a [x,x,x,x,x,x,x,x,x]\n${"bcdefghij".replace(/./g, (name, at: number) => `${name}: &${name} [${Array(9).fill(`*${"abcdefghi"[at]}`).join(",")}]\n`)}`,
      /alias/,
    ],
    ["a text where a group is expected", "t/de.json", '"a"', /not an object/],
    ["a NUL character", "t/de.json", '{"a": "x\0"}', /NUL/],
    ["deep nesting", "t/de.yaml", () => `a: ${"[".repeat(100000)}`, /nested too deeply/],
    ["an escape of properties that breaks off", "t/de.properties", "a=\\u00\n", /four hexadecimal/],
    ["a quote in a table that nothing closes", "t/de.csv", 'key,locale,text\na,de,"x\n', /unclosed/],
    ["a table without its column", "t/de.csv", "key,text\na,x\n", /missing column "locale"/],
  ])("%s", async (_, file, given, words) => {
    const text = typeof given === "string" ? given : given();
    const ending = file.split(".").pop() ?? "";
    const good =
      { json: '{"a": "One"}', yaml: "a: One\n", properties: "a=One\n", csv: "key,locale,text\na,en,One\n" }[
        ending
      ] ?? "";
    const files = { [file]: text, [`t/en.${ending}`]: good, [`t/fr.${ending}`]: good };
    const opened = project({ files: `t/{locale}.${ending}` }, files, ["de", "fr"]);
    const found = await lintProject(opened);
    const about = found.filter((one) => one.file === file && one.severity === "error");
    expect(about).toHaveLength(1);
    expect(about[0]?.message).toMatch(words);
    expect(about[0]?.remedy).not.toBe("");
    const plan = reconcileProject(opened, {}, "2031-05-04");
    expect(plan.changes.some((change) => change.file === file)).toBe(false);
  });

  test.each(["__proto__", "constructor", "toString"])("the key %s is a key like any other", (key) => {
    for (const [ending, write] of [
      ["json", (name: string) => `{"${name}": "One"}\n`],
      ["yaml", (name: string) => `${name}: One\n`],
      ["properties", (name: string) => `${name}=One\n`],
    ] as const) {
      const after = reconciled({ files: `t/{locale}.${ending}` }, { [`t/en.${ending}`]: write(key) });
      expect(after[`t/de.${ending}`]).toContain(key);
    }
  });
});
