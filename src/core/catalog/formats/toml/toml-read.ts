import { deepestNesting } from "../../../text/nesting.js";
import type { EntryPath, PathPart } from "../../model.js";

/** A key with its value: on a line of its own, or in an inline table; in an array, the value alone. */
export interface TomlItem {
  /** The whole path, of the table that it stands in too. */
  readonly path: EntryPath;
  /** From the first sign of the key to the end of the value. */
  readonly start: number;
  readonly end: number;
  /** The last name of the key. */
  readonly keySpan: { readonly start: number; readonly end: number };
  readonly value: TomlValue;
}

export interface TomlValue {
  readonly kind: "text" | "number" | "boolean" | "table" | "array";
  readonly start: number;
  readonly end: number;
  /** What a text says, and any other value as written. */
  readonly text: string;
  readonly items: readonly TomlItem[];
}

/** A table's header with the lines below it; the first section of a file has no header. */
export interface TomlSection {
  readonly path: EntryPath;
  /** Where its header starts; undefined for the first section. */
  readonly head: number | undefined;
  /** Behind the header; of the first section, the start of the file. */
  readonly headEnd: number;
  readonly items: TomlItem[];
}

export interface TomlFile {
  readonly sections: readonly TomlSection[];
  /** What keeps the rest of the file from being read. */
  readonly fault: TomlFault | undefined;
}

export type TomlFaultKind = "value" | "key" | "end" | "quote" | "line" | "twice" | "escape" | "deep";

export interface TomlFault {
  readonly kind: TomlFaultKind;
  readonly start: number;
  readonly end: number;
  readonly name?: string;
}

class Break extends Error {
  constructor(readonly fault: TomlFault) {
    super(fault.kind);
  }
}

/** How a table came about, by which it may be added to (TOML 1.0.0, "Table" and "Keys"). */
type Standing = "explicit" | "implicit" | "dotted" | "leaf" | "tables";

/** Reads a file (TOML 1.0.0). Never throws: what was read before a fault is there. */
export function readToml(text: string): TomlFile {
  const reader = new TomlReader(text);
  try {
    reader.read();
  } catch (error) {
    if (!(error instanceof Break)) throw error;
    return { sections: reader.sections, fault: error.fault };
  }
  return { sections: reader.sections, fault: undefined };
}

const number =
  /^(?:[+-]?(?:0|[1-9](?:_?\d)*)(?:\.\d(?:_?\d)*)?(?:[eE][+-]?\d(?:_?\d)*)?|0x[\da-fA-F](?:_?[\da-fA-F])*|0o[0-7](?:_?[0-7])*|0b[01](?:_?[01])*|[+-]?(?:inf|nan))$/;
const time = String.raw`(?:[01]\d|2[0-3]):[0-5]\d:(?:[0-5]\d|60)(?:\.\d+)?`;
const moment = new RegExp(
  `^(?:${time}|\\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\\d|3[01])(?:[Tt ]${time}(?:[Zz]|[+-](?:[01]\\d|2[0-3]):[0-5]\\d)?)?)$`,
);

class TomlReader {
  readonly sections: TomlSection[] = [];
  private at = 0;
  /** What stands at each path, by its parts; the elements of arrays of tables count. */
  private readonly standing = new Map<string, Standing>();
  private readonly counts = new Map<string, number>();
  private section: TomlSection = { path: [], head: undefined, headEnd: 0, items: [] };
  /** The tables that dotted keys of the section made: only they take more of them. */
  private dotted = new Set<string>();

  constructor(private readonly text: string) {}

  read(): void {
    const { text } = this;
    if (text.startsWith("\ufeff")) this.at = 1;
    this.section = { path: [], head: undefined, headEnd: this.at, items: [] };
    this.sections.push(this.section);
    for (;;) {
      this.space(true);
      if (this.at >= text.length) return;
      if (text[this.at] === "[") this.header();
      else this.section.items.push(this.pair(this.section.path, 0));
      this.lineEnd();
    }
  }

  private fail(kind: TomlFaultKind, start = this.at, end = start + 1, name?: string): never {
    if (kind !== "twice" && start >= this.text.length) {
      const last = this.text.trimEnd().length;
      throw new Break({ kind: "end", start: Math.max(last - 1, 0), end: last });
    }
    throw new Break({
      kind,
      start,
      end: Math.min(end, this.text.length),
      ...(name !== undefined && { name }),
    });
  }

  /** Behind blanks; with `lines`, behind line ends and comments too. */
  private space(lines: boolean): void {
    const { text } = this;
    for (;;) {
      const unit = text[this.at];
      if (unit === " " || unit === "\t") this.at++;
      else if (lines && (unit === "\n" || (unit === "\r" && text[this.at + 1] === "\n")))
        this.at += unit === "\n" ? 1 : 2;
      else if (lines && unit === "#") this.comment();
      else return;
    }
  }

  private comment(): void {
    const feed = this.text.indexOf("\n", this.at);
    const end = feed < 0 ? this.text.length : feed;
    const said = this.text.slice(this.at, this.text[end - 1] === "\r" && feed >= 0 ? end - 1 : end);
    const bad = /[\0-\x08\x0a-\x1f\x7f]/.exec(said);
    if (bad) this.fail("line", this.at + bad.index);
    this.at = end;
  }

  /** Nothing but a comment may follow on a line. */
  private lineEnd(): void {
    this.space(false);
    if (this.text[this.at] === "#") this.comment();
    const unit = this.text[this.at];
    if (unit === undefined || unit === "\n" || (unit === "\r" && this.text[this.at + 1] === "\n")) return;
    this.fail("line", this.at, this.at + (/^\S{1,20}/.exec(this.text.slice(this.at))?.[0].length ?? 1));
  }

  private header(): void {
    const start = this.at;
    const isArray = this.text.startsWith("[[", start);
    this.at += isArray ? 2 : 1;
    const names = this.names();
    if (!this.text.startsWith(isArray ? "]]" : "]", this.at)) this.fail("key");
    this.at += isArray ? 2 : 1;
    const fails = () => this.fail("twice", start, this.at, names.map(({ name }) => name).join("."));
    let path: EntryPath = [];
    for (const [index, { name }] of names.entries()) {
      path = [...path, name];
      const id = idOf(path);
      const there = this.standing.get(id);
      if (there === "leaf") fails();
      if (index < names.length - 1) {
        if (there === undefined) this.standing.set(id, "implicit");
        if (there === "tables") path = [...path, (this.counts.get(id) ?? 1) - 1];
      } else if (isArray) {
        if (there !== undefined && there !== "tables") fails();
        const count = this.counts.get(id) ?? 0;
        this.standing.set(id, "tables");
        this.counts.set(id, count + 1);
        path = [...path, count];
        this.standing.set(idOf(path), "explicit");
      } else {
        if (there !== undefined && there !== "implicit") fails();
        this.standing.set(id, "explicit");
      }
    }
    this.dotted = new Set();
    this.section = { path, head: start, headEnd: this.at, items: [] };
    this.sections.push(this.section);
  }

  /** Names with periods between them, and the blanks around. */
  private names(): { name: string; start: number; end: number }[] {
    const found: { name: string; start: number; end: number }[] = [];
    for (;;) {
      this.space(false);
      const start = this.at;
      found.push({ name: this.name(), start, end: this.at });
      if (found.length > deepestNesting) this.fail("deep", start);
      this.space(false);
      if (this.text[this.at] !== ".") return found;
      this.at++;
    }
  }

  private name(): string {
    const quote = this.text[this.at];
    if (quote === '"' || quote === "'") {
      if (this.text.startsWith(quote.repeat(3), this.at)) this.fail("key");
      return this.string();
    }
    const plain = /[A-Za-z0-9_-]+/y;
    plain.lastIndex = this.at;
    const name = plain.exec(this.text)?.[0];
    if (name === undefined) this.fail("key");
    this.at += name.length;
    return name;
  }

  private pair(base: EntryPath, depth: number, scope = this.dotted): TomlItem {
    const start = this.at;
    const names = this.names();
    const last = names.at(-1);
    if (this.text[this.at] !== "=" || !last) this.fail("key");
    const keyEnd = this.at;
    this.at++;
    let path = base;
    for (const [index, { name }] of names.entries()) {
      path = [...path, name];
      const id = idOf(path);
      const there = this.standing.get(id);
      const isLast = index === names.length - 1;
      const fits = isLast
        ? there === undefined
        : there === undefined || there === "implicit" || (there === "dotted" && scope.has(id));
      if (!fits)
        this.fail(
          "twice",
          start,
          this.text.slice(start, keyEnd).trimEnd().length + start,
          path.map(String).join("."),
        );
      this.standing.set(id, isLast ? "leaf" : "dotted");
      if (!isLast) scope.add(id);
    }
    this.space(false);
    const value = this.value(path, depth);
    return { path, start, end: this.at, keySpan: { start: last.start, end: last.end }, value };
  }

  private value(path: EntryPath, depth: number): TomlValue {
    const { text } = this;
    const start = this.at;
    if (depth > deepestNesting) this.fail("deep", start);
    const made = (kind: TomlValue["kind"], said: string, items: readonly TomlItem[] = []): TomlValue => ({
      kind,
      start,
      end: this.at,
      text: said,
      items,
    });
    const unit = text[start];
    if (unit === '"' || unit === "'") {
      const said = this.string();
      return made("text", said);
    }
    if (unit === "{") {
      const items = this.inlineTable(path, depth);
      return made("table", "", items);
    }
    if (unit === "[") {
      const items = this.array(path, depth);
      return made("array", "", items);
    }
    const plain = /(?:\d{4}-\d\d-\d\d \d\d:[^\s,\]}#]*|[^\s,\]}#"'[{=]+)/y;
    plain.lastIndex = start;
    const word = plain.exec(text)?.[0] ?? "";
    if (word === "true" || word === "false") {
      this.at += word.length;
      return made("boolean", word);
    }
    const isNumber = number.test(word);
    if (!isNumber && !moment.test(word)) this.fail("value", start, start + Math.max(word.length, 1));
    this.at += word.length;
    return made("number", word);
  }

  private inlineTable(path: EntryPath, depth: number): TomlItem[] {
    const items: TomlItem[] = [];
    const scope = new Set<string>();
    this.at++;
    this.space(false);
    if (this.text[this.at] === "}") {
      this.at++;
      return items;
    }
    for (;;) {
      this.space(false);
      items.push(this.pair(path, depth + 1, scope));
      this.space(false);
      const unit = this.text[this.at];
      if (unit !== "," && unit !== "}") this.fail("value");
      this.at++;
      if (unit === "}") return items;
    }
  }

  private array(path: EntryPath, depth: number): TomlItem[] {
    const items: TomlItem[] = [];
    this.at++;
    for (;;) {
      this.space(true);
      if (this.text[this.at] === "]") {
        this.at++;
        return items;
      }
      const start = this.at;
      const own = [...path, items.length];
      const value = this.value(own, depth + 1);
      items.push({ path: own, start, end: this.at, keySpan: { start, end: this.at }, value });
      this.space(true);
      const unit = this.text[this.at];
      if (unit === ",") this.at++;
      else if (unit !== "]") this.fail("value");
    }
  }

  private string(): string {
    const start = this.at;
    let said = "";
    for (const { at, unit, fault } of unitsOf(this.text, start)) {
      this.at = at;
      if (fault === "end") this.fail("quote", start);
      if (fault) this.fail("escape", at, at + 2);
      said += unit;
    }
    return said;
  }
}

/** What each sign of a string stands for, with its place; the last one is the string's end and stands for nothing. */
export function* unitsOf(
  text: string,
  start: number,
): Generator<{ readonly at: number; readonly unit: string; readonly fault?: "end" | "escape" }> {
  const quote = text[start] ?? "";
  const isLong = text.startsWith(quote.repeat(3), start);
  let at = start + (isLong ? 3 : 1);
  if (isLong) at += lineEndAt(text, at);
  for (;;) {
    const unit = text[at];
    if (unit === undefined) {
      yield { at: text.length, unit: "", fault: "end" };
      return;
    }
    if (unit === quote && !isLong) {
      yield { at: at + 1, unit: "" };
      return;
    }
    if (unit === quote && text.startsWith(quote.repeat(3), at)) {
      // One or two quotes may stand right before those that end it.
      for (let more = 0; more < 2 && text[at + 3] === quote; more++) yield { at: at++, unit: quote };
      yield { at: at + 3, unit: "" };
      return;
    }
    const lineEnd = lineEndAt(text, at);
    if (lineEnd > 0) {
      if (!isLong) {
        yield { at, unit: "", fault: "end" };
        return;
      }
      yield { at, unit: "\n" };
      at += lineEnd;
      continue;
    }
    if (unit === "\\" && quote === '"') {
      const escape = escapeAt(text, at, isLong);
      if (!escape) {
        yield { at, unit: "", fault: "escape" };
        return;
      }
      // Of a pair of surrogates both stand where their escape does.
      for (const one of escape.unit.split("")) yield { at, unit: one };
      at += escape.length;
      continue;
    }
    if (/[\0-\x08\x0a-\x1f\x7f]/.test(unit)) {
      yield { at, unit: "", fault: "escape" };
      return;
    }
    yield { at, unit };
    at++;
  }
}

/** The length of a line end at a place; 0 where there is none. */
function lineEndAt(text: string, at: number): number {
  return text[at] === "\n" ? 1 : text[at] === "\r" && text[at + 1] === "\n" ? 2 : 0;
}

const escapes: Readonly<Record<string, string>> = {
  b: "\b",
  t: "\t",
  n: "\n",
  f: "\f",
  r: "\r",
  '"': '"',
  "\\": "\\",
};

/** An escape of a string in double quotes; undefined where it is none (TOML 1.0.0, "String"). */
function escapeAt(
  text: string,
  at: number,
  isLong: boolean,
): { readonly unit: string; readonly length: number } | undefined {
  const letter = text[at + 1] ?? "";
  const plain = escapes[letter];
  if (plain !== undefined) return { unit: plain, length: 2 };
  if (letter === "u" || letter === "U") {
    const digits = text.slice(at + 2, at + (letter === "u" ? 6 : 10));
    const point = /^(?:[\da-fA-F]{4}|[\da-fA-F]{8})$/.test(digits) ? parseInt(digits, 16) : NaN;
    if (!(point <= 0x10ffff) || (point >= 0xd800 && point <= 0xdfff)) return undefined;
    if (digits.length !== (letter === "u" ? 4 : 8)) return undefined;
    return { unit: String.fromCodePoint(point), length: 2 + digits.length };
  }
  // A backslash at the end of a line takes the space up to the next sign with it.
  const fold = /\\[ \t]*\r?\n(?:[ \t]|\r?\n)*/y;
  fold.lastIndex = at;
  const folded = isLong ? fold.exec(text)?.[0] : undefined;
  return folded === undefined ? undefined : { unit: "", length: folded.length };
}

export function idOf(path: readonly PathPart[]): string {
  return path.map((part) => (typeof part === "number" ? `#${part}` : `.${part}`)).join("\0");
}
