import type { Catalog } from "../core/catalog/book.js";
import type { Entry } from "../core/catalog/model.js";
import type { BookConfig } from "../core/config/schema.js";
import type { WritableFiles } from "../core/files/files.js";
import { LiveFiles } from "../core/files/live-files.js";
import type { Finding } from "../core/lint/finding.js";
import { standingOf } from "../core/ledger/standing.js";
import { showForms } from "../core/message/forms.js";
import { messageReader } from "../core/message/parse.js";
import { LiveProject } from "../core/project/live-project.js";
import { errorsShownBy, surveyOf } from "../core/project/survey-project.js";
import { ledgers, sourceOf, type Project } from "../core/project/project.js";
import { lintProject } from "../core/project/lint-project.js";
import { listCode } from "../core/source/book-code.js";
import { isHomeOf } from "../core/source/home-book.js";
import type { Lookup, SourceFile } from "../core/source/model.js";
import { prepareReaders } from "../core/source/read.js";
import { quotedIn, withoutQuoted } from "../core/text/delimited.js";
import { literally } from "../core/text/key-pattern.js";
import type { ReportedLiteral } from "../core/survey/survey.js";

/** A key where it stands: in code, or in a catalog. */
export interface KeyPlace {
  readonly book: string;
  readonly namespace: string | undefined;
  /** As its catalog has it, and as code writes it. */
  readonly key: string;
  readonly written: string;
  /** Where the key stands, in UTF-16 code units of the file. */
  readonly start: number;
  readonly end: number;
}

/** A project in an editor: what is open and not saved counts as its files. */
export class Workspace {
  private readonly live: LiveProject;
  private opened: Project | undefined;
  private isOld = true;

  constructor(files: () => WritableFiles) {
    this.live = new LiveProject(new LiveFiles(files));
  }

  /** Takes the text of a file that is open; undefined where it was closed. */
  put(file: string, text: string | undefined): void {
    this.live.put(file, text);
    this.isOld = true;
  }

  /** Says that files have changed; without a list any may have. */
  changed(files?: readonly string[]): void {
    this.live.changed(files);
    this.isOld = true;
  }

  /** The project as it is now; where its configuration cannot be read, as it was last, if it ever was. */
  project(): Project | undefined {
    if (this.isOld) {
      const result = this.live.open();
      if (result.ok) this.opened = result.project;
      this.isOld = false;
    }
    return this.opened;
  }

  textOf(file: string): string | undefined {
    const read = this.live.files.read(file);
    return read.ok ? read.text : undefined;
  }

  /** What the rules say of the whole project. */
  async findings(): Promise<readonly Finding[]> {
    const project = this.project();
    return project ? lintProject(project) : [];
  }

  /** The texts in a file of code. */
  async literals(file: string): Promise<readonly ReportedLiteral[]> {
    const project = this.project();
    if (!project) return [];
    const read = project.files.read(file);
    if (!read.ok) return [];
    await prepareReaders([file], project.files);
    return booksOf(project, file).flatMap((book) => {
      if (!isHomeOf(project.config.books, book, file)) return [];
      const survey = surveyOf(project, book, { shownErrors: errorsShownBy(project, book) });
      const { literals } = survey(file, read);
      return literals.filter(({ verdict, waived }) => verdict === "text" && waived === undefined);
    });
  }

  /** A file of code as each book reads it. */
  async read(file: string): Promise<readonly { readonly book: BookConfig; readonly source: SourceFile }[]> {
    const project = this.project();
    const read = project?.files.read(file);
    if (!project || !read?.ok) return [];
    await prepareReaders([file], project.files);
    return booksOf(project, file).map((book) => ({ book, source: sourceOf(project, book, file, read) }));
  }

  /** The lookups of a file whose keys the catalogs have. */
  async lookups(
    file: string,
  ): Promise<readonly { readonly lookup: Lookup; readonly place: KeyPlace; readonly text: string }[]> {
    const project = this.project();
    if (!project) return [];
    return (await this.read(file)).flatMap(({ book, source }) =>
      source.lookups.flatMap((lookup) => {
        if (lookup.key.kind !== "fixed") return [];
        const own = project.book(book);
        const found = own.resolve(lookup.key.value);
        if (!found) return [];
        const { namespace } = found.catalog;
        const place = {
          book: book.name,
          namespace,
          key: found.entry.key,
          written: own.codeKey(namespace, found.entry.key),
          ...lookup.keySpan,
        };
        return [{ lookup, place, text: found.entry.text }];
      }),
    );
  }

  /** The key at a place of a file, in code or in a catalog; undefined for none. */
  async keyAt(file: string, offset: number): Promise<KeyPlace | undefined> {
    const catalog = this.entryAt(file, offset);
    if (catalog) return catalog;
    return (await this.lookups(file)).find(({ place }) => place.start <= offset && offset <= place.end)
      ?.place;
  }

  /** The catalogs that a file holds. */
  catalogsIn(file: string): readonly { readonly book: BookConfig; readonly catalog: Catalog }[] {
    const project = this.project();
    return (
      project?.config.books.flatMap((book) =>
        project
          .book(book)
          .catalogs.filter((catalog) => catalog.file === file && catalog.exists)
          .map((catalog) => ({ book, catalog })),
      ) ?? []
    );
  }

  /** A key's entries in all locales. */
  entriesOf({
    book,
    namespace,
    key,
  }: KeyPlace): readonly { readonly catalog: Catalog; readonly entry: Entry }[] {
    const project = this.project();
    const config = project?.config.books.find(({ name }) => name === book);
    if (!project || !config) return [];
    return project.book(config).catalogs.flatMap((catalog) => {
      const entry = catalog.namespace === namespace ? catalog.byKey.get(key) : undefined;
      return entry ? [{ catalog, entry }] : [];
    });
  }

  /** A key's text and state in every locale. */
  textsOf(
    place: KeyPlace,
  ): readonly { readonly locale: string; readonly state: string; readonly text?: string }[] {
    const project = this.project();
    const config = project?.config.books.find(({ name }) => name === place.book);
    if (!project || !config) return [];
    const book = project.book(config);
    const source = book.catalog(book.sourceLocale, place.namespace)?.byKey.get(place.key);
    if (!source) return [];
    const ledger = ledgers(project, config);
    const message = messageReader(config).read(source.text, book.sourceLocale, place.key);
    const full = book.fullKey(place.namespace, place.key);
    return [
      { locale: book.sourceLocale, state: "source", text: showForms(source.text) },
      ...book.targetLocales.map((locale) => {
        const entry = book.catalog(locale, place.namespace)?.byKey.get(place.key);
        if (!entry) return { locale, state: "missing" };
        const record = ledger(locale).record(full);
        const { state, stale } = standingOf({ record, source: source.text, message, text: entry.text });
        return { locale, state: stale ? "stale" : state, text: showForms(entry.text) };
      }),
    ];
  }

  /** The places where code asks for a key. */
  async usesOf({
    book,
    key,
    namespace,
  }: KeyPlace): Promise<readonly { readonly file: string; readonly place: KeyPlace }[]> {
    const project = this.project();
    const config = project?.config.books.find(({ name }) => name === book);
    if (!project || !config) return [];
    const found: { file: string; place: KeyPlace }[] = [];
    for (const file of listCode(project.files, config))
      for (const { place } of await this.lookups(file))
        if (place.book === book && place.key === key && place.namespace === namespace)
          found.push({ file, place });
    return found;
  }

  /**
   * What may be written at a place as a value of a message: in a call, the names of arguments that its message takes and the call
   * does not pass yet; in a translation, the source's arguments as its syntax writes them.
   */
  argumentsAt(file: string, offset: number): readonly Argument[] {
    const project = this.project();
    const content = this.textOf(file);
    if (!project || content === undefined) return [];
    const place = this.entryAt(file, offset);
    return place
      ? argumentsOfText(project, place, content, offset)
      : argumentsOfCall(project, booksOf(project, file), content, offset);
  }

  private entryAt(file: string, offset: number): KeyPlace | undefined {
    const project = this.project();
    for (const { book, catalog } of this.catalogsIn(file))
      for (const entry of catalog.byKey.values()) {
        const { keySpan, valueSpan } = entry;
        const isIn = (start: number, end: number) => start <= offset && offset <= end;
        if (!isIn(keySpan.start, keySpan.end) && !isIn(valueSpan.start, valueSpan.end)) continue;
        const own = project?.book(book);
        return {
          book: book.name,
          namespace: catalog.namespace,
          key: entry.key,
          written: own?.codeKey(catalog.namespace, entry.key) ?? entry.key,
          start: keySpan.start,
          end: keySpan.end,
        };
      }
    return undefined;
  }
}

/** An argument that may be written: where what is typed of it begins, its text, and the message that it is one of. */
export interface Argument {
  readonly start: number;
  readonly text: string;
  readonly of: string;
}

function argumentsOfText(
  project: Project,
  { book: name, namespace, key }: KeyPlace,
  content: string,
  offset: number,
): readonly Argument[] {
  const config = project.config.books.find((one) => one.name === name);
  const book = config && project.book(config);
  const source = book?.catalog(book.sourceLocale, namespace)?.byKey.get(key);
  if (!book || !source) return [];
  const reader = messageReader(config);
  const before = content.slice(Math.max(0, offset - longestName), offset);
  const names = reader.read(source.text, book.sourceLocale, key).facts.arguments.keys();
  return [...names].flatMap((argument) => {
    const text = reader.print([{ kind: "argument", name: argument }]);
    let typed = Math.min(text.length - 1, before.length);
    while (typed > 0 && !before.endsWith(text.slice(0, typed))) typed--;
    return typed === 0 ? [] : [{ start: offset - typed, text, of: source.text }];
  });
}

/** Goes by the strings before a place: code that is being typed can hardly be parsed. */
function argumentsOfCall(
  project: Project,
  books: readonly BookConfig[],
  content: string,
  offset: number,
): readonly Argument[] {
  const before = content.slice(Math.max(0, offset - longestCall), offset);
  const typed = /[\p{L}\p{N}_$]{0,80}$/u.exec(before)?.[0] ?? "";
  for (const { value, end } of [...quotedIn(before, "\"'`")].reverse()) {
    const between = before.slice(end, before.length - typed.length);
    if (!isInsideCall(between)) continue;
    for (const config of books) {
      const book = project.book(config);
      const entry = book.resolve(value)?.entry;
      if (!entry) continue;
      const { text, key } = entry;
      const isPassed = (name: string) => new RegExp(`(?<![\\w$])${literally(name)}(?![\\w$])`).test(between);
      const names = messageReader(config).read(text, book.sourceLocale, key).facts.arguments.keys();
      return [...names]
        .filter((name) => name.startsWith(typed) && !isPassed(name))
        .map((name) => ({ start: offset - typed.length, text: name, of: text }));
    }
  }
  return [];
}

/** Code units of a name, and of a call up to the place where one types. */
const longestName = 120;
const longestCall = 2000;

/** Whether code behind a key, as far as one has typed, is in the same call, where an argument may begin. */
function isInsideCall(between: string): boolean {
  let depth = 0;
  for (const unit of withoutQuoted(between, "\"'`", () => "")) {
    if (unit === "(" || unit === "{" || unit === "[") depth++;
    else if (unit === ")" || unit === "}" || unit === "]") depth--;
    if (depth < 0 || unit === ";") return false;
  }
  return depth <= 2 && /[,{(]\s*$/.test(between) && between.includes(",");
}

function booksOf(project: Project, file: string): readonly BookConfig[] {
  return project.config.books.filter(
    (book) => listCode(project.files, book, (one) => one === file).length > 0,
  );
}
