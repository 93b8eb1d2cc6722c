import type { Book } from "../catalog/book.js";

/** The keys of the source catalogs as code writes them. */
export function sourceKeys(book: Book): ReadonlySet<string> {
  const sources = book.catalogsOf(book.sourceLocale);
  return new Set(
    sources.flatMap((catalog) =>
      [...catalog.byKey.keys()].map((key) => book.codeKey(catalog.namespace, key)),
    ),
  );
}
