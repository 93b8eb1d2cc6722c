import { describe, expect, test } from "@jest/globals";
import { memoryFiles, type MemoryFiles } from "../../../src/core/files/memory-files.js";
import { applyPlan } from "../../../src/core/plan/apply.js";
import { addLocale, dropLocale, listLocales } from "../../../src/core/project/locales.js";
import { openProject, type Project } from "../../../src/core/project/project.js";
import { reconcileProject } from "../../../src/core/project/reconcile-project.js";
import { rekeyProject } from "../../../src/core/project/rekey.js";
import { smallProject } from "../../support/project.js";

const day = "2026-03-01";

function reopen(files: MemoryFiles): Project {
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  return opened.project;
}

function start(more: Record<string, string> = {}): MemoryFiles {
  const files = memoryFiles(smallProject(more));
  applyPlan(files, reconcileProject(reopen(files), {}, day));
  return files;
}

function carryOut(files: MemoryFiles, result: { ok: boolean; plan?: Parameters<typeof applyPlan>[1] }): void {
  if (!result.ok || !result.plan) throw new Error(JSON.stringify(result));
  expect(applyPlan(files, result.plan)).toMatchObject({ ok: true });
}

describe("locales", () => {
  test("are listed with what they inherit, their direction and plurals", () => {
    const files = start();
    carryOut(files, addLocale(reopen(files), "ar", day));
    carryOut(files, addLocale(reopen(files), "de-AT", day));
    expect(
      listLocales(reopen(files)).map(({ locale, fallback, direction, cardinal, share }) => [
        locale,
        fallback.join(),
        direction,
        cardinal.length,
        share,
      ]),
    ).toEqual([
      ["en", "", "ltr", 2, 1],
      ["de", "en", "ltr", 2, 1],
      ["pl", "en", "ltr", 4, 1],
      ["ar", "en", "rtl", 6, 0],
      ["de-AT", "de,en", "ltr", 2, 1],
    ]);
    expect(files.contents.get("texts/ar.json")).toContain("zero {# boats}");
    expect(files.contents.has("texts/de-AT.json")).toBe(false);
  });

  test("one that is dropped goes to the attic whole, and comes back from it", () => {
    const files = start();
    const before = files.contents.get("texts/de.json");
    const ledger = files.contents.get("fond-ledger/app.de.txt");
    carryOut(files, dropLocale(reopen(files), "de", day));
    expect(files.contents.has("texts/de.json")).toBe(false);
    expect(reopen(files).config.targets).toEqual(["pl"]);
    carryOut(files, addLocale(reopen(files), "de", day));
    expect(JSON.parse(files.contents.get("texts/de.json") ?? "")).toEqual(JSON.parse(before ?? ""));
    expect(files.contents.get("fond-ledger/app.de.txt")).toBe(ledger);
  });

  test.each<[string, string]>([
    ["jp", '"ja"'],
    ["not a tag", "language tag"],
    ["de", "locale list"],
    ["en", "locale list"],
  ])("%s cannot be added", (tag, remedy) => {
    const result = addLocale(reopen(start()), tag, day);
    expect(result.ok ? "" : result.remedy).toContain(remedy);
  });

  test("the source, and what is none, cannot be dropped", () => {
    for (const tag of ["en", "fr"]) expect(dropLocale(reopen(start()), tag, day).ok).toBe(false);
  });

  test("the list of targets keeps its lines", () => {
    const files = start();
    const config =
      '{\n  // Our own.\n  "source": "en",\n  "targets": [\n    "de",\n    "pl"\n  ],\n  "books": [{ "name": "app", "files": "texts/{locale}.json" }]\n}\n';
    files.contents.set("fond.config.json", config);
    carryOut(files, addLocale(reopen(files), "fr", day));
    expect(files.contents.get("fond.config.json")).toBe(config.replace('"pl"', '"pl",\n    "fr"'));
    carryOut(files, dropLocale(reopen(files), "pl", day));
    expect(files.contents.get("fond.config.json")).toBe(config.replace('"pl"', '"fr"'));
  });
});

describe("new names for keys", () => {
  const code =
    'import { t } from "./messages";\nexport const A = ({ n, k }) => [t("home.title"), t("home.count", { n }), t(`home.${k}`)];\n';
  const rekey = async (files: MemoryFiles, from: string, to: string) =>
    rekeyProject(reopen(files), {}, from, to);

  test("one key: catalogs, ledger, attic of texts, waivers and code", async () => {
    const files = start({
      "src/a.tsx": code,
      "src/b.tsx": 'export const keys = ["home.title"];\n',
      "fond.waivers.json":
        '{ "waivers": [{ "rule": "text/untranslated", "key": "home.title", "reason": "a name" }] }\n',
    });
    const result = await rekey(files, "home.title", "page.heading");
    carryOut(files, result);
    expect(files.contents.get("src/a.tsx")).toContain(
      '[t("page.heading"), t("home.count", { n }), t(`home.${k}`)]',
    );
    for (const locale of ["en", "de", "pl"]) {
      const texts = JSON.parse(files.contents.get(`texts/${locale}.json`) ?? "") as Record<
        string,
        Record<string, string>
      >;
      expect([Object.keys(texts["home"] ?? {}), Object.keys(texts["page"] ?? {})]).toEqual([
        ["count"],
        ["heading"],
      ]);
    }
    expect(files.contents.get("fond-ledger/app.de.txt")).toMatch(/^page\.heading\t/m);
    expect(files.contents.get("fond-ledger/app.sources.txt")).toMatch(/^page\.heading\t/m);
    expect(files.contents.get("fond.waivers.json")).toContain('"key": "page.heading"');
    expect(result.ok && result.plan.notes.map(({ message }) => message)).toEqual([
      'this key is composed at run time and may be "home.title"',
      '"home.title" appears here, outside any known lookup',
    ]);
    expect(reconcileProject(reopen(files), {}, day).changes).toEqual([]);
  });

  test.each([
    ["home.*", "start.*"],
    ["home", "start"],
  ])("a group, %s, with keys composed from its name", async (from, to) => {
    const files = start({ "src/a.tsx": code });
    carryOut(files, await rekey(files, from, to));
    expect(files.contents.get("src/a.tsx")).toContain(
      '[t("start.title"), t("start.count", { n }), t(`start.${k}`)',
    );
    expect(files.contents.get("texts/pl.json")).toContain('"start"');
    expect(reconcileProject(reopen(files), {}, day).changes).toEqual([]);
  });

  test("what comments say of a key goes along", async () => {
    const config = {
      source: "en",
      targets: ["de"],
      books: [{ name: "app", code: [], files: "t/{locale}.yaml" }],
    };
    const files = memoryFiles({
      "fond.config.json": JSON.stringify(config),
      "t/en.yaml": "# About this file.\n\n# greets\nhi: Hello\nbye: Bye\n",
      "t/de.yaml": "hi: Hallo\nbye: Tschüss\n",
    });
    carryOut(files, await rekey(files, "hi", "hello"));
    expect(files.contents.get("t/en.yaml")).toContain("# greets\nhello: Hello\nbye: Bye\n");
    expect(files.contents.get("t/de.yaml")).toBe("hello: Hallo\nbye: Tschüss\n");
  });

  test("into a key of the same text: the two become one", async () => {
    const files = start({
      "texts/en.json": '{\n  "a": "Sailings",\n  "b": "Sailings",\n  "c": "Other"\n}\n',
      "texts/de.json": '{\n  "a": "Abfahrten",\n  "b": "Fahrten",\n  "c": "Andere"\n}\n',
      "src/a.tsx": 'import { t } from "./messages";\nexport const A = () => [t("a"), t("b")];\n',
    });
    const result = await rekey(files, "b", "a");
    carryOut(files, result);
    expect(files.contents.get("texts/de.json")).toBe('{\n  "a": "Abfahrten",\n  "c": "Andere"\n}\n');
    expect(files.contents.get("src/a.tsx")).toContain('[t("a"), t("a")]');
    expect(result.ok && result.plan.notes[0]?.message).toContain('"Fahrten", is dropped');
    expect(await rekey(files, "c", "a")).toMatchObject({ ok: false });
  });

  test.each<[string, string, RegExp]>([
    ["home.titel", "x", /home\.title/],
    ["home.title", "home", /group/],
    ["home.*", "x", /one key and its new name/],
    ["home.title", "home.title", /one key/],
  ])("%s to %s is refused with a remedy", async (from, to, remedy) => {
    const result = await rekey(start(), from, to);
    expect(result.ok ? "" : result.remedy).toMatch(remedy);
  });
});
