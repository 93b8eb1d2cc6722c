import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Languages that form words by saying them twice. */
const doubling = new Set(
  "jbo id ms jv su tl fil mi haw sm to th lo km vi zh ja ko hi bn ta te ml kn mr gu tr az kk ky uz tk tt mn ka hu sw zu xh af mg tpi my".split(
    " ",
  ),
);

/** Words that stand twice in correct sentences. */
const twice = new Set(
  "die der das den dem had that is nous vous que se si sie wir ihr je her het dat bli no non sa la le ja ha så för blah bye knock win so more far many very ha cha nej nein yes tut".split(
    " ",
  ),
);

const norwegian: ReadonlySet<string> = new Set("av inn med om opp på til ut".split(" "));

/** Small words that end one part of a sentence and begin the next: `Voeg {name} toe aan aan`, `lägga till till`; and words said twice. */
const twiceIn: Readonly<Record<string, ReadonlySet<string>>> = {
  nl: new Set("aan af door in mee om op over toe uit".split(" ")),
  sv: new Set("av från i in med om på till upp ut".split(" ")),
  da: new Set("af ind med om op på til ud".split(" ")),
  nb: norwegian,
  nn: norwegian,
  no: norwegian,
  it: new Set("man passo pian piano poco via".split(" ")),
};

/** Verbs of English whose small word may stand before the same one: `log in in order to`. */
const endsVerb =
  /\b(?:log|sign|check|opt|join|fill|type|plug|zoom|key|phone|clock|turn|switch|come|go|move|carry|hold)(?:g?ed|g?ing|s)? (?:in|on|up) $/i;

/** Words as they are told apart here: what is joined by an apostrophe or hyphen, or has a digit, is one. */
const word = /[\p{L}\p{M}\p{N}'’-]+/gu;
const lettersOnly = /^[\p{L}\p{M}]{2,}$/u;

/** The first word that stands twice in a row, with one space between; where the first of the two is. */
function doubledWord(
  text: string,
): { readonly first: string; readonly index: number; readonly length: number } | undefined {
  let first = "";
  let end = -2;
  word.lastIndex = 0;
  for (let found = word.exec(text); found; found = word.exec(text)) {
    const { index } = found;
    if (
      index === end + 1 &&
      text.charCodeAt(end) === 0x20 &&
      found[0].toLowerCase() === first.toLowerCase() &&
      lettersOnly.test(first)
    )
      return { first, index: end - first.length, length: word.lastIndex - end + first.length };
    first = found[0];
    end = word.lastIndex;
  }
  return undefined;
}

/** Whether both words have a capital, inside of a sentence or as all there is. */
function isNameInside(text: string, { index, length }: { readonly index: number; readonly length: number }) {
  return (
    /^\p{Lu}\p{Ll}+ \p{Lu}\p{Ll}+$/u.test(text.slice(index, index + length)) &&
    (/[\p{Ll}\d,] $/u.test(text.slice(0, index)) || length === text.length)
  );
}

export const textRepeat = defineRule({
  id: "text/repeat",
  level: "info",
  summary: "Repeated word.",
  why: "It is probably an editing mistake. Words that repeat in correct sentences (`die die`, `nous nous`, `had had`), languages that double words on purpose, names in the source, and repetitions in the source are not reported.",
  messages: {
    repeated: { message: 'repeated word "{word}"', remedy: "remove one of the two" },
  },
  examples: {
    bad: [{ source: "Choose a boat", target: "Wählen Sie ein ein Boot" }],
    good: [
      { source: "The boats that are late", target: "Die Boote, die die Abfahrt verpassen" },
      { source: "Log in in order to see boats", target: "Melden Sie sich an, um Boote zu sehen" },
      { source: "Bye bye, boat", target: "Tschüss tschüss, Boot" },
    ],
  },
  needs: ["repeat"],
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    if (doubling.has(languageOf(locale))) return;
    const isSource = locale === context.book.sourceLocale;
    for (const node of textNodesIn(message.nodes)) {
      const found = doubledWord(node.value);
      if (!found || twice.has(found.first.toLowerCase())) continue;
      if (twiceIn[languageOf(locale)]?.has(found.first.toLowerCase())) continue;
      if (
        languageOf(locale) === "en" &&
        endsVerb.test(node.value.slice(0, found.index + found.first.length + 1))
      )
        continue;
      // A name that is said so: `Tonga Tonga Lines`. German has a capital on each noun.
      if (isSource && languageOf(locale) !== "de" && isNameInside(node.value, found)) return;
      const source = isSource ? undefined : context.sourceOf(catalog, entry.key);
      if (source && doubledWord(source.message.facts.text)) return;
      const span = spanInText(node, found.index, found.length);
      view.report("repeated", { word: found.first }, { span });
      return;
    }
  },
});
