import { doubtTag, isKnownLanguage, meantBy } from "../../locale/mistaken-tag.js";
import { languageNames } from "../../locale/own-name.js";
import { scriptOf } from "../../locale/script.js";
import { canonicalTag, parseTag } from "../../locale/tag.js";
import { lazily } from "../../text/lazy.js";

/** What a folder or the name of a file may say of its locale. */
export interface WrittenLocale {
  /** The tag that it stands for. */
  readonly locale: string;
  /** Set where other names beside it have to be locales too: many short names are languages by chance. */
  readonly isWeak: boolean;
}

/** The locale that a name stands for, in any of the ways in which people write them; undefined for any other name. */
export function writtenLocale(written: string): WrittenLocale | undefined {
  // How Windows calls Chinese in simplified and traditional characters.
  const chinese = /^zh[-_]?ch([st])$/i.exec(written)?.[1];
  if (chinese !== undefined) return { locale: /s/i.test(chinese) ? "zh-Hans" : "zh-Hant", isWeak: false };
  const tag = written.replaceAll("_", "-").replace(/^([a-z]{2})([A-Z][A-Za-z]{1,3})$/, "$1-$2");
  const parsed = hasOddVariant(tag) ? undefined : parseTag(tag);
  // Three letters may be any word: `dev`. Languages that most products are translated into have a name.
  if (parsed?.language.length === 3 && parsed.region === undefined && !hasName(parsed.language))
    return isNameless(written) ? { locale: canonicalTag(tag), isWeak: true } : undefined;
  if (parsed && isKnownLanguage(parsed.language) && (parsed.region !== undefined || isPlainCase(written)))
    return {
      locale: canonicalTag(tag),
      // As it is written: `src` stands for a language of two letters.
      isWeak: /^[A-Za-z]{3,}(?![A-Za-z])/.test(written),
    };
  // A country's code, or the English name of a language.
  const meant = /^[a-z]{2}$/.test(written) ? meantBy(doubtTag(written, [])) : undefined;
  const named = meant ?? languageNames().get(written.toLowerCase());
  return named === undefined ? undefined : { locale: named, isWeak: true };
}

/** The language that a country's code stands for beside files in other locales; undefined for codes of languages. */
export function countryLanguage(written: string, others: readonly string[]): string | undefined {
  if (!/^[a-z]{2}$/.test(written) || isKnownLanguage(written)) return undefined;
  return meantBy(doubtTag(written, others));
}

const inEnglish = lazily(() => new Intl.DisplayNames(["en"], { type: "language" }));

function hasName(language: string): boolean {
  return inEnglish().of(language) !== language;
}

/** Whether a name is the code of a language that has no name in English here, as those of few translations: `azb`. */
export function isNameless(written: string): boolean {
  return /^[a-z]{3}$/.test(written) && isKnownLanguage(written) && !hasName(written);
}

/** Variants of languages that texts are written in: of spelling (IANA's registry), and of how readers are spoken to. */
const variants =
  /^(?:1901|1994|1996|abl1943|ao1990|arevela|arevmda|colb1945|ekavsk|fonipa|ijekavsk|kkcor|oxendict|pinyin|polyton|posix|rozaj|scotland|scouse|tarask|valencia|wadegile|(?:in)?formal|simple|easy)$/i;

/** Whether a tag goes on with a part that is none of a language: `os-linux-active`, `is-valid`. */
function hasOddVariant(tag: string): boolean {
  const [, ...rest] = tag.split("-");
  const end = rest.findIndex((part) => /^[A-Za-z0-9]$/.test(part));
  return rest
    .slice(0, end < 0 ? rest.length : end)
    .some((part) => /^(?:[A-Za-z0-9]{5,8}|\d[A-Za-z0-9]{3})$/.test(part) && !variants.test(part));
}

/** Whether a name is written as languages are: `DE` may be an abbreviation of anything. */
function isPlainCase(written: string): boolean {
  return /^[a-z]{2,3}(?:[-_][A-Za-z]|$)/.test(written);
}

const scripts: readonly (readonly [string, RegExp])[] = [
  ["Latn", /\p{Script=Latin}/gu],
  ["Cyrl", /\p{Script=Cyrillic}/gu],
  ["Hang", /\p{Script=Hangul}/gu],
  ["Kana", /[\p{Script=Hiragana}\p{Script=Katakana}]/gu],
  ["Hani", /\p{Script=Han}/gu],
  ["Arab", /\p{Script=Arabic}/gu],
  ["Grek", /\p{Script=Greek}/gu],
  ["Hebr", /\p{Script=Hebrew}/gu],
  ["Thai", /\p{Script=Thai}/gu],
  ["Deva", /\p{Script=Devanagari}/gu],
  ["Geor", /\p{Script=Georgian}/gu],
  ["Armn", /\p{Script=Armenian}/gu],
];

/** Scripts that are counted here under the name of their letters. */
const lettersOf: Readonly<Record<string, readonly string[]>> = {
  Kore: ["Hang", "Hani"],
  Jpan: ["Kana", "Hani"],
  Hans: ["Hani"],
  Hant: ["Hani"],
};

/**
 * The locale of texts under a two-letter name that may be a country's code: the language of that country whose script
 * the texts are in, where the language of the code is written in another one.
 */
export function localeByText(written: string, locale: string, texts: readonly string[]): string {
  if (!/^[A-Za-z]{2}$/.test(written)) return locale;
  const main = mainLetters(texts);
  const fits = (tag: string) => (lettersOf[scriptOf(tag)] ?? [scriptOf(tag)]).includes(main ?? "");
  if (main === undefined || main === "Latn" || fits(locale)) return locale;
  const region = parseTag(`und-${written}`)?.region;
  if (region === undefined) return locale;
  const { language, script } = new Intl.Locale(`und-${region}`).maximize();
  if (!fits(language)) return locale;
  // Chinese as Taiwan writes it is not what `zh` alone stands for.
  return script === new Intl.Locale(language).maximize().script ? language : `${language}-${region}`;
}

/**
 * The letters that the texts are in; undefined for too few. Texts in other letters hold Latin names and words that are not
 * translated yet, and texts in Latin letters hardly hold others: so a part of the letters tells.
 */
function mainLetters(texts: readonly string[]): string | undefined {
  const sample = texts.slice(0, 300).join(" ").slice(0, 20_000);
  const counts = scripts.map(([name, letters]) => [name, sample.match(letters)?.length ?? 0] as const);
  const kana = counts.find(([name]) => name === "Kana")?.[1] ?? 0;
  const all = counts.reduce((sum, [, count]) => sum + count, 0);
  const others = counts.filter(([name]) => name !== "Latn");
  const foreign = others.reduce((most, one) => (one[1] > most[1] ? one : most));
  const [name, count] = foreign[1] * 7 > all ? foreign : (["Latn", all] as const);
  if (count < 10) return undefined;
  return name === "Hani" && kana * 5 > count ? "Kana" : name;
}

/** How locales are written: as their tags, with underscores, or each by a map of those that differ. */
export function spellingOf(
  written: ReadonlyMap<string, string>,
): "hyphen" | "underscore" | Readonly<Record<string, string>> {
  const pairs = [...written];
  if (pairs.every(([locale, name]) => name === locale)) return "hyphen";
  if (pairs.every(([locale, name]) => name === locale.replaceAll("-", "_"))) return "underscore";
  return Object.fromEntries(
    pairs.filter(([locale, name]) => name !== locale).sort(([a], [b]) => (a < b ? -1 : 1)),
  );
}
