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
  /** How it is called on the sample project, and what that does: the end of its help. */
  readonly examples?: readonly (readonly [words: string, what: string])[];
  /** Adds its arguments and options. */
  declare(command: Command): Command;
  run(
    context: CommandContext,
    words: readonly string[],
    options: Options,
    all: CommandSet,
  ): ExitStatus | Promise<ExitStatus>;
}

/** The commands that there are, each loaded when it is asked for. */
export interface CommandSet {
  readonly names: readonly string[];
  load(name: string): Promise<CliCommand | undefined>;
}

/** Declares a command; here so that its parts are checked where they are written. */
export function defineCommand<Options>(command: CliCommand<Options>): CliCommand {
  return command as CliCommand;
}
