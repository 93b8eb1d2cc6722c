#!/usr/bin/env node
import { Command, CommanderError, InvalidArgumentError } from "commander";
import {
  commandContext,
  oneOf,
  wholeNumber,
  withChangeOptions,
  withCommonOptions,
  withWriteOptions,
  type WriteOptions,
  type CommandContext,
  type CommonOptions,
} from "./context.js";
import type { SurveyCommandOptions } from "./commands/survey.js";
import { formatNames, messageSyntaxNames, pluralFormNames } from "../core/config/names.js";
import type { BalanceCommandOptions } from "./commands/balance.js";
import type { ReviewCommandOptions } from "./commands/review-keys.js";
import type { ConvertCommandOptions } from "./commands/convert.js";
import type { ExtractCommandOptions } from "./commands/extract.js";
import type { LintCommandOptions } from "./commands/lint.js";
import type { PreviewCommandOptions } from "./commands/preview.js";
import type { WaiveCommandOptions } from "./commands/waive.js";
import { CommandError, exitStatus, type ExitStatus } from "./exit.js";
import { manifestVersion } from "./manifest.js";
import { makeStyle, wantsColor } from "./terminal/style.js";

type Run<Options> = (
  context: CommandContext,
  paths: readonly string[],
  options: Options,
) => ExitStatus | Promise<ExitStatus>;

/** Registers one command; what it needs is loaded when it runs. */
function register<Options>(command: Command, run: Run<Options>): void {
  withCommonOptions(command).action(async (...given: unknown[]) => {
    const paths = given
      .slice(0, command.registeredArguments.length)
      .flat()
      .filter((one) => one !== undefined);
    const options = command.opts() as CommonOptions & Options;
    const context = commandContext(options);
    process.exitCode = await run(context, paths as unknown as readonly string[], options);
    context.finish();
  });
}

function buildProgram(): Command {
  const program = new Command("fond")
    .description(
      "Keeps the books of a localised product: text out of code, keys in step, faults found before release.",
    )
    .version(manifestVersion(), "--version", "print the version")
    .helpOption("--help", "print this help")
    .showSuggestionAfterError()
    .configureOutput({ outputError: (text, write) => write(`fond: ${text.replace(/^error: /, "")}`) })
    .exitOverride();
  const add = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .exitOverride()
      .helpOption("--help", "print this help")
      .configureOutput(program.configureOutput());

  register<WriteOptions & { mergeDriver?: boolean }>(
    withWriteOptions(add("init", "look at the project and write its configuration"))
      .option("--ask", "ask what the files do not tell, where there is no terminal too")
      .option("--yes", "ask nothing, on a terminal too")
      .option("--merge-driver", "set Git up to merge the project's catalogs and ledgers by key"),
    async (context, _, options) => (await import("./commands/init.js")).runInit(context, options),
  );
  register<SurveyCommandOptions>(
    withChangeOptions(add("survey", "find hard-coded interface text in code, judged and explained"))
      .argument("[paths...]", "files or folders to look at")
      .option("--all", "list what was judged to be code as well")
      .option("--no-cache", "judge every file anew"),
    async (context, paths, options) =>
      (await import("./commands/survey.js")).runSurvey(context, paths, options),
  );
  register<ExtractCommandOptions>(
    withWriteOptions(
      add("extract", "give hard-coded text keys, move it into the source catalog, put lookups in its place"),
    )
      .argument("[paths...]", "files or folders to take text from")
      .option(
        "--include <verdict...>",
        "take literals of this verdict too: unclear",
        (value, previous?: readonly "unclear"[]) => [...(previous ?? []), oneOf("unclear")(value)],
      )
      .option("--limit <number>", "take no more than this many", wholeNumber)
      .option(
        "--key <place=key>",
        "the key for the text at a place, as file:line=key; may be given several times",
        (value: string, all?: readonly string[]) => [...(all ?? []), value],
      )
      .option("--review", "go through the texts one by one, and write what was agreed to")
      .option("--no-review", "only show the plan, on a terminal too"),
    async (context, paths, options) =>
      (await import("./commands/extract.js")).runExtract(context, paths, options),
  );
  register<{ keepExtra?: boolean; fromHistory?: boolean }>(
    withWriteOptions(add("reconcile", "bring every locale into step with the source catalog"))
      .option("--keep-extra", "leave keys that the source lacks where they are")
      .option("--from-history", "work out from Git what translations without a record were made from"),
    async (context, _, options) => (await import("./commands/reconcile.js")).runReconcile(context, options),
  );
  register<LintCommandOptions>(
    withWriteOptions(withChangeOptions(add("lint", "check the catalogs and the code's use of them")))
      .argument("[paths...]", "report only on these files or folders")
      .option("--rule <rule...>", "only these rules")
      .option("--max-warnings <number>", "fail on more warnings than this", (value) => {
        if (!/^\d+$/.test(value)) throw new InvalidArgumentError("It takes a whole number.");
        return Number(value);
      })
      .option("--fix", "mend what can safely be mended: shows the plan, --write carries it out")
      .option("--explain <rule>", "print what a rule is for, with examples")
      .option("--baseline", "accept all that is found today as waivers, so that only what is new shows"),
    async (context, paths, options) => (await import("./commands/lint.js")).runLint(context, paths, options),
  );
  register<PreviewCommandOptions>(
    withChangeOptions(
      add("preview", "show what users would read: every locale, each plural category, each case"),
    )
      .argument("[keys...]", "keys or patterns (* and **); without any, the keys that carry findings")
      .option(
        "--with <name=value>",
        "a value for an argument; may be given several times",
        (value: string, all?: readonly string[]) => [...(all ?? []), value],
      )
      .option("--compare <locale...>", "these locales beside each other"),
    async (context, keys, options) =>
      (await import("./commands/preview.js")).runPreview(context, keys, options),
  );
  register<ConvertCommandOptions>(
    withWriteOptions(
      add("convert", "move a book to another file format or layout, or read its texts from code"),
    )
      .option("--to <format>", `the new format: ${formatNames.join(", ")}`, oneOf(...formatNames))
      .option("--files <pattern>", "where the new catalogs go, as in the configuration")
      .option(
        "--inside <place>",
        "where the locale stands in the new files: root, leaf or none",
        oneOf("root", "leaf", "none"),
      )
      .option(
        "--syntax <name>",
        `the new message syntax: ${messageSyntaxNames.join(", ")}`,
        oneOf(...messageSyntaxNames),
      )
      .option(
        "--plurals <form>",
        `the new plural form: ${pluralFormNames.join(", ")}`,
        oneOf(...pluralFormNames),
      )
      .option("--from <pattern>", "read modules of code (.js, .ts, .php) instead of the book's catalogs"),
    async (context, _, options) => (await import("./commands/convert.js")).runConvert(context, options),
  );
  register<WaiveCommandOptions>(
    withWriteOptions(add("waive", "accept a finding or a literal as it is, with a reason"))
      .argument("[place]", "a literal's place in code, as file:line or file:line:column")
      .option("--rule <rule>", "accept findings of this rule")
      .option("--key <pattern>", "only on these keys (* and ** stand for parts)")
      .option("--reason <words>", "why it is accepted")
      .option("--until <day>", "the last day on which it counts, as YYYY-MM-DD"),
    async (context, places, options) =>
      (await import("./commands/waive.js")).runWaive(context, places[0], options),
  );
  register<BalanceCommandOptions>(
    add("balance", "show how far each locale is")
      .option("--by <part>", "count by namespace", oneOf("namespace"))
      .option("--todo", "list what is still to be translated, with source text and place")
      .option("--stale", "list what was translated from an older source text, old beside new")
      .option("--trend [number]", "how the shares grew over the last commits to the catalogs", (value) =>
        wholeNumber(value),
      )
      .option("--releases", "with --trend: over the last tags instead"),
    async (context, _, options) => (await import("./commands/balance.js")).runBalance(context, options),
  );
  register<WriteOptions>(
    withWriteOptions(add("locale", "list the project's locales, open a new one, or set one aside"))
      .argument("[action]", "list, add or drop")
      .argument("[tag]", "the locale's tag, such as pt-BR"),
    async (context, words, options) =>
      (await import("./commands/locale.js")).runLocale(context, words, options),
  );
  register<WriteOptions>(
    withWriteOptions(add("rekey", "rename, move or merge keys in catalogs, ledger, waivers and code"))
      .argument("<from>", "a key, or a group such as checkout.*")
      .argument("<to>", "its new name, or the group's: basket.*"),
    async (context, keys, options) => (await import("./commands/rekey.js")).runRekey(context, keys, options),
  );
  register<ReviewCommandOptions>(
    withWriteOptions(add("review", "say in the ledger that translations were read, or fit a changed source"))
      .argument("<keys...>", "keys or patterns (* and **); --locale names the locales")
      .option(
        "--state <state>",
        "the state they are given: translated, reviewed (where nothing is said) or final",
        oneOf("translated", "reviewed", "final"),
      )
      .option(
        "--same-meaning",
        "the source text changed but not its meaning: stale translations fit as they are",
      ),
    async (context, keys, options) =>
      (await import("./commands/review-keys.js")).runReview(context, keys, options),
  );
  register(
    add("merge", "merge three versions of a catalog or ledger by key, as a merge driver for Git")
      .argument("<base>", "the version that both sides come from")
      .argument("<ours>", "our version; the result takes its place")
      .argument("<theirs>", "their version")
      .argument("[name]", "the file's name in the project, which says its format"),
    async (context, paths) => (await import("./commands/merge.js")).runMerge(context, paths),
  );
  register(
    add("demo", "walk through the whole job on a sample project").argument(
      "[folder]",
      "the new folder to do it in",
      "fond-demo",
    ),
    async (context, paths) => (await import("./commands/demo.js")).runDemo(context, paths[0] ?? "fond-demo"),
  );
  return program;
}

async function main(): Promise<void> {
  process.on("SIGINT", () => process.exit(exitStatus.interrupted));
  // A reader such as `head` that has seen enough closes the pipe: that is no trouble.
  process.stdout.on("error", (error: NodeJS.ErrnoException) =>
    process.exit(error.code === "EPIPE" ? exitStatus.inOrder : exitStatus.trouble),
  );
  try {
    await buildProgram().parseAsync(process.argv);
  } catch (error) {
    process.exitCode = report(error);
  }
}

/** Says what went wrong on stderr and gives the status to end with. */
function report(error: unknown): ExitStatus {
  if (error instanceof CommanderError) return error.exitCode === 0 ? exitStatus.inOrder : exitStatus.usage;
  const style = makeStyle(wantsColor(process.stderr, !process.argv.includes("--no-color"), process.env));
  if (error instanceof CommandError) {
    process.stderr.write(
      `${style.red("fond:")} ${error.message}\n${error.remedy === "" ? "" : `  → ${error.remedy}\n`}`,
    );
    return error.status;
  }
  const detail = error instanceof Error ? (error.stack ?? error.message) : String(error);
  process.stderr.write(
    `${style.red("fond:")} this is a fault of the program, not yours; nothing was written. Please report it with these lines:\n${detail}\n`,
  );
  return exitStatus.trouble;
}

await main();
