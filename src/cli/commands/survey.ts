import { foldersTable, kindOfRole } from "../terminal/folders.js";
import { defineCommand } from "../command.js";
import { notices } from "../../core/message/notices.js";
import { baselineChanges, beyondBaseline, readBaseline } from "../../core/ledger/code-baseline.js";
import { makePlan } from "../../core/plan/plan.js";
import { groupBy } from "../../core/text/group-by.js";
import { explainProject, surveyProject, type SurveyResult } from "../../core/project/survey-project.js";
import type { Project, Scope } from "../../core/project/project.js";
import { prepareWidths } from "../../core/text/width.js";
import type { ReportedLiteral } from "../../core/survey/survey.js";
import { filesWithoutReader, type UnreadSource } from "../../core/source/book-code.js";
import { codeReadingFor } from "../code-reading.js";
import { explanationJson, sumCounts, surveyJson } from "../../output/json.js";
import { onOneLine } from "../../output/safe-text.js";
import {
  changesOf,
  lineReader,
  openOrAssume,
  openOrFail,
  relativePaths,
  scopeOf,
  settlePlan,
  type ChangeOptions,
  type CommandContext,
  withChangeOptions,
} from "../context.js";
import type { ChangedLines } from "../../disk/git.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { excerpt } from "../terminal/excerpt.js";
import { counted } from "../terminal/style.js";

export interface SurveyCommandOptions extends ChangeOptions {
  readonly all?: boolean;
  readonly everything?: boolean;
  readonly cache: boolean;
  readonly explain?: string;
  readonly check?: boolean;
  readonly baseline?: boolean;
  readonly write?: boolean;
}

const say = notices("cli/survey", {
  "no-line": {
    message: '"{value}" is not a place',
    remedy: "give a file and a line, for example web/fares.tsx:12",
  },
  "no-string": {
    message: "no string at {place}",
    remedy: 'check the line, and that the file is matched by a book\'s "code"',
  },
  "write-alone": {
    message: "--write writes nothing without --baseline",
    remedy: "add --baseline, or run `fond extract --write` to move the text",
  },
  "part-of-baseline": {
    message: "a baseline holds the text of the whole project",
    remedy: "run it without paths, --book, --since and --staged",
  },
});

/** Finds hard-coded text in code. */
export async function runSurvey(
  context: CommandContext,
  paths: readonly string[],
  options: SurveyCommandOptions,
): Promise<ExitStatus> {
  const { project } = options.baseline ? { project: openOrFail(context) } : await openOrAssume(context);
  if (options.explain !== undefined) return explain(context, project, options.explain);
  if (options.write && !options.baseline) throw usageError(say("write-alone", {}));
  const isPart = paths.length > 0 || context.options.book || options.since !== undefined || options.staged;
  if (options.baseline && isPart) throw usageError(say("part-of-baseline", {}));
  const all = options.all ?? false;
  const code = codeReadingFor(context, project, "survey", options.cache);
  const changes = changesOf(context, options);
  // What changed is counted whole, and narrowed to what is to be shown afterwards.
  const reading = { all: all || changes !== undefined, everything: options.everything ?? false };
  const scope = scopeOf(context, paths);
  const { path = () => true } = scope;
  const narrowed = changes
    ? { ...scope, path: (file: string) => path(file) && changes.hasFile(file) }
    : scope;
  const whole = await surveyProject(project, narrowed, {
    ...reading,
    ...code.survey,
  });
  code.end();
  const result = changes ? inChanges(whole, changes, all) : whole;
  sayWhatWasNotRead(context, result.unread);
  sayWhatHasNoReader(context, project, scope);
  for (const { file, problem } of result.files)
    if (problem)
      context.say(`${file}:${problem.line}:${problem.column}: ${problem.message}\n  → ${problem.remedy}`);
  const status = result.unread.length > 0 ? exitStatus.trouble : exitStatus.inOrder;
  if (options.check || options.baseline) {
    const settled = settleBaseline(context, project, result, options);
    return status === exitStatus.inOrder ? settled : status;
  }
  if (context.options.format === "json") context.print(surveyJson(result));
  else {
    await prepareWidths();
    context.print(render(context, result));
  }
  return status;
}

/** Compares the text in code with the baseline, or records it as the new one. */
function settleBaseline(
  context: CommandContext,
  project: Project,
  result: SurveyResult,
  options: SurveyCommandOptions,
): ExitStatus {
  const baseline = readBaseline(project.files, project.config.ledger);
  for (const { file, line, detail } of baseline.problems) context.say(`${file}:${line}: ${detail}`);
  const literals = result.files.flatMap((file) => file.literals);
  if (options.baseline) {
    const left = literals.filter(({ verdict, waived }) => verdict === "text" && waived === undefined).length;
    const plan = makePlan(baselineChanges(baseline, literals), { "texts left in code": left });
    return settlePlan(context, "survey", plan, options);
  }
  const found = beyondBaseline(baseline, literals);
  if (context.options.format === "json") context.print(surveyJson(result, found));
  else {
    const { style } = context;
    const known = baseline.counts.size > 0 ? " that the baseline does not have" : "";
    const partly = result.files.filter(({ problem }) => problem !== undefined).length;
    const closing =
      found.length === 0
        ? partly > 0
          ? style.yellow(
              `No text in what could be read${known}; ${counted(partly, "file was", "files were")} not read whole.`,
            )
          : style.green(`No text in code${known}.`)
        : style.bold(
            `${counted(found.length, "text")} in code${known}. Move them with \`fond extract\`, or waive them with a reason.`,
          );
    context.print(`${listed(context, found)}${closing}\n`);
  }
  return found.length > 0 ? exitStatus.toSettle : exitStatus.inOrder;
}

/** Prints everything that speaks for and against the strings of a line. */
async function explain(context: CommandContext, project: Project, place: string): Promise<ExitStatus> {
  const [, path = "", line = ""] = /^(.+?):(\d+)(?::\d+)?$/.exec(place) ?? [];
  if (path === "") throw usageError(say("no-line", { value: place }));
  const [file = path] = relativePaths(context, [path]);
  const found = await explainProject(project, file, Number(line), scopeOf(context));
  if (found.length === 0) throw usageError(say("no-string", { place }));
  if (context.options.format === "json") {
    context.print(explanationJson(found));
    return exitStatus.inOrder;
  }
  const { style, width } = context;
  const lineOf = lineReader(context);
  await prepareWidths();
  const lines = found.flatMap((literal) => [
    `${style.bold(onOneLine(shorten(literal, width - 20)))}`,
    ...excerpt(lineOf(file, literal.line), literal, width, style, paintOf(style, literal)),
    `  ${confidenceOf(literal)}, ${Math.round(literal.score * 100)} % likely to be text`,
    ...[...literal.evidence]
      .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
      .map(({ weight, reason }) => {
        const sign = weight >= 0 ? style.green("for    ") : style.red("against");
        return `    ${sign} ${Math.abs(weight).toFixed(1).padStart(4)}  ${reason}`;
      }),
    ...(literal.remarks ?? []).map((remark) => `    ${style.yellow("!")} ${remark}`),
    ...(literal.waived === undefined ? [] : [`    waived: ${literal.waived || "no reason given"}`]),
    "",
  ]);
  context.print(`${lines.join("\n")}`);
  return exitStatus.inOrder;
}

/** What of a survey stands in changed lines; what is code or waived is counted, and kept where all was asked for. */
function inChanges(result: SurveyResult, changes: ChangedLines, all: boolean): SurveyResult {
  const files = result.files.map((file) => {
    const changed = file.literals.filter(({ line, endLine }) => changes.has(file.file, line, endLine));
    const counts = { text: 0, unclear: 0, code: 0, waived: 0 };
    for (const { verdict, waived } of changed) counts[waived === undefined ? verdict : "waived"]++;
    const literals = changed.filter(
      ({ verdict, waived }) => all || (verdict !== "code" && waived === undefined),
    );
    return { ...file, literals, counts };
  });
  return { ...result, files };
}

/** Warns of files that the code patterns match and that nothing reads. */
export function sayWhatHasNoReader(context: CommandContext, project: Project, scope: Scope): void {
  for (const book of project.config.books) {
    if (scope.books && !scope.books.includes(book.name)) continue;
    const counts = filesWithoutReader(project.files, book, scope.path);
    const total = [...counts.values()].reduce((sum, count) => sum + count, 0);
    if (total === 0) continue;
    const kinds = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
    const shown = kinds.slice(0, 5).map(([ending, count]) => `${ending} (${count})`);
    context.say(
      `${book.name}: ${counted(total, "file")} matched by "code" skipped (no reader for such files): ${shown.join(", ")}${kinds.length > shown.length ? ", …" : ""}`,
    );
  }
}

/** Warns of code that could not be read. */
export function sayWhatWasNotRead(context: CommandContext, unread: readonly UnreadSource[]): void {
  for (const { file, detail } of unread)
    context.say(`${file}: not read: ${detail}\n  → check that it is UTF-8 text and can be opened`);
}

function render(context: CommandContext, result: SurveyResult): string {
  const shown = result.files.flatMap(({ literals }) => literals);
  const body = context.options.verbose ? excerpts(context, shown) : listed(context, shown);
  return `${summary(context, result, shown)}${body}${closing(context, result, shown)}`;
}

/** How much was found, where, and what was left out. */
function summary({ style }: CommandContext, result: SurveyResult, shown: readonly ReportedLiteral[]): string {
  const left = Object.entries(result.leftOut).sort(([, a], [, b]) => b - a);
  const skipped =
    left.length === 0
      ? ""
      : `${style.bold("Left out")}  ${left.map(([kind, count]) => `${kind} (${counted(count, "file")})`).join(", ")}; --everything reads them\n\n`;
  const found = shown.filter(({ waived, verdict }) => waived === undefined && verdict !== "code");
  if (found.length === 0) return skipped;
  const lines = foldersTable(
    found,
    [
      { head: "sure", counts: ({ isSure }) => isSure === true },
      { head: "likely", counts: ({ verdict, isSure }) => verdict === "text" && !isSure },
      { head: "unclear", counts: ({ verdict }) => verdict === "unclear" },
    ],
    style,
  );
  const kinds = [...groupBy(found, ({ context }) => kindOfRole(context.role))].map(
    ([kind, { length }]) => `${length} ${kind}`,
  );
  return `${lines.join("\n")}\n${style.dim(kinds.join(", "))}\n\n${skipped}`;
}

function countsOf(literals: readonly ReportedLiteral[]): { sure: number; likely: number; unclear: number } {
  const counts = { sure: 0, likely: 0, unclear: 0 };
  for (const literal of literals)
    if (literal.verdict !== "code")
      counts[literal.verdict === "unclear" ? "unclear" : literal.isSure ? "sure" : "likely"]++;
  return counts;
}

function confidenceOf(literal: ReportedLiteral): string {
  return literal.verdict === "text" ? (literal.isSure ? "surely text" : "likely text") : literal.verdict;
}

/** A line for each literal, by file; of what is not sure, why. */
function listed(context: CommandContext, shown: readonly ReportedLiteral[]): string {
  const { style, width } = context;
  const lines: string[] = [];
  let file = "";
  for (const literal of shown) {
    if (literal.file !== file) {
      if (file !== "") lines.push("");
      file = literal.file;
      lines.push(style.bold(style.underline(onOneLine(file))));
    }
    const place = `${literal.line}`.padStart(6);
    const doubt =
      literal.verdict === "text" ? (literal.isSure ? " " : "~") : literal.verdict === "unclear" ? "?" : "-";
    const reason = literal.isSure ? "" : `  ${literal.reason}`;
    const waived = literal.waived === undefined ? "" : `  waived: ${literal.waived || "no reason given"}`;
    const room = Math.max(width - 10 - Math.min(reason.length, 60), 30);
    const remarks = (literal.remarks ?? []).map((remark) => `  ${style.yellow("!")} ${style.dim(remark)}`);
    lines.push(
      `${place} ${paintOf(style, literal)(doubt)} ${onOneLine(shorten(literal, room))}${style.dim(reason + waived)}${remarks.join("")}`,
    );
  }
  return lines.length === 0 ? "" : `${lines.join("\n")}\n\n`;
}

function paintOf(style: CommandContext["style"], { verdict }: ReportedLiteral): (text: string) => string {
  return { text: style.green, unclear: style.yellow, code: style.dim }[verdict];
}

/** Each literal with its line of code. */
function excerpts(context: CommandContext, shown: readonly ReportedLiteral[]): string {
  const { style, width } = context;
  const lineOf = lineReader(context);
  const lines: string[] = [];
  let file = "";
  for (const literal of shown) {
    if (literal.file !== file) {
      file = literal.file;
      lines.push(style.bold(style.underline(onOneLine(file))));
    }
    const paint = paintOf(style, literal);
    const waived =
      literal.waived === undefined ? "" : style.dim(` · waived: ${literal.waived || "no reason given"}`);
    lines.push(`  ${paint(literal.verdict.padEnd(7))} ${shorten(literal, width - 12)}${waived}`);
    lines.push(...excerpt(lineOf(literal.file, literal.line), literal, width, style, paint));
    lines.push(`         ${style.dim(`${literal.line}:${literal.column}  ${literal.reason}`)}`);
    for (const remark of literal.remarks ?? [])
      if (!literal.reason.includes(remark)) lines.push(`         ${style.yellow("!")} ${remark}`);
    lines.push("");
  }
  return lines.length === 0 ? "" : `${lines.join("\n")}\n`;
}

function closing({ style }: CommandContext, result: SurveyResult, shown: readonly ReportedLiteral[]): string {
  const { text, unclear, code, waived } = sumCounts(result);
  const { sure } = countsOf(shown.filter((literal) => literal.waived === undefined));
  const parts = [
    `${text} text${text > 0 ? ` (${sure} sure)` : ""}`,
    `${unclear} unclear`,
    `${code} code`,
    ...(waived > 0 ? [`${waived} waived`] : []),
  ];
  const next = shown.some(({ verdict }) => verdict !== "code")
    ? style.dim(
        "~ likely, ? unclear. `fond survey --explain FILE:LINE` shows why; `fond extract` moves what is text.\n",
      )
    : "";
  return `${next}${style.bold(`${parts.join(", ")} in ${counted(result.files.length, "file")}.`)}\n`;
}

function shorten(literal: ReportedLiteral, room: number): string {
  const text = literal.message.replace(/\s+/g, " ");
  return text.length > room ? `${text.slice(0, Math.max(room - 1, 1))}…` : text;
}

/** `fond survey` */
export const surveyCommand = defineCommand<SurveyCommandOptions>({
  name: "survey",
  summary: "Find hard-coded UI text in code, and say why each string counts as text",
  heeds: { json: true, books: true, jobs: true },
  examples: [
    ["survey web/pages", "what text is in these files"],
    ["survey --explain web/pages/search.tsx:12", "why a string counts as text"],
  ],
  declare: (command) =>
    withChangeOptions(command)
      .argument("[paths...]", "files or folders to survey")
      .option("--all", "also list the strings that count as code")
      .option("--everything", "also read tests, stories, libraries, generated and minified files")
      .option("--explain <file:line>", "show all evidence for and against the strings of a line")
      .option(
        "--check",
        "list text that is neither waived nor in the baseline, and exit with status 1 if there is any",
      )
      .option("--baseline", "plan to record the text in code today, so that --check only reports more")
      .option("--write", "with --baseline: write it")
      .option("--no-cache", "judge every file again"),
  run: runSurvey,
});
