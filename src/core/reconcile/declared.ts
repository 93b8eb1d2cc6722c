import { catalogEdits, pathsIn, type Book } from "../catalog/book.js";
import { declaredPaths, withDeclared } from "../catalog/declared.js";
import { declaredDifferences } from "../catalog/declared-differences.js";
import type { FileChange } from "../plan/plan.js";

/**
 * What makes types and source catalogs agree: members for what is not declared, empty texts for what is not defined. Where
 * several catalogs have the same types it is not known which one a text would belong to: it is left to lint.
 */
export function declaredChanges(book: Book): {
  readonly changes: readonly FileChange[];
  readonly summary: Readonly<Record<string, number>>;
} {
  const edits = catalogEdits();
  const types: FileChange[] = [];
  let members = 0;
  let texts = 0;
  for (const { declared, undefined: missing, undeclared } of declaredDifferences(book)) {
    const { file, text, bom, group, catalogs } = declared;
    const added = undeclared.flatMap(({ entry }) => (entry.kind === "code" ? [] : [entry.path]));
    const after = withDeclared(declared, added, catalogs.flatMap(pathsIn));
    if (after !== text) types.push({ file, before: text, after, bom });
    members += added.length;
    const [only, other] = catalogs;
    if (missing.length === 0 || !group || !only || other) continue;
    texts += missing.length;
    edits.edit(only, {
      add: missing.map(({ path }) => ({ path, text: "" })),
      order: declaredPaths(group).map(({ path }) => path),
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
