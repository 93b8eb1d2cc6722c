import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import type { SurveyElsewhere, SurveyReading, UsesElsewhere } from "../core/project/project.js";
import type { UnreadSource, UseRecord } from "../core/source/book-code.js";
import type { FileSurvey } from "../core/survey/survey.js";

/** What a worker is given to do: a survey with these options, or without any to read what files ask for. */
export interface FileTask {
  readonly root: string;
  readonly configFile: string;
  readonly book: string;
  readonly files: readonly string[];
  readonly options?: SurveyReading;
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
  const work = threads<FileSurvey>(root, configFile, jobs, progress);
  return (book, files, shownErrors) => work(book, files, { ...options, shownErrors });
}

/** Reads what files of code ask for, in threads likewise. */
export function useWorkers(
  root: string,
  configFile: string,
  jobs: number | undefined,
  progress: (done: number, of: number) => void,
): UsesElsewhere {
  return threads<UseRecord>(root, configFile, jobs, progress);
}

function threads<Made>(
  root: string,
  configFile: string,
  jobs: number | undefined,
  progress: (done: number, of: number) => void,
): (
  book: string,
  files: readonly string[],
  options?: SurveyReading,
) => Promise<readonly (Made | UnreadSource)[]> {
  return async (book, files, options) => {
    const taskOf = (part: readonly string[]): FileTask => ({
      root,
      configFile,
      book,
      files: part,
      ...(options && { options }),
    });
    const count =
      files.length < fewFiles
        ? 1
        : Math.min(jobs ?? availableParallelism(), Math.ceil(files.length / portion));
    const portions: string[][] = [];
    for (let at = 0; at < files.length; at += portion) portions.push(files.slice(at, at + portion));
    const results: (readonly (Made | UnreadSource)[])[] = [];
    let next = 0;
    let done = 0;
    // This thread takes its share too: a worker only pays where there is more than one to do.
    const { doTask } = await import("./survey-worker.js");
    const own = async () => {
      for (let index = next++; index < portions.length; index = next++) {
        const part = portions[index] ?? [];
        results[index] = (await doTask(taskOf(part))) as (Made | UnreadSource)[];
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
          if (part) worker.postMessage(taskOf(part));
          else void worker.terminate().then(() => resolve());
        };
        worker.on("message", (found: readonly (Made | UnreadSource)[]) => {
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
