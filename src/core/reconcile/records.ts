import type { Catalog } from "../catalog/book.js";
import type { Entry, PathText } from "../catalog/model.js";
import { recordChanges, type AtticRecord, type LedgerRecord } from "../ledger/ledger.js";
import { sourceTextOf } from "../ledger/source-texts.js";
import { standingOf } from "../ledger/standing.js";
import type { FileChange } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { startingText, type LocaleJob, type SourceRow } from "./job.js";

/** A locale's records while it is reconciled. */
export interface LocaleRecords {
  /** Those that are new or changed, by full key. */
  readonly changed: Map<string, LedgerRecord>;
  /** The keys of those that stay as they are. */
  readonly unchanged: string[];
  readonly attic: Map<string, AtticRecord>;
  /** What translations were made from that is not the source text of today, as full key and digest. */
  readonly outdated: string[];
}

export function startRecords({ ledger }: LocaleJob): LocaleRecords {
  return { changed: new Map(), unchanged: [], attic: new Map(ledger.attic), outdated: [] };
}

/** The changes to the locale's ledger. */
export function changesOfRecords({ ledger }: LocaleJob, records: LocaleRecords): FileChange[] {
  const { changed, unchanged, attic, outdated } = records;
  for (const [full, { source }] of attic) outdated.push(`${full}\u0000${source}`);
  return recordChanges(ledger, unchanged, changed, attic);
}

/**
 * Brings the record of a key that is there up to what the texts show, and says whether it was so; a copy of an older source text
 * is renewed.
 */
export function account(
  job: LocaleJob,
  records: LocaleRecords,
  { entry: source, full, digest: sourceDigest, place }: SourceRow,
  there: Entry,
  digest: string,
  renewed: PathText[],
): boolean {
  const { text } = there;
  const { ledger, reader, tally } = job;
  const { today } = job.options;
  // Nothing changed: that is so for nearly all.
  if (place !== undefined && ledger.lines.matches(place, sourceDigest, digest)) {
    records.unchanged.push(full);
    return true;
  }
  const known = ledger.record(full);
  if (known?.text === digest && known.source === sourceDigest) {
    records.unchanged.push(full);
    return true;
  }
  if (known?.text === digest && isCopy(job, full, known, there)) {
    const copy = startingText(job, source.text);
    records.changed.set(full, { ...known, source: sourceDigest, text: digestOf(copy), date: today });
    if (copy !== text) renewed.push({ path: there.path, text: copy });
    tally["untranslated copies renewed"]++;
    return false;
  }
  const record = known ?? recordFromHistory(job, full, source, text, digest);
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
    tally["translations stale"]++;
    records.outdated.push(`${full}\u0000${record?.source ?? ""}`);
  }
  const { state } = standing;
  const isSettled = record?.text === digest;
  if (isSettled && state === "initial" && record.source !== sourceDigest)
    records.changed.set(full, { ...record, source: sourceDigest });
  else if (isSettled) records.changed.set(full, record);
  else {
    const origin = state === "initial" ? "copy" : "person";
    records.changed.set(full, { state, source: sourceDigest, text: digest, origin, date: today });
  }
  return false;
}

/** Whether an entry is still the copy of an older source text that was put there for a start: nobody's work is lost with it. */
function isCopy(job: LocaleJob, full: string, record: LedgerRecord, there: Entry): boolean {
  if (record.state !== "initial" || record.origin !== "copy" || there.text === "") return false;
  if (job.book.config.fill !== "source" || there.isInherited) return false;
  const former = sourceTextOf(job.sources, full, record.source);
  return record.text === record.source || (former !== undefined && startingText(job, former) === there.text);
}

/** A record for a translation that has none, where history shows what it was made from. */
function recordFromHistory(
  { locale, origins, former }: LocaleJob,
  full: string,
  source: Entry,
  text: string,
  digest: string,
): LedgerRecord | undefined {
  const origin = origins?.(locale, full, text);
  if (!origin || origin.source === source.text || text === "" || text === origin.source) return undefined;
  const old = { digest: digestOf(origin.source), date: origin.date, text: origin.source };
  const list = former.get(full) ?? [];
  if (!list.some((one) => one.digest === old.digest)) former.set(full, [...list, old]);
  return { state: "translated", source: old.digest, text: digest, origin: "person", date: origin.date };
}

/** Takes an entry that leaves its catalog to the attic. */
export function setAside(job: LocaleJob, records: LocaleRecords, catalog: Catalog, entry: Entry): void {
  const full = job.book.fullKey(catalog.namespace, entry.key);
  const digest = digestOf(entry.text);
  const record = job.ledger.records.get(full) ?? {
    state: "translated",
    source: digest,
    text: digest,
    origin: "person",
    date: job.options.today,
  };
  records.attic.set(full, { ...record, text: digest, kept: entry.text });
  job.tally["keys set aside"]++;
}

/** Keeps all records of a catalog that cannot be read: it may hold any key of its namespace. */
export function keepRecords({ book, ledger }: LocaleJob, records: LocaleRecords, catalog: Catalog): void {
  const prefix = book.fullKey(catalog.namespace, "");
  for (const [full, record] of ledger.records) if (full.startsWith(prefix)) records.changed.set(full, record);
}
