import { piecesOf } from "../../pieces.js";
import { defineRule } from "../../rule.js";

/** How many of a sign a text has. */
function count(text: string, signs: RegExp): number {
  return text.match(signs)?.length ?? 0;
}

/** The quotation mark without its partner; undefined where there is none. */
function unpaired(whole: string): string | undefined {
  // A mark that stands in brackets is what the text is about.
  const text = whole.replace(/[(（]["«»„「」『』][)）]|\[[^\p{L}[\]]{0,40}\]/gu, "");
  // Inches stand behind a number, and Hebrew writes abbreviations with it inside of a word.
  if (count(text, /(?<![\d″])"(?!(?<=\p{L}")\p{L})/gu) % 2 === 1 && count(text, /"/g) % 2 === 1) return '"';
  if (count(text, /«/g) !== count(text, /»/g)) return text.includes("«") ? "«" : "»";
  // What opens low is closed by one of several high ones.
  if (count(text, /„/g) > count(text, /[“”"»„](?<!„)/g)) return "„";
  if (count(text, /「/g) !== count(text, /」/g)) return text.includes("「") ? "「" : "」";
  if (count(text, /『/g) !== count(text, /』/g)) return text.includes("『") ? "『" : "』";
  return undefined;
}

export const textQuote = defineRule({
  id: "text/quote",
  level: "warning",
  summary: "Quotation mark without its partner.",
  why: "A part of the sentence was lost, or the mark was. Single quotation marks are not looked at, since apostrophes are written like them; neither are texts whose source lacks a partner, too, and those whose partner stands in another piece of the sentence (`late_1`, `late_2`).",
  looks: "beside",
  messages: {
    open: {
      message: "quotation mark {mark} without its partner",
      remedy: "add the other one, or remove this one",
    },
  },
  examples: {
    bad: [
      { source: 'The boat "Ines" leaves', target: "Das Boot „Ines fährt ab" },
      { locale: "fr", source: 'The boat "Ines" leaves', target: "Le bateau « Ines part" },
      { source: 'The boat "Ines" leaves', target: 'Das Boot "Ines fährt ab' },
    ],
    good: [
      { source: 'The boat "Ines" leaves', target: "Das Boot „Ines“ fährt ab" },
      { source: "Separated by double quotes", target: 'Getrennt durch Anführungszeichen (")' },
      { source: 'A 12" screen', target: 'Ein 12"-Bildschirm' },
      { locale: "he", source: "By mail", target: 'בדוא"ל' },
      { locale: "da", source: "The “boat”", target: "»Båden«" },
    ],
  },
  needs: ["marks", "extra"],
  pair(target, source) {
    const { text } = target.message.facts;
    if (!/["«»„「」『』]/.test(text)) return;
    const mark = unpaired(text);
    if (mark === undefined || unpaired(source.message.facts.text) !== undefined) return;
    // Another piece of the sentence has the partner.
    const whole = piecesOf(target.catalog, target.entry.key).map(({ text: one }) => one);
    if (whole.length > 1 && unpaired(whole.join(" ")) === undefined) return;
    target.report("open", { mark });
  },
});
