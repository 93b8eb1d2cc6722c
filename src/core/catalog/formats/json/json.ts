import { lineStart as lineStartOf } from "../../../text/line-start.js";
import { notices } from "../../../message/notices.js";
import type { Notice } from "../../../text/wording.js";
import { deepestNesting } from "../../../text/nesting.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import { catalogContent, EntryPlaces, entryTable } from "../../entry-table.js";
import { KeyPool } from "../../key-pool.js";
import type {
  CatalogChanges,
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  Entry,
  EntryPath,
} from "../../model.js";
import {
  additionTree,
  changeGroup,
  orderTree,
  pathSet,
  type Addition,
  type AdditionGroup,
  type GroupChange,
  type NewMember,
  type OrderTree,
} from "../edit-tree.js";
import { mergeMarker } from "../merge-marker.js";
import { JsonEntries, MetPlaces, pathTo, spanFrom, type OpenGroup } from "./json-entries.js";
import { jsonTree, scanJson, type JsonMember, type JsonNode, type JsonVisitor } from "./json-scan.js";

/** Catalogs in JSON (RFC 8259): nested groups, flat keys, or both; lists of texts. */
export const jsonFormat: CatalogFormat = makeJsonFormat("json", false);

/** The same with comments and commas at the end, as editors' own files have them. */
export const jsoncFormat: CatalogFormat = makeJsonFormat("jsonc", true);

/** JSON5: besides those, names without quotes and texts in single quotes. */
export const json5Format: CatalogFormat = makeJsonFormat("json5", true);

function makeJsonFormat(name: "json" | "jsonc" | "json5", lenient: boolean): CatalogFormat {
  return {
    name,
    extensions: [name],
    holds: "locale",
    read: (text, separator, pool = new KeyPool()) => readJson(text, separator, lenient, pool.start()),
    edit: (text, changes) => editJson(text, changes, lenient),
    empty: "{}\n",
    comments: lenient ? { line: ["//"], block: ["/*", "*/"] } : undefined,
    commentWriter: () => (line) => `// ${line}`.trimEnd(),
    nests: true,
    canReorder: true,
    writeKey,
    groupKeySpan: (text, path) => groupKeySpan(text, path, lenient),
    offsetInFile,
  };
}

/** A name in the quotes of another, or without any where that has none and it needs none. */
function writeKey(name: string, written: string): string {
  if (/^["']/.test(written) || !/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)) {
    const json = JSON.stringify(name);
    return written.startsWith("'")
      ? `'${json.slice(1, -1).replaceAll('\\"', '"').replaceAll("'", "\\'")}'`
      : json;
  }
  return name;
}

function groupKeySpan(text: string, path: EntryPath, lenient: boolean) {
  let node: JsonNode | undefined = jsonTree(text, lenient);
  let start: number | undefined;
  for (const part of path) {
    const member: JsonMember | undefined = node?.members.findLast(({ name }) => name === part);
    if (!member || node?.kind !== "object") return undefined;
    node = member.value;
    start = member.start;
  }
  if (start === undefined) return undefined;
  return spanFrom(text, start);
}

function readJson(text: string, separator: string, lenient: boolean, pool: KeyPool): CatalogContent {
  const found = new EntryPlaces(pool.size);
  const problems: CatalogProblem[] = [];
  const emptyGroups: EntryPath[] = [];
  let deep: number | undefined;
  const broken = scanJson(
    text,
    catalogVisitor(separator, pool, {
      entry: (key, start, end) => found.add(key, start, end),
      emptyGroup: (group) => emptyGroups.push(group.parent ? pathTo(group.parent, group.name) : []),
      notAnObject: (start, end) => problems.push(notAnObject({ start, end })),
      tooDeep: (start) => (deep ??= start),
    }),
    lenient,
  );
  // Lines of a merge in conflict are no JSON, so they are looked for only in what is none.
  const marker = broken && mergeMarker(text);
  if (marker) return catalogContent(entryTable([]), { problems: [marker] });
  if (deep !== undefined) return catalogContent(entryTable([]), { problems: [tooDeep(deep)] });
  if (broken) problems.push(explain(text, broken.offset, broken.length, lenient));
  const table = new JsonEntries(pool, found, text, lenient, () => metPlaces(text, separator, lenient));
  return catalogContent(table, { emptyGroups, problems });
}

/** The places of entries that were read before: most runs ask for none of them, so the file is read once more for them. */
function metPlaces(text: string, separator: string, lenient: boolean): MetPlaces {
  const met = new MetPlaces();
  const visitor = catalogVisitor(separator, new KeyPool(), {
    entry: (_key, _start, _end, group, keyStart) => met.add(group, keyStart),
  });
  scanJson(text, visitor, lenient);
  return met;
}

/** What reading a catalog tells as it goes. `entry` gets the key's place in the pool. */
interface CatalogListener {
  entry(key: number, start: number, end: number, group: OpenGroup, keyStart: number): void;
  emptyGroup?(group: OpenGroup): void;
  /** A value where the catalog's object is expected. */
  notAnObject?(start: number, end: number): void;
  /** A group that is nested too deeply, which is not read. */
  tooDeep?(start: number): void;
}

function catalogVisitor(separator: string, pool: KeyPool, listener: CatalogListener): JsonVisitor {
  let group: OpenGroup | undefined;
  let name = "";
  let keyStart = 0;
  let depth = 0;
  return {
    begin(list, start) {
      if (!group && list) listener.notAnObject?.(start, start + 1);
      if (++depth > deepestNesting) {
        listener.tooDeep?.(start);
        return;
      }
      const own = group?.list ? group.members : name;
      if (group) group.members++;
      const prefix = group ? pool.prefix(group.prefix + String(own) + separator) : "";
      group = { parent: group, name: own, list, prefix, members: 0 };
    },
    end() {
      if (depth-- > deepestNesting) return;
      if (group?.parent && group.members === 0) listener.emptyGroup?.(group);
      group = group?.parent;
    },
    key(written, start) {
      name = written;
      keyStart = start;
    },
    value(_kind, start, end) {
      if (depth > deepestNesting) return;
      if (!group) {
        listener.notAnObject?.(start, end);
        return;
      }
      const key = group.list
        ? pool.place(group.prefix, String(group.members))
        : pool.placeOfName(group.prefix, name);
      listener.entry(key, start, end, group, keyStart);
      group.members++;
    },
  };
}

const say = notices("json", {
  "too-deep": {
    message: "groups are nested deeper than {levels} levels",
    remedy: "check what wrote this file",
  },
  "not-object": { message: "the catalog is not an object", remedy: "write {written}" },
  empty: { message: "empty file", remedy: "write {written} for a catalog without entries" },
  comment: {
    message: "JSON has no comments",
    remedy: 'remove it, or set the book\'s "format" to "jsonc" if what reads the file allows comments',
  },
  end: {
    message: "unexpected end of file",
    remedy: "add the missing closing brace, or restore what was cut off",
  },
  escape: { message: "unknown escape", remedy: "use {escapes}" },
  "single-quotes": { message: "text in single quotes", remedy: "use double quotes" },
  unclosed: {
    message: "unclosed text",
    remedy: 'close it with ", and write {escape} for a line break inside',
  },
  quote: {
    message: "a quote inside a text ends it early",
    remedy: "write {escape} for a quote inside a text",
  },
  "no-comma": { message: "missing comma", remedy: "add a comma after the entry before this one" },
  "trailing-comma": { message: "trailing comma", remedy: "remove it" },
  unexpected: {
    message: 'unexpected "{found}"',
    remedy: "check the quotes, commas and braces just before it",
  },
});

function tooDeep(at: number): CatalogProblem {
  return { code: "syntax", ...say("too-deep", { levels: deepestNesting }), span: { start: at, end: at + 1 } };
}

function notAnObject(span: { start: number; end: number }): CatalogProblem {
  return { code: "shape", ...say("not-object", { written: '{ "key": "text" }' }), span };
}

/** Words the first place where JSON breaks off by what most likely happened there. */
function explain(text: string, offset: number, length: number, lenient: boolean): CatalogProblem {
  const problem = (notice: Notice, start = offset, end = offset + Math.max(length, 1)): CatalogProblem => ({
    code: "syntax",
    ...notice,
    span: { start, end: Math.min(end, Math.max(text.length, start)) },
  });
  if (text.trim() === "") return problem(say("empty", { written: "{}" }), 0, 0);
  const before = text.slice(0, offset).trimEnd();
  const lineStart = lineStartOf(text, offset);
  const lineEnd = text.indexOf("\n", offset) < 0 ? text.length : text.indexOf("\n", offset);
  const line = text.slice(lineStart, lineEnd);
  const found = text.slice(offset, offset + Math.max(length, 1));
  if (!lenient && /^\/[/*]/.test(text.slice(offset, offset + 2))) return problem(say("comment", {}));
  if (offset >= text.trimEnd().length) return problem(say("end", {}), before.length, before.length + 1);
  if (/^\\[^"\\/bfnrtu]|^\\u(?![\da-fA-F]{4})/.test(found))
    return problem(say("escape", { escapes: '\\" \\\\ \\/ \\b \\f \\n \\r \\t or \\uXXXX' }));
  if (found.startsWith("'")) return problem(say("single-quotes", {}));
  if (found.startsWith('"') && (unclosedOnLine(line) || length > lineEnd - offset))
    return problem(say("unclosed", { escape: "\\n" }));
  const onSameLine = before.length > lineStart;
  const openQuote = before.endsWith('"') && onSameLine && /^[^\s,:}\]]/.test(found) && !found.startsWith('"');
  if (openQuote || (onSameLine && hasQuoteInside(line) && !found.startsWith('"'))) {
    const quote = before.lastIndexOf('"');
    return problem(say("quote", { escape: '\\"' }), quote, quote + 1);
  }
  if (found.startsWith('"') && /["\d}\]el]$/.test(before)) return problem(say("no-comma", {}));
  if (/^[}\]]/.test(found) && before.endsWith(","))
    return problem(say("trailing-comma", {}), before.length - 1, before.length);
  return problem(say("unexpected", { found: found.slice(0, 20) }));
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

interface JsonStyle {
  readonly lineEnd: string;
  readonly indent: string;
  readonly asciiOnly: boolean;
  readonly quote: '"' | "'";
  /** Whether names stand without quotes. */
  readonly bareNames: boolean;
}

function editJson(text: string, changes: CatalogChanges, lenient: boolean): string {
  const root = jsonTree(text, lenient);
  if (root?.kind !== "object") throw new Error("a JSON catalog that cannot be read cannot be edited");
  const editor = new JsonEditor(text, styleOf(text, root, lenient), orderTree(changes.order ?? []), lenient);
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
    private readonly lenient: boolean,
  ) {}

  set(root: JsonNode, path: EntryPath, value: string): void {
    let node: JsonNode | undefined = root;
    for (const part of path) node = node?.members.findLast(({ name }) => name === part)?.value;
    if (!node) throw new Error(`no entry at ${path.join(".")}`);
    this.edits.push({ start: node.start, end: node.end, replacement: this.encode(value) });
  }

  /** Adds and removes members below one group. True when nothing of the group would be left. */
  change(
    node: JsonNode,
    path: EntryPath,
    additions: AdditionGroup,
    removals: ReadonlySet<string>,
    depth: number,
  ): boolean {
    if (additions.size === 0 && removals.size === 0) return false;
    const changed = changeGroup(
      node.members,
      path,
      { additions, removals, order: this.order },
      {
        changeBelow: ({ value }, memberPath, below) => {
          if (!isGroup(value)) return false;
          const before = this.edits.length;
          if (!this.change(value, memberPath, below, removals, depth + 1) || value.members.length === 0)
            return false;
          this.edits.length = before;
          return true;
        },
        takesBelow: ({ value }) => isGroup(value),
        holdsText: ({ value }) => holdsValue(value),
        replace: ({ value: { start, end } }, text) =>
          this.edits.push({ start, end, replacement: this.encode(text) }),
      },
    );
    if (!changed) return false;
    if (changed.isEmptied && depth > 0) return true;
    this.rewriteMembers(node, changed);
    return false;
  }

  /** Writes the insertions (by the index of the kept member that they follow, -1 for the front) and removals of one group. */
  private rewriteMembers(node: JsonNode, { removed, inserted }: GroupChange): void {
    const { members } = node;
    const first = members[0];
    const multiline = !first || this.text.slice(node.start, first.start).includes("\n");
    const indent =
      first && multiline ? this.indentOf(first.start) : this.indentOf(node.start) + this.style.indent;
    const lead = multiline ? this.style.lineEnd + indent : " ";
    const write = ({ name, addition }: NewMember) =>
      this.comment(addition, lead) +
      lead +
      (node.kind === "list" ? "" : this.name(String(name)) + this.colon(first)) +
      this.render(addition, indent, multiline);
    if (!first) {
      const texts = [...inserted.values()].flat().map(write);
      const inside = { start: node.start + 1, end: node.end - 1 };
      const isBlank = this.text.slice(inside.start, inside.end).trim() === "";
      const close = this.style.lineEnd + this.indentOf(node.start);
      this.edits.push({
        start: isBlank ? inside.start : inside.end,
        end: inside.end,
        replacement: texts.join(",") + close,
      });
      return;
    }
    const lastIndex = members.length - 1;
    const endsInComma = members[lastIndex]?.commaEnd !== undefined;
    let lastKept = lastIndex;
    while (removed.has(lastKept)) lastKept--;
    for (const index of removed)
      this.edits.push({
        start: this.removalStart(node, index),
        end: this.slotEnd(node, index),
        replacement: "",
      });
    const keptComma = members[lastKept]?.commaEnd;
    if (keptComma !== undefined && lastKept < lastIndex && !endsInComma && !inserted.has(lastKept))
      this.edits.push({ start: keptComma - 1, end: keptComma, replacement: "" });
    for (const [index, list] of inserted) {
      const member = members[index];
      if (member && member.commaEnd === undefined)
        this.edits.push({ start: member.value.end, end: member.value.end, replacement: "," });
      const at = member ? this.slotEnd(node, index) : node.start + 1;
      const commaAfter = index === lastKept && !endsInComma ? "" : ",";
      this.edits.push({ start: at, end: at, replacement: list.map(write).join(",") + commaAfter });
    }
  }

  /** Where what belongs to a member starts: behind the member before it, but not the comments that a blank line parts from it. */
  private removalStart(node: JsonNode, index: number): number {
    const start = index === 0 ? node.start + 1 : this.slotEnd(node, index - 1);
    if (!this.lenient) return start;
    const gap = this.text.slice(start, node.members[index]?.start ?? start);
    // The last line that holds a comment or its end and is followed by an empty one.
    let end = start;
    let at = start;
    const lines = gap.split("\n");
    for (const [index, line] of lines.entries()) {
      const isComment = line.includes("//") || line.trimEnd().endsWith("*/");
      if (isComment && index < lines.length - 2 && lines[index + 1]?.trim() === "")
        end = at + line.trimEnd().length;
      at += line.length + 1;
    }
    return end;
  }

  /** Behind the comma of a member and a comment on the same line, or behind the member where it is the last. */
  private slotEnd(node: JsonNode, index: number): number {
    const member = node.members[index];
    if (!member) return node.start + 1;
    const end = member.commaEnd ?? member.value.end;
    if (!this.lenient) return end;
    const beside = /^[ \t]*(?:\/\/[^\r\n]*|\/\*(?:(?!\*\/)[^\n])*\*\/(?=[ \t]*\r?\n))/.exec(
      this.text.slice(end, end + 2000),
    );
    return end + (beside?.[0].length ?? 0);
  }

  private comment(addition: Addition, lead: string): string {
    if (!this.lenient || !("text" in addition) || addition.comment === undefined) return "";
    return addition.comment
      .split("\n")
      .map(
        (line) =>
          `${lead === " " ? "" : lead}// ${line}`.trimEnd() + (lead === " " ? this.style.lineEnd : ""),
      )
      .join("");
  }

  private render(addition: Addition, indent: string, multiline: boolean): string {
    if ("text" in addition) return this.encode(addition.text);
    const isList = [...addition.below.keys()].every((name) => typeof name === "number");
    const inner = indent + this.style.indent;
    const lead = multiline ? this.style.lineEnd + inner : " ";
    const members = [...addition.below].map(
      ([name, below]) =>
        this.comment(below, lead) +
        lead +
        (isList ? "" : `${this.name(String(name))}: `) +
        this.render(below, inner, multiline),
    );
    const close = multiline ? this.style.lineEnd + indent : " ";
    return (isList ? "[" : "{") + members.join(",") + close + (isList ? "]" : "}");
  }

  private name(name: string): string {
    if (this.style.bareNames && /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)) return name;
    return this.style.quote === "'" ? this.encode(name) : JSON.stringify(name);
  }

  private encode(value: string): string {
    let json = JSON.stringify(value);
    if (this.style.quote === "'")
      json = `'${json.slice(1, -1).replaceAll('\\"', '"').replaceAll("'", "\\'")}'`;
    if (!this.style.asciiOnly) return json;
    return json.replace(
      /[\u007f-\uffff]/g,
      (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`,
    );
  }

  private colon(first: JsonMember | undefined): string {
    if (!first || typeof first.name === "number") return ": ";
    const between = this.text.slice(first.start, first.value.start);
    return /(?<!\s)\s*:[ \t]*$/.exec(between)?.[0].replace(/^[ \t]*[\r\n]+\s*/, "") ?? ": ";
  }

  private indentOf(offset: number): string {
    const lineStart = lineStartOf(this.text, offset);
    return /^[ \t]*/.exec(this.text.slice(lineStart, offset))?.[0] ?? "";
  }
}

function isGroup({ kind }: JsonNode): boolean {
  return kind === "object" || kind === "list";
}

/** Whether there is any text below a node; groups in groups alone hold none. */
function holdsValue(node: JsonNode): boolean {
  return isGroup(node) ? node.members.some(({ value }) => holdsValue(value)) : true;
}

function styleOf(text: string, root: JsonNode, lenient: boolean): JsonStyle {
  const lineEnd = /\r\n|\n|\r/.exec(text)?.[0] ?? "\n";
  const indent = /^([ \t]+)["'\p{L}]/mu.exec(text)?.[1] ?? "  ";
  const asciiOnly = !/[\u007f-\uffff]/.test(text) && /\\u(?!00[01])[0-9a-fA-F]{4}/.test(text);
  const names = lenient ? root.members.map(({ start }) => text[start]) : [];
  const firstText = (node: JsonNode): string | undefined =>
    node.kind === "text" ? text[node.start] : node.members.map(({ value }) => firstText(value)).find(Boolean);
  return {
    lineEnd,
    indent,
    asciiOnly,
    quote: lenient && firstText(root) === "'" ? "'" : '"',
    bareNames: names.length > 0 && names.every((unit) => unit !== '"' && unit !== "'"),
  };
}

/** Whether a line is a member whose text holds a quote that no backslash leads: `"key": "a "word" more",`. */
function hasQuoteInside(line: string): boolean {
  const head = /^\s*"[^"]*"\s*:\s*"/.exec(line)?.[0];
  const tail = /"(?:\s*,)?$/.exec(line.trimEnd())?.[0];
  if (head === undefined || tail === undefined) return false;
  const inside = line.trimEnd().slice(head.length, -tail.length);
  return !inside.endsWith("\\") && /[^\\]"./.test(inside);
}
