import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import type { SurveyElsewhere, SurveyReading } from "../core/project/project.js";
import type { UnreadSource } from "../core/source/book-code.js";
import type { FileSurvey } from "../core/survey/survey.js";

/** What a worker is given to do. */
export interface SurveyTask {
  readonly root: string;
  readonly configFile: string;
  readonly book: string;
  readonly files: readonly string[];
  readonly options: SurveyReading;
}

/** Below this many files starting threads costs more than it gains. */
const fewFiles = 150;

/** How many files are handed to a worker at a time. */
const portion = 40;

/** Surveys in as many threads as `jobs` says (as there are processors, where it says nothing); few files in this one alone. */
export function surveyWorkers(
  root: string,
  configFile: string,
  options: SurveyReading,
  jobs: number | undefined,
  progress: (done: number, of: number) => void,
): SurveyElsewhere {
  return async (book, files, shownErrors) => {
    const given = { ...options, shownErrors };
    const count =
      files.length < fewFiles
        ? 1
        : Math.min(jobs ?? availableParallelism(), Math.ceil(files.length / portion));
    const portions: string[][] = [];
    for (let at = 0; at < files.length; at += portion) portions.push(files.slice(at, at + portion));
    const results: (readonly (FileSurvey | UnreadSource)[])[] = [];
    let next = 0;
    let done = 0;
    // This thread takes its share too: a worker only pays where there is more than one to do.
    const { surveyTask } = await import("./survey-worker.js");
    const own = async () => {
      for (let index = next++; index < portions.length; index = next++) {
        const part = portions[index] ?? [];
        results[index] = await surveyTask({ root, configFile, book, files: part, options: given });
        progress((done += part.length), files.length);
        await new Promise((resume) => setImmediate(resume));
      }
    };
    const helper = () =>
      new Promise<void>((resolve, reject) => {
        const worker = new Worker(new URL("./survey-worker.js", import.meta.url), {
          resourceLimits: { maxYoungGenerationSizeMb: 64 },
        });
        let index = -1;
        const give = () => {
          index = next++;
          const part = portions[index];
          if (part)
            worker.postMessage({ root, configFile, book, files: part, options: given } satisfies SurveyTask);
          else void worker.terminate().then(() => resolve());
        };
        worker.on("message", (found: readonly (FileSurvey | UnreadSource)[]) => {
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
