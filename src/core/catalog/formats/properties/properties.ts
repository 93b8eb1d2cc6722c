import { notices } from "../../../message/notices.js";
import type { TextEncoding } from "../../../files/files.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import { CodeUnits } from "../../../text/code-units.js";
import { catalogContent, EntryPlaces, PooledEntries } from "../../entry-table.js";
import { KeyPool } from "../../key-pool.js";
import type { CatalogChanges, CatalogFormat, CatalogProblem, Entry, EntryPath } from "../../model.js";
import { insertionIndex, orderTree, pathId, pathSet } from "../edit-tree.js";
import { mergeMarker } from "../merge-marker.js";

/** Catalogs in the format that `java.util.Properties` reads (its method `load`), whole. */
export const propertiesFormat: CatalogFormat = {
  name: "properties",
  extensions: ["properties"],
  holds: "locale",
  read(text, _separator, pool = new KeyPool()) {
    const { table, problems } = readProperties(text, pool.start());
    return catalogContent(table, { problems });
  },
  edit: editProperties,
  empty: "",
  comments: { line: ["#", "!"] },
  commentWriter(text, encoding) {
    const style = styleOf(text, propertyEntries(text), encoding);
    return (line) => writeComment(line, style);
  },
  nests: false,
  canReorder: true,
  writeKey: (name, written) =>
    escapeKey(name, {
      lineEnd: "\n",
      separator: "=",
      escapeFrom: /\\u[\da-fA-F]{4}/.test(written) ? 0x7f : 0x10000,
      upperHex: false,
    }),
  offsetInFile,
};

/** An entry with the places of its parts, from which its name and value are worked out where they have escapes. */
class PropertyEntry implements Entry {
  readonly kind = "text";

  constructor(
    readonly key: string,
    readonly text: string,
    readonly keyStart: number,
    readonly keyEnd: number,
    readonly valueStart: number,
    readonly valueEnd: number,
  ) {}

  get path(): EntryPath {
    return [this.key];
  }
  get keySpan() {
    return { start: this.keyStart, end: this.keyEnd };
  }
  get valueSpan() {
    return { start: this.valueStart, end: this.valueEnd };
  }
}

/** The entries of a file: of each it is known where its value stands, and of those with escapes what they mean. */
class PropertyEntries extends PooledEntries {
  private readonly values: Int32Array;

  constructor(
    pool: KeyPool,
    found: EntryPlaces,
    private readonly source: string,
    private readonly escaped: ReadonlyMap<number, PropertyEntry>,
  ) {
    super(pool, found);
    this.values = found.spans();
  }

  textAt(index: number): string {
    return (
      this.escaped.get(index)?.text ??
      this.source.slice(this.values[2 * index] ?? 0, this.values[2 * index + 1] ?? 0)
    );
  }

  isTextAt(): boolean {
    return true;
  }

  plainStartAt(index: number): number {
    return this.escaped.has(index) ? -1 : (this.values[2 * index] ?? -1);
  }

  plainLengthAt(index: number): number {
    return (this.values[2 * index + 1] ?? 0) - (this.values[2 * index] ?? 0);
  }

  makeEntry(index: number): PropertyEntry {
    const known = this.escaped.get(index);
    if (known) return known;
    const key = this.keyAt(index);
    const start = this.values[2 * index] ?? 0;
    // Between a name and its value stand only blanks and one sign.
    let keyEnd = start;
    while (keyEnd > 0 && isBlank(this.source.charCodeAt(keyEnd - 1))) keyEnd--;
    const sign = this.source.charCodeAt(keyEnd - 1);
    if (keyEnd > 0 && (sign === 0x3d || sign === 0x3a)) keyEnd--;
    while (key !== "" && keyEnd > 0 && isBlank(this.source.charCodeAt(keyEnd - 1))) keyEnd--;
    return new PropertyEntry(
      key,
      this.textAt(index),
      keyEnd - key.length,
      keyEnd,
      start,
      this.values[2 * index + 1] ?? 0,
    );
  }
}

const space = 0x20;
const tab = 0x09;
const formFeed = 0x0c;

function isBlank(unit: number): boolean {
  return unit === space || unit === tab || unit === formFeed;
}

/** Whether a code unit ends a key. */
function endsKey(unit: number): boolean {
  return unit === 0x3d || unit === 0x3a || isBlank(unit);
}

interface PropertiesContent {
  readonly table: PropertyEntries;
  readonly problems: readonly CatalogProblem[];
}

/** The entries of a text, to be edited. */
function propertyEntries(text: string): readonly PropertyEntry[] {
  const { table } = readProperties(text, new KeyPool());
  return Array.from({ length: table.size }, (_, index) => table.makeEntry(index));
}

const fileUnits = new CodeUnits();

function readProperties(text: string, pool: KeyPool): PropertiesContent {
  const units = fileUnits.of(text);
  const found = new EntryPlaces(pool.size);
  const escaped = new Map<number, PropertyEntry>();
  const problems: CatalogProblem[] = [];
  const { length } = text;
  // A lone carriage return ends a line too, but hardly any file has one: without them lines end at line feeds.
  const hasReturns = text.includes("\r");
  let backslash = text.indexOf("\\");
  for (let start = 0; start < length;) {
    let end = hasReturns ? lineEndAt(text, start) : text.indexOf("\n", start);
    if (end < 0) end = length;
    let next = end + 1;
    if (hasReturns && units[end] === 0x0d && units[next] === 0x0a) next++;
    let at = start;
    while (at < end && isBlank(units[at] ?? 0)) at++;
    const first = units[at] ?? 0;
    if (at === end || first === 0x23 || first === 0x21) {
      start = next;
      continue;
    }
    if (first === 0x3c) {
      const marker = mergeMarker(text);
      if (marker)
        return {
          table: new PropertyEntries(pool, new EntryPlaces(0), text, escaped),
          problems: [marker],
        };
    }
    if (backslash >= 0 && backslash < start) backslash = text.indexOf("\\", start);
    if (backslash < 0 || backslash >= end) {
      const expected = pool.expected;
      let keyEnd = at + (expected?.length ?? 0);
      let place: number;
      if (
        keyEnd > at &&
        text.slice(at, keyEnd) === expected &&
        (keyEnd === end || endsKey(units[keyEnd] ?? 0))
      )
        place = pool.takeExpected();
      else {
        keyEnd = at;
        while (keyEnd < end && !endsKey(units[keyEnd] ?? 0)) keyEnd++;
        place = pool.place("", text.slice(at, keyEnd));
      }
      found.add(place, skipSeparator(units, keyEnd, end), end);
      start = next;
      continue;
    }
    const line = logicalLine(text, start);
    if (line.first >= 0) {
      const entry = readEscaped(text, line.first, line.end, problems);
      escaped.set(found.size, entry);
      found.add(pool.place("", entry.key), entry.valueStart, entry.valueEnd);
    }
    start = line.next;
  }
  return { table: new PropertyEntries(pool, found, text, escaped), problems };
}

function lineEndAt(text: string, from: number): number {
  const feed = text.indexOf("\n", from);
  const back = text.slice(from, feed < 0 ? undefined : feed).indexOf("\r");
  return back < 0 ? feed : from + back;
}

/**
 * A line with those that continue it, as `Properties.load` puts them together: as long as nothing but a fold was met,
 * what follows may still be a comment or blank.
 */
function logicalLine(
  text: string,
  from: number,
): { readonly first: number; readonly end: number; readonly next: number } {
  const { length } = text;
  const isEnd = (unit: number) => unit === 0x0a || unit === 0x0d;
  let first = -1;
  let count = 0;
  let skipsSpace = true;
  let isFolded = false;
  let escapes = false;
  let at = from;
  while (at < length) {
    const unit = text.charCodeAt(at++);
    if (skipsSpace) {
      if (isBlank(unit) || (!isFolded && isEnd(unit))) continue;
      skipsSpace = false;
      isFolded = false;
    }
    if (count === 0 && (unit === 0x23 || unit === 0x21)) {
      while (at < length && !isEnd(text.charCodeAt(at))) at++;
      at++;
      skipsSpace = true;
    } else if (!isEnd(unit)) {
      if (count++ === 0) first = at - 1;
      escapes = unit === 0x5c && !escapes;
    } else if (count === 0) skipsSpace = true;
    else if (at >= length) return { first, end: at - 1, next: length };
    else if (escapes) {
      count--;
      skipsSpace = isFolded = true;
      escapes = false;
      if (unit === 0x0d && text.charCodeAt(at) === 0x0a) at++;
    } else return { first, end: at - 1, next: at };
  }
  return count === 0 ? { first: -1, end: length, next: length } : { first, end: length, next: length };
}

/** Behind white space, one `=` or `:`, and white space. */
function skipSeparator(units: Uint16Array, from: number, end: number): number {
  let at = from;
  while (at < end && isBlank(units[at] ?? 0)) at++;
  const unit = units[at];
  if (at < end && (unit === 0x3d || unit === 0x3a)) at++;
  while (at < end && isBlank(units[at] ?? 0)) at++;
  return at;
}

/** An entry with escapes or continuation lines. */
function readEscaped(text: string, start: number, end: number, problems: CatalogProblem[]): PropertyEntry {
  let keyEnd = start;
  while (keyEnd < end) {
    const unit = text.charCodeAt(keyEnd);
    if (unit === 0x5c) {
      const folded = foldLength(text, keyEnd, end);
      keyEnd += folded > 0 ? folded : 2;
    } else if (endsKey(unit)) break;
    else keyEnd++;
  }
  keyEnd = Math.min(keyEnd, end);
  let valueStart = keyEnd;
  const skip = () => {
    for (;;) {
      const folded = foldLength(text, valueStart, end);
      if (folded > 0) valueStart += folded;
      else if (valueStart < end && isBlank(text.charCodeAt(valueStart))) valueStart++;
      else return;
    }
  };
  skip();
  const unit = text.charCodeAt(valueStart);
  if (valueStart < end && (unit === 0x3d || unit === 0x3a)) {
    valueStart++;
    skip();
  }
  return new PropertyEntry(
    unescape(text, start, keyEnd, problems),
    unescape(text, valueStart, end, problems),
    start,
    keyEnd,
    valueStart,
    end,
  );
}

/** The length of a backslash at the end of a line with the line end and the next line's indent; 0 for anything else. */
function foldLength(text: string, at: number, end: number): number {
  if (text.charCodeAt(at) !== 0x5c || at >= end) return 0;
  let after = at + 1;
  if (text.charCodeAt(after) === 0x0d) after++;
  if (text.charCodeAt(after) === 0x0a) after++;
  if (after === at + 1) return 0;
  while (after < end && isBlank(text.charCodeAt(after))) after++;
  return Math.min(after, end) - at;
}

/** One decoded code unit at a time: where it is written, and what it stands for. */
function* unitsIn(
  text: string,
  start: number,
  end: number,
): Generator<{ at: number; unit: string; isBad?: boolean }> {
  for (let at = start; at < end;) {
    if (text[at] !== "\\") {
      yield { at, unit: text[at] ?? "" };
      at++;
      continue;
    }
    const folded = foldLength(text, at, end);
    if (folded > 0) {
      at += folded;
      continue;
    }
    const letter = text[at + 1] ?? "";
    if (letter === "u") {
      // Folds are undone before escapes, so the digits may be on both sides of one.
      let hex = "";
      let after = at + 2;
      while (hex.length < 4 && after < end) {
        const length = foldLength(text, after, end);
        if (length === 0) hex += text[after];
        after += Math.max(length, 1);
      }
      if (/^[\da-fA-F]{4}$/.test(hex)) yield { at, unit: String.fromCharCode(parseInt(hex, 16)) };
      else yield { at, unit: `\\u${hex}`, isBad: true };
      at = after;
      continue;
    }
    if (at + 1 < end) yield { at, unit: { t: "\t", n: "\n", r: "\r", f: "\f" }[letter] ?? letter };
    at += 2;
  }
}

const say = notices("properties", {
  escape: {
    message: "incomplete escape: {escape} takes four hexadecimal digits",
    remedy: "write all four digits, or {escaped} for a backslash and a u",
  },
});

function unescape(text: string, start: number, end: number, problems: CatalogProblem[]): string {
  const raw = text.slice(start, end);
  if (!raw.includes("\\")) return raw;
  let value = "";
  for (const { at, unit, isBad } of unitsIn(text, start, end)) {
    value += unit;
    if (isBad && problems.length === 0)
      problems.push({
        code: "syntax",
        ...say("escape", { escape: "\\u", escaped: "\\\\u" }),
        span: { start: at, end: Math.min(at + 6, end) },
      });
  }
  return value;
}

function offsetInFile(text: string, entry: Entry, offset: number): number {
  const { start, end } = entry.valueSpan;
  let index = 0;
  for (const { at } of unitsIn(text, start, end)) if (index++ === offset) return at;
  return end;
}

interface PropertiesStyle {
  readonly lineEnd: string;
  readonly separator: string;
  /** From which code unit on characters are written as `\uXXXX`. */
  readonly escapeFrom: number;
  readonly upperHex: boolean;
}

function editProperties(text: string, changes: CatalogChanges, encoding?: TextEncoding): string {
  const entries = propertyEntries(text);
  const style = styleOf(text, entries, encoding);
  const edits: TextEdit[] = [];
  const byKey = new Map(entries.map((entry, index) => [entry.key, index]));
  for (const { path, text: value } of changes.set ?? []) {
    const entry = entries[byKey.get(path.join(".")) ?? -1];
    if (!entry) throw new Error(`no entry at ${path.join(".")}`);
    const needsSeparator = entry.valueStart === entry.keyEnd && value !== "";
    edits.push({
      start: entry.valueStart,
      end: entry.valueEnd,
      replacement: (needsSeparator ? style.separator : "") + escapeValue(value, style),
    });
  }
  const removals = pathSet(changes.remove ?? []);
  const removed = new Set<number>();
  for (const [index, entry] of entries.entries()) {
    if (!removals.has(pathId(entry.path))) continue;
    removed.add(index);
    const start = ownStart(text, entry, entries[index - 1]);
    edits.push({ start, end: lineAfter(text, entry.valueEnd), replacement: "" });
  }
  const flatOrder = orderTree((changes.order ?? []).map((path) => [path.join(".")])).at([]);
  const inserted = new Map<number, { name: string; lines: string }[]>();
  for (const { path, text: value, comment } of changes.add ?? []) {
    const name = path.join(".");
    const there = byKey.get(name);
    if (there !== undefined && !removed.has(there)) throw new Error(`${name} already exists`);
    const after = insertionIndex(entries.length, byKey, (index) => !removed.has(index), flatOrder, name);
    const said = (comment === undefined ? [] : comment.split("\n")).map(
      (line) => writeComment(line, style) + style.lineEnd,
    );
    const line = escapeKey(name, style) + style.separator + escapeValue(value, style) + style.lineEnd;
    inserted.set(after, [...(inserted.get(after) ?? []), { name, lines: said.join("") + line }]);
  }
  for (const [index, list] of inserted) {
    list.sort((a, b) => flatOrder.rank(a.name) - flatOrder.rank(b.name));
    const entry = entries[index];
    const first = entries[0];
    const at = entry
      ? lineAfter(text, entry.valueEnd)
      : first
        ? ownStart(text, first, undefined)
        : text.length;
    let lines = list.map((one) => one.lines).join("");
    const isOpen = at > 0 && !/[\r\n]/.test(text[at - 1] ?? "");
    if (isOpen) lines = style.lineEnd + (entry ? lines.slice(0, -style.lineEnd.length) : lines);
    edits.push({ start: at, end: at, replacement: lines });
  }
  return applyEdits(text, edits);
}

/**
 * The start of an entry with the comments right above it. A comment that opens the file is not the entry's: it is about
 * the file. A line of the entry before that starts like a comment is part of that entry (`name = a \` and `  #b`).
 */
function ownStart(text: string, entry: PropertyEntry, before: PropertyEntry | undefined): number {
  const lineStart = (offset: number) =>
    offset <= 0 ? 0 : Math.max(text.lastIndexOf("\n", offset - 1), text.lastIndexOf("\r", offset - 1)) + 1;
  const least = before ? lineAfter(text, before.valueEnd) : 0;
  const own = lineStart(entry.keyStart);
  let start = own;
  while (start > least) {
    const end = start - (text.slice(start - 2, start) === "\r\n" ? 2 : 1);
    const above = lineStart(end);
    if (above < least || !/^[ \t\f]*[#!]/.test(text.slice(above, end))) break;
    start = above;
  }
  return start === 0 && !before ? own : start;
}

function lineAfter(text: string, offset: number): number {
  if (text.startsWith("\r\n", offset)) return offset + 2;
  return offset < text.length ? offset + 1 : offset;
}

function styleOf(
  text: string,
  entries: readonly PropertyEntry[],
  encoding: TextEncoding | undefined,
): PropertiesStyle {
  const separators = new Map<string, number>();
  for (const { keyEnd, valueStart } of entries.slice(0, 500)) {
    const written = text.slice(keyEnd, valueStart);
    if (/^[ \t]*(?:[=:][ \t]*)?$/.test(written) && written !== "")
      separators.set(written, (separators.get(written) ?? 0) + 1);
  }
  const [most] = [...separators].sort((a, b) => b[1] - a[1]);
  const escapes = [...text.matchAll(/\\u([\da-fA-F]{4})/g)].slice(0, 200).map((match) => match[1] ?? "");
  const foreign = escapes.filter((hex) => parseInt(hex, 16) > 0x7e);
  const isPlainAscii = !/[\u0080-\uffff]/.test(text);
  return {
    lineEnd: /\r\n|\n|\r/.exec(text)?.[0] ?? "\n",
    separator: most?.[0] ?? "=",
    escapeFrom: isPlainAscii && foreign.length > 0 ? 0x7f : encoding === "latin1" ? 0x100 : 0x10000,
    upperHex: foreign.some((hex) => /[A-F]/.test(hex)),
  };
}

function escapeUnits(text: string, { escapeFrom, upperHex }: PropertiesStyle): string {
  if (escapeFrom > 0xffff) return text;
  let escaped = "";
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    const hex = unit.toString(16).padStart(4, "0");
    escaped += unit >= escapeFrom ? `\\u${upperHex ? hex.toUpperCase() : hex}` : (text[at] ?? "");
  }
  return escaped;
}

function writeComment(line: string, style: PropertiesStyle): string {
  return `# ${escapeUnits(line, style)}`.trimEnd();
}

function escapeValue(value: string, style: PropertiesStyle): string {
  const escaped = value.replace(/[\\\n\r\t\f]/g, escapeUnit).replace(/^ /, "\\ ");
  return escapeUnits(escaped, style);
}

function escapeKey(key: string, style: PropertiesStyle): string {
  const escaped = key
    .replace(/[\\\n\r\t\f]/g, escapeUnit)
    .replace(/[ =:]/g, "\\$&")
    .replace(/^[#!]/, "\\$&");
  return escapeUnits(escaped, style);
}

function escapeUnit(unit: string): string {
  return { "\\": "\\\\", "\n": "\\n", "\r": "\\r", "\t": "\\t", "\f": "\\f" }[unit] ?? unit;
}
