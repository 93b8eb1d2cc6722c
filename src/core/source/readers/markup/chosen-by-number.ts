import type { ChoicePiece, Piece } from "../../model.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { choicePiece, flip, numbersFor, type ChoiceTest } from "../worded-choice.js";

const string = String.raw`("[^"\\{}\n]{0,200}"|'[^'\\{}\n]{0,200}')`;
const test = String.raw`([\w$.]{1,80})\s{0,9}([=!<>]=?=?)\s{0,9}([\w$.]{1,80})`;

/** `'' if n == 1 else 's'`, as Python writes it and the templates that go by it, and `n == 1 ? '' : 's'`. */
const asInPython = new RegExp(
  `^\\s{0,99}${string}\\s{1,9}if\\s{1,9}${test}\\s{1,9}else\\s{1,9}${string}\\s{0,99}$`,
);
const asInScripts = new RegExp(
  `^\\s{0,99}${test}\\s{0,9}\\?\\s{0,9}${string}\\s{0,9}:\\s{0,9}${string}\\s{0,99}$`,
);

interface Chosen {
  readonly left: string;
  readonly operator: string;
  readonly right: string;
  readonly first: string;
  readonly second: string;
}

function chosenIn(code: string): Chosen | undefined {
  const [, first = "", left = "", operator = "", right = "", second = ""] = asInPython.exec(code) ?? [];
  if (left !== "") return { left, operator, right, first, second };
  const [, own = "", sign = "", other = "", one = "", two = ""] = asInScripts.exec(code) ?? [];
  return own === "" ? undefined : { left: own, operator: sign, right: other, first: one, second: two };
}

/** What a comparison with 0, 1 or 2 stands for; undefined for other tests. */
function testOf({ left, operator, right }: Chosen): ChoiceTest | undefined {
  const isNumber = (side: string) => /^[012]$/.test(side);
  if (isNumber(left) === isNumber(right)) return undefined;
  const [value, bound] = isNumber(left) ? [right, left] : [left, right];
  const numbers = numbersFor(isNumber(left) ? flip(operator) : operator, Number(bound));
  return numbers && { kind: "plural", code: value, value, name: nameFromCode(value), ...numbers };
}

/**
 * Words or endings that an expression of a template's own small language chooses by a number, as the plural that they are;
 * `offset` is where the expression stands, and `language` that of the texts, as a tag. Undefined for other expressions, and where the number counts nothing.
 */
export function chosenByNumber(
  code: string,
  offset: number,
  language: string | undefined,
): ChoicePiece | undefined {
  const chosen = /["']/.test(code) && /[=<>]/.test(code) ? chosenIn(code) : undefined;
  const test = chosen && testOf(chosen);
  if (!chosen || !test) return undefined;
  const start = offset + code.length - code.trimStart().length;
  const span = { start, end: offset + code.trimEnd().length };
  const piece = choicePiece<Chosen | string>(chosen, span, {
    read: (node) =>
      typeof node === "string" ? undefined : { test, first: chosen.first, second: chosen.second },
    pieces: (branch): readonly Piece[] =>
      typeof branch === "string" && branch.length > 2
        ? [{ kind: "text", value: branch.slice(1, -1), span }]
        : [],
    codeOf: (branch) => (typeof branch === "string" ? branch : code),
    take: () => undefined,
    uniqueName: uniqueNames(),
    language,
  });
  const isPlural = piece?.branches.some(({ selector }) => selector === "one") === true;
  return isPlural ? piece : undefined;
}
