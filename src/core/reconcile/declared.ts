import { catalogEdits, isWhole, type Book, type Catalog } from "../catalog/book.js";
import { declaredPaths, withDeclared, type DeclaredMember, type DeclaredTexts } from "../catalog/declared.js";
import { pathId } from "../catalog/formats/edit-tree.js";
import type { Entry, EntryPath } from "../catalog/model.js";
import type { FileChange } from "../plan/plan.js";

/** What a file of types and its source catalog do not have in common. */
export interface DeclaredDifference {
  readonly catalog: Catalog;
  readonly declared: DeclaredTexts;
  /** Declared, and nowhere defined. */
  readonly undefined: readonly { readonly path: EntryPath; readonly member: DeclaredMember }[];
  /** Defined, and not declared. */
  readonly undeclared: readonly Entry[];
}

/** Holds the source catalogs of a book against the types that declare their texts; those that cannot be read are left out. */
export function declaredDifferences(book: Book): DeclaredDifference[] {
  return book.catalogsOf(book.sourceLocale).flatMap((catalog) => {
    const declared = catalog.exists && isWhole(catalog) ? book.declared(catalog) : undefined;
    if (!declared?.group) return [];
    const members = declaredPaths(declared.group);
    const names = new Set(members.map(({ path }) => pathId(path)));
    const there = new Set(catalog.entries.map(({ path }) => pathId(path)));
    // A list is declared as one, and its texts are not.
    const lists = new Set(
      catalog.entries.flatMap(({ path }) =>
        path.map((part, at) => (typeof part === "number" ? pathId(path.slice(0, at)) : "")),
      ),
    );
    const isGroup = (path: EntryPath) =>
      catalog.entries.some(
        (entry) => entry.path.length > path.length && path.every((part, at) => part === entry.path[at]),
      );
    return [
      {
        catalog,
        declared,
        undefined: members.filter(
          ({ path }) => !there.has(pathId(path)) && !lists.has(pathId(path)) && !isGroup(path),
        ),
        undeclared: catalog.entries.filter(
          ({ path }) =>
            !names.has(pathId(path)) &&
            !path.some((part) => typeof part === "number") &&
            !path.some((_, at) => at > 0 && names.has(pathId(path.slice(0, at)))),
        ),
      },
    ];
  });
}

/** What makes types and source catalogs agree: members for what is not declared, empty texts for what is not defined. */
export function declaredChanges(book: Book): {
  readonly changes: readonly FileChange[];
  readonly summary: Readonly<Record<string, number>>;
} {
  const edits = catalogEdits();
  const types: FileChange[] = [];
  let members = 0;
  let texts = 0;
  for (const { catalog, declared, undefined: missing, undeclared } of declaredDifferences(book)) {
    const added = undeclared.filter(({ kind }) => kind !== "code").map(({ path }) => path);
    const after = withDeclared(
      declared,
      added,
      catalog.entries.map(({ path }) => path),
    );
    if (after !== declared.text)
      types.push({ file: declared.file, before: declared.text, after, bom: declared.bom });
    members += added.length;
    texts += missing.length;
    if (missing.length > 0 && declared.group)
      edits.edit(catalog, {
        add: missing.map(({ path }) => ({ path, text: "" })),
        order: declaredPaths(declared.group).map(({ path }) => path),
      });
  }
  return {
    changes: [...types, ...edits.changes()],
    summary: {
      ...(members > 0 && { "texts declared": members }),
      ...(texts > 0 && { "texts defined, still empty": texts }),
    },
  };
}
