import type { ReportForm } from "../output/findings.js";
import { statSync, writeFileSync } from "node:fs";
import { relative, resolve, sep } from "node:path";
import { InvalidArgumentError, type Command } from "commander";
import type { WritableFiles } from "../core/files/files.js";
import { applyPlan, finishInterrupted } from "../core/plan/apply.js";
import type { Plan } from "../core/plan/plan.js";
import { openProject, type Project, type Scope } from "../core/project/project.js";
import { lineIndex, type LineIndex } from "../core/text/line-index.js";
import { nearest } from "../core/text/nearest.js";
import { changedLines, type ChangedLines } from "../disk/git.js";
import { diskFiles, reasonOf } from "../disk/disk-files.js";
import { planJson } from "../output/json.js";
import { CommandError, exitStatus, type ExitStatus } from "./exit.js";
import type { Io } from "./io.js";
import { listPlan, renderPlan, sumUp } from "./terminal/plan.js";
import { counted, makeStyle, terminalText, wantsColor, type Style } from "./terminal/style.js";

/** The options that every command has. */
export interface CommonOptions {
  readonly config?: string;
  readonly cwd: string;
  readonly book?: readonly string[];
  readonly locale?: readonly string[];
  readonly format: "text" | "json" | ReportForm;
  readonly output?: string;
  readonly jobs?: number;
  readonly quiet?: boolean;
  readonly verbose?: boolean;
  readonly color: boolean;
}

/** The options of commands that write. */
export interface WriteOptions {
  readonly write?: boolean;
  readonly check?: boolean;
}

/** What a command works with: its options, where it prints, and how. */
export interface CommandContext {
  /** The options, `cwd` as an absolute path. */
  readonly options: CommonOptions;
  readonly io: Io;
  readonly style: Style;
  /** The columns that text may take. */
  readonly width: number;
  readonly files: WritableFiles;
  /** Prints part of the result to stdout, or to the file of --output. */
  print(text: string): void;
  /** Says something beside the result, on stderr; nothing with --quiet. */
  say(text: string): void;
  /** Writes the file of --output, if there is one. */
  finish(): void;
}

/** Which of the options that several commands share a command heeds. */
export interface Heeded {
  readonly json?: boolean;
  readonly forms?: readonly ReportForm[];
  readonly books?: boolean;
  readonly locales?: boolean;
  readonly jobs?: boolean;
}

/** The common options of a command that heeds none of them. */
export const heedsNothing = { cwd: ".", format: "text" } as const;

/** Adds the options that commands share: a command has only those that it heeds. */
export function withCommonOptions(command: Command, heeds: Heeded): Command {
  command
    .option("--config <file>", "the configuration to use, relative to --cwd")
    .option("--cwd <folder>", "the project's folder", ".");
  if (heeds.books) command.option("--book <name...>", "only these books");
  if (heeds.locales) command.option("--locale <tag...>", "only these locales");
  if (heeds.json) {
    const kinds = ["text", "json", ...(heeds.forms ?? [])] as const;
    command.option(
      "--format <kind>",
      `how to print the result: ${kinds.join(", ")}`,
      oneOf(...kinds),
      "text",
    );
    command.option("--output <file>", "write the result to a file instead of printing it");
  }
  if (heeds.jobs) command.option("--jobs <number>", "use at most this many threads", wholeNumber);
  return command
    .option("--quiet", "print the result alone, no hints")
    .option("--verbose", "show everything")
    .option("--no-color", "no colors (NO_COLOR does the same)");
}

/** Adds --write and --check. */
export function withWriteOptions(command: Command): Command {
  return command
    .option("--write", "carry the plan out, all of it or none of it")
    .option("--check", "print the plan and exit with status 1 if it is not empty");
}

/** Makes a command's context from its options. */
export function commandContext(options: CommonOptions, io: Io): CommandContext {
  const toFile = options.output !== undefined;
  const isText = options.format === "text";
  const color = !toFile && isText && wantsColor(io.stdout, options.color, io.env);
  const collected: string[] = [];
  const cwd = resolve(io.cwd, options.cwd);
  let isFolder = false;
  try {
    isFolder = statSync(cwd).isDirectory();
  } catch {
    // Said below.
  }
  if (!isFolder)
    throw new CommandError(
      `there is no folder ${options.cwd}`,
      "name the project's folder with --cwd",
      exitStatus.usage,
    );
  return {
    options: { ...options, cwd },
    io,
    style: makeStyle(color),
    width: Number(io.env["COLUMNS"]) || io.stdout.columns || 100,
    files: diskFiles(cwd),
    print(text) {
      if (toFile) collected.push(isText ? terminalText(text) : text);
      else io.stdout.write(isText ? terminalText(text) : text);
    },
    say(text) {
      if (!options.quiet) io.stderr.write(terminalText(text) + "\n");
    },
    finish() {
      if (options.output === undefined) return;
      try {
        writeFileSync(resolve(io.cwd, options.output), collected.join(""));
      } catch (error) {
        throw new CommandError(
          `${options.output} cannot be written: ${reasonOf(error)}`,
          "name another file with --output",
          exitStatus.trouble,
        );
      }
    },
  };
}

/** Opens the project, or ends the command with everything that is wrong with its configuration. */
export function openOrFail(context: CommandContext): Project {
  const { files, options } = context;
  const opened = openProject(files, options.config);
  if (!opened.ok) {
    const lines = opened.problems.map(
      ({ file, line, column, path, message, remedy }) =>
        `${file}:${line}:${column}: ${path === "" ? "" : `${path}: `}${message}\n  → ${remedy}`,
    );
    throw new CommandError(lines.join("\n"), "", exitStatus.usage);
  }
  const { project, warnings } = opened;
  for (const warning of warnings) context.say(warning);
  mustBeKnown(
    "book",
    options.book,
    project.config.books.map(({ name }) => name),
  );
  mustBeKnown("locale", options.locale, [project.config.source, ...project.config.targets]);
  return project;
}

/** Finishes what an interrupted run left, before a command that writes reads anything. */
export function settleInterrupted(context: CommandContext): void {
  const finished = finishInterrupted(context.files);
  if (!finished.ok)
    throw new CommandError(`${finished.file}: ${finished.reason}`, finished.remedy, exitStatus.trouble);
  if (finished.written.length > 0)
    context.say(`An interrupted run is finished: ${counted(finished.written.length, "file")} written.`);
}

/** What the options narrow the run to. `paths` are files or folders, relative to where the command was called. */
export function scopeOf({ options, files, io }: CommandContext, paths: readonly string[] = []): Scope {
  const root = resolve(options.cwd);
  const wanted = paths.map((path) => {
    const inside = relative(root, resolve(io.cwd, path)).split(sep).join("/");
    if (!files.exists(inside))
      throw new CommandError(
        `there is no file or folder ${path}`,
        "check the path; it is relative to where you are",
        exitStatus.usage,
      );
    return inside;
  });
  const isWanted = (file: string) =>
    wanted.some((path) => path === "" || file === path || file.startsWith(`${path}/`));
  return {
    ...(options.book && { books: options.book }),
    ...(options.locale && { locales: options.locale }),
    ...(wanted.length > 0 && { path: isWanted }),
  };
}

/** Prints a plan, carries it out where that is wanted, and says how the command ends. */
export function settlePlan(
  context: CommandContext,
  command: string,
  plan: Plan,
  options: WriteOptions,
): ExitStatus {
  const { style } = context;
  const isEmpty = plan.changes.length === 0;
  if (context.options.format === "json") context.print(planJson(command, plan));
  else {
    const body =
      options.write && !context.options.verbose
        ? listPlan(plan, style)
        : renderPlan(plan, style, context.options.verbose ?? false);
    context.print(body + style.bold(closingLine(plan)) + "\n");
  }
  const undone = new Set(plan.notes.map((note) => note.undone));
  // What stays in the code is the work of a person: only a check that asks whether all is done fails for it.
  const isLeft = undone.has("broken") || (options.check === true && undone.has("refused"));
  const end = undone.has("unreadable")
    ? exitStatus.trouble
    : isLeft && (options.check || options.write)
      ? exitStatus.toSettle
      : exitStatus.inOrder;
  if (options.check) return isEmpty || end !== exitStatus.inOrder ? end : exitStatus.toSettle;
  if (isEmpty) return end;
  if (!options.write) {
    context.say("Nothing written. Run again with --write to apply.");
    return end;
  }
  const applied = applyPlan(context.files, plan);
  if (!applied.ok)
    throw new CommandError(`${applied.file}: ${applied.reason}`, applied.remedy, exitStatus.trouble);
  context.say(style.green(`Written: ${counted(applied.written.length, "file")}.`));
  if (applied.left) {
    const { files, reason } = applied.left;
    throw new CommandError(
      `every file is written, but ${files.join(", ")} could not be removed: ${reason}`,
      "remove what is left by hand; it has no use any more",
      exitStatus.trouble,
    );
  }
  return end;
}

/** “Nothing to do.” only where nothing was skipped either. */
function closingLine(plan: Plan): string {
  if (plan.changes.length > 0) return `${sumUp(plan)}.`;
  const skipped = plan.notes.filter(({ undone }) => undone !== undefined).length;
  return skipped === 0 ? "Nothing to do." : `Nothing to write; ${counted(skipped, "place")} skipped.`;
}

/** The options that narrow a run to what Git says has changed. */
export interface ChangeOptions {
  readonly since?: string;
  readonly staged?: boolean;
}

/** Adds --since and --staged. */
export function withChangeOptions(command: Command): Command {
  return command
    .option("--since <revision>", "only what this Git revision does not have")
    .option("--staged", "only what is staged for the next commit");
}

/** The changed lines that the options narrow the run to; undefined where they do not. */
export function changesOf(
  { options: { cwd } }: CommandContext,
  { since, staged }: ChangeOptions,
): ChangedLines | undefined {
  if (since === undefined && !staged) return undefined;
  if (since !== undefined && staged)
    throw new CommandError("--since and --staged do not go together", "choose one of them", exitStatus.usage);
  const found = changedLines(cwd, since === undefined ? { staged: true } : { since });
  if (!found.ok)
    throw new CommandError(
      found.reason,
      since === undefined
        ? "run it inside a Git repository"
        : `check the revision “${since}”; \`git log\` lists what there is`,
      exitStatus.usage,
    );
  return found.changes;
}

/** The line of a file for excerpts; each file is read once. */
export function lineReader(context: CommandContext): (file: string, line: number) => string {
  const read = new Map<string, LineIndex>();
  return (file, line) => {
    let lines = read.get(file);
    if (!lines) {
      const found = context.files.read(file);
      lines = lineIndex(found.ok ? found.text : "");
      read.set(file, lines);
    }
    return lines.line(line);
  };
}

/** A parser for an option that takes a whole number from 1. */
export function wholeNumber(value: string): number {
  const number = Number(value);
  if (!Number.isInteger(number) || number < 1)
    throw new InvalidArgumentError("It takes a whole number from 1.");
  return number;
}

/** A parser for an option that takes one of a few words. */
export function oneOf<Word extends string>(...words: readonly Word[]): (value: string) => Word {
  return (value) => {
    const found = words.find((word) => word === value);
    if (found) return found;
    const near = nearest(value, words);
    throw new CommandError(
      `“${value}” is not one of ${words.join(", ")}`,
      near ? `did you mean ${near}?` : "choose one of them",
      exitStatus.usage,
    );
  };
}

/** Ends the command where a name that was given is not one that the configuration has. */
export function mustBeKnown(
  what: string,
  wanted: readonly string[] | undefined,
  known: readonly string[],
): void {
  const unknown = wanted?.find((name) => !known.includes(name));
  if (unknown === undefined) return;
  const near = nearest(unknown, known);
  throw new CommandError(
    `the configuration has no ${what} “${unknown}”`,
    near ? `did you mean “${near}”?` : `it has ${known.join(", ")}`,
    exitStatus.usage,
  );
}
