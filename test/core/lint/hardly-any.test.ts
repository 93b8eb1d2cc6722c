import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";

const numbers = Array.from({ length: 60 }, (_, at) => at);
const texts = (word: string, from = 0, to = numbers.length): object =>
  Object.fromEntries(numbers.slice(from, to).map((at) => [`boat${at}`, `${word} number ${at} leaves today`]));

/** What a rule says of a project with English, German and French texts and a script. */
async function said(rule: string, files: Record<string, object | undefined>, code = ""): Promise<string[]> {
  const written = Object.entries(files).flatMap(([file, content]) =>
    content === undefined ? [] : [[`t/${file}.json`, JSON.stringify(content)]],
  );
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de", "fr"],
        books: [{ name: "app", code: ["src/**"], files: "t/{locale}.json" }],
      }),
      ...(Object.fromEntries(written) as Record<string, string>),
      "src/a.ts": code,
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const findings = (await lintProject(opened.project)).filter((one) => one.rule === rule);
  return findings.map(({ message }) => message);
}

describe("where hardly anything is there, one finding says how much", () => {
  const en = texts("Boat");
  const french = texts("Le bateau");

  test("of keys that a locale lacks", async () => {
    const most = await said("key/missing", { en, fr: french, de: texts("Boot", 0, 5) });
    expect(most).toEqual(["55 of 60 keys are missing in de"]);
    const all = await said("key/missing", { en, fr: french });
    expect(all).toEqual(["60 of 60 keys are missing in de: the file t/de.json does not exist"]);
    // Fewer are named, each by itself.
    expect(await said("key/missing", { en, fr: french, de: texts("Boot", 0, 30) })).toHaveLength(30);
    const few = texts("Boat", 0, 12);
    expect(await said("key/missing", { en: few, fr: few, de: {} })).toHaveLength(12);
  });

  test("of texts that a locale has from the source", async () => {
    const mixed = { ...texts("Boot", 0, 20), ...texts("Boat", 20) };
    expect(await said("text/untranslated", { en, fr: french, de: mixed })).toEqual([
      "40 of 60 texts are those of the source: German is hardly begun",
    ]);
    const some = { ...texts("Boot", 0, 50), ...texts("Boat", 50) };
    const each = await said("text/untranslated", { en, fr: french, de: some });
    expect(each).toEqual(Array.from({ length: 10 }, () => "not translated"));
  });

  test("of keys that the usual call asks for and the catalog does not have", async () => {
    const asking = (known: number, others: number) =>
      [
        ...numbers.slice(0, known).map((at) => `t("boat${at}")`),
        ...numbers.slice(0, others).map((at) => `t("{quay:${at}}")`),
      ].join(";\n");
    expect(await said("key/undefined", { en }, asking(3, 50))).toEqual([
      "the source catalog has only 3 of the 53 keys that code asks for (searched t/en.json)",
    ]);
    // Where a quarter is known it is the call.
    expect(await said("key/undefined", { en }, asking(20, 39))).toHaveLength(39);
    expect(await said("key/undefined", { en }, asking(1, 20))).toHaveLength(20);
  });

  test("of many keys that other catalogs have, and each that is misspelt by itself", async () => {
    const asking = (known: number, others: number) =>
      [
        ...numbers.slice(0, known).map((at) => `t("boat${at}")`),
        ...numbers.slice(0, others).map((at) => `t("harbor.master${at}.office")`),
        't("baot3")',
      ].join(";\n");
    expect(await said("key/undefined", { en }, asking(60, 45))).toEqual([
      '45 of the 106 keys that code asks for, such as "harbor.master0.office", are in no source catalog (searched t/en.json)',
      'unknown key "baot3"',
    ]);
    expect(await said("key/undefined", { en }, asking(60, 30))).toHaveLength(31);
  });

  test("a key may have its catalog's folder in front, where catalogs stand in several", async () => {
    const project = (files: string) =>
      openProject(
        memoryFiles({
          "fond.config.json": JSON.stringify({
            source: "en",
            targets: [],
            books: [{ name: "app", code: ["src/**"], files, lookups: [{ call: "say" }] }],
          }),
          "parts/desk/en.json": '{ "title": "Desk", "late": "Late", "open": "Open" }',
          "src/a.js": 'say("title"); say("desk.late"); f({ label: "desk.open" }); say("quay.open")',
        }),
      );
    const keys = async (files: string) => {
      const opened = project(files);
      if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
      return (await lintProject(opened.project)).flatMap(({ rule, key }) =>
        rule.startsWith("key/un") ? [`${rule} ${key}`] : [],
      );
    };
    expect(await keys("{dir}/{locale}.json")).toEqual(["key/undefined quay.open"]);
    expect((await keys("parts/desk/{locale}.json")).sort()).toEqual([
      "key/undefined desk.late",
      "key/undefined quay.open",
      "key/unused late",
      "key/unused open",
    ]);
  });

  test("libraries ask for texts of their own, unless the book names them", async () => {
    const config = (code: string) => ({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: [],
        books: [{ name: "app", code: [code], files: "t/{locale}.json" }],
      }),
      "t/en.json": '{ "a": "A" }',
      "src/a.ts": 't("a");',
      "src/vendor/b.ts": 't("b");',
    });
    const keys = async (code: string) => {
      const opened = openProject(memoryFiles(config(code)));
      if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
      return (await lintProject(opened.project))
        .filter(({ rule }) => rule === "key/undefined")
        .map(({ key }) => key);
    };
    expect(await keys("src/**")).toEqual([]);
    expect(await keys("src/{vendor,x}/**")).toEqual([]);
    expect(await keys("src/vendor/**")).toEqual(["b"]);
  });

  test("of keys that no lookup asks for", async () => {
    const asked = (count: number) =>
      `export const f = () => [${numbers
        .slice(0, count)
        .map((at) => `t("boat${at}")`)
        .join(", ")}];\n`;
    expect(await said("key/unused", { en }, asked(10))).toEqual([
      "50 of 60 keys are not looked up by any lookup of the book",
    ]);
    expect(await said("key/unused", { en }, asked(40))).toHaveLength(20);
    expect(await said("key/unused", { en: texts("Boat", 0, 10) }, asked(1))).toHaveLength(9);
  });

  test("of a group's keys that no lookup asks for, where some keys are in variables", async () => {
    const group = (name: string, count: number) => ({ [name]: texts("Boat", 0, count) });
    const all = { ...group("quay", 20), ...group("crew", 10), ...group("tide", 4) };
    const asked = (name: string, count: number) =>
      numbers.slice(0, count).map((at) => `t("${name}.boat${at}")`);
    const code = (rest: string) =>
      `export const f = (key) => [${[...asked("quay", 20), ...asked("crew", 1), rest].join(", ")}];\n`;
    const inVariables = await said("key/unused", { en: all }, code("t(key)"));
    expect(inVariables).toHaveLength(5);
    expect(inVariables[0]).toBe('9 of 10 keys of "crew" are not looked up');
    expect(inVariables.slice(1)).toEqual([0, 1, 2, 3].map((at) => `unused key "tide.boat${at}"`));
    // Where each key is known, each unused one is.
    expect(await said("key/unused", { en: all }, code("1"))).toHaveLength(13);
    const some = code("t(key)").replace('t("crew.boat0")', asked("crew", 3).join(", "));
    expect(await said("key/unused", { en: all }, some)).toHaveLength(11);
  });
});
