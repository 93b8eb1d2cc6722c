import { scriptOf } from "../../../locale/script.js";
import { isTimePattern } from "../../time-pattern.js";
import type { Book, Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { mayStaySame } from "../../../ledger/standing.js";
import { languageName } from "../../plural-words.js";
import { languageOf } from "../../text-parts.js";
import { partEnds, splitAtLast } from "../../../text/separators.js";
import { defineRule, type RuleContext } from "../../rule.js";

export const textUntranslated = defineRule({
  id: "text/untranslated",
  level: "warning",
  summary: "Translation that is the same as the source.",
  why: "Users read a foreign language in the middle of their own. Not reported: texts without words, words in capitals (`PDF`), single words of up to three letters, variants of the source language, countries, months and days that the locale calls so, texts that the ledger records as translated, names and words that several translations keep, while others do not, and words that the language uses in other texts of its own (`Version`). A locale of which most is the source's has one finding, which says how much.",
  messages: {
    mostly: {
      message: "{same} of {texts} texts are those of the source: {language} is hardly begun",
      remedy: "translate them, or take the locale out until somebody does",
    },
    untranslated: { message: "not translated", remedy: "translate it into {language}" },
  },
  looks: "around",
  examples: {
    bad: [{ source: "Choose a sailing", target: "Choose a sailing" }],
    good: [
      { source: "Choose a sailing", target: "Abfahrt wählen" },
      { source: "OK", target: "OK" },
      { source: "{count} / {total}", target: "{count} / {total}" },
      { locale: "en-GB", source: "Choose a sailing", target: "Choose a sailing" },
    ],
  },
  needs: ["same"],
  pair(target, source, context) {
    const { catalog, entry, message, locale } = target;
    if (
      entry.text !== source.entry.text ||
      entry.kind !== "text" ||
      entry.text.trim() === "" ||
      isTimePattern(entry.text) ||
      mayStaySame(message)
    )
      return;
    if (languageOf(locale) === languageOf(context.book.sourceLocale)) return;
    if (isHardlyBegun(locale, context)) return;
    const record = context.ledger(locale).record(context.book.fullKey(catalog.namespace, entry.key));
    if (record && record.state !== "initial") return;
    if (ownNames(locale).has(entry.text.toLowerCase())) return;
    const keepers = keepersOf(entry, catalog, context);
    const words = wordsOf(message.facts.text);
    const isWord = words.length === 1;
    const isShared = isSharedBySeveral(keepers);
    if (isName(entry, keepers) || (isWord && isShared)) return;
    const isOwn = words.length > 0 && words.every((word) => usesWord(catalog, word, context));
    if (isWord && isOwn) return;
    const isDoubtful =
      isOwn || isShared || (isWord && isAlone(catalog, context)) || isOfProgram(entry.key, context);
    target.report(
      "untranslated",
      { language: languageName(locale) },
      { severity: isDoubtful ? "info" : undefined },
    );
  },
  book(context) {
    const { book } = context;
    for (const locale of book.targetLocales) {
      const [catalog] = book.catalogsOf(locale);
      if (!catalog || languageOf(locale) === languageOf(book.sourceLocale)) continue;
      if (!isHardlyBegun(locale, context)) continue;
      const { texts } = keptIn(locale, context);
      const language = languageName(locale);
      context.reportFile(catalog.file, "mostly", { same: texts.same, texts: texts.count, language });
    }
  },
});

/** How much of a locale's sentences may be as the source has them for what it keeps to be kept on purpose. */
const mostKept = 0.2;
/** With fewer sentences, all texts count. */
const leastSentences = 20;

/** What is worked out once of a book, which is another object when one of its catalogs changes. */
interface Kept {
  /** How often texts of keys that end alike are kept, by how they end. */
  families: ReadonlyMap<string, { readonly kept: number; readonly all: number }> | undefined;
  readonly shares: Map<string, LocaleKept>;
  readonly keepers: Map<string, Keepers>;
}

const keptOfBooks = new WeakMap<Book, Kept>();

function keptOf(book: Book): Kept {
  let kept = keptOfBooks.get(book);
  if (!kept) keptOfBooks.set(book, (kept = { families: undefined, shares: new Map(), keepers: new Map() }));
  return kept;
}

/** How much of what a locale has is the source's: of all its texts, and of its sentences, since lists of names stay as they are. */
interface LocaleKept {
  readonly texts: { same: number; count: number };
  readonly sentences: { same: number; count: number };
}

function keptIn(locale: string, { book }: Pick<RuleContext, "book">): LocaleKept {
  const { shares } = keptOf(book);
  const known = shares.get(locale);
  if (known !== undefined) return known;
  const kept: LocaleKept = { texts: { same: 0, count: 0 }, sentences: { same: 0, count: 0 } };
  for (const catalog of book.catalogsOf(locale)) {
    const counted = countKept(catalog, book.catalog(book.sourceLocale, catalog.namespace));
    for (const part of ["texts", "sentences"] as const) {
      kept[part].same += counted[part].same;
      kept[part].count += counted[part].count;
    }
  }
  shares.set(locale, kept);
  return kept;
}

const counts = new WeakMap<Catalog, { readonly source: Catalog | undefined; readonly counted: LocaleKept }>();

/** The same of one catalog: most are as they were when another changes. */
function countKept(catalog: Catalog, source: Catalog | undefined): LocaleKept {
  const known = counts.get(catalog);
  if (known && known.source === source) return known.counted;
  const counted: LocaleKept = { texts: { same: 0, count: 0 }, sentences: { same: 0, count: 0 } };
  const { table } = catalog;
  for (let at = 0; at < table.size; at++) {
    const key = table.keyAt(at);
    // Of a duplicate key the last counts.
    if (!table.isUnique && table.find(key) !== at) continue;
    const there = source ? source.table.findNear(at, key) : -1;
    const isText =
      there >= 0 && (source?.table.isTextAt(there) || source?.table.entryAt(there).kind !== "code");
    const from = isText ? source?.table.textAt(there) : undefined;
    const isSame = from !== undefined && from === table.textAt(at);
    const isSentence = from !== undefined && /\p{Ll} \p{Ll}/u.test(from);
    for (const part of isSentence ? [counted.texts, counted.sentences] : [counted.texts]) {
      part.count++;
      if (isSame) part.same++;
    }
  }
  counts.set(catalog, { source, counted });
  return counted;
}

/** How much of what a locale has is the source's: of its sentences where it has several, in all of its catalogs. */
function shareKept(locale: string, context: Pick<RuleContext, "book" | "sourceOf">): number {
  const { texts, sentences } = keptIn(locale, context);
  const { same, count } = sentences.count < leastSentences ? texts : sentences;
  return same / Math.max(count, 1);
}

/** So many texts, and this part of them and of the sentences, are the source's in a locale that is hardly begun. */
const fewestKept = 30;
const mostOfAll = 0.6;

function isHardlyBegun(locale: string, context: Pick<RuleContext, "book" | "sourceOf">): boolean {
  const { texts } = keptIn(locale, context);
  return (
    texts.same >= fewestKept &&
    texts.same >= texts.count * mostOfAll &&
    shareKept(locale, context) >= mostOfAll
  );
}

/** Whether a text is made of words such as names are; long names have letters that no other text has: `Great Lake Ferry (GLF)`. */
function isLikeName(text: string): boolean {
  const words = text.trim().split(/\s+/);
  const most = words.some((word) => /^\(?\p{Lu}{2,6}\)?$|\p{Ll}\p{Lu}/u.test(word)) ? 6 : 3;
  return words.length <= most && words.every((word) => /^[^\p{Ll}]|\p{Ll}\p{Lu}/u.test(word));
}

/** Which translations that keep hardly any sentence of the source keep a text of it, of how many, by whether its script is theirs. */
interface Keepers {
  readonly near: { kept: number; all: number };
  readonly far: { kept: number; all: number };
}

function keepersOf(
  { key, text }: Entry,
  { namespace }: Catalog,
  context: Pick<RuleContext, "book" | "sourceOf">,
): Keepers {
  const { book } = context;
  const known = keptOf(book).keepers;
  const id = `${namespace ?? ""}\0${key}`;
  const made = known.get(id);
  if (made) return made;
  const script = scriptOf(book.sourceLocale);
  const keepers: Keepers = { near: { kept: 0, all: 0 }, far: { kept: 0, all: 0 } };
  for (const locale of book.targetLocales) {
    const catalog = book.catalog(locale, namespace);
    const own = catalog?.byKey.get(key);
    if (!own || shareKept(locale, context) >= mostKept) continue;
    const side = scriptOf(locale) === script ? keepers.near : keepers.far;
    side.all++;
    if (own.text === text) side.kept++;
  }
  known.set(id, keepers);
  return keepers;
}

/** The words of a text in lower case, without its values. */
function wordsOf(text: string): readonly string[] {
  return (text.match(/\p{L}[\p{L}\p{M}'’-]*/gu) ?? []).map((word) => word.toLowerCase());
}

/** So many texts of keys that end alike, in all languages, and this part of them kept, are for programs: `functions.sum.args`. */
const enoughOfFamily = 20;
const mostOfFamily = 0.8;

/** Whether hardly any language has words of its own for keys that end as one does. */
function isOfProgram(key: string, context: RuleContext): boolean {
  const { book } = context;
  const kept = keptOf(book);
  kept.families ??= familiesOf(context);
  const [, name] = splitAtLast(key, partEnds(book.config));
  const { kept: count = 0, all = 0 } = kept.families.get(name) ?? {};
  return all >= enoughOfFamily && count >= all * mostOfFamily;
}

function familiesOf(context: RuleContext): ReadonlyMap<string, { kept: number; all: number }> {
  const { book } = context;
  const ends = partEnds(book.config);
  const families = new Map<string, { kept: number; all: number }>();
  for (const source of book.catalogsOf(book.sourceLocale))
    for (const { key, text, kind } of source.byKey.values()) {
      if (kind !== "text") continue;
      const [, name] = splitAtLast(key, ends);
      const family = families.get(name) ?? { kept: 0, all: 0 };
      families.set(name, family);
      for (const locale of book.targetLocales) {
        const own = book.catalog(locale, source.namespace)?.byKey.get(key);
        if (!own || shareKept(locale, context) >= mostKept) continue;
        family.all++;
        if (own.text === text) family.kept++;
      }
    }
  return families;
}

/** So many texts of a language that are not the source's have a word that is its own as well: `Version`, `Page`, `Status`. */
const enoughTexts = 2;

const wordsOfCatalogs = new WeakMap<
  Catalog,
  { readonly source: Catalog | undefined; readonly counts: ReadonlyMap<string, number> }
>();

/** Whether a language uses a word of the source where it has texts of its own. */
function usesWord(own: Catalog, word: string, { book }: Pick<RuleContext, "book">): boolean {
  let count = 0;
  for (const catalog of book.catalogsOf(own.locale)) {
    count += wordCounts(catalog, book.catalog(book.sourceLocale, catalog.namespace)).get(word) ?? 0;
    if (count >= enoughTexts) return true;
  }
  return false;
}

/** In how many texts of a catalog that are not the source's each word stands. */
function wordCounts(catalog: Catalog, source: Catalog | undefined): ReadonlyMap<string, number> {
  const known = wordsOfCatalogs.get(catalog);
  if (known && known.source === source) return known.counts;
  const counts = new Map<string, number>();
  const { table } = catalog;
  for (let at = 0; at < table.size; at++) {
    const there = source ? source.table.findNear(at, table.keyAt(at)) : -1;
    const from = there >= 0 ? source?.table.textAt(there) : undefined;
    const text = table.textAt(at);
    if (from === undefined || text === undefined || from === text || isHardlyChanged(from, text)) continue;
    for (const word of new Set(wordsOf(text))) counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  wordsOfCatalogs.set(catalog, { source, counts });
  return counts;
}

/** Whether most words of a text are those of another: what is half translated has words of both languages. */
function isHardlyChanged(from: string, text: string): boolean {
  const words = new Set(wordsOf(from));
  const own = wordsOf(text);
  return own.filter((word) => words.has(word)).length * 2 > own.length;
}

/** How many translations keep a word that several languages have, and what part of them. */
const leastSharing = 3;
const leastShare = 0.4;
/** So many of those in the source's script keep a name. */
const leastNaming = 4;

/** Whether a text is a name: a translation into another script keeps it, or most of those into the source's script do. */
function isName({ text }: Entry, { near, far }: Keepers): boolean {
  if (!isLikeName(text)) return false;
  // Any text is the same everywhere while nobody has translated it yet: some have a name in words or letters of their own.
  const isWorkedOn = near.kept < near.all || far.kept < far.all;
  return far.kept > 0 || (isWorkedOn && near.kept >= leastNaming && near.kept * 2 >= near.all);
}

/** Whether several translations that keep little else keep a text, and some do not, so that it was looked at. */
function isSharedBySeveral({ near, far }: Keepers): boolean {
  const kept = near.kept + far.kept;
  const all = near.all + far.all;
  return kept >= leastSharing && kept >= all * leastShare && all - kept >= Math.max(2, all / 10);
}

/** Of so many texts or sentences at least so few are kept that a word among them is hardly one that was forgotten. */
const leastTexts = 100;
const fewestSentences = 5;
const hardlyAny = 0.05;

/**
 * Whether a translation keeps hardly anything of the source, whose script it is written in, or hardly any of its sentences: a word
 * is often the same in both.
 */
function isAlone(own: Catalog, context: Pick<RuleContext, "book" | "sourceOf">): boolean {
  if (scriptOf(own.locale) !== scriptOf(context.book.sourceLocale)) return false;
  const { sentences } = keptIn(own.locale, context);
  return (
    (own.byKey.size >= leastTexts && shareKept(own.locale, context) < hardlyAny) ||
    (sentences.count >= fewestSentences && sentences.same < sentences.count * hardlyAny)
  );
}

const namesByLocale = new Map<string, ReadonlySet<string>>();

/** What a locale calls the countries of the world, months and days, in lower case: many have one name in many languages. */
function ownNames(locale: string): ReadonlySet<string> {
  let names = namesByLocale.get(locale);
  if (!names) {
    const found = new Set<string>();
    const display = new Intl.DisplayNames([locale], { type: "region", fallback: "none" });
    const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    for (const first of letters)
      for (const second of letters) {
        const name = display.of(first + second);
        if (name !== undefined) found.add(name.toLowerCase());
      }
    for (const style of ["long", "short"] as const) {
      const month = new Intl.DateTimeFormat(locale, { month: style, timeZone: "UTC" });
      const day = new Intl.DateTimeFormat(locale, { weekday: style, timeZone: "UTC" });
      for (let at = 0; at < 12; at++) found.add(month.format(Date.UTC(2020, at, 1)).toLowerCase());
      for (let at = 1; at <= 7; at++) found.add(day.format(Date.UTC(2020, 0, at)).toLowerCase());
    }
    namesByLocale.set(locale, (names = found));
  }
  return names;
}
