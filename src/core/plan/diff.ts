import { createRequire } from "node:module";
import type * as Diff from "diff";
import { lazily } from "../text/lazy.js";
import type { FileChange } from "./plan.js";

const require = createRequire(import.meta.url);
const diff = lazily(() => require("diff") as typeof Diff);

/** One change as a unified diff with three lines of context; `/dev/null` stands for a file that is not there. */
export function unifiedDiff(change: FileChange): string {
  const { formatPatch, structuredPatch } = diff();
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
