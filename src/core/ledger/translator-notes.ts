import type { Files } from "../files/files.js";
import type { FileChange } from "../plan/plan.js";
import { escapeField, readRecords, unescapeField, type LedgerProblem } from "./ledger.js";

/** What a translator said of a text, and when. */
export interface TranslatorNote {
  /** As YYYY-MM-DD. */
  readonly date: string;
  readonly text: string;
}

/** The notes of one book and locale, by full key. */
export interface TranslatorNotes {
  readonly file: string;
  readonly notes: ReadonlyMap<string, TranslatorNote>;
  readonly text: string | undefined;
}

const head = "# Fond Ledger 1 notes";

/** Reads what translators said of the texts of a book and locale: a line for each key, with the day and the note. */
export function readNotes(files: Files, folder: string, book: string, locale: string): TranslatorNotes {
  const file = `${folder}/${book}.${locale}.notes.txt`;
  const notes = new Map<string, TranslatorNote>();
  const problems: LedgerProblem[] = [];
  const text = readRecords(files, file, problems, ([key, date, note]) => {
    if (key === undefined || date === undefined || note === undefined) return false;
    notes.set(unescapeField(key), { date, text: unescapeField(note) });
    return true;
  });
  return { file, notes, text };
}

/** The change that brings the file of notes to new ones; none where nothing differs. */
export function noteChanges(
  { file, notes, text }: TranslatorNotes,
  wanted: ReadonlyMap<string, TranslatorNote>,
): FileChange[] {
  const isSame =
    wanted.size === notes.size && [...wanted].every(([key, note]) => notes.get(key)?.text === note.text);
  if (isSame) return [];
  const lines = [...wanted.keys()].sort().flatMap((key) => {
    const note = wanted.get(key);
    return note ? [[escapeField(key), note.date, escapeField(note.text)].join("\t")] : [];
  });
  return [{ file, before: text, after: [head, ...lines, ""].join("\n"), isRecord: true }];
}
