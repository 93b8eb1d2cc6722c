import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { isListOf, localeListsIn } from "../../../src/core/locale/locale-lists.js";
import { addLocale } from "../../../src/core/project/locales.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";

function project(more: Record<string, string>) {
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["de", "pt-BR"],
      books: [{ name: "web", code: ["src/**"], files: "texts/{locale}.json" }],
    }),
    "texts/en.json": "{}\n",
    "texts/de.json": "{}\n",
    "texts/pt-BR.json": "{}\n",
    ...more,
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

describe("lists of locales are found by what they hold", () => {
  test.each<[string, string, string]>([
    ["strings", 'const all = ["en", "de",\n  "pt-BR"];', "list en,de,pt-BR"],
    ["a type", "type Locale = 'en' | 'de';", "union en,de"],
    ["symbols", "config.available_locales = [:en, :de, :pt_BR]", "list en,de,pt-BR"],
    ["pairs", 'LANGUAGES = [\n    ("en", _("English")),\n    ("de", _("German")),\n]', "pairs en,de"],
    ["objects", '[{ code: "en", name: "English" }, { code: "de", name: "Deutsch" }]', "pairs en,de"],
    ["an array with keys", "['en' => 'English', 'de' => 'Deutsch']", "map en,de"],
    ["a country among them", '{\n  en: "English",\n  cn: "中文",\n  de: "Deutsch"\n}', "map en,zh,de"],
    ["loaders", '{\n  en: () => import("./en.json"),\n  de: () => import("./de.json"),\n}', "map en,de"],
  ])("%s", (_, code, expected) => {
    const [list] = localeListsIn(code);
    expect(`${list?.kind} ${list?.members.map(({ locale }) => locale).join()}`).toBe(expected);
    expect(list && isListOf(list, "en", ["de", "pt-BR"])).toBe(true);
  });

  test.each([
    ["of countries", 'const all = ["de", "us", "gb", "pt"];'],
    ["of other words", 'say("no", "is", "to")'],
    ["of those that are written from the right", 'const rtl = ["ar", "he"];'],
    ["of one locale", 'const all = ["en"];'],
    ["of the world's languages", '["aa", "ab", "af", "ak", "am", "an", "as", "av", "en", "de"]'],
  ])("but none %s", (_, code) => {
    expect(localeListsIn(code).filter((list) => isListOf(list, "en", ["de", "pt-BR"]))).toEqual([]);
  });
});

test("lint names the locale that a list lacks, in code and in settings", async () => {
  const findings = await lintProject(
    project({
      "src/a.ts": 'export const all = ["en", "de"];\n',
      "site.config.mjs": 'export default { locales: ["en", "pt-BR"] };\n',
      "src/b.ts": 'export type Locale = "en" | "de" | "pt-BR";\n',
    }),
  );
  expect(findings.map(({ rule, file, message }) => [rule, file, message])).toEqual([
    ["locale/unlisted", "site.config.mjs", "de not in this list of locales"],
    ["locale/unlisted", "src/a.ts", "pt-BR not in this list of locales"],
  ]);
});

test("a locale that is added joins plain lists, and other lists are named", () => {
  const result = addLocale(
    project({
      "src/a.ts":
        "export const all = ['en', 'de', 'pt-BR'] as const;\nexport type Locale = 'en' | 'de' | 'pt-BR';\n",
      "config/application.rb": "config.available_locales = [:en, :de, :pt_BR]\n",
      "src/b.ts": 'export const names = {\n  en: "English",\n  de: "Deutsch",\n  "pt-BR": "Português",\n};\n',
    }),
    "fr-CA",
    "2031-05-01",
  );
  if (!result.ok) throw new Error(result.message);
  const after = new Map(result.plan.changes.map((change) => [change.file, change.after]));
  expect(after.get("src/a.ts")).toBe(
    "export const all = ['en', 'de', 'pt-BR', 'fr-CA'] as const;\nexport type Locale = 'en' | 'de' | 'pt-BR' | 'fr-CA';\n",
  );
  expect(after.get("config/application.rb")).toBe("config.available_locales = [:en, :de, :pt_BR, :fr_CA]\n");
  expect(result.plan.notes.map(({ file, line, remedy }) => [file, line, remedy])).toEqual([
    ["src/b.ts", 4, 'add "fr-CA" as the others are'],
  ]);
});
