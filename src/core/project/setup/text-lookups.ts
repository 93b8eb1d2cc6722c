import { withDefault } from "./lookup-evidence.js";
import type { Files } from "../../files/files.js";
import { readableText, type SourceFile } from "../../source/model.js";
import { oneFilePerLocale } from "../../survey/left-out.js";
import { lookupByName } from "../../survey/calls.js";
import { isBeside, keyLike, textLike } from "./declared-texts.js";
import { madeLookups } from "./made-lookups.js";
import { startsAsXml } from "../../source/readers/script/endings.js";
import { countHit, newUse, type LookupUse } from "./lookup-use.js";

/** Fewer texts than these may be given to a function of the same name by chance. */
const fewest = 5;

/** Words with a capital may be names of anything: so many texts of several words are among those that are looked up. */
const fewestPhrases = 2;

/** What many programs call the function by that gives texts, and other things as well: where it is given texts, they are looked up. */
const shortName = /(?:^|\.)t$/;

/** A function of any name is one where so many calls give it texts, and what makes it looks them up. */
const fewestOfAnyName = 10;

/** Calls that look texts up by the texts themselves: `_("All crossings")`, as their names, what they are given and what makes them show. */
export function textLookups(code: readonly SourceFile[]): LookupUse[] {
  const uses = new Map<string, LookupUse>();
  // Which get another text behind the first: the forms of a plural, or what a text is about and the text. Neither is a key alone.
  const pairs = new Map<LookupUse, Map<string, number>>();
  const phrases = new Map<LookupUse, Set<string>>();
  const domains = new Map<LookupUse, Map<string, number>>();
  for (const source of code)
    for (const [place, literal] of source.literals.entries()) {
      const { role, name = "", index } = literal.context;
      if (role !== "argument") continue;
      if (index === 1) {
        const domain = domainBefore(source, place, name);
        const text = readableText(literal.pieces);
        if (domain === undefined || literal.pieces.some(({ kind }) => kind !== "text")) continue;
        const id = `${name} 1`;
        const use = uses.get(id) ?? newUse({ call: name, key: 1 }, `${name}(…, TEXT)`);
        uses.set(id, use);
        const own = domains.get(use) ?? new Map<string, number>();
        domains.set(use, own.set(domain, (own.get(domain) ?? 0) + 1));
        if (textLike.test(text)) {
          countHit(use, source, literal);
          if (/\p{L}\S{0,40} \S{0,40}\p{L}/u.test(text))
            phrases.set(use, (phrases.get(use) ?? new Set()).add(text));
        } else if (keyLike.test(text)) use.misses++;
        continue;
      }
      if (index !== 0) continue;
      if (!lookupByName.test(name) && !/^\w+$/.test(name)) continue;
      if (literal.pieces.some(({ kind }) => kind !== "text")) continue;
      const text = readableText(literal.pieces);
      const use =
        uses.get(name) ??
        (name.startsWith("|")
          ? newUse({ filter: name.slice(1) }, `{{ TEXT ${name} }}`)
          : newUse({ call: name }, `${name}(TEXT)`));
      uses.set(name, use);
      const next = source.literals[place + 1];
      if (textLike.test(text)) {
        countHit(use, source, literal);
        if (/\p{L}\S{0,40} \S{0,40}\p{L}/u.test(text))
          phrases.set(use, (phrases.get(use) ?? new Set()).add(text));
        if (!next || !isBeside(literal, next)) continue;
        const second = pairs.get(use) ?? new Map<string, number>();
        const other = readableText(next.pieces);
        pairs.set(use, second.set(other, (second.get(other) ?? 0) + 1));
      }
      // A word may be either.
      else if (keyLike.test(text)) use.misses++;
    }
  const often = [...uses].filter(
    ([, use]) =>
      use.hits >= fewest &&
      use.hits > use.misses * 3 &&
      (phrases.get(use)?.size ?? 0) >= fewestPhrases &&
      !isOfPairs(use, pairs.get(use)) &&
      // Of several domains nothing says which one a new text is of.
      isOfOneDomain(use, domains.get(use)),
  );
  const unknown = often.filter(
    ([name, use]) => !domains.has(use) && !lookupByName.test(name) && use.hits >= fewestOfAnyName,
  );
  const made = madeLookups(
    new Set(unknown.map(([name]) => name)),
    code.map(({ text }) => text),
  );
  return (
    often
      // What is given a domain first is called as lookups are.
      .filter(
        ([name, use]) =>
          domains.has(use) || lookupByName.test(name) || shortName.test(name) || made.has(name),
      )
      .map(([, use]) => use)
      .sort((a, b) => b.hits - a.hits)
  );
}

/** So many of a function's texts are of one domain. */
const ofOneDomain = 0.8;

function isOfOneDomain(
  { hits, misses }: LookupUse,
  domains: ReadonlyMap<string, number> | undefined,
): boolean {
  return !domains || [...domains.values()].some((count) => count >= (hits + misses) * ofOneDomain);
}

/** The domain that a call is given before its text, as a string of one word: `say("app", "All boats")`. */
function domainBefore({ literals, text }: SourceFile, place: number, name: string): string | undefined {
  if (!lookupByName.test(name) && !shortName.test(name)) return undefined;
  const [own, first] = [literals[place], literals[place - 1]];
  if (!own || first?.context.role !== "argument" || first.context.name !== name || first.context.index !== 0)
    return undefined;
  const domain = readableText(first.pieces);
  return /^[\w./\\:-]{1,40}$/.test(domain) && /^\s*,\s*$/.test(text.slice(first.span.end, own.span.start))
    ? domain
    : undefined;
}

/** Fewer keys than these may be given to a function of the same name by chance. */
const fewestKeys = 3;

/** Calls that are named for looking texts up and are given keys, which no catalog of the project has: `i18n("desk.title")`. */
export function namedLookups(code: readonly SourceFile[]): LookupUse[] {
  const uses = new Map<string, LookupUse>();
  const keys = new Map<LookupUse, Set<string>>();
  for (const source of code)
    for (const literal of source.literals) {
      const { role, name = "", index } = literal.context;
      if (role !== "argument" || index !== 0 || name.startsWith("|")) continue;
      if (!lookupByName.test(name) && !shortName.test(name)) continue;
      if (literal.pieces.some(({ kind }) => kind !== "text")) continue;
      const text = readableText(literal.pieces);
      const use = uses.get(name) ?? newUse({ call: name }, `${name}(…)`);
      uses.set(name, use);
      if (!keyLike.test(text)) use.misses++;
      else {
        countHit(use, source, literal);
        keys.set(use, (keys.get(use) ?? new Set()).add(text));
      }
    }
  return [...uses.values()]
    .filter((use) => (keys.get(use)?.size ?? 0) >= fewestKeys && use.hits > use.misses * 3)
    .sort((a, b) => b.hits - a.hits)
    .map(withDefault);
}

/** Whether most calls get a second text that is another one each time; the same in nearly all is the name of a domain. */
function isOfPairs({ hits }: LookupUse, seconds: ReadonlyMap<string, number> = new Map()): boolean {
  const counts = [...seconds.values()];
  const all = counts.reduce((sum, count) => sum + count, 0);
  return all * 2 > hits && !counts.some((count) => count * 10 >= all * 8);
}

/** Formats of catalogs that are not read, which many programs use; those of an ending that scripts have are written in XML. */
const otherFormats = ["po", "resx", "strings"];
const xmlAsScripts = ["ts"];

/** Those of any other program, where a folder for languages has one for each locale. */
const perLocale = [
  "**/{lang,langs,language,languages,locale,locales,i18n,l10n,translations}/**/*.{xml,lng,loc,tr}",
];

/** What there is of translations in formats that are not read, as a sentence. */
export function otherCatalogs(files: Files): string | undefined {
  const found = (patterns: readonly string[]) =>
    files.list({ patterns, ignore: ["**/node_modules/**"], respectIgnoreFiles: true });
  const listed = (endings: readonly string[]) => found(endings.map((ending) => `**/*.${ending}`));
  const isXml = (file: string) => {
    const read = files.read(file);
    return read.ok && startsAsXml(read.text);
  };
  const [first, ...more] = [
    ...listed(otherFormats),
    ...listed(xmlAsScripts).filter(isXml),
    ...oneFilePerLocale(found(perLocale)),
  ];
  if (first === undefined) return undefined;
  const which = more.length === 0 ? first : `${first} and ${more.length} more`;
  return `${which} ${more.length === 0 ? "is" : "are"} in a format that is not read, so that translations stay where they are.`;
}
