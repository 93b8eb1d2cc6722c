import type { FormatName } from "../../core/config/names.js";
import type { MessageSyntax, PluralForms } from "../../core/message/names.js";
import { convertBook } from "../../core/project/convert.js";
import { openOrFail, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";

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
    throw new CommandError(
      "convert takes one book at a time",
      `name it with --book: ${books.map(({ name }) => name).join(", ")}`,
      exitStatus.usage,
    );
  const { to, files, inside, from, syntax, plurals } = options;
  if (
    to === undefined &&
    files === undefined &&
    inside === undefined &&
    from === undefined &&
    syntax === undefined &&
    plurals === undefined
  )
    throw new CommandError(
      "nothing is said of what the book is to become",
      "name a format with --to, a pattern with --files, a syntax with --syntax, or modules of code with --from",
      exitStatus.usage,
    );
  const result = await convertBook(project, book, {
    ...(to && { format: to }),
    ...(files !== undefined && { files }),
    ...(inside && { inside }),
    ...(from !== undefined && { from }),
    ...(syntax && { syntax }),
    ...(plurals && { plurals }),
  });
  if (!result.ok) {
    const lines = result.refusals.map(
      ({ file, line, column, message, remedy }) =>
        `${file}${line === undefined ? "" : `:${line}:${column ?? 1}`}: ${message}\n  → ${remedy}`,
    );
    throw new CommandError(
      `the book cannot be converted as it is\n${lines.join("\n")}`,
      "",
      exitStatus.toSettle,
    );
  }
  return settlePlan(context, "convert", result.plan, options);
}
