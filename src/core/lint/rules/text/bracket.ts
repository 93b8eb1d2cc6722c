import { defineRule } from "../../rule.js";

/** Signs that come in pairs in every language; quotation marks differ too much. */
const pairs: readonly (readonly [open: string, close: string])[] = [
  ["(", ")"],
  ["[", "]"],
  ["（", "）"],
  ["【", "】"],
];

/** How many signs of a pair have no partner: opening ones above zero, closing ones below. */
function unpaired(text: string, [open, close]: readonly [string, string]): number {
  let depth = 0;
  for (const unit of text) {
    if (unit === open) depth++;
    else if (unit === close) depth--;
  }
  return depth;
}

export const textBracket = defineRule({
  id: "text/bracket",
  level: "warning",
  summary: "Bracket without its partner.",
  why: "A part of the sentence was lost, or the bracket was. Texts whose source has such a bracket as well (`a)`, `:-)`) are not reported, and neither are languages that mix two kinds of brackets.",
  messages: {
    open: { message: '"{bracket}" without "{partner}"', remedy: 'add "{partner}" where the bracket ends' },
    close: { message: '"{bracket}" without "{partner}"', remedy: 'add "{partner}" where the bracket starts' },
  },
  examples: {
    bad: [
      { source: "Boats (late)", target: "Boote (verspätet" },
      { source: "Boats [late]", target: "Boote verspätet]" },
    ],
    good: [
      { source: "Boats (late)", target: "Boote (verspätet)" },
      { source: "a) Boats", target: "a) Boote" },
      { source: "Boats (Ctrl+=)", target: "Boote (Strg + =)" },
      { locale: "ja", source: "Boats (late)", target: "船（遅延)" },
    ],
  },
  pair(target, source) {
    // A word or number with a bracket behind it opens a list or an example.
    const whole = target.message.facts.text.replace(/^\s*[\p{L}\p{M}\p{N}]{1,4}[)）]/u, "");
    // A face is drawn with one, but the end of `(Ctrl + =)` is none.
    const text = pairs.every((pair) => unpaired(whole, pair) === 0)
      ? ""
      : whole.replace(/(?<!\S)[:;=]['-]?[()[\]]/g, "");
    if (!/[()[\]（）【】]/.test(text)) return;
    const from = source.message.facts.text;
    if (pairs.some((pair) => unpaired(from, pair) !== 0)) return;
    const found = pairs
      .map((pair) => ({ pair, depth: unpaired(text, pair) }))
      .filter(({ depth }) => depth !== 0);
    const [first] = found;
    // A wide bracket that a narrow one closes is a matter of taste.
    if (!first || found.reduce((sum, { depth }) => sum + depth, 0) === 0) return;
    const [open, close] = first.pair;
    if (first.depth > 0) target.report("open", { bracket: open, partner: close });
    else target.report("close", { bracket: close, partner: open });
  },
});
