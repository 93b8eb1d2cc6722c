import type { Book, Catalog, CatalogEdits } from "../catalog/book.js";
import type { KeyPool } from "../catalog/key-pool.js";
import { isSetting, type Entry } from "../catalog/model.js";
import type { BookConfig } from "../config/schema.js";
import type { Origin } from "../ledger/history.js";
import type { Ledger } from "../ledger/ledger.js";
import type { SourceText, SourceTexts } from "../ledger/source-texts.js";
import { isVariantOf, parentsOf } from "../locale/fallback.js";
import type { MessageReader } from "../message/parse.js";
import type { PlanNote } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { formerPlaces } from "../text/former-places.js";
import type { Keep } from "../text/kept.js";
import { scaffoldPlurals } from "../message/scaffold.js";

/** What reconciling needs besides the books. */
export interface ReconcileOptions {
  /** The folder of the ledgers. */
  readonly ledgerFolder: string;
  /** Today, as YYYY-MM-DD, for the records that change. */
  readonly today: string;
  /** Only these target locales; all where not given. */
  readonly locales?: readonly string[];
  /** Leaves keys that the source lacks where they are. */
  readonly keepExtra?: boolean;
  /** What translations without a record were made from, where history shows it. */
  readonly origins?:
    ((book: Book) => (locale: string, fullKey: string, text: string) => Origin | undefined) | undefined;
  reader(book: Book): MessageReader;
  /** The ledgers of a book, read with one pool of keys. */
  ledgers(book: Book): Ledgers;
  /** Keeps what was worked out before where nothing that it hangs on is another; not with `origins`. */
  readonly keep?: Keep | undefined;
}

/** The ledgers of a book by locale, and what shares the strings of their keys. */
export interface Ledgers {
  readonly pool: KeyPool;
  readonly sources: SourceTexts;
  of(locale: string): Ledger;
}

/** A source entry with what every locale asks of it, worked out once. */
export interface SourceRow {
  readonly entry: Entry;
  readonly full: string;
  readonly digest: string;
  /** The place of its key in the pool of the ledgers. */
  readonly place: number | undefined;
}

/** The entries of each source catalog in order, made ready when a locale first comes to them. */
export function sourceRowsOf(
  book: Book,
  pool: KeyPool,
  keep: Keep,
): (source: Catalog) => readonly SourceRow[] {
  const known = new Map<Catalog, readonly SourceRow[]>();
  return (source) => {
    const { namespace = "" } = source;
    const rows =
      known.get(source) ??
      // A key that is new to the pool has a place now.
      keep<PooledRows>(`rows ${book.config.name} ${namespace}`, [source, pool, pool.size], (before) => ({
        config: book.config,
        pool,
        rows: rowsOf(book, source, pool, before),
      })).rows;
    known.set(source, rows);
    return rows;
  };
}

interface PooledRows {
  readonly config: BookConfig;
  readonly pool: KeyPool;
  readonly rows: readonly SourceRow[];
}

/** The rows of a source catalog; those whose key and text are as they were take over what was worked out before. */
function rowsOf(book: Book, source: Catalog, pool: KeyPool, before: PooledRows | undefined): SourceRow[] {
  const former = before?.config === book.config && before.pool === pool ? before.rows : [];
  const entries = [...source.byKey.values()];
  const keysOf = (list: readonly Entry[]) => list.map(({ key }) => key);
  const places = formerPlaces(keysOf(entries), keysOf(former.map(({ entry }) => entry)));
  return entries.map((entry, at) => {
    const known = former[places[at] ?? -1];
    const full = known?.full ?? book.fullKey(source.namespace, entry.key);
    const digest = known?.entry.text === entry.text ? known.digest : digestOf(entry.text);
    return { entry, full, digest, place: known?.place ?? pool.placeOf(full) };
  });
}

/** What reconciling counts, in the words of its summary. */
export type Tally = Record<
  | "keys added"
  | "untranslated copies renewed"
  | "keys renamed"
  | "keys restored"
  | "keys set aside"
  | "translations stale",
  number
>;

/** What reconciling one locale of a book reads, and where it puts what it finds. */
export interface LocaleJob {
  readonly book: Book;
  readonly locale: string;
  readonly ledger: Ledger;
  readonly reader: MessageReader;
  readonly options: ReconcileOptions;
  readonly sources: SourceTexts;
  readonly origins: ((locale: string, fullKey: string, text: string) => Origin | undefined) | undefined;
  readonly rowsOf: (source: Catalog) => readonly SourceRow[];
  /** What is skipped, counted and changed. */
  readonly notes: PlanNote[];
  readonly tally: Tally;
  readonly edits: ((edits: CatalogEdits) => void)[];
  /** Source texts of the past that history shows, for the ledger. */
  readonly former: Map<string, SourceText[]>;
}

/** Nothing counted yet. */
export function emptyTally(): Tally {
  return {
    "keys added": 0,
    "untranslated copies renewed": 0,
    "keys renamed": 0,
    "keys restored": 0,
    "keys set aside": 0,
    "translations stale": 0,
  };
}

/** The catalog that a locale's catalog is held against. */
export function sourceOf({ book }: LocaleJob, catalog: Catalog): Catalog | undefined {
  return book.catalog(book.sourceLocale, catalog.namespace);
}

/**
 * Whether there is a source to go by. A namespace that only a target has is one that left the source, as long as
 * the source has others; with no source catalog at all it is the configuration that is wrong, or a file that was moved.
 */
export function hasSource({ book }: LocaleJob, source: Catalog | undefined): boolean {
  if (source) return source.exists;
  return book.catalogsOf(book.sourceLocale).some(({ exists }) => exists);
}

/**
 * The entries of a catalog that its source lacks, but for those that the configuration allows, those that a framework may ask for
 * and the source never had, and what the locale alone sets.
 */
export function extraIn(
  { book, locale, ledger }: LocaleJob,
  catalog: Catalog,
  source: Catalog | undefined,
): Entry[] {
  return [...catalog.byKey.values()].filter((entry) => {
    const { key } = entry;
    if (source?.byKey.has(key) || isSetting(entry)) return false;
    const written = book.codeKey(catalog.namespace, key);
    if (book.allows(locale, written)) return false;
    return !book.assumes(written) || ledger.record(book.fullKey(catalog.namespace, key)) !== undefined;
  });
}

/** Whether the locale falls back to another target locale, or to the source as one of its own kind, so that it need not have every key. */
export function inherits({ book, locale }: LocaleJob): boolean {
  if (isVariantOf(locale, book.sourceLocale)) return true;
  return parentsOf(locale).some(
    (parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent),
  );
}

/** The source text as a start for the translator, its plurals given the locale's categories. */
export function startingText({ reader, locale }: LocaleJob, text: string): string {
  const message = reader.read(text);
  if (message.problems.length > 0 || message.facts.plurals.length === 0) return text;
  const nodes = scaffoldPlurals(message.nodes, locale);
  return nodes === message.nodes ? text : reader.print(nodes);
}
