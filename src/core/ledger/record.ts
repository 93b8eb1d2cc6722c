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
