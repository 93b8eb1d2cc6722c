import { isWhole, type Book, type Catalog } from "../catalog/book.js";
import type { MessageReader } from "../message/parse.js";
import type { Ledger } from "./ledger.js";
import { wordsIn } from "./outstanding.js";
import { progressOf } from "./progress.js";

/** How far one locale of a book is. Counts are keys. */
export interface LocaleBalance {
  readonly locale: string;
  /** Translated, reviewed or final, stale ones included. */
  readonly translated: number;
  /** Reviewed or final. */
  readonly reviewed: number;
  readonly stale: number;
  /** There, and not translated yet. */
  readonly initial: number;
  readonly missing: number;
  readonly extra: number;
  /** Words of the source texts that are missing, initial or stale. */
  readonly words: number;
  /** Translated and not stale, over all keys of the source; 1 for a book without keys, 0 where its source cannot be read. */
  readonly share: number;
}

export interface BookBalance {
  readonly name: string;
  readonly keys: number;
  readonly locales: readonly LocaleBalance[];
  /** Set where the book was counted by namespace. */
  readonly namespace?: string;
  /** Catalogs that cannot be read: their keys count as missing. */
  readonly unreadable: readonly string[];
}

/** Counts how far every target locale of a book is. A key that a locale inherits counts by the parent's translation. */
export function balanceBook(
  book: Book,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
  locales?: readonly string[],
  namespace?: string,
): BookBalance {
  const isMeant = (one: Catalog) => namespace === undefined || one.namespace === namespace;
  const sources = book.catalogsOf(book.sourceLocale).filter(isMeant);
  const keys = sources.reduce((sum, catalog) => sum + catalog.byKey.size, 0);
  return {
    name: book.config.name,
    keys,
    locales: book.targetLocales
      .filter((locale) => !locales || locales.includes(locale))
      .map((locale) => balanceLocale(book, locale, reader, ledger, isMeant)),
    ...(namespace !== undefined && { namespace }),
    unreadable: book.catalogs.filter((one) => !isWhole(one) && isMeant(one)).map((catalog) => catalog.file),
  };
}

function balanceLocale(
  book: Book,
  locale: string,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
  isMeant: (catalog: Catalog) => boolean,
): LocaleBalance {
  const count = { translated: 0, reviewed: 0, stale: 0, initial: 0, missing: 0, extra: 0, words: 0 };
  let wanted = 0;
  for (const { source, message, found } of progressOf(book, locale, reader, ledger)) {
    if (!isMeant(source)) continue;
    wanted++;
    const { state, stale } = found?.standing ?? {};
    if (!found) count.missing++;
    else if (state === "initial") count.initial++;
    else count.translated++;
    if (state === "reviewed" || state === "final") count.reviewed++;
    if (stale) count.stale++;
    if (!found || state === "initial" || stale) count.words += wordsIn(message);
  }
  for (const catalog of book.catalogsOf(locale)) {
    if (!isMeant(catalog)) continue;
    const source = book.catalog(book.sourceLocale, catalog.namespace);
    for (const key of catalog.byKey.keys())
      if (!source?.byKey.has(key) && !book.allows(locale, book.codeKey(catalog.namespace, key)))
        count.extra++;
  }
  // Of a source that cannot be read nobody knows how much of it is translated.
  const isKnown = book.catalogsOf(book.sourceLocale).every((source) => !isMeant(source) || isWhole(source));
  const share =
    wanted === 0
      ? isKnown
        ? 1
        : 0
      : Math.round((10_000 * (count.translated - count.stale)) / wanted) / 10_000;
  return { locale, ...count, share };
}
