import { notices } from "../../core/message/notices.js";
import { declareProject } from "../../core/project/declare.js";
import { booksIn } from "../../core/project/project.js";
import { defineCommand } from "../command.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  withWriteOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { runOnChanges, withWatchOption } from "../watch.js";
import { usageError, type ExitStatus } from "../exit.js";

const say = notices("cli/declare", {
  "no-file": {
    message: "no book says where its declarations go",
    remedy: 'set "declare" in a book to a file, such as "src/texts.keys.d.ts"',
  },
});

export interface DeclareCommandOptions extends WriteOptions {
  readonly watch?: boolean;
}

/** Writes the TypeScript declarations of keys and of what their texts take. */
export function runDeclare(context: CommandContext, options: WriteOptions): ExitStatus {
  const project = openOrFail(context);
  const scope = scopeOf(context);
  if (booksIn(project, scope).every(({ declare }) => declare === undefined))
    throw usageError(say("no-file", {}));
  return settlePlan(context, "declare", declareProject(project, scope), options);
}

/** `fond declare` */
export const declareCommand = defineCommand<DeclareCommandOptions>({
  name: "declare",
  summary: "Write TypeScript declarations of the keys and of the values that each text takes",
  heeds: { json: true, books: true },
  examples: [["declare --write", "declarations for the compiler and the editor"]],
  declare: (command) => withWatchOption(withWriteOptions(command)),
  run: (context, _, options) =>
    options.watch
      ? runOnChanges(context, (again) => runDeclare(again, options))
      : runDeclare(context, options),
});
