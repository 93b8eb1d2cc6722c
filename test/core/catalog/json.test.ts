import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { jsonFormat } from "../../../src/core/catalog/formats/json/json.js";
import type { CatalogChanges, EntryPath } from "../../../src/core/catalog/model.js";

describe("reading", () => {
  test("entries come with keys, paths and the places they are written at", () => {
    const text =
      '{\n  "a": "x",\n  "g": { "b.c": "y", "list": ["one", { "two": "z" }] },\n  "n": 1, "u": null, "e": {}\n}';
    const { entries, emptyGroups, problems } = jsonFormat.read(text, ".");
    expect(problems).toEqual([]);
    expect(entries.map(({ key, text: value, kind }) => [key, value, kind])).toEqual([
      ["a", "x", "text"],
      ["g.b.c", "y", "text"],
      ["g.list.0", "one", "text"],
      ["g.list.1.two", "z", "text"],
      ["n", "1", "number"],
      ["u", "null", "null"],
    ]);
    expect(emptyGroups).toEqual([["e"]]);
    const b = entries[1];
    expect(text.slice(b?.keySpan.start, b?.keySpan.end)).toBe('"b.c"');
    expect(text.slice(b?.valueSpan.start, b?.valueSpan.end)).toBe('"y"');
  });

  test("a key that is there twice is read twice", () => {
    expect(jsonFormat.read('{"a":"1","a":"2"}', ".").entries.map(({ text }) => text)).toEqual(["1", "2"]);
  });

  test("names that objects have of themselves are keys like any other", () => {
    const { entries } = jsonFormat.read('{"__proto__":"1","constructor":{"toString":"2"}}', ".");
    expect(entries.map(({ key }) => key)).toEqual(["__proto__", "constructor.toString"]);
  });

  test("places inside a text are found through its escapes", () => {
    const text = '{"a": "x\\n\\u00e9\\"{name}"}';
    const [entry] = jsonFormat.read(text, ".").entries;
    const offset = entry?.text.indexOf("{name}") ?? -1;
    expect(entry && text.slice(jsonFormat.offsetInFile(text, entry, offset)).startsWith("{name}")).toBe(true);
  });

  const broken: [string, string, string][] = [
    ['{"a": "He said "hi" to me"}', '"', "a quote inside a text"],
    ['{\n"a": "x"\n"b": "y"}', '"b"', "missing comma"],
    ['{"a": "x",}', ",", "trailing comma"],
    ['{"a": "x\n"}', '"x', "unclosed text"],
    ['{"a": "x,\r\n"b": "y"}', '"x,\r', "unclosed text"],
    ['{"a": "x\ty"}', "\t", "unexpected"],
    ['{"a":"x"', "", "unexpected end of file"],
    ["", "", "empty"],
    ["[]", "[", "not an object"],
    ['"x"', '"x"', "not an object"],
    ["{'a':'b'}", "'a'", "single quotes"],
    ['{"a": "x" // note\n}', "// note", "no comments"],
    ['{"a":"\\q"}', "\\q", "unknown escape"],
    ['{\n<<<<<<< ours\n"a":"1"\n=======\n"a":"2"\n>>>>>>> theirs\n}', "<<<<<<< ours", "conflict marker"],
  ];
  test.each(broken)("%j", (text, place, words) => {
    const [problem, ...more] = jsonFormat.read(text, ".").problems;
    expect(more).toEqual([]);
    expect(problem?.message).toContain(words);
    expect(problem?.remedy).not.toBe("");
    expect(text.slice(problem?.span.start, problem?.span.end)).toBe(place);
  });

  test("absurd nesting is a problem, not a crash", () => {
    expect(jsonFormat.read('{"a":'.repeat(100_000), ".").problems).toHaveLength(1);
  });
});

describe("editing in place", () => {
  const styled = '{\r\n\t"b": "2", \r\n\r\n\t"g" : {"x": "1"},\r\n\t"d": "4"\r\n}';
  const cases: [string, string, CatalogChanges, string][] = [
    [
      "one text touches its line only",
      '{\n  "a": "x",\n  "b": "y"\n}\n',
      { set: [{ path: ["a"], text: 'q"\n' }] },
      '{\n  "a": "q\\"\\n",\n  "b": "y"\n}\n',
    ],
    [
      "a new last key adds a line and a comma",
      '{\n  "a": "x"\n}\n',
      { add: [{ path: ["b"], text: "y" }] },
      '{\n  "a": "x",\n  "b": "y"\n}\n',
    ],
    [
      "a new first key",
      '{\n  "b": "y"\n}\n',
      { add: [{ path: ["a"], text: "x" }], order: [["a"], ["b"]] },
      '{\n  "a": "x",\n  "b": "y"\n}\n',
    ],
    [
      "keys go where the source has them",
      '{\n  "a": "1",\n  "d": "4"\n}',
      {
        add: [
          { path: ["c"], text: "3" },
          { path: ["b"], text: "2" },
        ],
        order: [["a"], ["b"], ["c"], ["d"]],
      },
      '{\n  "a": "1",\n  "b": "2",\n  "c": "3",\n  "d": "4"\n}',
    ],
    [
      "a group is made with the file's indent",
      '{\n    "a": "1"\n}',
      { add: [{ path: ["g", "h", "i"], text: "2" }] },
      '{\n    "a": "1",\n    "g": {\n        "h": {\n            "i": "2"\n        }\n    }\n}',
    ],
    [
      "a group that is there is joined",
      '{\n  "g": {\n    "a": "1"\n  }\n}',
      { add: [{ path: ["g", "b"], text: "2" }] },
      '{\n  "g": {\n    "a": "1",\n    "b": "2"\n  }\n}',
    ],
    [
      "an empty catalog",
      "{}\n",
      {
        add: [
          { path: ["a"], text: "1" },
          { path: ["b", "c"], text: "2" },
        ],
      },
      '{\n  "a": "1",\n  "b": {\n    "c": "2"\n  }\n}\n',
    ],
    [
      "a group on one line stays there",
      '{ "a": "1", "b": "2" }',
      { add: [{ path: ["c"], text: "3" }], remove: [["a"]] },
      '{ "b": "2", "c": "3" }',
    ],
    [
      "removing the last key takes the comma before it",
      '{\n  "a": "1",\n  "b": "2"\n}',
      { remove: [["b"]] },
      '{\n  "a": "1"\n}',
    ],
    [
      "removing all of a group removes the group",
      '{\n  "a": "1",\n  "g": {\n    "x": "2",\n    "y": "3"\n  }\n}',
      {
        remove: [
          ["g", "x"],
          ["g", "y"],
        ],
      },
      '{\n  "a": "1"\n}',
    ],
    [
      "a text gives way to a group of its name",
      '{\n  "a": "1",\n  "b": "2"\n}',
      { remove: [["a"]], add: [{ path: ["a", "x"], text: "3" }], order: [["a", "x"], ["b"]] },
      '{\n  "a": {\n    "x": "3"\n  },\n  "b": "2"\n}',
    ],
    [
      "everything replaced",
      '{\n  "a": "1",\n  "b": "2"\n}',
      { remove: [["a"], ["b"]], add: [{ path: ["c"], text: "3" }] },
      '{\n  "c": "3"\n}',
    ],
    [
      "line ends, tabs and odd spaces stay",
      styled,
      {
        add: [{ path: ["c"], text: "3" }],
        set: [{ path: ["g", "x"], text: "9" }],
        order: [["b"], ["c"], ["d"]],
      },
      '{\r\n\t"b": "2",\r\n\t"c": "3", \r\n\r\n\t"g" : {"x": "9"},\r\n\t"d": "4"\r\n}',
    ],
    [
      "a file that escapes everything goes on doing so",
      '{\n  "a": "\\u00e9"\n}',
      { add: [{ path: ["b"], text: "ü" }] },
      '{\n  "a": "\\u00e9",\n  "b": "\\u00fc"\n}',
    ],
    [
      "lists take texts by index",
      '{\n  "l": ["a", "b"]\n}',
      { set: [{ path: ["l", 1], text: "c" }], add: [{ path: ["l", 2], text: "d" }] },
      '{\n  "l": ["a", "c", "d"]\n}',
    ],
  ];
  test.each(cases)("%s", (_, before, changes, after) => {
    expect(jsonFormat.edit(before, changes)).toBe(after);
  });

  test("no change leaves every byte", () => {
    expect(jsonFormat.edit(styled, {})).toBe(styled);
  });
});

type Tree = { [name: string]: string | Tree };
const { tree } = fc.letrec<{ tree: Tree; value: string | Tree }>((tie) => ({
  value: fc.oneof({ maxDepth: 2 }, fc.string({ maxLength: 6 }), tie("tree")),
  tree: fc.dictionary(fc.constantFrom("a", "b", "c", "d e", "é", "f.g"), tie("value"), {
    maxKeys: 5,
    noNullPrototype: true,
  }),
}));

function leaves(node: Tree, path: readonly string[] = []): { path: EntryPath; text: string }[] {
  return Object.entries(node).flatMap(([name, value]) =>
    typeof value === "string" ? [{ path: [...path, name], text: value }] : leaves(value, [...path, name]),
  );
}

const id = (path: EntryPath) => path.join("\u0000");

describe("properties of edits", () => {
  test("after any change the file holds what was asked for, and other lines are as they were", () => {
    fc.assert(
      fc.property(
        tree,
        tree,
        fc.constantFrom(1, 2, 4, "\t"),
        fc.constantFrom("\n", "\r\n"),
        fc.infiniteStream(fc.boolean()),
        (before, wanted, indent, lineEnd, coin) => {
          const text = JSON.stringify(before, undefined, indent).replaceAll("\n", lineEnd) + lineEnd;
          const own = leaves(before);
          const remove = own.filter(() => coin.next().value === true).map(({ path }) => path);
          const kept = own.filter(({ path }) => !remove.some((gone) => id(gone) === id(path)));
          const add = leaves(wanted).filter(
            ({ path }) =>
              !kept.some((one) => id(one.path).startsWith(id(path)) || id(path).startsWith(id(one.path))),
          );
          const after = jsonFormat.edit(text, { add, remove, order: leaves(wanted).map(({ path }) => path) });
          const read = jsonFormat.read(after, "\u0000");
          expect(read.problems).toEqual([]);
          const found = new Map(read.entries.map((entry) => [id(entry.path), entry.text]));
          expect(found).toEqual(new Map([...kept, ...add].map(({ path, text: value }) => [id(path), value])));
          expect(() => JSON.parse(after) as unknown).not.toThrow();
          expect(after.endsWith(lineEnd)).toBe(true);
          if (add.length === 0 && remove.length === 0) expect(after).toBe(text);
        },
      ),
      { numRuns: 800 },
    );
  });

  test("setting one text changes one line", () => {
    fc.assert(
      fc.property(tree, fc.nat(), fc.string({ maxLength: 8 }), (before, pick, value) => {
        const own = leaves(before);
        const chosen = own[pick % Math.max(own.length, 1)];
        if (!chosen) return;
        const text = JSON.stringify(before, undefined, 2);
        const after = jsonFormat.edit(text, { set: [{ path: chosen.path, text: value }] });
        const lines = text.split("\n");
        const changed = after.split("\n").filter((line, index) => line !== lines[index]);
        expect(changed.length).toBe(chosen.text === value ? 0 : 1);
      }),
      { numRuns: 500 },
    );
  });
});
