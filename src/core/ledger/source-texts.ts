import type { Files } from "../files/files.js";
import type { FileChange } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import {
  escapeField,
  readRecords,
  textFields,
  textOfFields,
  unescapeField,
  type LedgerProblem,
} from "./ledger.js";

/** A source text as it was at some reconcile. */
export interface SourceText {
  readonly digest: string;
  /** The day on which it was first seen, as YYYY-MM-DD. */
  readonly date: string;
  readonly text: string;
}

/** The source texts of one book, those of the last reconcile and older ones that translations were made from. */
export interface SourceTexts {
  readonly file: string;
  readonly written: string | undefined;
  /** By full key, the oldest first, the one of the last reconcile at the end. */
  readonly byKey: ReadonlyMap<string, readonly SourceText[]>;
  readonly problems: readonly LedgerProblem[];
}

const head = "# Fond Ledger 1: source texts";

/** The file of a book's kept source texts. */
export function sourceTextsFile(folder: string, book: string): string {
  return `${folder}/${book}.sources.txt`;
}

/** Reads the source texts that a book's ledger keeps. Lines that make no sense are reported and skipped. */
export function readSourceTexts(files: Files, folder: string, book: string): SourceTexts {
  const file = sourceTextsFile(folder, book);
  const byKey = new Map<string, SourceText[]>();
  const problems: LedgerProblem[] = [];
  const written = readRecords(files, file, problems, ([key = "", digest = "", date = "", ...fields]) => {
    const text = textOfFields(fields);
    if (text === undefined || digest.length !== 16) return false;
    const full = unescapeField(key);
    const one = { digest, date, text };
    const list = byKey.get(full);
    if (list) list.push(one);
    else byKey.set(full, [one]);
    return true;
  });
  return { file, written, byKey, problems };
}

/** A source text by its digest: what a translation was made from, where the ledger still has it. */
export function sourceTextOf(texts: SourceTexts, fullKey: string, digest: string): string | undefined {
  return texts.byKey.get(fullKey)?.find((one) => one.digest === digest)?.text;
}

/**
 * The change that brings the kept texts up to the source of today. Older texts stay as long as `isNeeded` says that a
 * translation was made from them. None where nothing differs.
 */
export function sourceTextChanges(
  texts: SourceTexts,
  latest: ReadonlyMap<string, string>,
  today: string,
  isNeeded: (fullKey: string, digest: string) => boolean,
): FileChange[] {
  const kept = new Map<string, readonly SourceText[]>();
  let differs = texts.problems.length > 0;
  for (const [key, text] of latest) {
    const known = texts.byKey.get(key) ?? [];
    const last = known.at(-1);
    if (last?.text === text && known.length === 1) {
      kept.set(key, known);
      continue;
    }
    const current = known.findLast((one) => one.text === text) ?? {
      digest: digestOf(text),
      date: today,
      text,
    };
    const older = known.filter((one) => one !== current && one.text !== text && isNeeded(key, one.digest));
    const list = [...older, current];
    if (list.length !== known.length || list.some((one, index) => one !== known[index])) differs = true;
    kept.set(key, list);
  }
  for (const [key, known] of texts.byKey) {
    if (kept.has(key)) continue;
    const older = known.filter((one) => isNeeded(key, one.digest));
    if (older.length !== known.length) differs = true;
    if (older.length > 0) kept.set(key, older);
  }
  if (!differs) return [];
  const after = writeSourceTexts(kept);
  return [{ file: texts.file, before: texts.written, after, isRecord: true }];
}

/** The change that gives kept texts new keys; `rename` gives undefined for a key that stays. */
export function renameSourceTexts(
  texts: SourceTexts,
  rename: (fullKey: string) => string | undefined,
): FileChange[] {
  const renamed = new Map<string, readonly SourceText[]>();
  for (const [key, list] of texts.byKey) if (rename(key) === undefined) renamed.set(key, list);
  for (const [key, list] of texts.byKey) {
    const fresh = rename(key);
    if (fresh !== undefined && !renamed.has(fresh)) renamed.set(fresh, list);
  }
  if ([...texts.byKey.keys()].every((key) => rename(key) === undefined)) return [];
  return [{ file: texts.file, before: texts.written, after: writeSourceTexts(renamed), isRecord: true }];
}

function writeSourceTexts(byKey: ReadonlyMap<string, readonly SourceText[]>): string | undefined {
  if (byKey.size === 0) return undefined;
  const lines = [...byKey.keys()]
    .sort()
    .flatMap((key) =>
      (byKey.get(key) ?? []).map(({ digest, date, text }) =>
        [escapeField(key), digest, date, ...textFields(text)].join("\t"),
      ),
    );
  return [head, ...lines, ""].join("\n");
}
