import { posix } from "node:path";
import { pathsIn, type Book } from "../../catalog/book.js";
import { declaredPaths, readDeclared } from "../../catalog/declared.js";
import { pathId } from "../../catalog/formats/edit-tree.js";
import type { Files } from "../../files/files.js";

/** The file of types that declares the texts of a book, as `declared` names it; `types` are all that the project has. */
export function findDeclared(files: Files, book: Book, types: readonly string[]): string | undefined {
  const found = new Set<string>();
  for (const source of book.catalogsOf(book.sourceLocale)) {
    const folder = posix.dirname(source.file);
    const paths = pathsIn(source);
    const keys = new Set(paths.map(pathId));
    const declares = types.find((file) => {
      const isNear = posix.relative(folder, file).split("/").length <= mostSteps;
      const read = isNear ? files.read(file) : undefined;
      if (!read?.ok) return false;
      const { group } = readDeclared(file, read.text, read.bom, paths);
      const common = group ? declaredPaths(group).filter(({ path }) => keys.has(pathId(path))).length : 0;
      return common > 1 && common >= 0.6 * keys.size;
    });
    if (declares === undefined) continue;
    const path = posix.relative(folder, declares);
    found.add(path.startsWith(".") ? path : `./${path}`);
  }
  const [only] = found;
  return found.size === 1 ? only : undefined;
}

/** Types that are farther from a catalog than so many names in the path declare other things. */
const mostSteps = 4;
