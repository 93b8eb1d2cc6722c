import { createRequire } from "node:module";
import type * as Diff from "diff";
import { lazily } from "../text/lazy.js";
import type { FileChange } from "./plan.js";

const require = createRequire(import.meta.url);
const diff = lazily(() => require("diff") as typeof Diff);

/** One change as a unified diff with three lines of context; `/dev/null` stands for a file that is not there. */
export function unifiedDiff(change: FileChange): string {
  const { formatPatch, structuredPatch } = diff();
  const { before = "", after = "" } = change;
  const names = [
    change.before === undefined ? "/dev/null" : `a/${change.file}`,
    change.after === undefined ? "/dev/null" : `b/${change.file}`,
  ] as const;
  const patch = structuredPatch(...names, before, after, undefined, undefined, {
    context: 3,
    maxEditLength: mostEdits,
  });
  // Texts that have so little in common are shown as they were and as they will be.
  if (!patch) return replacementDiff(names, before, after);
  return formatPatch(patch)
    .replace(/^=+\n/, "")
    .replace(/^((?:---|\+\+\+) .*?)\t$/gm, "$1");
}

/** With more lines than this removed and added, finding the shortest way from one text to the other takes longer than reading both. */
const mostEdits = 10_000;

function replacementDiff([from, to]: readonly [string, string], before: string, after: string): string {
  const [old, fresh] = [before, after].map((text) => text.replace(/\n$/, "").split("\n")) as [
    string[],
    string[],
  ];
  return [
    `--- ${from}`,
    `+++ ${to}`,
    `@@ -1,${old.length} +1,${fresh.length} @@`,
    ...old.map((line) => `-${line}`),
    ...fresh.map((line) => `+${line}`),
    "",
  ].join("\n");
}
