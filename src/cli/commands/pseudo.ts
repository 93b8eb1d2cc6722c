import { pseudoProject } from "../../core/project/pseudo.js";
import { defineCommand } from "../command.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  withWriteOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { usageError, type ExitStatus } from "../exit.js";

export interface PseudoCommandOptions extends WriteOptions {
  readonly mirror?: boolean;
  readonly plurals?: boolean;
}

/** Writes an artificial locale, to see what is not translated, cut off or laid out for one direction. */
export function runPseudo(
  context: CommandContext,
  [tag]: readonly string[],
  { mirror, plurals, ...options }: PseudoCommandOptions,
): ExitStatus {
  const project = openOrFail(context);
  const usual =
    project.config.pseudo?.[0] ?? `${project.config.source.split("-", 1)[0] ?? "en"}-${mirror ? "XB" : "XA"}`;
  const result = pseudoProject(project, scopeOf(context), tag ?? usual, {
    mirror: mirror ?? false,
    plurals: plurals ?? false,
  });
  if (!result.ok) throw usageError(result);
  return settlePlan(context, "pseudo", result.plan, options);
}

/** `fond pseudo` */
export const pseudoCommand = defineCommand<PseudoCommandOptions>({
  name: "pseudo",
  summary: "Write a pseudo-locale: accented, longer, in brackets, to see what is not translated or cut off",
  heeds: { json: true, books: true },
  examples: [["pseudo --mirror", "a pseudo-locale from right to left"]],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[tag]", "the tag of the pseudo-locale; default: the configured one, else en-XA")
      .option("--mirror", "write from right to left")
      .option("--plurals", "give every plural all six categories, each with its name before the text"),
  run: runPseudo,
});
