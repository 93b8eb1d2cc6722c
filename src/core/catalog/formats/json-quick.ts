import { CodeUnits } from "../../text/code-units.js";
import { EntryPlaces, PooledEntries, type EntryTable } from "../entry-table.js";
import { KeyPool } from "../key-pool.js";
import type { Entry, EntryPath } from "../model.js";
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

  get valueSpan() {
    return spanFrom(this.source, this.valueStart);
  }
}

/** Where the name or value that starts at a place stands. */
export function spanFrom(source: string, start: number) {
  const token = /"(?:[^"\\]|\\[^])*"|'(?:[^'\\]|\\[^])*'|[^\s,:}\]/]+/y;
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
  private met: MetPlaces | undefined;

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

// What may come next.
const aValue = 0;
/** The first member of a group, or its end. */
const aFirst = 1;
const aName = 2;
/** A comma, or the end of the group. */
const anEnd = 3;

/**
 * Reads a JSON object that is as most are: no escapes that are not valid, nothing unusual. Undefined for anything doubtful,
 * which is left to the scanner that knows why. One pass in one function, as nearly all time of reading catalogs is spent here.
 */
export function readJsonQuickly(
  text: string,
  separator: string,
  pool: KeyPool,
  met?: MetPlaces,
): QuickJson | undefined {
  const { length } = text;
  const units = fileUnits.of(text);
  const found = new EntryPlaces(pool.size);
  const emptyGroups: OpenGroup[] = [];
  let hasEscapes = false;
  let at = 0;
  let group: OpenGroup | undefined;
  let keyStart = 0;
  let nameEnd = 0;
  /** The name of the member at hand where it has escapes: others are never needed by themselves. */
  let name: string | undefined;
  let expects = aValue;
  for (;;) {
    let unit = units[at] ?? 0;
    while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = units[++at] ?? 0;
    if (expects === anEnd) {
      if (!group) return undefined;
      if (unit === 0x2c) {
        at++;
        expects = group.list ? aValue : aName;
        continue;
      }
      if (unit !== (group.list ? 0x5d : 0x7d)) return undefined;
      at++;
      group = group.parent;
      if (!group) break;
      continue;
    }
    if (unit === quote) {
      let end = at + 1;
      let escapes = false;
      for (;;) {
        let inner = units[end] ?? 0;
        // Nearly all units are small letters, or stand behind them.
        while (inner > backslash) inner = units[++end] ?? 0;
        if (inner === quote) break;
        if (inner === backslash) {
          const escaped = escapeLength(units, end);
          if (escaped === 0) return undefined;
          escapes = true;
          end += escaped;
        } else if (inner < 0x20) return undefined;
        else end++;
      }
      if (!group) return undefined;
      if (expects !== aValue) {
        keyStart = at;
        nameEnd = end;
        name = escapes ? (JSON.parse(text.slice(at, end + 1)) as string) : undefined;
        at = end + 1;
        unit = units[at] ?? 0;
        while (unit === 0x20 || unit === 0x0a || unit === 0x0d || unit === 0x09) unit = units[++at] ?? 0;
        if (unit !== 0x3a) return undefined;
        at++;
        expects = aValue;
        continue;
      }
      if (escapes) hasEscapes = true;
      const key =
        name === undefined && !group.list
          ? pool.placeOfName(group.prefix, text.slice(keyStart + 1, nameEnd))
          : pool.place(group.prefix, group.list ? String(group.members) : (name ?? ""));
      found.add(key, at, end + 1);
      met?.add(group, keyStart);
      group.members++;
      at = end + 1;
      expects = anEnd;
      continue;
    }
    if (expects === aName) return undefined;
    if (expects === aFirst || (group?.list && group.members === 0 && unit === 0x5d)) {
      if (!group || unit !== (group.list ? 0x5d : 0x7d)) return undefined;
      at++;
      if (group.parent) emptyGroups.push(group);
      group = group.parent;
      if (!group) break;
      expects = anEnd;
      continue;
    }
    if (unit === 0x7b || unit === 0x5b) {
      const list = unit === 0x5b;
      if (!group && list) return undefined;
      const own: string | number = !group
        ? ""
        : group.list
          ? group.members
          : (name ?? text.slice(keyStart + 1, nameEnd));
      if (group) group.members++;
      const prefix: string = group ? pool.prefix(group.prefix + String(own) + separator) : "";
      group = { parent: group, name: own, list, prefix, members: 0 };
      expects = list ? aValue : aFirst;
      at++;
      continue;
    }
    const word = /(?:true|false|null|-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?)(?![\w.+-])/y;
    word.lastIndex = at;
    const written = word.exec(text)?.[0];
    if (written === undefined || !group) return undefined;
    const member = group.list ? String(group.members) : (name ?? text.slice(keyStart + 1, nameEnd));
    found.add(pool.place(group.prefix, member), at, at + written.length);
    met?.add(group, keyStart);
    group.members++;
    at += written.length;
    expects = anEnd;
  }
  for (; at < length; at++) {
    const unit = units[at];
    if (unit !== 0x20 && unit !== 0x0a && unit !== 0x0d && unit !== 0x09) return undefined;
  }
  return { table: new JsonEntries(pool, found, text, separator, hasEscapes), emptyGroups };
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
