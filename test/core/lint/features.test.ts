import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { lintExample } from "../../../src/core/lint/example.js";
import { features, TextScanner, type Feature } from "../../../src/core/lint/features.js";
import { rules } from "../../../src/core/lint/rules/index.js";
import type { Rule } from "../../../src/core/lint/rule.js";
import { haveSameParts, messageFeatures } from "../../../src/core/lint/message-features.js";
import { messageReader } from "../../../src/core/message/parse.js";

/** A rule that is shown every message, whatever it says it needs. */
function ungated(rule: Rule): Rule {
  const copy: { -readonly [Name in keyof Rule]: Rule[Name] } = { ...rule };
  delete copy.needs;
  return copy;
}

const allUngated = rules.map(ungated);
const gated = rules.filter(({ needs }) => needs !== undefined);

/** Parts that rules have something to say about, put together at random. */
const part = fc.constantFrom(
  ..."boat Boat the The THE TODO XXX lorem ipsum Lorem-Ipsum [!! page.title www.quay.example help@quay.example https://a.b/c".split(
    " ",
  ),
  ..."{name} {n} {n,number} {{x}} %s %{a} ${b} <b>x</b> <b> </b> <br/> '' ' '{name}' \" “ ” « » ? ! ; : … ... . 。 ؟ # 12 ١٢ 3.5".split(
    " ",
  ),
  ..."é Ã© â€™ \ufffd a\u0308 ﬁ Ω лодка лoдка ναυς קו 船 ボート เรือ \u2068 \u2069 \u200f \u0007 😀 \ufdd0one\ufdd1 --- ### ??? don't".split(
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
  "\\n",
  "&amp;amp;",
);
const text = fc
  .array(fc.tuple(part, fc.constantFrom(" ", " ", " ", "", "  ")), { maxLength: 6 })
  .map((parts) =>
    parts
      .map(([one, gap]) => one + gap)
      .join("")
      .replace(/ $/, ""),
  );

/** A rule's own examples, in the ways in which texts differ: cut, put together, in other letters, in another locale. */
const variants = (rule: Rule) => {
  const examples = [...rule.examples.bad, ...rule.examples.good].filter(
    ({ source, target, raw }) => typeof source === "string" && typeof target === "string" && !raw,
  );
  const texts = examples.flatMap(({ source, target }) => [source as string, target as string]);
  if (texts.length === 0) return undefined;
  const own = fc.constantFrom(...texts);
  const changed = fc
    .tuple(own, own, fc.nat(), fc.integer({ min: 0, max: 6 }), part)
    .map(([one, other, at, kind, more]) => {
      const place = at % (one.length + 1);
      return [
        one,
        one.slice(0, place),
        one.slice(place),
        `${one} ${other}`,
        one.toUpperCase(),
        `${one}${more}`,
        other.toLowerCase(),
      ][kind] as string;
    });
  return fc.tuple(fc.constantFrom("de", "ru", "pl", "ja", "ar", "fr"), changed, changed);
};

test("a rule that looks around says what it needs: without, every entry would be shown to it after each change", () => {
  const around = rules.filter(({ looks }) => looks === "around");
  expect(around.length).toBeGreaterThan(3);
  for (const rule of around) expect(rule.needs ?? [rule.id]).not.toEqual([rule.id]);
});

describe("what a walk over a text finds", () => {
  test("leaves out no rule that has something to say", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("de", "fr", "ru", "ja", "ar", "th", "el", "pl", "zh", "en-GB"),
        text,
        text,
        (locale, source, target) => {
          const example = { locale, source: { "page.title": source }, target: { "page.title": target } };
          expect(lintExample(example, rules)).toEqual(lintExample(example, allUngated));
        },
      ),
      { numRuns: 1200, seed: 5 },
    );
  });

  test.each(gated.map((rule) => [rule.id, rule] as const))("keeps nothing of its own from %s", (_, rule) => {
    const generated = variants(rule);
    if (!generated) return;
    fc.assert(
      fc.property(generated, ([locale, source, target]) => {
        const example = { locale, source, target };
        expect(lintExample(example, [rule])).toEqual(lintExample(example, [ungated(rule)]));
      }),
      { numRuns: 80, seed: 7 },
    );
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
    const found = messageFeatures(reader.read(written), "en", new TextScanner(reader.signs).of(written));
    const has = (name: Feature) => (found & features[name]) !== 0;
    expect(there.filter((name) => !has(name))).toEqual([]);
    expect(absent.filter(has)).toEqual([]);
  });
});
