import type { Finding } from "../../core/lint/finding.js";
import { onOneLine, safeText } from "../safe-text.js";
import type { FindingsReport, Reporter } from "./reporter.js";

/** A table for a merge request. */
export const markdown: Reporter = { report };

function report({ findings }: FindingsReport): string {
  if (findings.length === 0) return "### Fond Ledger\n\nNo findings.\n";
  const count = (severity: Finding["severity"]) => findings.filter((one) => one.severity === severity).length;
  // Everything that CommonMark (section 2.4) gives a meaning inside a line, and the mentions and references of code hosts.
  const cell = (text: string) =>
    safeText(onOneLine(text))
      .replace(/[\\|`*_<>[\]&~#!]/g, "\\$&")
      .replace(/@/g, "&#64;")
      .replace(/:\/\//g, ":&#47;&#47;")
      .replace(/\bwww\./gi, "www&#46;");
  const marks = { error: "🔴", warning: "🟡", info: "🔵" } as const;
  const rows = findings.map(
    ({ severity, file, line, locale, key, message, remedy, rule }) =>
      `| ${marks[severity]} | ${cell(`${file}:${line}`)} | ${cell([locale, key].filter(Boolean).join(" · "))} | ${cell(message)}<br>→ ${cell(remedy)} | ${cell(rule)} |`,
  );
  return `### Fond Ledger\n\n${count("error")} errors, ${count("warning")} warnings, ${count("info")} notes\n\n| | place | key | finding | rule |\n|---|---|---|---|---|\n${rows.join("\n")}\n`;
}
