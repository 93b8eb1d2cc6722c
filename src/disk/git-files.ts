import { memoryFiles } from "../core/files/memory-files.js";
import { globTest } from "../core/files/glob.js";
import type { CatalogRevision } from "../core/ledger/history.js";
import type { Revision } from "../core/project/trend.js";
import { git } from "./git.js";

/** The last revisions that touched some files, the oldest first; `tags` takes the tags of releases instead of commits. */
export function* revisionsOf(
  root: string,
  patterns: readonly string[],
  most: number,
  tags: boolean,
): Generator<Revision> {
  const wanted = globTest(patterns);
  const listed = tags
    ? git(root, [
        "for-each-ref",
        "--sort=-creatordate",
        `--count=${most}`,
        "--format=%(refname:short)%09%(creatordate:short)",
        "refs/tags",
      ])
    : git(root, [
        "log",
        `--max-count=${most}`,
        "--format=%h%x09%cs",
        "--",
        ...patterns.map((one) => `:(glob)${one}`),
      ]);
  const lines = listed.split("\n").filter((line) => line !== "");
  const prefix = git(root, ["rev-parse", "--show-prefix"]).trim();
  for (const line of lines.reverse()) {
    const [name = "", date = ""] = line.split("\t");
    const names = git(root, ["ls-tree", "-r", "-z", "--name-only", name]).split("\0");
    const files = memoryFiles();
    for (const path of names)
      if (wanted(path)) files.contents.set(path, git(root, ["show", `${name}:${prefix}${path}`]));
    yield { name, date, files };
  }
}

/** A merge by lines of three texts in files; undefined where it leaves conflicts. */
export function mergeByLines(cwd: string, base: string, ours: string, theirs: string): string | undefined {
  try {
    return git(cwd, ["merge-file", "-p", "--quiet", ours, base, theirs]);
  } catch {
    return undefined;
  }
}

/** Both sides with conflict markers, as Git leaves them itself; undefined where Git cannot be run. */
export function mergeWithMarkers(
  cwd: string,
  base: string,
  ours: string,
  theirs: string,
): string | undefined {
  try {
    return git(cwd, [
      "merge-file",
      "-p",
      "--quiet",
      "-L",
      "ours",
      "-L",
      "base",
      "-L",
      "theirs",
      ours,
      base,
      theirs,
    ]);
  } catch (error) {
    const { status, stdout } = error as { readonly status?: number | null; readonly stdout?: string };
    // Git ends with the number of conflicts; 255 is its own failure.
    return status && status < 128 ? stdout : undefined;
  }
}

/** The commits that changed some files, the oldest first, each with the files that it changed as it left them. */
export function* changesOfFiles(root: string, patterns: readonly string[]): Generator<CatalogRevision> {
  const prefix = git(root, ["rev-parse", "--show-prefix"]).trim();
  const log = git(root, [
    "log",
    "--reverse",
    "--no-renames",
    "--diff-filter=AM",
    "--relative",
    "--format=%x01%H%x09%cs",
    "--name-only",
    "-z",
    "--",
    ...patterns.map((one) => `:(glob)${one}`),
  ]);
  const wanted = globTest(patterns);
  for (const part of log.split("\u0001")) {
    const [head = "", ...names] = part.split("\0").map((one) => one.trim());
    const [commit = "", date = ""] = head.split("\t");
    if (commit === "") continue;
    const files = memoryFiles();
    for (const name of names)
      if (name !== "" && wanted(name))
        files.contents.set(name, git(root, ["show", `${commit}:${prefix}${name}`]));
    if (files.contents.size > 0) yield { date, files };
  }
}
