import { pluralRules } from "../../locale/plural-rules.js";
import { delimitedParts } from "../../text/delimited.js";
import type { Span } from "../../text/span.js";
import type { ChoicePiece } from "../model.js";
import { nameFromCode } from "./expression-names.js";

/** Words of English whose plural is one of a kind, or none: no rule makes it. */
const irregular =
  /(?:person|people|child|children|m[ae]n|foot|feet|tooth|teeth|goose|mouse|louse|ox|quiz|sex|move|equipment|information|rice|money|species|series|fish|sheep|jeans|police|news|data)$/i;

/** The plural of a word or phrase of English, where a rule makes it in the same way for everybody; undefined for other words. */
function pluralOf(words: string): string | undefined {
  if (!/[a-z]{2}$/.test(words) || irregular.test(words)) return undefined;
  if (/(?:ss|sh|ch)$/.test(words)) return `${words}es`;
  if (/[^aeiou]y$/.test(words)) return `${words.slice(0, -1)}ies`;
  // What ends so has several plurals: axes, octopi, halves, indices, potatoes, forums.
  return /(?:s|x|z|o|f|fe|um|ium|on|a)$/.test(words) ? undefined : `${words}s`;
}

/**
 * A number with its word, as a helper of the language puts both out, as the plural that it is: `pluralize(count, "boat")`. `calls`
 * are the names of such helpers: their number comes first, then the word for one, then the word for others where it is given.
 * Undefined for other code, and where only the helper knows the second word.
 */
export function countedWord(
  code: string,
  span: Span,
  calls: RegExp | undefined,
  unique: (wanted: string, code: string) => string,
  sourceLanguage: string | undefined,
): ChoicePiece | undefined {
  const [, name = "", list = ""] = /^([\w.]{1,80}?)(?:\(([^]*)\)|\s+([^]*))$/.exec(code.trim()) ?? [];
  const given = list === "" ? code.trim().slice(name.length) : list;
  if (calls?.test(name) !== true || sourceLanguage === undefined) return undefined;
  const [number, ...words] = delimitedParts(given).map((part) => part.trim());
  const [one, other] = words.map((word) => /^(?:plural:\s*)?(["'])([^"'\\#]*)\1$/.exec(word)?.[2]);
  const oneIsExact = pluralRules(sourceLanguage, "cardinal").onlyWholeNumber("one") === 1;
  if (number === undefined || one === undefined || words.length > 2 || !oneIsExact) return undefined;
  const rest = words.length === 2 ? other : /^en\b/.test(sourceLanguage) ? pluralOf(one) : undefined;
  if (rest === undefined) return undefined;
  const argument = unique(nameFromCode(number), number);
  const branch = (selector: string, word: string) => ({
    selector,
    pieces: [
      { kind: "argument", name: argument, code: number, span, mayBeAbsent: false } as const,
      { kind: "text", value: ` ${word}`, span } as const,
    ],
  });
  return {
    kind: "choice",
    choice: "plural",
    name: argument,
    code: number,
    value: number,
    span,
    branches: [branch("one", one), branch("other", rest)],
  };
}
