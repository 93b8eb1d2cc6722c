import type * as ChildProcess from "node:child_process";
import { createRequire } from "node:module";
import { lazily } from "../core/text/lazy.js";
import { reasonOf } from "./disk-files.js";

const require = createRequire(import.meta.url);

/** Node takes a while to load it, and most runs do not ask Git. */
const processes = lazily(() => require("node:child_process") as typeof ChildProcess);

/** The lines of a project that a revision does not have, by file; paths are relative to the project's folder. */
export interface ChangedLines {
  has(file: string, line: number, endLine?: number): boolean;
  hasFile(file: string): boolean;
}

export type ChangesResult =
  { readonly ok: true; readonly changes: ChangedLines } | { readonly ok: false; readonly reason: string };

/** What Git says has changed below a folder: since a revision, or in what is staged. Files that Git does not know yet are new as a whole. */
export function changedLines(
  root: string,
  from: { readonly since: string } | { readonly staged: true },
): ChangesResult {
  try {
    const base = "since" in from ? [resolveRevision(root, from.since)] : ["--cached"];
    const diff = git(root, [
      "diff",
      "--relative",
      "--no-color",
      "--no-ext-diff",
      "--no-renames",
      "-U0",
      ...base,
      "--",
      ".",
    ]);
    const untracked =
      "since" in from ? git(root, ["ls-files", "--others", "--exclude-standard", "-z", "--", "."]) : "";
    const lines = readDiff(diff);
    for (const file of untracked.split("\0")) if (file !== "") lines.set(file, [[1, Infinity]]);
    return {
      ok: true,
      changes: {
        has: (file, line, endLine = line) =>
          lines.get(file)?.some(([first, last]) => line <= last && endLine >= first) ?? false,
        hasFile: (file) => lines.has(file),
      },
    };
  } catch (error) {
    return { ok: false, reason: gitTrouble(error) };
  }
}

/** The commit of a revision; what is none must not be taken for an option. */
function resolveRevision(root: string, revision: string): string {
  return git(root, ["rev-parse", "--verify", "--quiet", "--end-of-options", `${revision}^{commit}`]).trim();
}

/** Runs Git in a folder. Throws where it cannot be run or fails. */
export function git(root: string, given: readonly string[]): string {
  return processes().execFileSync("git", ["-c", "core.quotePath=false", ...given], {
    cwd: root,
    encoding: "utf8",
    maxBuffer: 1 << 30,
    stdio: ["ignore", "pipe", "pipe"],
  });
}

/** The lines that a diff without context adds, by file. */
export function readDiff(diff: string): Map<string, (readonly [first: number, last: number])[]> {
  const lines = new Map<string, (readonly [number, number])[]>();
  let file: string | undefined;
  for (const line of diff.split("\n")) {
    if (line.startsWith("diff --git ")) file = undefined;
    const name = /^\+\+\+ (?:"b\/((?:[^"\\]|\\.)*)"|b\/(.*?)\t?$)/.exec(line);
    if (name && file === undefined) file = name[2] ?? (name[1] ?? "").replace(/\\(.)/g, "$1");
    const hunk = /^@@ -\S+ \+(\d+)(?:,(\d+))? @@/.exec(line);
    if (!hunk || file === undefined) continue;
    const first = Number(hunk[1]);
    const count = Number(hunk[2] ?? 1);
    const ranges = lines.get(file) ?? [];
    if (count > 0) ranges.push([first, first + count - 1]);
    lines.set(file, ranges);
  }
  return lines;
}

/** Why Git failed, in words. */
export function gitTrouble(error: unknown): string {
  if ((error as NodeJS.ErrnoException).code === "ENOENT") return "Git is not installed";
  const said = (error as { stderr?: string }).stderr?.trim() ?? "";
  if (/not a git repository/i.test(said)) return "the project is in no Git repository";
  if (/does not have any commits/i.test(said)) return "the repository has no commits yet";
  return said === "" ? "Git knows no such revision" : (said.split("\n")[0] ?? reasonOf(error));
}
