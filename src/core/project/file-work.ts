import type { BookConfig } from "../config/schema.js";
import type { FileText } from "../files/files.js";
import type { UnreadSource } from "../source/book-code.js";
import { prepareReaders } from "../source/read.js";
import { digestOf } from "../text/digest.js";
import type { ExtractReading } from "./extract-project.js";
import type { Project } from "./project.js";
import type { SurveyReading } from "./survey-project.js";

/** Where what was made of files is kept from run to run, by a digest of all that it depends on. */
export interface RunCache<Made> {
  get(id: string): Made | undefined;
  set(id: string, made: Made): void;
}

/** What is to be done with each file: survey it, read what it asks for, or try its extraction. */
export type FileWork =
  | { readonly kind: "survey"; readonly reading: SurveyReading }
  | { readonly kind: "uses" }
  | { readonly kind: "extract"; readonly reading: ExtractReading };

/** Files of a book that work is to be done on. */
export interface FileTask {
  readonly book: string;
  readonly files: readonly string[];
  readonly work: FileWork;
}

/** Does a task elsewhere as well, such as in other threads, and parts of it by `here`; results in the order of the files. */
export type Elsewhere = <Made>(
  task: FileTask,
  here: (files: readonly string[]) => Promise<readonly Made[]>,
) => Promise<readonly Made[]>;

/** How files are worked on: what is known from other runs, and who helps. */
export interface WorkReading<Made> {
  readonly cache?: RunCache<Made>;
  readonly elsewhere?: Elsewhere;
  /** Told after each file that is done in this thread how many are, where nobody helps. */
  readonly progress?: (done: number, of: number) => void;
}

/** What is to be done with one file, which was read; files that cannot be read never come to it. */
export type DoneHere<Made> = (file: string, read: Extract<FileText, { ok: true }>) => Made;

/** What work came to: each file's result, and those files that cannot be read. */
export interface WorkResult<Made> {
  readonly made: ReadonlyMap<string, Made>;
  readonly unread: readonly UnreadSource[];
}

/**
 * Works on files of a book: takes what another run made of the same text under the same settings, and has the rest done. `isKept`
 * says whether a result may be used in another run; `settings` is all that it depends on beside the file and the book.
 */
export async function workOver<Made>(
  project: Project,
  config: BookConfig,
  files: readonly string[],
  work: FileWork,
  one: DoneHere<Made>,
  {
    cache,
    elsewhere,
    progress,
    settings,
    isKept = () => true,
  }: WorkReading<Made> & {
    readonly settings: readonly unknown[];
    readonly isKept?: (made: Made) => boolean;
  },
): Promise<WorkResult<Made>> {
  const { source } = project.config;
  const by = cache && digestOf(JSON.stringify([work, config, source, ...settings]));
  const made = new Map<string, Made>();
  const unread: UnreadSource[] = [];
  const ids = new Map<string, string>();
  const readable = files.filter((file) => {
    const read = project.files.read(file);
    if (!read.ok) {
      unread.push({ file, detail: read.detail });
      return false;
    }
    if (cache && by !== undefined) {
      const id = `${by} ${digestOf(read.text)} ${file}`;
      ids.set(file, id);
      const known = cache.get(id);
      if (known !== undefined) made.set(file, known);
    }
    return true;
  });
  const left = readable.filter((file) => !made.has(file));
  const here = async (part: readonly string[]) => {
    await prepareReaders(part, project.files);
    return part.map((file, index) => {
      if (!elsewhere) progress?.(index, part.length);
      return workOn(project, file, one);
    });
  };
  const task = { book: config.name, files: left, work };
  const found = await (elsewhere ? elsewhere(task, here) : here(left));
  for (const [index, file] of left.entries()) {
    const result = found[index];
    if (result === undefined) continue;
    made.set(file, result);
    if (isKept(result)) cache?.set(ids.get(file) ?? "", result);
  }
  return { made, unread };
}

/** Works on one file; undefined where it cannot be read any more. */
export function workOn<Made>({ files }: Project, file: string, one: DoneHere<Made>): Made | undefined {
  const read = files.read(file);
  return read.ok ? one(file, read) : undefined;
}
