import type { FileQuery, FileText, WritableFiles } from "./files.js";
import { globTest } from "./glob.js";

/** A project's files held in memory: for tests, for the examples of the rules, and for callers with unsaved text. */
export interface MemoryFiles extends WritableFiles {
  readonly contents: Map<string, string>;
}

/** Makes files in memory from paths (relative, with `/`) and texts. `.gitignore` files have no effect here. */
export function memoryFiles(initial: Readonly<Record<string, string>> = {}): MemoryFiles {
  const contents = new Map(Object.entries(initial));
  const textOf = (path: string): string => {
    const text = contents.get(path);
    if (text === undefined) throw new Error(`no file ${path}`);
    return text;
  };
  return {
    contents,
    read(path): FileText {
      const text = contents.get(path);
      if (text === undefined) return { ok: false, trouble: "absent", detail: "there is no such file" };
      const bom = text.startsWith("\uFEFF");
      return { ok: true, text: bom ? text.slice(1) : text, bom };
    },
    list(query: FileQuery) {
      const wanted = globTest(query.patterns);
      const ignored = globTest(query.ignore ?? []);
      return [...contents.keys()].filter((path) => wanted(path) && !ignored(path)).sort();
    },
    write: (path, text) => void contents.set(path, text),
    rename(from, to) {
      contents.set(to, textOf(from));
      contents.delete(from);
    },
    remove(path) {
      textOf(path);
      contents.delete(path);
    },
    exists: (path) => contents.has(path),
  };
}
