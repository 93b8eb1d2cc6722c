import { groupBy } from "../../core/text/group-by.js";
import { wrapped } from "./wrap.js";
import type { Finding, Severity } from "../../core/lint/finding.js";
import { onOneLine } from "../../output/safe-text.js";
import { excerpt } from "./excerpt.js";
import { counted, grouped, type Style } from "./style.js";

/** How many findings of one rule in one file are shown one by one. */
const mostAlike = 5;

/** What findings are grouped by: what is wrong, or where. */
export type FindingOrder = "rule" | "file";

/** What a person sees findings with. */
export interface FindingsView {
  lineOf(file: string, line: number): string;
  readonly style: Style;
  readonly width: number;
  /** Whether each is shown, however many are alike. */
  readonly verbose: boolean;
  readonly order: FindingOrder;
  /** What a rule is about, in a sentence. */
  summaryOf?(rule: string): string | undefined;
}

/** Findings for a person, each with its line and place, what is wrong and what to do. */
export function renderFindings(findings: readonly Finding[], view: FindingsView): string {
  const lines = view.order === "file" ? byFile(findings, view) : byRule(findings, view);
  return lines.join("\n") + (lines.length > 0 ? "\n" : "");
}

/** In the order of files: what is to be done in each. */
function byFile(findings: readonly Finding[], view: FindingsView): string[] {
  const { style, verbose } = view;
  const lines: string[] = [];
  for (const [file, group] of groupBy(findings, ({ file }) => file)) {
    lines.push(style.bold(style.underline(onOneLine(file))));
    const seen = new Map<string, number>();
    for (const finding of group) {
      const before = seen.get(finding.rule) ?? 0;
      seen.set(finding.rule, before + 1);
      if (before < mostAlike || verbose) lines.push(...renderFinding(finding, view));
    }
    for (const [rule, count] of seen) {
      if (count > mostAlike && !verbose)
        lines.push(
          style.dim(
            `  … and ${counted(count - mostAlike, "more finding")} of ${rule} (--verbose shows them)`,
          ),
          "",
        );
    }
  }
  return lines;
}

const severities: readonly Severity[] = ["error", "warning", "info"];

/** Errors first, and what is wrong in the same way together: how much of it each locale has, and three examples. */
function byRule(findings: readonly Finding[], view: FindingsView): string[] {
  const { style, verbose, summaryOf } = view;
  const lines: string[] = [];
  for (const severity of severities) {
    const own = findings.filter((finding) => finding.severity === severity);
    for (const group of groupBy(own, ({ rule, messageId }) => `${rule} ${messageId}`).values()) {
      const [first] = group;
      if (!first) continue;
      if (group.length <= mostAlike || verbose) {
        for (const finding of group) lines.push(...renderFinding(finding, view));
        continue;
      }
      const paint = paintOf(severity, style);
      const summary = summaryOf?.(first.rule);
      lines.push(
        `  ${paint(severity.padEnd(7))} ${style.bold(`${grouped(group.length)} × ${first.rule}`)}${summary === undefined ? "" : `  ${summary}`}`,
        ...localesLine(group, style),
        "",
      );
      for (const finding of examplesOf(group)) lines.push(...renderFinding(finding, view));
      lines.push(
        style.dim(
          `  … and ${grouped(group.length - shownOfAlike)} more (--rule ${first.rule} --verbose shows them)`,
        ),
        "",
      );
    }
  }
  return lines;
}

/** How many examples stand for findings that are alike. */
const shownOfAlike = 3;
/** How many locales are named with their counts. */
const mostLocales = 8;

/** Some of the findings, of as many locales as can be. */
function examplesOf(group: readonly Finding[]): readonly Finding[] {
  const ofLocales = [...groupBy(group, ({ locale }) => locale).values()].flatMap(([first]) => first ?? []);
  const chosen = ofLocales.slice(0, shownOfAlike);
  for (const finding of group) {
    if (chosen.length >= shownOfAlike) break;
    if (!chosen.includes(finding)) chosen.push(finding);
  }
  return chosen;
}

function localesLine(group: readonly Finding[], style: Style): string[] {
  const counts = [...groupBy(group, ({ locale }) => locale)]
    .flatMap(([locale, { length }]) => (locale === undefined ? [] : [{ locale, length }]))
    .sort((a, b) => b.length - a.length || (a.locale < b.locale ? -1 : 1));
  if (counts.length === 0) return [];
  const shown = counts.slice(0, mostLocales).map(({ locale, length }) => `${locale} ${grouped(length)}`);
  const rest = counts.length - shown.length;
  return [
    `          ${style.dim(shown.join(", ") + (rest > 0 ? ` and ${counted(rest, "more locale")}` : ""))}`,
  ];
}

function paintOf(severity: Severity, style: Style) {
  return { error: style.red, warning: style.yellow, info: style.cyan }[severity];
}

/** One line that counts findings by severity. */
export function countFindings(findings: readonly Finding[], style: Style): string {
  if (findings.length === 0) return style.green("✓ no findings");
  const count = (severity: Severity) => findings.filter((finding) => finding.severity === severity).length;
  const parts = [
    count("error") > 0 ? style.red(counted(count("error"), "error")) : "",
    count("warning") > 0 ? style.yellow(counted(count("warning"), "warning")) : "",
    count("info") > 0 ? style.cyan(`${count("info")} info`) : "",
  ];
  const files = new Set(findings.map(({ file }) => file)).size;
  return `${parts.filter(Boolean).join(", ")} in ${counted(files, "file")}`;
}

function renderFinding(finding: Finding, { lineOf, style, width, order }: FindingsView): string[] {
  const paint = paintOf(finding.severity, style);
  const about = onOneLine([finding.locale, finding.key].filter((part) => part !== undefined).join(" · "));
  const place = order === "file" ? "" : onOneLine(finding.file);
  const head = `  ${paint(finding.severity.padEnd(7))} ${wrapped(finding.message, width, 10)}`;
  const source = lineOf(finding.file, finding.line);
  return [
    head,
    ...(source.trim() === "" ? [] : excerpt(source, finding, width, style, paint)),
    `         ${style.green("→")} ${wrapped(finding.remedy, width, 11)}`,
    `         ${style.dim(`${finding.rule}  ${place === "" ? "" : `${place}:`}${finding.line}:${finding.column}${about === "" ? "" : `  ${about}`}`)}`,
    "",
  ];
}
