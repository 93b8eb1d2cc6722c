import { notices } from "../../message/notices.js";
import { scriptOf } from "../../locale/script.js";
import { fixedText, type Literal, type SourceFile } from "../model.js";
import { withLanguagePairs } from "./pairs.js";
import { withLanguageTables } from "./tables.js";
import { languageOfTag, languageTests, localeAt, type LanguageTest } from "./tests.js";

const say = notices("extract", {
  "other-language": {
    message: "the code shows it for {locale} alone",
    remedy:
      "put it into the catalog of {locale} by hand, under the key of the text that others see, and one lookup in the place of both",
  },
  "other-script": {
    message: "its letters are not those of {source}, in which texts of the source are written",
    remedy:
      'leave it where it is if it is a name, or write the text of the source there; if the project writes in another language, set "source"',
  },
});

/**
 * The literals of a file with what its code says of their languages: two that stand for one text in two languages are made one,
 * and what is no text of the source's language is marked.
 */
export function withLanguages(source: SourceFile, sourceLanguage: string | undefined): SourceFile {
  if (sourceLanguage === undefined) return source;
  const tests = languageTests(source.text);
  const paired = withLanguagePairs(withLanguageTables(source, sourceLanguage), tests, sourceLanguage);
  return withForeign(paired, tests, sourceLanguage);
}

/** Marks what the code shows for another language alone, and what is written in other letters than the source's. */
function withForeign(source: SourceFile, tests: readonly LanguageTest[], sourceLanguage: string): SourceFile {
  // Most files are in Latin letters, which no language is without.
  if (tests.length === 0 && !/[^\0-\u036f\u1e00-\u218f]/.test(source.text)) return source;
  const isForeign = lettersTest(sourceLanguage);
  const obstacleOf = (literal: Literal) => {
    if (literal.inLocale !== undefined) return undefined;
    const locale = localeAt(source, tests, literal);
    if (locale !== undefined && languageOfTag(locale) !== sourceLanguage)
      return say("other-language", { locale });
    return isForeign(fixedText(literal.pieces)) ? say("other-script", { source: sourceLanguage }) : undefined;
  };
  let changed = false;
  const literals = source.literals.map((literal) => {
    const obstacle = literal.obstacle || literal.translations ? undefined : obstacleOf(literal);
    if (!obstacle) return literal;
    changed = true;
    return { ...literal, obstacle };
  });
  return changed ? { ...source, literals } : source;
}

/** Whether a text is written in letters that neither the language nor its neighbors use. */
function lettersTest(language: string): (text: string) => boolean {
  let script: string;
  try {
    script = scriptOf(language);
  } catch {
    return () => false;
  }
  const own = {
    Jpan: ["Han", "Hiragana", "Katakana"],
    Kore: ["Hangul", "Han"],
    Hans: ["Han"],
    Hant: ["Han"],
  }[script];
  const named = own ?? [
    {
      Latn: "Latin",
      Cyrl: "Cyrillic",
      Arab: "Arabic",
      Hebr: "Hebrew",
      Grek: "Greek",
      Deva: "Devanagari",
      Thai: "Thai",
    }[script] ?? "",
  ];
  if (named.some((one) => one === "")) return () => false;
  const ownLetters = new RegExp(
    `[\\p{Script=Latin}${named.map((one) => `\\p{Script=${one}}`).join("")}]`,
    "u",
  );
  const all = new RegExp(ownLetters.source, "gu");
  // One sign of another alphabet, as in `Ω`, is no text of another language; names in Latin stand in texts of all.
  return (text) => {
    if (!/\p{L}[\p{L}\p{M}]/u.test(text)) return false;
    if (!ownLetters.test(text)) return true;
    if (script !== "Latn") return false;
    const others = text.match(/\p{L}/gu)?.length ?? 0;
    const own = text.match(all)?.length ?? 0;
    // A sign of these is as much as a syllable or a word.
    const signs =
      text.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/gu)?.length ?? 0;
    return others - own >= 2 && others - own + signs >= own;
  };
}
