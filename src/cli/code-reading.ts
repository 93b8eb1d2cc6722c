import type { Project, SurveyOptions, UseReading } from "../core/project/project.js";
import { diskSurveyCache, diskUseCache } from "../disk/survey-cache.js";
import { threadsFor } from "../disk/survey-workers.js";
import type { CommandContext } from "./context.js";
import { showProgress } from "./terminal/progress.js";

/** How a command reads code, and what is to be done once it has. */
export interface CodeReading {
  readonly survey: Pick<SurveyOptions, "cache" | "elsewhere">;
  /** For the rules. */
  readonly uses: UseReading;
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
  const surveys = isKept ? diskSurveyCache(cwd, io.env) : undefined;
  const uses = isKept ? diskUseCache(cwd, io.env) : undefined;
  return {
    survey: { elsewhere, ...(surveys && { cache: surveys }) },
    uses: { elsewhere, ...(uses && { cache: uses }) },
    end() {
      progress.end();
      surveys?.save();
      uses?.save();
    },
  };
}
