import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { messageReader } from "../../../src/core/message/parse.js";
import { pseudoMessage, pseudoText, type PseudoOptions } from "../../../src/core/message/pseudo.js";
import { messageBooks, messages, type MessageBook } from "../../support/messages.js";

const icu = messageReader("icu");
const made = (text: string, options?: PseudoOptions) =>
  icu.print(pseudoMessage(icu.read(text).nodes, options));

describe("a pseudo-message", () => {
  test("has its words accented and grown, in brackets, its values and elements as they are", () => {
    expect(made("Book {boat}")).toBe("⟦Ɓööķ {boat} ~~~⟧");
    expect(made("Read <b>the rules</b>")).toBe("⟦Ŕéåð <b>ţĥé ŕûļéš</b> ~~~~~~~~~~⟧");
    expect(made("{n, plural, one {# boat} other {# boats}}")).toBe(
      "{n, plural, one {⟦# ƀöåţ ~~~⟧} other {⟦# ƀöåţš ~~~~⟧}}",
    );
  });

  test("grows short texts most", () => {
    const growth = (text: string) => made(text).length / text.length;
    expect(growth("Book")).toBeGreaterThan(2);
    expect(growth("x".repeat(100))).toBeLessThan(1.4);
    expect(growth("x".repeat(100))).toBeGreaterThan(1.25);
  });

  test("with all categories apart says which is which", () => {
    expect(made("{n, plural, =0 {none} one {# boat} other {# boats}}", { plurals: true })).toMatch(
      /^\{n, plural, =0 \{⟦=0: .*zero \{⟦zero: # ƀöåţš .*two \{⟦two: .*few .*many .*other \{⟦other: /,
    );
  });

  test("mirrored has balanced marks, and values outside of the override", () => {
    const text = made("Book {boat} now", { mirror: true });
    expect(text).toBe("\u2067⟦\u202EƁööķ \u202C{boat}\u202E ñöŵ\u202C ~~~~~~⟧\u2069");
  });

  test("keeps markup, entities, addresses and values of other syntaxes", () => {
    const kept = "<a href='x'>&amp; %s ${name} {{ name }} https://a.example/b?c=d me@quay.example \\n";
    expect(pseudoText(kept)).toBe(kept);
  });

  test("reads the texts of a choice by ranges", () => {
    const java = messageReader("java");
    const { ranges } = java.syntax;
    if (!ranges) throw new Error("Java has choices");
    const nodes = pseudoMessage(java.read("{0,choice,0#no boat|1<{0} boats}").nodes, {
      ranges: {
        read: (style) => ranges.read(style, (text) => java.read(text).nodes),
        write: (branches) => ranges.write(branches, (inner) => java.print(inner)),
      },
    });
    expect(java.print(nodes)).toBe("⟦{0,choice,0#ñö ƀöåţ|1<{0} ƀöåţš}⟧");
  });
});

test.each(Object.keys(messageBooks) as MessageBook[])(
  "in %s, a message has the same values and choices as before",
  (book) => {
    const reader = messageReader(messageBooks[book]);
    fc.assert(
      fc.property(messages(book), (nodes) => {
        const before = reader.read(reader.print(nodes), "en");
        const after = reader.read(reader.print(pseudoMessage(before.nodes)), "en");
        expect(after.isBroken).toBe(false);
        expect([...after.facts.arguments.keys()]).toEqual([...before.facts.arguments.keys()]);
        expect(after.facts.plurals.length).toBe(before.facts.plurals.length);
      }),
      { numRuns: 100 },
    );
  },
);
