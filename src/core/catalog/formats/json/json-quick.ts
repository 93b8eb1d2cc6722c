import { deepestNesting } from "../../../text/nesting.js";
import type { Span } from "../../../text/span.js";
import { CodeUnits } from "../../../text/code-units.js";
import { EntryPlaces, PooledEntries, type EntryTable } from "../../entry-table.js";
import { KeyPool } from "../../key-pool.js";
import type { Entry, EntryPath } from "../../model.js";
import type { JsonValueKind } from "./json-scan.js";

/** A group on the way down to an entry. */
export interface OpenGroup {
  readonly parent: OpenGroup | undefined;
  readonly name: string | number;
  readonly list: boolean;
  /** The key of an entry in it, up to the entry's own name. */
  readonly prefix: string;
  members: number;
}

/** What was read of a file. */
export interface QuickJson {
  readonly table: EntryTable;
  readonly emptyGroups: readonly OpenGroup[];
}

/** What the paths and places of a file's entries are worked out from. */
export interface JsonPlaces {
  groupAt(index: number): OpenGroup;
  keyStartAt(index: number): number;
}

/** The places of entries as they were met. */
export class MetPlaces implements JsonPlaces {
  private readonly groups: OpenGroup[] = [];
  private readonly keyStarts: number[] = [];

  add(group: OpenGroup, keyStart: number): void {
    this.groups.push(group);
    this.keyStarts.push(keyStart);
  }

  groupAt(index: number): OpenGroup {
    const group = this.groups[index];
    if (!group) throw new RangeError(`there is no entry ${index}`);
    return group;
  }

  keyStartAt(index: number): number {
    return this.keyStarts[index] ?? 0;
  }
}

/** An entry that keeps where it starts: the rest is worked out when it is asked for. */
export class JsonEntry implements Entry {
  private knownSpan: Span | undefined = undefined;

  constructor(
    readonly key: string,
    readonly text: string,
    private readonly source: string,
    private readonly valueStart: number,
    private readonly places: JsonPlaces,
    private readonly index: number,
  ) {}

  get kind(): JsonValueKind {
    return kindAt(this.source, this.valueStart);
  }

  get path(): EntryPath {
    const group = this.places.groupAt(this.index);
    const name = this.key.slice(group.prefix.length);
    return pathTo(group, group.list ? Number(name) : name);
  }

  get keySpan() {
    const { places, index } = this;
    return places.groupAt(index).list ? this.valueSpan : spanFrom(this.source, places.keyStartAt(index));
  }

  get valueSpan(): Span {
    return (this.knownSpan ??= spanFrom(this.source, this.valueStart));
  }
}

/** Where the name or value that starts at a place stands. */
export function spanFrom(source: string, start: number) {
  const token = /"[^"\\]*(?:\\[^][^"\\]*)*"|'[^'\\]*(?:\\[^][^'\\]*)*'|[^\s,:}\]/]+/y;
  token.lastIndex = start;
  return { start, end: start + (token.exec(source)?.[0].length ?? 0) };
}

function kindAt(source: string, valueStart: number): JsonValueKind {
  switch (source.charCodeAt(valueStart)) {
    case 0x22:
    case 0x27:
      return "text";
    case 0x6e:
      return "null";
    case 0x74:
    case 0x66:
      return "boolean";
    default:
      return "number";
  }
}

/** The names from the root of a file to a member of a group. */
export function pathTo(group: OpenGroup, name: string | number): (string | number)[] {
  const path: (string | number)[] = [name];
  for (let at: OpenGroup | undefined = group; at?.parent; at = at.parent) path.push(at.name);
  return path.reverse();
}

/** The entries of a file that was read quickly: of each it is known where its value stands. */
class JsonEntries extends PooledEntries implements JsonPlaces {
  private readonly values: Int32Array;
  private met: MetPlaces | undefined = undefined;

  constructor(
    pool: KeyPool,
    found: EntryPlaces,
    private readonly source: string,
    private readonly separator: string,
    private readonly hasEscapes: boolean,
  ) {
    super(pool, found);
    this.values = found.spans();
  }

  textAt(index: number): string {
    const start = this.values[2 * index] ?? 0;
    const end = this.values[2 * index + 1] ?? 0;
    if (this.source.charCodeAt(start) !== quote) return this.source.slice(start, end);
    const inside = this.source.slice(start + 1, end - 1);
    return this.hasEscapes && inside.includes("\\")
      ? (JSON.parse(this.source.slice(start, end)) as string)
      : inside;
  }

  isTextAt(index: number): boolean {
    return this.source.charCodeAt(this.values[2 * index] ?? 0) === quote;
  }

  plainStartAt(index: number): number {
    const start = this.values[2 * index] ?? 0;
    if (this.source.charCodeAt(start) !== quote) return -1;
    if (this.hasEscapes && this.source.slice(start, this.values[2 * index + 1]).includes("\\")) return -1;
    return start + 1;
  }

  plainLengthAt(index: number): number {
    return (this.values[2 * index + 1] ?? 0) - (this.values[2 * index] ?? 0) - 2;
  }

  protected makeEntry(index: number): Entry {
    return new JsonEntry(
      this.keyAt(index),
      this.textAt(index),
      this.source,
      this.values[2 * index] ?? 0,
      this,
      index,
    );
  }

  groupAt(index: number): OpenGroup {
    return this.metPlaces().groupAt(index);
  }

  keyStartAt(index: number): number {
    return this.metPlaces().keyStartAt(index);
  }

  /** Few runs ask for the paths of entries, so that the file is read again for them. */
  private metPlaces(): MetPlaces {
    if (!this.met) {
      this.met = new MetPlaces();
      readJsonQuickly(this.source, this.separator, new KeyPool(), this.met);
    }
    return this.met;
  }
}

const fileUnits = new CodeUnits();

const quote = 0x22;
const backslash = 0x5c;
const comma = 0x2c;

// How a step went.
const going = 0;
const atEnd = 1;
const doubtful = 2;

// What may come next.
const aValue = 0;
/** The first member of a group, or its end. */
const aFirst = 1;
const aName = 2;
/** A comma, or the end of the group. */
const anEnd = 3;

/**
 * Reads a JSON object that is as most are: no escapes that are not valid, nothing unusual. Undefined for anything doubtful,
 * which is left to the scanner that knows why.
 */
export function readJsonQuickly(
  text: string,
  separator: string,
  pool: KeyPool,
  met?: MetPlaces,
): QuickJson | undefined {
  return new QuickReader(text, separator, pool, met).read();
}

/**
 * One pass, a token at a time: nearly all time of reading catalogs is spent here, and the engine makes good code of a step
 * that is called often long before it would of one loop over a file.
 */
class QuickReader {
  private readonly units: Uint16Array;
  private readonly found: EntryPlaces;
  private readonly emptyGroups: OpenGroup[] = [];
  private hasEscapes = false;
  private at = 0;
  private group: OpenGroup | undefined = undefined;
  private depth = 0;
  private keyStart = 0;
  private nameEnd = 0;
  /** The name of the member at hand where it has escapes: others are never needed by themselves. */
  private name: string | undefined = undefined;
  private expects = aValue;

  constructor(
    private readonly text: string,
    private readonly separator: string,
    private readonly pool: KeyPool,
    private readonly met: MetPlaces | undefined,
  ) {
    this.units = fileUnits.of(text);
    this.found = new EntryPlaces(pool.size);
  }

  read(): QuickJson | undefined {
    let went = going;
    while (went === going) went = this.step();
    if (went === doubtful) return undefined;
    const { text, units, emptyGroups } = this;
    if (spaceEnd(units, this.at) < text.length) return undefined;
    const table = new JsonEntries(this.pool, this.found, text, this.separator, this.hasEscapes);
    return { table, emptyGroups };
  }

  private step(): number {
    const at = spaceEnd(this.units, this.at);
    const unit = this.units[at] ?? 0;
    if (this.expects === anEnd) return this.readEnd(at, unit);
    if (unit === quote) return this.readString(at);
    return this.expects === aName ? doubtful : this.readOther(at, unit);
  }

  /** Behind a member: a comma, or the end of its group. */
  private readEnd(at: number, unit: number): number {
    const { group } = this;
    if (!group) return doubtful;
    this.at = at + 1;
    if (unit === comma) {
      this.expects = group.list ? aValue : aName;
      return going;
    }
    return this.closeGroup(group, unit);
  }

  private closeGroup(group: OpenGroup, unit: number): number {
    if (unit !== (group.list ? 0x5d : 0x7d)) return doubtful;
    this.expects = anEnd;
    this.depth--;
    this.group = group.parent;
    return group.parent ? going : atEnd;
  }

  /** A name with the colon behind it, or a text. */
  private readString(at: number): number {
    const { units, group } = this;
    let end = literalEnd(units, at + 1);
    let escapes = false;
    while (units[end] !== quote) {
      const escaped = units[end] === backslash ? escapeLength(units, end) : 0;
      if (escaped === 0) return doubtful;
      escapes = true;
      end = literalEnd(units, end + escaped);
    }
    if (!group) return doubtful;
    if (this.expects !== aValue) {
      this.keyStart = at;
      this.nameEnd = end;
      this.name = escapes ? (JSON.parse(this.text.slice(at, end + 1)) as string) : undefined;
      const colon = spaceEnd(units, end + 1);
      if (units[colon] !== 0x3a) return doubtful;
      this.at = colon + 1;
      this.expects = aValue;
      return going;
    }
    if (escapes) this.hasEscapes = true;
    this.add(group, at, end + 1);
    return going;
  }

  /** Anything else that may stand at the place of a value: a group, the end of an empty one, a number or a word. */
  private readOther(at: number, unit: number): number {
    const { group } = this;
    if (this.expects === aFirst || (group?.list && group.members === 0 && unit === 0x5d)) {
      if (!group) return doubtful;
      this.at = at + 1;
      if (group.parent) this.emptyGroups.push(group);
      return this.closeGroup(group, unit);
    }
    if (unit === 0x7b || unit === 0x5b) return this.openGroup(at, unit === 0x5b);
    const word = /(?:true|false|null|-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?)(?![\w.+-])/y;
    word.lastIndex = at;
    const written = word.exec(this.text)?.[0];
    if (written === undefined || !group) return doubtful;
    this.add(group, at, at + written.length);
    return going;
  }

  private openGroup(at: number, list: boolean): number {
    const { group } = this;
    if (!group && list) return doubtful;
    const own = !group ? "" : group.list ? group.members : this.ownName();
    if (group) group.members++;
    const prefix = group ? this.pool.prefix(group.prefix + String(own) + this.separator) : "";
    // What is nested so deeply is not read at all, and the other reader says so.
    if (++this.depth > deepestNesting) return doubtful;
    this.group = { parent: group, name: own, list, prefix, members: 0 };
    this.expects = list ? aValue : aFirst;
    this.at = at + 1;
    return going;
  }

  private ownName(): string {
    return this.name ?? this.text.slice(this.keyStart + 1, this.nameEnd);
  }

  private add(group: OpenGroup, start: number, end: number): void {
    const { pool, name } = this;
    const key =
      name === undefined && !group.list
        ? pool.placeOfName(group.prefix, this.text.slice(this.keyStart + 1, this.nameEnd))
        : pool.place(group.prefix, group.list ? String(group.members) : (name ?? ""));
    this.found.add(key, start, end);
    this.met?.add(group, this.keyStart);
    group.members++;
    this.at = end;
    this.expects = anEnd;
  }
}

function spaceEnd(units: Uint16Array, start: number): number {
  let at = start;
  let unit = units[at] ?? 0;
  while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = units[++at] ?? 0;
  return at;
}

/** Which units do not stand for themselves in a string: its end, escapes, and those that may not be in it. */
const isSpecial = new Uint8Array(0x10000).fill(1, 0, 0x20);
isSpecial[quote] = isSpecial[backslash] = 1;

/** Where units end that stand for themselves. A small loop of its own, as the engine soon makes good code of that. */
function literalEnd(units: Uint16Array, start: number): number {
  let at = start;
  for (;;) {
    if (isSpecial[units[at] ?? 0] !== 0) return at;
    if (isSpecial[units[at + 1] ?? 0] !== 0) return at + 1;
    if (isSpecial[units[at + 2] ?? 0] !== 0) return at + 2;
    if (isSpecial[units[at + 3] ?? 0] !== 0) return at + 3;
    at += 4;
  }
}

/** The length of an escape (RFC 8259, section 7) from its backslash on; 0 for one that is none. */
function escapeLength(units: Uint16Array, at: number): number {
  switch (units[at + 1]) {
    case 0x22:
    case 0x2f:
    case 0x5c:
    case 0x62:
    case 0x66:
    case 0x6e:
    case 0x72:
    case 0x74:
      return 2;
    case 0x75:
      for (let digit = at + 2; digit < at + 6; digit++) if (!isHex(units[digit] ?? 0)) return 0;
      return 6;
    default:
      return 0;
  }
}

function isHex(unit: number): boolean {
  return (unit >= 0x30 && unit <= 0x39) || (unit >= 0x41 && unit <= 0x46) || (unit >= 0x61 && unit <= 0x66);
}
