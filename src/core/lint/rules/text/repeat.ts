import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Languages that form words by saying them twice. */
const doubling = new Set(
  "id ms jv su tl fil mi haw sm to th lo km vi zh ja ko hi bn ta te ml kn mr gu tr az ka hu sw zu xh af mg tpi my".split(
    " ",
  ),
);

/** Words that stand twice in correct sentences. */
const twice = new Set(
  "die der das den dem had that is nous vous que se si sie wir ihr her het dat bli no non sa la le ja ha så för blah bye knock win so more far many very ha cha nej nein yes tut".split(
    " ",
  ),
);

const doubled = /(?<![\p{L}\p{M}\p{N}'’-])([\p{L}\p{M}]{2,}) (\1)(?![\p{L}\p{M}\p{N}'’-])/iu;

export const textRepeat = defineRule({
  id: "text/repeat",
  level: "info",
  summary: "A word twice in a row.",
  why: "It is a slip of editing. Words that correct sentences have twice (`die die`, `nous nous`, `had had`), languages that double words on purpose, and what the source doubles too are let pass.",
  examples: {
    bad: [{ source: "Choose a boat", target: "Wählen Sie ein ein Boot" }],
    good: [
      { source: "The boats that are late", target: "Die Boote, die die Abfahrt verpassen" },
      { source: "Bye bye, boat", target: "Tschüss tschüss, Boot" },
    ],
  },
  looksAt: ["repeat"],
  entry(context, { catalog, entry, message, locale }) {
    if (doubling.has(languageOf(locale))) return;
    const isSource = locale === context.book.sourceLocale;
    for (const node of textNodesIn(message.nodes)) {
      const found = doubled.exec(node.value);
      if (!found || twice.has((found[1] ?? "").toLowerCase())) continue;
      const source = isSource ? undefined : context.sourceOf(catalog, entry.key);
      if (source && doubled.test(source.message.facts.text)) return;
      const span = spanInText(node, found.index, found[0].length);
      context.report(
        catalog,
        { at: "message", entry, ...(span && { span }) },
        { message: `“${found[1] ?? ""}” is there twice in a row`, remedy: "remove one of the two" },
      );
      return;
    }
  },
});
