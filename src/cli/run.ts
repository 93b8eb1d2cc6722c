import { Command, CommanderError, InvalidArgumentError } from "commander";
import {
  commandContext,
  heedsNothing,
  oneOf,
  settleInterrupted,
  wholeNumber,
  withChangeOptions,
  withCommonOptions,
  withWriteOptions,
  type WriteOptions,
  type CommandContext,
  type CommonOptions,
  type Heeded,
} from "./context.js";
import type { SurveyCommandOptions } from "./commands/survey.js";
import { formatNames } from "../core/config/names.js";
import { messageSyntaxNames, pluralFormNames } from "../core/message/names.js";
import type { BalanceCommandOptions } from "./commands/balance.js";
import type { ReviewCommandOptions } from "./commands/review-keys.js";
import type { ConvertCommandOptions } from "./commands/convert.js";
import type { ExtractCommandOptions } from "./commands/extract.js";
import type { LintCommandOptions } from "./commands/lint.js";
import type { PreviewCommandOptions } from "./commands/preview.js";
import type { WaiveCommandOptions } from "./commands/waive.js";
import { CommandError, exitStatus, type ExitStatus } from "./exit.js";
import { manifestVersion } from "./manifest.js";
import { makeStyle, terminalText, wantsColor } from "./terminal/style.js";
import type { Io } from "./io.js";
import { reportForms } from "../output/findings.js";

type Run<Options> = (
  context: CommandContext,
  paths: readonly string[],
  options: Options,
) => ExitStatus | Promise<ExitStatus>;

/**
 * Runs the program and says how it ends. Output goes to `io`; an error that a person can do something about is said there,
 * without a stack.
 *
 * @param args the words behind the program's name
 */
export async function run(args: readonly string[], io: Io): Promise<ExitStatus> {
  let status: ExitStatus = exitStatus.inOrder;
  try {
    const program = buildProgram(io, (ended) => (status = ended));
    await program.parseAsync([...args], { from: "user" });
    return status;
  } catch (error) {
    return report(error, args, io);
  }
}

function buildProgram(io: Io, end: (status: ExitStatus) => void): Command {
  const program = new Command("fond")
    .description(
      "Extract UI strings, keep locale catalogs in sync, and catch broken translations before release.",
    )
    .version(manifestVersion(), "--version", "print the version")
    .helpOption("--help", "print this help")
    .showSuggestionAfterError()
    .configureOutput({
      writeOut: (text) => void io.stdout.write(text),
      writeErr: (text) => void io.stderr.write(text),
      outputError: (text, write) => write(terminalText(`fond: ${text.replace(/^error: /, "")}`)),
      getOutHelpWidth: () => io.stdout.columns ?? 80,
      getErrHelpWidth: () => io.stderr.columns ?? 80,
      getOutHasColors: () => false,
      getErrHasColors: () => false,
    })
    .exitOverride();
  const add = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .exitOverride()
      .helpOption("--help", "print this help")
      .configureOutput(program.configureOutput());
  /** Registers one command with the common options that it heeds; what it needs is loaded when it runs. */
  const register = <Options>(command: Command, heeds: Heeded, runIt: Run<Options>) => {
    withCommonOptions(command, heeds).action(async (...given: unknown[]) => {
      const words = given
        .slice(0, command.registeredArguments.length)
        .flat()
        .filter((one): one is string => typeof one === "string");
      const options: CommonOptions & Options = { ...heedsNothing, ...command.opts() };
      const context = commandContext(options, io);
      if ("write" in options && options.write === true) settleInterrupted(context);
      end(await runIt(context, words, options));
      context.finish();
    });
  };

  register<WriteOptions & { mergeDriver?: boolean }>(
    withWriteOptions(add("init", "look at the project and write its configuration"))
      .option("--ask", "ask what the files do not tell, where there is no terminal too")
      .option("--yes", "ask nothing, on a terminal too")
      .option("--merge-driver", "set Git up to merge the project's catalogs and ledgers by key"),
    { json: true },
    async (context, _, options) => (await import("./commands/init.js")).runInit(context, options),
  );
  register<SurveyCommandOptions>(
    withChangeOptions(add("survey", "find hard-coded interface text in code, judged and explained"))
      .argument("[paths...]", "files or folders to look at")
      .option("--all", "list what was judged to be code as well")
      .option("--no-cache", "judge every file anew"),
    { json: true, books: true, jobs: true },
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
    { json: true, books: true },
    async (context, paths, options) =>
      (await import("./commands/extract.js")).runExtract(context, paths, options),
  );
  register<{ keepExtra?: boolean; fromHistory?: boolean }>(
    withWriteOptions(add("reconcile", "bring every locale into step with the source catalog"))
      .option("--keep-extra", "leave keys that the source lacks where they are")
      .option("--from-history", "work out from Git what translations without a record were made from"),
    { json: true, books: true, locales: true },
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
      .option("--fix", "fix what can safely be fixed: prints the plan, --write applies it")
      .option("--explain <rule>", "print what a rule is for, with examples")
      .option("--baseline", "accept all that is found today as waivers, so that only what is new shows"),
    { json: true, books: true, locales: true, forms: reportForms },
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
    { json: true, books: true, locales: true },
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
    { json: true, books: true },
    async (context, _, options) => (await import("./commands/convert.js")).runConvert(context, options),
  );
  register<WaiveCommandOptions>(
    withWriteOptions(add("waive", "accept a finding or a literal as it is, with a reason"))
      .argument("[place]", "a literal's place in code, as file:line or file:line:column")
      .option("--rule <rule>", "accept findings of this rule")
      .option("--key <pattern>", "only on these keys (* and ** stand for parts)")
      .option("--reason <words>", "why it is accepted")
      .option("--until <day>", "the last day on which it counts, as YYYY-MM-DD"),
    { json: true, books: true, locales: true },
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
    { json: true, books: true, locales: true },
    async (context, _, options) => (await import("./commands/balance.js")).runBalance(context, options),
  );
  register<WriteOptions>(
    withWriteOptions(add("locale", "list the project's locales, open a new one, or set one aside"))
      .argument("[action]", "list, add or drop")
      .argument("[tag]", "the locale's tag, such as pt-BR"),
    { json: true },
    async (context, words, options) =>
      (await import("./commands/locale.js")).runLocale(context, words, options),
  );
  register<WriteOptions>(
    withWriteOptions(add("rekey", "rename, move or merge keys in catalogs, ledger, waivers and code"))
      .argument("<from>", "a key, or a group such as checkout.*")
      .argument("<to>", "its new name, or the group's: basket.*"),
    { json: true, books: true },
    async (context, keys, options) => (await import("./commands/rekey.js")).runRekey(context, keys, options),
  );
  register<ReviewCommandOptions>(
    withWriteOptions(add("review", "say in the ledger that translations were read, or fit a changed source"))
      .argument("<keys...>", "keys or patterns (* and **); --locale names the locales")
      .option(
        "--state <state>",
        "the state they are given: translated, reviewed (the default) or final",
        oneOf("translated", "reviewed", "final"),
      )
      .option(
        "--same-meaning",
        "the source text changed but not its meaning: stale translations fit as they are",
      ),
    { json: true, books: true, locales: true },
    async (context, keys, options) =>
      (await import("./commands/review-keys.js")).runReview(context, keys, options),
  );
  register(
    add("merge", "merge three versions of a catalog or ledger by key, as a merge driver for Git")
      .argument("<base>", "the version that both sides come from")
      .argument("<ours>", "our version; the result takes its place")
      .argument("<theirs>", "their version")
      .argument("[name]", "the file's name in the project, which says its format"),
    {},
    async (context, paths) => (await import("./commands/merge.js")).runMerge(context, paths),
  );
  register(
    add("demo", "walk through the whole job on a sample project").argument(
      "[folder]",
      "the new folder to do it in",
      "fond-demo",
    ),
    {},
    async (context, paths) => (await import("./commands/demo.js")).runDemo(context, paths[0] ?? "fond-demo"),
  );
  return program;
}

/** Says what went wrong on stderr and gives the status to end with. */
function report(error: unknown, args: readonly string[], { stderr, env }: Io): ExitStatus {
  if (error instanceof CommanderError) return error.exitCode === 0 ? exitStatus.inOrder : exitStatus.usage;
  const style = makeStyle(wantsColor(stderr, !args.includes("--no-color"), env));
  const say = (words: string) => void stderr.write(terminalText(`${style.red("fond:")} ${words}\n`));
  if (error instanceof CommandError) {
    say(error.remedy === "" ? error.message : `${error.message}\n  → ${error.remedy}`);
    return error.status;
  }
  const detail = error instanceof Error ? (error.stack ?? error.message) : String(error);
  say(`internal error (this is a bug in fond). Please report it with these lines:\n${detail}`);
  return exitStatus.trouble;
}
