import type { Range, Span } from "../text/span.js";
import type { WordingData } from "../text/wording.js";

/** How much a finding matters: `error` breaks what a user sees, `warning` probably does, `info` is taste. */
export type Severity = "error" | "warning" | "info";

/** A repair of a finding's entry or catalog. */
export type Fix =
  /** The entry's text as it should be, and what of it changes: a range of the message, and the text for its place. */
  | { readonly text: string; readonly span: Span; readonly replacement: string }
  /** The entry goes. As its text goes with it, that is done only where somebody asks for the rule by name. */
  | { readonly remove: true }
  /** Some keys go to where the book's order has them. */
  | { readonly move: readonly string[] };

/** One thing that a check found: what, where, and what to do. */
export interface Finding extends Range {
  readonly rule: string;
  /** Which of the rule's messages it is; stays the same when the words change. */
  readonly messageId: string;
  /** The values in the message, by name. */
  readonly data: WordingData;
  readonly severity: Severity;
  readonly message: string;
  readonly remedy: string;
  readonly file: string;
  readonly book: string;
  readonly locale?: string;
  readonly namespace?: string;
  readonly key?: string;
  readonly fix?: Fix;
}
