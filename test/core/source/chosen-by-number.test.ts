import { expect, test } from "@jest/globals";
import { chosenByNumber } from "../../../src/core/source/readers/markup/chosen-by-number.js";
import { fixedText } from "../../../src/core/source/model.js";

/** The value that is counted and the forms that an expression chooses by it; undefined for other expressions. */
function formsOf(code: string) {
  const found = chosenByNumber(code, 10, "en");
  return (
    found && [
      found.code,
      code.slice(found.span.start - 10, found.span.end - 10),
      Object.fromEntries(found.branches.map(({ selector, pieces }) => [selector, fixedText(pieces)])),
    ]
  );
}

test.each([
  [" '' if n == 1 else 's' ", "n", { one: "", other: "s" }],
  ['"berth" if form.berths == 1 else "berths"', "form.berths", { one: "berth", other: "berths" }],
  ["'s' if n != 1 else ''", "n", { one: "", other: "s" }],
  ["'y' if 1 == n else 'ies'", "n", { one: "y", other: "ies" }],
  [" n == 1 ? '' : 's' ", "n", { one: "", other: "s" }],
  ["boats.length !== 1 ? 'boats' : 'boat'", "boats.length", { one: "boat", other: "boats" }],
  ["$n > 1 ? 's' : ''", "$n", { "=0": "", one: "", other: "s" }],
])("%s", (code, value, forms) => {
  expect(formsOf(code)).toEqual([value, code.trim(), forms]);
});

test.each([
  "'Open' if closed else 'Closed'",
  "'a' if n == m else 'b'",
  "'a' if 1 == 2 else 'b'",
  "'Here' if deck == 1 else 'Below'",
  "'s' if n|length != 1 else ''",
  "'s' if n == 1 and late else ''",
  "'s' if n == 1",
  "n == 1",
  "say('boat.title')",
])("%s is no plural", (code) => {
  expect(formsOf(code)).toBeUndefined();
});
