import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { unproved } from "../../../src/core/extract/proof.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { literalMessage } from "../../../src/core/source/literal-message.js";
import { joinTexts } from "../../../src/core/source/pieces.js";
import type { ChoicePiece, Literal, Piece } from "../../../src/core/source/model.js";

const span = { start: 0, end: 1 };
const literal = (pieces: readonly Piece[]): Literal => ({
  form: "template",
  span,
  pieces,
  context: { language: "script", role: "other", atLoad: false },
});
const text = (value: string): Piece => ({ kind: "text", value, span });
const argument = (name: string, code = name): Piece => ({
  kind: "argument",
  name,
  code,
  span,
  mayBeAbsent: false,
});
const choice = (
  kind: "plural" | "select",
  name: string,
  value: string,
  branches: Readonly<Record<string, readonly Piece[]>>,
): ChoicePiece => ({
  kind: "choice",
  choice: kind,
  name,
  code: name,
  value,
  span,
  branches: Object.entries(branches).map(([selector, pieces]) => ({ selector, pieces })),
});
const icu = messageReader("icu");
const prove = (pieces: readonly Piece[], message: string) =>
  unproved(literal(pieces), message, icu, "en")?.messageId;

describe("a message that says something else is not written", () => {
  test.each<[string, readonly Piece[], string, string | undefined]>([
    ["the same", [text("Hello "), argument("name")], "Hello {name}", undefined],
    ["another word", [text("Hello "), argument("name")], "Hallo {name}", "extract/other-text"],
    ["a value less", [text("Hello "), argument("name")], "Hello ", "extract/other-text"],
    [
      "values changed about",
      [argument("a"), text(" of "), argument("b")],
      "{b} of {a}",
      "extract/other-text",
    ],
    ["a sign that is not quoted", [text("It’s {now}")], "It’s {now}", "extract/other-text"],
    ["the same, quoted", [text("It’s {now}")], "It’s '{now}'", undefined],
    [
      "two values of one name",
      [
        choice("select", "error", 'error ? "yes" : "no"', {
          yes: [argument("error")],
          other: [text("none")],
        }),
      ],
      "{error, select, yes {{error}} other {none}}",
      "extract/two-values",
    ],
    [
      "a case of a plural less",
      [
        choice("plural", "n", "n", {
          "=0": [text("none")],
          one: [text("one")],
          other: [argument("n"), text(" boats")],
        }),
      ],
      "{n, plural, one {one} other {# boats}}",
      "extract/other-text",
    ],
    [
      "a case inside of another",
      [
        choice("select", "late", 'late ? "yes" : "no"', {
          yes: [choice("plural", "n", "n", { one: [text("one late")], other: [text("some late")] })],
          other: [text("in time")],
        }),
      ],
      "{late, select, yes {some late} other {in time}}",
      "extract/other-text",
    ],
  ])("%s", (_, pieces, message, expected) => {
    expect(prove(pieces, message)).toBe(expected);
  });
});

test.each([
  ["icu", /^[a-zA-Z'{}<>%$|#@\\ ]{1,12}$/],
  ["mf2", /^[a-zA-Z'{}<>%$|#@\\ ]{1,12}$/],
  // These have no way to write their own signs.
  ["double-brace", /^[a-zA-Z'<>%$|#@\\ ]{1,12}$/],
  ["percent-brace", /^[a-zA-Z'<>$|#@\\ ]{1,12}$/],
] as const)("what pieces say, their message says in %s", (syntax, letters) => {
  const words = fc.stringMatching(letters);
  const simple = fc.oneof(
    words.map(text),
    fc.constantFrom("name", "total").map((name) => argument(name)),
  );
  const some = fc.array(simple, { minLength: 1, maxLength: 4 }).map(joinTexts);
  const piece = fc.oneof(
    { weight: 3, arbitrary: simple },
    {
      weight: 1,
      arbitrary: fc
        .tuple(some, some)
        .map(([yes, other]) => choice("select", "late", "late ? 1 : 2", { yes, other })),
    },
    {
      weight: 1,
      arbitrary: fc
        .tuple(some, some, some)
        .map(([none, one, other]) => choice("plural", "n", "n", { "=0": none, one, other })),
    },
  );
  const reader = messageReader({ syntax, tags: false });
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 4 }).map(joinTexts), (pieces) => {
      const message = literalMessage(pieces, reader);
      // What a syntax has no room for is refused before.
      if (message === undefined) return;
      expect([message, unproved(literal(pieces), message, reader, "en")?.data]).toEqual([message, undefined]);
    }),
    { numRuns: 300 },
  );
});
