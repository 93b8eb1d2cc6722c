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

/** The order of the members of each group that is asked for, from the paths of all entries in order. */
export function orderTree(paths: readonly EntryPath[]): OrderTree {
  const known = new Map<string, Siblings>();
  const siblingsAt = (group: EntryPath): Siblings => {
    const ranks = new Map<PathPart, number>();
    for (const path of paths) {
      const name = path[group.length];
      if (name !== undefined && !ranks.has(name) && group.every((part, depth) => isPart(path[depth], part)))
        ranks.set(name, ranks.size);
    }
    return { names: [...ranks.keys()], rank: (name) => ranks.get(name) ?? ranks.size };
  };
  return {
    at(path) {
      const id = pathId(path);
      const siblings = known.get(id) ?? siblingsAt(path);
      known.set(id, siblings);
      return siblings;
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

/** How a format's editor deals with the members of a group. */
export interface MemberEditing<Member> {
  /** Changes what is below a member; says whether nothing of it is left, so that it goes as a whole. */
  changeBelow(member: Member, path: EntryPath, below: AdditionGroup): boolean;
  /** Whether a member is there for what is to be added below it. */
  takesBelow(member: Member): boolean;
  holdsText(member: Member): boolean;
  /** Writes a text in the place of a member's value that is none. */
  replace(member: Member, text: string): void;
}

/** What becomes of the members of one group. */
export interface GroupChange {
  readonly removed: ReadonlySet<number>;
  /** New members by the index of the kept one that they follow, -1 for the front, in the source's order. */
  readonly inserted: ReadonlyMap<number, readonly NewMember[]>;
  /** Whether no text is left in it. */
  readonly isEmptied: boolean;
}

const nothing: AdditionGroup = new Map();

/** Plans the additions and removals in one group and below it; undefined where the group itself stays as it is. */
export function changeGroup<Member extends { readonly name: PathPart }>(
  members: readonly Member[],
  path: EntryPath,
  { additions, removals, order }: ListedChanges,
  editing: MemberEditing<Member>,
): GroupChange | undefined {
  const removed = new Set<number>();
  for (const [index, member] of members.entries()) {
    const memberPath = [...path, member.name];
    const addition = additions.get(member.name);
    const below: AdditionGroup = addition && "below" in addition ? addition.below : nothing;
    if (removals.size === 0 && below === nothing) continue;
    if (removals.has(pathId(memberPath)) || editing.changeBelow(member, memberPath, below))
      removed.add(index);
  }
  // Of a name that stands twice, the last member is the one that readers keep.
  const byName = new Map<PathPart, number>(members.map(({ name }, index) => [name, index]));
  const siblings = order.at(path);
  const inserted = new Map<number, NewMember[]>();
  for (const [name, addition] of additions) {
    const index = byName.get(name);
    const there = index === undefined || removed.has(index) ? undefined : members[index];
    if (there && "below" in addition && editing.takesBelow(there)) continue;
    if (there && "text" in addition && !editing.holdsText(there)) {
      editing.replace(there, addition.text);
      continue;
    }
    if (there) throw new Error(`${[...path, name].join(".")} already exists`);
    const after = insertionIndex(members.length, byName, (at) => !removed.has(at), siblings, name);
    inserted.set(after, [...(inserted.get(after) ?? []), { name, addition }]);
  }
  for (const list of inserted.values()) list.sort((a, b) => siblings.rank(a.name) - siblings.rank(b.name));
  if (inserted.size === 0 && removed.size === 0) return undefined;
  const isEmptied =
    inserted.size === 0 && members.every((member, index) => removed.has(index) || !editing.holdsText(member));
  return { removed, inserted, isEmptied };
}

/** Changes to a file, sorted for its editor. */
export interface ListedChanges {
  readonly additions: AdditionGroup;
  /** The ids of the paths that go. */
  readonly removals: ReadonlySet<string>;
  readonly order: OrderTree;
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

/** Whether a part of a path is another; the index of a list may be written as a name. */
function isPart(one: PathPart | undefined, other: PathPart): boolean {
  return one === other || String(one) === String(other);
}

export function pathSet(paths: readonly EntryPath[]): ReadonlySet<string> {
  return new Set(paths.map(pathId));
}

export function pathId(path: EntryPath): string {
  return path.map(String).join("\u0000");
}
