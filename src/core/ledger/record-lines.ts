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
  /** By the place of a key in the pool the number of its line, from 1, of one that is a duplicate the last; 0 for none. */
  private readonly lines: number[] = [];
  /** How many keys there are. */
  size = 0;
  /** Whether each record has a line of its own and the keys are in order; undefined as long as nobody asked. */
  private hasLines: boolean | undefined = undefined;

  constructor(private readonly pool: KeyPool) {}

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
    const expected = this.pool.expectedAt(text, start);
    const isExpected = expected?.length === keyEnd - start;
    const key = isExpected ? expected : text.slice(start, keyEnd);
    if (key.includes("\\")) return false;
    const place = isExpected ? this.pool.takeExpected() : this.pool.place("", key);
    this.text = text;
    this.put(place, stateEnd + 1);
    return true;
  }

  /** Adds a record that was read in another way. */
  add(key: string, record: LedgerRecord): void {
    this.odd.set(this.keys.length, record);
    this.put(this.pool.place("", key), -1);
  }

  private put(place: number, digest: number): void {
    while (this.lines.length <= place) this.lines.push(0);
    if (this.lines[place] === 0) this.size++;
    this.keys.push(this.pool.keyOfPlace(place));
    this.digests.push(digest);
    this.lines[place] = this.keys.length;
  }

  /** Whether the record of the key at a place of the pool has these digests: nothing changed since it was written. */
  matches(place: number, source: string, text: string): boolean {
    const index = (this.lines[place] ?? 0) - 1;
    const at = this.digests[index] ?? -1;
    if (at < 0) {
      const odd = this.odd.get(index);
      return odd?.source === source && odd.text === text;
    }
    return this.text.startsWith(text, at + digestLength + 1) && this.text.startsWith(source, at);
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

  /** The index of a key's line, of one that is a duplicate the last; -1 for one that is not there. */
  private find(key: string): number {
    const place = this.pool.placeOf(key);
    return place === undefined ? -1 : (this.lines[place] ?? 0) - 1;
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
   * The text with some records changed or new, each on its line, and with no others but those of the keys that are `unchanged`;
   * undefined where the keys are not in order, or one has no line of its own: then all is to be written anew.
   */
  replaced(
    changed: ReadonlyMap<string, LedgerRecord>,
    unchanged: readonly string[],
    lineOf: (key: string, record: LedgerRecord) => string,
  ): string | undefined {
    const { text, keys, digests } = this;
    this.hasLines ??=
      this.odd.size === 0 &&
      !text.includes("\r") &&
      keys.every((key, at) => at === 0 || key > (keys[at - 1] ?? ""));
    if (!this.hasLines || keys.length === 0) return undefined;
    const startOf = (index: number) => text.lastIndexOf("\n", digests[index]) + 1;
    const endOf = (index: number) => text.indexOf("\n", digests[index]) + 1;
    const edits: {
      readonly start: number;
      readonly end: number;
      readonly key: string;
      readonly line: string;
    }[] = [];
    let kept = unchanged.length;
    for (const [key, record] of changed) {
      const line = `${lineOf(key, record)}\n`;
      const index = this.find(key);
      if (index < 0) {
        const behind = firstAbove(keys, key);
        const start = behind < keys.length ? startOf(behind) : text.length;
        edits.push({ start, end: start, key, line });
        continue;
      }
      kept++;
      const [start, end] = [startOf(index), endOf(index)];
      // Most are written as they are.
      if (end - start !== line.length || !text.startsWith(line, start)) edits.push({ start, end, key, line });
    }
    if (kept < keys.length) {
      const stays = new Uint8Array(keys.length);
      for (const key of [...unchanged, ...changed.keys()]) stays[this.find(key)] = 1;
      for (const [index, key] of keys.entries())
        if (stays[index] === 0) edits.push({ start: startOf(index), end: endOf(index), key, line: "" });
    }
    if (edits.length === 0) return text;
    // What is new stands in front of the line behind it.
    edits.sort((a, b) => a.start - b.start || a.end - b.end || (a.key < b.key ? -1 : 1));
    const parts: string[] = [];
    let done = 0;
    for (const { start, end, line } of edits) {
      parts.push(text.slice(done, start), line);
      done = end;
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

/** The index of the first key that comes behind a key; their number for none. */
function firstAbove(keys: readonly string[], key: string): number {
  let [low, high] = [0, keys.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((keys[middle] ?? "") > key) high = middle;
    else low = middle + 1;
  }
  return low;
}

const digits = new Uint8Array(128);
for (const digit of "0123456789abcdef") digits[digit.charCodeAt(0)] = 1;

function isDigest(text: string, start: number): boolean {
  for (let at = start; at < start + digestLength; at++) if (digits[text.charCodeAt(at)] !== 1) return false;
  return true;
}
