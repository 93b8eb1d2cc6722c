import type { Book } from "../catalog/book.js";
import type { MessageReader, ReadMessage } from "../message/parse.js";
import { parentsOf } from "../locale/fallback.js";
import type { Ledger } from "./ledger.js";
import { sourceTextOf, type SourceTexts } from "./source-texts.js";
import { standingOf } from "./standing.js";

/** One text that a locale's translators still have to do. */
export interface OutstandingText {
  readonly book: string;
  readonly locale: string;
  readonly namespace?: string;
  readonly key: string;
  readonly what: "missing" | "initial" | "stale";
  readonly source: string;
  /** The source text that a stale translation was made from, where the ledger still has it. */
  readonly former?: string;
  /** The text that is there. */
  readonly text?: string;
  readonly file: string;
  readonly line?: number;
  /** Words of the source text. */
  readonly words: number;
}

/** Lists what is outstanding in the target locales of a book, in the order of the source. */
export function outstandingTexts(
  book: Book,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
  sources: SourceTexts,
  locales?: readonly string[],
): OutstandingText[] {
  const found: OutstandingText[] = [];
  for (const locale of book.targetLocales) {
    if (locales && !locales.includes(locale)) continue;
    const chain = [
      locale,
      ...parentsOf(locale).filter((one) => one !== book.sourceLocale && book.targetLocales.includes(one)),
    ];
    for (const source of book.catalogs) {
      if (source.locale !== book.sourceLocale) continue;
      for (const entry of source.byKey.values()) {
        if (!book.expects(locale, book.codeKey(source.namespace, entry.key))) continue;
        const message = reader.read(entry.text, book.sourceLocale, entry.key);
        const base = {
          book: book.config.name,
          locale,
          ...(source.namespace !== undefined && { namespace: source.namespace }),
          key: entry.key,
          source: entry.text,
          words: wordsIn(message),
        };
        const holder = chain.find((one) => book.catalog(one, source.namespace)?.byKey.has(entry.key));
        const catalog = book.catalog(holder ?? locale, source.namespace);
        const there = catalog?.byKey.get(entry.key);
        const file = catalog?.file ?? book.layout.path(locale, source.namespace);
        if (!catalog || !there) {
          found.push({ ...base, what: "missing", file });
          continue;
        }
        if (holder !== locale) continue;
        const full = book.fullKey(source.namespace, entry.key);
        const record = ledger(locale).records.get(full);
        const { state, stale } = standingOf({ record, source: entry.text, message, text: there.text });
        if (state !== "initial" && !stale) continue;
        const former = stale && record ? sourceTextOf(sources, full, record.source) : undefined;
        found.push({
          ...base,
          what: stale ? "stale" : "initial",
          ...(former !== undefined && { former }),
          text: there.text,
          file,
          line: catalog.lines.position(there.keySpan.start).line,
        });
      }
    }
  }
  return found;
}

/** The words of a message that a translator has to do: those of all branches, without arguments. */
export function wordsIn(message: ReadMessage): number {
  return message.facts.text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu)?.length ?? 0;
}
