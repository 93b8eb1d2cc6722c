import { features } from "../../features.js";
import { defineRule } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

/** Languages whose texts are much shorter in characters than in English, or end no sentence with a sign. */
const dense = new Set("zh ja ko th lo km my bo dz yue".split(" "));

/** How many sentences a text has, by what ends them, a value or a blank before it or not; abbreviations and numbers with points are none. */
function sentences(text: string): number {
  // Georgian has no capitals in sentences.
  const ends = [
    ...text.matchAll(
      /[\p{Ll}\p{Lo}\p{M}\d)"”’»%}\s][.!?…]+(?=\s+["“„«¿¡(]?[\p{Lu}\p{Lo}\p{Script=Georgian}]|\s*$)|[。！？।؟۔]/gu,
    ),
  ];
  const last = ends.at(-1);
  // The last one may lack its mark.
  const isOpen = last && /\p{L}{2}/u.test(text.slice(last.index + last[0].length));
  return ends.length + (isOpen ? 1 : 0);
}

/** How many signs a text has that part clauses. */
function joints(text: string): number {
  return text.match(/[,;:،؛，；：、]|\s[–—-]\s/g)?.length ?? 0;
}

const picture = /\p{Extended_Pictographic}(?<![\d#*©®™↔-↪Ⓜ〰〽㊗㊙])/u;

export const textLost = defineRule({
  id: "text/lost",
  level: "warning",
  summary: "Part of the source that the translation does not have: a sentence, line breaks, a picture sign.",
  why: "The source grew, and the translation did not; or a tool joined the lines. A sentence is missed only where the translation has fewer of them and is little more than half as long, and no comma or dash stands where one ended, so that two sentences may become one. Picture signs, and a single line break, are for information.",
  messages: {
    sentence: {
      message: "{count, plural, one {# sentence} other {# sentences}}; the source has {source, number}",
      remedy: "translate the rest of the source as well",
    },
    lines: {
      message: "no line break; the source has {source, number}",
      remedy: "break the lines where the source does",
    },
    picture: {
      message: 'no "{picture}", which the source has',
      remedy: "add it, if it fits in this language",
    },
  },
  examples: {
    bad: [
      {
        source: "The boat is late. Please wait at the quay until it comes.",
        target: "Das Boot ist verspätet.",
      },
      { source: "Boats\nFerries\nTickets", target: "Boote Fähren Karten" },
      { source: "All is saved 🎉", target: "Alles ist gespeichert" },
    ],
    good: [
      { source: "The boat is late. Please wait.", target: "Das Boot ist verspätet, bitte warten Sie." },
      {
        locale: "pl",
        source: "The file is already there. Do you want to replace it?",
        target: "Plik istnieje, zamienić?",
      },
      { source: "Boats\nFerries", target: "Boote\nFähren" },
    ],
  },
  pair(target, source) {
    const from = source.entry.text;
    const { text } = target.entry;
    if (text === "") return;
    if (from.includes("\n") && !text.includes("\n")) {
      // How the file itself breaks a long text, and a break at its end, is nothing that users see.
      const breaks = from.trim().match(/\S[ \t]*\n\s*\S/g)?.length ?? 0;
      if (breaks > 0 && !/<br|<p>|\\n/.test(text))
        target.report("lines", { source: breaks }, { severity: breaks > 1 ? undefined : "info" });
    }
    // All but a few of these signs are pairs of code units.
    const [lost] = (source.features & features.composed) !== 0 ? (picture.exec(from) ?? []) : [];
    if (lost !== undefined && !picture.test(text))
      target.report("picture", { picture: lost }, { severity: "info" });
    if (from.length < 40 || text.length > from.length * 0.66 || dense.has(languageOf(target.locale))) return;
    const wanted = sentences(source.message.facts.text);
    const count = wanted > 1 ? sentences(target.message.facts.text) : wanted;
    // Where a sentence ended, two may be joined: "It is there, replace it?"
    const joined = joints(target.message.facts.text) - joints(source.message.facts.text);
    if (wanted > 1 && count < wanted && joined < wanted - count)
      target.report("sentence", { count: Math.max(count, 1), source: wanted });
  },
});
