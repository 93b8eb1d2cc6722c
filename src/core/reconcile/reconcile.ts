import { notices } from "../message/notices.js";
import { separatorsOf } from "../text/separators.js";
import { shellWord } from "../text/shell-word.js";
import {
  catalogEdits,
  descriptionOf,
  haveSameKeys,
  isWhole,
  unreadNote,
  type Book,
  type Catalog,
  type CatalogEdits,
} from "../catalog/book.js";
import type { Entry, PathText } from "../catalog/model.js";
import { hintLines } from "../catalog/hints.js";
import { KeyPool } from "../catalog/key-pool.js";
import { placementIn, type Placement } from "../catalog/placement.js";
import type { Files } from "../files/files.js";
import {
  ledgerChanges,
  readLedger,
  type AtticRecord,
  type Ledger,
  type LedgerProblem,
  type LedgerRecord,
} from "../ledger/ledger.js";
import {
  readSourceTexts,
  sourceTextChanges,
  sourceTextOf,
  type SourceText,
  type SourceTexts,
} from "../ledger/source-texts.js";
import type { Origin } from "../ledger/history.js";
import { standingOf } from "../ledger/standing.js";
import { parentsOf } from "../locale/fallback.js";
import { showForms } from "../message/forms.js";
import type { MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { nearest } from "../text/nearest.js";
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
  /** What translations without a record were made from, where history shows it. */
  readonly origins?:
    ((book: Book) => (locale: string, fullKey: string, text: string) => Origin | undefined) | undefined;
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
  const tally = {
    "keys added": 0,
    "untranslated copies renewed": 0,
    "keys renamed": 0,
    "keys restored": 0,
    "keys set aside": 0,
    "translations stale": 0,
  };
  for (const book of books) {
    const reader = options.reader(book);
    const edits = catalogEdits();
    const sources = readSourceTexts(files, options.ledgerFolder, book.config.name);
    const madeFrom = new Set<string>();
    const origins = options.origins?.(book);
    const former = new Map<string, SourceText[]>();
    const pool = new KeyPool();
    const rows = sourceRowsOf(book, pool);
    noteProblems(sources.problems, notes);
    if (!book.catalogsOf(book.sourceLocale).some(({ exists }) => exists) && book.targetLocales.length > 0) {
      notes.push({
        file: book.layout.path(book.sourceLocale, book.namespaces[0]),
        ...say("no-source", {}),
        undone: "broken",
      });
      continue;
    }
    for (const locale of book.targetLocales) {
      if (options.locales && !options.locales.includes(locale)) continue;
      const ledger = readLedger(files, options.ledgerFolder, book.config.name, locale, pool);
      noteProblems(ledger.problems, notes);
      // Without its records every translation would count as new.
      if (ledger.problems.some(({ isUnreadable }) => isUnreadable)) continue;
      const work = new LocaleWork({
        book,
        locale,
        ledger,
        reader,
        options,
        sources,
        origins,
        rowsOf: rows,
        notes,
        tally,
        edits,
        former,
      });
      work.changeCatalogs();
      changes.push(...work.ledgerChanges());
      for (const one of work.outdated) madeFrom.add(one);
    }
    changes.push(...sourceTextsOf(book, withFormer(sources, former), options, madeFrom));
    changes.push(...edits.changes());
  }
  const summary = Object.fromEntries(Object.entries(tally).filter(([, count]) => count > 0));
  return makePlan(changes, summary, notes);
}

/** A source entry with what every locale asks of it, worked out once. */
interface SourceRow {
  readonly entry: Entry;
  readonly full: string;
  readonly digest: string;
  /** The place of its key in the pool of the ledgers. */
  readonly place: number | undefined;
}

/** The entries of each source catalog in order, made ready when a locale first comes to them. */
function sourceRowsOf(book: Book, pool: KeyPool): (source: Catalog) => readonly SourceRow[] {
  const known = new Map<Catalog, readonly SourceRow[]>();
  return (source) => {
    let rows = known.get(source);
    if (!rows) {
      rows = [...source.byKey.values()].map((entry) => {
        const full = book.fullKey(source.namespace, entry.key);
        return { entry, full, digest: digestOf(entry.text), place: pool.placeOf(full) };
      });
      known.set(source, rows);
    }
    return rows;
  };
}

const say = notices("reconcile", {
  "no-source": {
    message: "no source catalog to keep the others in sync with",
    remedy:
      'check "source" and "files" in the configuration; `fond extract --write` writes the first source catalog',
  },
  "no-source-catalog": {
    message: "skipped, because the source catalog {file} does not exist",
    remedy:
      'check "source" and "files" in the configuration; without a source every key would count as extra',
  },
  "ledger-unreadable": {
    message: "{detail}",
    remedy: "check its permissions; its locale is skipped until it can be read",
  },
  "ledger-line": { message: "{detail}", remedy: "the rest was read; writing the plan repairs the file" },
  "too-many": {
    message:
      "{added, plural, one {# key was} other {# keys were}} added and {removed, plural, one {# was} other {# were}} removed: too many to detect renamed keys",
    remedy: "before reconciling, run `fond rekey` for those that were renamed, to keep their translations",
  },
  renamed: {
    message: '"{key}" looks like "{old}" renamed, whose text was "{text}"',
    remedy: "before reconciling, run `{command}` to keep its translations",
  },
  blocked: {
    message: 'key "{key}" skipped: "{other}" already exists, and one of them would have to be a group',
    remedy: "rename one of the two, in code as well",
  },
});

function noteProblems(problems: readonly LedgerProblem[], notes: PlanNote[]): void {
  for (const { file, line, detail, isUnreadable } of problems)
    notes.push(
      isUnreadable
        ? { file, ...say("ledger-unreadable", { detail }), undone: "unreadable" }
        : { file, line, ...say("ledger-line", { detail }) },
    );
}

/** The source texts of today for the ledger, with the older ones that translations were made from. */
function sourceTextsOf(
  book: Book,
  sources: SourceTexts,
  { today, locales }: ReconcileOptions,
  madeFrom: ReadonlySet<string>,
): FileChange[] {
  const now = new Map<string, string>();
  for (const catalog of book.catalogsOf(book.sourceLocale)) {
    // What cannot be read may hold any key, so nothing is known to have left.
    if (!isWhole(catalog)) return [];
    for (const entry of catalog.byKey.values())
      now.set(book.fullKey(catalog.namespace, entry.key), entry.text);
  }
  if (now.size === 0 || book.targetLocales.length === 0) return [];
  return sourceTextChanges(
    sources,
    now,
    today,
    (key, digest) => locales !== undefined || madeFrom.has(`${key}\u0000${digest}`),
  );
}

/** The kept source texts with those that history shows in front of them. */
function withFormer(sources: SourceTexts, former: ReadonlyMap<string, readonly SourceText[]>): SourceTexts {
  if (former.size === 0) return sources;
  const byKey = new Map(sources.byKey);
  for (const [key, list] of former) {
    const known = byKey.get(key) ?? [];
    byKey.set(key, [...list.filter((one) => !known.some(({ digest }) => digest === one.digest)), ...known]);
  }
  return { ...sources, byKey };
}

/** So many texts are compared with each other at most, to tell which key may be which under another name. */
const mostComparedTexts = 100_000;

/** What reconciling one locale of a book reads, and where it puts what it finds. */
interface LocaleJob {
  readonly book: Book;
  readonly locale: string;
  readonly ledger: Ledger;
  readonly reader: MessageReader;
  readonly options: ReconcileOptions;
  readonly sources: SourceTexts;
  readonly origins: ((locale: string, fullKey: string, text: string) => Origin | undefined) | undefined;
  readonly rowsOf: (source: Catalog) => readonly SourceRow[];
  /** What is skipped, counted and changed, of all locales together. */
  readonly notes: PlanNote[];
  readonly tally: Record<
    | "keys added"
    | "untranslated copies renewed"
    | "keys renamed"
    | "keys restored"
    | "keys set aside"
    | "translations stale",
    number
  >;
  readonly edits: CatalogEdits;
  /** Source texts of the past that history shows, for the ledger. */
  readonly former: Map<string, SourceText[]>;
}

class LocaleWork {
  /** What translations were made from that is not the source text of today, as full key and digest. */
  readonly outdated: string[] = [];

  /** The records that are new or changed; those that stay as they are, by their keys. */
  private readonly records = new Map<string, LedgerRecord>();
  private readonly unchanged: string[] = [];
  private readonly attic: Map<string, AtticRecord>;
  private readonly separator: string;
  private readonly inherits: boolean;

  constructor(private readonly job: LocaleJob) {
    const { book, locale, ledger } = job;
    this.attic = new Map(ledger.attic);
    this.separator = separatorsOf(book.config).parts;
    this.inherits = parentsOf(locale).some(
      (parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent),
    );
  }

  changeCatalogs(): void {
    this.findRenames();
    for (const catalog of this.job.book.catalogsOf(this.job.locale)) this.changeCatalog(catalog);
  }

  /** New keys whose text is that of a key which left the source: full key to the entry that has its translation. */
  private readonly renamed = new Map<string, { readonly entry: Entry; readonly record: LedgerRecord }>();
  private readonly moved = new Set<Entry>();
  private readonly placements = new Map<Catalog, Placement>();

  /** Keys that left the source and keys that are new there with the very text: the key was renamed or moved. */
  private findRenames(): void {
    const { book, locale, ledger } = this.job;
    const gone = new Map<string, { entry: Entry; full: string; record: LedgerRecord }[]>();
    for (const catalog of book.catalogsOf(locale)) {
      if (!isWhole(catalog)) continue;
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (!source || !isWhole(source) || !this.hasSource(source) || haveSameKeys(catalog, source)) continue;
      for (const entry of catalog.byKey.values()) {
        if (source.byKey.has(entry.key)) continue;
        const full = book.fullKey(catalog.namespace, entry.key);
        const record = ledger.records.get(full);
        if (!record || book.allows(locale, book.codeKey(catalog.namespace, entry.key))) continue;
        gone.set(record.source, [...(gone.get(record.source) ?? []), { entry, full, record }]);
      }
    }
    if (gone.size === 0 || this.job.options.keepExtra) return;
    const fresh: { full: string; source: Entry; catalog: Catalog }[] = [];
    for (const catalog of book.catalogsOf(locale)) {
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (!isWhole(catalog) || !source || !isWhole(source)) continue;
      const placement = placementIn(catalog, this.separator, this.extraIn(catalog, source));
      this.placements.set(catalog, placement);
      for (const entry of source.byKey.values())
        // A translation moves only to where there is room for it.
        if (!catalog.byKey.has(entry.key) && !placement.blocker(placement.pathOf(entry)))
          fresh.push({ full: book.fullKey(catalog.namespace, entry.key), source: entry, catalog });
    }
    const unmatched = fresh.filter(({ full, source }) => {
      if (this.attic.has(full)) return false;
      const same = (gone.get(digestOf(source.text)) ?? []).filter(({ entry }) => !this.moved.has(entry));
      const near = nearest(
        full,
        same.map((one) => one.full),
      );
      const found = same.length === 1 ? same[0] : same.find((one) => one.full === near);
      if (!found) return true;
      this.renamed.set(full, found);
      this.moved.add(found.entry);
      return false;
    });
    const texts = new Map<string, string>();
    for (const one of [...gone.values()].flat()) {
      if (this.moved.has(one.entry)) continue;
      const text = sourceTextOf(this.job.sources, one.full, one.record.source);
      if (text !== undefined && text.length > 8) texts.set(text, one.full);
    }
    const [first] = unmatched;
    if (first && unmatched.length * texts.size > mostComparedTexts)
      this.job.notes.push({
        file: first.catalog.file,
        ...say("too-many", { added: unmatched.length, removed: texts.size }),
      });
    else for (const one of unmatched) this.proposeRename(one, texts);
  }

  /**
   * A new key whose text is nearly that of one which left: said, since the translation may not fit any more. `texts` has
   * the keys that left by their texts.
   */
  private proposeRename(
    { full, source, catalog }: { readonly full: string; readonly source: Entry; readonly catalog: Catalog },
    texts: ReadonlyMap<string, string>,
  ): void {
    const alike = nearest(source.text, texts.keys());
    const old = alike === undefined ? undefined : texts.get(alike);
    if (alike === undefined || old === undefined || !isAlike(alike, source.text)) return;
    this.job.notes.push({
      file: catalog.file,
      ...say("renamed", {
        key: full,
        old,
        text: alike,
        command: `fond rekey ${shellWord(old)} ${shellWord(full)} --write`,
      }),
    });
  }

  ledgerChanges(): FileChange[] {
    for (const [full, { source }] of this.attic) this.outdated.push(`${full}\u0000${source}`);
    const { records, unchanged } = this;
    const { ledger } = this.job;
    if (records.size === 0 && unchanged.length === ledger.size)
      return ledgerChanges(ledger, undefined, this.attic);
    for (const full of unchanged) {
      const record = ledger.records.get(full);
      if (record) records.set(full, record);
    }
    return ledgerChanges(ledger, records, this.attic);
  }

  private changeCatalog(catalog: Catalog): void {
    const source = this.job.book.catalog(this.job.book.sourceLocale, catalog.namespace);
    const broken = [catalog, ...(source ? [source] : [])].find((one) => !isWhole(one));
    if (broken) {
      this.keepRecords(catalog);
      this.noteBroken(broken);
      return;
    }
    if (!this.hasSource(source) && catalog.byKey.size > 0) {
      this.keepRecords(catalog);
      const wanted = this.job.book.layout.path(this.job.book.sourceLocale, catalog.namespace);
      this.job.notes.push({
        file: catalog.file,
        ...say("no-source-catalog", { file: wanted }),
        undone: "broken",
      });
      return;
    }
    const rows = source ? this.job.rowsOf(source) : [];
    const isAligned = source !== undefined && haveSameKeys(catalog, source);
    const extra = this.job.options.keepExtra || isAligned ? [] : this.extraIn(catalog, source);
    const added: PathText[] = [];
    const renewed: PathText[] = [];
    const placement = this.placements.get(catalog) ?? placementIn(catalog, this.separator, extra);
    const { entries } = catalog;
    const isUnique = isAligned && entries.length === rows.length;
    for (const [index, row] of rows.entries()) {
      const there = isUnique ? entries[index] : catalog.byKey.get(row.entry.key);
      if (there) this.account(row, there, renewed);
      else this.addMissing(catalog, row.entry, placement, added);
    }
    for (const entry of extra) if (!this.moved.has(entry)) this.setAside(catalog, entry);
    if (renewed.length > 0) this.job.edits.edit(catalog, { set: renewed });
    if (added.length > 0 || extra.length > 0)
      this.editEntries(catalog, source, rows, added, extra, placement);
    if (source && catalog.format.comments && this.job.book.config.hints)
      this.writeHints(catalog, source, rows);
  }

  /** The entries of a catalog that its source lacks, but for those that the configuration allows. */
  private extraIn(catalog: Catalog, source: Catalog | undefined): Entry[] {
    const { book, locale } = this.job;
    return [...catalog.byKey.values()].filter(
      (entry) =>
        !source?.byKey.has(entry.key) && !book.allows(locale, book.codeKey(catalog.namespace, entry.key)),
    );
  }

  private editEntries(
    catalog: Catalog,
    source: Catalog | undefined,
    rows: readonly SourceRow[],
    added: readonly PathText[],
    extra: readonly Entry[],
    placement: Placement,
  ): void {
    if (!source && extra.length === catalog.byKey.size) {
      this.job.edits.remove(catalog);
      return;
    }
    this.job.edits.edit(catalog, {
      add: added,
      remove: extra.filter((entry) => !entry.isInherited).map((entry) => entry.path),
      order: rows.map(({ entry }) => placement.pathOf(entry)),
    });
  }

  /** What translators find above the entries that are not done: the source text where it is not there itself, and what is said of it. */
  private writeHints(catalog: Catalog, source: Catalog, rows: readonly SourceRow[]): void {
    const byKey = new Map(rows.map((row) => [row.entry.key, row]));
    this.job.edits.hint(catalog, (key) => {
      const row = byKey.get(key);
      if (!row) return undefined;
      const record = this.records.get(row.full) ?? this.job.ledger.records.get(row.full);
      if (!record) return undefined;
      const isStale = record.source !== row.digest;
      if (record.state !== "initial" && !isStale) return [];
      const isCopy =
        record.text === row.digest || record.text === digestOf(this.sourceTextFor(row.entry.text));
      return hintLines(isCopy ? undefined : showForms(row.entry.text), descriptionOf(source, row.entry));
    });
  }

  /**
   * Whether there is a source to go by. A namespace that only a target has is one that left the source, as long as
   * the source has others; with no source catalog at all it is the configuration that is wrong, or a file that was moved.
   */
  private hasSource(source: Catalog | undefined): boolean {
    if (source) return source.exists;
    return this.job.book.catalogsOf(this.job.book.sourceLocale).some(({ exists }) => exists);
  }

  /** A source key that this locale lacks: from the attic, or filled as the book wants. */
  private addMissing(catalog: Catalog, source: Entry, placement: Placement, added: PathText[]): void {
    const full = this.job.book.fullKey(catalog.namespace, source.key);
    if (!this.job.book.expects(this.job.locale, this.job.book.codeKey(catalog.namespace, source.key))) return;
    const renamed = this.renamed.get(full);
    const kept = this.attic.get(full);
    if (!kept && !renamed && (this.inherits || this.job.book.config.fill === "absent")) return;
    const path = placement.pathOf(source);
    const blocker = placement.blocker(path);
    if (blocker) {
      this.job.notes.push({
        file: catalog.file,
        ...(catalog.byKey.get(blocker.key) === blocker && catalog.lines.position(blocker.keySpan.start)),
        ...say("blocked", { key: source.key, other: blocker.key }),
        undone: "broken",
      });
      return;
    }
    placement.take(source, path);
    if (renamed) {
      added.push({ path, text: renamed.entry.text });
      this.records.set(full, renamed.record);
      this.job.tally["keys renamed"]++;
      return;
    }
    if (kept) {
      const { kept: text, ...record } = kept;
      added.push({ path, text });
      this.records.set(full, record);
      this.attic.delete(full);
      this.job.tally["keys restored"]++;
      if (record.source !== digestOf(source.text)) this.job.tally["translations stale"]++;
      return;
    }
    const text = this.job.book.config.fill === "empty" ? "" : this.sourceTextFor(source.text);
    added.push({ path, text });
    this.records.set(full, {
      state: "initial",
      source: digestOf(source.text),
      text: digestOf(text),
      origin: "copy",
      date: this.job.options.today,
    });
    this.job.tally["keys added"]++;
  }

  /** Brings the record of a key that is there up to what the texts show. */
  private account(
    { entry: source, full, digest: sourceDigest, place }: SourceRow,
    there: Entry,
    renewed: PathText[],
  ): void {
    const { text } = there;
    const digest = digestOf(text);
    const { ledger } = this.job;
    // Nothing changed: that is so for nearly all.
    if (place !== undefined && ledger.inTurn?.matches(place, sourceDigest, digest)) {
      this.unchanged.push(full);
      return;
    }
    const known = ledger.records.get(full);
    if (known?.text === digest && known.source === sourceDigest) {
      this.unchanged.push(full);
      return;
    }
    if (known?.text === digest && this.isCopy(full, known, there)) {
      const copy = this.sourceTextFor(source.text);
      const { today } = this.job.options;
      this.records.set(full, { ...known, source: sourceDigest, text: digestOf(copy), date: today });
      if (copy !== text) renewed.push({ path: there.path, text: copy });
      this.job.tally["untranslated copies renewed"]++;
      return;
    }
    const record = known ?? this.recordFromHistory(full, source, text, digest);
    const { reader } = this.job;
    const standing = standingOf({
      record,
      source: source.text,
      get message() {
        return reader.read(source.text, undefined, source.key);
      },
      text,
      digest,
    });
    if (standing.stale) {
      this.job.tally["translations stale"]++;
      this.outdated.push(`${full}\u0000${record?.source ?? ""}`);
    }
    if (record?.text === digest) {
      this.records.set(
        full,
        standing.state === "initial" && record.source !== sourceDigest
          ? { ...record, source: sourceDigest }
          : record,
      );
      return;
    }
    const origin = standing.state === "initial" ? "copy" : "person";
    this.records.set(full, {
      state: standing.state,
      source: sourceDigest,
      text: digest,
      origin,
      date: this.job.options.today,
    });
  }

  /** Whether an entry is still the copy of an older source text that was put there for a start: nobody's work is lost with it. */
  private isCopy(full: string, record: LedgerRecord, there: Entry): boolean {
    if (record.state !== "initial" || record.origin !== "copy" || there.text === "") return false;
    if (this.job.book.config.fill !== "source" || there.isInherited) return false;
    const former = sourceTextOf(this.job.sources, full, record.source);
    return (
      record.text === record.source || (former !== undefined && this.sourceTextFor(former) === there.text)
    );
  }

  /** A record for a translation that has none, where history shows what it was made from. */
  private recordFromHistory(
    full: string,
    source: Entry,
    text: string,
    digest: string,
  ): LedgerRecord | undefined {
    const origin = this.job.origins?.(this.job.locale, full, text);
    if (!origin || origin.source === source.text || text === "" || text === origin.source) return undefined;
    const old = { digest: digestOf(origin.source), date: origin.date, text: origin.source };
    const list = this.job.former.get(full) ?? [];
    if (!list.some((one) => one.digest === old.digest)) this.job.former.set(full, [...list, old]);
    return { state: "translated", source: old.digest, text: digest, origin: "person", date: origin.date };
  }

  private setAside(catalog: Catalog, entry: Entry): void {
    const full = this.job.book.fullKey(catalog.namespace, entry.key);
    const digest = digestOf(entry.text);
    const record = this.job.ledger.records.get(full) ?? {
      state: "translated",
      source: digest,
      text: digest,
      origin: "person",
      date: this.job.options.today,
    };
    this.attic.set(full, { ...record, text: digest, kept: entry.text });
    this.job.tally["keys set aside"]++;
  }

  private keepRecords(catalog: Catalog): void {
    // What could not be read may hold any key of the namespace, so all of its records stay.
    const prefix = this.job.book.fullKey(catalog.namespace, "");
    for (const [full, record] of this.job.ledger.records)
      if (full.startsWith(prefix)) this.records.set(full, record);
  }

  private noteBroken(catalog: Catalog): void {
    if (this.job.notes.some((note) => note.file === catalog.file)) return;
    this.job.notes.push(unreadNote(catalog));
  }

  /** The source text as a start for the translator, its plurals given the locale's categories. */
  private sourceTextFor(text: string): string {
    const message = this.job.reader.read(text);
    if (message.problems.length > 0 || message.facts.plurals.length === 0) return text;
    const nodes = scaffoldPlurals(message.nodes, this.job.locale);
    return nodes === message.nodes ? text : this.job.reader.print(nodes);
  }
}

/** Whether of two texts at most a fifth differs. */
function isAlike(a: string, b: string): boolean {
  const words = (text: string) => new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
  const [one, two] = [words(a), words(b)];
  const shared = [...one].filter((word) => two.has(word)).length;
  return shared * 5 >= Math.max(one.size, two.size) * 4 - 1 && shared > 0;
}
