import type { Command } from "commander";
import type { CommandContext, Heeded } from "./context.js";
import type { ExitStatus } from "./exit.js";

/** One command: how it is called, and what it does. */
export interface CliCommand<Options = object> {
  readonly name: string;
  /** What it does, as an imperative: its line in `fond --help`. */
  readonly summary: string;
  /** Which of the common options it has. */
  readonly heeds: Heeded;
  /** Adds its arguments and options. */
  declare(command: Command): Command;
  run(context: CommandContext, words: readonly string[], options: Options): ExitStatus | Promise<ExitStatus>;
}

/** Declares a command; here so that its parts are checked where they are written. */
export function defineCommand<Options>(command: CliCommand<Options>): CliCommand {
  return command as CliCommand;
}
