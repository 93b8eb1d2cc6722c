import type { Book, Catalog } from "../catalog/book.js";
import type { Entry, EntryPath, PathPart } from "../catalog/model.js";

/** The order that a book wants its keys in: the source catalog's, or by name in each group. */
export type KeyOrder = "source" | "alphabet";

/** The entries of a catalog that stand out of order, and all that have a place in it in the order that is wanted. */
export interface Disorder {
  readonly misplaced: readonly Entry[];
  readonly wanted: readonly Entry[];
}

/**
 * What stands out of order in a catalog, as few entries as can be: the others are in order among themselves. Keys that
 * the source lacks have no place in its order.
 */
export function disorderIn(book: Book, catalog: Catalog, order: KeyOrder): Disorder {
  const source = book.catalog(book.sourceLocale, catalog.namespace);
  const ranks = new Map(order === "source" ? source?.entries.map(({ key }, index) => [key, index]) : []);
  const placed = catalog.entries.filter(({ key }) => order === "alphabet" || ranks.has(key));
  const rankOf = ({ key }: Entry) => ranks.get(key) ?? 0;
  const wanted =
    order === "source"
      ? placed.toSorted((a, b) => rankOf(a) - rankOf(b))
      : placed.toSorted((a, b) => comparePaths(a.path, b.path));
  const places = new Map(wanted.map((entry, index) => [entry, index]));
  const kept = longestRun(placed.map((entry) => places.get(entry) ?? 0));
  return { misplaced: placed.filter((_, index) => !kept.has(index)), wanted };
}

function comparePaths(one: EntryPath, other: EntryPath): number {
  for (let depth = 0; depth < Math.min(one.length, other.length); depth++) {
    const found = compareNames(one[depth] ?? "", other[depth] ?? "");
    if (found !== 0) return found;
  }
  return one.length - other.length;
}

function compareNames(one: PathPart, other: PathPart): number {
  if (typeof one === "number" && typeof other === "number") return one - other;
  const [a, b] = [String(one), String(other)];
  return a < b ? -1 : a > b ? 1 : 0;
}

/** Where the numbers stand that make the longest rising sequence, found by piles of which each has a lower top than the next. */
function longestRun(numbers: readonly number[]): ReadonlySet<number> {
  const tops: number[] = [];
  const before = new Int32Array(numbers.length);
  for (const [index, number] of numbers.entries()) {
    let low = 0;
    let high = tops.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((numbers[tops[middle] ?? 0] ?? 0) < number) low = middle + 1;
      else high = middle;
    }
    before[index] = tops[low - 1] ?? -1;
    tops[low] = index;
  }
  const run = new Set<number>();
  for (let at = tops.at(-1) ?? -1; at >= 0; at = before[at] ?? -1) run.add(at);
  return run;
}
