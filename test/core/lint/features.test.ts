import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { lintExample } from "../../../src/core/lint/example.js";
import { features, TextLook, type Feature } from "../../../src/core/lint/features.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import type { Rule } from "../../../src/core/lint/rule.js";
import { haveSameParts, messageFeatures } from "../../../src/core/lint/message-features.js";
import { messageReader } from "../../../src/core/message/parse.js";
import { TreeMessage } from "../../../src/core/message/read-message.js";

const blind: readonly Rule[] = rules.map((rule): Rule => {
  const all: Rule & { looksAt?: unknown } = { ...rule };
  delete all.looksAt;
  return all;
});

/** Parts that rules have something to say about, put together at random. */
const part = fc.constantFrom(
  ..."boat Boat the The THE TODO XXX lorem ipsum Lorem-Ipsum [!! page.title www.quay.example help@quay.example https://a.b/c".split(
    " ",
  ),
  ..."{name} {n} {n,number} {{x}} %s %{a} ${b} <b>x</b> <b> </b> <br/> '' ' '{name}' \" “ ” « » ? ! ; : … ... . 。 ؟ # 12 ١٢ 3.5".split(
    " ",
  ),
  ..."é Ã© â€™ \ufffd a\u0308 ﬁ Ω лодка лoдка ναυς קו 船 ボート เรือ \u2068 \u2069 \u200f \u0007 😀 ⟦one⟧ --- ### ??? don't".split(
    " ",
  ),
  "",
  "\n",
  " ",
  "{n, plural, one {# boat} other {# boats}}",
  "{n, plural, one {1 boat} few {x} other {# boats?}}",
  "{kind, select, a {A.} other {B}}",
  "{n, plural, offset:1 one {# boat} other {# boats}}",
  "{n, plural, =1 {A boat} one {# boat} few {# x} many {# y} other {# boats}}",
  "{n, selectordinal, one {#st} two {#nd} few {#rd} other {#th}}",
  "javascript: alert(1)",
  "<iframe>x</iframe>",
  "<a href='javascript:x'>y</a>",
  "src=data:text/html",
  "<img onerror=x>",
);
const text = fc
  .array(fc.tuple(part, fc.constantFrom(" ", " ", " ", "", "  ")), { maxLength: 6 })
  .map((parts) =>
    parts
      .map(([one, gap]) => one + gap)
      .join("")
      .replace(/ $/, ""),
  );

/** The same parts, in choices and tags as well. */
const nested = fc
  .tuple(text, text, text, fc.integer({ min: 0, max: 5 }))
  .map(
    ([before, one, other, kind]) =>
      [
        `${before}${one}${other}`,
        `{n, plural, one {${one} #} other {# ${other}}}`,
        `${before} {k, select, a {${one}} other {${other}}}`,
        `<b>${one}</b> ${before}<c>${other}</c>`,
        `{n, plural, one {${one} {n}} few {#} many {#} other {${other} <b>#</b>}}${before}`,
        `{k, select, a {{n, plural, one {#} other {# ${one}}}} other {${other}}}`,
      ][kind] ?? before,
  );

describe("what a walk over a text finds", () => {
  test("leaves out no rule that has something to say", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("de", "fr", "ru", "ja", "ar", "th", "el", "pl", "zh", "en-GB"),
        text,
        text,
        (locale, source, target) => {
          const example = { locale, source: { "page.title": source }, target: { "page.title": target } };
          expect(lintExample(example, rules)).toEqual(lintExample(example, blind));
        },
      ),
      { numRuns: 2500, seed: 5 },
    );
  });

  test("finds in the parts of a message what is in its tree", () => {
    const reader = messageReader("icu");
    const look = new TextLook(reader.signs);
    fc.assert(
      fc.property(fc.constantFrom("de", "ru", "ja", "ar", "en-GB"), nested, (locale, written) => {
        const message = reader.readOnce(written);
        const tree = message.isPlain ? message : new TreeMessage(message);
        const ofText = look.of(written);
        expect([written, messageFeatures(message, locale, ofText)]).toEqual([
          written,
          messageFeatures(tree, locale, ofText),
        ]);
      }),
      { numRuns: 4000, seed: 5 },
    );
  });

  test("takes two messages for the same only where their trees are", () => {
    const reader = messageReader("icu");
    let same = 0;
    fc.assert(
      fc.property(nested, nested, fc.boolean(), (written, different, isAlike) => {
        const one = reader.readOnce(written);
        // Other words, and the same arguments and tags in most cases.
        const other = reader.readOnce(isAlike ? written.replace(/boats?/g, "Boot") : different);
        if (!haveSameParts(one, other)) return;
        same++;
        const trees = [one, other].map((message) => (message.isPlain ? message : new TreeMessage(message)));
        expect(haveSameParts(trees[0] ?? one, trees[1] ?? other)).toBe(true);
      }),
      { numRuns: 4000, seed: 5 },
    );
    expect(same).toBeGreaterThan(500);
  });

  test("gives up on choices that stand deep in choices", () => {
    const reader = messageReader("icu");
    const deep = (words: string) =>
      Array.from({ length: 60 }).reduce<string>(
        (inside, _, level) =>
          `{a${level}, select, x {${inside}} other {${inside.length > 200 ? "" : inside}}}`,
        words,
      );
    const [one, other] = [reader.readOnce(deep("boat")), reader.readOnce(deep("Boot"))];
    expect(haveSameParts(one, other)).toBe(false);
    expect(haveSameParts(new TreeMessage(one), new TreeMessage(other))).toBe(false);
  });

  test.each<[string, readonly Feature[], readonly Feature[]]>([
    ["Choose a sailing", [], ["ending", "space", "digits", "repeat", "marker", "arguments"]],
    ["Choose a sailing.", ["ending"], ["address"]],
    ["see quay.example", ["address"], ["ending"]],
    [" lead", ["space"], ["blank"]],
    ["two  spaces", ["space"], []],
    ["  ", ["blank", "space"], []],
    ["", ["blank"], ["space"]],
    ["the The boat", ["repeat"], []],
    ["the boat the", [], ["repeat"]],
    ["ÉCole école", ["repeat"], []],
    ["the theory", [], ["repeat"]],
    ["TODO this", ["marker"], []],
    ["home.title", ["marker"], []],
    ["{n, plural, other {#}}", ["arguments", "plurals", "unevenPlural"], ["selects", "braces", "ending"]],
    ["{n, plural, one {# boat} other {# boats}}", ["plurals"], ["unevenPlural"]],
    ["{n, plural, one {# boat} other {# boats.}}", ["plurals", "ending"], ["unevenPlural"]],
    ["{n, plural, one {A boat} other {# boats}}", ["unevenPlural"], []],
    ["{n, plural, one {# boat} few {# boats} other {# boats}}", ["unevenPlural"], []],
    ["{n, plural, one {# boat} =0 {# boats}}", ["unevenPlural"], []],
    ["{n, plural, offset:1 one {# boat} other {# boats}}", ["unevenPlural"], []],
    ["at {n, plural, one {# boat} other {# boats}}", ["unevenPlural"], []],
    ["'{'x} {y}", ["braces"], []],
    ["100 %", ["signs", "ending"], ["braces"]],
    ["<script>x</script>", ["markup"], []],
    ["<a href='x'>y</a>", ["markup"], []],
    ["a < b {x}", ["markup"], []],
    ["JavaScript : x", ["markup"], []],
    ["Name: x", [], ["markup"]],
    ["{k, select, other {x}}", ["arguments", "selects"], ["plurals"]],
    ["a <b>c</b>", ["tags"], ["markup", "ending"]],
    ["it''s '{x}'", ["quoted"], ["arguments"]],
    ["{", ["problems"], []],
    ["a\u0308", ["composed"], ["script"]],
    ["лодка", ["script"], ["composed", "ending"]],
    ["MÃ¼nchen", ["decoded"], []],
    ["a\u0007b", ["control"], []],
    ["١٢", ["digits"], []],
  ])("%j", (written, there, absent) => {
    const reader = messageReader("icu");
    const found = messageFeatures(reader.read(written), "en", new TextLook(reader.signs).of(written));
    const has = (name: Feature) => (found & features[name]) !== 0;
    expect(there.filter((name) => !has(name))).toEqual([]);
    expect(absent.filter(has)).toEqual([]);
  });
});
