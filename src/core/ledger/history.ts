import { loadBook } from "../catalog/book.js";
import type { BookConfig, Config } from "../config/schema.js";
import type { Files } from "../files/files.js";

/** One commit: its day, and the catalogs that it changed as they were then. */
export interface CatalogRevision {
  readonly date: string;
  readonly files: Files;
}

/** What a translation was made from, as far as history shows. */
export interface Origin {
  /** The source text as it was when the translation was last changed. */
  readonly source: string;
  /** The day of that change, as YYYY-MM-DD. */
  readonly date: string;
}

/**
 * Works out from commits, the oldest first, what each translation of a book was made from: the source text of the time
 * when the translation was last changed. A lookup by locale and full key; undefined for what history does not show.
 */
export function workOutOrigins(
  config: Config,
  bookConfig: BookConfig,
  revisions: Iterable<CatalogRevision>,
): (locale: string, fullKey: string, text: string) => Origin | undefined {
  const sources = new Map<string, string>();
  const targets = new Map<string, { readonly text: string; readonly origin: Origin | undefined }>();
  for (const { date, files } of revisions) {
    const book = loadBook(files, config, bookConfig);
    const changed = book.catalogs.filter(({ exists }) => exists);
    // A commit that changes both brought the translation up to the source of its own.
    for (const catalog of changed)
      if (catalog.locale === book.sourceLocale)
        for (const entry of catalog.byKey.values())
          sources.set(book.fullKey(catalog.namespace, entry.key), entry.text);
    for (const catalog of changed) {
      if (catalog.locale === book.sourceLocale) continue;
      for (const entry of catalog.byKey.values()) {
        const full = book.fullKey(catalog.namespace, entry.key);
        const id = `${catalog.locale}\u0000${full}`;
        if (targets.get(id)?.text === entry.text) continue;
        const source = sources.get(full);
        targets.set(id, {
          text: entry.text,
          origin: source === undefined ? undefined : { source, date },
        });
      }
    }
  }
  return (locale, fullKey, text) => {
    const known = targets.get(`${locale}\u0000${fullKey}`);
    // A text that is not committed as it is now was changed since: it counts as made from the source of today.
    return known?.text === text ? known.origin : undefined;
  };
}
