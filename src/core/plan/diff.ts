import { formatPatch, structuredPatch } from "diff";
import type { FileChange } from "./plan.js";

/** One change as a unified diff with three lines of context; `/dev/null` stands for a file that is not there. */
export function unifiedDiff(change: FileChange): string {
  const patch = structuredPatch(
    change.before === undefined ? "/dev/null" : `a/${change.file}`,
    change.after === undefined ? "/dev/null" : `b/${change.file}`,
    change.before ?? "",
    change.after ?? "",
    undefined,
    undefined,
    { context: 3 },
  );
  return formatPatch(patch)
    .replace(/^=+\n/, "")
    .replace(/^((?:---|\+\+\+) .*?)\t$/gm, "$1");
}
