import { applyEdits, type TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import type { CatalogFormat, Entry, EntryPath } from "./model.js";

/** An entry and the path that it gets, both in the file. */
export interface KeyMove {
  readonly entry: Entry;
  readonly from: EntryPath;
  readonly to: EntryPath;
}

/**
 * A file's text with keys renamed where they stand: values, comments and order stay as they are. Undefined where more than
 * names change: entries that move between groups, or groups of which a part stays behind. `all` are the paths of all entries.
 */
export function renamedInPlace(
  text: string,
  format: CatalogFormat,
  moves: readonly KeyMove[],
  all: readonly EntryPath[],
): string | undefined {
  const { writeKey } = format;
  if (!writeKey || moves.length === 0) return undefined;
  const group = renamedGroup(moves, all);
  if (group) {
    const span = format.groupKeySpan?.(text, group.path);
    return span && applyEdits(text, [renaming(text, span, group.name, writeKey)]);
  }
  const edits: TextEdit[] = [];
  for (const { entry, from, to } of moves) {
    const last = to.at(-1);
    const isInPlace =
      to.length === from.length &&
      typeof last === "string" &&
      from.slice(0, -1).every((part, at) => part === to[at]);
    if (!isInPlace || entry.isInherited) return undefined;
    edits.push(renaming(text, entry.keySpan, last, writeKey));
  }
  return applyEdits(text, edits);
}

function renaming(
  text: string,
  { start, end }: Span,
  name: string,
  writeKey: (name: string, written: string) => string,
): TextEdit {
  return { start, end, replacement: writeKey(name, text.slice(start, end)) };
}

/** The one group that gets another name with all that is in it, and that name; undefined where it is not that. */
function renamedGroup(
  moves: readonly KeyMove[],
  all: readonly EntryPath[],
): { readonly path: EntryPath; readonly name: string } | undefined {
  const [first] = moves;
  if (!first) return undefined;
  const at = first.from.findIndex((part, index) => part !== first.to[index]);
  const name = first.to[at];
  if (at < 0 || at >= first.from.length - 1 || typeof name !== "string") return undefined;
  const path = first.from.slice(0, at + 1);
  const target = [...path.slice(0, -1), name];
  const isBelow = (one: EntryPath, group: EntryPath) =>
    one.length > group.length && group.every((part, index) => part === one[index]);
  const isWhole = moves.every(
    ({ from, to }) =>
      isBelow(from, path) &&
      to.length === from.length &&
      isBelow(to, target) &&
      from.slice(at + 1).every((part, index) => part === to[at + 1 + index]),
  );
  const leaves = all.filter((one) => isBelow(one, path)).length;
  const isFree = !all.some(
    (one) =>
      isBelow(one, target) ||
      (one.length === target.length && target.every((part, index) => part === one[index])),
  );
  return isWhole && leaves === moves.length && isFree ? { path, name } : undefined;
}
