import type { Notice } from "../core/text/wording.js";

/** How a command ends. */
export const exitStatus = {
  inOrder: 0,
  /** Findings at the failing level, or a plan that is not empty under --check. */
  toSettle: 1,
  /** Wrong usage or configuration. */
  usage: 2,
  /** Input or disk trouble kept it from finishing. */
  trouble: 3,
} as const;

export type ExitStatus = (typeof exitStatus)[keyof typeof exitStatus];

/** An end of a command that a person can do something about: printed on stderr, without a stack. */
export class CommandError extends Error {
  readonly notices: readonly (Notice & { readonly place?: string })[];

  constructor(
    notices: Notice | readonly (Notice & { readonly place?: string })[],
    readonly status: ExitStatus,
  ) {
    const all = "messageId" in notices ? [notices] : notices;
    super(all.map(({ message }) => message).join("\n"));
    this.notices = all;
  }
}

/** An end because of how the command was called. */
export function usageError(notice: Notice): CommandError {
  return new CommandError(notice, exitStatus.usage);
}
