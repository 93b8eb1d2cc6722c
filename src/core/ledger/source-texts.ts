import type { Files } from "../files/files.js";
import type { FileChange } from "../plan/plan.js";
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

/** A source text of today: its full key, its digest, and the entry that holds it. */
export interface LatestText {
  readonly full: string;
  readonly digest: string;
  readonly entry: { readonly text: string };
}

/**
 * The change that brings the kept texts up to the source of today. Older texts stay as long as `isNeeded` says that a
 * translation was made from them. None where nothing differs. `isInOrder` has 1 for each of the latest texts that is known to be
 * kept by itself, and gets it for those that are found so.
 */
export function sourceTextChanges(
  texts: SourceTexts,
  latest: readonly LatestText[],
  today: string,
  isNeeded: (fullKey: string, digest: string) => boolean,
  isInOrder: Uint8Array = new Uint8Array(latest.length),
): FileChange[] {
  const { byKey } = texts;
  const changed = new Map<string, readonly SourceText[]>();
  let there = 0;
  for (const [at, { full, digest, entry }] of latest.entries()) {
    if (isInOrder[at] === 1) {
      there++;
      continue;
    }
    const known = byKey.get(full);
    if (known) there++;
    const { text } = entry;
    if (known?.length === 1 && known[0]?.text === text) {
      isInOrder[at] = 1;
      continue;
    }
    const current = known?.findLast((one) => one.text === text) ?? { digest, date: today, text };
    const older = (known ?? []).filter(
      (one) => one !== current && one.text !== text && isNeeded(full, one.digest),
    );
    const list = [...older, current];
    if (list.length !== known?.length || list.some((one, index) => one !== known[index]))
      changed.set(full, list);
  }
  if (there < byKey.size) {
    const now = new Set(latest.map(({ full }) => full));
    for (const [key, known] of byKey) {
      if (now.has(key)) continue;
      const older = known.filter((one) => isNeeded(key, one.digest));
      if (older.length !== known.length) changed.set(key, older);
    }
  }
  if (changed.size === 0 && texts.problems.length === 0) return [];
  const after = replacedTexts(texts, changed) ?? writeSourceTexts(new Map([...byKey, ...changed]));
  return [{ file: texts.file, before: texts.written, after, isRecord: true }];
}

/**
 * The written texts with the lines of some keys put in the place of those that are there; undefined where the file does not
 * stand as it is written, or nothing would be left of it: then all is to be written anew.
 */
function replacedTexts(
  { written, byKey, problems }: SourceTexts,
  changed: ReadonlyMap<string, readonly SourceText[]>,
): string | undefined {
  if (problems.length > 0 || !written?.startsWith(`${head}\n`) || written.includes("\r")) return undefined;
  const fresh = [...changed.keys()].filter((key) => !byKey.has(key)).sort();
  const parts: string[] = [];
  let next = 0;
  let [done, at, before] = [0, head.length + 1, ""];
  const put = (key: string) => parts.push(...linesOf(key, changed.get(key) ?? []).map((line) => `${line}\n`));
  for (const [key, list] of byKey) {
    if (key <= before && at > head.length + 1) return undefined;
    const start = at;
    const field = escapeField(key);
    for (let count = 0; count < list.length; count++) {
      if (!written.startsWith(field, at) || written.charCodeAt(at + field.length) !== 0x09) return undefined;
      at = written.indexOf("\n", at) + 1;
      if (at === 0) return undefined;
    }
    for (let one = fresh[next]; one !== undefined && one < key; one = fresh[++next]) {
      parts.push(written.slice(done, start));
      done = start;
      put(one);
    }
    if (changed.has(key)) {
      parts.push(written.slice(done, start));
      done = at;
      put(key);
    }
    before = key;
  }
  if (at !== written.length) return undefined;
  parts.push(written.slice(done));
  for (const one of fresh.slice(next)) put(one);
  const after = parts.join("");
  return after.length > head.length + 1 ? after : undefined;
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
  const lines = [...byKey.keys()].sort().flatMap((key) => linesOf(key, byKey.get(key) ?? []));
  return lines.length === 0 ? undefined : [head, ...lines, ""].join("\n");
}

function linesOf(key: string, texts: readonly SourceText[]): string[] {
  return texts.map(({ digest, date, text }) =>
    [escapeField(key), digest, date, ...textFields(text)].join("\t"),
  );
}
