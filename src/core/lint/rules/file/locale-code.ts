import type { Book, Catalog } from "../../../catalog/book.js";
import { languageOfTexts } from "../../../locale/language-of-texts.js";
import { doubtTag } from "../../../locale/mistaken-tag.js";
import { scriptOf } from "../../../locale/script.js";
import { isWordOfEnglish } from "../../../locale/word-codes.js";
import { languageOf } from "../../text-parts.js";
import { defineRule } from "../../rule.js";

export const fileLocaleCode = defineRule({
  id: "file/locale-code",
  level: "error",
  summary: "Catalog whose name is not a language tag, or probably the wrong one.",
  why: "Browsers and servers ask for languages by tag (BCP 47): Japanese is `ja`, and a file named `jp`, for the country, is never chosen. A country's code that is another language's too is no fault where the texts have no letter of the country's language. A valid tag that the configuration does not list is a warning: no command reads that file.",
  messages: {
    "no-tag": {
      message: '"{written}" is not a language tag (BCP 47)',
      remedy: "use a tag such as de or pt-BR",
    },
    unknown: {
      message: '"{written}" is not a language that CLDR knows',
      remedy: "keep it if ISO 639 has it, else use a tag such as de or pt-BR",
    },
    country: {
      message: '"{written}" is the code of a country ({country}), not of a language',
      remedy: 'rename it to "{meant}", here and in the configuration',
    },
    unlikely: {
      message: '"{written}" is the language {language}; the country {country} has the same code',
      remedy: 'rename it to "{meant}", here and in the configuration, if the country was meant',
    },
    "stray-no-tag": {
      message: '"{written}" is not a language tag (BCP 47)',
      remedy: 'rename it, or exclude it with the book\'s "ignore"',
    },
    "stray-unknown": {
      message: '"{written}" is not a language that CLDR knows, and the configuration does not list it',
      remedy: 'add it to "targets" if ISO 639 has it, or exclude the file with the book\'s "ignore"',
    },
    "stray-country": {
      message: '"{written}" is the code of a country ({country}), not of a language',
      remedy: 'rename it to "{meant}"',
    },
    "stray-unlikely": {
      message: '"{written}" is the language {language}; the country {country} has the same code',
      remedy: 'rename it to "{meant}" if the country was meant',
    },
    stray: {
      message:
        'unknown locale "{written}": no command reads this file, because the configuration does not list it',
      remedy: 'add "{locale}" to "targets", or exclude the file with the book\'s "ignore"',
    },
  },
  examples: {
    bad: [
      { locale: "jp", target: "出航", note: "Japan's code, not Japanese's" },
      { locale: "ch", target: "Abfahrt", note: "Chamorro, where Switzerland was meant" },
    ],
    good: [
      { locale: "ja", target: "出航" },
      { locale: "pt-BR", target: "Partida" },
      { locale: "cy", target: "Ymadael" },
    ],
  },
  book(context) {
    const { book } = context;
    const start = { start: 0, end: 0 };
    const locales = [book.sourceLocale, ...book.targetLocales];
    for (const written of locales) {
      const catalog = book.catalogsOf(written).find((one) => one.exists);
      const doubt = doubtTag(
        written,
        locales.filter((other) => other !== written),
      );
      if (!catalog || !doubt) continue;
      if (doubt.kind === "no-tag") context.reportRange(catalog, start, "no-tag", { written });
      else if (doubt.kind === "unknown")
        context.reportRange(catalog, start, "unknown", { written }, { severity: "warning" });
      else if (doubt.kind === "country")
        context.reportRange(catalog, start, "country", { written, ...doubt.data });
      else if (!isInOtherLetters(catalog, doubt.data.meant))
        context.reportRange(catalog, start, "unlikely", { written, ...doubt.data }, { severity: "warning" });
    }
    for (const stray of book.strays) {
      const written = book.layout.place(stray.file)?.written ?? stray.locale;
      // Other files of a program begin with a sign: `$schema.json`.
      if (!/^\p{L}/u.test(written) || (isWordOfEnglish(written) && !isTranslation(stray, book))) continue;
      const doubt = doubtTag(written, locales);
      const more = { severity: "warning" as const };
      if (!doubt) context.reportRange(stray, start, "stray", { written, locale: stray.locale }, more);
      else if (doubt.kind === "no-tag") context.reportRange(stray, start, "stray-no-tag", { written }, more);
      else if (doubt.kind === "unknown")
        context.reportRange(stray, start, "stray-unknown", { written }, more);
      else if (doubt.kind === "country")
        context.reportRange(stray, start, "stray-country", { written, ...doubt.data });
      else context.reportRange(stray, start, "stray-unlikely", { written, ...doubt.data }, more);
    }
  },
});

/** Whether a language has a script of its own of which a catalog has no letter: its texts are in another language then. */
function isInOtherLetters({ byKey }: Catalog, language: string): boolean {
  const script = scriptOf(language);
  // A language in the letters of most others is not told by them, and one in several scripts not by one.
  if (byKey.size === 0 || /^(?:Latn|Jpan|Kore|Hans|Hant)$/.test(script)) return false;
  const letters = new RegExp(`\\p{Script=${script}}`, "u");
  return ![...byKey.values()].some(({ text }) => letters.test(text));
}

/** Whether a catalog that may be called as a word has keys of the source, and texts that are not in its language. */
function isTranslation({ byKey, namespace }: Catalog, book: Book): boolean {
  const source = book.catalog(book.sourceLocale, namespace);
  const texts = [...byKey.values()].flatMap(({ key, text }) => (source?.byKey.has(key) ? text : []));
  return texts.length > 0 && languageOfTexts(texts) !== languageOf(book.sourceLocale);
}
