import type { BookConfig } from "../config/schema.js";
import {
  extractionFrom,
  type BookExtraction,
  type ExtractOptions,
  type ExtractPlan,
  type FileTrial,
  type Waiting,
} from "../extract/extract.js";
import { isDecidedOn } from "../extract/file-extraction.js";
import { usualIn } from "../extract/hosts.js";
import { bookClasses } from "../extract/member-receiver.js";
import { scriptsOfPages } from "../extract/page-scripts.js";
import { scriptsNaming } from "../extract/script-parts.js";
import { messageReader } from "../message/parse.js";
import { isMarkup } from "../source/dialects/index.js";
import { makePlan } from "../plan/plan.js";
import { lazily } from "../text/lazy.js";
import { listCode, type UnreadSource } from "../source/book-code.js";
import { usesIn, type UsesElsewhere } from "../source/read-back.js";
import { prepareReaders } from "../source/read.js";
import { leftOutByContent } from "../survey/left-out.js";
import { workOver, type DoneHere, type WorkReading } from "./file-work.js";
import { booksIn, homeCode, homeSourceOf, otherBooks, type Project, type Scope } from "./project.js";
import {
  errorsShownBy,
  habitsOf,
  withoutLeftOut,
  type LeftOutTally,
  type SurveyReading,
  type SurveyResult,
} from "./survey-project.js";

/** How files are tried: what of the options one file's result hangs on. */
export interface ExtractReading
  extends
    Required<Pick<ExtractOptions, "least" | "collectOnly">>,
    Required<Pick<SurveyReading, "everything" | "shownErrors">>,
    Pick<ExtractOptions, "usual" | "ofPages"> {
  /** What the book's code does elsewhere with its strings; where files are tried, it must be known before. */
  readonly uses?: UsesElsewhere;
}

/** What is known of an extraction from other runs, and who helps. */
export type ExtractWork = Pick<WorkReading<FileTrial | Waiting>, "cache" | "elsewhere">;

/** Plans the extraction of a project's text. */
export async function extractProject(
  project: Project,
  scope: Scope = {},
  options: ExtractOptions & Pick<SurveyReading, "everything"> & ExtractWork = {},
): Promise<ExtractPlan & Pick<SurveyResult, "unread" | "leftOut">> {
  const plans: ExtractPlan[] = [];
  const unread: UnreadSource[] = [];
  const leftOut: LeftOutTally = {};
  for (const config of booksIn(project, scope)) {
    const listed = withoutLeftOut(project, homeCode(project, config, scope), options, leftOut);
    const { least = "sure", collectOnly = false, everything = false } = options;
    const reading = {
      least,
      collectOnly,
      everything,
      shownErrors: errorsShownBy(project, config),
      usual: usualIn(config, () => textsOf(project, listCode(project.files, config))),
      // Without a line that brings lookups in, nobody asks.
      ofPages: [config.emit, ...Object.values(config.emit.endings ?? {})].every(
        (one) => one.import === undefined,
      )
        ? []
        : scriptsOfPages(textsOf(project, listCode(project.files, config).filter(isMarkup))),
    };
    const uses = lazily(() =>
      usesIn(() => textsOf(project, listCode(project.files, config)), textCallsOf(config)),
    );
    const trials = await trialsOf(project, config, listed, reading, uses, options);
    const taken = plans.reduce((sum, plan) => sum + plan.extracted.length, 0);
    const limit = options.limit === undefined ? {} : { limit: options.limit - taken };
    const run = runOf(project, config, reading, { uses, ...options, ...limit });
    for (const file of listed) {
      const read = project.files.read(file);
      if (!read.ok) {
        unread.push({ file, detail: read.detail });
        continue;
      }
      const kind = everything ? undefined : leftOutByContent(file, read.text);
      if (kind) {
        leftOut[kind] = (leftOut[kind] ?? 0) + 1;
        continue;
      }
      const trial = trials.get(file);
      if (trial && run.accept({ file, ...read }, trial)) continue;
      await prepareReaders([file], project.files);
      run.take(homeSourceOf(project, config, file, read));
    }
    plans.push(run.plan());
  }
  const summary: Record<string, number> = {};
  for (const plan of plans)
    for (const [what, count] of Object.entries(plan.summary)) summary[what] = (summary[what] ?? 0) + count;
  return {
    ...makePlan(
      plans.flatMap((plan) => plan.changes),
      summary,
      plans.flatMap((plan) => plan.notes),
    ),
    extracted: plans.flatMap((plan) => plan.extracted),
    // A place is idle where no book of the run has a text there.
    idleDecisions: [...(options.decisions?.keys() ?? [])].filter((place) =>
      plans.every((plan) => plan.idleDecisions.includes(place)),
    ),
    unread,
    leftOut,
  };
}

/** The texts of files that can be read, one after the other. */
function* textsOf(
  project: Project,
  files: readonly string[],
): Iterable<{ file: string; text: string; bom: boolean }> {
  for (const file of files) {
    const read = project.files.read(file);
    if (read.ok) yield { file, text: read.text, bom: read.bom };
  }
}

/** The extraction of one book, before its first file. */
function runOf(
  project: Project,
  config: BookConfig,
  { shownErrors, usual, ofPages = [] }: ExtractReading,
  options: ExtractOptions,
): BookExtraction {
  const texts = () => textsOf(project, listCode(project.files, config));
  return extractionFrom(project.book(config), messageReader(config), {
    scriptsNaming: scriptsNaming(() => [...texts()]),
    classes: bookClasses(texts),
    habits: habitsOf(config, shownErrors),
    usual,
    ofPages,
    ...options,
    waivers: project.waivers,
  });
}

/** The calls of a book that look a text up by itself. */
function textCallsOf({ lookups, naming }: BookConfig): readonly string[] {
  if (naming.pattern !== "{text}") return [];
  return lookups.flatMap((lookup) => ("call" in lookup ? [lookup.call] : []));
}

/** What the files of a book come to by themselves, where that can be said before their turn. */
async function trialsOf(
  project: Project,
  config: BookConfig,
  files: readonly string[],
  told: ExtractReading,
  uses: () => UsesElsewhere,
  options: ExtractOptions & ExtractWork,
): Promise<ReadonlyMap<string, FileTrial>> {
  const { limit, cache, elsewhere } = options;
  // With a limit each file hangs on those before it; and where this thread does all anyway, there is nothing to try.
  if (limit !== undefined || (!cache && !elsewhere)) return new Map();
  const free = files.filter((file) => !isDecidedOn(options, file));
  const reading = { ...told, uses: uses() };
  const work = { kind: "extract", reading } as const;
  const { made } = await workOver(project, config, free, work, trialOf(project, config, reading), {
    ...(cache && { cache }),
    ...(elsewhere && { elsewhere }),
    settings: [project.config.targets, project.waivers.signature, ...otherBooks(project, config)],
    isKept: (trial) => !("isLate" in trial),
  });
  return new Map([...made].flatMap(([file, trial]) => ("waits" in trial ? [] : [[file, trial] as const])));
}

/** Tries files of a book, one at a time. What a file needs must be prepared before. */
export function trialOf(
  project: Project,
  config: BookConfig,
  reading: ExtractReading,
): DoneHere<FileTrial | Waiting> {
  const { uses = { compared: [], lookedUp: [] }, ...options } = reading;
  const run = runOf(project, config, reading, { ...options, uses: () => uses });
  return (file, read) =>
    !reading.everything && leftOutByContent(file, read.text)
      ? { waits: true }
      : run.attempt(homeSourceOf(project, config, file, read));
}
