import { createRequire } from "node:module";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import * as v from "valibot";
import type { FileChange } from "../core/plan/plan.js";
import type { Files } from "../core/files/files.js";

/** The part of the formatter's interface that is used; the same in all its versions of these years. */
interface Formatter {
  readonly format: (text: string, options: object) => string | Promise<string>;
  readonly resolveConfig: (file: string, options: object) => Promise<object | null>;
  readonly getFileInfo: (file: string, options: object) => Promise<{ readonly ignored: boolean }>;
}

const manifest = v.object({
  dependencies: v.optional(v.record(v.string(), v.string())),
  devDependencies: v.optional(v.record(v.string(), v.string())),
});

/**
 * The changes with the files that the project's own formatter had formatted as they were before, formatted once more: new
 * statements come out as those around them. Only a formatter that package.json names and that is installed there is asked; a
 * file that it cannot read, is told to leave, or would have written otherwise before stays as it is.
 */
export async function formattedAsBefore(
  root: string,
  files: Files,
  changes: readonly FileChange[],
): Promise<readonly FileChange[]> {
  const formatter = changes.length > 0 ? await formatterOf(root, files) : undefined;
  if (!formatter) return changes;
  return Promise.all(
    changes.map(async (change) => {
      const { file, before, after } = change;
      if (before === undefined || after === undefined) return change;
      const formatted = await formatOne(formatter, root, file, before, after);
      return formatted === undefined ? change : { ...change, after: formatted };
    }),
  );
}

async function formatOne(
  { format, resolveConfig, getFileInfo }: Formatter,
  root: string,
  file: string,
  before: string,
  after: string,
): Promise<string | undefined> {
  const filepath = join(root, file);
  try {
    const { ignored } = await getFileInfo(filepath, { ignorePath: join(root, ".prettierignore") });
    if (ignored) return undefined;
    const settings = await resolveConfig(filepath, { editorconfig: true });
    const options = { ...settings, filepath };
    return (await format(before, options)) === before ? await format(after, options) : undefined;
  } catch {
    // It has no parser for the file, or cannot read it.
    return undefined;
  }
}

async function formatterOf(root: string, files: Files): Promise<Formatter | undefined> {
  const name = "prettier";
  const read = files.read("package.json");
  if (!read.ok) return undefined;
  try {
    const { dependencies, devDependencies } = v.parse(manifest, JSON.parse(read.text));
    if (dependencies?.[name] === undefined && devDependencies?.[name] === undefined) return undefined;
    const found = createRequire(join(resolve(root), "package.json")).resolve(name);
    const loaded = (await import(pathToFileURL(found).href)) as Formatter & { readonly default?: Formatter };
    return loaded.default ?? loaded;
  } catch {
    // It is not installed here.
    return undefined;
  }
}
