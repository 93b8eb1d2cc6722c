import { haveSameKeys, type Book, type Catalog } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import { homeOf, type CodeUse } from "../source/book-code.js";
import type { Lookup, LookupKey } from "../source/model.js";
import { composedKeyTest } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import { NearestKeys } from "../text/nearest.js";
import { partEnds } from "../text/separators.js";

const made = new WeakMap<BookConfig, { readonly sources: readonly Catalog[]; readonly keys: SourceKeys }>();

/** The keys of a book's source catalogs, put together once: they are the same while only texts change. */
export function sourceKeysOf(book: Book): SourceKeys {
  const sources = book.catalogsOf(book.sourceLocale);
  const known = made.get(book.config);
  const areSame =
    known?.sources.length === sources.length &&
    sources.every((one, at) => {
      const other = known.sources[at];
      return (
        one === other ||
        (other !== undefined && other.namespace === one.namespace && haveSameKeys(one, other))
      );
    });
  const keys = known && areSame ? known.keys : new SourceKeys(book);
  made.set(book.config, { sources, keys });
  return keys;
}

const codeKeys = new WeakMap<Catalog, { readonly config: BookConfig; readonly keys: readonly string[] }>();

/** The keys of a catalog's entries as code writes them, put together once. */
export function codeKeysOf(book: Book, catalog: Catalog): readonly string[] {
  const known = codeKeys.get(catalog);
  if (known?.config === book.config) return known.keys;
  const { table, namespace } = catalog;
  const keys = Array.from({ length: table.size }, (_, at) => book.codeKey(namespace, table.keyAt(at)));
  codeKeys.set(catalog, { config: book.config, keys });
  return keys;
}

/** What code asks for, as far as keys can be told. */
interface AskedKeys {
  /** How many lookups there are whose keys do not come from variables. */
  readonly count: number;
  /** Those of them that the catalogs do not have. */
  readonly unknown: readonly Lookup[];
}

/** What a file of code uses of the catalogs. */
interface UsedKeys {
  readonly keys: readonly string[];
  /** How many of its lookups have keys that come from variables. */
  readonly indirect: number;
  /** Whether a lookup finds a key, or may find one. */
  readonly finds: boolean;
}

/** The keys of a book's source catalogs as code writes them, in an order in which those that begin alike stand together. */
class SourceKeys {
  private readonly sorted = lazily(() => [...this.all].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0)));
  private readonly all: ReadonlySet<string>;
  private readonly ends: readonly string[];
  private readonly composed = new Map<string, readonly string[]>();
  private readonly asked = new WeakMap<CodeUse, AskedKeys>();
  private readonly used = new WeakMap<CodeUse, UsedKeys>();
  private readonly alike = lazily(() => new NearestKeys(this.all));
  /** What stands between a key and the name of one of its forms; undefined where forms have no keys of their own. */
  private readonly mark: string | undefined;
  /** What may stand before a key without namespace, as strings have it that are no lookups. */
  private readonly home: string | undefined;

  /** Whether nearly all keys have parts: one without any is hardly a key. */
  readonly areInGroups = lazily(() => {
    const grouped = this.sorted().filter((key) => this.ends.some((end) => key.includes(end))).length;
    return grouped >= this.sorted().length * 0.95;
  });

  /** Whether colons are parts of keys. */
  readonly haveColons = lazily(() => this.sorted().some((key) => key.includes(":")));

  constructor(book: Book) {
    const { plurals, forms } = book.config;
    this.home = homeOf(book.config);
    this.mark = plurals === "suffix" ? (forms?.separator ?? "_") : undefined;
    const sources = book.catalogsOf(book.sourceLocale);
    this.all = new Set(sources.flatMap((catalog) => codeKeysOf(book, catalog)));
    this.ends = partEnds(book.config).filter((end) => end !== "");
  }

  get size(): number {
    return this.all.size;
  }

  has(key: string): boolean {
    return this.all.has(key);
  }

  /** Whether a key, or one that it may become, is there; what comes from a variable may be any. */
  knows(key: LookupKey): boolean {
    if (key.kind === "fixed") return this.has(key.value);
    return key.kind === "unknown" || this.matching(key.parts).length > 0;
  }

  /** The keys that a file of code asks for. */
  askedBy(source: CodeUse): AskedKeys {
    let asked = this.asked.get(source);
    if (!asked) {
      const told = source.lookups.filter(({ key }) => key.kind !== "unknown");
      asked = {
        count: told.length,
        unknown: told.filter((lookup) => !this.knows(lookup.key) && this.formsOf(lookup).length === 0),
      };
      this.asked.set(source, asked);
    }
    return asked;
  }

  /** The keys that a file of code may use: those that it looks up, and those that stand in it as strings. */
  usedBy(source: CodeUse): UsedKeys {
    const made = this.used.get(source);
    if (made) return made;
    const { home } = this;
    const keys = [...source.mentions].flatMap((mention) =>
      this.has(mention)
        ? [mention]
        : home !== undefined && mention.startsWith(home) && this.has(mention.slice(home.length))
          ? [mention.slice(home.length)]
          : [],
    );
    for (const parts of source.composed) keys.push(...this.matching(parts));
    let indirect = 0;
    let finds = false;
    for (const lookup of source.lookups) {
      const { key } = lookup;
      keys.push(...this.formsOf(lookup));
      if (key.kind === "composed") keys.push(...this.matching(key.parts));
      else if (key.kind === "unknown") indirect++;
      else if (this.has(key.value)) keys.push(key.value);
      else {
        // A misspelled key is reported where it is asked for; the one that was meant is not unused as well.
        const meant = this.meantBy(key.value);
        if (meant !== undefined) keys.push(meant);
        // A group is asked for with all that is in it.
        keys.push(...this.inGroup(key.value));
      }
      finds ||= key.kind !== "fixed" || this.has(key.value);
    }
    const found = { keys, indirect, finds };
    this.used.set(source, found);
    return found;
  }

  /** The keys of which a value given to a lookup may choose one, besides a number: `currentItem_first` for `currentItem`. */
  formsOf({ key, argumentNames }: Lookup): readonly string[] {
    if (this.mark === undefined || key.kind !== "fixed" || argumentNames?.length === 0) return [];
    return [...this.startingWith(key.value + this.mark)];
  }

  /** The key that was most likely meant by another; undefined where none was clearly meant. */
  meantBy(key: string): string | undefined {
    return this.alike().of(key);
  }

  /** The keys that one put together in code may become; null stands for any part of a key. */
  matching(parts: readonly (string | null)[]): readonly string[] {
    const id = JSON.stringify(parts);
    const known = this.composed.get(id);
    if (known) return known;
    const found = [...this.startingWith(parts[0] ?? "")].filter(composedKeyTest(parts));
    // What is put behind a key may be the name of one of its forms.
    const [whole, behind] = parts;
    if (this.mark !== undefined && parts.length === 2 && behind === null && this.has(whole ?? ""))
      found.push(whole ?? "");
    this.composed.set(id, found);
    return found;
  }

  /** The keys of the group that a key names, if it does. */
  inGroup(key: string): readonly string[] {
    return this.ends.flatMap((end) => [...this.startingWith(key + end)]);
  }

  private *startingWith(start: string): Generator<string> {
    let low = 0;
    const sorted = this.sorted();
    let high = sorted.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((sorted[middle] ?? "") < start) low = middle + 1;
      else high = middle;
    }
    for (let at = low; sorted[at]?.startsWith(start) === true; at++) yield sorted[at] ?? "";
  }
}
