import { noticeOf, notices } from "../message/notices.js";
import { waiverMessages } from "../lint/lint.js";
import { catalogEdits, editCatalog, isWhole, unreadNote, type Book, type Catalog } from "../catalog/book.js";
import type { CatalogChanges, Entry } from "../catalog/model.js";
import { type Waiver } from "../config/waivers.js";
import type { BookConfig } from "../config/schema.js";
import { makeAnew } from "../text/kept.js";
import { overlayFiles } from "../files/overlay-files.js";
import { sourceTextsFile } from "../ledger/source-texts.js";
import type { Finding } from "../lint/finding.js";
import { disorderIn } from "../lint/key-order.js";
import { lintBook, sortFindings } from "../lint/lint.js";
import type { CodeText, OtherBook, Rule } from "../lint/rule.js";
import { lazily } from "../text/lazy.js";
import { lineIndex } from "../text/line-index.js";
import { settingsOf } from "../locale/locale-lists.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import {
  codeUse,
  listCode,
  readBookCode,
  useRecord,
  type BookCode,
  type CodeUse,
  type UseRecord,
} from "../source/book-code.js";
import { prepareReaders } from "../source/read.js";
import { unreadCode } from "../source/unread-code.js";
import { leftOutByName } from "../survey/left-out.js";
import { prepareWidths } from "../text/width.js";
import type { Range } from "../text/span.js";
import { workOver, type DoneHere, type WorkReading } from "./file-work.js";
import {
  booksIn,
  formerSources,
  ledgers,
  openProject,
  readerOf,
  sourceOf,
  textOrTrouble,
  type Project,
  type Scope,
} from "./project.js";

const say = notices("project", {
  "not-moved": {
    message: "keys not moved: comments next to them would be lost",
    remedy: "move them by hand",
  },
});

/** Reads what files of a book's code ask for, one at a time. What a file needs must be prepared before. */
export function usesOf(project: Project, config: BookConfig): DoneHere<UseRecord> {
  return (file, read) => useRecord(sourceOf(project, config, file, read));
}

/** The code that may ask for a book's texts: libraries that others wrote ask for their own, but for those that the book names. */
function askingCode({ files }: Project, config: BookConfig): readonly string[] {
  return listCode(files, config, (file) => {
    if (leftOutByName(file) !== "vendored") return true;
    const own = file.split("/").find((folder) => leftOutByName(`${folder}/a.js`) === "vendored");
    return own !== undefined && config.code.some((pattern) => pattern.split("/").includes(own));
  });
}

/** What a book's code asks for, read again only where it is not known from another run. */
async function codeOf(
  project: Project,
  config: BookConfig,
  reading: WorkReading<UseRecord>,
): Promise<BookCode> {
  const listed = askingCode(project, config);
  const { made, unread } = await workOver(
    project,
    config,
    listed,
    { kind: "uses" },
    usesOf(project, config),
    { ...reading, settings: [] },
  );
  const files = listed.flatMap((file): CodeUse[] => {
    const read = project.files.read(file);
    const one = made.get(file);
    return read.ok && one ? [codeUse(file, read, one)] : [];
  });
  return { files, unread };
}

/** Runs the rules over a project's catalogs and code. `path` narrows what is reported, not what is read. */
export async function lintProject(
  project: Project,
  scope: Scope = {},
  rules?: readonly Rule[],
  reading?: WorkReading<UseRecord>,
): Promise<Finding[]> {
  const { keep } = project;
  const codes = new Map<BookConfig, BookCode>();
  for (const config of booksIn(project, scope)) {
    if (config.limits) await prepareWidths();
    if (config.code.length === 0) continue;
    if (reading && !keep) codes.set(config, await codeOf(project, config, reading));
    else {
      const listed = askingCode(project, config);
      await prepareReaders(listed, project.files);
      codes.set(config, readBookCode(project.files, config, project.config.source, keep, listed));
    }
  }
  const othersOf = booksFromOutside(project);
  const settings = settingsTexts(project);
  const unread = unreadCode(project.files, keep);
  const findings = booksIn(project, scope).flatMap((config) => {
    const book = project.book(config);
    const code = codes.get(config);
    return lintBook(
      {
        book,
        code,
        others: othersOf(config),
        settings: besides(settings, code),
        unreadCode: unread,
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
