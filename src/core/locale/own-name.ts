import { parseTag } from "./tag.js";

const names = new Map<string, string | undefined>();

/**
 * Whether a text is what a language calls itself, by its tag: "Deutsch" for `de`, "Français (Canada)" for `fr_CA`; by CLDR's names,
 * in any case. English names of languages are told in the reader's language, so that "English" for `en` is none.
 */
export function isOwnNameOf(text: string, tag: string): boolean {
  if (!/^[a-z]{2,3}(?:[-_][A-Za-z0-9]{2,8}){0,2}$/.test(tag)) return false;
  const own = ownName(tag.replaceAll("_", "-"));
  if (own === undefined) return false;
  const [plain = ""] = text.toLowerCase().split(/ ?[(（]/, 1);
  return plain === own;
}

function ownName(tag: string): string | undefined {
  if (names.has(tag)) return names.get(tag);
  const language = parseTag(tag)?.language;
  const found =
    language === undefined || language === "en"
      ? undefined
      : new Intl.DisplayNames([language], { type: "language", fallback: "none" }).of(language);
  const english =
    language === undefined
      ? undefined
      : new Intl.DisplayNames(["en"], { type: "language", fallback: "none" }).of(language);
  const own = found === undefined || found === english ? undefined : found.toLowerCase();
  names.set(tag, own);
  return own;
}
