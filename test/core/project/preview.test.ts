import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { balanceProject, openProject } from "../../../src/core/project/project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { previewFindings, previewProject, type PreviewOptions } from "../../../src/core/project/preview.js";

const files = {
  "fond.config.json": JSON.stringify({
    source: "en",
    targets: ["pl", "fr", "fr-CA", "ar"],
    books: [{ name: "app", files: "t/{locale}.json" }],
  }),
  "t/en.json": JSON.stringify({
    count: "{n, plural, one {# boat} other {# boats}}",
    hello: "Hello {name}, from {price, number, ::currency/EUR}",
    kind: "{kind, select, sea {Sea} other {Land}}",
    only: "Only here",
  }),
  "t/pl.json": JSON.stringify({
    count: "{n, plural, one {# statek} few {# statki} many {# statków} other {# statku}}",
    hello: "Cześć {nazwa}",
    kind: "{kind, select, sea {Morze}",
  }),
  "t/fr.json": JSON.stringify({ count: "{n, plural, one {# bateau} many {# de bateaux} other {# bateaux}}" }),
  "t/fr-CA.json": "{}",
  "t/ar.json": "{}",
};

function preview(keys: string[], options?: PreviewOptions, locales?: string[]) {
  const opened = openProject(memoryFiles(files));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const result = previewProject(opened.project, locales ? { locales } : {}, keys, options);
  if (!result.ok) return result;
  return result.messages.map(({ locale, from, trouble, samples }) => [
    locale,
    from ?? trouble ?? "",
    samples.map(({ text }) => text),
  ]);
}

describe("preview", () => {
  test("shows numbers of each category that people would try, and what is inherited", () => {
    const found = preview(["count"]) as [string, string, string[]][];
    const of = (locale: string) => found.find(([one]) => one === locale);
    expect(of("en")?.[2]).toEqual(["1 boat", "2 boats", "5 boats"]);
    expect(of("pl")?.[2]).toEqual(
      expect.arrayContaining(["1 statek", "2 statki", "5 statków", "1,5 statku"]),
    );
    expect(of("fr-CA")?.[1]).toBe("fr");
    expect(of("ar")?.[1]).toBe("en");
  });

  test("fills what the source asks for, and leaves what it does not as users would see it", () => {
    const found = preview(["hello"], {}, ["en", "pl"]);
    expect(found).toEqual([
      ["en", "", ["Hello Mara Lindqvist, from €1,234.50"]],
      ["pl", "", ["Cześć {nazwa}"]],
    ]);
    expect(preview(["hello"], { values: { name: "Ole", price: "2" }, compare: ["en"] })).toEqual([
      ["en", "", ["Hello Ole, from €2.00"]],
    ]);
  });

  test("shows each case, and says what is broken", () => {
    const found = preview(["kind"], {}, ["en", "pl"]) as [string, string, string[]][];
    expect(found[0]?.[2]).toEqual(["Sea", "Land"]);
    expect(found[1]?.[1]).toContain("cannot be shown");
  });

  test("takes patterns, and names the nearest of a key that is not there", () => {
    expect(preview(["*"], {}, ["en"])).toHaveLength(4);
    expect(preview(["coutn"])).toEqual({ ok: false, unknown: "coutn", near: ["count"] });
    expect(preview(["home.coutn"])).toMatchObject({ ok: false, unknown: "home.coutn" });
  });
});

test("a locale whose catalog cannot be read is not shown with another's text", () => {
  const opened = openProject(memoryFiles({ ...files, "t/fr.json": "{" }));
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const result = previewProject(opened.project, { locales: ["fr"] }, ["only"]);
  expect(result.ok && result.messages[0]?.trouble).toContain("cannot be read");
});

test("findings are shown by book, namespace and key, whatever code writes between them; what the source lacks is passed over", () => {
  const held = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: ["pl"],
      books: [{ name: "app", files: "{dir}/{locale}.json", naming: { separator: "/" } }],
    }),
    "a/en.json": '{"x": "One"}',
    "b/en.json": '{"x": "Two"}',
  });
  const opened = openProject(held);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const about = [
    { book: "app", namespace: "b", key: "x" },
    { book: "app", namespace: "b", key: "gone" },
  ];
  const shown = previewFindings(opened.project, { locales: ["en"] }, about);
  expect(shown.map(({ key, samples }) => [key, samples[0]?.text])).toEqual([["x", "Two"]]);
});

test("a message with thousands of arguments is shown in time that grows with its length", () => {
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["de"],
        books: [{ name: "app", files: "t/{locale}.json", syntax: "printf" }],
      }),
      "t/en.json": JSON.stringify({ long: "%d ".repeat(3_000) }),
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const started = performance.now();
  const result = previewProject(opened.project, {}, ["long"], {});
  expect(result.ok && result.messages[0]?.samples.length).toBeGreaterThan(0);
  // It took 14 s when each argument copied the values of all before it.
  expect(performance.now() - started).toBeLessThan(4_000);
});

test("a book stands in front of the one that it falls back to, in a locale for itself as well", async () => {
  const books = [
    { name: "shop", files: "t/shop.{locale}.json", fallback: ["common"] },
    { name: "common", files: "t/common.{locale}.json" },
  ];
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({ source: "en", targets: ["de"], books }),
      "t/shop.en.json": '{"title":"Shop"}',
      "t/shop.de.json": '{"title":"Laden","save":"Kaufen","odd":"X"}',
      "t/common.en.json": '{"save":"Save","quit":"Quit"}',
      "t/common.de.json": '{"save":"Sichern","quit":"Beenden"}',
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const { project } = opened;
  const shown = (key: string, book: string) => {
    const result = previewProject(project, { books: [book] }, [key]);
    return result.ok
      ? result.messages.map(({ locale, samples }) => `${locale} ${samples[0]?.text ?? ""}`)
      : result.near;
  };
  expect(shown("save", "shop")).toEqual(["en Save", "de Kaufen"]);
  expect(shown("quit", "shop")).toEqual(["en Quit", "de Beenden"]);
  expect(shown("save", "common")).toEqual(["en Save", "de Sichern"]);
  expect(shown("title", "common")).toEqual([]);
  expect(shown("*", "shop")).toEqual(["en Shop", "de Laden"]);
  const extra = (await lintProject(project)).filter(({ rule }) => rule === "key/extra");
  expect(extra.map(({ key }) => key)).toEqual(["odd"]);
  expect(balanceProject(project, {}).map(({ locales }) => locales[0]?.extra)).toEqual([1, 0]);
  const { summary } = reconcileProject(project, {}, "2031-05-04");
  expect(summary).toEqual({ "keys set aside": 1 });
});

test("forms under keys of their own are chosen as the program does, and show the number by its place", () => {
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify({
        source: "en",
        targets: ["ru"],
        books: [
          {
            name: "app",
            files: "t/{locale}.json",
            syntax: "printf",
            plurals: "branches",
            forms: { known: ["zero", "one", "other"] },
          },
        ],
      }),
      "t/en.json": JSON.stringify({ boats: { zero: "no boats", one: "one boat", other: "%d boats" } }),
      "t/ru.json": JSON.stringify({ boats: { zero: "нет", one: "одна", other: "%d лодок" } }),
    }),
  );
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const result = previewProject(opened.project, { locales: ["ru"] }, ["boats"]);
  if (!result.ok) throw new Error("unknown");
  expect(
    result.messages.map(({ samples }) => samples.map(({ arguments: { count }, text }) => [count, text])),
  ).toEqual([
    [
      [0, "нет"],
      [1, "одна"],
      [2, "2 лодок"],
      [5, "5 лодок"],
    ],
  ]);
});
