import { readableText, type SourceFile } from "../../source/model.js";
import { textLike } from "./declared-texts.js";

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
export function languageOfTexts(
  code: readonly SourceFile[],
): { readonly locale: string; readonly texts: number } | undefined {
  const counts = new Map<string, number>();
  let all = 0;
  for (const { literals } of code)
    for (const { context, pieces } of literals) {
      const text = readableText(pieces);
      const locale = languages.find(([letters]) => letters.test(text))?.[1];
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
