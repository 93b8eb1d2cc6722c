import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { readFileSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { formatOf } from "../../core/catalog/formats/index.js";
import { mergeCatalogs, withMarkers } from "../../core/catalog/merge.js";
import { isLedgerText, mergeLedgers } from "../../core/ledger/merge.js";
import { mergeByLines, mergeWithMarkers } from "../../disk/git-files.js";
import { reasonOf } from "../../disk/disk-files.js";
import type { CommandContext } from "../context.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";

const say = notices("cli/merge", {
  "no-version": {
    message: "{path}: {detail}",
    remedy: "name the three versions of a file: base, ours, theirs",
  },
});

/** Merges three versions of a catalog or ledger by key, as Git asks a merge driver to: the result takes ours' place. */
export function runMerge(context: CommandContext, paths: readonly string[]): ExitStatus {
  const [base = "", ours = "", theirs = "", name = ours] = paths;
  const { cwd } = context.options;
  const read = (path: string) => {
    try {
      return readFileSync(resolve(cwd, path), "utf8");
    } catch (error) {
      throw usageError(say("no-version", { path, detail: reasonOf(error) }));
    }
  };
  const [was, our, their] = [read(base), read(ours), read(theirs)];
  const write = (text: string) => writeFileSync(resolve(cwd, ours), text);
  if (isLedgerText(our) && isLedgerText(their)) {
    write(mergeLedgers(was, our, their));
    return exitStatus.inOrder;
  }
  const format = formatOf({ files: name });
  const bare = (text: string) => text.replace(/^\uFEFF/, "");
  const byLine = mergeByLines(cwd, base, ours, theirs);
  const merged = mergeCatalogs(format, bare(was), bare(our), bare(their), byLine && bare(byLine));
  if (!merged) {
    write(byLine ?? mergeWithMarkers(cwd, base, ours, theirs) ?? withMarkers(our, their));
    if (byLine !== undefined) return exitStatus.inOrder;
    context.say(
      `${name}: cannot be merged by key, because one side cannot be read or turns a text into a group; its lines are in conflict`,
    );
    return exitStatus.toSettle;
  }
  write((our.startsWith("\uFEFF") ? "\uFEFF" : "") + merged.text);
  for (const key of merged.conflicts) context.say(`${name}: both sides changed ${key}`);
  return merged.conflicts.length > 0 ? exitStatus.toSettle : exitStatus.inOrder;
}

/** `fond merge` */
export const mergeCommand = defineCommand({
  name: "merge",
  summary: "Merge three versions of a catalog or ledger by key, as a merge driver for Git",
  heeds: {},
  declare: (command) =>
    command
      .argument("<base>", "the common ancestor")
      .argument("<ours>", "our version, which the result replaces")
      .argument("<theirs>", "their version")
      .argument("[name]", "the file's name in the project, which tells its format"),
  run: runMerge,
});
