import { parse } from "../../../src/core/text/jsonc.js";
import { describe, expect, test } from "@jest/globals";
import { addWaivers, loadWaivers, type Waiver } from "../../../src/core/config/waivers.js";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { openProject } from "../../../src/core/project/project.js";
import { lintProject } from "../../../src/core/project/lint-project.js";
import { surveyProject } from "../../../src/core/project/survey-project.js";
import { smallProject } from "../../support/project.js";

const today = "2031-05-04";
const load = (text: string) => loadWaivers(memoryFiles({ "w.json": text }), "w.json", today);
const waiversOf = (waivers: readonly object[]) => {
  const loaded = load(JSON.stringify({ waivers }));
  if (!loaded.ok) throw new Error(JSON.stringify(loaded.problems));
  return loaded.waivers;
};
const finding = {
  rule: "text/untranslated",
  file: "texts/de.json",
  book: "app",
  locale: "de",
  key: "menu.ok",
};

describe("which findings a waiver hides", () => {
  test.each<[string, object, boolean]>([
    ["its rule", { rule: "text/untranslated" }, true],
    ["another rule", { rule: "key/missing" }, false],
    ["any rule", { rule: "*" }, true],
    ["its key", { rule: "*", key: "menu.ok" }, true],
    ["a pattern of keys", { rule: "*", key: "menu.*" }, true],
    ["a star is one part of a key", { rule: "*", key: "*" }, false],
    ["two stars are any", { rule: "*", key: "**" }, true],
    ["its locale", { rule: "*", locale: "de" }, true],
    ["another locale", { rule: "*", locale: "fr" }, false],
    ["another book", { rule: "*", book: "mail" }, false],
    ["a pattern of files", { rule: "*", file: "texts/*.json" }, true],
    ["a file in a folder whose name looks like a pattern", { rule: "*", file: "app/[id]/de.json" }, false],
    ["other files", { rule: "*", file: "src/**" }, false],
    ["one in force to the end of its day", { rule: "*", until: today }, true],
    ["one that is over", { rule: "*", until: "2031-05-03" }, false],
    ["one for a literal", { literal: "OK" }, false],
  ])("%s", (_, waiver, hides) => {
    expect(waiversOf([{ reason: "agreed", ...waiver }]).finding(finding) !== undefined).toBe(hides);
  });
});

test("a waiver for a literal holds for its text, in its files", () => {
  const waivers = waiversOf([{ literal: "READ-1", file: "src/**", reason: "a mark" }]);
  expect(waivers.literal("app", "src/a.tsx", "READ-1")).toBe("a mark");
  expect(waivers.literal("app", "lib/a.tsx", "READ-1")).toBeUndefined();
  expect(waivers.literal("app", "src/a.tsx", "READ-2")).toBeUndefined();
});

test("a file in a folder whose name looks like a pattern is named as it is", () => {
  const waivers = waiversOf([{ literal: "OK", file: "app/[id]/(one).tsx", reason: "a mark" }]);
  expect(waivers.literal("app", "app/[id]/(one).tsx", "OK")).toBe("a mark");
});

test("idle are those that hid nothing and those that are over, with their places", () => {
  const waivers = waiversOf([
    { rule: "text/untranslated", reason: "used" },
    { rule: "key/missing", reason: "of no use" },
    { rule: "*", reason: "over", until: "2030-01-01" },
  ]);
  const hiding = waivers.finding(finding);
  expect(
    waivers.idle(new Set(hiding ? [hiding] : [])).map(({ waiver, isOver }) => [waiver.reason, isOver]),
  ).toEqual([
    ["of no use", false],
    ["over", true],
  ]);
});

describe("a wrong file of waivers", () => {
  test.each([
    ["no reason", '{"waivers": [\n  {"rule": "key/missing"}\n]}', 2, /reason/],
    [
      "an unknown setting",
      '{"waivers": [\n  {"rule": "*", "reason": "x", "locales": "de"}\n]}',
      2,
      /locales/,
    ],
    ["a day that is none", '{"waivers": [\n{"rule": "*", "reason": "x",\n"until": "soon"}]}', 3, /YYYY/],
    ["broken syntax", '{"waivers": [', 1, /invalid JSON/],
  ])("%s: its place and a remedy", (_, text, line, words) => {
    const loaded = load(text);
    if (loaded.ok) throw new Error("it was taken");
    expect(loaded.problems[0]).toMatchObject({ file: "w.json", line });
    expect(`${loaded.problems[0]?.path} ${loaded.problems[0]?.message}`).toMatch(words);
    expect(loaded.problems[0]?.remedy).not.toBe("");
  });
});

test("waivers are added at the end, and what was there stays", () => {
  const one: Waiver = { rule: "key/missing", key: "a.b", reason: "later" };
  const fresh = addWaivers(undefined, [one]);
  const before =
    '{\n  // agreed in May\n  "waivers": [\n    {"rule": "*", "reason": "x"} // so it is\n  ]\n}\n';
  expect(JSON.parse(addWaivers(fresh, [one]))).toEqual({ waivers: [one, one] });
  expect(JSON.parse(addWaivers('{"waivers": []}', [one]))).toEqual({ waivers: [one] });
  const after = addWaivers(before, [one]);
  expect(after).toContain("// agreed in May");
  const loaded = load(after);
  expect(loaded.ok).toBe(true);
});

test("what is waived is not listed by the survey, hidden by lint, and told of when it hides nothing", async () => {
  const files = smallProject({
    "src/mark.tsx": "export const Mark = () => <p>Shelf mark</p>;\n",
    "texts/de.json": '{\n  "home": {\n    "title": "Sailings"\n  }\n}\n',
    "fond.waivers.json": JSON.stringify({
      waivers: [
        { literal: "Shelf mark", reason: "a name" },
        { rule: "key/missing", key: "home.*", locale: "de", reason: "next week" },
        { rule: "key/missing", key: "gone.*", reason: "left over" },
      ],
    }),
  });
  const opened = openProject(memoryFiles(files), undefined, today);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const surveyed = await surveyProject(opened.project);
  expect(surveyed.files.flatMap(({ literals }) => literals.map(({ text }) => text))).not.toContain(
    "Shelf mark",
  );
  expect(surveyed.files.reduce((sum, { counts }) => sum + counts.waived, 0)).toBe(1);
  const found = await lintProject(opened.project);
  expect(found.some(({ rule, locale }) => rule === "key/missing" && locale === "de")).toBe(false);
  expect(found.filter(({ rule }) => rule === "waiver/idle")).toMatchObject([
    { file: "fond.waivers.json", severity: "warning" },
  ]);
});

test.each([
  ["no file", undefined],
  ["an empty list", '{\n  "waivers": []\n}\n'],
  ["a list on one line", '{ "waivers": [{ "rule": "a/b", "reason": "x" }] }'],
  [
    "comments and another indent",
    '{\n    // ours\n    "waivers": [\n        { "rule": "a/b", "reason": "x" } // one\n    ]\n}\n',
  ],
  ["line ends of Windows", '{\r\n  "waivers": [\r\n    { "rule": "a/b", "reason": "x" }\r\n  ]\r\n}\r\n'],
])("many waivers are added as one after the other would be: %s", (_, before) => {
  const added = ["k1", "k2", "k3"].map((key) => ({ rule: "text/space", key, reason: "agreed" }));
  const inTurn = added.reduce<string | undefined>((text, one) => addWaivers(text, [one]), before);
  expect(addWaivers(before, added)).toBe(inTurn);
  const { waivers } = parse(addWaivers(before, added)) as { waivers: object[] };
  expect(waivers.slice(-3)).toEqual(added);
});
