import { posix } from "node:path";
import * as v from "valibot";
import { loadBook, pathsIn } from "../../catalog/book.js";
import { declaredPaths, readDeclared } from "../../catalog/declared.js";
import { pathId } from "../../catalog/formats/edit-tree.js";
import { configSchema } from "../../config/schema.js";
import type { Files } from "../../files/files.js";

/** The file of types that declares the texts of each book of a proposed configuration, as `declared` names it. */
export function findDeclared(files: Files, config: object): readonly (string | undefined)[] {
  const checked = v.safeParse(configSchema, config);
  const types = files.list({
    patterns: ["**/*.d.ts"],
    ignore: ["**/node_modules/**"],
    respectIgnoreFiles: true,
  });
  if (!checked.success || types.length === 0) return [];
  return checked.output.books.map((config) => {
    const book = loadBook(files, checked.output, config);
    const found = new Set<string>();
    for (const source of book.catalogsOf(book.sourceLocale)) {
      const folder = posix.dirname(source.file);
      const keys = new Set(pathsIn(source).map(pathId));
      const declares = types.find((file) => {
        const read =
          posix.dirname(posix.relative(folder, file)).replace(/[^/]/g, "").length > 2
            ? undefined
            : files.read(file);
        if (!read?.ok) return false;
        const { group } = readDeclared(file, read.text, read.bom, pathsIn(source));
        const common = group ? declaredPaths(group).filter(({ path }) => keys.has(pathId(path))).length : 0;
        return common > 1 && common >= 0.6 * keys.size;
      });
      if (declares === undefined) continue;
      const path = posix.relative(folder, declares);
      found.add(path.startsWith(".") ? path : `./${path}`);
    }
    const [only] = found;
    return found.size === 1 ? only : undefined;
  });
}
