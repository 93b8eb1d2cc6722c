import { languageOfTexts } from "../../locale/language-of-texts.js";
import { readableText, type SourceFile } from "../../source/model.js";
import { textLike } from "./declared-texts.js";
import type { FoundBook } from "./found-book.js";

/** The locale in which the largest book has the most keys; English where it has nearly as many, since extra keys gather in translations, or where its catalog cannot be read. */
export function chooseSource(
  book: FoundBook | undefined,
  code: readonly SourceFile[],
  grounds: string[],
): { readonly locale: string; readonly isSure: boolean } {
  const totals = book?.locales ?? new Map<string, number>();
  const inCode = languageByLetters(code);
  const own = [...totals.keys()].find((one) => languageOf(one) === languageOf(inCode?.locale ?? ""));
  const most = Math.max(0, ...totals.values());
  // Where a catalog has nearly all texts, what the code has left may be names and examples.
  if (inCode && (book === undefined || (own !== undefined && most * 5 <= inCode.texts))) {
    const locale = own ?? inCode.locale;
    grounds.push(
      `Source locale "${locale}": ${inCode.texts} texts in the code are in its letters. Change "source" if they are of another language.`,
    );
    return { locale, isSure: false };
  }
  if (book && hasTextsAsKeys(book) && ![...totals.keys()].some((locale) => /^en(?:-|$)/.test(locale))) {
    grounds.push(
      'Keys are texts in English, which no catalog holds: source locale "en". `fond extract --collect` writes its catalog.',
    );
    return { locale: "en", isSure: true };
  }
  const rank = (locale: string) => (locale === "en" ? 0 : locale.startsWith("en-") ? 1 : 2);
  const [first, ...others] = [...totals]
    // Translations keep keys that the source has given up; most products are written in English.
    .filter(([locale, count]) => {
      const isEnglish = rank(locale) < 2;
      return count >= most * (isEnglish ? 0.6 : 0.9) || (isEnglish && book?.unread.has(locale));
    })
    .sort(([a, x], [b, y]) => rank(a) - rank(b) || y - x || (a < b ? -1 : 1));
  const best = first && book ? (fallbackOf(book, first[0]) ?? first) : first;
  // A catalog that cannot be read may be the one with the most keys.
  if (!best) {
    const spoken = book === undefined ? languageByWords(code) : undefined;
    if (spoken === undefined || spoken === "en") return { locale: "en", isSure: code.length === 0 };
    grounds.push(
      `Source locale "${spoken}": the texts in the code have its common words. Change "source" if they are of another language.`,
    );
    return { locale: spoken, isSure: false };
  }
  const isSure = (others.length === 0 && !book?.unread.size) || rank(best[0]) < 2;
  const isUnread = book?.unread.has(best[0]) ?? false;
  grounds.push(
    `Source locale "${best[0]}", with ${keysOf(best[1])}${isUnread ? " that can be read" : ""}. Change "source" if the texts are written in another locale.`,
  );
  return { locale: best[0], isSure };
}

/**
 * The locale of the file without one in its name, where it is in the same language and has no fewer keys: programs take from there
 * what the file of the language does not have.
 */
function fallbackOf(
  { spelling, locales }: FoundBook,
  locale: string,
): readonly [locale: string, count: number] | undefined {
  if (typeof spelling === "string") return undefined;
  const bare = Object.keys(spelling).find((one) => spelling[one] === "");
  const count = bare === undefined ? undefined : locales.get(bare);
  return bare !== undefined &&
    count !== undefined &&
    languageOf(bare) === languageOf(locale) &&
    count >= (locales.get(locale) ?? 0)
    ? [bare, count]
    : undefined;
}

/** What texts in English have, and those of few other languages. */
const englishWords = /\b(?:the|of|to|is|are|and|with|your|this|for|not|please|you|has been|from)\b/i;

/** So many languages that the keys are in none of. */
const leastOthers = 5;

const phrase = /\p{L} \p{L}/u;
const nameOfProgram = /^[a-z][a-zA-Z0-9]*(?:[._-][a-zA-Z0-9]+)+$|^[a-z]+[A-Z]\w*$/;

/** Whether keys are texts: labels of a word each are as well, where no key is a name as programs have them. */
export function areTexts(keys: readonly string[]): boolean {
  const phrases = keys.filter((key) => phrase.test(key)).length;
  const names = keys.filter((key) => nameOfProgram.test(key)).length;
  return phrases * 2 > keys.length || (phrases * 4 > keys.length && names * 20 < keys.length);
}

/** Whether a book's keys are texts in English, and none of its locales has them as its own texts. */
export function hasTextsAsKeys({ keys, ownText, locales }: FoundBook): boolean {
  const all = [...keys.values()].flatMap((set) => [...set]);
  const prose = all.filter((key) => phrase.test(key));
  return (
    areTexts(all) &&
    // Of labels hardly any has such a word; what several languages have translated, and none has as its own, is English as well.
    (prose.filter((key) => englishWords.test(key)).length * 6 > prose.length ||
      (locales.size >= leastOthers && prose.every((key) => /^[\0-\x7f]*$/.test(key)))) &&
    [...locales].every(([locale, count]) => (ownText.get(locale) ?? 0) * 2 <= count)
  );
}

/** Fewer texts of several words say nothing of what a project is written in. */
const leastPhrases = 40;

/** The language whose common words most texts in code have; undefined where they do not tell. */
function languageByWords(code: readonly SourceFile[]): string | undefined {
  const phrases = code.flatMap(({ literals }) =>
    literals
      .filter(({ context }) => context.role === "content" || context.role === "argument")
      .map(({ pieces }) => readableText(pieces))
      .filter((text) => /\p{L}{2} \p{L}{1,20} \p{L}/u.test(text)),
  );
  return phrases.length < leastPhrases ? undefined : languageOfTexts(phrases);
}

/** A number of keys, in words. */
export function keysOf(count: number): string {
  return count === 1 ? "1 key" : `${count} keys`;
}

const languageOf = (locale: string) => locale.split("-", 1)[0] ?? locale;

/** What a text's letters say of its language, the most telling first: few languages that products are written in share them. */
const languages: readonly (readonly [letters: RegExp, locale: string])[] = [
  [/[\p{Script=Hiragana}\p{Script=Katakana}]/u, "ja"],
  [/\p{Script=Hangul}/u, "ko"],
  [/\p{Script=Han}/u, "zh-CN"],
  [/[іїєґ]/iu, "uk"],
  [/\p{Script=Cyrillic}{2}/u, "ru"],
  [/[پچژگک]/u, "fa"],
  [/\p{Script=Arabic}{2}/u, "ar"],
  [/\p{Script=Hebrew}{2}/u, "he"],
  [/\p{Script=Greek}{3}/u, "el"],
  [/\p{Script=Thai}{2}/u, "th"],
  [/\p{Script=Devanagari}{2}/u, "hi"],
];

/** Fewer texts in letters of their own may be names or examples. */
const leastTexts = 30;
/** The share of all texts that those in one language's letters are at least. */
const leastShare = 0.6;

/**
 * The language that most texts in code are written in, where their letters tell: code is in Latin letters, and nobody writes what
 * programs read in others. Undefined for all that is in Latin letters.
 */
function languageByLetters(
  code: readonly SourceFile[],
): { readonly locale: string; readonly texts: number } | undefined {
  const counts = new Map<string, number>();
  let all = 0;
  for (const { literals } of code)
    for (const { context, pieces } of literals) {
      const text = readableText(pieces);
      const locale = /[^\0-\u024f]/.test(text)
        ? languages.find(([letters]) => letters.test(text))?.[1]
        : undefined;
      if (locale !== undefined) counts.set(locale, (counts.get(locale) ?? 0) + 1);
      // What is shown, and in Latin letters.
      else if (context.role !== "content" || !textLike.test(text)) continue;
      all++;
    }
  // The letters that only some of a language's texts have speak for all of them.
  const join = (some: string, more: string, share: number) => {
    const [few, many] = [counts.get(some) ?? 0, counts.get(more) ?? 0];
    if (few < many * share) counts.set(more, many + few).delete(some);
    else counts.set(some, many + few).delete(more);
  };
  join("ja", "zh-CN", 0.2);
  join("uk", "ru", 0.2);
  join("fa", "ar", 0.2);
  const [best] = [...counts].sort((a, b) => b[1] - a[1]);
  if (!best || best[1] < leastTexts || best[1] < all * leastShare) return undefined;
  return { locale: best[0], texts: best[1] };
}
