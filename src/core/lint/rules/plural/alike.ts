import type { MessageNode } from "../../../message/model.js";
import { languageName } from "../../plural-words.js";
import { defineRule } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

/** Languages in which a noun behind 2 and one behind 5 differ. */
const inflecting = new Set(["pl", "ru", "uk", "be"]);

/** Nouns whose forms for 2 and for 5 are the same. */
const invariable =
  /(?<!\p{L})(?:dni|kg|km|cm|mm|мм|см|км|кг|GB|MB|ГБ|МБ|min|sek|godz|мин|сек|ч|руб|грн|шт)(?!\p{L})/u;

function textOf(nodes: readonly MessageNode[]): string {
  return nodes
    .map((node) =>
      node.kind === "text"
        ? node.value
        : node.kind === "tag"
          ? textOf(node.children)
          : node.kind === "argument"
            ? `{${node.name}}`
            : "#",
    )
    .join("");
}

export const pluralAlike = defineRule({
  id: "plural/alike",
  level: "info",
  summary: "The forms for 2 and for 5 are the same where the noun behind the number has two.",
  why: "In Polish, Russian, Ukrainian and Belarusian a noun changes from `few` to `many`: 2 łodzie, 5 łodzi. Reported where `one` differs, so that the noun is one that changes, and where the number begins the text: behind “less than” or “from” the two are the same. Words that have one form for both are known, but for names of persons in Polish (2 pasażerów), which is why it is for information.",
  messages: {
    alike: {
      message: "few and many are the same; in {language} a noun behind 2 and one behind 5 differ",
      remedy: "write the noun of each as it follows its number",
    },
  },
  examples: {
    bad: [
      {
        locale: "pl",
        source: "{n, plural, one {# boat} other {# boats}}",
        target: "{n, plural, one {# łódź} few {# łodzi} many {# łodzi} other {# łodzi}}",
      },
    ],
    good: [
      {
        locale: "pl",
        source: "{n, plural, one {# boat} other {# boats}}",
        target: "{n, plural, one {# łódź} few {# łodzie} many {# łodzi} other {# łodzi}}",
      },
      {
        locale: "pl",
        source: "{n, plural, one {# day} other {# days}}",
        target: "{n, plural, one {# dzień} few {# dni} many {# dni} other {# dni}}",
      },
    ],
  },
  needs: ["plurals"],
  entry(view) {
    const { message, locale } = view;
    if (!inflecting.has(languageOf(locale))) return;
    for (const { branches, pluralKind } of message.facts.plurals) {
      if (pluralKind !== "cardinal") continue;
      const [one, few, many] = ["one", "few", "many"].map((wanted) =>
        branches.find(({ selector }) => selector === wanted),
      );
      if (!one || !few || !many) continue;
      const [first, second, third] = [one, few, many].map(({ nodes }) => textOf(nodes).trim());
      if (second === undefined || second !== third || first === second) continue;
      // Behind a preposition, a verb or a comparison the two are the same, and words that end in -o are no nouns.
      if (!/^(?:#|\{\w+\})\s+\p{L}{3,}/u.test(second) || invariable.test(second)) continue;
      // So have feminine nouns of Polish that end in -ść, and some others: 2 wartości, 5 wartości.
      if (
        /^(?:#|\{\w+\})\s+\p{L}*(?:ści|rzeczy|myszy|twarzy|odpowiedzi|sieci|pamięci)(?!\p{L})/u.test(second)
      )
        continue;
      // Persons and words that are formed as adjectives are have one form for both.
      if (/^(?:#|\{\w+\})\s+\p{L}*(?:[oо]|[yi]ch|[ыи]х)(?!\p{L})/u.test(second)) continue;
      view.report("alike", { language: languageName(locale) }, { span: many.span });
    }
  },
});
