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

/** An end of a command that a person can do something about: said on stderr, without a stack. */
export class CommandError extends Error {
  constructor(
    message: string,
    readonly remedy: string,
    readonly status: ExitStatus,
  ) {
    super(message);
  }
}
