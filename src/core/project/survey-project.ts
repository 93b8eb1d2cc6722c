import type { BookConfig } from "../config/schema.js";
import { makeAnew } from "../text/kept.js";
import { listCode, type UnreadSource } from "../source/book-code.js";
import {
  leftOutByContent,
  compiledTest,
  leftOutByName,
  libraryTest,
  oneFilePerLocale,
  type LeftOut,
} from "../survey/left-out.js";
import { prepareReaders } from "../source/read.js";
import { noHabits, type OwnHabits } from "../survey/own-habits.js";
import { shownErrorsIn } from "../survey/shown-errors.js";
import { explainLine, reportFile, type ExplainedLiteral, type FileSurvey } from "../survey/survey.js";
import { workOver, type DoneHere, type WorkReading } from "./file-work.js";
import {
  booksIn,
  homeCode,
  homeSourceOf,
  otherBooks,
  readerOf,
  type Project,
  type Scope,
} from "./project.js";

/** What a survey found, in the order of books and files. */
export interface SurveyResult {
  readonly files: readonly FileSurvey[];
  readonly unread: readonly UnreadSource[];
  /** How many files were left out, by the reason. */
  readonly leftOut: LeftOutCounts;
}

export type LeftOutCounts = Readonly<Partial<Record<LeftOut, number>>>;

/** What is read of code, and kept of what was read. */
export interface SurveyReading {
  /** Keeps what was judged to be code as well. */
  readonly all?: boolean;
  /** Reads tests, libraries, generated files and the like as well. */
  readonly everything?: boolean;
  /** Types of errors whose messages the book's code shows, where a file does not say it itself. */
  readonly shownErrors?: readonly string[];
}

export interface SurveyOptions extends SurveyReading, WorkReading<FileSurvey> {}

/** Finds and judges the literals of a project's code. */
export async function surveyProject(
  project: Project,
  scope: Scope = {},
  options: SurveyOptions = {},
): Promise<SurveyResult> {
  const files: FileSurvey[] = [];
  const unread: UnreadSource[] = [];
  const leftOut: LeftOutTally = {};
  for (const config of booksIn(project, scope)) {
    const listed = withoutLeftOut(project, homeCode(project, config, scope), options, leftOut);
    const { all = false, everything = false } = options;
    const reading = { all, everything, shownErrors: errorsShownBy(project, config) };
    const work = { kind: "survey", reading } as const;
    const found = await workOver(project, config, listed, work, surveyOf(project, config, reading), {
      ...options,
      settings: [project.waivers.signature, ...otherBooks(project, config)],
    });
    unread.push(...found.unread);
    for (const file of listed) {
      const one = found.made.get(file);
      if (one?.leftOut) leftOut[one.leftOut] = (leftOut[one.leftOut] ?? 0) + 1;
      else if (one) files.push(one);
    }
  }
  return { files, unread, leftOut };
}

/** How many files were left out so far, by the reason. */
export type LeftOutTally = Partial<Record<LeftOut, number>>;

/** The files in which people may write text, by their names; the others are counted. */
export function withoutLeftOut(
  project: Project,
  files: readonly string[],
  { everything }: Pick<SurveyReading, "everything">,
  leftOut: LeftOutTally,
): readonly string[] {
  if (everything) return files;
  const perLocale = oneFilePerLocale(files);
  const isOfLibrary = libraryTest(project.files, files);
  const isCompiled = compiledTest(files);
  return files.filter((file) => {
    const kind =
      leftOutByName(file) ??
      (perLocale.has(file) ? "one file per locale" : undefined) ??
      (isOfLibrary(file) ? "vendored" : undefined) ??
      (isCompiled(file) ? "generated" : undefined);
    if (kind) leftOut[kind] = (leftOut[kind] ?? 0) + 1;
    return kind === undefined;
  });
}

/** The types of errors whose messages a book's code shows where it catches them: they are thrown anywhere. */
export function errorsShownBy(project: Project, config: BookConfig): readonly string[] {
  const { keep = makeAnew } = project;
  const found = new Set<string>();
  for (const file of listCode(project.files, config)) {
    const read = leftOutByName(file) ? undefined : project.files.read(file);
    if (!read?.ok) continue;
    const { text } = read;
    for (const type of keep(`shown ${file}`, [text], () => shownErrorsIn(file, text))) found.add(type);
  }
  return [...found].sort();
}

/** The habits of a book, and what its code shows of errors. */
export function habitsOf(config: BookConfig, shownErrors: readonly string[] = []): OwnHabits | undefined {
  return shownErrors.length === 0
    ? config.habits
    : { ...noHabits, ...config.habits, shownErrors: new Set(shownErrors) };
}

/** Surveys files of a book, one at a time. What a file needs must be prepared before. */
export function surveyOf(
  project: Project,
  config: BookConfig,
  { all = false, everything = false, shownErrors }: SurveyReading,
): DoneHere<FileSurvey> {
  const reader = readerOf(config);
  const habits = habitsOf(config, shownErrors);
  return (file, read) => {
    const leftOut = everything ? undefined : leftOutByContent(file, read.text);
    if (leftOut) return { file, literals: [], counts: { text: 0, unclear: 0, code: 0, waived: 0 }, leftOut };
    const source = homeSourceOf(project, config, file, read);
    return reportFile(source, config.name, reader, habits, all, project.waivers);
  };
}

/** The literals on a line of a file, with all evidence, for the book that new texts of the file go into. */
export async function explainProject(
  project: Project,
  file: string,
  line: number,
  scope: Scope = {},
): Promise<readonly ExplainedLiteral[]> {
  const found: ExplainedLiteral[] = [];
  for (const config of booksIn(project, scope)) {
    const [listed] = homeCode(project, config, { path: (one) => one === file });
    const read = listed === undefined ? undefined : project.files.read(file);
    if (!read?.ok) continue;
    await prepareReaders([file], project.files);
    const source = homeSourceOf(project, config, file, read);
    const habits = habitsOf(config, errorsShownBy(project, config));
    found.push(...explainLine(source, line, config.name, readerOf(config), habits, project.waivers));
  }
  return found;
}
