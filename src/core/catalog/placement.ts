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

/** So many paths are looked for among all keys one by one; for more, the paths that are taken are listed. */
const fewPaths = 16;

/** How new entries are placed in a catalog; `leaving` are those that go. */
export function placementIn(catalog: Catalog, separator: string, leaving: readonly Entry[]): Placement {
  let flat: { readonly is: boolean | undefined } | undefined;
  let taken: TakenPaths | undefined;
  let asked = 0;
  const placed: TakenPaths = { texts: new Map(), groups: new Map() };
  const blocker = (path: EntryPath) => {
    const isFree = !taken && asked++ < fewPaths && hasNoneAround(catalog, path, separator);
    if (!isFree) taken ??= takenPaths(catalog, leaving);
    for (let depth = 1; depth < path.length; depth++) {
      const id = pathId(path.slice(0, depth));
      const text = placed.texts.get(id) ?? (isFree ? undefined : taken?.texts.get(id));
      if (text) return text;
    }
    const id = pathId(path);
    return placed.groups.get(id) ?? (isFree ? undefined : taken?.groups.get(id));
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
    take: (source, path) => addPath(placed, source, path),
  };
}

interface TakenPaths {
  readonly texts: Map<string, Entry>;
  readonly groups: Map<string, Entry>;
}

/** Whether no text of a catalog can stand above a path or below it, as far as keys show it: a text in such a place has a key to match. */
function hasNoneAround({ table }: Catalog, path: EntryPath, separator: string): boolean {
  for (let depth = 1; depth < path.length; depth++)
    if (table.find(path.slice(0, depth).join(separator)) >= 0) return false;
  const below = path.join(separator) + separator;
  for (let at = 0; at < table.size; at++) if (table.keyAt(at).startsWith(below)) return false;
  return true;
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
function isFlat({ table }: Catalog, separator: string): boolean | undefined {
  const nested = table.isNested ?? table.entries.some((entry) => entry.path.length > 1);
  const dotted =
    table.hasJoinedNames ??
    table.entries.some((entry) => entry.path.length === 1 && entry.key.includes(separator));
  return nested === dotted ? undefined : dotted;
}
