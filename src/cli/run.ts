import { CommanderError, type Command } from "commander";
import type { CliCommand, CommandSet } from "./command.js";
import {
  commandContext,
  heedsNothing,
  settleInterrupted,
  withCommonOptions,
  type CommonOptions,
} from "./context.js";
import { CommandError, exitStatus, type ExitStatus } from "./exit.js";
import type { Io } from "./io.js";
import { programFor, usageOf, type CommandLine } from "./program.js";
import { makeStyle, terminalText, wantsColor } from "./terminal/style.js";

/** Every command by its name, in the order of the help. Each is loaded when it is called. */
const commands: Readonly<Record<string, () => Promise<CliCommand>>> = {
  init: async () => (await import("./commands/init.js")).initCommand,
  survey: async () => (await import("./commands/survey.js")).surveyCommand,
  extract: async () => (await import("./commands/extract.js")).extractCommand,
  reconcile: async () => (await import("./commands/reconcile.js")).reconcileCommand,
  lint: async () => (await import("./commands/lint.js")).lintCommand,
  preview: async () => (await import("./commands/preview.js")).previewCommand,
  handoff: async () => (await import("./commands/handoff.js")).handoffCommand,
  intake: async () => (await import("./commands/intake.js")).intakeCommand,
  draft: async () => (await import("./commands/draft.js")).draftCommand,
  pseudo: async () => (await import("./commands/pseudo.js")).pseudoCommand,
  trace: async () => (await import("./commands/trace.js")).traceCommand,
  list: async () => (await import("./commands/list.js")).listCommand,
  convert: async () => (await import("./commands/convert.js")).convertCommand,
  waive: async () => (await import("./commands/waive.js")).waiveCommand,
  balance: async () => (await import("./commands/balance.js")).balanceCommand,
  declare: async () => (await import("./commands/declare.js")).declareCommand,
  audit: async () => (await import("./commands/audit.js")).auditCommand,
  report: async () => (await import("./commands/report.js")).reportCommand,
  locale: async () => (await import("./commands/locale.js")).localeCommand,
  rekey: async () => (await import("./commands/rekey.js")).rekeyCommand,
  review: async () => (await import("./commands/review-keys.js")).reviewCommand,
  completion: async () => (await import("./commands/completion.js")).completionCommand,
  editor: async () => (await import("./commands/editor.js")).editorCommand,
  merge: async () => (await import("./commands/merge.js")).mergeCommand,
  demo: async () => (await import("./commands/demo.js")).demoCommand,
};

/** The names of the commands. */
export const commandNames: readonly string[] = Object.keys(commands);

/** How each command stands in the help: for what prints that without the commands. */
export async function commandLines(): Promise<readonly CommandLine[]> {
  const silent = { write: () => undefined };
  const io = { stdin: process.stdin, stdout: silent, stderr: silent, env: {}, cwd: "." };
  const program = programFor(io);
  for (const command of await loadCommands([])) register(program, command, io, () => undefined);
  return program.commands.map((command) => ({
    name: command.name(),
    usage: usageOf(command),
    summary: command.description(),
  }));
}

/** The command of a name; undefined for none. */
export async function loadCommand(name: string): Promise<CliCommand | undefined> {
  return Object.hasOwn(commands, name) ? commands[name]?.() : undefined;
}

const commandSet: CommandSet = { names: commandNames, load: loadCommand };

/**
 * Runs the program and returns the status to end with. Output goes to `io`; an error that a person can do something about
 * is printed there, without a stack.
 *
 * @param args the words after the program's name
 */
export async function run(args: readonly string[], io: Io): Promise<ExitStatus> {
  let status: ExitStatus = exitStatus.inOrder;
  try {
    if (args.length === 0) return await runAlone(io);
    const program = programFor(io);
    for (const command of await loadCommands(args))
      register(program, command, io, (ended) => (status = ended));
    await program.parseAsync([...args], { from: "user" });
    return status;
  } catch (error) {
    return report(error, args, io);
  }
}

/** What the program alone does: it shows the state of the project, or its help where there is nothing to show. */
async function runAlone(io: Io): Promise<ExitStatus> {
  const { showState } = await import("./state.js");
  return (await showState(commandContext({ ...heedsNothing, color: true }, io))) ?? run(["--help"], io);
}

/** The command that is called; all of them where none is, for the help and for suggestions. */
async function loadCommands([first = ""]: readonly string[]): Promise<readonly CliCommand[]> {
  if (first === "--version") return [];
  const called = Object.hasOwn(commands, first) ? commands[first] : undefined;
  const loaded: CliCommand[] = [];
  for (const load of called ? [called] : Object.values(commands)) loaded.push(await load());
  return loaded;
}

function register(
  program: Command,
  { name, summary, heeds, examples = [], declare, run: runIt }: CliCommand,
  io: Io,
  end: (status: ExitStatus) => void,
): void {
  const command = program
    .enablePositionalOptions()
    .command(name)
    .description(summary)
    .exitOverride()
    .helpOption("--help", "print this help")
    .configureOutput(program.configureOutput());
  const wide = Math.max(0, ...examples.map(([words]) => words.length));
  if (examples.length > 0)
    command.addHelpText(
      "after",
      `\nExamples:\n${examples.map(([words, what]) => `  fond ${words.padEnd(wide)}  ${what}`).join("\n")}`,
    );
  withCommonOptions(declare(command), heeds).action(async (...given: unknown[]) => {
    const words = given
      .slice(0, command.registeredArguments.length)
      .flat()
      .filter((one): one is string => typeof one === "string");
    const options: CommonOptions & { readonly write?: boolean } = { ...heedsNothing, ...command.opts() };
    const context = commandContext(options, io);
    if (options.write === true) settleInterrupted(context);
    end(await runIt(context, words, options, commandSet));
    context.finish();
  });
}

/** Prints what went wrong on stderr and returns the status to end with. */
function report(error: unknown, args: readonly string[], { stderr, env }: Io): ExitStatus {
  if (error instanceof CommanderError) return error.exitCode === 0 ? exitStatus.inOrder : exitStatus.usage;
  const style = makeStyle(wantsColor(stderr, !args.includes("--no-color"), env));
  const say = (words: string) => void stderr.write(terminalText(`${style.red("fond:")} ${words}\n`));
  if (error instanceof CommandError) {
    say(
      error.notices
        .map(
          ({ place = "", message, remedy }) => `${place}${message}${remedy === "" ? "" : `\n  → ${remedy}`}`,
        )
        .join("\n"),
    );
    return error.status;
  }
  const detail = error instanceof Error ? (error.stack ?? error.message) : String(error);
  say(`internal error (this is a bug in fond). Please report it with these lines:\n${detail}`);
  return exitStatus.trouble;
}
