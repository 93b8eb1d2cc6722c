import type { ReportForm } from "../output/reporters/index.js";
import { statSync, writeFileSync } from "node:fs";
import { relative, resolve, sep } from "node:path";
import { InvalidArgumentError, type Command } from "commander";
import { configFileNames } from "../core/config/load.js";
import { overlayFiles } from "../core/files/overlay-files.js";
import type { Files, WritableFiles } from "../core/files/files.js";
import { applyPlan, finishInterrupted } from "../core/plan/apply.js";
import type { Plan } from "../core/plan/plan.js";
import type { LiveProject } from "../core/project/live-project.js";
import { openProject, type Project, type Scope } from "../core/project/project.js";
import { lineIndex, type LineIndex } from "../core/text/line-index.js";
import { nearest } from "../core/text/nearest.js";
import { changedLines, type ChangedLines } from "../disk/git.js";
import { diskFiles, reasonOf } from "../disk/disk-files.js";
import { planJson } from "../output/json.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "./exit.js";
import { notices } from "../core/message/notices.js";
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

const say = notices("cli", {
  "no-folder": { message: 'no folder "{folder}"', remedy: "set the project's folder with --cwd" },
  "not-written": {
    message: "{file} cannot be written: {detail}",
    remedy: "choose another file with --output",
  },
  "no-path": {
    message: 'no file or folder "{path}"',
    remedy: "check the path; it is relative to the current folder",
  },
  left: {
    message: "every file is written, but {files} could not be removed: {detail}",
    remedy: "remove what is left by hand; it is no longer needed",
  },
  "since-and-staged": { message: "--since and --staged cannot be combined", remedy: "choose one of them" },
  "no-repository": { message: "{detail}", remedy: "run it inside a Git repository" },
  "no-revision": {
    message: "{detail}",
    remedy: 'check the revision "{revision}"; `git log` lists revisions',
  },
  "misspelled-choice": { message: '"{value}" is not one of {choices}', remedy: "did you mean {meant}?" },
  "unknown-choice": { message: '"{value}" is not one of {choices}', remedy: "choose one of them" },
  "misspelled-name": { message: 'unknown {what} "{name}"', remedy: 'did you mean "{meant}"?' },
  "unknown-name": { message: 'unknown {what} "{name}"', remedy: "the configuration has {known}" },
});

/** What a command works with: its options, where it prints, and how. */
export interface CommandContext {
  /** The options, `cwd` as an absolute path. */
  readonly options: CommonOptions;
  readonly io: Io;
  readonly style: Style;
  /** Whether what a person reads is in color. */
  readonly hasColor: boolean;
  /** The columns that text may take. */
  readonly width: number;
  readonly files: WritableFiles;
  /** Set where the command runs again and again: the project on the same files. */
  readonly live?: LiveProject;
  /** Prints part of the result to stdout, or to the file of --output. */
  print(text: string): void;
  /** Prints a hint on stderr; nothing with --quiet. */
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
    .option("--config <file>", "use this configuration (path relative to --cwd)")
    .option("--cwd <folder>", "run in this folder", ".");
  if (heeds.books) command.option("--book <name...>", "only use these books");
  if (heeds.locales) command.option("--locale <tag...>", "only use these locales");
  if (heeds.json) {
    const kinds = ["text", "json", ...(heeds.forms ?? [])] as const;
    command.option("--format <kind>", `print the result as ${kinds.join(", ")}`, oneOf(...kinds), "text");
    command.option("--output <file>", "write the result to a file instead of printing it");
  }
  if (heeds.jobs) command.option("--jobs <number>", "use at most this many threads", wholeNumber);
  return command
    .option("--quiet", "print only the result, no hints")
    .option("--verbose", "show everything")
    .option("--no-color", "print without colors (like NO_COLOR)");
}

/** Adds --write and --check. */
export function withWriteOptions(command: Command): Command {
  return command
    .option("--write", "apply the plan (all or nothing)")
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
  if (!isFolder) throw usageError(say("no-folder", { folder: options.cwd }));
  return {
    options: { ...options, cwd },
    io,
    style: makeStyle(color),
    hasColor: color,
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
        const notice = say("not-written", { file: options.output, detail: reasonOf(error) });
        throw new CommandError(notice, exitStatus.trouble);
      }
    },
  };
}

/** Opens the project, or ends the command with everything that is wrong with its configuration. */
export function openOrFail(context: CommandContext, files: Files = context.files): Project {
  const { options } = context;
  const { live } = context;
  const opened = live && files === live.files ? live.open() : openProject(files, options.config);
  if (!opened.ok) {
    const notices = opened.problems.map(({ file, line, column, path, ...notice }) => ({
      ...notice,
      place: `${file}:${line}:${column}: ${path === "" ? "" : `${path}: `}`,
    }));
    throw new CommandError(notices, exitStatus.usage);
  }
  const { project, warnings } = opened;
  for (const { message, remedy } of warnings) context.say(`${project.configFile}: ${message}\n  → ${remedy}`);
  mustBeKnown(
    "book",
    options.book,
    project.config.books.map(({ name }) => name),
  );
  mustBeKnown("locale", options.locale, [project.config.source, ...project.config.targets]);
  return project;
}

/** A project as a command has it that only reads. */
export interface AssumedProject {
  readonly project: Project;
  /** Whether there is no configuration, and what `init` would write stands for it. */
  readonly isAssumed: boolean;
}

/** Opens the project; one without a configuration as `fond init` would configure it, which is said. For commands that write nothing. */
export async function openOrAssume(context: CommandContext): Promise<AssumedProject> {
  return (await projectIfAny(context)) ?? { project: openOrFail(context), isAssumed: false };
}

/** The same; undefined where there is neither a configuration nor anything to assume one from. */
export async function projectIfAny(context: CommandContext): Promise<AssumedProject | undefined> {
  const { files, options } = context;
  if (options.config !== undefined || configFileNames.some((name) => files.read(name).ok))
    return { project: openOrFail(context), isAssumed: false };
  const assumed = await assumedFiles(files);
  if (!assumed) return undefined;
  const project = openOrFail(context, assumed);
  const books = project.config.books.map(({ files: path }) => path).join(", ");
  context.say(
    `No configuration: reading ${books} with source locale ${project.config.source}. \`fond init\` shows and writes what is assumed.`,
  );
  return { project, isAssumed: true };
}

/** The files with the configuration that `fond init` would write; undefined where there is nothing to assume from. */
async function assumedFiles(files: Files): Promise<Files | undefined> {
  // A configured project never needs what finds these things out.
  const { planInit } = await import("../core/project/setup/init-plan.js");
  const planned = await planInit(files);
  if (!planned.ok || !planned.plan.hasFound) return undefined;
  return overlayFiles(files, new Map(planned.plan.changes.map(({ file, after }) => [file, after])));
}

/** Finishes an interrupted run before a command that writes reads anything. */
export function settleInterrupted(context: CommandContext): void {
  const finished = finishInterrupted(context.files);
  if (!finished.ok)
    throw new CommandError([{ ...finished, place: `${finished.file}: ` }], exitStatus.trouble);
  if (finished.written.length > 0)
    context.say(`Finished an interrupted run: wrote ${counted(finished.written.length, "file")}.`);
}

/** Paths, relative to where the command was called, as the project has them; one that is not there ends the command. */
export function relativePaths(
  { options, files, io }: Pick<CommandContext, "options" | "files" | "io">,
  paths: readonly string[],
): readonly string[] {
  const root = resolve(options.cwd);
  return paths.map((path) => {
    const inside = relative(root, resolve(io.cwd, path)).split(sep).join("/");
    if (!files.exists(inside)) throw usageError(say("no-path", { path }));
    return inside;
  });
}

/** What the options narrow the run to. `paths` are files or folders, relative to where the command was called. */
export function scopeOf({ options, files, io }: CommandContext, paths: readonly string[] = []): Scope {
  const wanted = relativePaths({ options, files, io }, paths);
  const isWanted = (file: string) =>
    wanted.some((path) => path === "" || file === path || file.startsWith(`${path}/`));
  return {
    ...(options.book && { books: options.book }),
    ...(options.locale && { locales: options.locale }),
    ...(wanted.length > 0 && { path: isWanted }),
  };
}

/** Prints a plan, applies it with --write, and returns the status to end with. */
export function settlePlan(
  context: CommandContext,
  command: string,
  plan: Plan,
  options: WriteOptions,
  { head = "", isBrief = false }: PlanDisplay = {},
): ExitStatus {
  const { style } = context;
  const isEmpty = plan.changes.length === 0;
  if (context.options.format === "json") context.print(planJson(command, plan));
  else {
    const body =
      (options.write || isBrief) && !context.options.verbose
        ? listPlan(plan, style)
        : renderPlan(plan, style, context.options.verbose ?? false);
    context.print(head + body + style.bold(closingLine(plan)) + "\n");
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
  if (!applied.ok) throw new CommandError([{ ...applied, place: `${applied.file}: ` }], exitStatus.trouble);
  context.say(style.green(`Written: ${counted(applied.written.length, "file")}.`));
  if (applied.left) {
    const { files, reason } = applied.left;
    const notice = say("left", { files: files.join(", "), detail: reason });
    throw new CommandError(notice, exitStatus.trouble);
  }
  return end;
}

/** How a plan is shown. */
export interface PlanDisplay {
  /** What stands above it. */
  readonly head?: string;
  /** Whether its files are only listed. */
  readonly isBrief?: boolean;
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
    .option("--since <revision>", "only report what changed since this Git revision")
    .option("--staged", "only report what is staged for the next commit");
}

/** The changed lines that the options narrow the run to; undefined where they do not. */
export function changesOf(
  { options: { cwd } }: CommandContext,
  { since, staged }: ChangeOptions,
): ChangedLines | undefined {
  if (since === undefined && !staged) return undefined;
  if (since !== undefined && staged) throw usageError(say("since-and-staged", {}));
  const found = changedLines(cwd, since === undefined ? { staged: true } : { since });
  if (!found.ok)
    throw usageError(
      since === undefined
        ? say("no-repository", { detail: found.reason })
        : say("no-revision", { detail: found.reason, revision: since }),
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
    throw new InvalidArgumentError("It must be a whole number from 1.");
  return number;
}

/** A parser for an option that takes one of a few words. */
export function oneOf<Word extends string>(...words: readonly Word[]): (value: string) => Word {
  return (value) => {
    const found = words.find((word) => word === value);
    if (found) return found;
    const near = nearest(value, words);
    throw usageError(
      near
        ? say("misspelled-choice", { value, choices: words.join(", "), meant: near })
        : say("unknown-choice", { value, choices: words.join(", ") }),
    );
  };
}

/** Ends the command where a name that was given is not one that the configuration has. */
export function mustBeKnown(
  what: "book" | "locale",
  wanted: readonly string[] | undefined,
  known: readonly string[],
): void {
  const unknown = wanted?.find((name) => !known.includes(name));
  if (unknown === undefined) return;
  const near = nearest(unknown, known);
  throw usageError(
    near
      ? say("misspelled-name", { what, name: unknown, meant: near })
      : say("unknown-name", { what, name: unknown, known: known.join(", ") }),
  );
}
