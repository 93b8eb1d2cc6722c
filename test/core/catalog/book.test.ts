import { describe, expect, test } from "@jest/globals";
import { loadBook } from "../../../src/core/catalog/book.js";
import { bookLayout } from "../../../src/core/catalog/layout.js";
import { loadConfig } from "../../../src/core/config/load.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";

function book(settings: object, files: Record<string, string>, targets: string[] = ["de"]) {
  const config = { source: "en", targets, books: [{ name: "app", ...settings }] };
  const held = memoryFiles({ ...files, "fond.config.json": JSON.stringify(config) });
  const loaded = loadConfig(held);
  const first = loaded.ok ? loaded.config.books[0] : undefined;
  if (!loaded.ok || !first) throw new Error(JSON.stringify(loaded));
  return loadBook(held, loaded.config, first);
}

describe("layouts", () => {
  const cases: [string, Parameters<typeof bookLayout>[0], string, string, string | undefined][] = [
    ["a file a locale", { files: "t/{locale}.json", spelling: "hyphen" }, "t/pt-BR.json", "pt-BR", undefined],
    [
      "a folder a locale",
      { files: "t/{locale}/{namespace}.json", spelling: "hyphen" },
      "t/de/home.json",
      "de",
      "home",
    ],
    [
      "a namespace's folder",
      { files: "t/{namespace}/{locale}.json", spelling: "hyphen" },
      "t/home/de.json",
      "de",
      "home",
    ],
    ["underscores", { files: "t_{locale}.json", spelling: "underscore" }, "t_pt_BR.json", "pt-BR", undefined],
    ["a map", { files: "t/{locale}.json", spelling: { de: "german" } }, "t/german.json", "de", undefined],
    [
      "a locale twice in a path",
      { files: "{locale}/t.{locale}.json", spelling: "hyphen" },
      "de/t.de.json",
      "de",
      undefined,
    ],
    [
      "signs that mean something elsewhere",
      { files: "t(1)+[x]/{locale}.json", spelling: "hyphen" },
      "t(1)+[x]/de.json",
      "de",
      undefined,
    ],
  ];
  test.each(cases)("%s", (_, settings, file, locale, namespace) => {
    const layout = bookLayout(settings);
    expect(layout.place(file)).toMatchObject({ locale, namespace });
    expect(layout.path(locale, namespace)).toBe(file);
  });

  test("another file is no catalog", () => {
    expect(
      bookLayout({ files: "{locale}/t.{locale}.json", spelling: "hyphen" }).place("de/t.fr.json"),
    ).toBeUndefined();
    expect(bookLayout({ files: "t/{locale}.json", spelling: "hyphen" }).place("t/x/de.json")).toBeUndefined();
  });
});

describe("a book's catalogs", () => {
  test("letter case in a tag means nothing", () => {
    const { strays, catalog } = book(
      { files: "t/{locale}.json" },
      { "t/en.json": "{}", "t/zh-cn.json": '{"a":"b"}', "t/PT-BR.json": '{"a":"c"}' },
      ["zh-cn", "pt-BR"],
    );
    expect(strays).toEqual([]);
    expect(catalog("zh-cn", undefined)?.byKey.get("a")?.text).toBe("b");
    expect(catalog("pt-BR", undefined)?.file).toBe("t/PT-BR.json");
  });

  test("files of other locales are strays, and files of another shape nothing at all", () => {
    const { strays, catalogs } = book(
      { files: "t/{locale}.json" },
      { "t/en.json": "{}", "t/jp.json": "{}", "t/x/en.json": "{}" },
    );
    expect(strays.map(({ file }) => file)).toEqual(["t/jp.json"]);
    expect(catalogs.map(({ file, exists }) => [file, exists])).toEqual([
      ["t/en.json", true],
      ["t/de.json", false],
    ]);
  });

  test("what stands beside catalogs and holds no texts is none, unless it is named for a locale", () => {
    const { strays } = book(
      { files: "t/{locale}.json" },
      { "t/en.json": "{}", "t/lang.json": '[{ "tag": "en" }]', "t/settings.json": "{}", "t/it.json": "[1]" },
    );
    expect(strays.map(({ file }) => file)).toEqual(["t/it.json"]);
  });

  test("the project's own files are no catalogs", () => {
    const loaded = book(
      { files: "{locale}.json" },
      { "en.json": "{}", "fond.waivers.json": "[]", "it.json": "{}" },
    );
    expect(loaded.strays.map(({ file }) => file)).toEqual(["it.json"]);
  });

  test("keys in code carry the namespace", () => {
    const files = { "t/en/home.json": '{"a":{"b":"x"}}', "t/en/home.more.json": '{"c":"y"}' };
    const dotted = book({ files: "t/{locale}/{namespace}.json" }, files);
    expect(dotted.resolve("home.a.b")?.entry.text).toBe("x");
    expect(dotted.resolve("home.more.c")?.entry.text).toBe("y");
    expect(dotted.resolve("home.c")).toBeUndefined();
    const marked = book(
      { files: "t/{locale}/{namespace}.json", naming: { namespace: ":", separator: "/" } },
      files,
    );
    expect(marked.resolve("home:a/b")?.entry.text).toBe("x");
    expect(marked.fullKey("home", "a/b")).toBe("home:a/b");
  });

  test("a file that is not UTF-8 text, or not there, is a catalog all the same", () => {
    const { catalogs } = book({ files: "t/{locale}.json" }, { "t/en.json": '{"a":"b"}' });
    expect(catalogs[1]).toMatchObject({ exists: false, problems: [] });
  });
});
