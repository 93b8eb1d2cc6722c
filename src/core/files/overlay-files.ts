import type { Files } from "./files.js";

/** Files as they would be with some texts changed: what a plan sees that builds on other changes. `undefined` stands for no file. */
export function overlayFiles(files: Files, texts: ReadonlyMap<string, string | undefined>): Files {
  return {
    read(path) {
      if (!texts.has(path)) return files.read(path);
      const text = texts.get(path);
      if (text === undefined) return { ok: false, trouble: "absent", detail: "there is no such file" };
      const below = files.read(path);
      return {
        ok: true,
        text,
        bom: below.ok && below.bom,
        ...(below.ok && below.encoding && { encoding: below.encoding }),
      };
    },
    list: (query) => files.list(query).filter((path) => !texts.has(path) || texts.get(path) !== undefined),
  };
}
