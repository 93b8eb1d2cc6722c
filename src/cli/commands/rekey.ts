import { rekeyProject } from "../../core/project/rekey.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";

/** Gives keys new names, in catalogs, ledger, waivers and code. */
export async function runRekey(
  context: CommandContext,
  [from = "", to = ""]: readonly string[],
  options: WriteOptions,
): Promise<ExitStatus> {
  const result = await rekeyProject(openOrFail(context), scopeOf(context), from, to);
  if (!result.ok) throw new CommandError(result.message, result.remedy, exitStatus.usage);
  return settlePlan(context, "rekey", result.plan, options);
}
