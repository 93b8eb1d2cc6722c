import { lazily } from "../text/lazy.js";
import { isKnownLanguage } from "./mistaken-tag.js";
import { parseTag } from "./tag.js";

const names = new Map<string, string | undefined>();

/**
 * Whether a text is what a language calls itself, by its tag: "Deutsch" for `de`, "Français (Canada)" for `fr_CA`; by CLDR's names,
 * in any case. English names of languages are told in the reader's language, so that "English" for `en` is none.
 */
export function isOwnNameOf(text: string, tag: string): boolean {
  const language = languageIn(tag);
  if (language === undefined || language === "en") return false;
  const own = nameOf(language, language);
  return own !== undefined && own !== nameOf(language, "en") && own === plainName(text);
}

/** Whether a text is the name of the language that a tag stands for, in another language: "German" for `de` in `en`. */
export function isNameIn(inLanguage: string, text: string, tag: string): boolean {
  const language = languageIn(tag);
  return language !== undefined && nameOf(language, inLanguage) === plainName(text);
}

const languages = new Map<string, string | undefined>();

/** The language of a tag as programs write it; undefined where it is not a tag. */
function languageIn(tag: string): string | undefined {
  if (!/^[a-z]{2,3}(?:[-_][A-Za-z0-9]{2,8}){0,2}$/.test(tag)) return undefined;
  // Short words of code, most of which are no tags, are asked for again and again.
  if (!languages.has(tag)) languages.set(tag, parseTag(tag.replaceAll("_", "-"))?.language);
  return languages.get(tag);
}

/** A name without what stands behind it in brackets, in lower case. */
function plainName(text: string): string {
  return text.toLowerCase().split(/ ?[(（]/, 1)[0] ?? "";
}

function nameOf(language: string, inLanguage: string): string | undefined {
  const id = `${language} ${inLanguage}`;
  if (!names.has(id)) {
    const display = new Intl.DisplayNames([inLanguage], { type: "language", fallback: "none" });
    names.set(id, display.of(language)?.toLowerCase());
  }
  return names.get(id);
}

/** English names of languages in lower case, and their codes: those of two letters, as products are translated into. */
export const languageNames = lazily((): ReadonlyMap<string, string> => {
  const names = new Intl.DisplayNames(["en"], { type: "language" });
  const codes = [..."abcdefghijklmnopqrstuvwxyz"].flatMap((first, _, letters) =>
    letters.map((second) => first + second),
  );
  return new Map(
    codes.filter(isKnownLanguage).flatMap((code): [string, string][] => {
      const name = names.of(code)?.toLowerCase() ?? code;
      return name === code || /[^a-z]/.test(name) ? [] : [[name, code]];
    }),
  );
});
