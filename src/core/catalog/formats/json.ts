import { parseTree, visit, type Node } from "jsonc-parser";
import { applyEdits, type TextEdit } from "../../text/edits.js";
import type {
  CatalogChanges,
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  Entry,
  EntryPath,
  PathPart,
  PathText,
} from "../model.js";

/** Catalogs in JSON (RFC 8259): nested groups, flat keys, or both; lists of texts. */
export const jsonFormat: CatalogFormat = {
  name: "json",
  read: (text, separator) => readJson(text, separator),
  edit: editJson,
  empty: "{}\n",
  offsetInFile,
};

function readJson(text: string, separator: string): CatalogContent {
  const marker = /^(<<<<<<<|=======|>>>>>>>)(?: .*)?$/m.exec(text);
  if (marker && text.includes("<<<<<<<")) {
    const problem: CatalogProblem = {
      code: "merge-marker",
      message: `a conflict marker of version control (${marker[1]})`,
      remedy: "settle the conflict: keep the entries that belong here and remove the marker lines",
      span: { start: marker.index, end: marker.index + marker[0].length },
    };
    return { entries: [], emptyGroups: [], problems: [problem] };
  }
  const entries: Entry[] = [];
  const emptyGroups: EntryPath[] = [];
  const problems: CatalogProblem[] = [];
  const path: PathPart[] = [];
  const open: { list: boolean; members: number }[] = [];
  let keySpan = { start: 0, end: 0 };
  const failed = () => problems.length > 0;
  const beforeValue = () => {
    const parent = open[open.length - 1];
    if (parent?.list) path[path.length - 1] = parent.members;
    if (parent) parent.members++;
  };
  const begin = (list: boolean) => {
    beforeValue();
    open.push({ list, members: 0 });
    if (list) path.push(0);
  };
  const end = () => {
    const group = open.pop();
    if (group?.list) path.pop();
    if (group?.members === 0 && open.length > 0 && !failed()) emptyGroups.push([...path]);
    leaveMember();
  };
  const leaveMember = () => {
    if (open.length > 0 && !open[open.length - 1]?.list) path.pop();
  };
  try {
    visit(
      text,
      {
        onObjectBegin: () => begin(false),
        onArrayBegin: () => begin(true),
        onObjectEnd: end,
        onArrayEnd: end,
        onObjectProperty(name, offset, length) {
          path.push(name);
          keySpan = { start: offset, end: offset + length };
        },
        onLiteralValue(value: unknown, offset, length) {
          beforeValue();
          const valueSpan = { start: offset, end: offset + length };
          if (open.length === 0 && !failed()) problems.push(notAnObject(valueSpan));
          if (failed()) return leaveMember();
          entries.push({
            key: path.length === 1 ? String(path[0]) : path.join(separator),
            path: [...path],
            text: typeof value === "string" ? value : text.slice(offset, offset + length),
            kind:
              typeof value === "string"
                ? "text"
                : typeof value === "number"
                  ? "number"
                  : value === null
                    ? "null"
                    : "boolean",
            keySpan: open[open.length - 1]?.list ? valueSpan : keySpan,
            valueSpan,
          });
          leaveMember();
        },
        onError(_error, offset, length) {
          if (!failed()) problems.push(explain(text, offset, length));
        },
      },
      { disallowComments: true },
    );
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    problems.push({
      code: "syntax",
      message: "groups are nested too deeply to read",
      remedy: "check what wrote this file",
      span: { start: 0, end: 1 },
    });
  }
  if (!failed() && /^\s*\[/.test(text))
    problems.push(notAnObject({ start: text.indexOf("["), end: text.indexOf("[") + 1 }));
  return { entries, emptyGroups, problems };
}

function notAnObject(span: { start: number; end: number }): CatalogProblem {
  return {
    code: "shape",
    message: "a catalog is an object in braces",
    remedy: 'write { "key": "text" }',
    span,
  };
}

/** Words the first place where JSON breaks off by what most likely happened there. */
function explain(text: string, offset: number, length: number): CatalogProblem {
  const problem = (
    message: string,
    remedy: string,
    start = offset,
    end = offset + Math.max(length, 1),
  ): CatalogProblem => ({
    code: "syntax",
    message,
    remedy,
    span: { start, end: Math.min(end, Math.max(text.length, start)) },
  });
  if (text.trim() === "") return problem("the file is empty", "write {} for a catalog without entries", 0, 0);
  const before = text.slice(0, offset).trimEnd();
  const lineStart = text.lastIndexOf("\n", offset - 1) + 1;
  const lineEnd = text.indexOf("\n", offset) < 0 ? text.length : text.indexOf("\n", offset);
  const line = text.slice(lineStart, lineEnd);
  const found = text.slice(offset, offset + Math.max(length, 1));
  if (found.startsWith("//") || found.startsWith("/*"))
    return problem("a comment: JSON has none", "remove it, or keep notes for translators elsewhere");
  if (offset >= text.trimEnd().length)
    return problem(
      "the file ends too early",
      "close what is still open: a } is missing, or the end was cut off",
      before.length,
      before.length + 1,
    );
  if (found.startsWith("'")) return problem("a text in single quotes", 'JSON takes double quotes only: "…"');
  if (found.startsWith('"') && (unclosedOnLine(line) || length > lineEnd - offset))
    return problem(
      "a text that does not end on its line",
      'close it with ", and write \\n for a line break inside',
    );
  const onSameLine = before.length > lineStart;
  const openQuote = before.endsWith('"') && onSameLine && /^[^\s,:}\]]/.test(found) && !found.startsWith('"');
  if (
    openQuote ||
    (onSameLine && /^\s*"[^"]*"\s*:\s*".*[^\\]".*[^\\]"\s*,?\s*$/.test(line) && !found.startsWith('"'))
  ) {
    const quote = before.lastIndexOf('"');
    return problem(
      "a quote inside a text ends it early",
      'write \\" for a quote inside a text',
      quote,
      quote + 1,
    );
  }
  if (found.startsWith('"') && /["\d}\]el]$/.test(before))
    return problem("a comma is missing before this", "put a comma at the end of the entry before");
  if (/^[}\]]/.test(found) && before.endsWith(","))
    return problem(
      "a comma before the closing bracket",
      "remove that comma",
      before.length - 1,
      before.length,
    );
  if (/\\[^"\\/bfnrtu]/.test(found))
    return problem(
      "an escape that JSON does not know",
      'JSON knows \\" \\\\ \\/ \\b \\f \\n \\r \\t and \\uXXXX',
    );
  return problem(
    `“${found.slice(0, 20)}” is not expected here`,
    "check quotes, commas and braces just before it",
  );
}

function unclosedOnLine(line: string): boolean {
  return (line.replace(/\\./g, "").match(/"/g) ?? []).length % 2 === 1;
}

/** A code unit of the decoded text, as the place where the JSON string writes it. */
function offsetInFile(text: string, entry: Entry, offset: number): number {
  const { start, end } = entry.valueSpan;
  if (entry.kind !== "text") return start;
  let at = start + 1;
  for (let unit = 0; unit < offset && at < end - 1; unit++) {
    if (text[at] !== "\\") at++;
    else at += text[at + 1] === "u" ? 6 : 2;
  }
  return at;
}

/** An object or list of the file with its members, for editing. */
interface Group {
  readonly node: Node;
  readonly list: boolean;
  readonly members: readonly Member[];
  /** The last member of each name: the one that readers keep. */
  readonly byName: ReadonlyMap<PathPart, Member>;
}

interface Member {
  readonly name: PathPart;
  readonly index: number;
  /** The whole member: from its key to the end of its value. */
  readonly start: number;
  readonly end: number;
  readonly valueStart: number;
  readonly value: Node;
}

/** Additions as a tree: what is missing below a group. */
type Addition = string | AdditionGroup;
type AdditionGroup = Map<PathPart, Addition>;

interface NewMember {
  readonly name: PathPart;
  readonly value: Addition;
}

interface JsonStyle {
  readonly lineEnd: string;
  readonly indent: string;
  readonly asciiOnly: boolean;
}

function editJson(text: string, changes: CatalogChanges): string {
  const root = parseTree(text, [], { disallowComments: true });
  if (root?.type !== "object") throw new Error("a JSON catalog that cannot be read cannot be edited");
  const editor = new JsonEditor(text, styleOf(text), orderTree(changes.order ?? []));
  for (const { path, text: value } of changes.set ?? []) editor.set(root, path, value);
  editor.change(root, [], additionTree(changes.add ?? []), pathSet(changes.remove ?? []), 0);
  return applyEdits(text, editor.edits);
}

class JsonEditor {
  readonly edits: TextEdit[] = [];

  constructor(
    private readonly text: string,
    private readonly style: JsonStyle,
    private readonly order: OrderTree,
  ) {}

  set(root: Node, path: EntryPath, value: string): void {
    let node: Node | undefined = root;
    for (const part of path) node = node && groupOf(node).byName.get(part)?.value;
    if (!node) throw new Error(`no entry at ${path.join(".")}`);
    this.edits.push({ start: node.offset, end: node.offset + node.length, replacement: this.encode(value) });
  }

  /** Adds and removes members below one group. True when nothing of the group would be left. */
  change(
    node: Node,
    path: EntryPath,
    additions: AdditionGroup,
    removals: ReadonlySet<string>,
    depth: number,
  ): boolean {
    const group = groupOf(node);
    const removed = new Set<Member>();
    const inserted = new Map<number, NewMember[]>();
    for (const member of group.members) {
      const memberPath = [...path, member.name];
      if (removals.has(pathId(memberPath))) removed.add(member);
      else if (member.value.type === "object" || member.value.type === "array") {
        const below = additions.get(member.name);
        const addBelow = below instanceof Map ? below : new Map<PathPart, Addition>();
        if (addBelow.size === 0 && removals.size === 0) continue;
        const before = this.edits.length;
        const hadMembers = (member.value.children ?? []).length > 0;
        if (this.change(member.value, memberPath, addBelow, removals, depth + 1) && hadMembers) {
          this.edits.length = before;
          removed.add(member);
        }
      }
    }
    const siblings = this.order.at(path);
    for (const [name, value] of additions) {
      const there = group.byName.get(name);
      if (there && !removed.has(there) && value instanceof Map && there.value.children) continue;
      if (there && !removed.has(there) && typeof value === "string" && !holdsValue(there.value)) {
        this.edits.push({ start: there.valueStart, end: there.end, replacement: this.encode(value) });
        continue;
      }
      if (there && !removed.has(there)) throw new Error(`${[...path, name].join(".")} is there already`);
      const after = insertionIndex(group, removed, siblings, name);
      inserted.set(after, [...(inserted.get(after) ?? []), { name, value }]);
    }
    for (const list of inserted.values()) list.sort((a, b) => siblings.rank(a.name) - siblings.rank(b.name));
    if (inserted.size === 0 && removed.size === 0) return false;
    const nothingLeft =
      inserted.size === 0 &&
      group.members.every((member) => removed.has(member) || !holdsValue(member.value));
    if (nothingLeft && depth > 0) return true;
    this.rewriteMembers(group, removed, inserted);
    return false;
  }

  /** Writes the insertions (by the index of the kept member that they follow, -1 for the front) and removals of one group. */
  private rewriteMembers(
    group: Group,
    removed: ReadonlySet<Member>,
    inserted: ReadonlyMap<number, readonly NewMember[]>,
  ): void {
    const { members, node } = group;
    const first = members[0];
    const multiline = !first || this.text.slice(node.offset, first.start).includes("\n");
    const indent =
      first && multiline ? this.indentOf(first.start) : this.indentOf(node.offset) + this.style.indent;
    const lead = multiline ? this.style.lineEnd + indent : " ";
    const write = ({ name, value }: NewMember) =>
      lead +
      (group.list ? "" : JSON.stringify(name) + this.colon(first)) +
      this.render(value, indent, multiline);
    if (!first) {
      const texts = [...inserted.values()].flat().map(write);
      const close = this.style.lineEnd + this.indentOf(node.offset);
      this.edits.push({
        start: node.offset + 1,
        end: node.offset + node.length - 1,
        replacement: texts.join(",") + close,
      });
      return;
    }
    const lastIndex = members.length - 1;
    const lastKept = members.findLast((member) => !removed.has(member))?.index ?? -1;
    for (const member of removed)
      this.edits.push({
        start: this.slotStart(group, member.index),
        end: this.slotEnd(group, member.index),
        replacement: "",
      });
    const keptMember = members[lastKept];
    if (keptMember && lastKept < lastIndex && !inserted.has(lastKept))
      this.edits.push({ start: keptMember.end, end: this.slotEnd(group, lastKept), replacement: "" });
    for (const [index, list] of inserted) {
      const at = index < 0 ? node.offset + 1 : this.slotEnd(group, index);
      const texts = list.map(write);
      const commaBefore = index >= 0 && index === lastIndex ? "," : "";
      const commaAfter = index === lastKept ? "" : ",";
      this.edits.push({ start: at, end: at, replacement: commaBefore + texts.join(",") + commaAfter });
    }
  }

  private slotStart(group: Group, index: number): number {
    return index === 0 ? group.node.offset + 1 : this.slotEnd(group, index - 1);
  }

  /** Behind the comma of a member, or behind the member where it is the last. */
  private slotEnd(group: Group, index: number): number {
    const member = group.members[index];
    if (!member) return group.node.offset + 1;
    if (index === group.members.length - 1) return member.end;
    return this.text.indexOf(",", member.end) + 1;
  }

  private render(value: Addition, indent: string, multiline: boolean): string {
    if (typeof value === "string") return this.encode(value);
    const isList = [...value.keys()].every((name) => typeof name === "number");
    const inner = indent + this.style.indent;
    const lead = multiline ? this.style.lineEnd + inner : " ";
    const members = [...value].map(
      ([name, below]) =>
        lead + (isList ? "" : `${JSON.stringify(name)}: `) + this.render(below, inner, multiline),
    );
    const close = multiline ? this.style.lineEnd + indent : " ";
    return (isList ? "[" : "{") + members.join(",") + close + (isList ? "]" : "}");
  }

  private encode(value: string): string {
    const json = JSON.stringify(value);
    if (!this.style.asciiOnly) return json;
    return json.replace(
      /[\u007f-\uffff]/g,
      (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`,
    );
  }

  private colon(first: Member | undefined): string {
    if (!first || typeof first.name === "number") return ": ";
    const between = this.text.slice(first.start + JSON.stringify(first.name).length, first.valueStart);
    return /^\s*:[ \t]*$/.test(between) ? between : ": ";
  }

  private indentOf(offset: number): string {
    const lineStart = this.text.lastIndexOf("\n", offset - 1) + 1;
    return /^[ \t]*/.exec(this.text.slice(lineStart, offset))?.[0] ?? "";
  }
}

function groupOf(node: Node): Group {
  const list = node.type === "array";
  const members = (node.children ?? []).map((child, index): Member => {
    const value = list ? child : child.children?.[1];
    if (!value) throw new Error("a JSON catalog that cannot be read cannot be edited");
    const name = list ? index : (child.children?.[0]?.value as string);
    return {
      name,
      index,
      start: child.offset,
      end: value.offset + value.length,
      valueStart: value.offset,
      value,
    };
  });
  return { node, list, members, byName: new Map(members.map((member) => [member.name, member])) };
}

/** The index of the kept member that a new one follows; -1 for the front. */
function insertionIndex(
  group: Group,
  removed: ReadonlySet<Member>,
  siblings: Siblings,
  name: PathPart,
): number {
  const keptUpTo = (index: number) => {
    for (let at = index; at >= 0; at--) {
      const member = group.members[at];
      if (member && !removed.has(member)) return at;
    }
    return -1;
  };
  const usable = (sibling: PathPart | undefined) => {
    const member = sibling === undefined ? undefined : group.byName.get(sibling);
    return member && !removed.has(member) ? member : undefined;
  };
  const own = siblings.rank(name);
  for (let rank = own - 1; rank >= 0 && own < siblings.names.length; rank--) {
    const member = usable(siblings.names[rank]);
    if (member) return member.index;
  }
  for (let rank = own + 1; rank < siblings.names.length; rank++) {
    const member = usable(siblings.names[rank]);
    if (member) return keptUpTo(member.index - 1);
  }
  return keptUpTo(group.members.length - 1);
}

/** The members of one group in the source catalog's order. */
interface Siblings {
  readonly names: readonly PathPart[];
  /** The place of a name among them, or their number for one that is not there. */
  rank(name: PathPart): number;
}

interface OrderTree {
  at(path: EntryPath): Siblings;
}

function orderTree(paths: readonly EntryPath[]): OrderTree {
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

function additionTree(additions: readonly PathText[]): AdditionGroup {
  const root: AdditionGroup = new Map();
  for (const { path, text } of additions) {
    let group = root;
    path.forEach((part, index) => {
      if (index === path.length - 1) {
        group.set(part, text);
        return;
      }
      const next = group.get(part);
      if (next instanceof Map) group = next;
      else {
        const made: AdditionGroup = new Map();
        group.set(part, made);
        group = made;
      }
    });
  }
  return root;
}

/** Whether there is any text below a node; groups in groups alone hold none. */
function holdsValue(node: Node): boolean {
  if (node.type === "object" || node.type === "array") return (node.children ?? []).some(holdsValue);
  return node.type === "property" ? node.children?.[1] === undefined || holdsValue(node.children[1]) : true;
}

function pathSet(paths: readonly EntryPath[]): ReadonlySet<string> {
  return new Set(paths.map(pathId));
}

function pathId(path: EntryPath): string {
  return path.map(String).join("\u0000");
}

function styleOf(text: string): JsonStyle {
  const lineEnd = /\r\n|\n|\r/.exec(text)?.[0] ?? "\n";
  const indent = /^([ \t]+)\S/m.exec(text)?.[1] ?? "  ";
  const asciiOnly = !/[\u007f-\uffff]/.test(text) && /\\u(?!00[01])[0-9a-fA-F]{4}/.test(text);
  return { lineEnd, indent, asciiOnly };
}
