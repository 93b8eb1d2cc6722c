import type { BookConfig } from "../config/schema.js";
import type { Files } from "../files/files.js";
import { readScript, scriptEndings } from "./readers/script/script.js";
import type { LookupShapes, SourceFile } from "./model.js";

/** A file of a book's code that could not be read at all. */
export interface UnreadSource {
  readonly file: string;
  readonly detail: string;
}

/** All code of one book that was asked for. */
export interface BookCode {
  readonly files: readonly SourceFile[];
  readonly unread: readonly UnreadSource[];
}

/** The expression that extraction writes in code where a book does not say. */
export const defaultCall = 't("{key}"{args})';

/** The lookups that a book names and those that its extraction writes, ready for a reader. */
export function lookupShapes(book: BookConfig): LookupShapes {
  const calls = new Set<string>();
  const components = new Map<string, string>();
  for (const lookup of book.lookups) {
    if ("call" in lookup) calls.add(lookup.call);
    else components.set(lookup.component, lookup.key);
  }
  for (const template of [book.emit.call ?? defaultCall, book.emit.rich]) {
    const name = template && calleeOf(template);
    if (name) calls.add(name);
  }
  return { calls, components };
}

/** The function that a template such as `t("{key}"{args})` calls; undefined where it is no plain call. */
export function calleeOf(template: string): string | undefined {
  return /^\s*([\w$.]+)\(\s*["'`]\{key\}/.exec(template)?.[1];
}

/** The files of a book's code, without those that version control ignores; `only` narrows them to some paths. */
export function listCode(
  files: Files,
  book: BookConfig,
  only: (file: string) => boolean = () => true,
): readonly string[] {
  const listed = files.list({ patterns: book.code, ignore: book.ignore, respectIgnoreFiles: true });
  return listed.filter((file) => only(file) && scriptEndings.some((ending) => file.endsWith(ending)));
}

/** Reads a book's code. A file that cannot be read is told of and the rest are read. */
export function readBookCode(files: Files, book: BookConfig, only?: (file: string) => boolean): BookCode {
  const shapes = lookupShapes(book);
  const read: SourceFile[] = [];
  const unread: UnreadSource[] = [];
  for (const file of listCode(files, book, only)) {
    const source = files.read(file);
    if (!source.ok) unread.push({ file, detail: source.detail });
    else read.push(readScript(file, source.text, source.bom, shapes));
  }
  return { files: read, unread };
}
