import { planInit } from "../../core/project/detect.js";
import { settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";

/** Looks at the project and writes its configuration. */
export async function runInit(context: CommandContext, options: WriteOptions): Promise<ExitStatus> {
  const result = await planInit(context.files);
  if (!result.ok)
    throw new CommandError(
      `${result.file} is there already, and init never overwrites`,
      "edit it, or remove it first",
      exitStatus.usage,
    );
  const { plan } = result;
  if (context.options.format === "text")
    for (const ground of plan.grounds) context.say(`${context.style.dim("·")} ${ground}`);
  return settlePlan(context, "init", plan, options);
}
