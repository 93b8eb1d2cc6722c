import type { Book } from "../catalog/book.js";

/** A test for the keys that a key put together in code may become; null stands for any part of a key. */
export function composedKeyTest(parts: readonly (string | null)[]): (key: string) => boolean {
  const pattern = parts
    .map((part) => (part === null ? ".+" : part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")))
    .join("");
  const expression = new RegExp(`^${pattern}$`, "s");
  return (key) => expression.test(key);
}

/** The keys of the source catalogs as code writes them. */
export function sourceKeys(book: Book): ReadonlySet<string> {
  const sources = book.catalogs.filter((catalog) => catalog.locale === book.sourceLocale);
  return new Set(
    sources.flatMap((catalog) =>
      [...catalog.byKey.keys()].map((key) => book.codeKey(catalog.namespace, key)),
    ),
  );
}
