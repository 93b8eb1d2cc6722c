import { createRequire } from "node:module";
import type * as Levenshtein from "fastest-levenshtein";
import { lazily } from "./lazy.js";

const require = createRequire(import.meta.url);
const levenshtein = lazily(() => require("fastest-levenshtein") as typeof Levenshtein);

/**
 * The candidate most like `word`, or undefined where none is near enough to be what was meant:
 * at most two in five of the longer word's code units may differ, letter case counting as half.
 */
export function nearest(word: string, candidates: Iterable<string>): string | undefined {
  const { distance } = levenshtein();
  let best: string | undefined;
  let bestCost = Infinity;
  for (const candidate of candidates) {
    const longer = Math.max(word.length, candidate.length);
    // One letter for another is another word where there are hardly more.
    const limit = longer < 3 ? 0.5 : Math.max(1, Math.round(longer * 0.4));
    if (Math.abs(word.length - candidate.length) > limit) continue;
    const cost = (distance(word, candidate) + distance(word.toLowerCase(), candidate.toLowerCase())) / 2;
    if (cost <= limit && cost < bestCost) {
      best = candidate;
      bestCost = cost;
    }
  }
  return best;
}

/**
 * Whether one key may be a slip of the pen for another: they differ in one part, and in little of it, or in letter case and
 * separators alone.
 */
export function isSlip(one: string, other: string): boolean {
  const [a, b] = [one, other].map((key) => key.split(/[^\p{L}\p{N}]+/u).filter(Boolean)) as [
    string[],
    string[],
  ];
  if (a.join("").toLowerCase() === b.join("").toLowerCase()) return true;
  if (a.length !== b.length) {
    // A part too many, or one that was left out.
    const [short, long] = a.length < b.length ? [a, b] : [b, a];
    return (
      long.length - short.length === 1 &&
      short.length > 1 &&
      long.some((_, index) => long.toSpliced(index, 1).join(" ") === short.join(" "))
    );
  }
  const different = a.flatMap((part, index) => (part === b[index] ? [] : [[part, b[index] ?? ""] as const]));
  return (
    different.length === 1 &&
    different.every(([left, right]) => {
      const longest = Math.max(left.length, right.length);
      const distance = levenshtein().distance(left, right);
      return (
        distance <= Math.max(1, Math.floor(longest / 4)) ||
        // Two letters that changed places.
        (distance === 2 && longest > 2 && [...left].sort().join("") === [...right].sort().join("")) ||
        // The root of a file of another locale.
        (a.length > 2 && left === a[0] && isTagLike(left) && isTagLike(right))
      );
    })
  );
}

function isTagLike(part: string): boolean {
  return /^[a-z]{2,3}$/.test(part);
}

/** The key of some, in whatever order, that was most likely meant by another; undefined where none was clearly meant. */
export function nearestKey(key: string, candidates: Iterable<string>): string | undefined {
  const slips = [...candidates].filter((candidate) => isSlip(key, candidate));
  return nearest(key, slips.sort());
}

/** Among no more keys than this the nearest is looked for in all of them. */
const fewKeys = 100;

/** No more keys than this are compared for being alike in the same way. */
const mostAlike = 200;

/**
 * The nearest of the same keys, asked for again and again. Of many keys only those are compared that have all parts but one
 * in common with the one asked for, and of the last part one half: to compare all with all would take hours where a file has
 * another root than its source.
 */
export class NearestKeys {
  private readonly keys: ReadonlySet<string>;
  private byMark: Map<number, string[]> | undefined = undefined;

  constructor(keys: Iterable<string>) {
    this.keys = new Set(keys);
  }

  /** The nearest of other keys: with some that were added, and without some that are gone. What was known of these is given over. */
  changed(added: readonly string[], gone: readonly string[]): NearestKeys {
    const left = new Set(gone);
    const changed = new NearestKeys([...[...this.keys].filter((key) => !left.has(key)), ...added]);
    const { byMark } = this;
    this.byMark = undefined;
    if (!byMark) return changed;
    const places = [...added, ...gone].flatMap((key) => marksOf(key, 0));
    // Of too many that are alike it is not known which are left out.
    if (places.some((place) => (byMark.get(place)?.length ?? 0) >= mostAlike)) return changed;
    for (const key of gone)
      for (const place of marksOf(key, 0))
        byMark.set(place, byMark.get(place)?.filter((one) => one !== key) ?? []);
    for (const key of added) mark(byMark, key);
    changed.byMark = byMark;
    return changed;
  }

  /** The key that was most likely meant by another; undefined where none was clearly meant. */
  of(key: string): string | undefined {
    if (this.keys.size <= fewKeys) return nearestKey(key, this.keys);
    if (!this.byMark) {
      this.byMark = new Map();
      for (const one of this.keys) mark(this.byMark, one);
    }
    const alike = new Set<string>();
    // With a letter too many or too few the half of a name is another.
    for (const more of [-1, 0, 1])
      for (const mark of marksOf(key, more))
        for (const other of this.byMark.get(mark) ?? []) alike.add(other);
    return nearestKey(key, alike);
  }
}

function mark(marked: Map<number, string[]>, key: string): void {
  for (const mark of marksOf(key, 0)) {
    const alike = marked.get(mark);
    if (!alike) marked.set(mark, [key]);
    else if (alike.length < mostAlike) alike.push(key);
  }
}

/**
 * What a key has in common with those that differ from it in one part, as digests; the last one's halves as if it had `more` letters.
 * That two have the same digest by chance only makes more keys to compare.
 */
function marksOf(key: string, more: number): readonly number[] {
  const text = key.toLowerCase();
  const parts: number[] = [];
  let start = 0;
  for (let at = 0; at < text.length; at++) {
    if (!isMark(text.charCodeAt(at))) continue;
    parts.push(digest(text, start, at));
    start = at + 1;
  }
  const half = Math.max(1, (text.length - start + more) >> 1);
  const group = parts.reduce(digestOfTwo, parts.length);
  const marks = [
    digestOfTwo(digestOfTwo(group, -1), digest(text, start, Math.min(text.length, start + half))),
    digestOfTwo(digestOfTwo(group, -2), digest(text, Math.max(start, text.length - half), text.length)),
  ];
  if (more !== 0) return marks;
  const last = digest(text, start, text.length);
  for (let without = 0; without < parts.length; without++) {
    let all = digestOfTwo(without, parts.length);
    for (let at = 0; at < parts.length; at++) if (at !== without) all = digestOfTwo(all, parts[at] ?? 0);
    marks.push(digestOfTwo(all, last));
  }
  return marks;
}

/** `.`, `:` and `/`, which part keys. */
function isMark(code: number): boolean {
  return code === 0x2e || code === 0x3a || code === 0x2f;
}

function digest(text: string, start: number, end: number): number {
  let all = end - start;
  for (let at = start; at < end; at++) all = digestOfTwo(all, text.charCodeAt(at));
  return all;
}

function digestOfTwo(one: number, other: number): number {
  return Math.imul(one ^ other, 0x01000193) ^ (one >>> 15);
}
