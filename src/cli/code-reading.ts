import type { ExtractWork } from "../core/project/extract-project.js";
import type { FileWork, WorkReading } from "../core/project/file-work.js";
import type { Project } from "../core/project/project.js";
import type { UseRecord } from "../core/source/book-code.js";
import type { FileSurvey } from "../core/survey/survey.js";
import { diskCache } from "../disk/run-cache.js";
import { threadsFor } from "../disk/threads.js";
import type { CommandContext } from "./context.js";
import { showProgress } from "./terminal/progress.js";

/** How a command reads code, and what is to be done once it has. */
export interface CodeReading {
  readonly survey: WorkReading<FileSurvey>;
  /** For the rules. */
  readonly uses: WorkReading<UseRecord>;
  readonly extract: ExtractWork;
  end(): void;
}

/**
 * Reads code in threads, and only what is not known from other runs; all of it where `isKept` is false. `what` names the work
 * while it goes on.
 */
export function codeReadingFor(
  { options: { cwd, quiet, jobs }, io }: CommandContext,
  { configFile }: Project,
  what: string,
  isKept = true,
): CodeReading {
  const progress = showProgress(what, quiet ?? false, io);
  const elsewhere = threadsFor(cwd, configFile, jobs, progress.step);
  const cacheOf = <Kind extends FileWork["kind"]>(kind: Kind) =>
    isKept ? diskCache(cwd, kind, io.env) : undefined;
  const [surveys, uses, trials] = [cacheOf("survey"), cacheOf("uses"), cacheOf("extract")];
  return {
    survey: { elsewhere, ...(surveys && { cache: surveys }) },
    uses: { elsewhere, ...(uses && { cache: uses }) },
    extract: { elsewhere, ...(trials && { cache: trials }) },
    end() {
      progress.end();
      for (const cache of [surveys, uses, trials]) cache?.save();
    },
  };
}
