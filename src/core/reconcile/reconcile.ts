import {
  catalogEdits,
  isWhole,
  separatorsOf,
  type Book,
  type Catalog,
  type CatalogEdits,
} from "../catalog/book.js";
import type { Entry, EntryPath, PathText } from "../catalog/model.js";
import type { Files } from "../files/files.js";
import {
  ledgerChanges,
  readLedger,
  type AtticRecord,
  type Ledger,
  type LedgerRecord,
} from "../ledger/ledger.js";
import { standingOf } from "../ledger/standing.js";
import { parentsOf } from "../locale/fallback.js";
import type { MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { digestOf, keptDigestOf } from "../text/digest.js";
import { scaffoldPlurals } from "./plural-scaffold.js";

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
  reader(book: Book): MessageReader;
}

/**
 * Plans what brings every target locale into step with the source: missing keys added where the source has them,
 * keys that left the source set aside in the attic, those that came back taken out of it, and the ledger brought
 * up to what the texts show. A catalog that cannot be read whole is left alone and said.
 */
export function planReconcile(files: Files, books: readonly Book[], options: ReconcileOptions): Plan {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const tally = { "keys added": 0, "keys restored": 0, "keys set aside": 0, "translations stale": 0 };
  for (const book of books) {
    const reader = options.reader(book);
    const edits = catalogEdits();
    for (const locale of book.targetLocales) {
      if (options.locales && !options.locales.includes(locale)) continue;
      const ledger = readLedger(files, options.ledgerFolder, book.config.name, locale);
      for (const problem of ledger.problems)
        notes.push({
          file: problem.file,
          line: problem.line,
          message: problem.message,
          remedy: "the rest was read; writing the plan repairs the file",
        });
      const work = new LocaleWork(book, locale, ledger, reader, options, notes, tally, edits);
      work.changeCatalogs();
      changes.push(...work.ledgerChanges());
    }
    changes.push(...edits.changes());
  }
  const summary = Object.fromEntries(Object.entries(tally).filter(([, count]) => count > 0));
  return makePlan(changes, summary, notes);
}

class LocaleWork {
  private readonly records = new Map<string, LedgerRecord>();
  private readonly attic: Map<string, AtticRecord>;
  private readonly separator: string;
  private readonly inherits: boolean;

  constructor(
    private readonly book: Book,
    private readonly locale: string,
    private readonly ledger: Ledger,
    private readonly reader: MessageReader,
    private readonly options: ReconcileOptions,
    private readonly notes: PlanNote[],
    private readonly tally: Record<
      "keys added" | "keys restored" | "keys set aside" | "translations stale",
      number
    >,
    private readonly edits: CatalogEdits,
  ) {
    this.attic = new Map(ledger.attic);
    this.separator = separatorsOf(book.config).parts;
    this.inherits = parentsOf(locale).some(
      (parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent),
    );
  }

  changeCatalogs(): void {
    for (const catalog of this.book.catalogs) if (catalog.locale === this.locale) this.changeCatalog(catalog);
  }

  ledgerChanges(): FileChange[] {
    return ledgerChanges(this.ledger, this.records, this.attic);
  }

  private changeCatalog(catalog: Catalog): void {
    const source = this.book.catalog(this.book.sourceLocale, catalog.namespace);
    const broken = [catalog, ...(source ? [source] : [])].find((one) => !isWhole(one));
    if (broken) {
      this.keepRecords(catalog);
      this.noteBroken(broken);
      return;
    }
    if (!this.hasSource(source) && catalog.byKey.size > 0) {
      this.keepRecords(catalog);
      const wanted = this.book.layout.path(this.book.sourceLocale, catalog.namespace);
      this.notes.push({
        file: catalog.file,
        message: `left alone, because there is no source catalog ${wanted}`,
        remedy:
          "check “source” and “files” in the configuration; without a source every key would count as extra",
      });
      return;
    }
    const sourceEntries = source ? [...source.byKey.values()] : [];
    const extra = this.options.keepExtra
      ? []
      : [...catalog.byKey.values()].filter(
          (entry) =>
            !source?.byKey.has(entry.key) &&
            !this.book.allows(this.locale, this.book.codeKey(catalog.namespace, entry.key)),
        );
    const added: PathText[] = [];
    const placement = placementIn(catalog, this.separator, extra);
    for (const entry of sourceEntries) {
      const there = catalog.byKey.get(entry.key);
      if (there) this.account(catalog, entry, there.text);
      else this.addMissing(catalog, entry, placement, added);
    }
    for (const entry of extra) this.setAside(catalog, entry);
    if (added.length === 0 && extra.length === 0) return;
    if (!source && extra.length === catalog.byKey.size) {
      this.edits.remove(catalog);
      return;
    }
    this.edits.edit(catalog, {
      add: added,
      remove: extra.filter((entry) => !entry.isInherited).map((entry) => entry.path),
      order: sourceEntries.map(placement.pathOf),
    });
  }

  /**
   * Whether there is a source to go by. A namespace that only a target has is one that left the source, as long as
   * the source has others; with no source catalog at all it is the configuration that is wrong, or a file that was moved.
   */
  private hasSource(source: Catalog | undefined): boolean {
    if (source) return source.exists;
    return this.book.catalogs.some((catalog) => catalog.locale === this.book.sourceLocale && catalog.exists);
  }

  /** A source key that this locale lacks: from the attic, or filled as the book wants. */
  private addMissing(catalog: Catalog, source: Entry, placement: Placement, added: PathText[]): void {
    const full = this.book.fullKey(catalog.namespace, source.key);
    if (!this.book.expects(this.locale, this.book.codeKey(catalog.namespace, source.key))) return;
    const kept = this.attic.get(full);
    if (!kept && (this.inherits || this.book.config.fill === "absent")) return;
    const path = placement.pathOf(source);
    const blocker = placement.blocker(path);
    if (blocker) {
      this.notes.push({
        file: catalog.file,
        ...catalog.lines.position(blocker.keySpan.start),
        message: `${source.key} cannot be added: “${blocker.key}” is in its way`,
        remedy: "rename one of the two, in code as well",
      });
      return;
    }
    if (kept) {
      const { kept: text, ...record } = kept;
      added.push({ path, text });
      this.records.set(full, record);
      this.attic.delete(full);
      this.tally["keys restored"]++;
      if (record.source !== digestOf(source.text)) this.tally["translations stale"]++;
      return;
    }
    const text = this.book.config.fill === "empty" ? "" : this.sourceTextFor(source.text);
    added.push({ path, text });
    this.records.set(full, {
      state: "initial",
      source: digestOf(source.text),
      text: digestOf(text),
      origin: "copy",
      date: this.options.today,
    });
    this.tally["keys added"]++;
  }

  /** Brings the record of a key that is there up to what the texts show. */
  private account(catalog: Catalog, source: Entry, text: string): void {
    const full = this.book.fullKey(catalog.namespace, source.key);
    const record = this.ledger.records.get(full);
    const { reader } = this;
    const digest = digestOf(text);
    const standing = standingOf({
      record,
      source: source.text,
      get message() {
        return reader.read(source.text, undefined, source.key);
      },
      text,
      digest,
    });
    if (standing.stale) this.tally["translations stale"]++;
    if (record?.text === digest) {
      this.records.set(
        full,
        standing.state === "initial" && record.source !== keptDigestOf(source.text)
          ? { ...record, source: keptDigestOf(source.text) }
          : record,
      );
      return;
    }
    const origin = standing.state === "initial" ? "copy" : "person";
    this.records.set(full, {
      state: standing.state,
      source: digestOf(source.text),
      text: digest,
      origin,
      date: this.options.today,
    });
  }

  private setAside(catalog: Catalog, entry: Entry): void {
    const full = this.book.fullKey(catalog.namespace, entry.key);
    const digest = digestOf(entry.text);
    const record = this.ledger.records.get(full) ?? {
      state: "translated",
      source: digest,
      text: digest,
      origin: "person",
      date: this.options.today,
    };
    this.attic.set(full, { ...record, text: digest, kept: entry.text });
    this.tally["keys set aside"]++;
  }

  private keepRecords(catalog: Catalog): void {
    // What could not be read may hold any key of the namespace, so all of its records stay.
    const prefix = this.book.fullKey(catalog.namespace, "");
    for (const [full, record] of this.ledger.records)
      if (full.startsWith(prefix)) this.records.set(full, record);
  }

  private noteBroken(catalog: Catalog): void {
    const problem = catalog.problems[0];
    if (!problem || this.notes.some((note) => note.file === catalog.file)) return;
    this.notes.push({
      file: catalog.file,
      ...catalog.lines.position(problem.span.start),
      message: `left alone, because it cannot be read: ${problem.message}`,
      remedy: problem.remedy,
    });
  }

  /** The source text as a start for the translator, its plurals given the locale's categories. */
  private sourceTextFor(text: string): string {
    const message = this.reader.read(text);
    if (message.problems.length > 0 || message.facts.plurals.length === 0) return text;
    const nodes = scaffoldPlurals(message.nodes, this.locale);
    return nodes === message.nodes ? text : this.reader.print(nodes);
  }
}

/** Where new entries of one catalog go, and what may be in their way. */
interface Placement {
  pathOf(source: Entry): EntryPath;
  /** An entry that stays and is a text where a group must be, or the other way round. */
  blocker(path: EntryPath): Entry | undefined;
}

function placementIn(catalog: Catalog, separator: string, leaving: readonly Entry[]): Placement {
  let flat: { readonly is: boolean | undefined } | undefined;
  let taken: { readonly texts: Map<string, Entry>; readonly groups: Map<string, Entry> } | undefined;
  return {
    pathOf(source) {
      flat ??= { is: catalog.format.isFlat || isFlat(catalog, separator) };
      const keeps = flat.is === undefined || source.path.some((part) => typeof part === "number");
      return keeps ? source.path : flat.is ? [source.key] : source.key.split(separator);
    },
    blocker(path) {
      taken ??= takenPaths(catalog, leaving);
      for (let depth = 1; depth < path.length; depth++) {
        const text = taken.texts.get(pathId(path.slice(0, depth)));
        if (text) return text;
      }
      return taken.groups.get(pathId(path));
    },
  };
}

/** The paths where texts and groups stay. */
function takenPaths(catalog: Catalog, leaving: readonly Entry[]) {
  const texts = new Map<string, Entry>();
  const groups = new Map<string, Entry>();
  const gone = new Set(leaving);
  for (const entry of catalog.entries) {
    if (gone.has(entry)) continue;
    const { path } = entry;
    texts.set(pathId(path), entry);
    for (let depth = 1; depth < path.length; depth++) groups.set(pathId(path.slice(0, depth)), entry);
  }
  return { texts, groups };
}

function pathId(path: EntryPath): string {
  return path.join("\u0000");
}

/** Whether a catalog writes keys flat or nested, or shows no preference: too few entries, or both. */
function isFlat(catalog: Catalog, separator: string): boolean | undefined {
  const nested = catalog.entries.some((entry) => entry.path.length > 1);
  const dotted = catalog.entries.some((entry) => entry.path.length === 1 && entry.key.includes(separator));
  return nested === dotted ? undefined : dotted;
}
