import { describe, expect, test } from "@jest/globals";
import { loadBook } from "../../../src/core/catalog/book.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { previewProject } from "../../../src/core/project/preview.js";
import { convertBook } from "../../../src/core/project/convert.js";

function open(book: object, files: Record<string, string>, targets = ["pl"]) {
  const config = { source: "en", targets, books: [{ name: "app", syntax: "double-brace", ...book }] };
  const held = memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) });
  const opened = openProject(held, undefined, "2031-05-04");
  const first = opened.ok ? opened.project.config.books[0] : undefined;
  if (!opened.ok || !first) throw new Error(JSON.stringify(opened));
  return { project: opened.project, files: held, book: first };
}

const en =
  '{\n  "title": "Boats",\n  "boat_one": "{{count}} boat",\n  "boat_other": "{{count}} boats",\n  "end": "End"\n}\n';

describe("forms under keys of their own are one entry with a plural", () => {
  test.each<[string, object, string, [string, string][]]>([
    [
      "suffixes",
      { plurals: "suffix" },
      en,
      [
        ["title", ""],
        ["boat", "one other"],
        ["end", ""],
      ],
    ],
    [
      "another separator",
      { plurals: "suffix", forms: { separator: "#" } },
      '{"a#one": "x", "a#other": "y", "b_one": "z"}',
      [
        ["a", "one other"],
        ["b_one", ""],
      ],
    ],
    [
      "the older two forms",
      { plurals: "suffix" },
      '{"item": "x", "item_plural": "y", "tree_plural": "z"}',
      [
        ["item", "one other"],
        ["tree_plural", ""],
      ],
    ],
    [
      "no form is other",
      { plurals: "suffix" },
      '{"step_one": "x", "step_two": "y"}',
      [
        ["step_one", ""],
        ["step_two", ""],
      ],
    ],
    [
      "children",
      { plurals: "branches" },
      '{"boat": {"one": "x", "other": "y"}, "nav": {"one": "a", "home": "b"}}',
      [
        ["boat", "one other"],
        ["nav.one", ""],
        ["nav.home", ""],
      ],
    ],
  ])("%s", (_, book, text, expected) => {
    const {
      project,
      files,
      book: config,
    } = open({ files: "t/{locale}.json", ...book }, { "t/en.json": text });
    const reader = messageReader(config);
    const catalog = loadBook(files, project.config, config).catalog("en", undefined);
    expect(
      catalog?.entries.map(({ key, text: joined }) => [
        key,
        reader
          .read(joined)
          .facts.plurals[0]?.branches.map(({ selector }) => selector)
          .join(" ") ?? "",
      ]),
    ).toEqual(expected);
  });
});

describe("every plural rule holds for them", () => {
  test("a missing category is found, and what is wrong inside a form is placed in its line", async () => {
    const pl =
      '{\n  "title": "Statki",\n  "boat_one": "{{count}} statek",\n  "boat_few": "{{ilosc}} statki",\n  "boat_other": "{{count}} statku",\n  "end": "Koniec"\n}\n';
    const { project } = open(
      { files: "t/{locale}.json", plurals: "suffix" },
      { "t/en.json": en, "t/pl.json": pl },
    );
    const found = (await lintProject(project)).map(({ rule, key, line }) => [rule, key, line]);
    expect(found).toContainEqual(["plural/missing-category", "boat", expect.any(Number)]);
    expect(found).toContainEqual(["argument/unknown", "boat", 4]);
    expect(found.some(([rule]) => String(rule).startsWith("key/"))).toBe(false);
  });

  test("preview fills them by number", () => {
    const { project } = open(
      { files: "t/{locale}.json", plurals: "suffix" },
      { "t/en.json": en, "t/pl.json": "{}" },
    );
    const result = previewProject(project, { locales: ["en"] }, ["boat"]);
    expect(result.ok && result.messages[0]?.samples.map(({ text }) => text).slice(0, 2)).toEqual([
      "1 boat",
      "2 boats",
    ]);
  });
});

describe("reconcile adds the forms that a locale needs, and sets all of them aside", () => {
  const run = (book: object, files: Record<string, string>) => {
    const { project } = open({ files: "t/{locale}.json", fill: "source", ...book }, files);
    const plan = reconcileProject(project, {}, "2031-05-04");
    return plan.changes.find(({ file }) => file === "t/pl.json")?.after;
  };
  test("with suffixes", () => {
    expect(
      run(
        { plurals: "suffix" },
        { "t/en.json": en, "t/pl.json": '{\n  "title": "Statki",\n  "end": "Koniec"\n}\n' },
      ),
    ).toBe(
      '{\n  "title": "Statki",\n  "boat_one": "{{count}} boat",\n  "boat_few": "{{count}} boats",\n  "boat_many": "{{count}} boats",\n  "boat_other": "{{count}} boats",\n  "end": "Koniec"\n}\n',
    );
  });
  test("with children, in YAML and properties", () => {
    const { project } = open(
      { files: "t/{locale}.yaml", plurals: "branches" },
      { "t/en.yaml": "boat:\n  one: a boat\n  other: boats\n", "t/pl.yaml": "" },
    );
    const plan = reconcileProject(project, {}, "2031-05-04");
    expect(plan.changes.find(({ file }) => file === "t/pl.yaml")?.after).toBe(
      "boat:\n  one: a boat\n  few: boats\n  many: boats\n  other: boats\n",
    );
    const flat = open(
      { files: "t/{locale}.properties", plurals: "branches" },
      { "t/en.properties": "boat.one=a boat\nboat.other=boats\n", "t/pl.properties": "" },
    );
    const after = reconcileProject(flat.project, {}, "2031-05-04").changes.find(
      ({ file }) => file === "t/pl.properties",
    )?.after;
    expect(after).toBe("boat.one=a boat\nboat.few=boats\nboat.many=boats\nboat.other=boats\n");
  });
  test("and nothing is to do twice; what leaves the source leaves with all its forms", () => {
    const pl =
      '{\n  "title": "Statki",\n  "boat_one": "a",\n  "boat_few": "b",\n  "boat_other": "c",\n  "end": "Koniec"\n}\n';
    expect(run({ plurals: "suffix" }, { "t/en.json": en, "t/pl.json": pl })).toBeUndefined();
    expect(
      run({ plurals: "suffix" }, { "t/en.json": '{"title": "Boats", "end": "End"}', "t/pl.json": pl }),
    ).toBe('{\n  "title": "Statki",\n  "end": "Koniec"\n}\n');
  });
});

describe("convert moves plurals between their forms without loss", () => {
  const convert = async (book: object, text: string, options: Parameters<typeof convertBook>[2]) => {
    const { project, book: config } = open({ files: "t/{locale}.json", ...book }, { "t/en.json": text });
    const result = await convertBook(project, config, options);
    if (!result.ok) throw new Error(JSON.stringify(result.refusals));
    return result.plan.changes.find(({ file }) => file.startsWith("t/"))?.after ?? "";
  };
  const icu = { syntax: "icu" as const, plurals: "inline" as const };
  test("from suffixes to ICU, to children, to bars and back to suffixes", async () => {
    const one = await convert({ plurals: "suffix" }, en, icu);
    expect(JSON.parse(one)).toMatchObject({
      boat: "{count, plural, one {{count} boat} other {{count} boats}}",
    });
    const two = await convert({ syntax: "icu" }, one, { syntax: "percent-brace", plurals: "branches" });
    expect(JSON.parse(two)).toMatchObject({ boat: { one: "%{count} boat", other: "%{count} boats" } });
    const three = await convert({ syntax: "percent-brace", plurals: "branches" }, two, {
      syntax: "colon",
      plurals: "bar",
    });
    expect(JSON.parse(three)).toMatchObject({ boat: ":count boat|:count boats" });
    const four = await convert({ syntax: "colon", plurals: "bar" }, three, {
      syntax: "double-brace",
      plurals: "suffix",
    });
    expect(four).toBe(en);
  });
});
