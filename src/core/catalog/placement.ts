import { pathId } from "./formats/edit-tree.js";
import type { Catalog } from "./book.js";
import type { Entry, EntryPath } from "./model.js";

/** Where new entries of one catalog go, and what may be in their way. */
export interface Placement {
  /** Where an entry of the source goes. */
  pathOf(source: Pick<Entry, "key" | "path">): EntryPath;
  /** What is a text where a group must be, or the other way round: an entry that stays, or one that was placed before. */
  blocker(path: EntryPath): Pick<Entry, "key" | "keySpan"> | undefined;
  /** Takes note of a new entry: later ones must fit beside it. */
  take(source: Entry, path: EntryPath): void;
}

/** How new entries are placed in a catalog; `leaving` are those that go. */
export function placementIn(catalog: Catalog, separator: string, leaving: readonly Entry[]): Placement {
  let flat: { readonly is: boolean | undefined } | undefined;
  let taken: TakenPaths | undefined;
  const blocker = (path: EntryPath) => {
    taken ??= takenPaths(catalog, leaving);
    for (let depth = 1; depth < path.length; depth++) {
      const text = taken.texts.get(pathId(path.slice(0, depth)));
      if (text) return text;
    }
    return taken.groups.get(pathId(path));
  };
  return {
    pathOf(source) {
      const { key, path } = source;
      flat ??= { is: !catalog.format.nests || isFlat(catalog, separator) };
      if (flat.is === undefined || path.some((part) => typeof part === "number")) return path;
      if (flat.is) return [key];
      // A name that holds the separator inside a group is a name, as the source has it.
      if (path.length > 1) return path;
      const nested = key.split(separator);
      // Where “a” and “a.b” are both texts, names are all that is left.
      return blocker(nested) && !blocker(path) ? path : nested;
    },
    blocker,
    take(source, path) {
      taken ??= takenPaths(catalog, leaving);
      addPath(taken, source, path);
    },
  };
}

interface TakenPaths {
  readonly texts: Map<string, Entry>;
  readonly groups: Map<string, Entry>;
}

/** The paths where texts and groups stay. */
function takenPaths(catalog: Catalog, leaving: readonly Entry[]): TakenPaths {
  const taken: TakenPaths = { texts: new Map(), groups: new Map() };
  const gone = new Set(leaving);
  for (const entry of catalog.entries) if (!gone.has(entry)) addPath(taken, entry, entry.path);
  return taken;
}

function addPath({ texts, groups }: TakenPaths, entry: Entry, path: EntryPath): void {
  texts.set(pathId(path), entry);
  for (let depth = 1; depth < path.length; depth++) groups.set(pathId(path.slice(0, depth)), entry);
}

/** Whether a catalog writes keys flat or nested, or shows no preference: too few entries, or both. */
function isFlat(catalog: Catalog, separator: string): boolean | undefined {
  const nested = catalog.entries.some((entry) => entry.path.length > 1);
  const dotted = catalog.entries.some((entry) => entry.path.length === 1 && entry.key.includes(separator));
  return nested === dotted ? undefined : dotted;
}
