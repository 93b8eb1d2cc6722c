import type { Book, Catalog } from "./book.js";

/**
 * The keys, as code writes them, whose text is another in a later state of a book, in any locale; undefined where that cannot
 * be told key by key.
 */
export function changedKeys(before: Book, now: Book): ReadonlySet<string> | undefined {
  const changed = new Set<string>();
  if (before.catalogs.length !== now.catalogs.length) return undefined;
  for (const [index, catalog] of now.catalogs.entries()) {
    const was = before.catalogs[index];
    if (was === catalog) continue;
    if (was?.locale !== catalog.locale || was.namespace !== catalog.namespace) return undefined;
    if (!was.table.isUnique || !catalog.table.isUnique) return undefined;
    const note = (key: string) => changed.add(now.codeKey(catalog.namespace, key));
    noteChanges(was, catalog, note);
  }
  return changed;
}

function noteChanges({ table: before }: Catalog, { table: now }: Catalog, note: (key: string) => void): void {
  let met = 0;
  for (let index = 0; index < now.size; index++) {
    const key = now.keyAt(index);
    const there = index < before.size && before.keyAt(index) === key ? index : before.find(key);
    if (there >= 0) met++;
    if (
      there < 0 ||
      before.textAt(there) !== now.textAt(index) ||
      before.isTextAt(there) !== now.isTextAt(index)
    )
      note(key);
  }
  if (met === before.size) return;
  for (let index = 0; index < before.size; index++) {
    const key = before.keyAt(index);
    if (now.find(key) < 0) note(key);
  }
}
