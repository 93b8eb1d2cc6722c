import { notices } from "../message/notices.js";
import {
  descriptionOf,
  haveSameKeys,
  hintedEntry,
  isWhole,
  ownHintsOf,
  unreadNote,
  type Catalog,
} from "../catalog/book.js";
import { hintLines, ownHintLines } from "../catalog/hints.js";
import type { Entry, PathText } from "../catalog/model.js";
import { placementIn, type Placement } from "../catalog/placement.js";
import { showForms } from "../message/forms.js";
import type { FileChange } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { makeAnew } from "../text/kept.js";
import { separatorsOf } from "../text/separators.js";
import {
  emptyTally,
  extraIn,
  hasSource,
  inherits,
  sourceOf,
  startingText,
  type LocaleJob,
  type SourceRow,
} from "./job.js";
import { matchedRows, nameOf } from "./matched-rows.js";
import {
  account,
  keepRecords,
  changesOfRecords,
  setAside,
  startRecords,
  type LocaleRecords,
} from "./records.js";
import { findRenames, type Renames } from "./renames.js";
import { stillSettled, type Settled } from "./settled.js";

const say = notices("reconcile", {
  "no-source-catalog": {
    message: "skipped, because the source catalog {file} does not exist",
    remedy:
      'check "source" and "files" in the configuration; without a source every key would count as extra',
  },
  blocked: {
    message: 'key "{key}" skipped: "{other}" already exists, and one of them would have to be a group',
    remedy: "rename one of the two, in code as well",
  },
});

/** What reconciling a locale gives. */
export interface ReconciledLocale extends Pick<LocaleJob, "notes" | "tally" | "edits" | "former"> {
  /** The changes of its ledger. */
  readonly changes: readonly FileChange[];
  /** What translations were made from that is not the source text of today, as full key and digest. */
  readonly outdated: readonly string[];
}

/** Brings the catalogs and the ledger of a locale into step with the source. */
export function reconcileLocale(
  given: Omit<LocaleJob, "notes" | "tally" | "edits" | "former">,
): ReconciledLocale {
  const job: LocaleJob = { ...given, notes: [], tally: emptyTally(), edits: [], former: new Map() };
  const records = startRecords(job);
  const renames = findRenames(job, records.attic);
  for (const catalog of job.book.catalogsOf(job.locale)) changeCatalog(job, records, renames, catalog);
  const { notes, tally, edits, former } = job;
  return { changes: changesOfRecords(job, records), outdated: records.outdated, notes, tally, edits, former };
}

function changeCatalog(job: LocaleJob, records: LocaleRecords, renames: Renames, catalog: Catalog): void {
  const { book, edits, options } = job;
  const source = sourceOf(job, catalog);
  if (cannotChange(job, catalog, source)) {
    keepRecords(job, records, catalog);
    return;
  }
  const rows = source ? job.rowsOf(source) : [];
  const isAligned = source !== undefined && haveSameKeys(catalog, source);
  const extra = options.keepExtra || isAligned ? [] : extraIn(job, catalog, source);
  const added: PathText[] = [];
  const renewed: PathText[] = [];
  const placement =
    renames.placements.get(catalog) ?? placementIn(catalog, separatorsOf(book.config).parts, extra);
  const { keep = makeAnew } = options;
  const matched = matchedRows(catalog, rows, keep);
  const { isInOrder } = keep<Settled>(`settled ${nameOf(catalog)}`, [job.ledger, rows, matched], (before) =>
    stillSettled(before, job.ledger, rows, matched.digests),
  );
  for (const [index, row] of rows.entries()) {
    if (isInOrder[index] === 1) {
      records.unchanged.push(row.full);
      continue;
    }
    const there = matched.entries[index];
    if (!there) added.push(...missingEntry(job, records, renames, catalog, row.entry, placement));
    else if (account(job, records, row, there, matched.digests[index] ?? "", renewed)) isInOrder[index] = 1;
  }
  for (const entry of extra) if (!renames.moved.has(entry)) setAside(job, records, catalog, entry);
  if (renewed.length > 0) edits.push((all) => all.edit(catalog, { set: renewed }));
  if (!source && extra.length > 0 && extra.length === catalog.byKey.size)
    edits.push((all) => all.remove(catalog));
  else if (added.length > 0 || extra.length > 0) {
    const changes = {
      add: added,
      remove: extra.filter((entry) => !entry.isInherited).map((entry) => entry.path),
      order: rows.map(({ entry }) => placement.pathOf(entry)),
    };
    edits.push((all) => all.edit(catalog, changes));
  }
  if (source && catalog.format.comments && book.config.hints) writeHints(job, records, catalog, source, rows);
}

/** Whether a catalog must be left alone, which is noted: it or its source cannot be read whole, or there is no source. */
function cannotChange(job: LocaleJob, catalog: Catalog, source: Catalog | undefined): boolean {
  const { book, notes } = job;
  const broken = [catalog, ...(source ? [source] : [])].find((one) => !isWhole(one));
  if (broken) {
    if (!notes.some((note) => note.file === broken.file)) notes.push(unreadNote(broken));
    return true;
  }
  if (hasSource(job, source) || catalog.byKey.size === 0) return false;
  const file = book.layout.path(book.sourceLocale, catalog.namespace);
  notes.push({ file: catalog.file, ...say("no-source-catalog", { file }), undone: "broken" });
  return true;
}

/** What translators find above the entries that are not done: the source text where it is not there itself, and what is said of it. */
function writeHints(
  job: LocaleJob,
  records: LocaleRecords,
  catalog: Catalog,
  source: Catalog,
  rows: readonly SourceRow[],
): void {
  const byKey = new Map(rows.map((row) => [row.entry.key, row]));
  const own = ownHintsOf(job.book.config);
  const wanted = (key: string) => {
    const row = byKey.get(key);
    const record = row && (records.changed.get(row.full) ?? job.ledger.records.get(row.full));
    if (!record) return undefined;
    const isOpen = record.state === "initial" || record.source !== row.digest;
    if (own) return ownHintLines(own, hintedEntry(source, row.entry), isOpen);
    if (!isOpen) return [];
    const isCopy = record.text === row.digest || record.text === digestOf(startingText(job, row.entry.text));
    return hintLines(isCopy ? undefined : showForms(row.entry.text), descriptionOf(source, row.entry));
  };
  job.edits.push((all) => all.hint(catalog, wanted, own));
}

/** What is added for a source key that the locale lacks: its text from before, or what the book fills in; nothing where it may be missing. */
function missingEntry(
  job: LocaleJob,
  records: LocaleRecords,
  renames: Renames,
  catalog: Catalog,
  source: Entry,
  placement: Placement,
): readonly PathText[] {
  const { book, locale, notes, tally } = job;
  if (source.kind === "code") return [];
  const full = book.fullKey(catalog.namespace, source.key);
  if (!book.expects(locale, book.codeKey(catalog.namespace, source.key))) return [];
  const renamed = renames.byNewKey.get(full);
  const kept = records.attic.get(full);
  if (!kept && !renamed && (book.config.fill === "absent" || inherits(job))) return [];
  const path = placement.pathOf(source);
  const blocker = placement.blocker(path);
  if (blocker) {
    const isThere = catalog.byKey.get(blocker.key) === blocker;
    notes.push({
      file: catalog.file,
      ...(isThere && catalog.lines.position(blocker.keySpan.start)),
      ...say("blocked", { key: source.key, other: blocker.key }),
      undone: "broken",
    });
    return [];
  }
  placement.take(source, path);
  if (renamed) {
    records.changed.set(full, renamed.record);
    tally["keys renamed"]++;
    return [{ path, text: renamed.entry.text }];
  }
  const digest = digestOf(source.text);
  if (kept) {
    const { kept: text, ...record } = kept;
    records.changed.set(full, record);
    records.attic.delete(full);
    tally["keys restored"]++;
    if (record.source !== digest) tally["translations stale"]++;
    return [{ path, text }];
  }
  const text = book.config.fill === "empty" ? "" : startingText(job, source.text);
  const date = job.options.today;
  records.changed.set(full, { state: "initial", source: digest, text: digestOf(text), origin: "copy", date });
  tally["keys added"]++;
  return [{ path, text }];
}
