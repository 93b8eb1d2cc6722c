import { lineStart as lineStartOf } from "../../../text/line-start.js";
import { notices } from "../../../message/notices.js";
import type { Notice } from "../../../text/wording.js";
import { deepestNesting } from "../../../text/nesting.js";
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
import { editLiterals, styleOfLiterals, type LiteralStyle, type LiteralSyntax } from "../literal-edit.js";
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
  let isNested = false;
  let hasJoinedNames = false;
  const broken = scanJson(
    text,
    catalogVisitor(separator, pool, {
      entry(key, start, end, group) {
        found.add(key, start, end);
        if (group.parent) isNested = true;
        else hasJoinedNames ||= pool.keyOfPlace(key).includes(separator);
      },
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
  const placesOf = () => metPlaces(text, separator, lenient);
  const table = new JsonEntries(pool, found, text, lenient, placesOf, isNested, hasJoinedNames);
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

function editJson(text: string, changes: CatalogChanges, lenient: boolean): string {
  const root = jsonTree(text, lenient);
  if (root?.kind !== "object") throw new Error("a JSON catalog that cannot be read cannot be edited");
  const found = styleOfLiterals(text, root, lenient);
  const style = { ...found, quote: lenient && found.quote === "'" ? "'" : '"', indent: indentOf(text) };
  return editLiterals(text, root, changes, style, lenient ? lenientSyntax : strictSyntax);
}

function indentOf(text: string): string {
  return /^([ \t]+)["'\p{L}]/mu.exec(text)?.[1] ?? "  ";
}

const strictSyntax: LiteralSyntax = {
  comment: undefined,
  group: ["{", "}"],
  list: ["[", "]"],
  between: ": ",
  betweenPattern: /(?<!\s)\s*:[ \t]*$/,
  separator: ",",
  lastComma: () => "",
  writeName: (name, style) =>
    style.bareNames && /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)
      ? name
      : style.quote === "'"
        ? writeText(name, style)
        : JSON.stringify(name),
  writeText,
};

const lenientSyntax: LiteralSyntax = { ...strictSyntax, comment: "//" };

function writeText(value: string, style: LiteralStyle): string {
  let json = JSON.stringify(value);
  if (style.quote === "'") json = `'${json.slice(1, -1).replaceAll('\\"', '"').replaceAll("'", "\\'")}'`;
  if (!style.asciiOnly) return json;
  return json.replace(/[\u007f-\uffff]/g, (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`);
}

/** Whether a line is a member whose text holds a quote that no backslash leads: `"key": "a "word" more",`. */
function hasQuoteInside(line: string): boolean {
  const head = /^\s*"[^"]*"\s*:\s*"/.exec(line)?.[0];
  const tail = /"(?:\s*,)?$/.exec(line.trimEnd())?.[0];
  if (head === undefined || tail === undefined) return false;
  const inside = line.trimEnd().slice(head.length, -tail.length);
  return !inside.endsWith("\\") && /[^\\]"./.test(inside);
}
