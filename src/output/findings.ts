import type { Finding } from "../core/lint/finding.js";
import type { Rule } from "../core/lint/rule.js";
import type { FixEdit } from "../core/project/project.js";
import { digestOf } from "../core/text/digest.js";
import { onOneLine, safeJson, safeText } from "./safe-text.js";

/** The forms in which findings can be had besides text and this program's own JSON. */
export const reportForms = ["sarif", "junit", "markdown", "lines"] as const;
export type ReportForm = (typeof reportForms)[number];

/** Findings in one of the forms. `version` is this program's. */
export function reportFindings(
  form: ReportForm,
  findings: readonly Finding[],
  rules: readonly Rule[],
  version: string,
  edits: ReadonlyMap<Finding, FixEdit> = new Map(),
): string {
  switch (form) {
    case "sarif":
      return sarif(findings, rules, version, edits);
    case "junit":
      return junit(findings);
    case "markdown":
      return markdown(findings);
    case "lines":
      return findings
        .map(
          ({ file, line, column, severity, message, rule }) =>
            safeText(`${onOneLine(file)}:${line}:${column}: ${severity}: ${onOneLine(message)} [${rule}]`) +
            "\n",
        )
        .join("");
  }
}

const sarifLevels = { error: "error", warning: "warning", info: "note" } as const;

/**
 * SARIF 2.1.0 (OASIS). A fingerprint is made of rule, message id, key, locale and file, so that neither moved lines nor
 * better wording makes an old result a new one.
 */
function sarif(
  findings: readonly Finding[],
  rules: readonly Rule[],
  version: string,
  edits: ReadonlyMap<Finding, FixEdit>,
): string {
  const used = rules.filter(({ id }) => findings.some(({ rule }) => rule === id));
  const more = [...new Set(findings.map(({ rule }) => rule))].filter(
    (id) => !rules.some((rule) => rule.id === id),
  );
  const described = [
    ...used.map(({ id, level, summary, why }) => ({
      id,
      shortDescription: { text: summary },
      fullDescription: { text: why },
      defaultConfiguration: { level: sarifLevels[level] },
    })),
    ...more.map((id) => ({ id, shortDescription: { text: id } })),
  ];
  const seen = new Map<string, number>();
  const results = findings.map((finding) => {
    const {
      rule,
      messageId,
      severity,
      message,
      remedy,
      file,
      line,
      column,
      endLine,
      endColumn,
      book,
      locale,
      namespace,
      key,
    } = finding;
    const base = [rule, file, book, locale ?? "", namespace ?? "", key ?? "", messageId].join("\u0000");
    const count = (seen.get(base) ?? 0) + 1;
    seen.set(base, count);
    return {
      ruleId: rule,
      ruleIndex: described.findIndex(({ id }) => id === rule),
      level: sarifLevels[severity],
      message: { id: messageId, text: `${message}. ${remedy.charAt(0).toUpperCase()}${remedy.slice(1)}` },
      locations: [
        {
          physicalLocation: {
            artifactLocation: { uri: encodeURI(file), uriBaseId: "%SRCROOT%" },
            region: {
              startLine: line,
              startColumn: column,
              endLine,
              endColumn: Math.max(endColumn, endLine === line ? column : 1),
            },
          },
          ...(key !== undefined && {
            logicalLocations: [
              {
                name: key,
                fullyQualifiedName: [book, locale, namespace, key]
                  .filter((part) => part !== undefined)
                  .join("/"),
              },
            ],
          }),
        },
      ],
      ...fixesOf(finding, edits.get(finding)),
      partialFingerprints: { "finding/v2": digestOf(`${base}\u0000${count}`) },
    };
  });
  const log = {
    $schema: "https://json.schemastore.org/sarif-2.1.0.json",
    version: "2.1.0",
    runs: [
      {
        tool: { driver: { name: "Fond Ledger", version, rules: described } },
        columnKind: "utf16CodeUnits",
        results,
      },
    ],
  };
  return `${safeJson(JSON.stringify(log, undefined, 2))}\n`;
}

function fixesOf({ file, remedy }: Finding, edit: FixEdit | undefined) {
  if (!edit) return {};
  const { text, line, column, endLine, endColumn } = edit;
  return {
    fixes: [
      {
        description: { text: remedy },
        artifactChanges: [
          {
            artifactLocation: { uri: encodeURI(file), uriBaseId: "%SRCROOT%" },
            replacements: [
              {
                deletedRegion: { startLine: line, startColumn: column, endLine, endColumn },
                insertedContent: { text },
              },
            ],
          },
        ],
      },
    ],
  };
}

/** JUnit's XML: a suite for each file, a failure for each finding of level error or warning. */
function junit(findings: readonly Finding[]): string {
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

/** A table for a merge request. */
function markdown(findings: readonly Finding[]): string {
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
