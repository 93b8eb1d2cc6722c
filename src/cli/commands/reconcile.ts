import { reconcileProject } from "../../core/project/project.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { changesOfFiles } from "../../disk/git-files.js";
import { git } from "../../disk/git.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { today } from "../today.js";

/** Brings every locale into step with the source catalog. */
export function runReconcile(
  context: CommandContext,
  options: WriteOptions & { readonly keepExtra?: boolean; readonly fromHistory?: boolean },
): ExitStatus {
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
    throw new CommandError(
      "Git has no history to work anything out from",
      "run it inside a Git repository with commits, or leave --from-history out",
      exitStatus.usage,
    );
  }
  return settlePlan(context, "reconcile", reconciled(), options);
}
