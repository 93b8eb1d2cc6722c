import { diffLines } from "diff";
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
      (o ? set : add).push({ path: t.path, text: t.text });
      expected.set(id, valueOf(t));
    }
  }
  const order = [...their.values()].map(({ path }) => path);
  const text = edited(format, ours, { set, add, remove, order });
  if (text === undefined || !holds(format, text, expected)) return undefined;
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
