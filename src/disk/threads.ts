import { existsSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import type { Elsewhere, FileTask } from "../core/project/file-work.js";

/** What a worker is given to do. */
export interface ThreadTask extends FileTask {
  readonly root: string;
  readonly configFile: string;
}

/** Below this many files starting threads costs more than it gains. */
const fewFiles = 150;

/** How many files are handed to a worker at a time. */
const portion = 40;

/**
 * Does what is to be done with files of code in as many threads as `jobs` says (as there are processors, where it says nothing);
 * with few of them, and where other threads would find no configuration, in this one alone.
 */
export function threadsFor(
  root: string,
  configFile: string,
  jobs: number | undefined,
  progress: (done: number, of: number) => void,
): Elsewhere {
  return async <Made>(
    task: FileTask,
    here: (files: readonly string[]) => Promise<readonly Made[]>,
  ): Promise<readonly Made[]> => {
    const { files } = task;
    const taskOf = (part: readonly string[]): ThreadTask => ({ ...task, root, configFile, files: part });
    const isAlone = files.length < fewFiles || !existsSync(join(root, configFile));
    const count = isAlone ? 1 : Math.min(jobs ?? availableParallelism(), Math.ceil(files.length / portion));
    const portions: string[][] = [];
    for (let at = 0; at < files.length; at += portion) portions.push(files.slice(at, at + portion));
    const results: (readonly Made[])[] = [];
    let next = 0;
    let done = 0;
    // This thread takes its share too: a worker only pays where there is more than one to do.
    const own = async () => {
      for (let index = next++; index < portions.length; index = next++) {
        const part = portions[index] ?? [];
        results[index] = await here(part);
        progress((done += part.length), files.length);
        await new Promise((resume) => setImmediate(resume));
      }
    };
    const helper = () =>
      new Promise<void>((resolve, reject) => {
        const worker = new Worker(new URL("./thread.js", import.meta.url), {
          resourceLimits: { maxYoungGenerationSizeMb: 64 },
        });
        let index = -1;
        const give = () => {
          index = next++;
          const part = portions[index];
          if (part) worker.postMessage(taskOf(part));
          else void worker.terminate().then(() => resolve());
        };
        worker.on("message", (found: readonly Made[]) => {
          results[index] = found;
          progress((done += found.length), files.length);
          give();
        });
        worker.on("error", reject);
        give();
      });
    await Promise.all([own(), ...Array.from({ length: count - 1 }, helper)]);
    return results.flat();
  };
}
