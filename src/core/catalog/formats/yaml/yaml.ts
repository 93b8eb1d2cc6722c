import { lineStart as lineStartOf } from "../../../text/line-start.js";
import { notices } from "../../../message/notices.js";
import type { Notice } from "../../../text/wording.js";
import { deepestNesting, tooDeepInYaml } from "../../../text/nesting.js";
import type { Alias, Document, Node, Pair, YAMLMap, YAMLSeq } from "yaml";
import type { Span } from "../../../text/span.js";
import { catalogContent, entryTable, PooledEntries, type EntryPlaces } from "../../entry-table.js";
import {
  isAlias,
  isMap,
  isPair,
  isScalar,
  isSeq,
  lineCounter,
  parseAllDocuments,
} from "../../../text/yaml.js";
import type {
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  Entry,
  EntryPath,
  PathPart,
} from "../../model.js";
import { KeyPool } from "../../key-pool.js";
import { mergeMarker } from "../merge-marker.js";
import { editYaml, writeYamlKey, yamlGroupKeySpan } from "./yaml-edit.js";
import { isQuote, plainKind, readYamlLines, yamlPath, type YamlItems } from "./yaml-lines.js";

/** Catalogs in YAML 1.2, with the habits that catalogs keep from YAML 1.1. */
export const yamlFormat: CatalogFormat = {
  name: "yaml",
  extensions: ["yaml", "yml"],
  holds: "locale",
  read: (text, separator, pool = new KeyPool()) => readYaml(text, separator, pool),
  edit: (text, changes) => editYaml(text, changes),
  empty: "",
  comments: { line: ["#"] },
  commentWriter: () => (line) => `# ${line}`.trimEnd(),
  nests: true,
  canReorder: true,
  writeKey: writeYamlKey,
  groupKeySpan: yamlGroupKeySpan,
  offsetInFile,
};

class YamlEntry implements Entry {
  constructor(
    readonly key: string,
    readonly text: string,
    private readonly items: YamlItems,
    private readonly index: number,
    readonly valueSpan: Span,
  ) {}

  get kind(): Entry["kind"] {
    return this.items.kindAt(this.index);
  }
  get path(): EntryPath {
    const group = this.items.groupAt(this.index);
    const name = this.key.slice(group.prefix.length);
    return yamlPath(group, group.list === true ? Number(name) : name);
  }
  get keySpan() {
    return this.items.keySpanAt(this.index);
  }
}

/** The entries of a file that was read line by line. */
class YamlEntries extends PooledEntries {
  private readonly values: Int32Array;

  constructor(
    pool: KeyPool,
    places: EntryPlaces,
    private readonly items: YamlItems,
    private readonly source: string,
  ) {
    super(pool, places);
    this.values = places.spans();
  }

  textAt(index: number): string {
    const start = this.plainStartAt(index);
    return start < 0
      ? (this.items.resolvedAt(index) ?? "")
      : this.source.slice(start, start + this.plainLengthAt(index));
  }
  plainStartAt(index: number): number {
    if (this.items.resolvedAt(index) !== undefined) return -1;
    const { start } = this.valueSpanAt(index);
    return this.isQuotedAt(index) ? start + 1 : start;
  }
  plainLengthAt(index: number): number {
    const { start, end } = this.valueSpanAt(index);
    return this.items.resolvedAt(index)?.length ?? (this.isQuotedAt(index) ? end - start - 2 : end - start);
  }
  isTextAt(index: number): boolean {
    return this.items.kindAt(index) === "text";
  }
  protected makeEntry(index: number): Entry {
    const { items } = this;
    return new YamlEntry(this.keyAt(index), this.textAt(index), items, index, this.valueSpanAt(index));
  }

  /** Of texts that are as they are written, those that begin with a quotation mark stand between two. */
  private isQuotedAt(index: number): boolean {
    return isQuote(this.source.charCodeAt(this.values[2 * index] ?? 0));
  }

  private valueSpanAt(index: number): Span {
    return { start: this.values[2 * index] ?? 0, end: this.values[2 * index + 1] ?? 0 };
  }
}

function readYaml(text: string, separator: string, pool: KeyPool): CatalogContent {
  const marker = mergeMarker(text);
  if (marker) return catalogContent(entryTable([]), { problems: [marker] });
  const lines = readYamlLines(text, separator, pool);
  if (lines)
    return catalogContent(new YamlEntries(pool, lines.places, lines.items, text), {
      emptyGroups: lines.emptyGroups,
    });
  return readDocument(text, separator);
}

/** A file unfolds by its aliases to ten times what it holds at most, and small files to so many entries. */
const fewEntries = 2_000;

/** Everything that the quick reader leaves: read by the whole parser. */
function readDocument(text: string, separator: string): CatalogContent {
  // The parser goes down by recursion, and one that has no stack left cannot be caught everywhere: deep files do not reach it.
  const deep = tooDeepInYaml(text);
  const documents = deep === undefined ? parsedDocuments(text) : undefined;
  if (!documents) return catalogContent(entryTable([]), { problems: [tooDeep(text, deep ?? 0)] });
  const [document, second] = documents;
  if (!document) return catalogContent(entryTable([]));
  const walk = new DocumentWalk(text, separator, document);
  walk.all();
  const first = documentProblem(text, document, second) ?? walk.problem;
  if (!first) return catalogContent(entryTable(walk.entries), { emptyGroups: walk.emptyGroups });
  // Of a file that breaks off, what stands before the broken line is sure.
  const line = lineStartOf(text, first.span.start);
  const sure = walk.entries.filter(({ kind, valueSpan }) => kind === "text" && valueSpan.end <= line);
  return catalogContent(entryTable(sure), { problems: [first] });
}

/** A problem of a file's text: at least one character of it. */
function problemAt(
  text: string,
  notice: Notice,
  { start, end }: Span,
  code: CatalogProblem["code"] = "syntax",
): CatalogProblem {
  return { code, ...notice, span: { start, end: Math.max(end, Math.min(start + 1, text.length)) } };
}

function tooDeep(text: string, at: number): CatalogProblem {
  return problemAt(text, say("too-deep", {}), { start: at, end: at + 1 });
}

/** The documents of a file; undefined where it is nested too deeply for the parser. */
function parsedDocuments(text: string): readonly Document[] | undefined {
  try {
    const parsed = parseAllDocuments(text, {
      uniqueKeys: false,
      prettyErrors: false,
      merge: true,
      lineCounter: lineCounter(),
      logLevel: "silent",
    });
    return Array.isArray(parsed) ? parsed : [];
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return undefined;
  }
}

/** What keeps a document from being a catalog, as far as the parser knows. */
function documentProblem(
  text: string,
  document: Document,
  second: Document | undefined,
): CatalogProblem | undefined {
  const [error] = document.errors;
  if (error) {
    const [start, end] = error.pos;
    return problemAt(text, explain(text, error.code, error.message, start), { start, end });
  }
  if (second) {
    const start = second.range?.[0] ?? 0;
    return problemAt(text, say("second-document", {}), { start, end: start + 1 }, "shape");
  }
  const root = document.contents;
  if (!root || isMap(root)) return undefined;
  const [start = 0, end = 0] = root.range ?? [];
  return problemAt(text, say("not-mapping", {}), { start, end: Math.min(end, start + 40) }, "shape");
}

/** A node on the way down, with what its entry gets from above. */
interface Visit {
  readonly path: EntryPath;
  readonly keySpan: Span;
  /** Where a value would stand that is not there. */
  readonly at: number;
  /** Whether it is elsewhere in the file, and only referred to here. */
  readonly isInherited: boolean;
  readonly depth: number;
}

/** Goes through a document and collects its entries, what aliases and merge keys stand for among them. */
class DocumentWalk {
  readonly entries: Entry[] = [];
  readonly emptyGroups: EntryPath[] = [];
  private readonly resolve: (alias: Alias) => Node | undefined;
  private readonly mostVisits: number;
  /** What it could not go on from, the first of such places. */
  problem: CatalogProblem | undefined;
  private visits = 0;

  constructor(
    private readonly text: string,
    private readonly separator: string,
    private readonly document: Document,
  ) {
    this.resolve = aliasResolver(document);
    // Each entry that is written out takes a line, or a comma in a flow collection.
    this.mostVisits = fewEntries + 10 * (text.match(/[\n,]/g)?.length ?? 0);
  }

  /** Collects all entries. */
  all(): void {
    const root = this.document.contents;
    if (!isMap(root)) return;
    try {
      this.node(root, { path: [], keySpan: { start: 0, end: 0 }, at: 0, isInherited: false, depth: 0 });
    } catch (thrown) {
      if (!(thrown instanceof RangeError || thrown instanceof ReferenceError)) throw thrown;
      this.fail(say("too-deep", {}), { start: 0, end: 1 });
    }
  }

  private fail(notice: Notice, span: Span): void {
    this.problem ??= problemAt(this.text, notice, span);
  }

  private node(given: Node | null, visit: Visit): void {
    if (++this.visits > this.mostVisits || visit.depth > deepestNesting) {
      const isDeep = visit.depth > deepestNesting;
      this.fail(isDeep ? say("too-deep", {}) : say("too-many-aliases", {}), visit.keySpan);
      return;
    }
    const alias = isAlias(given) ? given : undefined;
    const node = alias ? this.resolve(alias) : given;
    if (alias && !node) return;
    if (alias && node && holds(node, alias)) {
      this.fail(say("circular", {}), visit.keySpan);
      return;
    }
    const isInherited = visit.isInherited || (alias !== undefined && !isScalar(node));
    if (isMap(node)) this.mapping(node, { ...visit, isInherited });
    else if (isSeq(node)) this.sequence(node, { ...visit, isInherited });
    else this.scalar(node ?? null, visit, alias);
  }

  private mapping(node: YAMLMap, visit: Visit): void {
    const { path, keySpan, at, isInherited } = visit;
    if (node.items.length === 0 && path.length > 0) this.emptyGroups.push(path);
    const own = new Set<string>();
    for (const pair of node.items) if (!isMergeKey(pair)) own.add(keyText(pair.key as Node, this.text));
    for (const pair of node.items) {
      const key = pair.key as Node;
      const [start, end] = key.range ?? [at, at];
      if (isMergeKey(pair)) {
        this.merged(pair, own, { ...visit, keySpan: { start, end }, at: end + 1, isInherited: true });
        continue;
      }
      this.node(pair.value as Node | null, {
        path: [...path, keyText(key, this.text)],
        keySpan: isInherited ? keySpan : { start, end },
        at: end + 1,
        isInherited,
        depth: visit.depth + 1,
      });
      if (this.visits > this.mostVisits) return;
    }
  }

  /** What a merge key takes in: the members of other mappings that this one has no own for. */
  private merged(pair: Pair, own: ReadonlySet<string>, visit: Visit): void {
    for (const base of mergedMaps(pair.value as Node | null, this.resolve)) {
      if (holds(base, pair.key as Node)) {
        this.fail(say("circular", {}), visit.keySpan);
        continue;
      }
      for (const inner of base.items) {
        const name = keyText(inner.key as Node, this.text);
        if (!own.has(name))
          this.node(inner.value as Node | null, {
            ...visit,
            path: [...visit.path, name],
            depth: visit.depth + 1,
          });
      }
    }
  }

  private sequence(node: YAMLSeq, visit: Visit): void {
    const { path, keySpan, at, isInherited, depth } = visit;
    if (node.items.length === 0) this.emptyGroups.push(path);
    for (const [index, item] of node.items.entries()) {
      const one = isPair(item) ? null : (item as Node);
      const [start, end] = one?.range ?? [at, at];
      this.node(one, {
        path: [...path, index],
        keySpan: isInherited ? keySpan : { start, end },
        at: end,
        isInherited,
        depth: depth + 1,
      });
    }
  }

  /** A text or another value. What an alias stands for is where the anchor is; the alias is the place that a change would replace. */
  private scalar(
    node: Node | null,
    { path, keySpan, at, isInherited }: Visit,
    alias: Alias | undefined,
  ): void {
    const { text } = this;
    const place = Math.min(at, text.length);
    const [start, end] = node?.range ?? [place, place];
    const scalar = isScalar(node) ? node : undefined;
    const source = scalar?.source ?? "";
    const isPlain = scalar?.type === "PLAIN" || scalar?.type === undefined;
    const kind = !node ? "null" : isPlain && !scalar?.tag ? plainKind(source) : "text";
    const value = scalar?.value;
    const [from, to] = alias?.range ?? (alias ? [at, at] : [start, end]);
    this.entries.push({
      key: path.join(this.separator),
      path,
      text: kind === "text" ? (typeof value === "string" ? value : source) : text.slice(start, end),
      kind,
      keySpan,
      valueSpan: isInherited ? keySpan : { start: from, end: to },
      ...(isInherited && { isInherited }),
    });
  }
}

/**
 * What an alias stands for: the last node with its anchor before it (YAML 1.2.2, section 7.1). All are found in one walk; the
 * parser's own way walks the document for each.
 */
function aliasResolver(document: Document): (alias: Alias) => Node | undefined {
  const anchors = new Map<string, Node>();
  const resolved = new Map<Alias, Node | undefined>();
  const walk = (node: unknown): void => {
    if (isAlias(node)) resolved.set(node, anchors.get(node.source));
    else if (isMap(node) || isSeq(node) || isScalar(node)) {
      if (node.anchor !== undefined) anchors.set(node.anchor, node);
      if (!isScalar(node)) for (const item of node.items) walk(item);
    } else if (isPair(node)) {
      walk(node.key);
      walk(node.value);
    }
  };
  walk(document.contents);
  return (alias) => resolved.get(alias);
}

/** Whether one node stands inside another, which is not a text. */
function holds(outer: Node, inner: Node): boolean {
  const [start, , end] = outer.range ?? [0, 0, 0];
  const at = inner.range?.[0] ?? -1;
  return !isScalar(outer) && start <= at && at < end;
}

function isMergeKey(pair: Pair): boolean {
  return isScalar(pair.key) && pair.key.source === "<<" && pair.key.type === "PLAIN";
}

/** The mappings that a merge key brings in, the one that counts more first. */
function mergedMaps(value: Node | null, resolve: (alias: Alias) => Node | undefined) {
  const given = isSeq(value) ? (value.items as Node[]) : value ? [value] : [];
  return given.map((one) => (isAlias(one) ? resolve(one) : one)).filter((one) => isMap(one));
}

/** A key as written: what YAML 1.1 would take for a truth value or number is a name all the same. */
function keyText(key: Node | null, text: string): PathPart & string {
  if (isScalar(key)) return typeof key.value === "string" ? key.value : (key.source ?? String(key.value));
  // A mapping or a list as a key: nobody looks a text up by one, so it goes by how it is written.
  const [start, end] = key?.range ?? [0, 0];
  return text.slice(start, end);
}

const say = notices("yaml", {
  "too-deep": { message: "groups are nested too deeply to read", remedy: "check what wrote this file" },
  "second-document": {
    message: "second document in the same file",
    remedy: "keep one catalog a file: remove the line --- between them",
  },
  "not-mapping": { message: "the catalog is not a mapping", remedy: "write key: text" },
  circular: {
    message: "alias inside what it refers to",
    remedy: "write the texts out instead of repeating them by an alias",
  },
  "too-many-aliases": {
    message: "aliases expand to more than a catalog can hold",
    remedy: "write the texts out instead of repeating them by aliases",
  },
  tab: { message: "tab in the indentation", remedy: "use spaces" },
  group: {
    message: "text that starts with {character} is read as a group",
    remedy: "put the text in quotes",
  },
  start: { message: "text cannot start with {character}", remedy: "put the text in quotes" },
  reference: {
    message: "text that starts with {character} is read as a reference or a tag",
    remedy: "put the text in quotes",
  },
  quote: { message: "a quote inside a text ends it early", remedy: "write {escape} for a quote inside" },
  unclosed: { message: "unclosed text in quotes", remedy: "close it with {quote}" },
  colon: { message: "a colon inside a text makes it a group", remedy: "put the text in quotes" },
  indent: { message: "inconsistent indentation", remedy: "indent all keys of a group alike" },
  escape: { message: "unknown escape", remedy: "write {backslash} for a backslash, or use single quotes" },
  invalid: { message: "invalid YAML: {detail}", remedy: "check the quotes, colons and indentation here" },
});

/** What a parse error most likely comes from. */
function explain(text: string, code: string, message: string, offset: number): Notice {
  const lineStart = lineStartOf(text, offset);
  // A long line need not be looked at whole: what goes wrong shows at its start.
  const line = text.slice(lineStart, lineStart + 300).split(/\r?\n/, 1)[0] ?? "";
  const value = /^\s*(?:- |[^\s:#][^:#]*:\s+)(.*)$/.exec(line)?.[1] ?? "";
  const character = value.charAt(0);
  if (/^\s*\t/.test(line) || code === "TAB_AS_INDENT") return say("tab", {});
  if (/^[{[]/.test(value) && !/^[{[][^{}[\]]*[}\]]\s*(?:#.*)?$/.test(value))
    return say("group", { character });
  if (/^[%@`]/.test(value)) return say("start", { character });
  if (/^[*&!]/.test(value)) return say("reference", { character });
  if (/^"(?:[^"\\]|\\.)*"\s*[^\s#,]/.test(value) || /^'(?:[^']|'')*'\s*[^\s#,]/.test(value))
    return say("quote", { escape: character === '"' ? '\\"' : "''" });
  if (/^["']/.test(value) && code === "MISSING_CHAR") return say("unclosed", { quote: character });
  if (/\S: /.test(value)) return say("colon", {});
  if (code === "BAD_INDENT" || /indent|block collection|same indentation/i.test(message))
    return say("indent", {});
  if (code === "BAD_DQ_ESCAPE") return say("escape", { backslash: "\\\\" });
  const detail = message.charAt(0).toLowerCase() + message.slice(1).replace(/ at line \d+.*$/s, "");
  return say("invalid", { detail });
}

/** A code unit of the decoded text, as the place where the file writes it. Exact on one line; in block texts by line. */
function offsetInFile(text: string, entry: Entry, offset: number): number {
  const { start, end } = entry.valueSpan;
  if (entry.kind !== "text" || entry.isInherited) return start;
  const raw = text.slice(start, end);
  const quote = raw[0];
  if (quote === "|" || quote === ">") return blockOffset(raw, entry.text, offset, start);
  if (quote !== '"' && quote !== "'") return Math.min(start + offset, end);
  let at = start + 1;
  for (let unit = 0; unit < offset && at < end - 1; unit++) {
    if (quote === "'" && text.startsWith("''", at)) at += 2;
    else if (quote === '"' && text[at] === "\\") {
      const letter = text[at + 1];
      at += letter === "x" ? 4 : letter === "u" ? 6 : letter === "U" ? 10 : 2;
    } else at++;
  }
  return at;
}

function blockOffset(raw: string, decoded: string, offset: number, start: number): number {
  const indent = /\n( *)\S/.exec(raw)?.[1]?.length ?? 0;
  let at = raw.indexOf("\n") + 1 + indent;
  for (let unit = 0; unit < offset; unit++) {
    if (raw[at] === "\r") at++;
    if (raw[at] !== "\n") {
      at++;
      continue;
    }
    // A line end of the file is a line end or a space of the text, and empty lines of folded text are line ends.
    at++;
    if (raw.startsWith(" ".repeat(indent), at)) at += indent;
    if (raw[0] === ">" && decoded[unit] === "\n" && raw[at] === "\n") at++;
    if (raw[0] === ">" && raw.startsWith(" ".repeat(indent), at) && raw[at - 1] === "\n") at += indent;
  }
  return Math.min(start + at, start + raw.length);
}
