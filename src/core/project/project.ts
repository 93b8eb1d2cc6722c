import { bookLayout } from "../catalog/layout.js";
import { localeInside } from "../catalog/view.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { partEnds } from "../text/separators.js";
import { loadBook, type Book } from "../catalog/book.js";
import { KeyPool } from "../catalog/key-pool.js";
import { loadConfig, type ConfigProblem } from "../config/load.js";
import { loadWaivers, type Waivers } from "../config/waivers.js";
import type { BookConfig, Config } from "../config/schema.js";
import type { Files, FileText } from "../files/files.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { balanceBook, type BookBalance } from "../ledger/balance.js";
import { ledgerFiles, readLedger, type Ledger } from "../ledger/ledger.js";
import { outstandingTexts, type OutstandingText } from "../ledger/outstanding.js";
import { readSourceTexts, sourceTextOf, sourceTextsFile, type SourceTexts } from "../ledger/source-texts.js";
import { readGlossary, type Concept } from "../lint/glossary.js";
import { rules as allRules } from "../lint/rules/index.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import type { Ledgers } from "../reconcile/job.js";
import { listCode, readBookSource } from "../source/book-code.js";
import { isCodeOf, isHomeOf } from "../source/home-book.js";
import type { Literal, SourceFile } from "../source/model.js";
import { takesImportLine } from "../extract/import-line.js";
import { languageOf } from "../source/languages/index.js";
import { dialectByName, hasOpenEnding } from "../source/dialects/index.js";
import { isScript } from "../source/readers/script/endings.js";
import { nearest } from "../text/nearest.js";

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

/** A file of a book's code. What it needs must be prepared before. */
export function sourceOf(
  { config: { source }, keep }: Project,
  config: BookConfig,
  file: string,
  read: Extract<FileText, { ok: true }>,
): SourceFile {
  return readBookSource(config, source, file, read, keep);
}

/** The files of a book's code whose new texts go into it. */
export function homeCode(
  { files, config: { books } }: Project,
  config: BookConfig,
  { path = () => true }: Pick<Scope, "path"> = {},
): readonly string[] {
  // What is a catalog of another book holds no text of code.
  const others = books.filter((book) => book !== config && book.constant === undefined).map(bookLayout);
  return listCode(
    files,
    config,
    (file) =>
      path(file) &&
      isHomeOf(books, config, file) &&
      !others.some((layout) => layout.place(file) !== undefined),
  );
}

/** The books whose lookups hold texts that are none of a book's. */
export function otherBooks({ config: { books } }: Project, config: BookConfig): readonly BookConfig[] {
  return books.filter((book) => book !== config);
}

/** A file of code with the texts that may go into a book: what is given to lookups of other books is theirs. */
export function homeSourceOf(
  project: Project,
  config: BookConfig,
  file: string,
  read: Extract<FileText, { ok: true }>,
): SourceFile {
  const source = sourceOf(project, config, file, read);
  const others = otherBooks(project, config).filter((book) => isCodeOf(book, file));
  const taken = others.flatMap((book) =>
    sourceOf(project, book, file, read).lookups.map(({ keySpan }) => keySpan),
  );
  if (taken.length === 0) return source;
  const isTaken = ({ span }: Literal) => taken.some(({ start, end }) => start < span.end && span.start < end);
  return { ...source, literals: source.literals.filter((literal) => !isTaken(literal)) };
}

const readers = new WeakMap<BookConfig, MessageReader>();

/** The reader of a book's messages, made once. */
export function readerOf(config: BookConfig): MessageReader {
  const reader = readers.get(config) ?? messageReader(config);
  readers.set(config, reader);
  return reader;
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

export function ledgersOf(project: Project, config: BookConfig): Ledgers {
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

export function textOrTrouble(read: FileText): string {
  return read.ok ? read.text : `${read.trouble} ${read.detail}`;
}
