import { localeInside } from "../catalog/view.js";
import { noticeOf } from "../message/notices.js";
import { waiverMessages } from "../lint/lint.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { partEnds } from "../text/separators.js";
import {
  catalogEdits,
  editCatalog,
  isWhole,
  loadBook,
  unreadNote,
  type Book,
  type Catalog,
} from "../catalog/book.js";
import { KeyPool } from "../catalog/key-pool.js";
import type { CatalogChanges, Entry } from "../catalog/model.js";
import { loadConfig, type ConfigProblem } from "../config/load.js";
import { loadWaivers, type Waivers, type Waiver } from "../config/waivers.js";
import type { BookConfig, Config } from "../config/schema.js";
import type { ExtractOptions, ExtractPlan } from "../extract/extract.js";
import type { Files, FileText } from "../files/files.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { overlayFiles } from "../files/overlay-files.js";
import { balanceBook, type BookBalance } from "../ledger/balance.js";
import { workOutOrigins, type CatalogRevision } from "../ledger/history.js";
import { ledgerFiles, readLedger, type Ledger } from "../ledger/ledger.js";
import { outstandingTexts, type OutstandingText } from "../ledger/outstanding.js";
import { readSourceTexts, sourceTextOf, sourceTextsFile, type SourceTexts } from "../ledger/source-texts.js";
import type { Finding } from "../lint/finding.js";
import { disorderIn } from "../lint/key-order.js";
import { readGlossary, type Concept } from "../lint/glossary.js";
import { lintBook, sortFindings } from "../lint/lint.js";
import type { CodeText, OtherBook, Rule } from "../lint/rule.js";
import { lazily } from "../text/lazy.js";
import { lineIndex } from "../text/line-index.js";
import { settingsOf } from "../locale/locale-lists.js";
import { rules as allRules } from "../lint/rules/index.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import type { Ledgers } from "../reconcile/job.js";
import { planReconcile } from "../reconcile/reconcile.js";
import { declaredChanges } from "../reconcile/declared.js";
import {
  codeUse,
  listCode,
  readBookCode,
  useRecord,
  readBookSource,
  readInTurn,
  type BookCode,
  type CodeUse,
  type UnreadSource,
  type UseRecord,
} from "../source/book-code.js";
import type { SourceFile } from "../source/model.js";
import { takesImportLine } from "../extract/import-line.js";
import { languageOf } from "../source/languages/index.js";
import { dialectByName, hasOpenEnding } from "../source/dialects/index.js";
import { isScript } from "../source/readers/script/endings.js";
import { digestOf } from "../text/digest.js";
import { leftOutByContent, leftOutByName, oneFilePerLocale, type LeftOut } from "../survey/left-out.js";
import { prepareReaders } from "../source/read.js";
import { nearest } from "../text/nearest.js";
import { prepareWidths } from "../text/width.js";
import type { Range } from "../text/span.js";
import { noHabits, type OwnHabits } from "../survey/own-habits.js";
import { shownErrorsIn } from "../survey/shown-errors.js";
import { explainLine, reportFile, type ExplainedLiteral, type FileSurvey } from "../survey/survey.js";

/**
 * A project that is open: its files, its configuration, and its books as they were when first asked for. It should live no
 * longer than one run: what changes on disk later is not seen.
 */
export interface Project {
  readonly files: Files;
  readonly configFile: string;
  readonly config: Config;
  readonly waivers: Waivers;
  readonly glossary?: readonly Concept[];
  /** Set where the project is looked at again and again: what was made of its files, and still holds. */
  readonly keep?: Keep;
  /** A book with its catalogs, read once. */
  book(config: BookConfig): Book;
}

export type OpenResult =
  | { readonly ok: true; readonly project: Project; readonly warnings: readonly Notice[] }
  | { readonly ok: false; readonly problems: readonly ConfigProblem[] };

const say = notices("project", {
  "misspelled-rule": { message: 'unknown rule "{name}"', remedy: 'did you mean "{meant}"?' },
  "no-locale": {
    message: "found {files}, expected a path with {locale} in it",
    remedy:
      'put {locale} where the paths differ; if one file holds all locales, set "root" or "leaf" to where the locale is',
  },
  "unknown-rule": { message: 'unknown rule "{name}"', remedy: "check its name; its level is ignored" },
  "unused-import": {
    message: 'the import of emit.endings["{ending}"] is ignored',
    remedy: "remove it: such files have no place for it",
  },
  "not-moved": {
    message: "keys not moved: comments next to them would be lost",
    remedy: "move them by hand",
  },
});

/**
 * Opens a project. `configFile` names the configuration; without it the usual names are tried. `today` is a day as YYYY-MM-DD.
 * `keep` is for a project that is opened again and again: nothing is made twice of the same files.
 */
export function openProject(
  files: Files,
  configFile?: string,
  today: string = new Date().toISOString().slice(0, 10),
  keep?: Keep,
): OpenResult {
  const loaded = loadConfig(files, configFile);
  if (!loaded.ok) return loaded;
  const unplaced = loaded.config.books.findIndex(
    (book) => !book.files.includes("{locale}") && localeInside(book) === undefined,
  );
  if (unplaced >= 0) {
    const { files: pattern = "" } = loaded.config.books[unplaced] ?? {};
    const problem = {
      file: loaded.file,
      ...loaded.at(["books", unplaced, "files"]),
      path: `books[${unplaced}].files`,
      ...say("no-locale", { files: JSON.stringify(pattern), locale: "{locale}" }),
    };
    return { ok: false, problems: [problem] };
  }
  const ids = allRules.map(({ id }) => id);
  const named = [
    ...Object.keys(loaded.config.rules),
    ...loaded.config.books.flatMap((book) => Object.keys(book.rules)),
    ...loaded.config.levels.flatMap(({ rules }) => rules),
  ];
  const isFamily = (name: string) =>
    name.endsWith("/*") && ids.some((id) => id.startsWith(name.slice(0, -1)));
  const unknown = [...new Set(named)].filter((id) => !ids.includes(id) && !isFamily(id));
  // A name that is nearly a rule's is a slip of the pen; any other may be a rule of a version to come.
  const misspelled = unknown.find((id) => nearest(id, ids) !== undefined);
  if (misspelled !== undefined) {
    const problem = {
      file: loaded.file,
      line: 1,
      column: 1,
      path: `rules["${misspelled}"]`,
      ...say("misspelled-rule", { name: misspelled, meant: nearest(misspelled, ids) ?? "" }),
    };
    return { ok: false, problems: [problem] };
  }
  const warnings = [
    ...unknown.map((name) => say("unknown-rule", { name })),
    ...loaded.config.books.flatMap((book) =>
      Object.entries(book.emit.endings ?? {})
        .filter(([ending, { import: line }]) => line !== undefined && !takesImport(`file${ending}`))
        .map(([ending]) => say("unused-import", { ending })),
    ),
  ];
  const endsByBook = new Map(loaded.config.books.map((book) => [book.name, partEnds(book)]));
  const waived = loadWaivers(files, loaded.config.waivers, today, (book) => endsByBook.get(book) ?? ["."]);
  if (!waived.ok) return waived;
  const { config, file } = loaded;
  const glossary = config.glossary === undefined ? undefined : readGlossary(files, config.glossary);
  if (glossary && !glossary.ok)
    return {
      ok: false,
      problems: [
        {
          file: config.glossary ?? "",
          line: 1,
          column: 1,
          path: "glossary",
          messageId: glossary.messageId,
          data: glossary.data,
          message: glossary.message,
          remedy: glossary.remedy,
        },
      ],
    };
  return {
    ok: true,
    project: {
      ...(glossary && { glossary: glossary.concepts }),
      files,
      configFile: file,
      config,
      waivers: waived.waivers,
      ...(keep && { keep }),
      book: booksOf(files, config, keep),
    },
    warnings,
  };
}

/** Reads each book of a project once. */
function booksOf(files: Files, config: Config, keep: Keep = makeAnew): Project["book"] {
  const books = new Map<BookConfig, Book>();
  const bookOf = (own: BookConfig): Book => {
    const there = books.get(own);
    if (there) return there;
    const read = loadBook(files, config, own, keep);
    const others = config.books.filter(({ name }) => own.fallback?.includes(name));
    // A locale may say for itself what the book that stands behind this one says for all.
    const isBehind = (key: string) => others.some((other) => bookOf(other).resolve(key) !== undefined);
    const whole =
      others.length === 0
        ? read
        : { ...read, allows: (locale: string, key: string) => read.allows(locale, key) || isBehind(key) };
    const behind = others.map((other) => bookOf(other));
    const book = keep(`book ${own.name}`, [own, ...behind, ...read.catalogs, ...read.strays], () => whole);
    books.set(own, book);
    return book;
  };
  return bookOf;
}

/** The project as its files are now, where neither its configuration nor anything that is read with it has changed. */
export function lookedAtAgain(project: Project): Project {
  return { ...project, book: booksOf(project.files, project.config, project.keep) };
}

/** Whether extraction can write an import line into a file, by its name. */
function takesImport(file: string): boolean {
  // What a page is a template of, only its content says.
  return (
    isScript(file) ||
    hasOpenEnding(file) ||
    dialectByName(file)?.isComponent === true ||
    takesImportLine(languageOf(file))
  );
}

/** What narrows a run. */
export interface Scope {
  /** Only these books; all where not given. */
  readonly books?: readonly string[];
  /** Only these target locales; all where not given. */
  readonly locales?: readonly string[];
  /** Whether a file of code is looked at; all where not given. */
  readonly path?: (file: string) => boolean;
}

/** What a survey found, in the order of books and files. */
export interface SurveyResult {
  readonly files: readonly FileSurvey[];
  readonly unread: readonly UnreadSource[];
  /** How many files were left out, by the reason. */
  readonly leftOut: LeftOutCounts;
}

export type LeftOutCounts = Readonly<Partial<Record<LeftOut, number>>>;

/** Where what was made of files is kept from run to run, by a digest of all that it depends on. */
export interface RunCache<Made> {
  get(id: string): Made | undefined;
  set(id: string, made: Made): void;
}

export type SurveyCache = RunCache<FileSurvey>;

/** Files of a book that are to be surveyed; without `survey`, that are to be read for what they ask for. */
export interface FileTask {
  readonly book: string;
  readonly files: readonly string[];
  readonly survey?: SurveyReading;
}

/** Does a task elsewhere as well, such as in other threads, and parts of it by `here`; results in the order of the files. */
export type Elsewhere = <Made>(
  task: FileTask,
  here: (files: readonly string[]) => Promise<readonly Made[]>,
) => Promise<readonly Made[]>;

/** How code is read for the rules. */
export interface UseReading {
  readonly cache?: RunCache<UseRecord>;
  readonly elsewhere?: Elsewhere;
}

/** What is read of code, and kept of what was read. */
export interface SurveyReading {
  /** Keeps what was judged to be code as well. */
  readonly all?: boolean;
  /** Reads tests, libraries, generated files and the like as well. */
  readonly everything?: boolean;
  /** Types of errors whose messages the book's code shows, where a file does not say it itself. */
  readonly shownErrors?: readonly string[];
}

export interface SurveyOptions extends SurveyReading {
  readonly cache?: SurveyCache;
  readonly elsewhere?: Elsewhere;
  /** Told after each file how many of all are done. */
  readonly progress?: (done: number, of: number) => void;
}

/** Finds and judges the literals of a project's code. */
export async function surveyProject(
  project: Project,
  scope: Scope = {},
  options: SurveyOptions = {},
): Promise<SurveyResult> {
  const files: FileSurvey[] = [];
  const unread: UnreadSource[] = [];
  const leftOut: Partial<Record<LeftOut, number>> = {};
  for (const config of booksIn(project, scope)) {
    const listed = withoutLeftOut(listCode(project.files, config, scope.path), options, leftOut);
    const shownErrors = errorsShownBy(project, config);
    const settings = options.cache
      ? digestOf(
          JSON.stringify([
            config,
            shownErrors,
            project.config.source,
            options.all ?? false,
            options.everything ?? false,
            project.waivers.signature,
          ]),
        )
      : "";
    const known = new Map<string, FileSurvey>();
    const ids = new Map<string, string>();
    if (options.cache) {
      for (const file of listed) {
        const read = project.files.read(file);
        if (!read.ok) continue;
        const id = `${settings} ${digestOf(read.text)} ${file}`;
        ids.set(file, id);
        const kept = options.cache.get(id);
        if (kept) known.set(file, kept);
      }
    }
    const left = listed.filter((file) => !known.has(file));
    const found = new Map(
      (await surveySome(project, config, left, { ...options, shownErrors })).map((one) => [one.file, one]),
    );
    for (const file of listed) {
      const one = known.get(file) ?? found.get(file);
      if (!one) continue;
      if ("detail" in one) unread.push(one);
      else {
        if (one.leftOut) leftOut[one.leftOut] = (leftOut[one.leftOut] ?? 0) + 1;
        else files.push(one);
        options.cache?.set(ids.get(file) ?? "", one);
      }
    }
  }
  return { files, unread, leftOut };
}

/** The files in which people may write text, by their names; the others are counted. */
function withoutLeftOut(
  files: readonly string[],
  { everything }: Pick<SurveyReading, "everything">,
  leftOut: Partial<Record<LeftOut, number>>,
): readonly string[] {
  if (everything) return files;
  const perLocale = oneFilePerLocale(files);
  return files.filter((file) => {
    const kind = leftOutByName(file) ?? (perLocale.has(file) ? "one file per locale" : undefined);
    if (kind) leftOut[kind] = (leftOut[kind] ?? 0) + 1;
    return kind === undefined;
  });
}

async function surveySome(
  project: Project,
  config: BookConfig,
  files: readonly string[],
  options: SurveyOptions,
): Promise<readonly (FileSurvey | UnreadSource)[]> {
  const { elsewhere, progress, all = false, everything = false, shownErrors = [] } = options;
  const survey = { all, everything, shownErrors };
  const here = async (part: readonly string[]) => {
    await prepareReaders(part, project.files);
    return part.map((file, index) => {
      progress?.(index, part.length);
      return surveyOne(project, config, file, survey);
    });
  };
  return elsewhere ? elsewhere({ book: config.name, files, survey }, here) : here(files);
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
function habitsOf(config: BookConfig, shownErrors: readonly string[] = []): OwnHabits | undefined {
  return shownErrors.length === 0
    ? config.habits
    : { ...noHabits, ...config.habits, shownErrors: new Set(shownErrors) };
}

/** Surveys one file of a book. What the file needs must be prepared before. */
export function surveyOne(
  project: Project,
  config: BookConfig,
  file: string,
  { all = false, everything = false, shownErrors }: SurveyReading,
): FileSurvey | UnreadSource {
  const read = project.files.read(file);
  if (!read.ok) return { file, detail: read.detail };
  const leftOut = everything ? undefined : leftOutByContent(file, read.text);
  if (leftOut) return { file, literals: [], counts: { text: 0, unclear: 0, code: 0, waived: 0 }, leftOut };
  return reportFile(
    sourceOf(project, config, file, read),
    config.name,
    readerOf(config),
    habitsOf(config, shownErrors),
    all,
    project.waivers,
  );
}

/** The literals on a line of a file, with all evidence, for each book whose code the file is. */
export async function explainProject(
  project: Project,
  file: string,
  line: number,
  scope: Scope = {},
): Promise<readonly ExplainedLiteral[]> {
  const found: ExplainedLiteral[] = [];
  for (const config of booksIn(project, scope)) {
    const [listed] = listCode(project.files, config, (one) => one === file);
    const read = listed === undefined ? undefined : project.files.read(file);
    if (!read?.ok) continue;
    await prepareReaders([file], project.files);
    const source = sourceOf(project, config, file, read);
    const habits = habitsOf(config, errorsShownBy(project, config));
    found.push(...explainLine(source, line, config.name, readerOf(config), habits, project.waivers));
  }
  return found;
}

/** A file of a book's code. What it needs must be prepared before. */
export function sourceOf(
  { config: { source }, keep }: Project,
  config: BookConfig,
  file: string,
  read: Extract<FileText, { ok: true }>,
): SourceFile {
  return readBookSource(config, source, file, read, keep);
}

const readers = new WeakMap<BookConfig, MessageReader>();

/** The reader of a book's messages, made once. */
function readerOf(config: BookConfig): MessageReader {
  const reader = readers.get(config) ?? messageReader(config);
  readers.set(config, reader);
  return reader;
}

/** Plans the extraction of a project's text. */
export async function extractProject(
  project: Project,
  scope: Scope = {},
  options: ExtractOptions & Pick<SurveyReading, "everything"> = {},
): Promise<ExtractPlan & Pick<SurveyResult, "unread" | "leftOut">> {
  const plans: ExtractPlan[] = [];
  const unread: UnreadSource[] = [];
  const leftOut: Partial<Record<LeftOut, number>> = {};
  const { planExtract } = await import("../extract/extract.js");
  const { scriptsNaming } = await import("../extract/script-parts.js");
  for (const config of booksIn(project, scope)) {
    const listed = withoutLeftOut(listCode(project.files, config, scope.path), options, leftOut);
    await prepareReaders(listed, project.files);
    // Each file is rewritten while its tree is at hand.
    const code = readInTurn(project.files, config, project.config.source, unread, listed, (file, text) => {
      const kind = options.everything ? undefined : leftOutByContent(file, text);
      if (kind) leftOut[kind] = (leftOut[kind] ?? 0) + 1;
      return kind === undefined;
    });
    const taken = plans.reduce((sum, plan) => sum + plan.extracted.length, 0);
    const limit = options.limit === undefined ? {} : { limit: options.limit - taken };
    const naming = scriptsNaming(() =>
      listCode(project.files, config).flatMap((file) => {
        const read = project.files.read(file);
        return read.ok ? [{ file, text: read.text, bom: read.bom }] : [];
      }),
    );
    plans.push(
      planExtract(project.book(config), code, messageReader(config), {
        scriptsNaming: naming,
        habits: habitsOf(config, errorsShownBy(project, config)),
        ...options,
        ...limit,
        waivers: project.waivers,
      }),
    );
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

export interface ReconcileOptions {
  /** Keeps keys that the source does not have. */
  readonly keepExtra?: boolean;
  /** Older versions of the catalogs, newest first, from which it is worked out what translations were made from. */
  readonly history?: (patterns: readonly string[]) => Iterable<CatalogRevision>;
}

/** Plans what brings the locales of a project into step. `today` is a day as YYYY-MM-DD. */
export function reconcileProject(
  project: Project,
  scope: Scope,
  today: string,
  options: ReconcileOptions = {},
): Plan {
  const { keep, config, files } = project;
  const books = booksIn(project, scope);
  const make = () => planSteps(project, scope, today, options);
  // What types declare is read from files that are none of the book's.
  if (!keep || options.history || books.some(({ declared }) => declared !== undefined)) return make();
  const ledgerTexts = books.flatMap(({ name }) =>
    [
      sourceTextsFile(config.ledger, name),
      ...config.targets.flatMap((locale) => ledgerFiles(config.ledger, name, locale)),
    ].map((file) => textOrTrouble(files.read(file))),
  );
  const from = [...books.map((one) => project.book(one)), ...ledgerTexts, today, options.keepExtra];
  return keep(`steps ${JSON.stringify([scope.books, scope.locales])}`, from, make);
}

function planSteps(project: Project, scope: Scope, today: string, options: ReconcileOptions): Plan {
  const { history, ...more } = options;
  const { project: agreed, declared, summary } = declaredFirst(project, scope);
  const books = booksIn(agreed, scope).map((config) => agreed.book(config));
  const readers = new Map<Book, MessageReader>();
  const plan = planReconcile(books, {
    ledgerFolder: project.config.ledger,
    today,
    ...(scope.locales && { locales: scope.locales }),
    ...more,
    // What is worked out from history hangs on it.
    keep: history ? undefined : agreed.keep,
    ledgers: (book) => ledgersOf(project, book.config),
    origins: history && ((book) => workOutOrigins(project.config, book.config, history(book.layout.globs))),
    reader(book) {
      const reader = readers.get(book) ?? messageReader(book.config);
      readers.set(book, reader);
      return reader;
    },
  });
  if (declared.length === 0) return plan;
  // A file that both change is changed from what it is to what it is in the end.
  const later = new Map(plan.changes.map((change) => [change.file, change]));
  const first = new Map(declared.map((change) => [change.file, change]));
  const changes = [
    ...declared.map((change) => ({ ...change, after: later.get(change.file)?.after ?? change.after })),
    ...plan.changes.filter(({ file }) => !first.has(file)),
  ];
  return makePlan(changes, { ...summary, ...plan.summary }, plan.notes);
}

/** The project as it is once source catalogs and the types that declare their texts agree, and what makes them so. */
function declaredFirst(project: Project, scope: Scope) {
  const summary: Record<string, number> = {};
  const declared: FileChange[] = [];
  for (const config of booksIn(project, scope)) {
    const found = declaredChanges(project.book(config));
    for (const [what, count] of Object.entries(found.summary)) summary[what] = (summary[what] ?? 0) + count;
    declared.push(...found.changes);
  }
  const after = new Map(declared.map((change) => [change.file, change.after]));
  const opened = after.size > 0 && openProject(overlayFiles(project.files, after), project.configFile);
  return { project: opened && opened.ok ? opened.project : project, declared, summary };
}

/** What a file of code asks for. What the file needs must be prepared before. */
export function useOf(project: Project, config: BookConfig, file: string): UseRecord | UnreadSource {
  const read = project.files.read(file);
  return read.ok ? useRecord(sourceOf(project, config, file, read)) : { file, detail: read.detail };
}

/** What a book's code asks for, read again only where it is not known from another run. */
async function usesOf(
  project: Project,
  config: BookConfig,
  { cache, elsewhere }: UseReading,
): Promise<BookCode> {
  const settings = cache ? digestOf(JSON.stringify([config, project.config.source])) : "";
  const read = listCode(project.files, config).map((file) => ({ file, text: project.files.read(file) }));
  const ids = new Map(
    read.flatMap(({ file, text }) =>
      cache && text.ok ? [[file, `${settings} ${digestOf(text.text)} ${file}`] as const] : [],
    ),
  );
  const known = new Map(
    read.map(({ file }): [string, UseRecord | UnreadSource | undefined] => [
      file,
      cache?.get(ids.get(file) ?? ""),
    ]),
  );
  const left = read.flatMap(({ file }) => (known.get(file) ? [] : [file]));
  const here = async (part: readonly string[]) => {
    await prepareReaders(part, project.files);
    return part.map((file) => useOf(project, config, file));
  };
  const made = await (elsewhere ? elsewhere({ book: config.name, files: left }, here) : here(left));
  for (const [index, file] of left.entries()) known.set(file, made[index]);
  const files: CodeUse[] = [];
  const unread: UnreadSource[] = [];
  for (const { file, text } of read) {
    const made = known.get(file);
    if (!text.ok) unread.push({ file, detail: text.detail });
    else if (made && "lookups" in made) {
      files.push(codeUse(file, text, made));
      cache?.set(ids.get(file) ?? "", made);
    }
  }
  return { files, unread };
}

/** Runs the rules over a project's catalogs and code. `path` narrows what is reported, not what is read. */
export async function lintProject(
  project: Project,
  scope: Scope = {},
  rules?: readonly Rule[],
  reading?: UseReading,
): Promise<Finding[]> {
  const { keep } = project;
  const codeOf = new Map<BookConfig, BookCode>();
  for (const config of booksIn(project, scope)) {
    if (config.limits) await prepareWidths();
    if (config.code.length === 0) continue;
    if (reading && !keep) codeOf.set(config, await usesOf(project, config, reading));
    else {
      await prepareReaders(listCode(project.files, config), project.files);
      codeOf.set(config, readBookCode(project.files, config, project.config.source, keep));
    }
  }
  const othersOf = booksFromOutside(project);
  const settings = settingsTexts(project);
  const findings = booksIn(project, scope).flatMap((config) => {
    const book = project.book(config);
    const code = codeOf.get(config);
    return lintBook(
      {
        book,
        code,
        others: othersOf(config),
        settings: besides(settings, code),
        reader: readerOf(config),
        ledger: ledgers(project, config),
        ...(project.glossary && { glossary: project.glossary }),
        formerSource: formerSources(project, config),
        ...(keep && {
          formerTexts: textOrTrouble(project.files.read(sourceTextsFile(project.config.ledger, config.name))),
        }),
      },
      {
        levels: project.config.rules,
        parts: project.config.levels,
        ...(rules && { rules }),
        ...(scope.locales && { locales: scope.locales }),
        ...(keep && { keep }),
      },
    );
  });
  const { path } = scope;
  const used = new Set<Waiver>();
  const open = findings.filter((finding) => {
    const waiver = project.waivers.finding(finding);
    if (waiver) used.add(waiver);
    return !waiver;
  });
  const isWhole = !path && !scope.books && !scope.locales && !rules;
  const all = isWhole ? [...open, ...idleWaivers(project, used)] : open;
  return sortFindings(path ? all.filter(({ file }) => path(file)) : all);
}

/** Files with the program's settings. */
function settingsTexts({ files, keep = makeAnew }: Project): readonly CodeText[] {
  return settingsOf(files).flatMap((file) => {
    const read = files.read(file);
    if (!read.ok) return [];
    const { text } = read;
    return [keep(`settings ${file}`, [text], () => ({ file, text, lines: lineIndex(text) }))];
  });
}

/** Those files that are no code of a book. */
function besides(settings: readonly CodeText[], code: BookCode | undefined): readonly CodeText[] {
  const known = new Set(code?.files.map(({ file }) => file));
  return settings.filter(({ file }) => !known.has(file));
}

/** Gives a project's other books, as one of them sees them. */
function booksFromOutside(project: Project): (own: BookConfig) => readonly OtherBook[] {
  const all = project.config.books.map((config, index) => {
    const files = lazily(() => new Set(listCode(project.files, config)));
    return { config, index, reads: (file: string) => files().has(file) };
  });
  return (own) => {
    const at = project.config.books.indexOf(own);
    return all
      .filter(({ config }) => config !== own)
      .map(({ config, index, reads }) => ({ book: project.book(config), reads, isBefore: index < at }));
  };
}

/**
 * Plans the repairs that the rules know: each finding's own, again and again until none is left, so that a second run has
 * nothing to mend. What takes texts away is done only for rules that are named.
 */
export async function fixProject(
  project: Project,
  scope: Scope = {},
  rules?: readonly Rule[],
): Promise<Plan> {
  const texts = new Map<string, string | undefined>();
  const changes = new Map<string, FileChange>();
  const notes = new Map<string, PlanNote>();
  let mended = 0;
  for (let round = 0; round < mostRounds; round++) {
    const opened = openProject(overlayFiles(project.files, texts), project.configFile);
    if (!opened.ok) break;
    const findings = (await lintProject(opened.project, scope, rules)).filter(
      ({ fix }) => fix && (rules || !("remove" in fix)),
    );
    let isDone = true;
    for (const config of booksIn(opened.project, scope)) {
      const book = opened.project.book(config);
      const edits = catalogEdits();
      const done = new Set<Entry>();
      for (const finding of findings) {
        const catalog =
          finding.book === config.name && finding.locale !== undefined
            ? book.catalog(finding.locale, finding.namespace)
            : undefined;
        if (catalog && !isWhole(catalog)) {
          notes.set(catalog.file, unreadNote(catalog));
          continue;
        }
        const mend = catalog && mending(book, catalog, finding);
        // Entries are moved when nothing else is left to do in their file.
        if (
          !mend ||
          (mend.move ? edits.changes().some(({ file }) => file === catalog.file) : done.has(mend.entry))
        )
          continue;
        done.add(mend.entry);
        if (mend.move && !edits.move(catalog, mend.move, mend.order)) {
          notes.set(catalog.file, {
            file: catalog.file,
            line: finding.line,
            column: finding.column,
            ...say("not-moved", {}),
          });
          continue;
        }
        if (!mend.move) edits.edit(catalog, mend.changes);
        mended++;
      }
      for (const change of edits.changes()) {
        isDone = false;
        texts.set(change.file, change.after);
        const earlier = changes.get(change.file);
        changes.set(change.file, { ...change, before: earlier ? earlier.before : change.before });
      }
    }
    if (isDone) break;
  }
  return makePlan([...changes.values()], mended > 0 ? { "findings mended": mended } : {}, [
    ...notes.values(),
  ]);
}

/** How a finding's repair changes its catalog, and the entry that it is about. */
type Mending =
  | { readonly entry: Entry; readonly changes: CatalogChanges; readonly move?: undefined }
  | { readonly entry: Entry; readonly move: readonly Entry[]; readonly order: readonly Entry[] };

function mending(book: Book, catalog: Catalog, { fix, key }: Finding): Mending | undefined {
  if (fix && "move" in fix) {
    const { order } = book.config;
    if (!order) return undefined;
    const { misplaced, wanted } = disorderIn(book, catalog, order);
    return misplaced[0] && { entry: misplaced[0], move: misplaced, order: wanted };
  }
  const entry = catalog.byKey.get(key ?? "");
  if (!fix || !entry) return undefined;
  const changes = "text" in fix ? { set: [{ path: entry.path, text: fix.text }] } : { remove: [entry.path] };
  return { entry, changes };
}

/** What a finding's repair changes in its file: the range that goes, and the text in its place. */
export interface FixEdit extends Range {
  readonly text: string;
}

/** The repairs of findings as edits of their files, by finding; those of a file as it is on disk, each for itself. */
export function fixEdits(project: Project, findings: readonly Finding[]): ReadonlyMap<Finding, FixEdit> {
  const edits = new Map<Finding, FixEdit>();
  for (const config of project.config.books) {
    const own = findings.filter(({ book, fix }) => book === config.name && fix !== undefined);
    if (own.length === 0) continue;
    const book = project.book(config);
    for (const finding of own) {
      const { locale, namespace } = finding;
      const catalog = locale === undefined ? undefined : book.catalog(locale, namespace);
      const mend = catalog && mending(book, catalog, finding);
      if (!catalog || !isWhole(catalog) || !mend || mend.move) continue;
      const before = catalog.content;
      const after = editCatalog(catalog, before, mend.changes);
      let start = 0;
      while (start < before.length && before[start] === after[start]) start++;
      let end = 0;
      while (
        end < Math.min(before.length, after.length) - start &&
        before.at(-1 - end) === after.at(-1 - end)
      )
        end++;
      edits.set(finding, {
        ...catalog.lines.range({ start, end: before.length - end }),
        text: after.slice(start, after.length - end),
      });
    }
  }
  return edits;
}

/** A repair can lay another fault bare; more rounds than this are two rules that disagree. */
const mostRounds = 12;

/** Waivers that hide nothing any more, as findings: what they accepted is gone, or its time is over. */
function idleWaivers({ waivers, config }: Project, used: ReadonlySet<Waiver>): Finding[] {
  return waivers.idle(used).map(({ line, column, waiver, isOver }) => ({
    rule: "waiver/idle",
    severity: "warning",
    ...(isOver
      ? noticeOf("expired", waiverMessages.expired, { date: waiver.until ?? "", reason: waiver.reason })
      : noticeOf("unused-entry", waiverMessages["unused-entry"], { reason: waiver.reason })),
    file: waivers.file,
    line,
    column,
    endLine: line,
    endColumn: column,
    book: waiver.book ?? config.books[0]?.name ?? "",
  }));
}

/** Counts how far every locale of a project is, each book as a whole or by namespace. */
export function balanceProject(project: Project, scope: Scope = {}, byNamespace = false): BookBalance[] {
  return booksIn(project, scope).flatMap((config) => {
    const book = project.book(config);
    const reader = messageReader(config);
    const ledger = ledgers(project, config);
    const parts = byNamespace && book.layout.hasNamespaces ? book.namespaces : [undefined];
    return parts.map((namespace) => balanceBook(book, reader, ledger, scope.locales, namespace));
  });
}

/** Lists what the translators of a project still have to do. */
export function outstandingIn(project: Project, scope: Scope = {}): OutstandingText[] {
  return booksIn(project, scope).flatMap((config) =>
    outstandingTexts(
      project.book(config),
      messageReader(config),
      ledgers(project, config),
      formerSources(project, config),
      scope.locales,
    ),
  );
}

/** The books that a run looks at. */
export function booksIn(project: Project, scope: Scope): readonly BookConfig[] {
  return project.config.books.filter((book) => !scope.books || scope.books.includes(book.name));
}

/** The kept source texts of a book, read when one is first asked for. */
export function formerSources(
  project: Project,
  config: BookConfig,
): (fullKey: string, digest: string) => string | undefined {
  let sources: SourceTexts | undefined;
  return (fullKey, digest) => {
    sources ??= keptSources(project, config);
    return sourceTextOf(sources, fullKey, digest);
  };
}

/** The ledgers of a book by locale, each read once. */
export function ledgers(project: Project, config: BookConfig): (locale: string) => Ledger {
  return ledgersOf(project, config).of;
}

function ledgersOf(project: Project, config: BookConfig): Ledgers {
  const { files, keep = makeAnew } = project;
  const { name } = config;
  const folder = project.config.ledger;
  const read = new Map<string, Ledger>();
  // What was read before has its keys from there.
  const pool = keep(`pool ${folder} ${name}`, [], () => new KeyPool());
  return {
    pool,
    get sources() {
      return keptSources(project, config);
    },
    of(locale) {
      const ledger =
        read.get(locale) ??
        keptOf(project, `ledger ${folder} ${name} ${locale}`, ledgerFiles(folder, name, locale), () =>
          readLedger(files, folder, name, locale, pool),
        );
      read.set(locale, ledger);
      return ledger;
    },
  };
}

function keptSources(project: Project, { name }: BookConfig): SourceTexts {
  const { files, config } = project;
  const file = sourceTextsFile(config.ledger, name);
  return keptOf(project, `sources ${file}`, [file], () => readSourceTexts(files, config.ledger, name));
}

/** What is made of files, kept as long as their texts are the same where the project keeps anything. */
function keptOf<Made>(
  { files, keep }: Project,
  name: string,
  from: readonly string[],
  make: () => Made,
): Made {
  return keep
    ? keep(
        name,
        from.map((file) => textOrTrouble(files.read(file))),
        make,
      )
    : make();
}

function textOrTrouble(read: FileText): string {
  return read.ok ? read.text : `${read.trouble} ${read.detail}`;
}
