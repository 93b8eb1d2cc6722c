import type { Finding } from "../../core/lint/finding.js";
import type { Rule } from "../../core/lint/rule.js";
import type { FixEdit } from "../../core/project/lint-project.js";

/** What a report is made of. */
export interface FindingsReport {
  readonly findings: readonly Finding[];
  readonly rules: readonly Rule[];
  /** The version of this program. */
  readonly version: string;
  /** The edits that repair findings, for reports that can hold them. */
  readonly edits: ReadonlyMap<Finding, FixEdit>;
}

/** A form in which findings are reported: from findings to a document, ending in a line feed. */
export interface Reporter {
  /** Whether the document holds the edits that repair findings, so that they have to be worked out. */
  readonly showsEdits?: boolean;
  report(report: FindingsReport): string;
}
