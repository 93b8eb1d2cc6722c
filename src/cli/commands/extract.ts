import { extractProject } from "../../core/project/project.js";
import type { Verdict } from "../../core/survey/survey.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";
import { sayWhatWasNotRead } from "./survey.js";

export interface ExtractCommandOptions extends WriteOptions {
  readonly include?: readonly Verdict[];
  readonly limit?: number;
}

/** Moves text from code into the source catalog and puts lookups in its place. */
export async function runExtract(
  context: CommandContext,
  paths: readonly string[],
  options: ExtractCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const plan = await extractProject(project, scopeOf(context, paths), {
    verdicts: ["text", ...(options.include ?? [])],
    ...(options.limit !== undefined && { limit: options.limit }),
  });
  sayWhatWasNotRead(context, plan.unread);
  const status = settlePlan(context, "extract", plan, options);
  return plan.unread.length > 0 && status === exitStatus.inOrder ? exitStatus.trouble : status;
}
