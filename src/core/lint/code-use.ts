import type { Book } from "../catalog/book.js";
import type { LookupKey } from "../source/model.js";
import { composedKeyTest } from "../text/key-pattern.js";
import { partEnds } from "../text/separators.js";

/** The keys of a book's source catalogs as code writes them, in an order in which those that begin alike stand together. */
export class SourceKeys {
  private readonly sorted: readonly string[];
  private readonly all: ReadonlySet<string>;
  private readonly ends: readonly string[];
  private readonly composed = new Map<string, readonly string[]>();

  constructor(book: Book) {
    const sources = book.catalogsOf(book.sourceLocale);
    this.all = new Set(
      sources.flatMap((catalog) =>
        [...catalog.byKey.keys()].map((key) => book.codeKey(catalog.namespace, key)),
      ),
    );
    this.sorted = [...this.all].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
    this.ends = partEnds(book.config).filter((end) => end !== "");
  }

  get size(): number {
    return this.all.size;
  }

  /** In the order of the catalogs. */
  [Symbol.iterator](): Iterator<string> {
    return this.all[Symbol.iterator]();
  }

  has(key: string): boolean {
    return this.all.has(key);
  }

  /** Whether a key, or one that it may become, is there; what comes from a variable may be any. */
  knows(key: LookupKey): boolean {
    if (key.kind === "fixed") return this.has(key.value);
    return key.kind === "unknown" || this.matching(key.parts).length > 0;
  }

  /** The keys that one put together in code may become; null stands for any part of a key. */
  matching(parts: readonly (string | null)[]): readonly string[] {
    const id = JSON.stringify(parts);
    const found =
      this.composed.get(id) ?? [...this.startingWith(parts[0] ?? "")].filter(composedKeyTest(parts));
    this.composed.set(id, found);
    return found;
  }

  /** The keys of the group that a key names, if it does. */
  inGroup(key: string): readonly string[] {
    return this.ends.flatMap((end) => [...this.startingWith(key + end)]);
  }

  private *startingWith(start: string): Generator<string> {
    let low = 0;
    let high = this.sorted.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.sorted[middle] ?? "") < start) low = middle + 1;
      else high = middle;
    }
    for (let at = low; this.sorted[at]?.startsWith(start) === true; at++) yield this.sorted[at] ?? "";
  }
}
