import { surveyProject, type SurveyResult } from "../../core/project/project.js";
import type { SurveyedLiteral, Verdict } from "../../core/survey/survey.js";
import { surveyJson } from "../../output/json.js";
import { lineReader, openOrFail, scopeOf, type CommandContext } from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";
import { excerpt } from "../terminal/excerpt.js";
import { counted } from "../terminal/style.js";

/** Finds hard-coded text in code. */
export async function runSurvey(
  context: CommandContext,
  paths: readonly string[],
  options: { readonly all?: boolean },
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const result = await surveyProject(project, scopeOf(context, paths));
  sayWhatWasNotRead(context, result);
  if (context.options.format === "json") context.print(surveyJson(result, options.all ?? false));
  else context.print(render(context, result, options.all ?? false));
  return result.unread.length > 0 ? exitStatus.trouble : exitStatus.inOrder;
}

/** Warns of code that could not be read, or not whole. */
export function sayWhatWasNotRead(
  context: CommandContext,
  result: Pick<SurveyResult, "unread"> & Partial<Pick<SurveyResult, "broken">>,
): void {
  for (const { file, detail } of result.unread)
    context.say(`${file}: not read: ${detail}\n  → see that it is text in UTF-8 and can be opened`);
  for (const source of result.broken ?? []) {
    const problem = source.problems[0];
    if (!problem) continue;
    const { line, column } = source.lines.position(problem.span.start);
    context.say(`${source.file}:${line}:${column}: ${problem.message}\n  → ${problem.remedy}`);
  }
}

function render(context: CommandContext, result: SurveyResult, all: boolean): string {
  const { style, width } = context;
  const lineOf = lineReader(context);
  const lines: string[] = [];
  let file = "";
  const shown = result.literals.filter(
    (literal) => all || (literal.verdict !== "code" && literal.waived === undefined),
  );
  for (const literal of shown) {
    if (literal.file !== file) {
      file = literal.file;
      lines.push(style.bold(style.underline(file)));
    }
    const paint = { text: style.green, unclear: style.yellow, code: style.dim }[literal.verdict];
    const waived =
      literal.waived === undefined ? "" : style.dim(` · left alone: ${literal.waived || "no reason given"}`);
    lines.push(`  ${paint(literal.verdict.padEnd(7))} ${shorten(literal, width - 12)}${waived}`);
    lines.push(...excerpt(lineOf(literal.file, literal.line), literal, width, style, paint));
    lines.push(`         ${style.dim(`${literal.line}:${literal.column}  ${literal.reason}`)}`, "");
  }
  const count = (verdict: Verdict) =>
    result.literals.filter((literal) => literal.verdict === verdict && literal.waived === undefined).length;
  const waived = result.literals.filter((literal) => literal.waived !== undefined).length;
  const parts = [
    `${count("text")} text`,
    `${count("unclear")} unclear`,
    `${count("code")} code`,
    ...(waived > 0 ? [`${waived} left alone`] : []),
  ];
  return `${lines.join("\n")}${lines.length > 0 ? "\n" : ""}${style.bold(`${parts.join(", ")} in ${counted(result.files, "file")}.`)}\n`;
}

function shorten(literal: SurveyedLiteral, room: number): string {
  const text = literal.message.replace(/\s+/g, " ");
  return text.length > room ? `${text.slice(0, Math.max(room - 1, 1))}…` : text;
}
