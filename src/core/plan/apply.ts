import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import type { Lock, WritableFiles } from "../files/files.js";
import { contentDigest, type FileChange, type Plan } from "./plan.js";

/** The file that says which plan is being carried out; it exists only while one is. */
export const journalFile = ".fond-journal.json";

/**
 * How applying a plan ended. With `ok: true` every file is written; `left` then names records of this run that could not
 * be removed, and why. With `ok: false` every file is as it was, unless `reason` says otherwise.
 */
export type ApplyResult =
  | {
      readonly ok: true;
      readonly written: readonly string[];
      readonly left?: { readonly files: readonly string[]; readonly reason: string };
    }
  | ({ readonly ok: false; readonly file: string } & Notice);

const say = notices("apply", {
  "no-lock": {
    message: "{detail}",
    remedy: "nothing was written; check that the project's folder is writable",
  },
  locked: {
    message: "another run is writing here: {holder}",
    remedy: "nothing was written; run the command again when it has finished",
  },
  "not-finished": { message: "{detail}", remedy: "check that the project's folder is writable" },
  changed: {
    message: "the file changed after it was read, so the plan no longer applies",
    remedy: "run the command again to plan with the file as it is now",
  },
  twice: {
    message: "two parts of the plan change this file, each as if it were alone",
    remedy: "nothing was written; run the command for one book at a time with --book",
  },
  "not-staged": {
    message: "{detail}",
    remedy: "nothing was written; check that the file and its folder are writable",
  },
  "not-staged-left": {
    message: "{detail}",
    remedy: "nothing was written; check that the file and its folder are writable, and remove {files}",
  },
  "journal-unreadable": { message: "{detail}", remedy: "check its permissions, then run the command again" },
  "journal-broken": {
    message: "the record of an interrupted run cannot be read",
    remedy: "compare your files with version control, then remove {file}",
  },
  interrupted: {
    message: "an earlier run was interrupted while writing this file, and it has changed since",
    remedy: "compare it with {copy}, keep what you want, then remove {file}",
  },
  undone: {
    message: "{detail}",
    remedy: "nothing was written; check that the file can be replaced, then run the command again",
  },
  "undone-left": {
    message: "{detail}",
    remedy:
      "nothing was written; check that the file can be replaced and remove {files}, then run the command again",
  },
  "half-done": {
    message: "{detail}; {written} of {total} files were already written",
    remedy: "check that the file can be replaced, then run the command again: it finishes the rest first",
  },
});

interface Step {
  readonly file: string;
  /** Where the new text waits; absent for a file to remove. */
  readonly staged?: string;
  /** Where a copy of the old text is kept until all is done; absent for a new file. */
  readonly kept?: string;
  readonly before: string;
  readonly after: string;
}

interface Journal {
  readonly version: 1;
  readonly steps: readonly Step[];
}

/**
 * Applies a plan, all or nothing: checks that no file changed since it was read, stages every new text next to its target,
 * writes the journal, renames, and removes the journal. A run that is interrupted after the journal was written is finished
 * by `recover`.
 */
export function applyPlan(files: WritableFiles, plan: Plan): ApplyResult {
  let lock: Lock | undefined;
  try {
    lock = files.lock?.();
  } catch (error) {
    return {
      ok: false,
      file: plan.changes[0]?.file ?? journalFile,
      ...say("no-lock", { detail: messageOf(error) }),
    };
  }
  if (lock && !lock.ok)
    return {
      ok: false,
      file: plan.changes[0]?.file ?? journalFile,
      ...say("locked", { holder: lock.holder }),
    };
  try {
    return applyLocked(files, plan);
  } finally {
    if (lock?.ok) lock.release();
  }
}

/**
 * Finishes the plan of an interrupted run, if there is one, waiting for a run that is writing now. To be called before
 * anything is read that another plan builds on.
 */
export function finishInterrupted(files: WritableFiles): ApplyResult {
  let lock: Lock | undefined;
  try {
    lock = files.lock?.();
    // A run that is writing finishes its own plan.
    return lock && !lock.ok ? { ok: true, written: [] } : recover(files);
  } catch (error) {
    // Where nothing can be written, nothing was begun either.
    if (!files.exists(journalFile)) return { ok: true, written: [] };
    return {
      ok: false,
      file: journalFile,
      ...say("not-finished", { detail: messageOf(error) }),
    };
  } finally {
    if (lock?.ok) lock.release();
  }
}

function applyLocked(files: WritableFiles, plan: Plan): ApplyResult {
  const recovered = recover(files);
  if (!recovered.ok) return recovered;
  const twice = plan.changes.find(({ file }, index) => plan.changes[index + 1]?.file === file);
  if (twice) return { ok: false, file: twice.file, ...say("twice", {}) };
  const changed = plan.changes.find((change) => !isAsPlanned(files, change));
  if (changed) {
    return {
      ok: false,
      file: changed.file,
      ...say("changed", {}),
    };
  }
  const beside: string[] = [];
  const steps: Step[] = [];
  let current = "";
  const put = (ending: string, text: string | undefined, { file, bom, encoding }: FileChange) => {
    if (text === undefined) return undefined;
    const name = nameBeside(file, ending);
    beside.push(name);
    files.write(name, (bom ? "\uFEFF" : "") + text, encoding);
    return name;
  };
  try {
    for (const change of plan.changes) {
      current = change.file;
      const staged = put("new", change.after, change);
      const kept = put("old", change.before, change);
      steps.push({
        file: change.file,
        ...(staged !== undefined && { staged }),
        ...(kept !== undefined && { kept }),
        before: contentDigest(change.before),
        after: contentDigest(change.after),
      });
    }
    current = journalFile;
    const journal: Journal = { version: 1, steps };
    files.write(`${journalFile}.new`, JSON.stringify(journal, undefined, 2) + "\n");
    files.rename(`${journalFile}.new`, journalFile);
  } catch (error) {
    const left = removeAll(files, [...beside, `${journalFile}.new`]);
    return {
      ok: false,
      file: current,
      ...(left
        ? say("not-staged-left", { detail: messageOf(error), files: left.files.join(", ") })
        : say("not-staged", { detail: messageOf(error) })),
    };
  }
  const finished = recover(files);
  return finished.ok ? { ...finished, written: plan.changes.map((change) => change.file) } : finished;
}

/**
 * Finishes a plan whose journal is still there, as after a crash. Does nothing without a journal.
 * A file that somebody changed in the meantime is not overwritten: then this says which.
 */
export function recover(files: WritableFiles): ApplyResult {
  const read = files.read(journalFile);
  if (!read.ok) {
    if (read.trouble === "absent") return { ok: true, written: [] };
    return {
      ok: false,
      file: journalFile,
      ...say("journal-unreadable", { detail: read.detail }),
    };
  }
  const journal = parseJournal(read.text);
  if (!journal) {
    return {
      ok: false,
      file: journalFile,
      ...say("journal-broken", { file: journalFile }),
    };
  }
  const pending = journal.steps.filter((step) => digestNow(files, step.file) !== step.after);
  for (const step of pending) {
    if (
      digestNow(files, step.file) !== step.before ||
      (step.staged !== undefined && digestNow(files, step.staged) !== step.after)
    ) {
      return {
        ok: false,
        file: step.file,
        ...say("interrupted", { copy: step.staged ?? "version control", file: journalFile }),
      };
    }
  }
  const written: string[] = [];
  for (const step of pending) {
    try {
      if (step.staged === undefined) files.remove(step.file);
      else files.rename(step.staged, step.file);
      written.push(step.file);
    } catch (error) {
      return undo(files, journal, written, step.file, messageOf(error));
    }
  }
  // The journal goes last: a run that is killed here is known to have written all.
  const left = removeAll(files, [...recordsOf(journal), journalFile]);
  return { ok: true, written, ...(left && { left }) };
}

/** What lies beside the files of a plan while it is applied. */
function recordsOf({ steps }: Journal): readonly (string | undefined)[] {
  return steps.flatMap((step) => [step.staged, step.kept]);
}

/** Removes the records of a run; says which of them the system refused to remove, and its first reason. */
function removeAll(files: WritableFiles, names: readonly (string | undefined)[]) {
  const left: string[] = [];
  let reason: string | undefined;
  for (const name of names) {
    if (name === undefined || !files.exists(name)) continue;
    try {
      files.remove(name);
    } catch (error) {
      left.push(name);
      reason ??= messageOf(error);
    }
  }
  return reason === undefined ? undefined : { files: left, reason };
}

/** A rename was refused half-way: puts the old texts back. Where that is refused too, the journal stays. */
function undo(
  files: WritableFiles,
  journal: Journal,
  written: readonly string[],
  file: string,
  reason: string,
): ApplyResult {
  try {
    for (const step of journal.steps) {
      if (!written.includes(step.file)) continue;
      if (step.kept === undefined) files.remove(step.file);
      else files.rename(step.kept, step.file);
    }
    // Here it goes first: without it the records have no meaning, and every file is as it was.
    const left = removeAll(files, [journalFile, ...recordsOf(journal)]);
    return {
      ok: false,
      file,
      ...(left
        ? say("undone-left", { detail: reason, files: left.files.join(", ") })
        : say("undone", { detail: reason })),
    };
  } catch {
    return {
      ok: false,
      file,
      ...say("half-done", { detail: reason, written: written.length, total: journal.steps.length }),
    };
  }
}

function isAsPlanned(files: WritableFiles, change: FileChange): boolean {
  return digestNow(files, change.file) === contentDigest(change.before);
}

function digestNow(files: WritableFiles, file: string): string {
  const read = files.read(file);
  if (read.ok) return contentDigest(read.text);
  return read.trouble === "absent" ? contentDigest(undefined) : read.trouble;
}

function nameBeside(file: string, ending: string): string {
  const slash = file.lastIndexOf("/") + 1;
  return `${file.slice(0, slash)}.${file.slice(slash)}.fond-${ending}`;
}

function parseJournal(text: string): Journal | undefined {
  try {
    const value = JSON.parse(text) as Partial<Journal> | null;
    return value?.version === 1 && Array.isArray(value.steps) && value.steps.every(isStep)
      ? (value as Journal)
      : undefined;
  } catch {
    return undefined;
  }
}

/** Whether a journal's entry can be one of ours: it moves only what lies beside its target under our own names. */
function isStep(value: unknown): value is Step {
  const { file, staged, kept, before, after } = (value ?? {}) as Partial<Record<keyof Step, unknown>>;
  return (
    typeof file === "string" &&
    typeof before === "string" &&
    typeof after === "string" &&
    (staged === undefined || staged === nameBeside(file, "new")) &&
    (kept === undefined || kept === nameBeside(file, "old"))
  );
}

function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
