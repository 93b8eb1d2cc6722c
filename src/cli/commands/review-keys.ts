import { defineCommand } from "../command.js";
import { reviewProject } from "../../core/project/review.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
  oneOf,
} from "../context.js";
import { usageError, type ExitStatus } from "../exit.js";
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
  if (!result.ok) throw usageError(result);
  return settlePlan(context, "review", result.plan, options);
}

/** `fond review` */
export const reviewCommand = defineCommand<ReviewCommandOptions>({
  name: "review",
  summary: "Mark translations as reviewed, or as still valid after a source change",
  heeds: { json: true, books: true, locales: true },
  examples: [["review 'basket.*' --locale de", "these translations were read"]],
  declare: (command) =>
    withWriteOptions(command)
      .argument("<keys...>", "keys or patterns (* and **)")
      .option(
        "--state <state>",
        "set this state: translated, reviewed (the default) or final",
        oneOf("translated", "reviewed", "final"),
      )
      .option(
        "--same-meaning",
        "mark stale translations as still valid: the source changed, its meaning did not",
      ),
  run: runReview,
});
