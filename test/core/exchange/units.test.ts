import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  codesIn,
  inlineText,
  readInlineText,
  sameInlines,
  type Inline,
} from "../../../src/core/exchange/inline.js";
import { messageUnits, type MessageUnits } from "../../../src/core/exchange/units.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { flatForm } from "../../../src/core/message/variants.js";
import { messageBooks, messages, words, type MessageBook } from "../../support/messages.js";

const icu = messageReader("icu");

function unitsOf(source: string, locale: string, target?: string, reader = icu): MessageUnits {
  const units = messageUnits(
    reader.read(source).nodes,
    target === undefined ? undefined : reader.read(target, locale).nodes,
    locale,
    reader,
  );
  if (!units) throw new Error("it has no units");
  return units;
}

const label = ({ units }: MessageUnits) =>
  units.map(({ choices }) => choices.map(({ name, selector }) => `${name} ${selector}`).join(", "));
const sources = ({ units }: MessageUnits) => units.map(({ source }) => inlineText(source));
const targets = ({ units }: MessageUnits) => units.map(({ target }) => target && inlineText(target));

describe("the units of a message", () => {
  test("are one for each category of the locale, with numbers that take it", () => {
    const polish = unitsOf("Take {n, plural, one {# seat} other {# seats}} on {boat}", "pl");
    expect(label(polish)).toEqual(["n one", "n few", "n many", "n other"]);
    expect(sources(polish)).toEqual([
      "Take {n} seat on {boat}",
      "Take {n} seats on {boat}",
      "Take {n} seats on {boat}",
      "Take {n} seats on {boat}",
    ]);
    expect(polish.units[1]?.choices[0]?.numbers).toBe("2, 3, 4, 22 …");
    expect(label(unitsOf("{n, plural, one {# seat} other {# seats}}", "ja"))).toEqual(["n other"]);
    expect(label(unitsOf("{n, plural, one {# seat} other {# seats}}", "ar"))).toHaveLength(6);
  });

  test("name exact numbers and cases, and ask no choice where the source has none", () => {
    expect(
      label(
        unitsOf(
          "{who, select, one {Alone} many {{n, plural, =0 {Nobody} other {# people}}} other {You}}",
          "en",
        ),
      ),
    ).toEqual(["who one", "who many, n =0", "who many, n one", "who many, n other", "who other"]);
  });

  test("of a message without choices is one, with elements as pairs", () => {
    const one = unitsOf(
      "Read <b>the <i>{what}</i></b>, please<br/>",
      "de",
      "Bitte <b>die <i>{what}</i></b> lesen",
    );
    expect(sources(one)).toEqual(["Read <b>the <i>{what}</i></b>, please{br}"]);
    expect(targets(one)).toEqual(["Bitte <b>die <i>{what}</i></b> lesen"]);
    expect(one.codes.get("b")).toEqual({ open: "<b>", close: "</b>" });
  });

  test("have the translation that is there by category, whatever its shape, and none where it lacks one", () => {
    const there = unitsOf(
      "{n, plural, one {# seat} other {# seats}}",
      "pl",
      "Jest {n, plural, one {miejsce} few {# miejsca} other {# miejsc}} na statku",
    );
    expect(targets(there)).toEqual([
      "Jest miejsce na statku",
      "Jest {n} miejsca na statku",
      undefined,
      "Jest {n} miejsc na statku",
    ]);
  });

  test("leave a translation out that chooses by something of its own", () => {
    expect(targets(unitsOf("Hello", "de", "{who, select, other {Hallo}}"))).toEqual([undefined]);
  });

  test("are none where nobody would fill them in", () => {
    const branch = (name: string, inner: string) =>
      `{${name}, plural, =0 {a} =1 {b} =2 {c} =3 {d} one {e} other {${inner}}}`;
    const source = branch("a", branch("b", branch("c", "x"))).replaceAll("{a}", `{${branch("d", "y")}}`);
    expect(messageUnits(icu.read(source).nodes, undefined, "ar", icu)).toBeUndefined();
  });

  test("of a choice by ranges are its texts", () => {
    const java = messageReader("java");
    const source = "{0,choice,0#No berth isn''t free|1#One berth is free|1<{0} berths are free}";
    const units = unitsOf(source, "de", undefined, java);
    expect(label(units)).toEqual(["0 0", "0 1", "0 1<"]);
    expect(sources(units)).toEqual(["No berth isn't free", "One berth is free", "{0} berths are free"]);
    const back = units.compose(units.units.map((one) => one.source));
    expect(java.print(back ?? [])).toBe(source);
    expect(units.compose([[{ kind: "text", value: "a|b" }], [], []])).toBeUndefined();
  });
});

describe("putting units together", () => {
  const fill = (units: MessageUnits, ...texts: string[]) => {
    const back = units.compose(texts.map((text) => readInlineText(text) ?? []));
    return back && icu.print(back);
  };

  test("makes a plural with the locale's categories, the number by its sign", () => {
    const units = unitsOf("{n, plural, one {# seat} other {# seats}}", "pl");
    expect(fill(units, "{n} miejsce", "{n} miejsca", "{n} miejsc", "{n} miejsca")).toBe(
      "{n, plural, one {# miejsce} few {# miejsca} many {# miejsc} other {# miejsca}}",
    );
  });

  test("writes an outer number by its name", () => {
    const units = unitsOf("{n, plural, other {# of {m, plural, other {#}}}}", "ja");
    expect(fill(units, "{m}のうち{n}")).toBe("{n, plural, other {{m, plural, other {#のうち{n, number}}}}}");
  });

  test("refuses a code that the message does not have, and a pair used as a value", () => {
    const units = unitsOf("Read <b>{what}</b>", "de");
    expect(fill(units, "Lies {welches}")).toBeUndefined();
    expect(fill(units, "Lies {b}")).toBeUndefined();
    expect(fill(units, "Lies <what>x</what>")).toBeUndefined();
    expect(fill(units, "<b>{what}</b> lesen")).toBe("<b>{what}</b> lesen");
  });
});

describe.each(Object.keys(messageBooks) as MessageBook[])("any message of a book in %s", (book) => {
  const reader = messageReader(messageBooks[book]);

  test("comes back from its units as it was, through tables too", () => {
    fc.assert(
      fc.property(messages(book), fc.constantFrom("en", "pl", "ar", "ja"), (nodes, locale) => {
        const source = reader.read(reader.print(nodes), locale);
        const units = messageUnits(source.nodes, source.nodes, locale, reader);
        if (!units) return false;
        const texts = units.units.map((one) => readInlineText(inlineText(one.target ?? one.source)) ?? []);
        const back = units.compose(texts) ?? [];
        const again = messageUnits(
          source.nodes,
          reader.read(reader.print(back), locale).nodes,
          locale,
          reader,
        );
        return again?.units.every((one, index) => sameInlines(one.target ?? [], texts[index] ?? [])) === true;
      }),
      { numRuns: 300 },
    );
  });

  test("takes any words for its texts, and gives them back", () => {
    fc.assert(
      fc.property(messages(book), fc.array(words, { minLength: 24, maxLength: 24 }), (nodes, said) => {
        const source = reader.read(reader.print(nodes), "en");
        const units = messageUnits(source.nodes, undefined, "pl", reader);
        if (!units) return false;
        // Words before the codes that the source has.
        const texts = units.units.map((one, index): readonly Inline[] => [
          { kind: "text", value: `${said[index] ?? ""} ` },
          ...one.source,
        ]);
        const back = units.compose(texts);
        if (!back) return false;
        const read = messageUnits(source.nodes, reader.read(reader.print(back), "pl").nodes, "pl", reader);
        return (
          read?.units.every(
            ({ target = [] }, index) =>
              sameInlines(target, texts[index] ?? []) &&
              codesIn(target).length === codesIn(texts[index] ?? []).length,
          ) === true && flatForm(back) !== ""
        );
      }),
      { numRuns: 300 },
    );
  });
});

test("the text of a table has its own braces and angles behind a backslash", () => {
  const inlines: readonly Inline[] = [
    { kind: "text", value: "a {b} <c> \\ " },
    { kind: "pair", id: "b", children: [{ kind: "code", id: "n" }] },
  ];
  expect(inlineText(inlines)).toBe("a \\{b\\} \\<c\\> \\\\ <b>{n}</b>");
  expect(readInlineText(inlineText(inlines))).toEqual(inlines);
  for (const torn of ["{a", "<b>x", "x</b>", "<a><b></a></b>", "a > b"])
    expect(readInlineText(torn)).toBeUndefined();
});
