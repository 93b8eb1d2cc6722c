import type { Finding } from "../../core/lint/finding.js";
import type { FixEdit } from "../../core/project/lint-project.js";
import { digestOf } from "../../core/text/digest.js";
import { safeJson } from "../safe-text.js";
import type { FindingsReport, Reporter } from "./reporter.js";

const sarifLevels = { error: "error", warning: "warning", info: "note" } as const;

/**
 * SARIF 2.1.0 (OASIS). A fingerprint is made of rule, message id, key, locale and file, so that neither moved lines nor
 * better wording makes an old result a new one.
 */
export const sarif: Reporter = { showsEdits: true, report };

function report({ findings, rules, version, edits }: FindingsReport): string {
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
