import type { Project, UseReading } from "../core/project/project.js";
import { diskUseCache } from "../disk/survey-cache.js";
import { useWorkers } from "../disk/survey-workers.js";
import type { CommandContext } from "./context.js";
import { showProgress } from "./terminal/progress.js";

/** How a command reads code for the rules, and what is to be done once it has. */
export interface CommandReading {
  readonly reading: UseReading;
  end(): void;
}

/**
 * Reads code in threads, and only what is not known from other runs. A project that has no configuration yet is read in this
 * thread alone: others would not find it.
 */
export function useReadingFor(
  { options: { cwd, quiet, jobs }, io }: CommandContext,
  { configFile }: Project,
  { what, cache: isKept = true, isAssumed = false }: CommandReadingOptions,
): CommandReading {
  const cache = isKept ? diskUseCache(cwd, io.env) : undefined;
  const progress = showProgress(what, quiet ?? false, io);
  return {
    reading: {
      ...(cache && { cache }),
      ...(!isAssumed && { elsewhere: useWorkers(cwd, configFile, jobs, progress.step) }),
    },
    end() {
      progress.end();
      cache?.save();
    },
  };
}

export interface CommandReadingOptions {
  /** What the line of progress names. */
  readonly what: string;
  /** Whether what was read is kept from run to run. */
  readonly cache?: boolean;
  readonly isAssumed?: boolean;
}
