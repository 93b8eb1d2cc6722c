import type { Catalog } from "./book.js";
import type { Entry, EntryPath } from "./model.js";

/** Where new entries of one catalog go, and what may be in their way. */
export interface Placement {
  pathOf(source: Pick<Entry, "key" | "path">): EntryPath;
  /** An entry that stays and is a text where a group must be, or the other way round. */
  blocker(path: EntryPath): Entry | undefined;
}

/** How new entries are placed in a catalog; `leaving` are those that go. */
export function placementIn(catalog: Catalog, separator: string, leaving: readonly Entry[]): Placement {
  let flat: { readonly is: boolean | undefined } | undefined;
  let taken: { readonly texts: Map<string, Entry>; readonly groups: Map<string, Entry> } | undefined;
  return {
    pathOf(source) {
      flat ??= { is: catalog.format.isFlat || isFlat(catalog, separator) };
      const keeps = flat.is === undefined || source.path.some((part) => typeof part === "number");
      return keeps ? source.path : flat.is ? [source.key] : source.key.split(separator);
    },
    blocker(path) {
      taken ??= takenPaths(catalog, leaving);
      for (let depth = 1; depth < path.length; depth++) {
        const text = taken.texts.get(pathId(path.slice(0, depth)));
        if (text) return text;
      }
      return taken.groups.get(pathId(path));
    },
  };
}

/** The paths where texts and groups stay. */
function takenPaths(catalog: Catalog, leaving: readonly Entry[]) {
  const texts = new Map<string, Entry>();
  const groups = new Map<string, Entry>();
  const gone = new Set(leaving);
  for (const entry of catalog.entries) {
    if (gone.has(entry)) continue;
    const { path } = entry;
    texts.set(pathId(path), entry);
    for (let depth = 1; depth < path.length; depth++) groups.set(pathId(path.slice(0, depth)), entry);
  }
  return { texts, groups };
}

function pathId(path: EntryPath): string {
  return path.join("\u0000");
}

/** Whether a catalog writes keys flat or nested, or shows no preference: too few entries, or both. */
function isFlat(catalog: Catalog, separator: string): boolean | undefined {
  const nested = catalog.entries.some((entry) => entry.path.length > 1);
  const dotted = catalog.entries.some((entry) => entry.path.length === 1 && entry.key.includes(separator));
  return nested === dotted ? undefined : dotted;
}
