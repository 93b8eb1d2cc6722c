import { defineCommand } from "../command.js";
import { surveyProject, type Project, type Scope, type SurveyResult } from "../../core/project/project.js";
import { prepareWidths } from "../../core/text/width.js";
import type { ReportedLiteral } from "../../core/survey/survey.js";
import { filesWithoutReader, type UnreadSource } from "../../core/source/book-code.js";
import { diskSurveyCache } from "../../disk/survey-cache.js";
import { surveyWorkers } from "../../disk/survey-workers.js";
import { sumCounts, surveyJson } from "../../output/json.js";
import { onOneLine } from "../../output/safe-text.js";
import {
  changesOf,
  lineReader,
  openOrFail,
  scopeOf,
  type ChangeOptions,
  type CommandContext,
  withChangeOptions,
} from "../context.js";
import type { ChangedLines } from "../../disk/git.js";
import { exitStatus, type ExitStatus } from "../exit.js";
import { excerpt } from "../terminal/excerpt.js";
import { showProgress } from "../terminal/progress.js";
import { counted } from "../terminal/style.js";

export interface SurveyCommandOptions extends ChangeOptions {
  readonly all?: boolean;
  readonly cache: boolean;
}

/** Finds hard-coded text in code. */
export async function runSurvey(
  context: CommandContext,
  paths: readonly string[],
  options: SurveyCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const { cwd, quiet } = context.options;
  const all = options.all ?? false;
  const cache = options.cache ? diskSurveyCache(cwd, context.io.env) : undefined;
  const progress = showProgress("survey", quiet ?? false, context.io);
  const changes = changesOf(context, options);
  // What changed is counted whole, and narrowed to what is to be shown afterwards.
  const readsAll = all || changes !== undefined;
  const scope = scopeOf(context, paths);
  const { path = () => true } = scope;
  const narrowed = changes
    ? { ...scope, path: (file: string) => path(file) && changes.hasFile(file) }
    : scope;
  const whole = await surveyProject(project, narrowed, {
    all: readsAll,
    ...(cache && { cache }),
    elsewhere: surveyWorkers(cwd, project.configFile, readsAll, context.options.jobs, progress.step),
  });
  progress.end();
  cache?.save();
  const result = changes ? inChanges(whole, changes, all) : whole;
  sayWhatWasNotRead(context, result.unread);
  sayWhatHasNoReader(context, project, scope);
  for (const { file, problem } of result.files)
    if (problem)
      context.say(`${file}:${problem.line}:${problem.column}: ${problem.message}\n  → ${problem.remedy}`);
  if (context.options.format === "json") context.print(surveyJson(result));
  else {
    await prepareWidths();
    context.print(render(context, result));
  }
  return result.unread.length > 0 ? exitStatus.trouble : exitStatus.inOrder;
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
  const { style, width } = context;
  const lineOf = lineReader(context);
  const lines: string[] = [];
  let file = "";
  const shown = result.files.flatMap(({ literals }) => literals);
  for (const literal of shown) {
    if (literal.file !== file) {
      file = literal.file;
      lines.push(style.bold(style.underline(onOneLine(file))));
    }
    const paint = { text: style.green, unclear: style.yellow, code: style.dim }[literal.verdict];
    const waived =
      literal.waived === undefined ? "" : style.dim(` · waived: ${literal.waived || "no reason given"}`);
    lines.push(`  ${paint(literal.verdict.padEnd(7))} ${shorten(literal, width - 12)}${waived}`);
    lines.push(...excerpt(lineOf(literal.file, literal.line), literal, width, style, paint));
    lines.push(`         ${style.dim(`${literal.line}:${literal.column}  ${literal.reason}`)}`);
    for (const remark of literal.remarks ?? [])
      if (!literal.reason.includes(remark)) lines.push(`         ${style.yellow("!")} ${remark}`);
    lines.push("");
  }
  const { text, unclear, code, waived } = sumCounts(result);
  const parts = [
    `${text} text`,
    `${unclear} unclear`,
    `${code} code`,
    ...(waived > 0 ? [`${waived} waived`] : []),
  ];
  return `${lines.join("\n")}${lines.length > 0 ? "\n" : ""}${style.bold(`${parts.join(", ")} in ${counted(result.files.length, "file")}.`)}\n`;
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
  declare: (command) =>
    withChangeOptions(command)
      .argument("[paths...]", "files or folders to survey")
      .option("--all", "also list the strings that count as code")
      .option("--no-cache", "judge every file again"),
  run: runSurvey,
});
