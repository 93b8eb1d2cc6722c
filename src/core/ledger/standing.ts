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
 * is one short word such as a name or a unit, is made of capitals, or of what only programs read (addresses, settings, names in
 * code) and names written as no word is (`aBcd`).
 */
export function mayStaySame(message: ReadMessage): boolean {
  if (isForPrograms(message.facts.text)) return true;
  const words = message.facts.text.match(/[\p{L}\p{M}][\p{L}\p{M}'’-]*/gu) ?? [];
  // Units of one letter are known everywhere: `{h}h {m}m`.
  if (words.every(({ length }) => length === 1)) return true;
  if (words.every((word) => word === word.toUpperCase() && word.length <= 5 && word !== word.toLowerCase()))
    return true;
  return words.length === 1 && (words[0]?.length ?? 0) <= 3;
}

/** What stands around a word in a sentence or a list. */
const edges = /^["'“”«»([{]{1,5}|["'“”«»)\]},;:!?]{1,5}$/g;
/** Whether no part of a text between white space or commas is a word of a language. */
function isForPrograms(text: string): boolean {
  const parts = text.split(/[\s,]+/).flatMap((part) => part.replace(edges, "") || []);
  return (
    parts.some((part) => codeSign.test(part) || innerCapital.test(part)) &&
    parts.every(
      (part) =>
        codeSign.test(part) ||
        innerCapital.test(part) ||
        /^[^\p{L}]*$/u.test(part) ||
        /^[\p{Lu}\d]{2,5}$/u.test(part),
    )
  );
}

/** An address, a setting, a name with an underscore or in several parts: `ou=crew,dc=example`, `quay.example.com`, `us-east-1`. */
const codeSign =
  /:\/\/|^www\.|[\w)\]][=_@\\][\w([]|[a-z0-9]\.[a-z0-9][\w-]{0,60}(?:\.|\/|:|$)|[a-z0-9]:[a-z0-9]{1,60}:[a-z0-9]|^[a-z]{1,20}(?:-[a-z]{1,20}){0,9}-\d[\w-]{0,20}$/;
/** A name that no rule of spelling makes: `vCore`, `PhoeNix`, `iOS`. */
const innerCapital = /^\p{L}{0,20}\p{Ll}\p{Lu}[\p{L}\d]{0,40}$/u;
