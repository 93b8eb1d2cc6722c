import { describe, expect, test } from "@jest/globals";
import { inlineText, readInlineText, type Inline } from "../../../src/core/exchange/inline.js";
import { TranslationMemory } from "../../../src/core/exchange/memory.js";
import {
  readServiceText,
  serviceText,
  withNumber,
  withoutNumber,
} from "../../../src/core/exchange/service.js";

const inlines = (text: string): readonly Inline[] => readInlineText(text) ?? [];

function memory(...pairs: readonly (readonly [source: string, target: string, form?: string])[]) {
  const all = new TranslationMemory();
  for (const [source, target, form = ""] of pairs)
    all.add({ source: inlines(source), target: inlines(target), form, from: "somewhere" });
  return (text: string, form = "", least = 0.7) => {
    const found = all.find(inlines(text), form, least);
    return found && ([inlineText(found.target), Math.round(found.likeness * 100)] as const);
  };
}

describe("a memory", () => {
  test("gives the same text's translation, whatever its values are called", () => {
    const find = memory(["Take {n} on <b>{boat}</b>", "<b>{boat}</b> mit {n} nehmen"]);
    expect(find("Take {count} on <i>{ship}</i>")).toEqual(["<i>{ship}</i> mit {count} nehmen", 100]);
    // One value for two places is another text.
    expect(find("Take {n} on <b>{n}</b>", "", 1)).toBeUndefined();
  });

  test("gives the nearest of several, and none that is too far", () => {
    const find = memory(
      ["Print the list of boats", "Bootsliste drucken"],
      ["Print the list of berths", "Liste der Liegeplätze drucken"],
    );
    expect(find("Print the list of boats!")).toEqual(["Bootsliste drucken", 96]);
    expect(find("Print a ticket")).toBeUndefined();
    expect(find("Print the list of boats!", "", 1)).toBeUndefined();
  });

  test("keeps plural forms apart", () => {
    const find = memory(
      ["{n} boats", "{n} statki", "plural few"],
      ["{n} boats", "{n} statków", "plural many"],
    );
    expect(find("{n} boats", "plural many")).toEqual(["{n} statków", 100]);
    expect(find("{n} boats", "plural other")).toBeUndefined();
  });

  test("never loses or invents a code", () => {
    const find = memory(["Take {n} seats", "{n} Plätze nehmen"]);
    expect(find("Take the seats")).toBeUndefined();
    expect(find("Take {n} seats {x}", "", 0.5)).toBeUndefined();
  });
});

describe("texts for a service", () => {
  test("come back as they went, and strange ones are refused", () => {
    const text = inlines('a & b \\<c\\> <b>{n} "x"</b>{n}');
    expect(serviceText(text)).toBe('a &amp; b &lt;c&gt; <g id="b"><x id="n"/> &quot;x&quot;</g><x id="n"/>');
    expect(readServiceText(serviceText(text))).toEqual(text);
    for (const broken of ["<g id='b'>", "<b>x</b>", "a & b", "<x/>", "<!DOCTYPE t>"])
      expect(readServiceText(broken)).toBeUndefined();
  });

  test("have a number for the count, which is found again in its own writing", () => {
    const asked = withNumber(inlines("<b>{n}</b> seats, {n} left of 33"), "n", "3");
    expect(inlineText(asked)).toBe("<b>3</b> seats, 3 left of 33");
    const back = withoutNumber(inlines("<b>٣</b> mit 3 von 33 und 3,5"), "n", ["3", "٣"], 2);
    expect(back && inlineText(back)).toBe("<b>{n}</b> mit {n} von 33 und 3,5");
    expect(withoutNumber(inlines("three seats"), "n", ["3"], 1)).toBeUndefined();
  });
});
