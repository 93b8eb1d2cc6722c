import { notices } from "../../message/notices.js";
import { deepestNesting } from "../../text/nesting.js";
import type { Span } from "../../text/span.js";
import { lineStart as lineStartOf } from "../../text/line-start.js";
import { catalogContent, entryTable } from "../entry-table.js";
import { KeyPool } from "../key-pool.js";
import type { CatalogContent, CatalogFormat, CatalogProblem, Entry, EntryPath, PathPart } from "../model.js";
import { literalAt, type LiteralNode } from "./literal-edit.js";
import { hidden, LiteralBreak } from "./literal-scan.js";
import { mergeMarker } from "./merge-marker.js";

/** A file of code that was read: the group that is its catalog, and what each text in it says. */
export interface LiteralFile {
  readonly root: LiteralNode;
  readonly texts: ReadonlyMap<number, string>;
}

const say = notices("literals", {
  quote: {
    message: "a quote ends the text here, and the rest of the line is no code",
    remedy: "write {escape} for a quote inside of the text",
  },
  end: {
    message: "unexpected end of file",
    remedy: "add the missing closing bracket, or restore what was cut off",
  },
  unexpected: { message: 'unexpected "{found}"', remedy: "check the line, and the end of the line above it" },
  comma: { message: "no comma between two entries", remedy: "add a comma at the end of the line above" },
  deep: { message: "groups are nested deeper than {levels} levels", remedy: "check what wrote this file" },
  "no-texts": {
    message: "the file has no group of texts that can be read without running it",
    remedy: "write {written}, or convert the book to another format",
  },
});

/** What differs between the languages whose literals are catalogs. */
export interface LiteralCatalog extends Pick<
  CatalogFormat,
  "name" | "extensions" | "empty" | "edit" | "writeKey"
> {
  /** The smallest file that can be read. */
  readonly example: string;
  readonly lineComments: readonly string[];
  readonly keysNameFile?: true;
  /** The signs in a string that stand for others, sticky, by the quote it starts with. */
  readonly escape: (quote: string) => RegExp;
  /** The texts of a file; undefined where it has none. Throws `LiteralBreak` where the file breaks off. */
  fileOf(text: string): LiteralFile | undefined;
  /** The group that stands for a file's root in a file without entries; undefined where it cannot be replaced. */
  emptyGroup(text: string, root: LiteralNode): string | undefined;
}

/** The format of catalogs that are literals of a language of programs. */
export function literalFormat(language: LiteralCatalog): CatalogFormat {
  const { name, extensions, empty, edit, writeKey, fileOf } = language;
  const [mark = "//"] = language.lineComments;
  const rootOf = (text: string) => readable(() => fileOf(text))?.root;
  return {
    name,
    extensions,
    holds: "locale",
    read: (text, separator, pool = new KeyPool()) => {
      pool.start();
      return readLiterals(text, separator, language);
    },
    edit,
    empty,
    code: {
      emptyLike: (text) => {
        const root = rootOf(text);
        const group = root && language.emptyGroup(text, root);
        return group && text.slice(0, root.start) + group + text.slice(root.end);
      },
      ...(language.keysNameFile && { keysNameFile: true }),
    },
    comments: { line: language.lineComments, ...(mark === "//" && { block: ["/*", "*/"] as const }) },
    commentWriter: () => (line) => `${mark} ${line}`.trimEnd(),
    nests: true,
    canReorder: true,
    writeKey,
    groupKeySpan: (text, path) => {
      const member = literalAt(rootOf(text), path);
      return member && nameSpan(text, member.start);
    },
    offsetInFile: (text, entry, offset) => offsetInStrings(text, entry, offset, language.escape),
  };
}

function readLiterals(text: string, separator: string, { example, fileOf }: LiteralCatalog): CatalogContent {
  const failed = (problem: CatalogProblem) => catalogContent(entryTable([]), { problems: [problem] });
  let file: LiteralFile | undefined;
  try {
    file = fileOf(text);
  } catch (error) {
    if (!(error instanceof LiteralBreak)) throw error;
    return failed(mergeMarker(text) ?? explain(text, error));
  }
  if (!file)
    return failed(
      mergeMarker(text) ?? {
        code: "shape",
        ...say("no-texts", { written: example }),
        span: { start: 0, end: 0 },
      },
    );
  const { entries, ...more } = entriesOf(text, file, separator);
  return catalogContent(entryTable(entries), more);
}

/** A file that breaks off is none to edit or to follow. */
function readable(read: () => LiteralFile | undefined): LiteralFile | undefined {
  try {
    return read();
  } catch (error) {
    if (error instanceof LiteralBreak) return undefined;
    throw error;
  }
}

/** The entries of a tree; what is worked out is one too, so that its key is there. */
function entriesOf(
  text: string,
  { root, texts }: LiteralFile,
  separator: string,
): Pick<CatalogContent, "entries" | "emptyGroups" | "unknown"> {
  const entries: Entry[] = [];
  const emptyGroups: EntryPath[] = [];
  const unknown: Span[] = [];
  const visit = (node: LiteralNode, path: readonly PathPart[]) => {
    if (node.members.length === 0 && path.length > 0) emptyGroups.push(path);
    for (const { name, start, value } of node.members) {
      if (typeof name === "string" && name.startsWith(hidden)) {
        unknown.push({ start, end: value.end });
        continue;
      }
      const own = [...path, name];
      if (value.kind === "object" || value.kind === "list") {
        visit(value, own);
        continue;
      }
      const valueSpan = { start: value.start, end: value.end };
      entries.push({
        key: own.join(separator),
        path: own,
        text: texts.get(value.start) ?? text.slice(value.start, value.end),
        kind: value.kind,
        keySpan: start === value.start ? valueSpan : nameSpan(text, start),
        valueSpan,
      });
    }
  };
  visit(root, []);
  return { entries, emptyGroups, unknown };
}

/** Where the name of a member stands that starts at a place: of a variable's member, in its brackets. */
function nameSpan(text: string, start: number): Span {
  const variable = /\$\w+\s*\[\s*/y;
  variable.lastIndex = start;
  const from = start + (variable.exec(text)?.[0].length ?? 0);
  const name = /"(?:[^"\\]|\\[^])*"|'(?:[^'\\]|\\[^])*'|[\p{L}\p{N}_$]+/uy;
  name.lastIndex = from;
  return { start: from, end: from + (name.exec(text)?.[0].length ?? 1) };
}

/** The place in the file of a code unit of an entry's text, which may be several strings joined. */
function offsetInStrings(
  text: string,
  { kind, valueSpan: { start, end } }: Entry,
  offset: number,
  escapeOf: (quote: string) => RegExp,
): number {
  if (kind !== "text") return start;
  let quote = text[start] ?? "";
  let at = start + 1;
  for (let unit = 0; ; unit++) {
    while (text[at] === quote && at < end - 1) {
      const opening = /["'`]/g;
      opening.lastIndex = at + 1;
      quote = opening.exec(text)?.[0] ?? "";
      at = opening.lastIndex;
    }
    if (unit >= offset || at >= end - 1) return at;
    const escape = escapeOf(quote);
    escape.lastIndex = at;
    at += escape.exec(text)?.[0].length ?? 1;
  }
}

/** Words the place where a file breaks off by what most likely happened there. */
function explain(text: string, { offset, why }: LiteralBreak): CatalogProblem {
  const at = (start: number, end: number) => ({ code: "syntax" as const, span: { start, end } });
  if (why === "deep") return { ...at(offset, offset + 1), ...say("deep", { levels: deepestNesting }) };
  if (why === "end" || offset >= text.length) {
    const last = text.trimEnd().length;
    return { ...at(Math.max(last - 1, 0), last), ...say("end", {}) };
  }
  const before = text.slice(lineStartOf(text, offset), offset);
  const quote = /(["'])\s?$/.exec(before);
  if (quote && /[\p{L}\p{N}]/u.test(text[offset] ?? "")) {
    const place = offset - quote[0].length;
    return { ...at(place, place + 1), ...say("quote", { escape: `\\${quote[1] ?? ""}` }) };
  }
  if (before.trim() === "" && /["'\p{L}]/u.test(text[offset] ?? ""))
    return { ...at(offset, offset + 1), ...say("comma", {}) };
  const found = /\S{1,20}/.exec(text.slice(offset))?.[0] ?? "";
  return { ...at(offset, offset + Math.max(found.length, 1)), ...say("unexpected", { found }) };
}
