import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import type { Finding } from "../../../src/core/lint/finding.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";

/** Lints a book whose plural forms stand apart. */
async function lint(
  book: Record<string, unknown>,
  locale: string,
  source: Record<string, string>,
  target: Record<string, string>,
): Promise<Finding[]> {
  const config = {
    source: "en",
    targets: [locale],
    books: [{ name: "web", code: [], files: "t/{locale}.json", syntax: "double-brace", ...book }],
  };
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify(config),
      "t/en.json": JSON.stringify(source),
      [`t/${locale}.json`]: JSON.stringify(target),
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return lintProject(opened.project);
}

const english = { boats_one: "{{count}} boat", boats_other: "{{count}} boats" };

test.each<
  [string, Record<string, unknown>, string, Record<string, string>, Record<string, string>, string, string]
>([
  [
    "a form that is missing",
    { plurals: "suffix" },
    "pl",
    english,
    { boats_one: "{{count}} statek", boats_few: "{{count}} statki", boats_other: "{{count}} statku" },
    "plural/missing-category",
    'add the key "boats_many"',
  ],
  [
    "a form that is missing, with a sign of the book's own",
    { plurals: "suffix", forms: { separator: "#" } },
    "pl",
    { "boats#one": "{{count}} boat", "boats#other": "{{count}} boats" },
    { "boats#one": "{{count}} statek", "boats#few": "{{count}} statki", "boats#other": "{{count}} statku" },
    "plural/missing-category",
    'add the key "boats#many"',
  ],
  [
    "a child key that is missing",
    { plurals: "branches" },
    "pl",
    { "boats.one": "{{count}} boat", "boats.other": "{{count}} boats" },
    { "boats.one": "{{count}} statek", "boats.few": "{{count}} statki", "boats.other": "{{count}} statku" },
    "plural/missing-category",
    'add the key "boats.many"',
  ],
  [
    "a form that the language never takes",
    { plurals: "suffix" },
    "ja",
    english,
    { boats_one: "{{count}}隻", boats_other: "{{count}}隻" },
    "plural/idle-category",
    'remove the key "boats_one"',
  ],
  [
    "a text without forms for a source that has them",
    { plurals: "suffix" },
    "de",
    english,
    { boats: "Boote" },
    "argument/missing",
    "",
  ],
])("%s is told of in the book's own keys", async (_, book, locale, source, target, rule, remedy) => {
  const found = await lint(book, locale, source, target);
  for (const one of found) expect(`${one.message} ${one.remedy}`).not.toMatch(/[\ufdd0\ufdd1]|\{…\}/);
  if (remedy !== "")
    expect(found.filter((one) => one.rule === rule).map((one) => one.remedy)).toEqual([remedy]);
});

test("a category that only millions or fractions take is told of once, any other is an error", async () => {
  const plural = (forms: readonly string[], word: string) => ({
    boats: `{count, plural, ${forms.map((form) => `${form} {# ${word}}`).join(" ")}}`,
  });
  const severities = async (locale: string, forms: readonly string[]) =>
    (await lint({ syntax: "icu" }, locale, plural(["one", "other"], "boats"), plural(forms, "x")))
      .filter(({ rule }) => rule === "plural/missing-category")
      .map(({ severity }) => severity);
  expect(await severities("es", ["one", "other"])).toEqual(["info"]);
  expect(await severities("cs", ["one", "few", "other"])).toEqual(["info"]);
  expect(await severities("cs", ["one", "other"])).toEqual(["error"]);
  expect(await severities("pl", ["one", "few", "other"])).toEqual(["error"]);
  expect(await severities("es", ["one", "many", "other"])).toEqual([]);
});

test.each<[string, string, string, number]>([
  ["two names in JSON", "json", '{ "menu": "Menu", "menu.open": "Open" }', 0],
  [
    "a name and a key in a group in JSON",
    "json",
    '{ "menu.open": "Menu", "menu": { "open": { "now": "Open" } } }',
    1,
  ],
  ["two texts in properties, which have no groups", "properties", "menu=Menu\nmenu.open=Open\n", 0],
])("a key that begins like another: %s", async (_, ending, text, count) => {
  const config = {
    source: "en",
    targets: [],
    books: [{ name: "web", code: [], files: `t/{locale}.${ending}` }],
  };
  const opened = openProject(
    memoryFiles({ "fond.config.json": JSON.stringify(config), [`t/en.${ending}`]: text }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const findings = await lintProject(opened.project);
  expect(findings.filter(({ rule }) => rule === "key/collision")).toHaveLength(count);
});

test("numbered forms are those of a locale's categories, as the book names them", async () => {
  const book = {
    plurals: "suffix",
    forms: { second: "plural", names: { ru: { few: "plural_2", many: "plural_5" } } },
  };
  const source = { boats: "{{count}} boat", boats_plural: "{{count}} boats" };
  const russian = {
    boats: "{{count}} лодка",
    boats_plural_2: "{{count}} лодки",
    boats_plural_5: "{{count}} лодок",
  };
  expect(await lint(book, "ru", source, russian)).toEqual([]);
  const lacking = { boats: russian.boats, boats_plural_2: russian.boats_plural_2 };
  const [found] = await lint(book, "ru", source, lacking);
  expect([found?.rule, found?.remedy]).toEqual(["plural/missing-category", 'add the key "boats_plural_5"']);
  const alike = { ...russian, boats_plural_2: "{{count}} лодок" };
  expect((await lint(book, "ru", source, alike)).map(({ rule }) => rule)).toEqual(["plural/alike"]);
});

test("numbered forms are written as they are read, and left alone where nothing is to do", async () => {
  const config = {
    source: "en",
    targets: ["ru"],
    books: [
      {
        name: "web",
        code: [],
        files: "t/{locale}.json",
        syntax: "double-brace",
        plurals: "suffix",
        forms: { second: "plural", names: { ru: { few: "plural_2", many: "plural_5" } } },
      },
    ],
  };
  const files = {
    "fond.config.json": JSON.stringify(config),
    "t/en.json": '{ "boats": "{{count}} boat", "boats_plural": "{{count}} boats" }\n',
  };
  const plan = (more: Record<string, string>) => {
    const opened = openProject(memoryFiles({ ...files, ...more }));
    if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
    return reconcileProject(opened.project, {}, "2031-05-01").changes.filter(
      ({ file }) => file === "t/ru.json",
    );
  };
  const [change] = plan({ "t/ru.json": "{}\n" });
  expect(Object.keys(JSON.parse(change?.after ?? "{}") as object)).toEqual([
    "boats",
    "boats_plural_2",
    "boats_plural_5",
  ]);
  const russian =
    '{\n  "boats": "{{count}} лодка",\n  "boats_plural_2": "{{count}} лодки",\n  "boats_plural_5": "{{count}} лодок"\n}\n';
  expect(plan({ "t/ru.json": russian })).toEqual([]);
});

test("a text may stand beside the forms that a number chooses", async () => {
  const source = { ...english, boats: "One boat" };
  const found = await lint({ plurals: "suffix" }, "de", source, {
    boats: "Ein Boot",
    boats_one: "{{count}} Boot",
    boats_other: "{{count}} Boote",
  });
  expect(found.filter(({ rule }) => rule.startsWith("key/"))).toEqual([]);
});

describe("a program that chooses forms by the number itself", () => {
  const book = { plurals: "suffix", forms: { known: ["zero", "one", "other"] } };
  const three = (word: string) => ({
    boats_zero: `no ${word}`,
    boats_one: `1 ${word}`,
    boats_other: `{{count}} ${word}s`,
  });
  const rulesOf = async (settings: Record<string, unknown>, locale: string, target: Record<string, string>) =>
    (await lint(settings, locale, three("boat"), target)).flatMap(({ rule, severity }) =>
      rule.startsWith("plural/") && severity !== "info" ? [rule] : [],
    );

  test.each(["ru", "ar", "ja", "fr", "de"])(
    "needs and shows its own in every language: %s",
    async (locale) => {
      expect(await rulesOf(book, locale, three("x"))).toEqual([]);
    },
  );

  test("has no use for others, and needs what a language has of them", async () => {
    const { boats_one, ...rest } = three("x");
    expect(await rulesOf(book, "ru", { ...rest, boats_one, boats_few: "{{count}} y" })).toEqual([
      "plural/idle-category",
    ]);
    expect(await rulesOf(book, "ru", rest)).toEqual(["plural/missing-category"]);
    expect(await rulesOf(book, "ja", rest)).toEqual([]);
  });

  test("is told of nothing that it does not set", async () => {
    expect(await rulesOf({ plurals: "suffix" }, "ru", three("x"))).toContain("plural/missing-category");
  });
});
