import type { Files } from "../files/files.js";
import type { FileChange } from "../plan/plan.js";

/** The state of a translation, in the words of XLIFF 2.1 (section 4.3.1.32, "state"). */
export const entryStates = ["initial", "translated", "reviewed", "final"] as const;
export type EntryState = (typeof entryStates)[number];

/** Who or what made a translation. */
export const origins = ["person", "memory", "service", "copy"] as const;
export type Origin = (typeof origins)[number];

/** What the ledger holds of one key in one locale. */
export interface LedgerRecord {
  readonly state: EntryState;
  /** The digest of the source text that the translation was made from. */
  readonly source: string;
  /** The digest of the translation as it was when the record was written. */
  readonly text: string;
  readonly origin: Origin;
  /** The day of the last change of the record, as YYYY-MM-DD. */
  readonly date: string;
}

/** A translation whose key left the source, kept in case the key comes back. */
export interface AtticRecord extends LedgerRecord {
  readonly kept: string;
}

/** The ledger of one book and locale: records by full key. */
export interface Ledger {
  readonly file: string;
  readonly atticFile: string;
  readonly exists: boolean;
  readonly records: ReadonlyMap<string, LedgerRecord>;
  readonly attic: ReadonlyMap<string, AtticRecord>;
  /** Lines that could not be read and were left out, with their place. */
  readonly problems: readonly LedgerProblem[];
  readonly texts: { readonly ledger: string | undefined; readonly attic: string | undefined };
}

export interface LedgerProblem {
  readonly file: string;
  readonly line: number;
  readonly message: string;
}

const head = "# Fond Ledger 1";

/** Reads the ledger of a book and locale. Lines that make no sense are told of and left out; conflict markers are passed over. */
export function readLedger(files: Files, folder: string, book: string, locale: string): Ledger {
  const file = `${folder}/${book}.${locale}.txt`;
  const atticFile = `${folder}/${book}.${locale}.attic.txt`;
  const problems: LedgerProblem[] = [];
  const records = new Map<string, LedgerRecord>();
  const attic = new Map<string, AtticRecord>();
  const ledgerText = readLines(files, file, problems, (key, record, rest) => {
    if (rest.length > 0) return false;
    records.set(key, record);
    return true;
  });
  const atticText = readLines(files, atticFile, problems, (key, record, rest) => {
    const kept = rest.length === 1 ? unescapeField(rest[0] ?? "") : undefined;
    if (kept === undefined) return false;
    attic.set(key, { ...record, kept });
    return true;
  });
  const exists = ledgerText !== undefined;
  return {
    file,
    atticFile,
    exists,
    records,
    attic,
    problems,
    texts: { ledger: ledgerText, attic: atticText },
  };
}

/** The changes that bring a ledger's files to new records; none where nothing differs. */
export function ledgerChanges(
  ledger: Ledger,
  records: ReadonlyMap<string, LedgerRecord>,
  attic: ReadonlyMap<string, AtticRecord>,
): FileChange[] {
  if (isSame(ledger.records, records) && isSame(ledger.attic, attic) && ledger.problems.length === 0)
    return [];
  const ledgerText = writeLines(records, () => []);
  const atticText = attic.size === 0 ? undefined : writeLines(attic, ({ kept }) => [escapeField(kept)]);
  const changes: FileChange[] = [];
  if (records.size > 0 || ledger.exists)
    changes.push({ file: ledger.file, before: ledger.texts.ledger, after: ledgerText, isRecord: true });
  changes.push({ file: ledger.atticFile, before: ledger.texts.attic, after: atticText, isRecord: true });
  return changes.filter(({ before, after }) => before !== after);
}

/** Whether records are the very ones that were read. */
function isSame<Row>(read: ReadonlyMap<string, Row>, now: ReadonlyMap<string, Row>): boolean {
  if (read.size !== now.size) return false;
  for (const [key, row] of now) if (read.get(key) !== row) return false;
  return true;
}

function readLines(
  files: Files,
  file: string,
  problems: LedgerProblem[],
  take: (key: string, record: LedgerRecord, rest: readonly string[]) => boolean,
): string | undefined {
  return readRecords(
    files,
    file,
    problems,
    ([key = "", state, source = "", text = "", origin, date = "", ...rest]) => {
      const record = { state, source, text, origin, date } as LedgerRecord;
      const valid =
        entryStates.includes(record.state) &&
        origins.includes(record.origin) &&
        /^[0-9a-f]{16}$/.test(source) &&
        /^[0-9a-f]{16}$/.test(text);
      return valid && take(unescapeField(key), record, rest);
    },
  );
}

/**
 * Reads a file of the ledger line by line, as fields. A line that `take` makes nothing of, and a conflict marker, is told
 * of and passed over. Gives the file's text; undefined where there is none.
 */
export function readRecords(
  files: Files,
  file: string,
  problems: LedgerProblem[],
  take: (fields: readonly string[]) => boolean,
): string | undefined {
  const read = files.read(file);
  if (!read.ok) {
    if (read.trouble !== "absent")
      problems.push({ file, line: 1, message: `it cannot be read: ${read.detail}` });
    return undefined;
  }
  read.text.split(/\r?\n/).forEach((line, index) => {
    if (line === "" || line.startsWith("#")) return;
    const isMarker = /^(<{7}|={7}|>{7}|\|{7})/.test(line);
    if (isMarker || !take(line.split("\t")))
      problems.push({
        file,
        line: index + 1,
        message: isMarker
          ? "a conflict marker; both sides were read"
          : "a line that is no record; it was left out",
      });
  });
  return read.text;
}

function writeLines<Row extends LedgerRecord>(
  records: ReadonlyMap<string, Row>,
  more: (record: Row) => string[],
): string {
  const keys = [...records.keys()].sort();
  const lines = keys.flatMap((key) => {
    const record = records.get(key);
    if (!record) return [];
    return [
      [
        escapeField(key),
        record.state,
        record.source,
        record.text,
        record.origin,
        record.date,
        ...more(record),
      ].join("\t"),
    ];
  });
  return [head, ...lines, ""].join("\n");
}

/** Backslash, tab and line ends as `\\`, `\t`, `\n`, `\r`; a leading `#` as `\#`. */
export function escapeField(text: string): string {
  const named: Readonly<Record<string, string>> = { "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" };
  if (!/[\\\t\n\r#]/.test(text)) return text;
  return text.replace(/[\\\t\n\r]/g, (unit) => named[unit] ?? unit).replace(/^#/, "\\#");
}

/** The field that `escapeField` wrote. */
export function unescapeField(text: string): string {
  const named: Readonly<Record<string, string>> = { t: "\t", n: "\n", r: "\r" };
  if (!text.includes("\\")) return text;
  return text.replace(/\\(.)/g, (_, unit: string) => named[unit] ?? unit);
}
