import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { delimited } from "../text/delimited.js";
import { createRequire } from "node:module";
import type * as Entities from "entities";
import { readRows } from "../catalog/formats/table/table.js";
import type { Files } from "../files/files.js";
import { isKnownLanguage } from "../locale/mistaken-tag.js";
import { lazily } from "../text/lazy.js";
import { literally } from "../text/key-pattern.js";
import { canonicalTag } from "../locale/tag.js";

const require = createRequire(import.meta.url);
const entities = lazily(() => require("entities") as typeof Entities);

/** One concept of a glossary: what it is called in each locale, and what it must not be called. */
export interface Concept {
  /** By locale: terms, in any case; a `*` at the end of a word stands for its endings. */
  readonly terms: ReadonlyMap<string, readonly string[]>;
  readonly avoided: ReadonlyMap<string, readonly string[]>;
}

const say = notices("glossary", {
  unreadable: { message: "{detail}", remedy: 'check "glossary" in the configuration' },
  "no-locale": {
    message: "the first row of the glossary has no locale",
    remedy: 'put a locale in the head of each column, and "de avoid" over forbidden words',
  },
  long: {
    message: 'the term "{start}…" has {length} characters; terms have at most {most}',
    remedy: "check the quotes and commas around it",
  },
  empty: { message: "empty glossary", remedy: "check that it is TBX-Basic (ISO 30042) or a CSV table" },
});

export type GlossaryResult =
  { readonly ok: true; readonly concepts: readonly Concept[] } | ({ readonly ok: false } & Notice);

/**
 * Reads a glossary: a CSV table with a column for each locale (several terms parted by `|`) and `de avoid` for forbidden
 * words, or TBX-Basic (ISO 30042), where the administrative status says which terms are forbidden.
 */
export function readGlossary(files: Files, file: string): GlossaryResult {
  const read = files.read(file);
  if (!read.ok) return { ok: false, ...say("unreadable", { detail: read.detail }) };
  const result = /\.(?:tbx|xml)$/i.test(file) ? readTbx(read.text) : readTable(read.text);
  if (!result.ok) return result;
  const long = result.concepts
    .flatMap(({ terms, avoided }) => [...terms.values(), ...avoided.values()].flat())
    .find((term) => term.length > longestTerm);
  if (long === undefined) return result;
  const data = { start: long.slice(0, 40), length: long.length, most: longestTerm };
  return { ok: false, ...say("long", data) };
}

/** Longer ones are what a lost quote makes of many cells. In UTF-16 code units. */
const longestTerm = 500;

function readTable(text: string): GlossaryResult {
  const { rows } = readRows(text);
  const [header, ...data] = rows;
  const columns = (header?.cells ?? []).map(({ value }) => {
    const [, tag = "", avoid] = /^\s*(\S+?)(\s+avoid)?\s*$/.exec(value) ?? [];
    const locale = canonicalTag(tag);
    const isLocale = locale !== undefined && isKnownLanguage(locale.split("-", 1)[0] ?? "");
    return { locale: isLocale ? locale : undefined, isAvoided: avoid !== undefined };
  });
  if (!columns.some(({ locale }) => locale !== undefined)) return { ok: false, ...say("no-locale", {}) };
  const concepts = data.map((row): Concept => {
    const terms = new Map<string, string[]>();
    const avoided = new Map<string, string[]>();
    row.cells.forEach(({ value }, index) => {
      const column = columns[index];
      const words = value
        .split("|")
        .map((word) => word.trim())
        .filter((word) => word !== "");
      if (column?.locale !== undefined && words.length > 0)
        (column.isAvoided ? avoided : terms).set(column.locale, words);
    });
    return { terms, avoided };
  });
  return { ok: true, concepts };
}

/** The concepts of a TBX file, in the old and the new names of its elements. */
function readTbx(text: string): GlossaryResult {
  const concepts: Concept[] = [];
  for (const { inside: entry } of elementsNamed(text, "conceptEntry|termEntry")) {
    const terms = new Map<string, string[]>();
    const avoided = new Map<string, string[]>();
    for (const { attributes, inside: section } of elementsNamed(entry, "langSec|langSet")) {
      const locale = canonicalTag(/\bxml:lang\s*=\s*["']([^"']+)["']/.exec(attributes)?.[1] ?? "");
      if (locale === undefined) continue;
      const found = [...elementsNamed(section, "term")];
      for (const [index, { inside: term, end }] of found.entries()) {
        // What is said of a term stands behind it.
        const rest = section.slice(end, found[index + 1]?.start);
        const isAvoided = /administrativeStatus[^<>]{0,200}>\s*(?:deprecatedTerm|supersededTerm)/.test(rest);
        const list = isAvoided ? avoided : terms;
        list.set(locale, [...(list.get(locale) ?? []), entities().decodeXML(term.trim())]);
      }
    }
    if (terms.size > 0 || avoided.size > 0) concepts.push({ terms, avoided });
  }
  return concepts.length > 0 ? { ok: true, concepts } : { ok: false, ...say("empty", {}) };
}

/** The elements of some names in a text of XML, none inside another. */
function* elementsNamed(text: string, names: string) {
  for (const { start, end, innerStart, innerEnd } of delimited(
    text,
    new RegExp(`<(?:${names})\\b`),
    new RegExp(`</(?:${names})\\s*>`),
  )) {
    const whole = text.slice(innerStart, innerEnd);
    const tagEnd = whole.indexOf(">");
    if (tagEnd >= 0)
      yield { start, end, attributes: whole.slice(0, tagEnd), inside: whole.slice(tagEnd + 1) };
  }
}

/** What of a glossary holds for a locale: its own, or its language's. */
export function inLocale<Value>(map: ReadonlyMap<string, Value>, locale: string): Value | undefined {
  return map.get(locale) ?? map.get(locale.split("-", 1)[0] ?? locale);
}

const tests = new Map<string, RegExp>();

/**
 * A test for a term in a text, with the endings that words take: the last two letters of a longer word may differ, and a
 * `*` says how much of it must stay.
 */
export function termTest(term: string, isExact = false): RegExp {
  const id = `${isExact ? "=" : "~"}${term}`;
  const known = tests.get(id);
  if (known) return known;
  const words = term.split(/\s+/).map((word) => {
    const stem = word.endsWith("*") ? word.slice(0, -1) : word;
    const loose = word.endsWith("*") || (!isExact && stem.length > 3);
    const kept = word.endsWith("*") || !loose ? stem : stem.slice(0, Math.max(4, stem.length - 2));
    return literally(kept) + (word.endsWith("*") ? "[\\p{L}\\p{M}]*" : loose ? "[\\p{L}\\p{M}]{0,5}" : "");
  });
  // Scripts without spaces between words have no ends of words to look for.
  const isSpaceless =
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/u.test(
      term,
    );
  const [before, after] = isSpaceless ? ["", ""] : ["(?<![\\p{L}\\p{N}])", "(?![\\p{L}\\p{N}])"];
  const test = new RegExp(before + words.join("[\\s\\u00a0-]+") + after, "iu");
  tests.set(id, test);
  return test;
}
