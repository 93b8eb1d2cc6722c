import { isWhole, type Book, type Catalog } from "../catalog/book.js";
import { parentsOf } from "../locale/fallback.js";
import type { MessageReader } from "../message/parse.js";
import type { Ledger } from "./ledger.js";
import { wordsIn } from "./outstanding.js";
import { standingOf } from "./standing.js";

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
  /** Translated and not stale, over all keys of the source; 1 for a book without keys. */
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
  const sources = book.catalogs.filter((one) => one.locale === book.sourceLocale && isMeant(one));
  const keys = sources.reduce((sum, catalog) => sum + catalog.byKey.size, 0);
  return {
    name: book.config.name,
    keys,
    locales: book.targetLocales
      .filter((locale) => !locales || locales.includes(locale))
      .map((locale) => balanceLocale(book, locale, reader, ledger, keys, isMeant)),
    ...(namespace !== undefined && { namespace }),
    unreadable: book.catalogs.filter((one) => !isWhole(one) && isMeant(one)).map((catalog) => catalog.file),
  };
}

function balanceLocale(
  book: Book,
  locale: string,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
  keys: number,
  isMeant: (catalog: Catalog) => boolean,
): LocaleBalance {
  const count = { translated: 0, reviewed: 0, stale: 0, initial: 0, missing: 0, extra: 0, words: 0 };
  let spared = 0;
  const chain = [
    locale,
    ...parentsOf(locale).filter(
      (parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent),
    ),
  ];
  for (const source of book.catalogs) {
    if (source.locale !== book.sourceLocale || !isMeant(source)) continue;
    for (const entry of source.byKey.values()) {
      if (!book.expects(locale, book.codeKey(source.namespace, entry.key))) {
        spared++;
        continue;
      }
      const holder = chain.find((one) => book.catalog(one, source.namespace)?.byKey.has(entry.key));
      const there =
        holder === undefined ? undefined : book.catalog(holder, source.namespace)?.byKey.get(entry.key);
      if (holder === undefined || !there) {
        count.missing++;
        count.words += wordsIn(reader.read(entry.text, book.sourceLocale, entry.key));
        continue;
      }
      const record = ledger(holder).records.get(book.fullKey(source.namespace, entry.key));
      const message = reader.read(entry.text, book.sourceLocale, entry.key);
      const { state, stale } = standingOf({ record, source: entry.text, message, text: there.text });
      if (state === "initial" || stale) count.words += wordsIn(message);
      if (state === "initial") count.initial++;
      else count.translated++;
      if (state === "reviewed" || state === "final") count.reviewed++;
      if (stale) count.stale++;
    }
  }
  for (const catalog of book.catalogs) {
    if (catalog.locale !== locale || !isMeant(catalog)) continue;
    const source = book.catalog(book.sourceLocale, catalog.namespace);
    for (const key of catalog.byKey.keys())
      if (!source?.byKey.has(key) && !book.allows(locale, book.codeKey(catalog.namespace, key)))
        count.extra++;
  }
  const wanted = keys - spared;
  const share = wanted === 0 ? 1 : Math.round((10_000 * (count.translated - count.stale)) / wanted) / 10_000;
  return { locale, ...count, share };
}
