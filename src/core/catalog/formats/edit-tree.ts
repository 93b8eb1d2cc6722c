import type { EntryPath, PathPart, PathText } from "../model.js";

/** What is to be added below a group: texts, and groups of them. */
export type Addition = AddedText | { readonly below: AdditionGroup };
export type AdditionGroup = Map<PathPart, Addition>;

export interface AddedText {
  readonly text: string;
  readonly comment?: string;
}

export interface NewMember {
  readonly name: PathPart;
  readonly addition: Addition;
}

/** The members of one group in the source catalog's order. */
export interface Siblings {
  readonly names: readonly PathPart[];
  /** The place of a name among them, or their number for one that is not there. */
  rank(name: PathPart): number;
}

export interface OrderTree {
  at(path: EntryPath): Siblings;
}

/** The order of the members of every group, from the paths of all entries in order. */
export function orderTree(paths: readonly EntryPath[]): OrderTree {
  const ranks = new Map<string, Map<PathPart, number>>();
  for (const path of paths) {
    for (let depth = 0; depth < path.length; depth++) {
      const id = pathId(path.slice(0, depth));
      const group = ranks.get(id) ?? new Map<PathPart, number>();
      ranks.set(id, group);
      const name = path[depth] ?? "";
      if (!group.has(name)) group.set(name, group.size);
    }
  }
  return {
    at(path) {
      const group = ranks.get(pathId(path)) ?? new Map<PathPart, number>();
      return { names: [...group.keys()], rank: (name) => group.get(name) ?? group.size };
    },
  };
}

/** Additions as a tree: what is missing below each group. */
export function additionTree(additions: readonly PathText[]): AdditionGroup {
  const root: AdditionGroup = new Map();
  for (const { path, text, comment } of additions) {
    let group = root;
    for (const [index, part] of path.entries()) {
      if (index === path.length - 1) {
        group.set(part, { text, ...(comment !== undefined && { comment }) });
        break;
      }
      const next = group.get(part);
      if (next && "below" in next) group = next.below;
      else {
        const below: AdditionGroup = new Map();
        group.set(part, { below });
        group = below;
      }
    }
  }
  return root;
}

/** The index of the kept member of a group that a new one follows in the source's order; -1 for the front. */
export function insertionIndex(
  members: number,
  byName: ReadonlyMap<PathPart, number>,
  isKept: (index: number) => boolean,
  siblings: Siblings,
  name: PathPart,
): number {
  const keptUpTo = (index: number) => {
    for (let at = index; at >= 0; at--) if (isKept(at)) return at;
    return -1;
  };
  const usable = (sibling: PathPart | undefined) => {
    const index = sibling === undefined ? undefined : byName.get(sibling);
    return index !== undefined && isKept(index) ? index : undefined;
  };
  const own = siblings.rank(name);
  for (let rank = own - 1; rank >= 0 && own < siblings.names.length; rank--) {
    const index = usable(siblings.names[rank]);
    if (index !== undefined) return index;
  }
  for (let rank = own + 1; rank < siblings.names.length; rank++) {
    const index = usable(siblings.names[rank]);
    if (index !== undefined) return keptUpTo(index - 1);
  }
  return keptUpTo(members - 1);
}

export function pathSet(paths: readonly EntryPath[]): ReadonlySet<string> {
  return new Set(paths.map(pathId));
}

export function pathId(path: EntryPath): string {
  return path.map(String).join("\u0000");
}
