import { diffLines } from "diff";
import { applyEdits } from "../text/edits.js";
import { commentsAbove, type CommentLine } from "./comments.js";
import type { CatalogChanges, CatalogFormat, Entry, PathText } from "./model.js";

/** What merging three versions of a file gave. */
export interface Merged {
  /** The merged text; where both sides changed one text differently, with the usual conflict markers around it. */
  readonly text: string;
  /** The keys that both sides changed, each in its own way. */
  readonly conflicts: readonly string[];
}

/**
 * Merges two versions of a catalog that come from one base, by key: what only one side changed is taken from it, in
 * ours' own formatting. `byLine` is a merge by lines without conflicts, if there is one: where it holds the same texts,
 * it is taken, since it keeps theirs' comments too. Undefined where a version cannot be read.
 */
export function mergeCatalogs(
  format: CatalogFormat,
  base: string,
  ours: string,
  theirs: string,
  byLine?: string,
): Merged | undefined {
  const versions = [base === "" ? format.empty : base, ours, theirs].map((text) => readWhole(format, text));
  const [was, our, their] = versions;
  if (!was || !our || !their) return undefined;
  const comments = {
    was: commentsOf(format, base, was),
    their: commentsOf(format, theirs, their),
  };
  const set: PathText[] = [];
  const add: PathText[] = [];
  const remove: Entry["path"][] = [];
  const conflicts: {
    readonly ours: Entry | undefined;
    readonly theirs: Entry | undefined;
    readonly key: string;
  }[] = [];
  const expected = new Map([...our].map(([id, entry]) => [id, valueOf(entry)]));
  for (const id of new Set([...was.keys(), ...our.keys(), ...their.keys()])) {
    const [b, o, t] = [was.get(id), our.get(id), their.get(id)];
    if (valueOf(t) === valueOf(b) || valueOf(t) === valueOf(o)) continue;
    if (valueOf(o) !== valueOf(b) || (t && t.kind !== "text")) {
      conflicts.push({ ours: o, theirs: t, key: (o ?? t ?? b)?.key ?? "" });
      continue;
    }
    if (!t) {
      if (o) remove.push(o.path);
      expected.delete(id);
    } else {
      const said = o ? [] : (comments.their.get(id) ?? []);
      (o ? set : add).push({
        path: t.path,
        text: t.text,
        ...(said.length > 0 && { comment: said.map(({ content }) => content).join("\n") }),
      });
      expected.set(id, valueOf(t));
    }
  }
  const order = [...their.values()].map(({ path }) => path);
  const changed = edited(format, ours, { set, add, remove, order });
  if (changed === undefined || !holds(format, changed, expected)) return undefined;
  const text = withoutComments(format, changed, (id) => {
    const left = new Set(comments.their.get(id)?.map((line) => line.text));
    const gone = their.has(id) ? (comments.was.get(id) ?? []).filter((line) => !left.has(line.text)) : [];
    return new Set(gone.map((line) => line.text));
  });
  if (conflicts.length === 0) {
    const isSame = byLine !== undefined && holds(format, byLine, expected);
    return { text: isSame ? byLine : text, conflicts: [] };
  }
  const other = edited(format, text, {
    set: conflicts.flatMap((one) =>
      one.ours && one.theirs ? [{ path: one.ours.path, text: one.theirs.text }] : [],
    ),
    add: conflicts.flatMap((one) =>
      !one.ours && one.theirs ? [{ path: one.theirs.path, text: one.theirs.text }] : [],
    ),
    remove: conflicts.flatMap((one) => (one.ours && !one.theirs ? [one.ours.path] : [])),
    order,
  });
  if (other === undefined) return undefined;
  return { text: withMarkers(text, other), conflicts: conflicts.map(({ key }) => key) };
}

/** The comment lines right above each entry, by its path. */
function commentsOf(
  format: CatalogFormat,
  text: string,
  entries: ReadonlyMap<string, Entry>,
): ReadonlyMap<string, readonly CommentLine[]> {
  const found = new Map<string, readonly CommentLine[]>();
  let end = 0;
  for (const [id, { keySpan, valueSpan, isInherited }] of format.comments ? entries : []) {
    const least = end <= keySpan.start ? end : 0;
    end = valueSpan.end;
    if (!isInherited)
      found.set(id, commentsAbove(text, format.comments ?? { line: [] }, keySpan.start, least));
  }
  return found;
}

/** A file's text without the comment lines above its entries that the other side has taken away, such as marks of what is done. */
function withoutComments(
  format: CatalogFormat,
  text: string,
  goneAbove: (id: string) => ReadonlySet<string>,
): string {
  const entries = format.comments && readWhole(format, text);
  if (!entries) return text;
  const edits = [...commentsOf(format, text, entries)].flatMap(([id, lines]) => {
    const gone = goneAbove(id);
    return lines
      .filter((line) => gone.has(line.text))
      .map(({ start, end }) => ({ start, end: Math.min(end + 1, text.length), replacement: "" }));
  });
  return applyEdits(text, edits);
}

function readWhole(format: CatalogFormat, text: string): Map<string, Entry> | undefined {
  const { entries, problems } = format.read(text, ".");
  const byPath = new Map(entries.map((entry) => [JSON.stringify(entry.path), entry]));
  return problems.length > 0 || byPath.size !== entries.length ? undefined : byPath;
}

function valueOf(entry: Entry | undefined): string | undefined {
  return entry && `${entry.kind} ${entry.text}`;
}

function edited(format: CatalogFormat, text: string, changes: CatalogChanges): string | undefined {
  try {
    return format.edit(text, changes);
  } catch {
    // A text on one side is a group on the other.
    return undefined;
  }
}

function holds(
  format: CatalogFormat,
  text: string,
  expected: ReadonlyMap<string, string | undefined>,
): boolean {
  const read = readWhole(format, text);
  return (
    read?.size === expected.size && [...expected].every(([id, value]) => valueOf(read.get(id)) === value)
  );
}

/** Two texts as one, with conflict markers where they differ. */
export function withMarkers(ours: string, theirs: string): string {
  const lineEnd = ours.includes("\r\n") ? "\r\n" : "\n";
  const whole = (text: string) => (text === "" || text.endsWith("\n") ? text : text + lineEnd);
  let result = "";
  let own = "";
  let other = "";
  const flush = () => {
    if (own !== "" || other !== "")
      result += `<<<<<<< ours${lineEnd}${whole(own)}=======${lineEnd}${whole(other)}>>>>>>> theirs${lineEnd}`;
    own = other = "";
  };
  for (const part of diffLines(ours, theirs)) {
    if (part.removed) own += part.value;
    else if (part.added) other += part.value;
    else {
      flush();
      result += part.value;
    }
  }
  flush();
  return result;
}
