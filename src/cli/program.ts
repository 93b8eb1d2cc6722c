import { Command } from "commander";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Io } from "./io.js";
import { manifestVersion } from "./manifest.js";
import { packageRoot } from "../disk/package-root.js";
import { terminalText } from "./terminal/style.js";

/** A command as its line in the help shows it. */
export interface CommandLine {
  readonly name: string;
  readonly usage: readonly string[];
  readonly summary: string;
}

/** The program, without its commands. */
export function programFor({ stdout, stderr }: Io): Command {
  return (
    new Command("fond")
      .description(
        "Extract UI strings, keep locale catalogs in sync, and catch broken translations before release.",
      )
      .version(manifestVersion(), "--version", "print the version")
      .helpOption("--help", "print this help")
      .helpCommand("help [command]", "Print the help of a command")
      .showSuggestionAfterError()
      // Every command has options: without that word there is room for what the commands do.
      .configureHelp({ subcommandTerm: (command) => [command.name(), ...usageOf(command)].join(" ") })
      .configureOutput({
        writeOut: (text) => void stdout.write(text),
        writeErr: (text) => void stderr.write(text),
        outputError: (text, write) => write(terminalText(`fond: ${text.replace(/^error: /, "")}`)),
        getOutHelpWidth: () => stdout.columns ?? 80,
        getErrHelpWidth: () => stderr.columns ?? 80,
        getOutHasColors: () => false,
        getErrHasColors: () => false,
      })
      .exitOverride()
  );
}

/** What a command takes, as its line in the help shows it. */
export function usageOf({ registeredArguments }: Command): readonly string[] {
  return registeredArguments.map((one) => {
    const name = one.name() + (one.variadic ? "..." : "");
    return one.required ? `<${name}>` : `[${name}]`;
  });
}

/**
 * Prints the version or the help, as the whole program would, from what its build wrote down: to load the program for that would
 * take longer than all else. Gives false where something else is asked for, or nothing is written down.
 */
export function answersAlone(args: readonly string[], io: Io): boolean {
  const [only, ...others] = args;
  if (others.length > 0) return false;
  if (only === "--version") io.stdout.write(`${manifestVersion()}\n`);
  else if (only === "--help") {
    const lines = writtenLines();
    if (!lines) return false;
    const program = programFor(io);
    for (const { name, usage, summary } of lines)
      program.command([name, ...usage].join(" ")).description(summary);
    program.outputHelp();
  } else return false;
  return true;
}

function writtenLines(): readonly CommandLine[] | undefined {
  try {
    return JSON.parse(
      readFileSync(join(packageRoot(), "dist", "bin", "commands.json"), "utf8"),
    ) as CommandLine[];
  } catch {
    return undefined;
  }
}
