import { reconcileProject } from "../../core/project/project.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import type { ExitStatus } from "../exit.js";
import { today } from "../today.js";

/** Brings every locale into step with the source catalog. */
export function runReconcile(
  context: CommandContext,
  options: WriteOptions & { readonly keepExtra?: boolean },
): ExitStatus {
  const project = openOrFail(context);
  const plan = reconcileProject(project, scopeOf(context), today(), {
    keepExtra: options.keepExtra ?? false,
  });
  return settlePlan(context, "reconcile", plan, options);
}
