import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { reconcileProject } from "../../core/project/reconcile-project.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
} from "../context.js";
import { changesOfFiles } from "../../disk/git-files.js";
import { git } from "../../disk/git.js";
import { usageError, type ExitStatus } from "../exit.js";
import { today } from "../today.js";
import { runOnChanges, withWatchOption } from "../watch.js";

const say = notices("cli/reconcile", {
  "no-git-history": {
    message: "no Git history",
    remedy: "run it inside a Git repository with commits, or without --from-history",
  },
});

export interface ReconcileCommandOptions extends WriteOptions {
  readonly keepExtra?: boolean;
  readonly fromHistory?: boolean;
  readonly watch?: boolean;
}

/** Brings every locale into step with the source catalog. */
export function runReconcile(context: CommandContext, options: ReconcileCommandOptions): ExitStatus {
  const project = openOrFail(context);
  const { cwd } = context.options;
  const reconciled = () =>
    reconcileProject(project, scopeOf(context), today(), {
      keepExtra: options.keepExtra ?? false,
      ...(options.fromHistory && { history: (patterns: readonly string[]) => changesOfFiles(cwd, patterns) }),
    });
  if (!options.fromHistory) return settlePlan(context, "reconcile", reconciled(), options);
  try {
    git(cwd, ["rev-parse", "--verify", "--quiet", "HEAD"]);
  } catch {
    throw usageError(say("no-git-history", {}));
  }
  return settlePlan(context, "reconcile", reconciled(), options);
}

/** `fond reconcile` */
export const reconcileCommand = defineCommand<ReconcileCommandOptions>({
  name: "reconcile",
  summary: "Sync the keys of every locale with the source catalog",
  heeds: { json: true, books: true, locales: true },
  examples: [
    ["reconcile", "what every locale lacks"],
    ["reconcile --locale pl --write", "bring one into step"],
  ],
  declare: (command) =>
    withWatchOption(withWriteOptions(command))
      .option("--keep-extra", "keep keys that the source does not have")
      .option("--from-history", "use Git history to find what translations without a record were made from"),
  run: (context, _, options) =>
    options.watch
      ? runOnChanges(context, (again) => runReconcile(again, options))
      : runReconcile(context, options),
});
