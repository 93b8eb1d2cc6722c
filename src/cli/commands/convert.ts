import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { formatNames, type FormatName } from "../../core/config/names.js";
import {
  messageSyntaxNames,
  pluralFormNames,
  type MessageSyntax,
  type PluralForms,
} from "../../core/message/names.js";
import { convertBook } from "../../core/project/convert.js";
import {
  openOrFail,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
  oneOf,
} from "../context.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";

const say = notices("cli/convert", {
  "one-book": { message: "convert takes one book at a time", remedy: "name it with --book: {books}" },
  "no-target": {
    message: "no target given",
    remedy:
      "give a format with --to, a pattern with --files, a syntax with --syntax, or modules of code with --from",
  },
  "not-converted": {
    message: "the book cannot be converted as it is",
    remedy: "fix what is listed here, then convert again",
  },
});

export interface ConvertCommandOptions extends WriteOptions {
  readonly to?: FormatName;
  readonly files?: string;
  readonly inside?: "root" | "leaf" | "none";
  readonly from?: string;
  readonly syntax?: MessageSyntax;
  readonly plurals?: PluralForms;
}

/** Moves a book to another format or layout, or reads its texts from modules of code. */
export async function runConvert(
  context: CommandContext,
  options: ConvertCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const { books } = project.config;
  const wanted = books.filter(({ name }) => context.options.book?.includes(name) ?? books.length === 1);
  const [book] = wanted;
  if (!book || wanted.length > 1)
    throw usageError(say("one-book", { books: books.map(({ name }) => name).join(", ") }));
  const { to, files, inside, from, syntax, plurals } = options;
  if (
    to === undefined &&
    files === undefined &&
    inside === undefined &&
    from === undefined &&
    syntax === undefined &&
    plurals === undefined
  )
    throw usageError(say("no-target", {}));
  const result = convertBook(project, book, {
    ...(to && { format: to }),
    ...(files !== undefined && { files }),
    ...(inside && { inside }),
    ...(from !== undefined && { from }),
    ...(syntax && { syntax }),
    ...(plurals && { plurals }),
  });
  if (!result.ok) {
    const refusals = result.refusals.map(({ file, line, column, ...notice }) => ({
      ...notice,
      place: `${file}${line === undefined ? "" : `:${line}:${column ?? 1}`}: `,
    }));
    throw new CommandError([say("not-converted", {}), ...refusals], exitStatus.toSettle);
  }
  return settlePlan(context, "convert", result.plan, options);
}

/** `fond convert` */
export const convertCommand = defineCommand<ConvertCommandOptions>({
  name: "convert",
  summary: "Convert a book to another file format, layout or message syntax, or import its texts from code",
  heeds: { json: true, books: true },
  examples: [["convert --book kiosk --to json", "a book as JSON"]],
  declare: (command) =>
    withWriteOptions(command)
      .option("--to <format>", `convert to this format: ${formatNames.join(", ")}`, oneOf(...formatNames))
      .option("--files <pattern>", "write the new catalogs here, as in the configuration")
      .option(
        "--inside <place>",
        "put the locale here in the new files: root, leaf or none",
        oneOf("root", "leaf", "none"),
      )
      .option(
        "--syntax <name>",
        `convert to this message syntax: ${messageSyntaxNames.join(", ")}`,
        oneOf(...messageSyntaxNames),
      )
      .option(
        "--plurals <form>",
        `store plurals like this: ${pluralFormNames.join(", ")}`,
        oneOf(...pluralFormNames),
      )
      .option("--from <pattern>", "read modules of code (.js, .ts, .php) instead of the book's catalogs"),
  run: (context, _, options) => runConvert(context, options),
});
