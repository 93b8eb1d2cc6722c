import type { Book, Catalog } from "./book.js";

/**
 * The keys, as code writes them, whose text is another in a later state of a book, in any locale; undefined where that cannot
 * be told key by key.
 */
export function changedKeys(before: Book, later: Book): ReadonlySet<string> | undefined {
  const changed = new Set<string>();
  if (before.catalogs.length !== later.catalogs.length) return undefined;
  for (const [index, catalog] of later.catalogs.entries()) {
    const was = before.catalogs[index];
    if (was === catalog) continue;
    if (was?.locale !== catalog.locale || was.namespace !== catalog.namespace) return undefined;
    const keys = changedEntries(was, catalog);
    if (!keys) return undefined;
    for (const key of keys) changed.add(later.codeKey(catalog.namespace, key));
  }
  return changed;
}

const known = new WeakMap<Catalog, { readonly before: Catalog; readonly keys: readonly string[] }>();

/**
 * The keys of the entries that came or went from one state of a catalog to a later one, that have another text, or whose text
 * the file writes otherwise; undefined where a key stands twice, so that it cannot be told.
 */
export function changedEntries(before: Catalog, later: Catalog): readonly string[] | undefined {
  if (before === later) return [];
  if (!before.table.isUnique || !later.table.isUnique) return undefined;
  const made = known.get(later);
  if (made?.before === before) return made.keys;
  const keys: string[] = [];
  let met = 0;
  for (let index = 0; index < later.table.size; index++) {
    const key = later.table.keyAt(index);
    const there = before.table.findNear(index, key);
    if (there >= 0) met++;
    if (there < 0 || !isSame(before, there, later, index)) keys.push(key);
  }
  if (met < before.table.size)
    for (let index = 0; index < before.table.size; index++) {
      const key = before.table.keyAt(index);
      if (later.table.find(key) < 0) keys.push(key);
    }
  known.set(later, { before, keys });
  // Or each state of the catalog would keep the one before it.
  known.delete(before);
  return keys;
}

function isSame(one: Catalog, at: number, other: Catalog, there: number): boolean {
  return (
    one.table.isTextAt(at) === other.table.isTextAt(there) &&
    one.table.textAt(at) === other.table.textAt(there) &&
    writtenAt(one, at) === writtenAt(other, there)
  );
}

/** How a file writes an entry's text; undefined where that is the text. */
function writtenAt({ table, content }: Catalog, index: number): string | undefined {
  if (table.plainStartAt(index) >= 0) return undefined;
  const { start, end } = table.entryAt(index).valueSpan;
  return content.slice(start, end);
}
