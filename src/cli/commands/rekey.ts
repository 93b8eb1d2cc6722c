import { defineCommand } from "../command.js";
import { rekeyProject } from "../../core/project/rekey.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
} from "../context.js";
import { usageError, type ExitStatus } from "../exit.js";

/** Gives keys new names, in catalogs, ledger, waivers and code. */
export async function runRekey(
  context: CommandContext,
  [from = "", to = ""]: readonly string[],
  options: WriteOptions,
): Promise<ExitStatus> {
  const result = await rekeyProject(openOrFail(context), scopeOf(context), from, to);
  if (!result.ok) throw usageError(result);
  return settlePlan(context, "rekey", result.plan, options);
}

/** `fond rekey` */
export const rekeyCommand = defineCommand<WriteOptions>({
  name: "rekey",
  summary: "Rename, move or merge keys in catalogs, ledger, waivers and code",
  heeds: { json: true, books: true },
  examples: [["rekey 'sailings.status.*' 'sailings.state.*'", "rename a group everywhere"]],
  declare: (command) =>
    withWriteOptions(command)
      .argument("<from>", "a key, or a group such as checkout.*")
      .argument("<to>", "its new name, or the group's, such as basket.*"),
  run: runRekey,
});
