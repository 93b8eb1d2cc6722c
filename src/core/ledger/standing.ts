import { digestOf, keptDigestOf } from "../text/digest.js";
import type { ReadMessage } from "../message/read-message.js";
import type { EntryState, LedgerRecord } from "./ledger.js";

/** Where a translation stands: its state, and whether its source text changed after it was made. */
export interface Standing {
  readonly state: EntryState;
  readonly stale: boolean;
}

/** The texts to judge. `message` is the source text, read. */
export interface StandingQuery {
  readonly record: LedgerRecord | undefined;
  readonly source: string;
  readonly message: ReadMessage;
  readonly text: string;
  /** The digest of the text, where it is known already. */
  readonly digest?: string;
}

/**
 * Where a translation stands. With a record: stale where the source text changed and the translation did not;
 * a translation edited since counts as made from the source text of today. Without one the texts must tell:
 * empty or the same as the source is `initial`, anything else `translated`.
 */
export function standingOf(query: StandingQuery): Standing {
  const { record, source, text } = query;
  if (!record || record.text !== (query.digest ?? digestOf(text)))
    return { state: stateFromTexts(source, query.message, text), stale: false };
  return { state: record.state, stale: record.source !== keptDigestOf(source) && record.state !== "initial" };
}

function stateFromTexts(source: string, message: ReadMessage, text: string): EntryState {
  if (text.trim() === "" && source.trim() !== "") return "initial";
  return text === source && !mayStaySame(message) ? "initial" : "translated";
}

/**
 * Whether a text may well be the same in another language: it has no words of its own (numbers, arguments, marks, units),
 * is one short word such as a name or a unit, or is made of capitals.
 */
export function mayStaySame(message: ReadMessage): boolean {
  const words = message.facts.text.match(/[\p{L}\p{M}][\p{L}\p{M}'’-]*/gu) ?? [];
  // Units of one letter are known everywhere: `{h}h {m}m`.
  if (words.every(({ length }) => length === 1)) return true;
  if (words.every((word) => word === word.toUpperCase() && word.length <= 5 && word !== word.toLowerCase()))
    return true;
  return words.length === 1 && (words[0]?.length ?? 0) <= 3;
}
