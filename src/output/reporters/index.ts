import { junit } from "./junit.js";
import { lines } from "./lines.js";
import { markdown } from "./markdown.js";
import type { FindingsReport, Reporter } from "./reporter.js";
import { sarif } from "./sarif.js";

/** Every form of a report besides text and this program's own JSON, by its name. */
export const reporters = { sarif, junit, markdown, lines } as const satisfies Readonly<
  Record<string, Reporter>
>;

export type ReportForm = keyof typeof reporters;
export const reportForms = Object.keys(reporters) as readonly ReportForm[];

/** Findings as a document in one of the forms. */
export function reportFindings(
  form: ReportForm,
  { findings, rules, version, edits = new Map() }: Omit<FindingsReport, "edits"> & Partial<FindingsReport>,
): string {
  return reporters[form].report({ findings, rules, version, edits });
}

/** Whether a form holds the edits that repair findings. */
export function showsEdits(form: ReportForm): boolean {
  const { showsEdits: shows = false }: Reporter = reporters[form];
  return shows;
}
