import type { Range } from "../text/span.js";

/** How much a finding matters: `error` breaks what a user sees, `warning` probably does, `info` is taste. */
export type Severity = "error" | "warning" | "info";

/** A repair of a finding's entry or catalog. */
export type Fix =
  /** The entry's text as it should be. */
  | { readonly text: string }
  /** The entry goes. As its text goes with it, that is done only where somebody asks for the rule by name. */
  | { readonly remove: true }
  /** Some keys go to where the book's order has them. */
  | { readonly move: readonly string[] };

/** One thing that a check found: what, where, and what to do. */
export interface Finding extends Range {
  readonly rule: string;
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
