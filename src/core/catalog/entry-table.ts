import type { KeyPool } from "./key-pool.js";
import type { CatalogContent, Entry } from "./model.js";

/**
 * The entries of a catalog in the order in which they stand. Keys and texts are had one by one; the entries, with their
 * paths and places, are made when they are asked for, which most never are.
 */
export abstract class EntryTable {
  private made: readonly Entry[] | undefined;
  private named: ReadonlyMap<string, Entry> | undefined = undefined;

  /** How many entries there are. */
  abstract readonly size: number;
  /** Whether no key is a duplicate. */
  abstract readonly isUnique: boolean;
  /** Whether entries stand in groups, and whether names outside of them hold what parts keys; undefined where their paths say it. */
  readonly isNested?: boolean;
  readonly hasJoinedNames?: boolean;
  abstract keyAt(index: number): string;
  abstract textAt(index: number): string;
  /** Whether the file holds a text, and not a number or the like where one is expected. */
  abstract isTextAt(index: number): boolean;
  /** Where in the file an entry's text stands as it is meant, unit for unit; -1 where it has quotes or escapes inside. */
  abstract plainStartAt(index: number): number;
  /** How many code units such a text has. */
  abstract plainLengthAt(index: number): number;
  /** The place of a key, of one that is a duplicate the last; -1 for one that is not there. */
  abstract find(key: string): number;
  protected abstract makeEntry(index: number): Entry;

  /** The place of a key that most likely stands at a given one, as in nearly all catalogs of a book. */
  findNear(likely: number, key: string): number {
    const isThere = likely >= 0 && likely < this.size && this.isUnique && this.keyAt(likely) === key;
    return isThere ? likely : this.find(key);
  }

  /** One entry: made for this call as long as nobody asked for all of them. */
  entryAt(index: number): Entry {
    return this.made?.[index] ?? this.makeEntry(index);
  }

  /** All entries, made once. */
  get entries(): readonly Entry[] {
    return (this.made ??= Array.from({ length: this.size }, (_, index) => this.makeEntry(index)));
  }

  /** The entries by key; of a key that is a duplicate, the last, as readers keep it. */
  get byKey(): ReadonlyMap<string, Entry> {
    return (this.named ??= this.isUnique
      ? new EntriesByKey(this)
      : new Map(this.entries.map((entry) => [entry.key, entry])));
  }
}

/** Entries by key where no key is a duplicate: what the table knows already is not put into a map of its own. */
class EntriesByKey implements ReadonlyMap<string, Entry> {
  constructor(private readonly table: EntryTable) {}

  get size(): number {
    return this.table.size;
  }
  has(key: string): boolean {
    return this.table.find(key) >= 0;
  }
  get(key: string): Entry | undefined {
    const index = this.table.find(key);
    return index < 0 ? undefined : this.table.entries[index];
  }
  *keys() {
    const { table } = this;
    for (let index = 0; index < table.size; index++) yield table.keyAt(index);
    return undefined;
  }
  values() {
    return this.table.entries.values();
  }
  *entries(): Generator<[string, Entry], undefined> {
    for (const entry of this.table.entries) yield [entry.key, entry];
    return undefined;
  }
  [Symbol.iterator]() {
    return this.entries();
  }
  forEach(visit: (entry: Entry, key: string, map: ReadonlyMap<string, Entry>) => void): void {
    for (const entry of this.table.entries) visit(entry, entry.key, this);
  }
}

/** Entries that already exist. */
class ListedEntries extends EntryTable {
  private places: Map<string, number> | undefined = undefined;

  constructor(private readonly list: readonly Entry[]) {
    super();
  }

  get size(): number {
    return this.list.length;
  }
  get isUnique(): boolean {
    return this.placeByKey().size === this.list.length;
  }
  keyAt(index: number): string {
    return this.makeEntry(index).key;
  }
  textAt(index: number): string {
    return this.makeEntry(index).text;
  }
  isTextAt(index: number): boolean {
    return this.makeEntry(index).kind === "text";
  }
  plainStartAt(): number {
    return -1;
  }
  plainLengthAt(): number {
    return 0;
  }
  find(key: string): number {
    return this.placeByKey().get(key) ?? -1;
  }
  protected makeEntry(index: number): Entry {
    const entry = this.list[index];
    if (!entry) throw new RangeError(`there is no entry ${index}`);
    return entry;
  }
  override get entries(): readonly Entry[] {
    return this.list;
  }

  private placeByKey(): ReadonlyMap<string, number> {
    return (this.places ??= new Map(this.list.map(({ key }, index) => [key, index])));
  }
}

/** A table of entries that already exist. */
export function entryTable(entries: readonly Entry[]): EntryTable {
  return new ListedEntries(entries);
}

/** What a file holds: its entries, and what else was found in it. */
export function catalogContent(
  table: EntryTable,
  more: Partial<Pick<CatalogContent, "emptyGroups" | "unknown" | "problems">> = {},
): CatalogContent {
  const { emptyGroups = [], unknown = [], problems = [] } = more;
  return {
    table,
    emptyGroups,
    unknown,
    problems,
    get entries() {
      return table.entries;
    },
  };
}

/** Entries whose keys are those of a pool, by their places in it. */
export abstract class PooledEntries extends EntryTable {
  /** Where each of the pool's keys stands here, counted from 1; made when a key is first looked for. */
  private places: Int32Array | undefined = undefined;
  private unique = true;
  readonly size: number;
  /** The places of the keys in the pool; undefined where they are the pool's first, in its order. */
  private readonly ids: Int32Array | undefined;

  constructor(
    protected readonly pool: KeyPool,
    places: EntryPlaces,
  ) {
    super();
    this.size = places.size;
    this.ids = places.keys();
  }

  get isUnique(): boolean {
    if (this.ids) this.placeById(this.ids);
    return this.unique;
  }

  keyAt(index: number): string {
    return this.pool.keyOfPlace(this.ids ? (this.ids[index] ?? -1) : index);
  }

  find(key: string): number {
    const id = this.pool.placeOf(key) ?? -1;
    if (!this.ids) return id < this.size ? id : -1;
    return (this.placeById(this.ids)[id] ?? 0) - 1;
  }

  private placeById(ids: Int32Array): Int32Array {
    if (!this.places) {
      this.places = new Int32Array(this.pool.size);
      for (let index = 0; index < this.size; index++) {
        const id = ids[index] ?? 0;
        if (this.places[id] !== 0) this.unique = false;
        this.places[id] = index + 1;
      }
    }
    return this.places;
  }
}

/** Collects, of each entry of a file that is being read, its key's place in the pool and where its value stands. */
export class EntryPlaces {
  private ids: Int32Array;
  private values: Int32Array;
  private inOrder = true;
  size = 0;

  /** `expected` says about how many there will be. */
  constructor(expected: number) {
    this.ids = new Int32Array(expected + 8);
    this.values = new Int32Array(2 * (expected + 8));
  }

  add(id: number, start: number, end: number): void {
    const { size } = this;
    if (size === this.ids.length) {
      this.ids = doubled(this.ids);
      this.values = doubled(this.values);
    }
    if (id !== size) this.inOrder = false;
    this.ids[size] = id;
    this.values[2 * size] = start;
    this.values[2 * size + 1] = end;
    this.size = size + 1;
  }

  /** The places of the keys in the pool; undefined where they are its first, in its order. */
  keys(): Int32Array | undefined {
    return this.inOrder ? undefined : this.ids.slice(0, this.size);
  }

  /** Start and end of each value in turn. */
  spans(): Int32Array {
    return this.values.slice(0, 2 * this.size);
  }
}

function doubled(numbers: Int32Array): Int32Array {
  const grown = new Int32Array(2 * numbers.length);
  grown.set(numbers);
  return grown;
}
