import type { Span } from "../../../text/span.js";
import { PooledEntries, type EntryPlaces } from "../../entry-table.js";
import type { KeyPool } from "../../key-pool.js";
import type { Entry, EntryPath } from "../../model.js";
import { decodeJson, type JsonValueKind } from "./json-scan.js";

/** A group on the way down to an entry. */
export interface OpenGroup {
  readonly parent: OpenGroup | undefined;
  readonly name: string | number;
  readonly list: boolean;
  /** The key of an entry in it, up to the entry's own name. */
  readonly prefix: string;
  members: number;
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

/** The entries of a file, of which it is known where their values stand. `placesOf` finds their names and groups, which few runs ask for. */
export class JsonEntries extends PooledEntries implements JsonPlaces {
  private readonly values: Int32Array;
  private readonly hasEscapes: boolean;
  private met: JsonPlaces | undefined = undefined;

  constructor(
    pool: KeyPool,
    found: EntryPlaces,
    private readonly source: string,
    private readonly lenient: boolean,
    private readonly placesOf: () => JsonPlaces,
    override readonly isNested: boolean,
    override readonly hasJoinedNames: boolean,
  ) {
    super(pool, found);
    this.values = found.spans();
    this.hasEscapes = source.includes("\\");
  }

  textAt(index: number): string {
    const start = this.values[2 * index] ?? 0;
    const end = this.values[2 * index + 1] ?? 0;
    if (!this.isTextAt(index)) return this.source.slice(start, end);
    const inside = this.source.slice(start + 1, end - 1);
    return this.hasEscapes && inside.includes("\\")
      ? decodeJson(this.source.slice(start, end), this.lenient)
      : inside;
  }

  isTextAt(index: number): boolean {
    return kindAt(this.source, this.values[2 * index] ?? 0) === "text";
  }

  plainStartAt(index: number): number {
    const start = this.values[2 * index] ?? 0;
    if (!this.isTextAt(index)) return -1;
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
    return (this.met ??= this.placesOf()).groupAt(index);
  }

  keyStartAt(index: number): number {
    return (this.met ??= this.placesOf()).keyStartAt(index);
  }
}
