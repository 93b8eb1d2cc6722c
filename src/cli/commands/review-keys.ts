import { reviewProject } from "../../core/project/review.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { today } from "../today.js";

export interface ReviewCommandOptions extends WriteOptions {
  readonly state?: "translated" | "reviewed" | "final";
  readonly sameMeaning?: boolean;
}

/** Says of translations that somebody has read them, or that they fit a changed source text as they are. */
export function runReview(
  context: CommandContext,
  keys: readonly string[],
  { state, sameMeaning, ...options }: ReviewCommandOptions,
): ExitStatus {
  const result = reviewProject(openOrFail(context), scopeOf(context), keys, {
    ...(sameMeaning ? { sameMeaning } : { state: state ?? "reviewed" }),
    ...(sameMeaning && state !== undefined && { state }),
    today: today(),
  });
  if (!result.ok) throw new CommandError(result.message, result.remedy, exitStatus.usage);
  return settlePlan(context, "review", result.plan, options);
}
