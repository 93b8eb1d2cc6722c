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
    if (!was.table.isUnique || !catalog.table.isUnique) return undefined;
    const note = (key: string) => changed.add(later.codeKey(catalog.namespace, key));
    noteChanges(was, catalog, note);
  }
  return changed;
}

function noteChanges(
  { table: before }: Catalog,
  { table: later }: Catalog,
  note: (key: string) => void,
): void {
  let met = 0;
  for (let index = 0; index < later.size; index++) {
    const key = later.keyAt(index);
    const there = before.findNear(index, key);
    if (there >= 0) met++;
    if (
      there < 0 ||
      before.textAt(there) !== later.textAt(index) ||
      before.isTextAt(there) !== later.isTextAt(index)
    )
      note(key);
  }
  if (met === before.size) return;
  for (let index = 0; index < before.size; index++) {
    const key = before.keyAt(index);
    if (later.find(key) < 0) note(key);
  }
}
