import { expect, test } from "@jest/globals";
import { countedWord } from "../../../src/core/source/readers/counted-words.js";
import { uniqueNames } from "../../../src/core/source/readers/expression-names.js";

const calls = /^(?:\w+\.)?pluralize$/;

/** The forms that a call stands for, by their selectors; undefined where it says nothing sure. */
function formsOf(code: string, language: string | undefined = "en") {
  const found = countedWord(code, { start: 0, end: code.length }, calls, uniqueNames(), language);
  return found?.branches.map(({ selector, pieces }) => [
    selector,
    pieces
      .map((piece) => (piece.kind === "text" ? piece.value : piece.kind === "argument" ? "#" : ""))
      .join(""),
  ]);
}

test.each([
  ['pluralize(n, "boat")', "# boat", "# boats"],
  ["pluralize n, 'boat'", "# boat", "# boats"],
  ['helpers.pluralize(@boat.errors.count, "mistake")', "# mistake", "# mistakes"],
  ['pluralize(n, "small quay")', "# small quay", "# small quays"],
  ['pluralize(n, "ferry")', "# ferry", "# ferries"],
  ['pluralize(n, "winch")', "# winch", "# winches"],
  ['pluralize(n, "person", "people")', "# person", "# people"],
  ['pluralize(n, "foot", plural: "feet")', "# foot", "# feet"],
  ['pluralize(f(1, 2), "boat")', "# boat", "# boats"],
])("%s", (code, one, other) => {
  expect(formsOf(code)).toEqual([
    ["one", one],
    ["other", other],
  ]);
});

test.each([
  ["a word with a plural of its own", 'pluralize(n, "person")'],
  ["a word without one", 'pluralize(n, "sheep")'],
  ["a word with several", 'pluralize(n, "octopus")'],
  ["a word in capitals, as a name", 'pluralize(n, "GPS")'],
  ["words with a value", 'pluralize(n, "#{kind} boat")'],
  ["a value", "pluralize(n, word)"],
  ["no number", 'pluralize("boat")'],
  ["more than both words", 'pluralize(n, "boat", "boats", "fleet")'],
  ["another call", 'plurals(n, "boat")'],
])("%s is not known: %s", (_, code) => {
  expect(formsOf(code)).toBeUndefined();
});

test("of another language both words have to be there, and `one` has to be the number alone", () => {
  expect(formsOf('pluralize(n, "Boot")', "de")).toBeUndefined();
  expect(formsOf('pluralize(n, "Boot", "Boote")', "de")).toEqual([
    ["one", "# Boot"],
    ["other", "# Boote"],
  ]);
  expect(formsOf('pluralize(n, "bateau", "bateaux")', "fr")).toBeUndefined();
  expect(formsOf('pluralize(n, "boat")', "")).toBeUndefined();
});
