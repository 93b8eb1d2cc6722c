import { haveSameKeys, type Book, type Catalog } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import { homeOf, type BookCode, type CodeUse } from "../source/book-code.js";
import type { Lookup, LookupKey } from "../source/model.js";
import { composedKeyTest } from "../text/key-pattern.js";
import { lazily } from "../text/lazy.js";
import { NearestKeys } from "../text/nearest.js";
import { partEnds } from "../text/separators.js";
import { MadeKeys } from "./key-endings.js";
import { composedIn, groupedByPrefix, mentionsOf } from "./possible-keys.js";

const made = new WeakMap<BookConfig, { readonly sources: readonly Catalog[]; readonly keys: SourceKeys }>();

/** So many keys may come or go with what is known of the others still holding; more are put together anew. */
const mostChanged = 50;

/**
 * The keys of a book's source catalogs, put together once: they are the same while only texts change, and what is known of them
 * holds on where few keys come or go.
 */
export function sourceKeysOf(book: Book): SourceKeys {
  const sources = book.catalogsOf(book.sourceLocale);
  const known = made.get(book.config);
  const changed = known && changedKeys(book, known.sources, sources);
  let keys = known?.keys;
  if (!keys || !changed) keys = new SourceKeys(book);
  else if (changed.length > 0) keys = new SourceKeys(book, { keys, changed });
  made.set(book.config, { sources, keys });
  return keys;
}

/** The keys that code may ask for in some source catalogs and not in others; undefined where they are many, or the catalogs are not the same ones. */
function changedKeys(
  book: Book,
  before: readonly Catalog[],
  after: readonly Catalog[],
): readonly string[] | undefined {
  if (before.length !== after.length) return undefined;
  const changed = new Set<string>();
  for (const [at, one] of after.entries()) {
    const other = before[at];
    if (one === other) continue;
    if (!other || other.namespace !== one.namespace) return undefined;
    if (haveSameKeys(one, other)) continue;
    const [had, has] = [new Set(codeKeysOf(book, other)), new Set(codeKeysOf(book, one))];
    for (const key of had) if (!has.has(key)) changed.add(key);
    for (const key of has) if (!had.has(key)) changed.add(key);
    if (changed.size > mostChanged) return undefined;
  }
  return [...changed];
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

/** Those that a book had before, and the keys of which the one or the other has one that the other does not have. */
interface Former {
  readonly keys: SourceKeys;
  readonly changed: readonly string[];
}

/** What is known of a file of code. */
interface Known {
  readonly asked: AskedKeys;
  readonly used: UsedKeys;
}

/** So many keys behind one prefix in a file are no chance. */
const leastPrefixed = 3;

/** The keys of a book's source catalogs as code writes them, in an order in which those that begin alike stand together. */
class SourceKeys {
  private readonly all: ReadonlySet<string>;
  private inOrder: readonly string[] | undefined;
  private readonly ends: readonly string[];
  /** The names of the folders that catalogs stand in, where a book has them in several. */
  private readonly folders: ReadonlySet<string>;
  private readonly composed = new Map<
    string,
    { readonly start: string; readonly found: readonly string[] }
  >();
  private readonly asked = new WeakMap<CodeUse, AskedKeys>();
  private readonly used = new WeakMap<CodeUse, UsedKeys>();
  private alike: NearestKeys | undefined;
  private made: { readonly code: BookCode; readonly keys: MadeKeys } | undefined;
  /** What stands between a key and the name of one of its forms; undefined where forms have no keys of their own. */
  private readonly mark: string | undefined;
  /** What may stand before a key without namespace, as strings have it that are no lookups. */
  private readonly home: string | undefined;
  /** What code asked for and used when the keys were others, and which keys those were. */
  private readonly former:
    (Pick<Former, "changed"> & { readonly [K in keyof Known]: WeakMap<CodeUse, Known[K]> }) | undefined;

  /** Whether nearly all keys have parts: one without any is hardly a key. */
  readonly areInGroups = lazily(() => {
    const grouped = this.sorted().filter((key) => this.ends.some((end) => key.includes(end))).length;
    return grouped >= this.sorted().length * 0.95;
  });

  /** Whether colons are parts of keys. */
  readonly haveColons = lazily(() => this.sorted().some((key) => key.includes(":")));

  constructor(book: Book, former?: Former) {
    const { plurals, forms } = book.config;
    this.home = homeOf(book.config);
    this.mark = plurals === "suffix" ? (forms?.separator ?? "_") : undefined;
    this.all = new Set(book.catalogsOf(book.sourceLocale).flatMap((catalog) => codeKeysOf(book, catalog)));
    this.ends = partEnds(book.config).filter((end) => end !== "");
    this.folders = new Set(
      book.config.files.includes("{dir}") ? book.namespaces.flatMap((one) => one?.split("/") ?? []) : [],
    );
    if (!former) return;
    const { keys, changed } = former;
    this.former = { changed, asked: keys.asked, used: keys.used };
    // One that another catalog had or has as well is nothing new.
    const added = changed.filter((key) => this.has(key) && !keys.has(key));
    const gone = changed.filter((key) => !this.has(key) && keys.has(key));
    this.inOrder = keys.inOrder && merged(keys.inOrder, added, gone);
    this.alike = keys.alike?.changed(added, gone);
    for (const [id, one] of keys.composed)
      if (!changed.some((key) => key.startsWith(one.start))) this.composed.set(id, one);
  }

  get size(): number {
    return this.all.size;
  }

  has(key: string): boolean {
    return this.all.has(key);
  }

  private sorted(): readonly string[] {
    return (this.inOrder ??= [...this.all].sort());
  }

  /** Whether a key, or one that it may become, is there; what comes from a variable may be any. */
  knows(key: LookupKey): boolean {
    if (key.kind === "fixed") return this.has(key.value) || this.has(this.behindFolder(key.value) ?? "");
    return key.kind === "unknown" || this.matching(key.parts).length > 0;
  }

  /** The keys that a file of code asks for. */
  askedBy(source: CodeUse): AskedKeys {
    const asked = this.asked.get(source) ?? this.heldOn(source, "asked") ?? this.lookedFor(source);
    this.asked.set(source, asked);
    return asked;
  }

  private lookedFor(source: CodeUse): AskedKeys {
    const told = source.lookups.filter(({ key }) => key.kind !== "unknown");
    const unknown = told.filter((lookup) => !this.knows(lookup.key) && this.formsOf(lookup).length === 0);
    return { count: told.length, unknown };
  }

  /** What a book's code makes of the keys that it is given. */
  madeIn(code: BookCode): MadeKeys {
    if (this.made?.code === code) return this.made.keys;
    const unknown = code.files.flatMap((source) =>
      this.askedBy(source).unknown.flatMap(({ key }) => (key.kind === "fixed" ? [key.value] : [])),
    );
    const keys = new MadeKeys(code, new Set(unknown), (key) => this.knows(key));
    this.made = { code, keys };
    return keys;
  }

  /** The keys that a file of code may use: those that it looks up, and those that stand in it as strings. */
  usedBy(source: CodeUse): UsedKeys {
    const used = this.used.get(source) ?? this.heldOn(source, "used") ?? this.found(source);
    this.used.set(source, used);
    return used;
  }

  /** What was known of a file of code when the keys were others, if those that changed are nothing to it. */
  private heldOn<K extends "asked" | "used">(source: CodeUse, kind: K): Known[K] | undefined {
    const known = this.former?.[kind].get(source) as Known[K] | undefined;
    return known && this.former?.changed.some((key) => this.concerns(key, source)) === false
      ? known
      : undefined;
  }

  /** Whether it can make a difference to a file of code that a key is there. */
  private concerns(changed: string, source: CodeUse): boolean {
    return (
      mentionsOf(source).has(changed) ||
      [...groupedByPrefix(source).values()].some((names) => names.has(changed)) ||
      (this.home !== undefined && source.mentions.has(this.home + changed)) ||
      [...this.folders].some((folder) => source.mentions.has(`${folder}.${changed}`)) ||
      composedIn(source).some(([start]) => changed.startsWith(start ?? "")) ||
      source.lookups.some(({ key }) => {
        if (key.kind === "unknown") return false;
        if (key.kind === "composed") return changed.startsWith(key.parts[0] ?? "");
        // Any other key may be the one that was meant by one that is not there.
        return changed.startsWith(key.value) || !this.has(key.value);
      })
    );
  }

  private found(source: CodeUse): UsedKeys {
    const behind = [...source.mentions].flatMap((mention) => this.behindFolder(mention) ?? []);
    const keys = [...mentionsOf(source), ...this.atHome(source), ...behind].filter((mention) =>
      this.has(mention),
    );
    for (const [, names] of groupedByPrefix(source)) {
      const own = [...names].filter((name) => this.has(name));
      if (own.length >= leastPrefixed) keys.push(...own);
    }
    for (const parts of composedIn(source)) keys.push(...this.matching(parts));
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
    return { keys, indirect, finds };
  }

  /** What stands behind the folder of a catalog, where its catalogs stand in several: `desk.title` for `title` in `parts/desk`. */
  private behindFolder(key: string): string | undefined {
    const at = this.folders.size === 0 ? -1 : key.indexOf(".");
    return at > 0 && this.folders.has(key.slice(0, at)) ? key.slice(at + 1) : undefined;
  }

  /** What strings of a file say behind the name that keys without a namespace have in front. */
  private atHome({ mentions }: CodeUse): readonly string[] {
    const { home } = this;
    if (home === undefined) return [];
    return [...mentions].flatMap((one) => (one.startsWith(home) ? [one.slice(home.length)] : []));
  }

  /** The keys of which a value given to a lookup may choose one, besides a number: `currentItem_first` for `currentItem`. */
  formsOf({ key, argumentNames }: Lookup): readonly string[] {
    if (this.mark === undefined || key.kind !== "fixed" || argumentNames?.length === 0) return [];
    return [...this.startingWith(key.value + this.mark)];
  }

  /** The key that was most likely meant by another; undefined where none was clearly meant. */
  meantBy(key: string): string | undefined {
    return (this.alike ??= new NearestKeys(this.all)).of(key);
  }

  /** The keys that one put together in code may become; null stands for any part of a key. */
  matching(parts: readonly (string | null)[]): readonly string[] {
    const id = JSON.stringify(parts);
    const known = this.composed.get(id);
    if (known) return known.found;
    const start = parts[0] ?? "";
    const found = [...this.startingWith(start)].filter(composedKeyTest(parts));
    // What is put behind a key may be the name of one of its forms.
    const [whole, behind] = parts;
    if (this.mark !== undefined && parts.length === 2 && behind === null && this.has(whole ?? ""))
      found.push(whole ?? "");
    this.composed.set(id, { start, found });
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

/** Keys in order, with some that were added and without some that are gone. */
function merged(
  keys: readonly string[],
  added: readonly string[],
  gone: readonly string[],
): readonly string[] {
  const left = new Set(gone);
  const merged = keys.filter((key) => !left.has(key));
  // What is in order but for a few at its end is soon put in order.
  merged.push(...added);
  return merged.sort();
}
