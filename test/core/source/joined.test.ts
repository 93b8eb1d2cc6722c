import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { joinedIn } from "../../../src/core/source/readers/markup/joined.js";

/** Operands as templates have them, with quotes and letters instead of what is in strings. */
const operand = fc.oneof(
  fc.constantFrom(
    '"___"',
    '"_"',
    "name",
    "boat.name",
    "boats[0].name",
    "$boat->name",
    "nameOf(boat, 1)",
    "(a - b)",
  ),
  fc
    .tuple(fc.constantFrom("day", "boat.day(1)", "(a and b)"), fc.constantFrom("upper", 'date("__")'))
    .map(([value, filter]) => `${value}|${filter}`),
);

/** What stands around an expression without being a part of it. */
const around = fc.constantFrom(
  ["", ""],
  ["set title = ", ""],
  ["f(", ", 1)"],
  ["late ? ", " : x"],
  ["{ a: ", " }"],
);

test("all operands that are joined are found, whatever stands around them", () => {
  fc.assert(
    fc.property(
      fc.array(operand, { minLength: 2, maxLength: 5 }),
      fc.constantFrom(" ~ ", "~", " ~"),
      around,
      (operands, operator, [before = "", behind = ""]) => {
        const code = before + operands.join(operator) + behind;
        const [found, ...others] = joinedIn(code);
        expect(others).toEqual([]);
        expect(found?.operands.map(({ start, end }) => code.slice(start, end))).toEqual(operands);
        expect(found?.isOpen).toBeUndefined();
      },
    ),
  );
});

test.each([
  ["name", "nothing is joined"],
  ["boat.name", "a member"],
  ["i++", "a step"],
  ["~ name", "a mark of blanks"],
  ["name ~", "a mark of blanks"],
  ['show "___" .Boat', "a name with a dot in front"],
  ['"___"', "a string"],
])("%s joins nothing: %s", (code) => {
  expect(joinedIn(code)).toEqual([]);
});

test.each([
  ['"___" + a * 2', true],
  ['"___" + a | upper', true],
  ['"___" ~ a | upper', undefined],
  ['"___" + a', undefined],
  ['"___" . f(x) . "_"', undefined],
])("%s: whether it is known what is done with it", (code, isOpen) => {
  const [found] = joinedIn(code);
  expect(found?.isOpen).toBe(isOpen);
});
