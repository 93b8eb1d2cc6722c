import type { Files } from "../files/files.js";
import type { Span } from "../text/span.js";
import { doubtTag, isKnownLanguage, meantBy } from "./mistaken-tag.js";
import { parseTag } from "./tag.js";

/** A list of locales in code or in a program's settings: strings, the members of a type, pairs, or the names of a map. */
export interface LocaleList {
  readonly kind: "list" | "union" | "pairs" | "map";
  readonly members: readonly LocaleMember[];
}

export interface LocaleMember extends Span {
  /** The tag in its usual form. */
  readonly locale: string;
  /** What the file has, without its quotes. */
  readonly written: string;
  /** Set where a country's code stands for its language: `cn`. */
  readonly isCountry?: true;
}

/** A locale in quotes, as a symbol, or as a name before a colon. */
const token =
  /(["'`])([a-zA-Z]{2,3}(?:[-_][a-zA-Z0-9]{2,8}){0,2})\1|(?<![\w:]):([a-z]{2}(?:_[A-Z]{2})?)\b|(?<=[{,\n][ \t]{0,40})([a-z]{2}(?:_[A-Z]{2})?)(?=:\s)/g;

/** What stands between two members, by the kind of list. */
const between: readonly (readonly [LocaleList["kind"], RegExp])[] = [
  ["list", /^\s{0,200},\s{0,200}$/],
  ["union", /^\s{0,200}\|\s{0,200}$/],
  ["pairs", /^\s{0,40}(?:,|=>)[^\n]{1,160}[)\]}]\s{0,40},\s{0,200}[([{][^\n"'`]{0,30}$/],
  ["map", /^\s{0,40}(?::|=>)\s{0,40}[^\n]{1,200},\s{0,200}$/],
];

/** Larger files are no lists that people keep, in code units. */
const largest = 2_000_000;

/** The lists in a text that have two locales at least. */
export function localeListsIn(text: string): readonly LocaleList[] {
  if (text.length > largest) return [];
  const lists: LocaleList[] = [];
  let members: LocaleMember[] = [];
  let kind: LocaleList["kind"] | undefined;
  const close = () => {
    if (kind && members.length > 1) lists.push({ kind, members });
    members = [];
    kind = undefined;
  };
  for (const match of text.matchAll(token)) {
    const written = match[2] ?? match[3] ?? match[4] ?? "";
    const tag = parseTag(written.replaceAll("_", "-"));
    if (!tag) continue;
    const isCountry = !isKnownLanguage(tag.language);
    // Alone it is a country, and between locales it is one of them.
    const meant = isCountry && members.length > 0 ? meantBy(doubtTag(written, [])) : undefined;
    if (isCountry && meant === undefined) continue;
    const member: LocaleMember = {
      ...(isCountry && { isCountry }),
      locale: meant ?? canonical(written),
      written,
      start: match.index,
      end: match.index + match[0].length,
    };
    const last = members.at(-1);
    if (last) {
      const gap = member.start - last.end > 400 ? "" : text.slice(last.end, member.start);
      const found = between.find(([name, pattern]) => (kind ?? name) === name && pattern.test(gap))?.[0];
      // The second of a pair is what the first is called.
      if (!found && kind === "pairs" && !gap.includes("\n") && gap.length < 40) continue;
      if (!found) close();
      else kind = found;
    }
    members.push(member);
  }
  close();
  return lists;
}

/** A tag as it is compared: `pt_br` is `pt-BR`. */
function canonical(written: string): string {
  try {
    return new Intl.Locale(written.replaceAll("_", "-")).toString();
  } catch {
    return written;
  }
}

/**
 * Whether a list is one of a project's own locales: it has the source and another, at least half of them, and few that the
 * project does not have. A list of those that are written from right to left is none.
 */
export function isListOf({ members }: LocaleList, source: string, targets: readonly string[]): boolean {
  const own = [source, ...targets];
  const has = (locale: string) => members.some((member) => member.locale === locale);
  const shared = own.filter(has).length;
  const strange = new Set(members.filter(({ locale }) => !own.includes(locale)).map(({ locale }) => locale))
    .size;
  const isOfLocales = members.some(({ locale, isCountry }) => locale === source && !isCountry);
  return isOfLocales && shared > 1 && shared * 2 >= own.length && strange <= shared;
}

/** Where programs keep their settings, besides their code. */
const settingsFiles = [
  "*.config.{js,cjs,mjs,ts,mts}",
  "config/**/*.{js,ts,rb,py,php}",
  "{src,app,lib}/{config,settings}/**/*.{js,ts,rb,py,php}",
  "**/settings.py",
];

/** The files of a project in which lists of locales are looked for, besides the code of its books. */
export function settingsOf(files: Files): readonly string[] {
  return files.list({
    patterns: settingsFiles,
    ignore: ["**/node_modules/**", "**/vendor/**"],
    respectIgnoreFiles: true,
  });
}

/** The text that adds a locale behind the last member of a list, written as its other members are. */
export function addedMember({ kind, members }: LocaleList, text: string, locale: string): string | undefined {
  const last = members.at(-1);
  if (!last || (kind !== "list" && kind !== "union")) return undefined;
  const own = text.slice(last.start, last.end);
  const spelled = members.some(({ written }) => written.includes("_")) ? locale.replaceAll("-", "_") : locale;
  const before = members.at(-2);
  const gap = before ? text.slice(before.end, last.start) : ", ";
  return gap + own.replace(last.written, () => spelled);
}
