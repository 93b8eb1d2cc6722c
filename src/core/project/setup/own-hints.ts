import { hintedEntry, linesAbove, type Book, type Catalog } from "../../catalog/book.js";
import { filledHint, type HintedEntry, type OwnHints } from "../../catalog/hints.js";
import type { Entry } from "../../catalog/model.js";

/** Above fewer keys the same comment is no habit: one that every locale's file has may name its key by chance. */
const fewest = 3;

/** How often a comment stands above entries, and above those whose text is still the source's. */
interface Count {
  readonly keys: Set<string>;
  all: number;
  open: number;
}

/** The comments that a project keeps above the entries of a book for its translators. */
export function findOwnHints(book: Book): OwnHints | undefined {
  const counts = new Map<string, Count>();
  let translated = 0;
  for (const locale of book.targetLocales)
    for (const catalog of book.catalogsOf(locale)) {
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (!source || !catalog.format.comments || !/(?:^|\s)(?:\/\/|#|\/\*)/.test(catalog.content)) continue;
      for (const entry of catalog.byKey.values()) {
        const from = source.byKey.get(entry.key);
        if (from) translated += count(counts, catalog, entry, source, from) ? 1 : 0;
      }
    }
  const most = (test: (one: Count, pattern: string) => boolean) =>
    [...counts]
      .filter(([pattern, one]) => one.keys.size >= fewest && test(one, pattern))
      .sort((a, b) => b[1].all - a[1].all)[0]?.[0];
  const isFilled = (pattern: string) => /\{(?:text|key|entry)\}/.test(pattern);
  // What stands above translations too is there to show the source text.
  const shown = most(
    (one, pattern) => isFilled(pattern) && one.open < 0.9 * one.all && one.all >= 0.5 * translated,
  );
  const open = most(
    (one, pattern) =>
      pattern !== shown && one.open >= 0.8 * one.all && (isFilled(pattern) || asks.test(pattern)),
  );
  if (shown === undefined && open === undefined) return undefined;
  return { ...(shown !== undefined && { source: shown }), ...(open !== undefined && { open }) };
}

/** What a comment says that asks for a translation. */
const asks = /\b(?:TODO|FIXME|translat|untranslated|missing|new\b)/i;

/** Counts the comments above an entry; says whether the entry is translated. */
function count(
  counts: Map<string, Count>,
  catalog: Catalog,
  entry: Entry,
  source: Catalog,
  from: Entry,
): boolean {
  const isOpen = entry.text === from.text || entry.text === "";
  const hinted = hintedEntry(source, from);
  for (const { text } of linesAbove(catalog, entry)) {
    const pattern = patternOf(text, hinted);
    if (pattern === undefined) continue;
    const one = counts.get(pattern) ?? { keys: new Set(), all: 0, open: 0 };
    counts.set(pattern, one);
    one.all++;
    one.keys.add(entry.key);
    if (isOpen) one.open++;
  }
  return !isOpen;
}

/** A comment with what it says of an entry taken out; undefined where it is no more than that. */
function patternOf(said: string, source: HintedEntry): string | undefined {
  if (said.startsWith("fond:") || said.length > 500) return undefined;
  let pattern = said;
  for (const name of ["entry", "text", "key"] as const) {
    const value = filledHint(`{${name}}`, source);
    const at = value.length < 2 ? -1 : pattern.indexOf(value);
    // A short text is part of a word by chance.
    if (at < 0 || (value.length < 4 && pattern !== value && /\w/.test(pattern[at + value.length] ?? "")))
      continue;
    pattern = pattern.slice(0, at) + `{${name}}` + pattern.slice(at + value.length);
    if (name === "entry") break;
  }
  return /^\s*\{text\}\s*$/.test(pattern) ? undefined : pattern;
}
