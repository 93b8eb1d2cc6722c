import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { applyEdits } from "../../../src/core/text/edits.js";
import { lineIndex } from "../../../src/core/text/line-index.js";
import { nearest } from "../../../src/core/text/nearest.js";

describe("lines and columns", () => {
  test.each([
    ["a\nb", 2, 2, 1],
    ["a\r\nb", 3, 2, 1],
    ["a\rb", 2, 2, 1],
    ["a\n", 2, 2, 1],
    ["", 0, 1, 1],
    ["ab", 99, 1, 3],
    ["😀x", 2, 1, 3],
  ])("%j at %i is %i:%i", (text, offset, line, column) => {
    expect(lineIndex(text).position(offset)).toEqual({ line, column });
  });

  test("every offset is on the line that holds it", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("a", "\n", "\r\n", "\r", "é"), { maxLength: 30 }),
        fc.nat(60),
        (parts, at) => {
          const text = parts.join("");
          const offset = Math.min(at, text.length);
          const { line, column } = lineIndex(text).position(offset);
          const before = text.slice(0, offset).split(/\r\n|\n|\r(?!\n)/);
          const isInsideCrlf = text[offset] === "\n" && text[offset - 1] === "\r";
          if (isInsideCrlf) return;
          expect([line, column]).toEqual([before.length, (before[before.length - 1] ?? "").length + 1]);
        },
      ),
    );
  });

  test("a line is given without its end", () => {
    const index = lineIndex("one\r\ntwo\nthree");
    expect([index.line(1), index.line(2), index.line(3), index.line(4)]).toEqual(["one", "two", "three", ""]);
  });
});

describe("edits", () => {
  test("apply in any order, insertions at one place in the order given", () => {
    const edits = [
      { start: 4, end: 5, replacement: "E" },
      { start: 1, end: 1, replacement: "1" },
      { start: 1, end: 1, replacement: "2" },
      { start: 0, end: 1, replacement: "" },
    ];
    expect(applyEdits("abcde", edits)).toBe("12bcdE");
  });

  test.each([
    [
      [
        { start: 0, end: 2, replacement: "" },
        { start: 1, end: 3, replacement: "" },
      ],
    ],
    [[{ start: 3, end: 2, replacement: "" }]],
    [[{ start: 0, end: 9, replacement: "" }]],
  ])("overlap and bad ranges are mistakes of the caller: %j", (edits) => {
    expect(() => applyEdits("abcde", edits)).toThrow(RangeError);
  });
});

test.each([
  ["serach", ["search", "save"], "search"],
  ["Name", ["name", "none"], "name"],
  ["nmae", ["name", "names"], "name"],
  ["anzahl", ["count"], undefined],
  ["x", [], undefined],
  ["common.nav.serach", ["common.nav.search", "common.nav.sailings"], "common.nav.search"],
])("the word nearest to %s among %j is %s", (word, candidates, expected) => {
  expect(nearest(word, candidates)).toBe(expected);
});
