import type { Files } from "../files/files.js";
import type { LookupShapes, SourceFile } from "./model.js";
import type * as FileReader from "./read-file.js";
import { loadGrammars } from "./readers/code/grammars.js";
import { languageOf } from "./languages/index.js";
import type { CodeLanguage } from "./languages/language.js";
import { dialectOf, hasOpenEnding, isMarkup } from "./dialects/index.js";
import { isScript } from "./readers/script/endings.js";

/** The readers, once they are loaded: with the parsers they need, that takes as long as the lint of a small project. */
let reader: typeof FileReader | undefined;

/** Whether there is a reader for a file, by its name. */
export function isReadable(file: string): boolean {
  return isScript(file) || isMarkup(file) || languageOf(file) !== undefined;
}

/**
 * Loads what reading these files needs, such as parsers and grammars; before any of them is read. `texts` gives the text of
 * those whose names do not say what they hold, as those of pages do not.
 */
export async function prepareReaders(
  files: Iterable<string>,
  texts?: Pick<Files, "read">,
  shapes?: Pick<LookupShapes, "dialect">,
): Promise<void> {
  const wanted = new Set<CodeLanguage>();
  let hasAny = false;
  for (const file of files) {
    hasAny = true;
    const language = languageOf(file);
    if (language) wanted.add(language);
    const read = hasOpenEnding(file) ? texts?.read(file) : undefined;
    const island = (shapes?.dialect?.(file) ?? dialectOf(file, read?.ok ? read.text : ""))?.language;
    if (island === "ruby" || island === "java" || island === "php") wanted.add(island);
  }
  if (hasAny) reader ??= await import("./read-file.js");
  await loadGrammars(wanted);
}

/** Reads a file of code by the reader that its name asks for, which must be prepared. Never throws on bad code. */
export function readSource(file: string, text: string, bom: boolean, shapes: LookupShapes): SourceFile {
  if (!reader) throw new Error("the readers are not loaded: prepareReaders comes before readSource");
  return reader.readSource(file, text, bom, shapes);
}
