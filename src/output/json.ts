import type { AuditFacts, AuditVerdict } from "../core/project/audit.js";
import type { ListedKey } from "../core/project/listing.js";
import { splitForms } from "../core/message/forms.js";
import type { ExtractPlan } from "../core/extract/extract.js";
import type { BookBalance } from "../core/ledger/balance.js";
import type { OutstandingText } from "../core/ledger/outstanding.js";
import type { LocaleAccount } from "../core/project/locales.js";
import type { TrendPoint } from "../core/project/trend.js";
import type { Rule } from "../core/lint/rule.js";
import type { Finding } from "../core/lint/finding.js";
import { unifiedDiff } from "../core/plan/diff.js";
import { changeKind, type Plan } from "../core/plan/plan.js";
import type { PreviewMessage } from "../core/project/preview.js";
import type { SurveyResult } from "../core/project/survey-project.js";
import type { ExplainedLiteral, ReportedLiteral, VerdictCounts } from "../core/survey/survey.js";
import { safeJson } from "./safe-text.js";

/** The version of the JSON documents: raised when something in them is renamed or removed. */
const version = 1;

/** One JSON document for a command's result, ending in a line feed. */
function documentFor(command: string, content: object): string {
  return safeJson(JSON.stringify({ command, version, ...content }, undefined, 2)) + "\n";
}

/** A survey: its literals, or those of them that matter, and counts of all; how many files were left out, by the reason. */
export function surveyJson(
  result: SurveyResult,
  literals: readonly ReportedLiteral[] = result.files.flatMap((file) => file.literals),
): string {
  return documentFor("survey", { literals, counts: sumCounts(result), leftOut: result.leftOut });
}

/** The strings of one line with all evidence. */
export function explanationJson(literals: readonly ExplainedLiteral[]): string {
  return documentFor("survey", {
    literals: literals.map(({ evidence, ...rest }) => ({ ...rest, evidence })),
  });
}

/** The counts of all files of a survey together. */
export function sumCounts(result: SurveyResult): VerdictCounts {
  const sum = { text: 0, unclear: 0, code: 0, waived: 0 };
  for (const { counts } of result.files)
    for (const verdict of ["text", "unclear", "code", "waived"] as const) sum[verdict] += counts[verdict];
  return sum;
}

/** Findings with their counts by severity. */
export function findingsJson(command: string, findings: readonly Finding[]): string {
  const counts = { error: 0, warning: 0, info: 0 };
  for (const { severity } of findings) counts[severity]++;
  return documentFor(command, { findings: findings.map(shownFinding), counts });
}

/** A finding without what only the program understands: the places of a fix in plural forms that are kept in several keys. */
function shownFinding(finding: Finding): object {
  const { fix } = finding;
  if (!fix || !("text" in fix) || !splitForms(fix.text)) return finding;
  const forms = Object.fromEntries(
    (splitForms(fix.text) ?? []).map(({ selector, text }) => [selector, text]),
  );
  return { ...finding, fix: { forms } };
}

export function balanceJson(books: readonly BookBalance[]): string {
  return documentFor("balance", {
    books: books.map(({ name, namespace, keys, locales }) => ({
      name,
      ...(namespace !== undefined && { namespace }),
      keys,
      locales,
    })),
  });
}

/** What translators still have to do. */
export function outstandingJson(texts: readonly OutstandingText[]): string {
  return documentFor("balance", { outstanding: texts });
}

/** How the share of each locale grew, by revision, the oldest first. */
export function trendJson(points: readonly TrendPoint[]): string {
  return documentFor("balance", { trend: points });
}

/** The locales of a project. */
export function localesJson(locales: readonly LocaleAccount[]): string {
  return documentFor("locale", { locales });
}

/** What users would read, by key and locale. */
export function previewJson(messages: readonly PreviewMessage[]): string {
  return documentFor("preview", { messages });
}

/** Keys with their texts in every locale. */
export function listJson(keys: readonly ListedKey[]): string {
  return documentFor("list", { keys });
}

/** What a rule is for. */
export function ruleJson({ id, level, summary, why, examples }: Rule): string {
  return documentFor("lint", { rule: { id, level, summary, why, examples } });
}

/** A plan: every file that it would change, as a unified diff, and what it leaves alone. */
export function planJson(command: string, plan: Plan | ExtractPlan): string {
  const edits = plan.changes.map((change) => ({
    file: change.file,
    kind: changeKind(change),
    diff: unifiedDiff(change),
  }));
  const extracted = "extracted" in plan ? { extracted: plan.extracted } : {};
  return documentFor(command, { edits, summary: plan.summary, notes: plan.notes, ...extracted });
}

/** The documents that were handed out. */
export function handoffJson(
  kind: string,
  files: readonly {
    readonly file: string;
    readonly locale: string;
    readonly texts: number;
    readonly words: number;
    readonly what: Readonly<Record<string, number>>;
  }[],
): string {
  return documentFor("handoff", { kind, files: files.map(({ what, ...file }) => ({ ...file, ...what })) });
}

/** All that is known of keys. */
export function traceJson(keys: readonly object[]): string {
  return documentFor("trace", { keys });
}

/** An audit, whole or a part of one: `facts` is what parts are joined by. */
export function auditJson(facts: AuditFacts, { ok, against, told }: AuditVerdict): string {
  const isPart = facts.part.of > 1;
  const plain = (reasons: AuditVerdict["against"]) =>
    reasons.map(({ messageId, data, message, remedy, locale, book }) => ({
      messageId,
      data,
      message,
      remedy,
      locale,
      book,
    }));
  return documentFor("audit", {
    ...(!isPart && { verdict: ok ? "ready" : "not ready", against: plain(against), told: plain(told) }),
    facts,
  });
}

/** The facts of an audit that `auditJson` wrote; undefined for anything else. */
export function readAuditJson(text: string): AuditFacts | undefined {
  try {
    const { command, version, facts } = JSON.parse(text) as {
      command?: string;
      version?: number;
      facts?: AuditFacts;
    };
    const isWhole =
      facts !== undefined &&
      typeof facts.policy === "string" &&
      Number.isInteger(facts.part.number) &&
      Array.isArray(facts.findings) &&
      Array.isArray(facts.books) &&
      Array.isArray(facts.literals) &&
      Number.isInteger(facts.uncounted) &&
      Array.isArray(facts.unread);
    return command === "audit" && version === 1 && isWhole ? facts : undefined;
  } catch {
    return undefined;
  }
}
