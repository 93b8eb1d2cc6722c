import type { Range } from "../text/span.js";

/** How much a finding matters: `error` breaks what a user sees, `warning` probably does, `info` is taste. */
export type Severity = "error" | "warning" | "info";

/** A repair that is safe: the entry's text as it should be. */
export interface Fix {
  readonly text: string;
}

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
