import { describe, expect, test } from "@jest/globals";
import { memoryFiles } from "../../../src/core/files/memory-files.js";
import { openProject } from "../../../src/core/project/project.js";
import { rekeyProject } from "../../../src/core/project/rekey.js";
import { memoryProject } from "../../support/memory-project.js";

/** The source catalog after a key or group got another name. */
async function rekey(file: string, text: string, from: string, to: string, book: object = {}) {
  const files = memoryFiles({
    "fond.config.json": JSON.stringify({
      source: "en",
      targets: [],
      books: [{ name: "app", files: file.replace("en", "{locale}"), ...book }],
    }),
    [file]: text,
  });
  const opened = openProject(files);
  if (!opened.ok) throw new Error(JSON.stringify(opened.problems));
  const result = await rekeyProject(opened.project, {}, from, to);
  if (!result.ok) throw new Error(result.message);
  return result.plan.changes.find((change) => change.file === file)?.after;
}

test("what stands beside a text in an object of its own gets the new name with it", async () => {
  const texts = (name: string) =>
    `{ "a": { "message": "A" }, "${name}": { "about": "The  second", "message": "B", "values": { "n": { "at": "$1" } } } }`;
  expect(await rekey("t/en.json", texts("b"), "b", "quay", { leaf: "message" })).toBe(texts("quay"));
});

describe("a new name is all that changes", () => {
  test.each<[string, string, string, string, string]>([
    ["t/en.json", '{ "a": {  "b" : "B", "c": "C" } }', "a.b", "a.x", '{ "a": {  "x" : "B", "c": "C" } }'],
    ["t/en.json", '{ "a": {  "b" : "B", "c": "C" } }', "a.*", "d.*", '{ "d": {  "b" : "B", "c": "C" } }'],
    ["t/en.json", '{ "a.b": "B", "a.c" :"C" }', "a.*", "d.e.*", '{ "d.e.b": "B", "d.e.c" :"C" }'],
    [
      "t/en.json",
      '{\n "a": { "b": { "c": "C" } }, "d": "D"\n}',
      "a.b.*",
      "a.x.*",
      '{\n "a": { "x": { "c": "C" } }, "d": "D"\n}',
    ],
    ["t/en.json5", "{ a: { b: 'B', /* c */ }, }", "a.b", "a.x", "{ a: { x: 'B', /* c */ }, }"],
    ["t/en.json5", "{ a: { 'b': 'B' } }", "a.*", "d-e.*", `{ "d-e": { 'b': 'B' } }`],
    [
      "t/en.yaml",
      'a:\n  # one\n  b: "B" # two\n  c: C\n',
      "a.b",
      "a.x",
      'a:\n  # one\n  x: "B" # two\n  c: C\n',
    ],
    [
      "t/en.yaml",
      "a: # one\n  'b': >-\n    B\n    B\n",
      "a.b",
      "a.no",
      "a: # one\n  'no': >-\n    B\n    B\n",
    ],
    ["t/en.yaml", "a:\n  b: B\n", "a.b", "a.no", 'a:\n  "no": B\n'],
    ["t/en.yaml", "a: # one\n  b: |\n    B\nc: C\n", "a.*", "d.*", "d: # one\n  b: |\n    B\nc: C\n"],
    [
      "t/m_en.properties",
      "# top\na.b : B \\\n   and\n\na.c=C\n",
      "a.b",
      "a.x",
      "# top\na.x : B \\\n   and\n\na.c=C\n",
    ],
    ["t/m_en.properties", "# top\na.b B\na.c\tC\n", "a.*", "d.*", "# top\nd.b B\nd.c\tC\n"],
  ])("%s: %j, %s to %s", async (file, text, from, to, after) => {
    expect(await rekey(file, text, from, to)).toBe(after);
  });

  test("below the locale's own root", async () => {
    const text = "en:\n  a:\n    b: B # one\n";
    expect(await rekey("t/en.yml", text, "a.*", "d.*", { root: "{locale}" })).toBe(
      "en:\n  d:\n    b: B # one\n",
    );
  });
});

describe("entries that go elsewhere take their comments along", () => {
  test("part of a group", async () => {
    const text = "a:\n  # one\n  b: B\n  c: C\nd:\n  e: E\n";
    expect(await rekey("t/en.yaml", text, "a.b", "d.b")).toBe("a:\n  c: C\nd:\n  # one\n  b: B\n  e: E\n");
  });

  test("a group into one that is there", async () => {
    const text = '{\n  "a": {\n    "b": "B"\n  },\n  "d": {\n    "e": "E"\n  }\n}\n';
    expect(JSON.parse((await rekey("t/en.json", text, "a.*", "d.*")) ?? "")).toEqual({
      d: { e: "E", b: "B" },
    });
  });
});

test("code that is not read, and what describes a program, are named where they have a key", async () => {
  const project = memoryProject(
    { code: ["src/**"] },
    {
      "t/en.json": '{ "boat_late": "Late", "quay_open": "Open" }',
      "src/a.js": 't("boat_late");\n',
      "views/a.pug": 'h1= say("boat_late")\n',
      "views/b.pug": 'h1= say("quay_open")\n',
      "manifest.json": '{ "name": "__TEXT_boat_late__" }',
    },
  );
  const result = await rekeyProject(project, {}, "boat_late", "boat_delayed");
  if (!result.ok) throw new Error(result.message);
  expect(result.plan.notes.map(({ file, messageId }) => `${file} ${messageId}`)).toEqual([
    "manifest.json rekey/unread",
    "views/a.pug rekey/unread",
  ]);
});

test("a source that cannot be read is named, and not a key that is like the one asked for", async () => {
  const broken = rekey("t/en.json", '{ "boat": "Boat", "quay" "Quay" }', "boats", "ship");
  await expect(broken).rejects.toThrow(/^unknown key "boats", and t\/en\.json cannot be read: ./);
});
