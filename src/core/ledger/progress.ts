import type { Book, Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import { isVariantOf, parentsOf } from "../locale/fallback.js";
import type { MessageReader } from "../message/parse.js";
import type { ReadMessage } from "../message/read-message.js";
import type { Ledger, LedgerRecord } from "./ledger.js";
import { standingOf, type Standing } from "./standing.js";

/** How one source text stands in one locale. */
export interface Progress {
  readonly source: Catalog;
  readonly entry: Entry;
  /** The source text, read. */
  readonly message: ReadMessage;
  /** The translation, the locale's own or a parent's; undefined where there is none. */
  readonly found:
    | {
        readonly catalog: Catalog;
        readonly entry: Entry;
        readonly record: LedgerRecord | undefined;
        readonly standing: Standing;
      }
    | undefined;
}

/** Goes through the source texts that a locale should have, in the order of the source. What it inherits counts by its parent's translation. */
export function* progressOf(
  book: Book,
  locale: string,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
): Generator<Progress> {
  const chain = [
    locale,
    ...parentsOf(locale).filter((one) => one !== book.sourceLocale && book.targetLocales.includes(one)),
  ];
  for (const source of book.catalogsOf(book.sourceLocale)) {
    for (const entry of source.byKey.values()) {
      if (!book.expects(locale, book.codeKey(source.namespace, entry.key))) continue;
      const message = reader.read(entry.text, book.sourceLocale, entry.key);
      const catalog = chain
        .map((one) => book.catalog(one, source.namespace))
        .find((one) => one?.byKey.has(entry.key));
      const there = catalog?.byKey.get(entry.key);
      // A variant of the source holds what differs.
      if (!there && isVariantOf(locale, book.sourceLocale)) continue;
      if (!catalog || !there) {
        yield { source, entry, message, found: undefined };
        continue;
      }
      const record = ledger(catalog.locale).records.get(book.fullKey(source.namespace, entry.key));
      const standing = standingOf({ record, source: entry.text, message, text: there.text });
      yield { source, entry, message, found: { catalog, entry: there, record, standing } };
    }
  }
}
