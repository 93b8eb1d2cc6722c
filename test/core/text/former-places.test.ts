import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { formerPlaces } from "../../../src/core/text/former-places.js";

const keys = fc.array(fc.constantFrom("a", "b", "c", "d", "e", "f"), { maxLength: 8 });

test("a place that is given is that of the very key", () => {
  fc.assert(
    fc.property(keys, keys, (now, before) => {
      const places = formerPlaces(now, before);
      expect(places).toHaveLength(now.length);
      for (const [at, place] of places.entries()) if (place >= 0) expect(before[place]).toBe(now[at]);
    }),
  );
});

test.each([
  ["one that came", ["a", "b", "n", "c"], ["a", "b", "c"], [0, 1, -1, 2]],
  ["one that came last", ["a", "b", "n"], ["a", "b"], [0, 1, -1]],
  ["one that went", ["a", "c"], ["a", "b", "c"], [0, 2]],
  ["two that came", ["a", "m", "n", "b"], ["a", "b"], [0, -1, -1, 1]],
  ["one that was renamed", ["a", "n", "c"], ["a", "b", "c"], [0, -1, 2]],
  ["one that moved to the end", ["b", "c", "a"], ["a", "b", "c"], [1, 2, 0]],
  ["none before", ["a"], [], [-1]],
] as const)("finds the others beside %s", (_, now, before, places) => {
  expect([...formerPlaces(now, before)]).toEqual(places);
});
