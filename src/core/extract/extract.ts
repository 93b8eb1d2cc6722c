import { lazily } from "../text/lazy.js";
import { posix } from "node:path";
import type { Book } from "../catalog/book.js";
import { notices } from "../message/notices.js";
import type { MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan } from "../plan/plan.js";
import type { SourceFile } from "../source/model.js";
import { readImportLine, readSetupLine } from "../source/readers/script/scopes.js";
import {
  extractFile,
  type Extraction,
  type ExtractOptions,
  type FileResult,
  type Replaced,
} from "./file-extraction.js";
import { withCalls } from "./load-time.js";
import type { ScriptPart } from "./script-parts.js";
import { behind, recorded, retraced, sharedBy, type SharedState, type Step } from "./shared.js";

export type { Decision, ExtractOptions } from "./file-extraction.js";

/** A literal that got a key. */
export interface Extracted extends Replaced {
  /** False where the key has its text already: in a catalog, or from another place in this run. */
  readonly isNew: boolean;
}

export interface ExtractPlan extends Plan {
  /** Places that were decided on and have no text. */
  readonly idleDecisions: readonly string[];
  readonly extracted: readonly Extracted[];
}

const say = notices("extract", {
  "idle-import": {
    message: "emit.import is for scripts, and no script was rewritten",
    remedy: 'set the line for other files under emit.endings, for example "{ending}"',
  },
});

/** What a file comes to by itself, before it is known what it shares with the files before it; plain data. */
export interface FileTrial extends Pick<FileResult, "notes" | "hasScripts"> {
  /** What it asked of what files share, and how that was answered. */
  readonly steps: readonly Step[];
  /** Its new text; undefined where nothing is rewritten. */
  readonly after?: string;
  readonly extracted: readonly Replaced[];
  readonly likely: readonly string[];
  /** Whether time ran out on it, so that another run may find more. */
  readonly isLate?: true;
}

/** Said of a file that nothing is known of before its turn. */
export interface Waiting {
  readonly waits: true;
}

/**
 * The extraction of a book's text: keys, entries in the source catalogs, and lookups in the code's place.
 * A literal that cannot be replaced safely stays and is noted with the reason. Every rewritten file is parsed
 * again, and its new lookups found again, before it becomes part of the plan.
 */
export interface BookExtraction {
  /**
   * Tries a file by itself, as if it were the first. It waits for its turn where its result is no plain data, or hangs on other
   * files of code.
   */
  attempt(source: SourceFile): FileTrial | Waiting;
  /** Takes the next file by its trial; false where something that it asked is answered otherwise now: then it is to be taken anew. */
  accept(file: Pick<SourceFile, "file" | "text" | "bom">, trial: FileTrial): boolean;
  /** Takes the next file, or the one whose trial was just not accepted. */
  take(source: SourceFile): void;
  plan(): ExtractPlan;
}

/** The extraction of a book's text, before its first file. */
export function extractionFrom(
  book: Book,
  reader: MessageReader,
  options: ExtractOptions = {},
): BookExtraction {
  const { emit } = book.config;
  const start = sharedBy(book);
  const shared = start();
  const job: Extraction = {
    book,
    reader,
    options,
    imports: [emit.import ?? []].flat().flatMap((line) => readImportLine(line) ?? []),
    setup: emit.setup === undefined ? undefined : readSetupLine(emit.setup),
    shared,
    uses: lazily(() => {
      const { compared, lookedUp } = options.uses?.() ?? { compared: [], lookedUp: [] };
      return { compared: new Set(compared), lookedUp: new Set(lookedUp) };
    }),
    met: new Set(),
  };
  const results: FileResult[] = [];
  // The answers to what a trial that was not accepted had asked until then.
  let answered: readonly unknown[] = [];
  return {
    attempt: (source) => attempted({ ...job, shared: start() }, source),
    accept({ file, text, bom }, { after, likely, ...trial }) {
      const { answers, isSame } = retraced(trial.steps, shared);
      answered = isSame ? [] : answers;
      if (isSame) {
        const change = after === undefined ? undefined : { file, before: text, after, bom };
        const more = { rewritten: undefined, callers: [], isLate: trial.isLate ?? false };
        results.push({ ...trial, ...more, change, likely: new Set(likely) });
      }
      return isSame;
    },
    take(source) {
      const by = answered.length > 0 ? { ...job, shared: behind(answered, shared) } : job;
      answered = [];
      const taken = results.reduce((sum, { extracted }) => sum + extracted.length, 0);
      results.push(extractFile(by, source, (options.limit ?? Infinity) - taken));
    },
    plan: () => planOf(job, shared, results),
  };
}

function attempted(job: Extraction, source: SourceFile): FileTrial | Waiting {
  let asksOthers = false;
  const askOthers = () => {
    asksOthers = true;
    return [];
  };
  const asksWhether = () => askOthers().length > 0;
  const classes = {
    named: askOthers,
    fitting: askOthers,
    have: asksWhether,
    beside: askOthers,
    some: asksWhether,
  };
  const { shared, steps } = recorded(job.shared);
  const result = extractFile(
    { ...job, shared, options: { ...job.options, scriptsNaming: askOthers, classes } },
    source,
    Infinity,
  );
  if (asksOthers || result.callers.length > 0) return { waits: true };
  const { change, extracted, notes, likely, hasScripts, isLate } = result;
  return {
    steps,
    ...(change?.after !== undefined && { after: change.after }),
    extracted,
    notes,
    likely: [...likely],
    hasScripts,
    ...(isLate && { isLate }),
  };
}

function planOf(
  { imports, met, options }: Extraction,
  shared: SharedState,
  files: readonly FileResult[],
): ExtractPlan {
  const named = new Set<string>();
  const extracted = files
    .flatMap((one) => one.extracted)
    .map((one): Extracted => {
      const isNew = shared.isNew(one.key) && !named.has(one.key);
      named.add(one.key);
      return { ...one, isNew };
    });
  const notes = files.flatMap((one) => one.notes);
  const likely = new Set(files.flatMap((one) => [...one.likely]));
  const code = withCallers(files);
  const catalogs = shared.changes(
    new Map(code.flatMap(({ file, after }) => (after === undefined ? [] : [[file, after]]))),
  );
  // A catalog that stands in code is changed on top of it.
  const both = new Set(catalogs.map(({ file }) => file));
  const changes = [...code.filter(({ file }) => !both.has(file)), ...catalogs];
  const fresh = extracted.filter(({ isNew }) => isNew).length;
  const { translations, collected } = shared;
  const summary: Record<string, number> = {
    ...(extracted.length > 0 && {
      "texts replaced": extracted.length,
      "files rewritten": files.filter(({ change }) => change).length,
      "keys added": fresh,
    }),
    ...(translations > 0 && { "translations taken along": translations }),
    ...(collected > 0 && { "default texts collected": collected }),
    ...(likely.size > 0 && { "likely texts left": likely.size }),
  };
  const [first] = extracted;
  // An import line of the book that no rewritten file had a script to take it into.
  if (imports.length > 0 && first && !files.some(({ hasScripts }) => hasScripts))
    notes.push({ file: first.file, ...say("idle-import", { ending: posix.extname(first.file) }) });
  const idleDecisions = [...(options.decisions?.keys() ?? [])].filter((place) => !met.has(place));
  return { ...makePlan(changes, summary, notes), extracted, idleDecisions };
}

/** The files that change, those too that call what has become a function in another. */
function withCallers(files: readonly FileResult[]): readonly FileChange[] {
  const changes = new Map(files.flatMap(({ change }) => (change ? [[change.file, change] as const] : [])));
  const called = new Map<string, { readonly script: ScriptPart; readonly names: Set<string> }>();
  for (const { name, scripts } of files.flatMap(({ callers }) => callers))
    for (const script of scripts) {
      const one = called.get(script.file) ?? { script, names: new Set() };
      called.set(script.file, one);
      one.names.add(name);
    }
  for (const [file, { script, names }] of called) {
    const change = changes.get(file) ?? {
      file,
      before: script.text,
      after: script.text,
      bom: script.bom ?? false,
    };
    changes.set(file, { ...change, after: withCalls(file, change.after ?? script.text, names) });
  }
  return [...changes.values()];
}
