import { unifiedDiff } from "../../core/plan/diff.js";
import { groupBy } from "../../core/text/group-by.js";
import { changeKind, type Plan, type PlanNote } from "../../core/plan/plan.js";
import { wordChanges } from "../../core/plan/words.js";
import { onOneLine } from "../../output/safe-text.js";
import { counted, grouped, type Style } from "./style.js";

/** A plan for a person: each file's diff, what is left alone and why, and the sum of it. */
export function renderPlan(plan: Plan, style: Style, verbose: boolean): string {
  const lines: string[] = [];
  for (const change of plan.changes) {
    const kind = { create: "new file", change: "change", remove: "remove" }[changeKind(change)];
    lines.push(`${style.bold(style.underline(onOneLine(change.file)))} ${style.dim(`(${kind})`)}`);
    const diff = unifiedDiff(change).split("\n").slice(2);
    if (change.isRecord && !verbose) lines.push(...countDiff(diff, style));
    else lines.push(...paintDiff(diff, style));
  }
  lines.push(...renderNotes(plan, style, verbose));
  return lines.join("\n") + (lines.length > 0 ? "\n" : "");
}

/** The files of a plan without their diffs, for when it is carried out. */
export function listPlan(plan: Plan, style: Style): string {
  const mark = { create: style.green("new    "), change: "change ", remove: style.red("remove ") };
  const lines = plan.changes.map((change) => `  ${mark[changeKind(change)]} ${onOneLine(change.file)}`);
  return (
    [...lines, ...(plan.notes.length > 0 ? [""] : []), ...renderNotes(plan, style, false)].join("\n") + "\n"
  );
}

/** The sum of a plan in one line: “12 keys added, 2 files changed”. */
export function sumUp(plan: Plan): string {
  const counts = Object.entries(plan.summary).map(
    ([what, count]) => `${grouped(count)} ${count === 1 ? singular(what) : what}`,
  );
  const files =
    plan.changes.length === 0 ? "no file to change" : `${counted(plan.changes.length, "file")} to change`;
  return [...counts, files].join(", ");
}

/** Of notes with the same reason more than this are told together, and so many of them are shown. */
const mostAlike = 5;
const shownOfAlike = 3;

function renderNotes(plan: Plan, style: Style, verbose: boolean): string[] {
  if (plan.notes.length === 0) return [];
  const lines = [style.bold("Skipped")];
  const place = ({ file, line, column }: PlanNote) =>
    style.yellow(onOneLine(line === undefined ? file : `${file}:${line}:${column ?? 1}`));
  const many: PlanNote[][] = [];
  for (const alike of groupBy(plan.notes, ({ messageId, remedy }) => `${messageId}\n${remedy}`).values()) {
    const [first] = alike;
    if (!first) continue;
    if (alike.length > mostAlike && !verbose && first.data["reason"] !== undefined) {
      many.push([...alike]);
      continue;
    }
    for (const note of alike)
      lines.push(
        `  ${place(note)}  ${onOneLine(note.message)}`,
        `    ${style.green("→")} ${onOneLine(note.remedy)}`,
      );
  }
  for (const alike of many.sort((a, b) => b.length - a.length)) {
    const [first] = alike;
    if (!first) continue;
    lines.push(
      `  ${style.bold(String(alike.length))} not extracted: ${onOneLine(String(first.data["reason"]))}`,
      `    ${style.green("→")} ${onOneLine(first.remedy)}`,
      ...alike
        .slice(0, shownOfAlike)
        .map((note) => `    ${place(note)}  ${onOneLine(String(note.data["text"] ?? ""))}`),
      style.dim(`    … and ${alike.length - shownOfAlike} more (--verbose shows them)`),
    );
  }
  return [...lines, ""];
}

/** How much a diff changes, for files that nobody reads line by line. */
function countDiff(diff: readonly string[], style: Style): string[] {
  const count = (mark: string) => diff.filter((line) => line.startsWith(mark)).length;
  return [
    `  ${style.green(`+${count("+")}`)} ${style.red(`-${count("-")}`)} ${style.dim("lines (--verbose shows them)")}`,
    "",
  ];
}

/** Lines of a diff in color; where one line took another's place, the words that differ stand out. */
function paintDiff(diff: readonly string[], style: Style): string[] {
  const painted: string[] = [];
  for (let at = 0; at < diff.length; at++) {
    const removed = runFrom(diff, at, "-");
    const added = runFrom(diff, at + removed.length, "+");
    if (removed.length > 0 && removed.length === added.length) {
      const pairs = removed.map((line, index) => paintPair(line, added[index] ?? "", style));
      painted.push(...pairs.map(([before]) => before), ...pairs.map(([, after]) => after));
      at += removed.length + added.length - 1;
    } else painted.push(paintLine(diff[at] ?? "", style));
  }
  return painted;
}

/** The lines from a place on that begin with a sign. */
function runFrom(diff: readonly string[], start: number, sign: string): readonly string[] {
  let end = start;
  while (end < diff.length && diff[end]?.startsWith(sign)) end++;
  return diff.slice(start, end);
}

function paintLine(line: string, style: Style): string {
  if (line.startsWith("+")) return style.green(line);
  if (line.startsWith("-")) return style.red(line);
  return line.startsWith("@@") ? style.cyan(line) : style.dim(line);
}

/** Longer lines are painted whole: nobody looks for a word in them. In UTF-16 code units. */
const longestCompared = 1000;

/** A line and what took its place. Lines that have little in common are painted whole. */
function paintPair(before: string, after: string, style: Style): readonly [string, string] {
  const whole = [style.red(before), style.green(after)] as const;
  if (before.length > longestCompared || after.length > longestCompared) return whole;
  const parts = wordChanges(before.slice(1), after.slice(1));
  const same = parts.reduce((sum, { kind, text }) => sum + (kind === "same" ? text.trim().length : 0), 0);
  if (same * 3 < Math.min(before.trim().length, after.trim().length)) return whole;
  const side = (sign: string, kind: "removed" | "added", paint: (text: string) => string) =>
    paint(sign) +
    parts
      .filter((part) => part.kind === "same" || part.kind === kind)
      .map((part) => (part.kind === "same" ? paint(part.text) : paint(style.inverse(part.text))))
      .join("");
  return [side("-", "removed", style.red), side("+", "added", style.green)];
}

/** “keys added” for one: “key added”. */
function singular(what: string): string {
  return what.replace(/^(\w+?)s\b/, "$1");
}
