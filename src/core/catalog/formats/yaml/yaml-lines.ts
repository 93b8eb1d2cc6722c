import { deepestNesting } from "../../../text/nesting.js";
import type { Span } from "../../../text/span.js";
import { EntryPlaces } from "../../entry-table.js";
import type { KeyPool } from "../../key-pool.js";
import type { EntryPath, PathPart } from "../../model.js";

/** What an entry of a YAML file may be. */
export type YamlKind = "text" | "number" | "boolean" | "null";

const kinds: readonly YamlKind[] = ["text", "number", "boolean", "null"];

/** A mapping or list on the way down to an entry. */
export interface YamlGroup {
  readonly parent: YamlGroup | undefined;
  readonly depth: number;
  readonly name: PathPart;
  readonly prefix: string;
  readonly indent: number;
  /** Whether it is a list; unknown until its first member is met. */
  list: boolean | undefined;
  members: number;
}

export interface YamlLines {
  /** The places of the entries' keys in the pool, and where their values stand. */
  readonly places: EntryPlaces;
  readonly items: YamlItems;
  readonly emptyGroups: readonly EntryPath[];
}

/** What the entries of a YAML file are and where they stand, in tables: there are a great many, and few are looked at closely. */
export class YamlItems {
  private keySpans = new Int32Array(64);
  private kinds = new Uint8Array(32);
  private readonly groups: YamlGroup[] = [];
  /** The texts that are not as they are written, because of escapes and folds. */
  private readonly resolved = new Map<number, string>();

  constructor(private readonly source: string) {}

  add(
    group: YamlGroup,
    text: string,
    kind: YamlKind,
    keyStart: number,
    keyEnd: number,
    valueStart: number,
    valueEnd: number,
  ): void {
    const index = this.groups.push(group) - 1;
    if (index === this.kinds.length) {
      this.kinds = grown(this.kinds, new Uint8Array(2 * index));
      this.keySpans = grown(this.keySpans, new Int32Array(4 * index));
    }
    this.kinds[index] = kinds.indexOf(kind);
    this.keySpans[2 * index] = keyStart;
    this.keySpans[2 * index + 1] = keyEnd;
    // Escapes and folds make what is written longer than what is meant, quotation marks by two.
    const more = valueEnd - valueStart - text.length;
    const isAsWritten = more === 0 || (more === 2 && isQuote(this.source.charCodeAt(valueStart)));
    if (!isAsWritten) this.resolved.set(index, text);
  }

  kindAt(index: number): YamlKind {
    return kinds[this.kinds[index] ?? 0] ?? "text";
  }

  groupAt(index: number): YamlGroup {
    const group = this.groups[index];
    if (!group) throw new RangeError(`there is no entry ${index}`);
    return group;
  }

  keySpanAt(index: number): Span {
    return { start: this.keySpans[2 * index] ?? 0, end: this.keySpans[2 * index + 1] ?? 0 };
  }

  /** The text of a value that is not as it stands between two places; undefined where it is. */
  resolvedAt(index: number): string | undefined {
    return this.resolved.get(index);
  }
}

/** Whether a code unit is a quotation mark that a scalar may begin with. */
export function isQuote(unit: number): boolean {
  return unit === 0x22 || unit === 0x27;
}

function grown<Numbers extends Int32Array | Uint8Array>(numbers: Numbers, room: Numbers): Numbers {
  room.set(numbers);
  return room;
}

export function yamlPath(group: YamlGroup, name: PathPart): PathPart[] {
  const path: PathPart[] = [name];
  for (let at: YamlGroup | undefined = group; at?.parent; at = at.parent) path.push(at.name);
  return path.reverse();
}

/** What a plain scalar stands for in YAML 1.2's core schema (section 10.3.2), and in YAML 1.1 where loaders differ: yes, no, on, off. */
export function plainKind(text: string): YamlKind {
  const first = text.charCodeAt(0);
  // Digits, signs and dots may begin numbers; of letters only those of the words below.
  if (first >= 0x30 && first <= 0x39) return isNumber(text) ? "number" : "text";
  switch (text) {
    case "":
    case "~":
    case "null":
    case "Null":
    case "NULL":
      return "null";
    case "true":
    case "True":
    case "TRUE":
    case "false":
    case "False":
    case "FALSE":
    case "yes":
    case "Yes":
    case "YES":
    case "no":
    case "No":
    case "NO":
    case "on":
    case "On":
    case "ON":
    case "off":
    case "Off":
    case "OFF":
      return "boolean";
    default:
  }
  return (first === 0x2b || first === 0x2d || first === 0x2e) && isNumber(text) ? "number" : "text";
}

function isNumber(text: string): boolean {
  return /^(?:[-+]?(?:\d[\d_]*(?:\.\d*)?|\.\d+)(?:[eE][-+]?\d+)?|0o[0-7]+|0x[\da-fA-F]+|[-+]?\.(?:inf|Inf|INF)|\.(?:nan|NaN|NAN))$/.test(
    text,
  );
}

/** How many characters a key on one line may have (YAML 1.2, section 7.4.3). */
const longestKey = 1_024;

/** Signals what the quick reader leaves to a whole parser. */
class Unusual extends Error {}

/**
 * Reads what nearly every catalog in YAML is made of: block mappings and lists of scalars on one line each, block scalars,
 * and comments. Returns undefined for anything else (flow collections, anchors, tags, texts over several lines, several
 * documents, anything doubtful): that is for a whole parser to read or to refuse.
 */
export function readYamlLines(text: string, separator: string, pool: KeyPool): YamlLines | undefined {
  if (/^(?:%|\.\.\.)|\t|\r(?!\n)|[\u0085\u2028\u2029\0]/m.test(text)) return undefined;
  try {
    return new LineReader(text, separator, pool.start()).read();
  } catch (error) {
    if (error instanceof Unusual) return undefined;
    throw error;
  }
}

class LineReader {
  private readonly places: EntryPlaces;
  private readonly items: YamlItems;
  private readonly emptyGroups: EntryPath[] = [];
  private readonly hasReturns: boolean;
  private next = 0;
  private nextComment = -1;

  private group: YamlGroup = {
    parent: undefined,
    name: "",
    prefix: "",
    indent: 0,
    depth: 1,
    list: undefined,
    members: 0,
  };
  /** A key without a value on its line: what follows deeper is its group. */
  private pending: { name: PathPart; keyStart: number; keyEnd: number; group: YamlGroup } | undefined =
    undefined;

  constructor(
    private readonly text: string,
    private readonly separator: string,
    private readonly pool: KeyPool,
  ) {
    this.hasReturns = text.includes("\r");
    this.places = new EntryPlaces(pool.size);
    this.items = new YamlItems(text);
  }

  read(): YamlLines {
    const { text } = this;
    let hasStarted = false;
    for (let start = 0; start < text.length; start = this.next) {
      const end = this.lineEnd(start);
      let at = start;
      while (text.charCodeAt(at) === 0x20) at++;
      const first = text.charCodeAt(at);
      if (at >= end || first === 0x23) continue;
      const indent = at - start;
      if (indent === 0 && first === 0x2d && text.startsWith("---", at)) {
        if (hasStarted || end - at > 3) throw new Unusual();
      } else {
        const isItem = first === 0x2d && (at + 1 === end || text.charCodeAt(at + 1) === 0x20);
        this.enterGroup(indent, isItem);
        if (isItem) this.item(at, end, indent);
        else this.member(at, end, indent);
      }
      hasStarted = true;
    }
    this.settle();
    return { places: this.places, items: this.items, emptyGroups: this.emptyGroups };
  }

  /** A key without a value on its line, and with nothing below it, is null. */
  private settle(): void {
    if (!this.pending) return;
    const { name, keyStart, keyEnd, group } = this.pending;
    this.add(group, name, "", "null", keyStart, keyEnd, keyEnd + 1, keyEnd + 1);
    this.pending = undefined;
  }

  /** Goes down to the group of the key that waits for its value, or up to the one that a line's indentation shows. */
  private enterGroup(indent: number, isItem: boolean): void {
    const { pending } = this;
    const owner = pending?.group;
    if (pending && owner && (indent > owner.indent || (isItem && indent === owner.indent && !owner.list))) {
      this.group = {
        parent: owner,
        name: pending.name,
        prefix: this.pool.prefix(owner.prefix + String(pending.name) + this.separator),
        indent,
        depth: owner.depth + 1,
        list: isItem,
        members: 0,
      };
      // The whole parser says that it is nested too deeply.
      if (this.group.depth > deepestNesting) throw new Unusual();
      owner.members++;
      this.pending = undefined;
      return;
    }
    this.settle();
    let { group } = this;
    while (group.parent && (indent < group.indent || (group.list && !isItem && indent === group.indent)))
      group = group.parent;
    if (group.list === undefined) {
      group.list = isItem;
      if (indent !== 0) throw new Unusual();
    }
    if (indent !== group.indent || group.list !== isItem) throw new Unusual();
    this.group = group;
  }

  /** A list's item; a mapping inside one is left to the whole parser. */
  private item(start: number, end: number, indent: number): void {
    const { text, group } = this;
    let value = start + 1;
    while (text.charCodeAt(value) === 0x20) value++;
    if (value >= end || text.charCodeAt(value) === 0x23) throw new Unusual();
    this.value(group, group.members, value, value, value, end, indent, true);
  }

  /** A key, with its value where that is on the same line. */
  private member(start: number, end: number, indent: number): void {
    const { text, group } = this;
    const first = text.charCodeAt(start);
    const isQuoted = first === 0x22 || first === 0x27;
    if (!isQuoted && !isPlainStart(text, start)) throw new Unusual();
    const keyEnd = isQuoted ? this.quotedEnd(start, end) : this.plainKeyEnd(start, end);
    const name = isQuoted ? this.unquote(start, keyEnd) : text.slice(start, keyEnd);
    if (isQuoted && text.charCodeAt(keyEnd) !== 0x3a) throw new Unusual();
    if (!isQuoted && /[ #]/.test(name) && (name.includes(" #") || name.endsWith(" "))) throw new Unusual();
    if (name === "<<" || keyEnd - start > longestKey) throw new Unusual();
    let value = keyEnd + 1;
    while (text.charCodeAt(value) === 0x20) value++;
    if (value >= end || (text.charCodeAt(value) === 0x23 && value > keyEnd + 1))
      this.pending = { name, keyStart: start, keyEnd, group };
    else this.value(group, name, start, keyEnd, value, end, indent, false);
  }

  /** The end of the line's content; `next` becomes the start of the line behind it. */
  private lineEnd(start: number): number {
    const feed = this.text.indexOf("\n", start);
    let end = feed < 0 ? this.text.length : feed;
    this.next = end + 1;
    if (this.hasReturns && this.text.charCodeAt(end - 1) === 0x0d) end--;
    return end;
  }

  private plainKeyEnd(start: number, end: number): number {
    let colon = start;
    for (;;) {
      colon = this.text.indexOf(":", colon);
      if (colon < 0 || colon >= end) throw new Unusual();
      if (colon + 1 === end || this.text.charCodeAt(colon + 1) === 0x20) return colon;
      colon++;
    }
  }

  private value(
    group: YamlGroup,
    name: PathPart,
    keyStart: number,
    keyEnd: number,
    start: number,
    end: number,
    indent: number,
    isItem: boolean,
  ): void {
    const { text } = this;
    const first = text.charCodeAt(start);
    if (first === 0x22 || first === 0x27) {
      const close = this.quotedEnd(start, end);
      this.mustEnd(close, end);
      this.add(group, name, this.unquote(start, close), "text", keyStart, keyEnd, start, close);
      return;
    }
    if (first === 0x7c || first === 0x3e) {
      this.block(group, name, keyStart, keyEnd, start, end, indent);
      return;
    }
    if (!isPlainStart(text, start)) throw new Unusual();
    let close = end;
    if (this.nextComment < start) {
      const found = text.indexOf(" #", start);
      this.nextComment = found < 0 ? Infinity : found;
    }
    if (this.nextComment < end) close = this.nextComment;
    while (text.charCodeAt(close - 1) === 0x20) close--;
    const colon = text.indexOf(": ", start);
    if ((colon >= 0 && colon < close) || text.charCodeAt(close - 1) === 0x3a) throw new Unusual();
    const value = text.slice(start, close);
    this.mustNotContinue(isItem ? indent + 1 : indent);
    this.add(group, name, value, plainKind(value), keyStart, keyEnd, start, close);
  }

  /** What is deeper than a plain scalar's key goes on with it: such texts are left to the whole parser. */
  private mustNotContinue(indent: number): void {
    const { text } = this;
    for (let at = this.next; at < text.length;) {
      let column = 0;
      while (text.charCodeAt(at + column) === 0x20) column++;
      const unit = text.charCodeAt(at + column);
      if (unit === 0x0a || unit === 0x0d) {
        at = text.indexOf("\n", at) + 1;
        if (at === 0) return;
        continue;
      }
      if (column > indent && unit !== 0x23 && at + column < text.length) throw new Unusual();
      return;
    }
  }

  /** `|` and `>` (section 8.1): the indent of their first line, and what becomes of the line ends. */
  private block(
    group: YamlGroup,
    name: PathPart,
    keyStart: number,
    keyEnd: number,
    start: number,
    headEnd: number,
    indent: number,
  ): void {
    const { text } = this;
    const head = /^([|>])([-+]?)(?: +#.*| *)$/.exec(text.slice(start, headEnd));
    if (!head) throw new Unusual();
    const [, style, chomping] = head;
    const lines: string[] = [];
    let inner = -1;
    let valueEnd = Math.min(this.next, text.length);
    for (let at = this.next; at < text.length; at = this.next) {
      const resume = this.next;
      const end = this.lineEnd(at);
      let column = 0;
      while (at + column < end && text.charCodeAt(at + column) === 0x20) column++;
      if (at + column === end) {
        if (inner >= 0 && column > inner) lines.push(text.slice(at + inner, end));
        else if (inner < 0 && column > indent) throw new Unusual();
        else lines.push("");
        continue;
      }
      if (inner < 0) {
        if (column <= indent) {
          this.next = resume;
          break;
        }
        inner = column;
      } else if (column < inner) {
        if (column > indent) throw new Unusual();
        this.next = resume;
        break;
      }
      lines.push(text.slice(at + inner, end));
      valueEnd = Math.min(this.next, text.length);
    }
    if (inner < 0) throw new Unusual();
    let trailing = 0;
    while (lines[lines.length - 1 - trailing] === "") trailing++;
    const content = trailing > 0 ? lines.slice(0, -trailing) : lines;
    let value = style === "|" ? content.join("\n") : fold(content);
    if (chomping === "+") {
      if (!text.endsWith("\n") && this.next >= text.length) throw new Unusual();
      value += "\n".repeat(trailing + 1);
    } else if (chomping === "") {
      if (this.next >= text.length && !text.endsWith("\n") && trailing === 0) throw new Unusual();
      value += "\n";
    }
    this.add(group, name, value, "text", keyStart, keyEnd, start, valueEnd);
  }

  private quotedEnd(start: number, end: number): number {
    const { text } = this;
    const quote = text.charCodeAt(start);
    for (let at = start + 1; at < end; at++) {
      const unit = text.charCodeAt(at);
      if (unit === 0x5c && quote === 0x22) at++;
      else if (unit === quote) {
        if (quote === 0x27 && text.charCodeAt(at + 1) === 0x27) at++;
        else return at + 1;
      }
    }
    throw new Unusual();
  }

  private unquote(start: number, end: number): string {
    const inner = this.text.slice(start + 1, end - 1);
    if (this.text.charCodeAt(start) === 0x27)
      return inner.includes("'") ? inner.replaceAll("''", "'") : inner;
    return inner.includes("\\") ? unescapeYaml(inner) : inner;
  }

  private mustEnd(from: number, end: number): void {
    let at = from;
    while (this.text.charCodeAt(at) === 0x20) at++;
    if (at < end && (this.text.charCodeAt(at) !== 0x23 || at === from)) throw new Unusual();
  }

  private add(
    group: YamlGroup,
    name: PathPart,
    text: string,
    kind: YamlKind,
    keyStart: number,
    keyEnd: number,
    valueStart: number,
    valueEnd: number,
  ): void {
    group.members++;
    const id = this.pool.placeOfName(group.prefix, String(name));
    this.places.add(id, valueStart, valueEnd);
    this.items.add(group, text, kind, keyStart, keyEnd, valueStart, valueEnd);
  }
}

/** Whether a plain scalar may start here (section 7.3.3), none that could be anything else. */
function isPlainStart(text: string, at: number): boolean {
  const unit = text[at] ?? "";
  if (unit === "-" || unit === "?" || unit === ":")
    return !/[\s]|$^/.test(text[at + 1] ?? " ") && unit === "-";
  return !/[,[\]{}#&*!|>'"%@`]/.test(unit);
}

/** Folds lines (section 8.1.3); lines that are indented more keep their line ends, and are left to the whole parser. */
function fold(lines: readonly string[]): string {
  let folded = "";
  let breaks = 0;
  for (const [index, line] of lines.entries()) {
    if (/^[ \t]/.test(line)) throw new Unusual();
    if (line === "") breaks++;
    else {
      folded += index === 0 ? "" : breaks > 0 ? "\n".repeat(breaks) : " ";
      // Empty lines at the very start stand for themselves.
      folded += line;
      breaks = 0;
    }
  }
  return folded;
}

const escapes: Readonly<Record<string, string>> = {
  "0": "\0",
  a: "\x07",
  b: "\b",
  t: "\t",
  n: "\n",
  v: "\v",
  f: "\f",
  r: "\r",
  e: "\x1b",
  " ": " ",
  '"': '"',
  "/": "/",
  "\\": "\\",
  N: "\x85",
  _: "\xa0",
  L: "\u2028",
  P: "\u2029",
};

/** Escapes in double quotes (section 5.7); what is none is left to the whole parser. */
function unescapeYaml(inner: string): string {
  return inner.replace(
    /\\(?:x([\da-fA-F]{2})|u([\da-fA-F]{4})|U([\da-fA-F]{8})|([^]?))/g,
    (_, byte?: string, short?: string, long?: string, unit?: string) => {
      const hex = byte ?? short ?? long;
      if (hex !== undefined) {
        const point = parseInt(hex, 16);
        if (point > 0x10ffff) throw new Unusual();
        return byte === undefined && long === undefined
          ? String.fromCharCode(point)
          : String.fromCodePoint(point);
      }
      const found = escapes[unit ?? ""];
      if (found === undefined) throw new Unusual();
      return found;
    },
  );
}
