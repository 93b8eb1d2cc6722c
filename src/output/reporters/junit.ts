import type { Finding } from "../../core/lint/finding.js";
import { safeText } from "../safe-text.js";
import type { FindingsReport, Reporter } from "./reporter.js";

/** JUnit's XML: a suite for each file, a failure for each finding of level error or warning. */
export const junit: Reporter = { report };

function report({ findings }: FindingsReport): string {
  const files = [...new Set(findings.map(({ file }) => file))];
  const counted = (list: readonly Finding[]) => list.filter(({ severity }) => severity !== "info").length;
  const suites = files.map((file) => {
    const own = findings.filter((finding) => finding.file === file);
    const cases = own.map(({ rule, severity, message, remedy, line, column, key, locale }) => {
      const name = `${rule} ${line}:${column}${key === undefined ? "" : ` ${[locale, key].filter(Boolean).join(" ")}`}`;
      const body = escapeXml(`${file}:${line}:${column} ${message}\n→ ${remedy}`);
      return severity === "info"
        ? `    <testcase name="${escapeXml(name)}" classname="${escapeXml(file)}"><system-out>${body}</system-out></testcase>`
        : `    <testcase name="${escapeXml(name)}" classname="${escapeXml(file)}"><failure type="${severity}" message="${escapeXml(message)}">${body}</failure></testcase>`;
    });
    return `  <testsuite name="${escapeXml(file)}" tests="${own.length}" failures="${counted(own)}" errors="0">\n${cases.join("\n")}\n  </testsuite>`;
  });
  const empty = `  <testsuite name="fond lint" tests="1" failures="0" errors="0">\n    <testcase name="no findings" classname="fond lint"/>\n  </testsuite>`;
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites name="fond lint" tests="${Math.max(findings.length, 1)}" failures="${counted(findings)}">\n${suites.length > 0 ? suites.join("\n") : empty}\n</testsuites>\n`;
}

function escapeXml(text: string): string {
  const named: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
  return (
    safeText(text)
      // Characters that XML 1.0 (section 2.2) cannot hold, not even as references.
      .replace(/[\ufffe\uffff]|\p{Cs}/gu, "\ufffd")
      .replace(/[&<>"]/g, (sign) => named[sign] ?? sign)
      .replace(/\n/g, "&#10;")
  );
}
