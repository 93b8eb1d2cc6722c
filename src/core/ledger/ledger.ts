import { KeyPool } from "../catalog/key-pool.js";
import { pluralCategoryNames } from "../locale/plural-rules.js";
import { joinForms, splitForms } from "../message/forms.js";
import type { Files } from "../files/files.js";
import type { FileChange } from "../plan/plan.js";
import { entryStates, origins, type LedgerRecord } from "./record.js";
import { RecordLines, type TakeLine } from "./record-lines.js";

export { entryStates, origins, type EntryState, type LedgerRecord, type Origin } from "./record.js";

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
  /** The record of one key: where few are asked for, the others are not made. */
  record(fullKey: string): LedgerRecord | undefined;
  /** Whether a key's record says that its text was made from the source text with a digest; undefined for no record. */
  isFrom(fullKey: string, source: string): boolean | undefined;
  /** How many records there are. */
  readonly size: number;
  /** The records as they stand in the file, by the places of their keys in the pool that the ledger was read with. */
  readonly lines: Pick<RecordLines, "matches" | "replaced">;
  readonly attic: ReadonlyMap<string, AtticRecord>;
  /** Lines that could not be read and were left out, with their place. */
  readonly problems: readonly LedgerProblem[];
  readonly texts: { readonly ledger: string | undefined; readonly attic: string | undefined };
}

export interface LedgerProblem {
  readonly file: string;
  readonly line: number;
  readonly detail: string;
  /** Set where nothing of the file could be read. */
  readonly isUnreadable?: true;
}

const head = "# Fond Ledger 1";

/** The files of a locale's ledger and of its attic. */
export function ledgerFiles(folder: string, book: string, locale: string): readonly [string, string] {
  return [`${folder}/${book}.${locale}.txt`, `${folder}/${book}.${locale}.attic.txt`];
}

/**
 * Reads the ledger of a book and locale. Lines that make no sense are reported and skipped; conflict markers are passed
 * over. The ledgers of a book that are read with one pool share the strings of their keys.
 */
export function readLedger(
  files: Files,
  folder: string,
  book: string,
  locale: string,
  pool = new KeyPool(),
): Ledger {
  pool.start();
  const [file, atticFile] = ledgerFiles(folder, book, locale);
  const problems: LedgerProblem[] = [];
  const lines = new RecordLines(pool);
  const attic = new Map<string, AtticRecord>();
  const ledgerText = readLines(
    files,
    file,
    problems,
    (key, record, rest) => {
      if (rest.length > 0) return false;
      lines.add(key, record);
      return true;
    },
    (text, start, end) => lines.take(text, start, end),
  );
  const atticText = readLines(files, atticFile, problems, (key, record, rest) => {
    const kept = textOfFields(rest);
    if (kept === undefined) return false;
    attic.set(key, { ...record, kept });
    return true;
  });
  const exists = ledgerText !== undefined;
  let records: Map<string, LedgerRecord> | undefined;
  return {
    file,
    atticFile,
    exists,
    get records() {
      return (records ??= lines.records());
    },
    record: (key) => lines.record(key),
    isFrom: (key, source) => lines.isFrom(key, source),
    size: lines.size,
    lines,
    attic,
    problems,
    texts: { ledger: ledgerText, attic: atticText },
  };
}

/** The changes that bring a ledger's files to new records (undefined: those that it has); none where nothing differs. */
export function ledgerChanges(
  ledger: Ledger,
  records: ReadonlyMap<string, LedgerRecord> | undefined,
  attic: ReadonlyMap<string, AtticRecord>,
): FileChange[] {
  if (
    (records === undefined || isSame(ledger.records, records)) &&
    isSame(ledger.attic, attic) &&
    ledger.problems.length === 0
  )
    return [];
  const all = records ?? ledger.records;
  return filesChanged(ledger, all.size > 0 || ledger.exists ? writeLines(all, () => []) : undefined, attic);
}

/**
 * The changes that leave, of the records that a ledger has, those of the keys that are `unchanged`, and add those that are changed
 * or new.
 */
export function recordChanges(
  ledger: Ledger,
  unchanged: readonly string[],
  changed: ReadonlyMap<string, LedgerRecord>,
  attic: ReadonlyMap<string, AtticRecord>,
): FileChange[] {
  if (changed.size === 0 && unchanged.length === ledger.size) return ledgerChanges(ledger, undefined, attic);
  const { ledger: text } = ledger.texts;
  // What is written anew ends its last line.
  const isWritten = ledger.problems.length === 0 && text?.startsWith(`${head}\n`) && text.endsWith("\n");
  const after = isWritten ? ledger.lines.replaced(changed, unchanged, recordLine) : undefined;
  if (after !== undefined) return filesChanged(ledger, after, attic);
  const all = new Map(changed);
  for (const key of unchanged) {
    const record = ledger.record(key);
    if (record) all.set(key, record);
  }
  return ledgerChanges(ledger, all, attic);
}

function filesChanged(
  ledger: Ledger,
  after: string | undefined,
  attic: ReadonlyMap<string, AtticRecord>,
): FileChange[] {
  const kept =
    attic === ledger.attic || isSame(ledger.attic, attic)
      ? ledger.texts.attic
      : attic.size === 0
        ? undefined
        : writeLines(attic, ({ kept }) => textFields(kept));
  return [
    { file: ledger.file, before: ledger.texts.ledger, after, isRecord: true as const },
    { file: ledger.atticFile, before: ledger.texts.attic, after: kept, isRecord: true as const },
  ].filter((change) => change.before !== change.after);
}

/** Whether records are those that were read. */
function isSame<Row extends LedgerRecord>(
  read: ReadonlyMap<string, Row>,
  wanted: ReadonlyMap<string, Row>,
): boolean {
  if (read.size !== wanted.size) return false;
  for (const [key, row] of wanted) {
    const known = read.get(key);
    if (known !== row && (!known || !isAlike(known, row))) return false;
  }
  return true;
}

function isAlike(one: LedgerRecord & { kept?: string }, other: LedgerRecord & { kept?: string }): boolean {
  return (["state", "source", "text", "origin", "date", "kept"] as const).every(
    (field) => one[field] === other[field],
  );
}

function readLines(
  files: Files,
  file: string,
  problems: LedgerProblem[],
  take: (key: string, record: LedgerRecord, rest: readonly string[]) => boolean,
  takeLine?: TakeLine,
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
    takeLine,
  );
}

/**
 * Reads a file of the ledger line by line, as fields. A line that `take` makes nothing of, and a conflict marker, is reported
 * and skipped. Gives the file's text; undefined where there is none.
 */
export function readRecords(
  files: Files,
  file: string,
  problems: LedgerProblem[],
  take: (fields: readonly string[]) => boolean,
  takeLine?: TakeLine,
): string | undefined {
  const read = files.read(file);
  if (!read.ok) {
    if (read.trouble !== "absent")
      problems.push({ file, line: 1, detail: `the file cannot be read: ${read.detail}`, isUnreadable: true });
    return undefined;
  }
  const { text } = read;
  for (let start = 0, number = 1; start < text.length; number++) {
    let end = text.indexOf("\n", start);
    if (end < 0) end = text.length;
    const from = start;
    start = end + 1;
    if (text.charCodeAt(end - 1) === 0x0d) end--;
    if (end <= from || text.charCodeAt(from) === 0x23 || takeLine?.(text, from, end)) continue;
    const line = text.slice(from, end);
    const isMarker = /^(<{7}|={7}|>{7}|\|{7})/.test(line);
    if (isMarker || !take(line.split("\t")))
      problems.push({
        file,
        line: number,
        detail: isMarker ? "conflict marker; both sides were read" : "invalid record, skipped",
      });
  }
  return text;
}

function writeLines<Row extends LedgerRecord>(
  records: ReadonlyMap<string, Row>,
  more: (record: Row) => string[],
): string {
  const keys = [...records.keys()].sort();
  const lines = keys.flatMap((key) => {
    const record = records.get(key);
    if (!record) return [];
    return [recordLine(key, record, more(record))];
  });
  return [head, ...lines, ""].join("\n");
}

function recordLine(key: string, record: LedgerRecord, more?: readonly string[]): string {
  const { state, source, text, origin, date } = record;
  return [escapeField(key), state, source, text, origin, date, ...(more ?? [])].join("\t");
}

/** A text as fields: the text itself, or nothing and a field for each plural form (`one=…`) where the forms have keys of their own. */
export function textFields(text: string): string[] {
  const forms = splitForms(text);
  if (!forms) return [escapeField(text)];
  return ["", ...forms.map(({ selector, text: form }) => `${selector}=${escapeField(form)}`)];
}

/** The text that `textFields` wrote; undefined for fields that hold none. */
export function textOfFields([text, ...rest]: readonly string[]): string | undefined {
  if (rest.length === 0) return text === undefined ? undefined : unescapeField(text);
  const forms = rest.map((field) => {
    const at = field.indexOf("=");
    return { selector: field.slice(0, Math.max(at, 0)), text: unescapeField(field.slice(at + 1)) };
  });
  const isValid = text === "" && forms.every(({ selector }) => isCategory(selector));
  return isValid ? joinForms(forms) : undefined;
}

function isCategory(name: string): boolean {
  return (pluralCategoryNames as readonly string[]).includes(name);
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
