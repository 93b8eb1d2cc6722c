import { isWhole, pathsIn, type Book, type Catalog, type Declaration } from "./book.js";
import { declaredPaths, type DeclaredMember } from "./declared.js";
import { pathId } from "./formats/edit-tree.js";
import type { Entry, EntryPath } from "./model.js";

/** What a file of types and its source catalogs do not have in common. */
export interface DeclaredDifference {
  readonly declared: Declaration;
  /** Declared, and nowhere defined. */
  readonly undefined: readonly { readonly path: EntryPath; readonly member: DeclaredMember }[];
  /** Defined, and not declared. */
  readonly undeclared: readonly { readonly catalog: Catalog; readonly entry: Entry }[];
}

/** Holds the source catalogs of a book against the types that declare their texts; not those that cannot be read. */
export function declaredDifferences(book: Book): readonly DeclaredDifference[] {
  return book.declarations().flatMap((declared): DeclaredDifference[] => {
    const { group, catalogs } = declared;
    if (!group || !catalogs.every(isWhole)) return [];
    const members = declaredPaths(group);
    const names = new Set(members.map(({ path }) => pathId(path)));
    // A group or list may be declared as one, and its texts are not.
    const there = new Set(
      catalogs.flatMap(pathsIn).flatMap((path) => path.map((_, at) => pathId(path.slice(0, at + 1)))),
    );
    const isDeclared = (path: EntryPath) => path.some((_, at) => names.has(pathId(path.slice(0, at + 1))));
    return [
      {
        declared,
        undefined: members.filter(({ path }) => !there.has(pathId(path))),
        undeclared: catalogs.flatMap((catalog) =>
          catalog.entries
            .filter(({ path }) => !isDeclared(path) && path.every((part) => typeof part === "string"))
            .map((entry) => ({ catalog, entry })),
        ),
      },
    ];
  });
}
