import { unifiedDiff } from "../../core/plan/diff.js";
import { groupBy } from "../../core/text/group-by.js";
import { changeKind, type Plan, type PlanNote } from "../../core/plan/plan.js";
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
    else for (const line of diff) lines.push(paintDiff(line, style));
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

function paintDiff(line: string, style: Style): string {
  if (line.startsWith("+")) return style.green(line);
  if (line.startsWith("-")) return style.red(line);
  return line.startsWith("@@") ? style.cyan(line) : style.dim(line);
}

/** “keys added” for one: “key added”. */
function singular(what: string): string {
  return what.replace(/^(\w+?)s\b/, "$1");
}
