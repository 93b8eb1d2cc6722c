import type { KeyPool } from "../catalog/key-pool.js";
import { entryStates, origins, type LedgerRecord } from "./record.js";

/** Takes a line that is as most are, from `start` to `end` of the file's text; false leaves it to be looked at closely. */
export type TakeLine = (text: string, start: number, end: number) => boolean;

const tab = 0x09;
const dateLength = "2026-01-01".length;
const digestLength = 16;

/**
 * The records of a ledger as they stand in its file: the keys, and where the rest of each line is. A large project has
 * half a million of them, and most are only compared, so a record is made when it is asked for.
 */
export class RecordLines {
  private text = "";
  private readonly keys: string[] = [];
  /** Where the digest of the source text starts; -1 for a record that did not stand as `take` wants it. */
  private readonly digests: number[] = [];
  private readonly odd = new Map<number, LedgerRecord>();
  private isExpected = true;
  private places: ReadonlyMap<string, number> | undefined = undefined;

  constructor(private readonly pool: KeyPool) {}

  get size(): number {
    return this.keys.length;
  }

  /** Whether the keys are those of the pool, each once and in its order. */
  get isInTurn(): boolean {
    return this.isExpected && this.pool.size === this.keys.length;
  }

  /** Reads a line that stands as the ledger is written, without escapes; false for any other. */
  take(text: string, start: number, end: number): boolean {
    const keyEnd = text.indexOf("\t", start);
    if (keyEnd < 0 || keyEnd >= end) return false;
    const state = entryStates.find((one) => text.startsWith(one, keyEnd + 1));
    if (state === undefined) return false;
    const stateEnd = keyEnd + 1 + state.length;
    const sourceEnd = stateEnd + 1 + digestLength;
    const textEnd = sourceEnd + 1 + digestLength;
    const origin = origins.find((one) => text.startsWith(one, textEnd + 1));
    if (origin === undefined) return false;
    const originEnd = textEnd + 1 + origin.length;
    if (
      originEnd + 1 + dateLength !== end ||
      text.charCodeAt(stateEnd) !== tab ||
      text.charCodeAt(sourceEnd) !== tab ||
      text.charCodeAt(textEnd) !== tab ||
      text.charCodeAt(originEnd) !== tab ||
      !isDigest(text, stateEnd + 1) ||
      !isDigest(text, sourceEnd + 1)
    )
      return false;
    for (let at = originEnd + 1; at < end; at++) if (text.charCodeAt(at) === tab) return false;
    let key = this.pool.expectedAt(text, start);
    if (key?.length === keyEnd - start) this.pool.take();
    else {
      const written = text.slice(start, keyEnd);
      if (written.includes("\\")) return false;
      key = this.pool.key("", written);
      // It may be new to the pool; else it is not the one that comes next.
      if (this.pool.size !== this.keys.length + 1) this.isExpected = false;
    }
    this.text = text;
    this.keys.push(key);
    this.digests.push(stateEnd + 1);
    return true;
  }

  /** Adds a record that was read in another way. */
  add(key: string, record: LedgerRecord): void {
    this.odd.set(this.keys.length, record);
    this.keys.push(key);
    this.digests.push(-1);
    this.isExpected = false;
  }

  /** Whether the record at a place has these digests: nothing changed since it was written. */
  matches(place: number, source: string, text: string): boolean {
    const at = this.digests[place];
    return (
      at !== undefined &&
      this.text.startsWith(text, at + digestLength + 1) &&
      this.text.startsWith(source, at)
    );
  }

  /** Whether the record of a key says that its text was made from the source text with a digest; undefined for no record. */
  isFrom(key: string, source: string): boolean | undefined {
    const index = this.find(key);
    if (index < 0) return undefined;
    const odd = this.odd.get(index);
    return odd ? odd.source === source : this.text.startsWith(source, this.digests[index] ?? 0);
  }

  /** The record of a key. */
  record(key: string): LedgerRecord | undefined {
    const index = this.find(key);
    return index < 0 ? undefined : (this.odd.get(index) ?? this.recordAt(this.digests[index] ?? 0));
  }

  /** The place of a key among the lines, of one that is a duplicate the last; -1 for one that is not there. */
  private find(key: string): number {
    if (this.isExpected) {
      const place = this.pool.placeOf(key) ?? -1;
      return place < this.size ? place : -1;
    }
    this.places ??= new Map(this.keys.map((one, index) => [one, index]));
    return this.places.get(key) ?? -1;
  }

  /** All records by key; of a key that is a duplicate, the last. */
  records(): Map<string, LedgerRecord> {
    const records = new Map<string, LedgerRecord>();
    for (const [index, key] of this.keys.entries()) {
      const record = this.odd.get(index) ?? this.recordAt(this.digests[index] ?? 0);
      records.set(key, record);
    }
    return records;
  }

  /**
   * The text with some records changed, each on its line; undefined where the keys are not in order, or one has no line of its
   * own: then all is to be written anew.
   */
  replaced(
    changed: ReadonlyMap<string, LedgerRecord>,
    lineOf: (key: string, record: LedgerRecord) => string,
  ) {
    const { text, keys } = this;
    if (
      this.odd.size > 0 ||
      text.includes("\r") ||
      keys.some((key, at) => at > 0 && key <= (keys[at - 1] ?? ""))
    )
      return undefined;
    const places = [...changed].map(([key, record]) => [this.find(key), lineOf(key, record)] as const);
    const parts: string[] = [];
    let done = 0;
    for (const [place, line] of places.sort(([a], [b]) => a - b)) {
      const at = this.digests[place];
      if (at === undefined) return undefined;
      const end = text.indexOf("\n", at);
      parts.push(text.slice(done, text.lastIndexOf("\n", at) + 1), line);
      done = end < 0 ? text.length : end;
    }
    return parts.join("") + text.slice(done);
  }

  private recordAt(at: number): LedgerRecord {
    const { text } = this;
    const lineEnd = text.indexOf("\n", at);
    const end = lineEnd < 0 ? text.length : lineEnd;
    const [source = "", digest = "", origin, date = ""] = text.slice(at, end).trimEnd().split("\t");
    const state = text.slice(text.lastIndexOf("\t", at - 2) + 1, at - 1);
    return { state, source, text: digest, origin, date } as LedgerRecord;
  }
}

const digits = new Uint8Array(128);
for (const digit of "0123456789abcdef") digits[digit.charCodeAt(0)] = 1;

function isDigest(text: string, start: number): boolean {
  for (let at = start; at < start + digestLength; at++) if (digits[text.charCodeAt(at)] !== 1) return false;
  return true;
}
