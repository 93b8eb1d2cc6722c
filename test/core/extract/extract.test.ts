import { parseIcu } from "../../../src/core/message/syntaxes/icu/icu.js";
import { afterAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { symlinkSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import typescript from "typescript";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { extractProject } from "../../../src/core/project/extract-project.js";
import { openProject } from "../../../src/core/project/project.js";
import type { ExtractPlan } from "../../../src/core/extract/extract.js";
import { cleanUp, root, smallProject, temporaryProject } from "../../support/project.js";

afterAll(cleanUp);

async function extract(
  code: string,
  options: Parameters<typeof extractProject>[2] = {},
  more: Record<string, string> = {},
): Promise<ExtractPlan & { code: string; texts: Record<string, Record<string, string>> }> {
  const files = memoryFiles(smallProject({ "src/page.tsx": code, ...more }));
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const plan = await extractProject(opened.project, { path: (file) => file === "src/page.tsx" }, options);
  const after = (file: string) => plan.changes.find((change) => change.file === file)?.after;
  return {
    ...plan,
    code: after("src/page.tsx") ?? code,
    texts: JSON.parse(after("texts/en.json") ?? "{}") as Record<string, Record<string, string>>,
  };
}

const component = (body: string) => `export function Page({ name, n, items, t2 }) {\n  return ${body};\n}\n`;

describe("what takes the text's place", () => {
  const cases: [string, string, string, Record<string, string>][] = [
    ["text", "<p> Hello </p>", '<p> {t("page.hello")} </p>', { hello: "Hello" }],
    [
      "an attribute",
      '<p title="Deck plan" />',
      '<p title={t("page.deckPlan")} />',
      { deckPlan: "Deck plan" },
    ],
    [
      "a string in braces",
      '<p>{n ? "All aboard" : null}</p>',
      '<p>{n ? t("page.allAboard") : null}</p>',
      { allAboard: "All aboard" },
    ],
    [
      "an ending in brackets is part of its word",
      "<p>No boat(s) chosen</p>",
      '<p>{t("page.noBoatsChosen")}</p>',
      { noBoatsChosen: "No boat(s) chosen" },
    ],
    [
      "values become arguments",
      "<p>Hello {name}, deck {items.length}</p>",
      '<p>{t("page.helloDeckNameItem", { name, itemCount: items.length })}</p>',
      { helloDeckNameItem: "Hello {name}, deck {itemCount}" },
    ],
    [
      "what may be absent shows as nothing",
      "<p>Hello {name?.first}</p>",
      '<p>{t("page.helloFirst", { first: name?.first ?? "" })}</p>',
      { helloFirst: "Hello {first}" },
    ],
    [
      "a template",
      "<p title={`Deck ${n}`} />",
      '<p title={t("page.deckN", { n })} />',
      { deckN: "Deck {n}" },
    ],
    [
      "elements become tags",
      "<p>Read <a href={name}>this page</a> first</p>",
      '<p>{rich("page.readPageFirst", { link: (children) => <a href={name}>{children}</a> })}</p>',
      { readPageFirst: "Read <link>this page</link> first" },
    ],
    [
      "braces in text are quoted in the message",
      '<p title="Type {x}" />',
      '<p title={t("page.typeX")} />',
      { typeX: "Type '{'x'}'" },
    ],
    [
      "entities are decoded",
      "<p>Food &amp; drink&nbsp;here</p>",
      '<p>{t("page.foodDrinkHere")}</p>',
      { foodDrinkHere: "Food & drink\u00a0here" },
    ],
    [
      "text inside an element of a text",
      '<p>Read <a title="A help page">this page</a> first</p>',
      '<p>{rich("page.readPageFirst", { link: (children) => <a title={t("page.helpPage")}>{children}</a> })}</p>',
      { readPageFirst: "Read <link>this page</link> first", helpPage: "A help page" },
    ],
    [
      "the same text in the same role has one key",
      "<><p>Hello</p><p>Hello</p></>",
      '<><p>{t("page.hello")}</p><p>{t("page.hello")}</p></>',
      { hello: "Hello" },
    ],
    [
      "the same text in another role has its own",
      '<p title="Full fare">Full fare</p>',
      '<p title={t("page.fullFare")}>{t("page.fullFareText")}</p>',
      { fullFare: "Full fare", fullFareText: "Full fare" },
    ],
  ];
  test.each(cases)("%s", async (_, body, after, texts) => {
    const result = await extract(component(body));
    expect(result.notes).toEqual([]);
    expect(result.code).toContain(after);
    expect(result.texts["page"]).toEqual(texts);
  });

  test("what is needed is imported, once, and joined to an import that is there", async () => {
    const fresh = await extract(
      'import a from "a";\nexport const A = () => <p>Hello there <b>you all</b></p>;',
    );
    expect(fresh.code).toContain('import a from "a";\nimport { rich } from "./messages";\n');
    const joined = await extract(
      'import { t } from "./messages";\nexport const A = () => <p>Hello there <b>you all</b></p>;',
    );
    expect(joined.code).toContain('import { t, rich } from "./messages";\n');
    const directive = await extract('"use client";\nexport const A = () => <p>Hello there</p>;');
    expect(directive.code).toContain('"use client";\nimport { t } from "./messages";\n');
  });

  test("the file's quotes are used", async () => {
    expect((await extract("import a from 'a';\nexport const A = () => <p>Hello there</p>;")).code).toContain(
      "import { t } from './messages';\nexport const A = () => <p>{t('page.helloThere')}</p>;",
    );
  });

  test("keys never clash with a key or group that is there", async () => {
    const texts = '{ "page": { "hello": "Other text", "save": { "now": "x" } } }';
    const { extracted } = await extract(
      component("<><p>Hello</p><b>Save</b></>"),
      {},
      { "texts/en.json": texts },
    );
    expect(extracted.map(({ key }) => key)).toEqual(["page.helloText", "page.saveText"]);
  });

  test("a text that the catalog has under its key is found again", async () => {
    const { extracted, changes } = await extract(
      component("<p>Hello</p>"),
      {},
      { "texts/en.json": '{ "page": { "hello": "Hello" } }' },
    );
    expect(extracted).toMatchObject([{ key: "page.hello", isNew: false }]);
    expect(changes.map(({ file }) => file)).toEqual(["src/page.tsx"]);
  });

  test("a text in another script gets a key all the same", async () => {
    const config = {
      source: "ru",
      targets: ["en"],
      books: [
        {
          name: "app",
          code: ["src/*.tsx"],
          files: "texts/{locale}.json",
          emit: { call: 't("{key}"{args})', import: 'import { t } from "./t";' },
          naming: { pattern: "{file}.{slug}" },
        },
      ],
    };
    const { extracted } = await extract(
      component("<p>Добро пожаловать</p>"),
      {},
      { "fond.config.json": JSON.stringify(config) },
    );
    expect(extracted[0]?.key).toMatch(/^page\.text[0-9a-zA-Z]{6}$/);
  });

  test("running it again changes nothing", async () => {
    const first = await extract(component('<p title="Deck plan">Hello {name}, <b>all of you</b></p>'));
    const texts = first.changes.find(({ file }) => file === "texts/en.json")?.after ?? "";
    expect((await extract(first.code, {}, { "texts/en.json": texts })).changes).toEqual([]);
  });

  test.each<[string, object, string, string, readonly string[]]>([
    [
      "an object of texts is imported",
      { call: "texts.{key}", import: 'import { texts } from "./texts";' },
      "export const A = () => <p>Hello there</p>;\n",
      'import { texts } from "./texts";\n\nexport const A = () => <p>{texts.helloThere}</p>;\n',
      [],
    ],
    [
      "or made by the component, where the book says how",
      {
        call: "texts.{key}",
        setup: "const texts = useTexts();",
        import: 'import { useTexts } from "./texts";',
      },
      "export function A() {\n  return <p>Hello there</p>;\n}\n",
      'import { useTexts } from "./texts";\n\nexport function A() {\n  const texts = useTexts();\n  return <p>{texts.helloThere}</p>;\n}\n',
      [],
    ],
    [
      "what the function makes for itself is that object",
      { call: "texts.{key}" },
      "export function A() {\n  const texts = useTexts();\n  return <p>Hello there</p>;\n}\n",
      "export function A() {\n  const texts = useTexts();\n  return <p>{texts.helloThere}</p>;\n}\n",
      [],
    ],
    [
      "but not a list of that name",
      { call: "texts.{key}" },
      'export function A() {\n  const texts = ["a"];\n  return <p>Hello there</p>;\n}\n',
      "",
      ["extract/taken"],
    ],
    [
      "nor what another function makes",
      { call: "texts.{key}" },
      "export function A() {\n  return <p>Hello there</p>;\n}\nfunction B() {\n  const texts = useTexts();\n}\n",
      "",
      ["extract/not-in-scope"],
    ],
  ])("%s", async (_, emit, code, expected, refused) => {
    const config = {
      source: "en",
      targets: ["de"],
      books: [
        {
          name: "app",
          code: ["src/**/*.tsx"],
          files: "texts/{locale}.json",
          emit,
          lookups: [{ member: "texts" }],
          naming: { pattern: "{slug}" },
        },
      ],
    };
    const plan = await extract(code, {}, { "fond.config.json": JSON.stringify(config) });
    expect(plan.code).toBe(expected === "" ? code : expected);
    expect(plan.notes.map(({ messageId }) => messageId)).toEqual(refused);
  });

  test("where the book names the call and no import, the function is there everywhere; where it names neither, it must be imported", async () => {
    const settings = (emit: object) => ({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [{ name: "app", code: ["src/*.tsx"], files: "texts/{locale}.json", emit }],
      }),
    });
    const code = "export const A = () => <p>Hello there</p>;";
    expect((await extract(code, {}, settings({ call: 'say("{key}"{args})' }))).code).toBe(
      'export const A = () => <p>{say("page.helloThere")}</p>;',
    );
    expect((await extract(code, {}, settings({}))).notes[0]?.message).toContain('"t" is not imported here');
    const imported = `import { t } from "./x";\n${code}`;
    expect((await extract(imported, {}, settings({}))).code).toContain('{t("page.helloThere")}');
  });

  test.each<[string, string, string]>([
    ["a condition", 'lang === "de" ? `Hallo ${name}` : `Hello ${name}`', 't("page.helloName", { name })'],
    [
      "a condition the other way round",
      'lang !== "de" ? `Hello ${name}` : `Hallo ${name}`',
      't("page.helloName", { name })',
    ],
    ["a table", "{ en: `Hello ${name}`, de: `Hallo ${name}` }[lang]", 't("page.helloName", { name })'],
  ])(
    "texts that code has in several languages become one key with its translations: %s",
    async (_, code, expected) => {
      const found = await extract(
        `import { t } from "./messages";\nexport const A = ({ lang, name }) => <p>{${code}}</p>;\n`,
      );
      expect(found.code).toContain(`<p>{${expected}}</p>`);
      expect(found.texts["page"]).toEqual({ helloName: "Hello {name}" });
      const german = found.changes.find(({ file }) => file === "texts/de.json")?.after ?? "{}";
      expect((JSON.parse(german) as { page: unknown }).page).toEqual({ helloName: "Hallo {name}" });
    },
  );

  test.each<[string, string]>([
    ["in turn", "if (lang === 'de') return `Hallo ${name}`; return `Hello ${name}`;"],
    ["with else", "if (lang === 'de') { return `Hallo ${name}`; } else { return `Hello ${name}`; }"],
    [
      "by a switch",
      "switch (lang) { case 'de': return `Hallo ${name}`; case 'en': return `Hello ${name}`; default: return `Hello ${name}`; }",
    ],
  ])("and so do statements that return one of them: %s", async (_, code) => {
    const found = await extract(
      `import { t } from "./messages";\nexport function greet(lang, name) { ${code} }\nexport const A = () => <p title={greet("de", "x")} />;\n`,
      { least: "unclear" },
    );
    expect(found.code).toContain(
      'export function greet(lang, name) { return t("page.helloName", { name }); }',
    );
    expect(found.texts["page"]).toEqual({ helloName: "Hello {name}" });
    const german = found.changes.find(({ file }) => file === "texts/de.json")?.after ?? "{}";
    expect((JSON.parse(german) as { page: unknown }).page).toEqual({ helloName: "Hallo {name}" });
  });

  test.each<[string, string, string]>([
    ["of the file's lookups", '{t("boats.page.title")} {t("boats.page.lead")}', "boats.page.helloThere"],
    [
      "of the file's name, where most keys have another",
      '{t("boats.page.title")} {t("boats.list.all")} {t("boats.list.none")}',
      "page.helloThere",
    ],
    ["of no place", '{t("common.save")} {t("common.leave")}', "page.helloThere"],
    ["of one lookup", '{t("boats.page.title")}', "page.helloThere"],
  ])("a new key goes into the group %s", async (_, lookups, key) => {
    const found = await extract(
      `import { t } from "./messages";\nexport const A = () => <p title="Hello there">${lookups}</p>;\n`,
      {},
      {
        "fond.config.json": JSON.stringify({
          source: "en",
          targets: [],
          books: [
            { name: "app", code: ["src/**/*.tsx"], files: "texts/{locale}.json", lookups: [{ call: "t" }] },
          ],
        }),
        "texts/en.json": JSON.stringify({
          boats: { page: { title: "Boats", lead: "All" }, list: { all: "All boats", none: "None" } },
          common: { save: "Save", leave: "Leave" },
        }),
      },
    );
    expect(found.code).toContain(`title={t("${key}")}`);
  });

  test("a text that has the name of a file holds no keys: these go below another name", async () => {
    const found = await extract(
      'import { t } from "./messages";\nexport const A = () => <p>Hello there</p>;\n',
      {},
      { "texts/en.json": '{\n  "page": "Page"\n}\n' },
    );
    expect(found.code).toContain('{t("pageTexts.helloThere")}');
    expect(found.texts).toEqual({ page: "Page", pageTexts: { helloThere: "Hello there" } });
  });

  test.each<[string, string, RegExp]>([
    [
      "a language that is not the project's",
      'lang === "it" ? "Ciao a tutti" : "Hello everybody"',
      /not a locale of the project/,
    ],
    [
      "a text whose language is not said",
      'lang === "en" ? "Hello everybody" : "Hallo zusammen"',
      /which language the other/,
    ],
    [
      "a table that is looked into elsewhere",
      'pick({ en: "Hello everybody", de: "Hallo zusammen" })',
      /several languages side by side/,
    ],
  ])("%s stays in code", async (_, code, reason) => {
    const found = await extract(
      `import { t } from "./messages";\nexport const A = ({ lang }) => <p>{${code}}</p>;\n`,
    );
    expect(found.changes).toEqual([]);
    expect(found.notes[0]?.message).toMatch(reason);
  });

  test("default texts of lookups are collected under their keys", async () => {
    const settings = {
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [
          {
            name: "app",
            code: ["src/*.tsx"],
            files: "texts/{locale}.json",
            lookups: [{ call: "say", default: 1 }],
          },
        ],
      }),
      "texts/en.json": '{ "a": { "old": "There already" } }',
    };
    const code =
      'export const A = () => [say("a.old", "Other"), say("a.fresh", "Hello {name}"), say("a.fresh", "Hello {name}"), say(k, "No key")];\n';
    const found = await extract(code, {}, settings);
    expect(found.code).toBe(code);
    expect(found.texts).toEqual({ a: { old: "There already", fresh: "Hello {name}" } });
    expect(found.summary).toEqual({ "default texts collected": 1 });
  });

  test("two lookups of one key with different default texts are told of", async () => {
    const settings = {
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [
          {
            name: "app",
            code: ["src/*.tsx"],
            files: "texts/{locale}.json",
            lookups: [{ call: "say", default: 1 }],
          },
        ],
      }),
    };
    const found = await extract(
      'export const A = () => [say("fresh", "One text"), say("fresh", "Two texts")];\n',
      {},
      settings,
    );
    expect(found.notes[0]?.message).toContain('"fresh" has a different default text');
  });

  test("a limit takes a part", async () => {
    expect(
      (await extract(component("<><p>One text</p><p>Two texts</p><p>Three texts</p></>"), { limit: 2 }))
        .extracted,
    ).toHaveLength(2);
  });
});

describe("a set-up statement goes where the lookup needs it", () => {
  const settings = {
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de"],
      books: [
        {
          name: "app",
          code: ["src/*.tsx"],
          files: "texts/{locale}.json",
          emit: { setup: "const { t } = useTexts();", import: 'import { useTexts } from "./texts";' },
        },
      ],
    }),
  };
  const line = 'import { useTexts } from "./texts";\n\n';
  test.each<[string, string, string]>([
    [
      "into the body of a component, once",
      'export function A() {\n    const x = 1;\n    return <p title="Deck plan">Hello there</p>;\n}\n',
      `${line}export function A() {\n    const { t } = useTexts();\n    const x = 1;\n    return <p title={t("page.deckPlan")}>{t("page.helloThere")}</p>;\n}\n`,
    ],
    [
      "an expression becomes a body",
      "export const A = () => (\n  <p>Hello there</p>\n);\n",
      `${line}export const A = () => {\n  const { t } = useTexts();\n  return (\n  <p>{t("page.helloThere")}</p>\n);\n};\n`,
    ],
    [
      "and into the lists of what memoized functions depend on, but for effects",
      'export function A({ say }) {\n  const one = useCallback(() => say("The boat has left"), [say]);\n  const two = useMemo(() => ({ title: "All seats taken" }), []);\n  useEffect(() => { say("All seats taken"); }, []);\n  return one(two);\n}\n',
      `${line}export function A({ say }) {\n  const { t } = useTexts();\n  const one = useCallback(() => say(t("page.boatHasLeft")), [say, t]);\n  const two = useMemo(() => ({ title: t("page.allSeatsTaken") }), [t]);\n  useEffect(() => { say(t("page.allSeatsTakenMessage")); }, []);\n  return one(two);\n}\n`,
    ],
    [
      "conditions side by side show texts of their own",
      'export function A({ late, full }) {\n  return <p>{late && "The boat is late."} {full && "All seats are taken."} Please wait here.</p>;\n}\n',
      `${line}export function A({ late, full }) {\n  const { t } = useTexts();\n  return <p>{late && t("page.boatLate")} {full && t("page.allSeatsTaken")} {t("page.waitHere")}</p>;\n}\n`,
    ],
    [
      "into the component, not the function inside",
      'export const A = () => { const f = () => alert("All seats taken"); return f; };\n',
      `${line}export const A = () => { const { t } = useTexts(); const f = () => alert(t("page.allSeatsTaken")); return f; };\n`,
    ],
    [
      "into the component that a function makes, and not into that",
      "export function QuayFactory(Boat) {\n  const Quay = ({ n }) => <p>Hello there</p>;\n  return withTheme(Quay);\n}\nexport const Pier = () => { const items = useMemo(() => [], []); return <p>{items.map((one) => one)} Hello there</p>; };\n",
      `${line}export function QuayFactory(Boat) {\n  const Quay = ({ n }) => {\n    const { t } = useTexts();\n    return <p>{t("page.helloThere")}</p>;\n  };\n  return withTheme(Quay);\n}\nexport const Pier = () => { const { t } = useTexts(); const items = useMemo(() => [], []); return <p>{items.map((one) => one)} {t("page.helloThere")}</p>; };\n`,
    ],
    [
      "without a semicolon where the file has none",
      'import { a } from "./a"\n\nconst b = a\n\nexport function A() {\n  const x = b\n  return <p>Hello there</p>\n}\n',
      'import { a } from "./a"\nimport { useTexts } from "./texts"\n\nconst b = a\n\nexport function A() {\n  const { t } = useTexts()\n  const x = b\n  return <p>{t("page.helloThere")}</p>\n}\n',
    ],
    [
      "with one where the next line would be taken for more of it, or there is no line end",
      'import { a } from "./a"\n\nconst b = a\n\nexport function A() {\n  [a, b].map(b)\n  return <p>Hello there</p>\n}\nexport const B = () => { const f = () => alert("All seats taken"); return f }\n',
      'import { a } from "./a"\nimport { useTexts } from "./texts"\n\nconst b = a\n\nexport function A() {\n  const { t } = useTexts();\n  [a, b].map(b)\n  return <p>{t("page.helloThere")}</p>\n}\nexport const B = () => { const { t } = useTexts(); const f = () => alert(t("page.allSeatsTaken")); return f }\n',
    ],
    [
      "not where it is already",
      `${line}export const A = () => {\n  const { t } = useTexts();\n  return <p>Hello there</p>;\n};\n`,
      `${line}export const A = () => {\n  const { t } = useTexts();\n  return <p>{t("page.helloThere")}</p>;\n};\n`,
    ],
  ])("%s", async (_, code, expected) => {
    const found = await extract(code, {}, settings);
    expect(found.notes).toEqual([]);
    expect(found.code).toBe(expected);
    expect(
      (await extract(found.code, {}, { ...settings, "texts/en.json": JSON.stringify(found.texts) })).changes,
    ).toEqual([]);
  });

  test.each<[string, string, RegExp]>([
    ["outside of components", "export const help = () => alert('All seats taken');", /no component or hook/],
    [
      "in a class that a function makes",
      "export function QuayFactory(Boat) {\n  class Quay extends Part {\n    render() {\n      return <p>Hello there</p>;\n    }\n  }\n  return Quay;\n}\n",
      /no component or hook/,
    ],
    ["where the name is taken", "export const A = ({ t }) => <p>Hello there</p>;", /means something else/],
  ])("%s the text stays", async (_, code, reason) => {
    const found = await extract(code, {}, settings);
    expect(found.code).toBe(code);
    expect(found.notes[0]?.message).toMatch(reason);
  });
});

describe("what is left alone, with the reason", () => {
  const cases: [string, string, RegExp][] = [
    ["evaluated when the file is loaded", 'const labels = made({ title: "Deck plan" });', /loaded/],
    [
      "evaluated with the class that it decorates",
      'export class A { @field({ label: "Deck plan here" }) plan = 1; }',
      /loaded/,
    ],
    [
      "a word that takes a value's place",
      component('<p>Hello {name && "dear guest"}, our boats are here</p>'),
      /code chooses/,
    ],
    [
      "the lookup's name means something else",
      "export const A = ({ list }) => list.map((t) => <p>Hello there</p>);",
      /"t" means something else/,
    ],
    [
      "the file has its own function of that name",
      "function t() {}\nexport const A = () => <p>Hello there</p>;",
      /declares its own "t"/,
    ],
    [
      "the values of an enum",
      'export enum Deck { Main = "Main deck with seats", Car = "car" }',
      /values of an enum are fixed/,
    ],
    [
      "a constant of fixed values",
      'export const f = () => ({ label: "Deck plan here" }) as const;',
      /"as const" takes fixed values/,
    ],
    ["the file does not parse", "export const A = () => <p>Hello there</p>;\nlet x = ;", /does not parse/],
  ];
  test.each(cases)("%s", async (_, code, reason) => {
    const { notes, changes } = await extract(code, { least: "likely" });
    expect(changes).toEqual([]);
    expect(notes).toHaveLength(1);
    expect(notes[0]?.message).toMatch(reason);
    expect(notes[0]?.remedy).not.toBe("");
  });

  test("nothing is taken that a comment excuses, or that is unclear", async () => {
    expect(
      (await extract("export const A = () => <p>{/* fond: skip a name */}Ninth Wave</p>;")).extracted,
    ).toEqual([]);
    expect((await extract('export const f = () => g("Heron");')).extracted).toEqual([]);
    expect(
      (await extract('export const f = () => g("Heron");', { least: "unclear" })).extracted,
    ).toHaveLength(1);
  });

  test("a namespace without any catalog yet gets one, and no text is lost", async () => {
    const config = {
      source: "en",
      targets: ["de"],
      books: [
        {
          name: "app",
          code: ["src/page.tsx"],
          files: "new/{locale}/{namespace}.json",
          emit: { call: 't("{key}"{args})' },
        },
      ],
    };
    const { changes, extracted } = await extract(
      component("<p>Hello there</p>"),
      {},
      { "fond.config.json": JSON.stringify(config) },
    );
    expect(extracted.map(({ key }) => key)).toEqual(["page.helloThere"]);
    expect(changes.find(({ file }) => file === "new/en/page.json")?.after).toBe(
      '{\n  "helloThere": "Hello there"\n}\n',
    );
  });

  test("a text that is there twice stays too where the source catalog cannot be read", async () => {
    const { changes, notes } = await extract(
      component("<><p>Hello there</p><p>Hello there</p></>"),
      {},
      { "texts/en.json": '{ "a": ' },
    );
    expect(changes).toEqual([]);
    expect(notes).toHaveLength(2);
  });

  test("a source catalog that cannot be read is not written to", async () => {
    const { changes, notes } = await extract(
      component("<p>Hello there</p>"),
      {},
      { "texts/en.json": '{ "a": ' },
    );
    expect(changes).toEqual([]);
    expect(notes[0]).toMatchObject({ undone: "refused" });
    expect(notes[0]?.message).toContain("no source catalog");
  });
});

/** Random JSX of text, values and elements. */
const { children } = fc.letrec<{ children: string; child: string }>((tie) => ({
  child: fc.oneof(
    { maxDepth: 2 },
    fc.constantFrom(
      "Hello",
      " two words ",
      "it's {'{'}",
      "\n    over\n    lines\n  ",
      "a &amp; b",
      "<br />",
      " ",
      "{name}",
      "{n}",
      "{name.length}",
      '{" "}',
      '{"quoted text"}',
      "{`about ${name}`}",
      "{null}",
      '{n === 1 ? "bike" : "bikes"}',
      ' boat{n === 1 ? "" : "s"} ',
      '{n > 1 ? "many boats" : "one boat"}',
      '{n === 0 ? "no bikes" : n === 1 ? "1 bike" : `${n} bikes`}',
      '{name === "Ines" ? "she" : "they"}',
      '{name.length > 3 ? "long" : `short ${name}`}',
      '{name || "guest"}',
      "{`${n} item${n !== 1 ? 's' : ''}`}",
    ),
    tie("children").map((inner) => `<b>${inner}</b>`),
    tie("children").map((inner) => `<a href="/x" title="Some title">${inner}</a>`),
    tie("children").map((inner) => `<p>${inner}</p>`),
  ),
  children: fc.array(tie("child"), { minLength: 1, maxLength: 4 }).map((list) => list.join("")),
}));

const runtime = `import { createElement, Fragment } from "preact";
import { readFileSync } from "node:fs";
let texts;
export const install = (found) => { texts = found; };
const find = (key) => key.split(".").reduce((at, part) => at[part], texts);
function format(nodes, values, count) {
  return nodes.flatMap((node) => {
    const inside = (list, number = count) => format(list, values, number);
    const value = values[node.name];
    const branch = (name) => node.branches.find((one) => one.selector === name);
    switch (node.kind) {
      case "text": return [node.value];
      case "count": return [count];
      case "argument": return [value];
      case "tag": return [node.selfClosing ? value() : value(inside(node.children))];
      case "select": return inside((branch(String(value)) ?? branch("other")).nodes);
      case "plural": return inside((branch("=" + value) ?? branch(value === 1 ? "one" : "other") ?? branch("other")).nodes, value);
    }
  });
}
export const t = (key, values = {}) => format(JSON.parse(find(key)), values).join("");
export const rich = (key, values) => createElement(Fragment, null, ...format(JSON.parse(find(key)), values));
`;

test("random JSX renders the same before and after", async () => {
  const samples = fc.sample(children, { numRuns: 150, seed: 20261123 });
  const code = `import { t, rich } from "./messages.js";\nexport const used = [t, rich];\n${samples.map((body, index) => `export const P${index} = ({ name, n }) => <div>${body}</div>;`).join("\n")}\n`;
  const result = await extract(code);
  expect(result.extracted.length).toBeGreaterThan(150);
  const compile = (text: string) =>
    typescript.transpileModule(text, {
      fileName: "page.tsx",
      compilerOptions: {
        jsx: typescript.JsxEmit.ReactJSX,
        jsxImportSource: "preact",
        module: typescript.ModuleKind.ESNext,
        target: typescript.ScriptTarget.ES2022,
      },
    }).outputText;
  const folder = temporaryProject({
    "package.json": '{ "type": "module" }',
    "messages.js": runtime,
    "before.js": compile(code),
    "after.js": compile(result.code),
    "render.mjs": `import { h } from "preact"; import { render } from "preact-render-to-string"; import { install } from "./messages.js";
import { readFileSync } from "node:fs";
install(JSON.parse(readFileSync(new URL("./texts.json", import.meta.url), "utf8")));
export async function pages(file) { const made = await import(file); return Object.keys(made).filter((k) => k !== "used").flatMap((k) => [["Ines", 3], ["Bo", 1], ["", 0]].map(([name, n]) => [k, name, render(h(made[k], { name, n }))])); }`,
    "texts.json": JSON.stringify(result.texts, (_, value: unknown) =>
      typeof value === "string" ? JSON.stringify(parseIcu(value).nodes) : value,
    ),
  });
  symlinkSync(join(root, "node_modules"), join(folder, "node_modules"));
  writeFileSync(
    join(folder, "run.mjs"),
    'import { pages } from "./render.mjs"; console.log(JSON.stringify([await pages("./before.js"), await pages("./after.js")]));',
  );
  const { execFileSync } = await import("node:child_process");
  const [before, after] = JSON.parse(
    execFileSync(process.execPath, [join(folder, "run.mjs")], { encoding: "utf8" }),
  ) as [[string, string][], [string, string][]];
  expect(pathToFileURL(folder).href).toContain("fond-");
  expect(after).toEqual(before);
  expect(before).toHaveLength(450);
});
