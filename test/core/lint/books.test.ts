import { expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { openProject } from "../../../src/core/project/project.js";

/** Lints a project of two books, and gives each finding as its rule, book and key. */
async function lint(shop: object, common: object, code: Record<string, string>) {
  const config = {
    source: "en",
    targets: [],
    books: [
      { name: "shop", code: ["src/**"], files: "shop/{locale}.json", ...shop },
      { name: "common", code: ["src/**"], files: "common/{locale}.json", ...common },
    ],
  };
  const opened = openProject(
    memoryFiles({
      "fond.config.json": JSON.stringify(config),
      "shop/en.json": '{ "cart": "Your cart" }',
      "common/en.json": '{ "ok": "Fine", "cancel": "Never mind" }',
      ...code,
    }),
  );
  if (!opened.ok) return opened.problems.map(({ message }) => message);
  const findings = await lintProject(opened.project);
  return findings.map(({ rule, book, key }) => `${rule} ${book} ${key}`);
}

const asks = 'export const f = () => [t("cart"), t("ok"), t("cancel"), t("gone")];\n';

test("a key of another book that the same call asks is known, and one of neither is told of once", async () => {
  expect(await lint({}, {}, { "src/a.ts": asks })).toEqual(["key/undefined shop gone"]);
});

test("a call of its own asks its own book alone, unless that falls back to another", async () => {
  const other = { lookups: [{ call: "c" }] };
  const code = { "src/a.ts": `${asks}export const g = () => [c("ok"), c("cancel"), c("cart")];\n` };
  const ofShop = ["gone", "ok", "cancel"].map((key) => `key/undefined shop ${key}`).sort();
  expect((await lint({}, other, code)).sort()).toEqual(["key/undefined common cart", ...ofShop].sort());
  expect(await lint({ fallback: ["common"] }, other, code)).toEqual([
    "key/undefined shop gone",
    "key/undefined common cart",
  ]);
});

test("what makes the key of an object is given no values, which what takes the object is", async () => {
  const texts = { "shop/en.json": '{ "cart": "Your cart of {kind}" }' };
  const code =
    'export const a = { label: { id: t("cart"), text: 1 } };\nexport const b = [t("ok"), t("cancel")];\n';
  expect(await lint({}, {}, { ...texts, "src/a.ts": code })).toEqual([]);
  const shown = code.replace("id: t", "title: t");
  expect(await lint({}, {}, { ...texts, "src/a.ts": shown })).toEqual(["argument/unsupplied shop cart"]);
});

test("a book to fall back to that is none", async () => {
  expect(await lint({ fallback: ["comon"] }, {}, {})).toEqual(['unknown book "comon"']);
});
