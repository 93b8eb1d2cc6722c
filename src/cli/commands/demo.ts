import type { CommandContext } from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";
export function runDemo(_context: CommandContext, _folder: string): ExitStatus {
  return exitStatus.inOrder;
}
