import { lintProject } from "../../core/project/project.js";
import { findingsJson } from "../../output/json.js";
import {
  changesOf,
  lineReader,
  openOrFail,
  scopeOf,
  type ChangeOptions,
  type CommandContext,
} from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";
import { countFindings, renderFindings } from "../terminal/findings.js";

/** Checks the catalogs and the code's use of them. */
export async function runLint(
  context: CommandContext,
  paths: readonly string[],
  options: ChangeOptions = {},
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const changes = changesOf(context, options);
  const all = await lintProject(project, scopeOf(context, paths));
  const findings = changes ? all.filter(({ file, line, endLine }) => changes.has(file, line, endLine)) : all;
  if (context.options.format === "json") context.print(findingsJson("lint", findings));
  else {
    const { style, width, options } = context;
    context.print(renderFindings(findings, lineReader(context), style, width, options.verbose ?? false));
    context.print(`${style.bold(countFindings(findings, style))}\n`);
  }
  return findings.some(({ severity }) => severity === "error") ? exitStatus.toSettle : exitStatus.inOrder;
}
