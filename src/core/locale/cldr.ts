import { createRequire } from "node:module";

/** The JSON files of the pinned CLDR release that the core reads, each loaded on first use. */
const require = createRequire(import.meta.url);
const loaded = new Map<string, unknown>();

/** The contents of `cldr-core/supplemental/<name>.json` below `supplemental`. */
export function cldrSupplemental<T>(name: string): T {
  let data = loaded.get(name);
  if (data === undefined) {
    data = (require(`cldr-core/supplemental/${name}.json`) as { supplemental: unknown }).supplemental;
    loaded.set(name, data);
  }
  return data as T;
}
