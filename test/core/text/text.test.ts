import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { applyEdits } from "../../../src/core/text/edits.js";
import { lineIndex } from "../../../src/core/text/line-index.js";
import { nearest, nearestKey, NearestKeys } from "../../../src/core/text/nearest.js";

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

test.each([
  ["home.titel", "home.title"],
  ["homeTitle", "home.title"],
  ["home.form.title", "home.title"],
])("%s is a slip of the pen for %s", (written, meant) => {
  expect(nearestKey(written, ["other.key", meant])).toBe(meant);
});

test.each([
  ["home.title", "home.link"],
  ["nav.help", "nav.home"],
  ["checkout.total", "basket.total"],
  ["a.b.c", "a"],
])("%s is not taken for %s", (written, other) => {
  expect(nearestKey(written, [other])).toBeUndefined();
});

describe("the nearest of many keys", () => {
  const groups = ["home", "booking", "account", "profile"];
  const keys = groups.flatMap((group) =>
    Array.from({ length: 900 }, (_, index) => `${group}.part${index % 30}.label${index}`),
  );
  const many = new NearestKeys(keys);

  test.each([
    ["the root", "en.home.part3.label33", ["en.home.part3.label33"], "de.home.part3.label33"],
    ["a group", "booking.part5.label125", keys, "boking.part5.label125"],
    ["a group in the middle", "account.part7.label307", keys, "account.parts7.label307"],
    ["the beginning of the name", "profile.part12.label312", keys, "profile.part12.lebel312"],
    ["letter case", "home.part3.label33", keys, "Home.part3.label33"],
  ])("finds one that differs in %s", (_, meant, among, written) => {
    const padded = among === keys ? many : new NearestKeys([...among, ...keys]);
    expect(padded.of(written)).toBe(meant);
  });

  test("finds none where none is near", () => {
    expect(many.of("schedule.tide.title")).toBeUndefined();
    expect(new NearestKeys([]).of("home")).toBeUndefined();
  });

  test("finds what `nearestKey` does where keys are few", () => {
    const name = fc.stringMatching(/^[ab]{1,3}(\.[ab]{1,4}){0,2}$/);
    fc.assert(
      fc.property(fc.array(name, { maxLength: 20 }), name, (few, written) => {
        expect(new NearestKeys(few).of(written)).toBe(nearestKey(written, few));
      }),
    );
  });

  test("finds what it would find had it been given the keys that are there now", () => {
    const name = fc.stringMatching(/^[ab]{1,3}(\.[ab]{1,4}){1,2}$/);
    const most = 320;
    fc.assert(
      fc.property(
        fc.uniqueArray(name, { minLength: 110, maxLength: most, size: "max" }),
        fc.array(fc.nat({ max: most }), { maxLength: 5 }),
        fc.uniqueArray(name, { maxLength: 5 }),
        fc.array(name, { minLength: 1, maxLength: 20 }),
        (before, places, more, asked) => {
          const gone = [...new Set(places.flatMap((place) => before[place] ?? []))];
          const added = more.filter((key) => !before.includes(key));
          const known = new NearestKeys(before);
          known.of(asked[0] ?? "");
          const changed = known.changed(added, gone);
          const anew = new NearestKeys([...before.filter((key) => !gone.includes(key)), ...added]);
          for (const key of asked) expect(changed.of(key)).toBe(anew.of(key));
        },
      ),
    );
  });

  test("and so where more are alike than are compared", () => {
    const alike = Array.from({ length: 260 }, (_, at) => `page.heading${String.fromCodePoint(0x4e00 + at)}`);
    const known = new NearestKeys([...keys.slice(0, 50), ...alike]);
    const asked = alike.map((key) => key.replace("heading", "headimg"));
    known.of(asked[0] ?? "");
    const [gone, left] = [alike.slice(0, 100), alike.slice(100)];
    const changed = known.changed([], gone);
    expect(asked.slice(100).map((key) => changed.of(key))).toEqual(left);
  });

  test("is asked for every key of a file with another root, and for names that all are alike", () => {
    const other = new NearestKeys(keys.map((key) => `en.${key}`));
    for (const key of keys) expect(other.of(`de.${key}`)).toBe(`en.${key}`);
    const flat = Array.from({ length: 20_000 }, (_, index) => `label_${index}_text`);
    const flatKeys = new NearestKeys(flat);
    const wrong = Array.from({ length: 2000 }, (_, index) => index * 10).filter(
      (index) => flatKeys.of(`labels_${index}_text`) !== `label_${index}_text`,
    );
    expect(wrong).toEqual([]);
  });
});
