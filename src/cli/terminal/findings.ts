import { groupBy } from "../../core/text/group-by.js";
import type { Finding, Severity } from "../../core/lint/finding.js";
import { onOneLine } from "../../output/safe-text.js";
import { displayWidth } from "../../core/text/width.js";
import { excerpt } from "./excerpt.js";
import { counted, type Style } from "./style.js";

/** How many findings of one rule in one file are shown one by one. */
const mostAlike = 5;

/** Findings for a person: grouped by file, each with its line and place, what is wrong and what to do. */
export function renderFindings(
  findings: readonly Finding[],
  lineOf: (file: string, line: number) => string,
  style: Style,
  width: number,
  verbose: boolean,
): string {
  const lines: string[] = [];
  for (const [file, group] of groupBy(findings, ({ file }) => file)) {
    lines.push(style.bold(style.underline(onOneLine(file))));
    const seen = new Map<string, number>();
    for (const finding of group) {
      const before = seen.get(finding.rule) ?? 0;
      seen.set(finding.rule, before + 1);
      if (before < mostAlike || verbose) lines.push(...renderFinding(finding, lineOf, style, width));
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
  return lines.join("\n") + (lines.length > 0 ? "\n" : "");
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

function renderFinding(
  finding: Finding,
  lineOf: (file: string, line: number) => string,
  style: Style,
  width: number,
): string[] {
  const paint = { error: style.red, warning: style.yellow, info: style.cyan }[finding.severity];
  const about = onOneLine([finding.locale, finding.key].filter((part) => part !== undefined).join(" · "));
  const head = `  ${paint(finding.severity.padEnd(7))} ${wrapped(finding.message, width, 10)}`;
  const source = lineOf(finding.file, finding.line);
  return [
    head,
    ...(source.trim() === "" ? [] : excerpt(source, finding, width, style, paint)),
    `         ${style.green("→")} ${wrapped(finding.remedy, width, 11)}`,
    `         ${style.dim(`${finding.rule}  ${finding.line}:${finding.column}${about === "" ? "" : `  ${about}`}`)}`,
    "",
  ];
}

/** A finding that quotes a whole page is cut after so many code units. */
const longestWords = 1_000;

/** Words on as many lines as the width needs, the later ones indented. */
function wrapped(text: string, width: number, indent: number): string {
  const room = Math.max(width - indent, 30);
  const lines: string[] = [];
  const shown = text.length > longestWords ? `${text.slice(0, longestWords)}…` : text;
  for (const word of onOneLine(shown).split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && displayWidth(`${last} ${word}`) <= room)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.join(`\n${" ".repeat(indent)}`);
}
