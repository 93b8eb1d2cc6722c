import { commentsAbove, type CommentLine } from "./comments.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { groupBy } from "../text/group-by.js";
import { partEnds, separatorsOf } from "../text/separators.js";
import { configFileNames } from "../config/load.js";
import type { BookConfig, Config } from "../config/schema.js";
import type { FileText, Files, TextEncoding } from "../files/files.js";
import { makeAnew, type Keep } from "../text/kept.js";
import type { FileChange, PlanNote } from "../plan/plan.js";
import { canonicalTag } from "../locale/tag.js";
import { doubtTag } from "../locale/mistaken-tag.js";
import { keyTest } from "../text/key-pattern.js";
import { lineIndex, type LineIndex } from "../text/line-index.js";
import { showForms } from "../message/forms.js";
import { formatOf } from "./formats/index.js";
import { catalogContent, entryTable } from "./entry-table.js";
import { KeyPool } from "./key-pool.js";
import { isHintLine, withHints, type HintedEntry, type OwnHints } from "./hints.js";
import { readDeclared, type DeclaredTexts } from "./declared.js";
import { renamedInPlace } from "./rename-keys.js";
import { bookLayout, type Layout } from "./layout.js";
import type {
  CatalogChanges,
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  Entry,
  EntryPath,
} from "./model.js";
import {
  hasForms,
  joinPluralKeys,
  keepsFormsApart,
  offsetInForms,
  settingsIn,
  splitPluralKeys,
  type PluralKeySettings,
} from "./plural-keys.js";
import { localeInside, localesInside, viewed, viewOf, withoutText, type CatalogView } from "./view.js";

/** One catalog of a book: a file or a part of one, or the place where one would be. */
export interface Catalog extends CatalogContent {
  readonly file: string;
  readonly locale: string;
  readonly namespace: string | undefined;
  readonly exists: boolean;
  /** The file's text as read, without its byte order mark; that of an empty catalog where there is not a file. */
  readonly content: string;
  readonly bom: boolean;
  readonly encoding?: TextEncoding;
  readonly format: CatalogFormat;
  /** How its paths stand in the file. */
  readonly view: CatalogView;
  /** How the book keeps plurals, and what stands between the parts of its keys. */
  readonly settings: PluralKeySettings;
  readonly separator: string;
  /** What stands where an entry would and has no text, where entries are objects with the text in one member. */
  readonly withoutText: readonly { readonly entry: Entry; readonly path: EntryPath }[];
  /** The entries by key; of a key that is a duplicate, the last, as readers keep it. */
  readonly byKey: ReadonlyMap<string, Entry>;
  readonly lines: LineIndex;
  /** Set where the file is there and its text could not be had. */
  readonly unreadable?: string;
}

/** A file of types with the source catalogs whose texts it declares. */
export interface Declaration extends DeclaredTexts {
  readonly catalogs: readonly Catalog[];
}

/** All catalogs of one book. */
export interface Book {
  readonly config: BookConfig;
  readonly layout: Layout;
  readonly sourceLocale: string;
  readonly targetLocales: readonly string[];
  /** The namespaces that the source locale has, sorted; `[undefined]` for a book without namespaces. */
  readonly namespaces: readonly (string | undefined)[];
  /** Every catalog of the configured locales, present or not, and those of namespaces only a target has. */
  readonly catalogs: readonly Catalog[];
  /** Files of the book's layout whose locale the configuration does not name. */
  readonly strays: readonly Catalog[];
  catalog(locale: string, namespace: string | undefined): Catalog | undefined;
  /** The catalogs of one locale, in the order of `catalogs`. */
  catalogsOf(locale: string): readonly Catalog[];
  /** A key with what tells its catalog from the book's others: the one that the ledger keeps. */
  fullKey(namespace: string | undefined, key: string): string;
  /** What code writes to ask for a key. */
  codeKey(namespace: string | undefined, key: string): string;
  /** Whether a locale should have a key: not where the configuration says that only others have it. */
  expects(locale: string, codeKey: string): boolean;
  /** Whether a locale has a key on purpose that the source need not have. */
  allows(locale: string, codeKey: string): boolean;
  /** Whether a framework may ask for a key by itself, so that a locale may have it without the source. */
  assumes(codeKey: string): boolean;
  /** The files of types that say which texts the source catalogs have to have, each with its catalogs; none where the book names none. */
  declarations(): readonly Declaration[];
  /** The source entry that a key in code stands for. */
  resolve(fullKey: string): { readonly catalog: Catalog; readonly entry: Entry } | undefined;
}

/** Reads every catalog of a book. Files that cannot be read are there with their problem; nothing is thrown. */
export function loadBook(files: Files, config: Config, book: BookConfig, keep: Keep = makeAnew): Book {
  const layout = keep(`layout ${book.name}`, [book], () => bookLayout(book));
  const separators = separatorsOf(book);
  const format = formatOf(book);
  const inside = localeInside(book);
  const locales = [config.source, ...config.targets];
  // Letter case means nothing in a tag: the configuration's way of writing it is the one that counts.
  const byTag = new Map(locales.map((one) => [canonicalTag(one), one]));
  const pseudo = new Set(config.pseudo?.map((one) => canonicalTag(one) ?? one));
  const configured = (tag: string) => byTag.get(canonicalTag(tag));
  const found = new Map<string, Catalog>();
  const strays: Catalog[] = [];
  const namespaces = new Set<string | undefined>();
  const catalogOf = (file: FileContent, written: string, locale: string, namespace: string | undefined) =>
    keep(`catalog ${book.name} ${file.file} ${catalogId(locale, namespace)} ${written}`, [book, file], () =>
      catalogIn(file, locale, namespace, viewOf(book, written), separators.parts, book),
    );
  const put = (file: FileContent, written: string, tag: string, namespace: string | undefined) => {
    const locale = configured(tag);
    const catalog = catalogOf(file, written, locale ?? tag, namespace);
    if (locale === undefined) {
      // What is made from the source by rule is nobody's translation.
      const isNamed = doubtTag(written, locales)?.kind !== "no-tag";
      // Beside catalogs stands what is none: a list of the languages that there are.
      const isOther =
        !isNamed && (catalog.entries.length === 0 || file.raw.problems.some(({ code }) => code === "shape"));
      if (!pseudo.has(canonicalTag(tag) ?? tag) && !isOther) strays.push(catalog);
    } else {
      found.set(catalogId(locale, namespace), catalog);
      if (locale === config.source) namespaces.add(namespace);
    }
  };
  const read = new Map<string, FileContent>();
  // What is read again after a change has mostly the keys that it had.
  const pools = keep(`pools ${book.name}`, [book], () => new Map<string | undefined, KeyPool>());
  const poolOf = (namespace: string | undefined) => {
    const pool = pools.get(namespace) ?? new KeyPool();
    pools.set(namespace, pool);
    return pool;
  };
  const contentOf = (file: string, namespace: string | undefined) => {
    const text = files.read(file);
    const from = text.ok ? [text.text, text.bom, text.encoding] : [text.trouble, text.detail];
    return keep(`file ${book.name} ${file}`, [book, ...from], () =>
      readFile(text, file, format, separators.parts, poolOf(namespace)),
    );
  };
  const ownFiles = new Set<string>([...configFileNames, config.waivers]);
  for (const file of files.list({ patterns: layout.globs, ignore: book.ignore })) {
    const place = layout.place(file);
    // A pattern such as {locale}.json finds the project's own files as well.
    if (!place || ownFiles.has(file)) continue;
    const content = contentOf(file, place.namespace);
    // Beside modules with texts stand others, which declare their types or bring them together.
    const isOther = content.raw.problems.some(({ code }) => code === "shape") || file.endsWith(".d.ts");
    if (format.code && isOther && configured(place.locale ?? "") === undefined) continue;
    read.set(file, content);
    if (place.locale !== undefined && place.written !== undefined) {
      // Below a root the file writes the locale as its own name does, or as it is.
      const roots = inside ? localesInside(content.raw, inside) : [];
      const written =
        inside && !roots.includes(place.written) && roots.length === 1 ? (roots[0] ?? "") : place.written;
      put(content, written, place.locale, place.namespace);
    } else if (inside)
      for (const written of localesInside(content.raw, inside))
        put(content, written, layout.localeOfSpelling(written), place.namespace);
  }
  if (!layout.hasParts) namespaces.add(undefined);
  else if (!layout.hasLocales) for (const file of read.keys()) namespaces.add(layout.place(file)?.namespace);
  const ordered = [...namespaces].sort();
  for (const locale of locales) {
    for (const namespace of ordered) {
      const id = catalogId(locale, namespace);
      if (found.has(id)) continue;
      const path = layout.path(locale, namespace);
      const known = read.get(path) ?? contentOf(path, namespace);
      const source = found.get(catalogId(config.source, namespace));
      const file =
        known.exists || !source
          ? known
          : keep(`frame ${book.name} ${path} ${id}`, [source, known], () =>
              framedAs(source, known, layout.spell(locale)),
            );
      read.set(path, file);
      found.set(id, catalogOf(file, layout.spell(locale), locale, namespace));
    }
  }
  const rank = new Map(locales.map((locale, index) => [locale, index]));
  const rankOf = ({ locale }: Catalog) => rank.get(locale) ?? -1;
  const catalogs = [...found.values()].sort(
    (a, b) => rankOf(a) - rankOf(b) || compare(a.namespace ?? "", b.namespace ?? ""),
  );
  const byLocale = groupBy(catalogs, ({ locale }) => locale);
  const codeKey = (namespace: string | undefined, key: string) => {
    const written = layout.codeNamespace(namespace);
    return written === undefined || written === book.naming.home ? key : written + separators.namespace + key;
  };
  const fullKey = (namespace: string | undefined, key: string) => {
    if (namespace === undefined) return key;
    return layout.codeNamespace(namespace) === namespace
      ? namespace + separators.namespace + key
      : `${namespace}:${key}`;
  };
  const only = Object.entries(book.only ?? {}).map(([pattern, tags]) => ({
    test: keyTest(pattern, partEnds(book)),
    locales: tags.map((tag) => configured(tag) ?? tag),
  }));
  const assumed = book.assumed.map((pattern) => keyTest(pattern, partEnds(book)));
  return {
    config: book,
    layout,
    sourceLocale: config.source,
    targetLocales: config.targets,
    namespaces: ordered,
    catalogs,
    strays,
    catalog: (locale, namespace) => found.get(catalogId(locale, namespace)),
    catalogsOf: (locale) => byLocale.get(locale) ?? [],
    fullKey,
    codeKey,
    expects: (locale, key) => only.every((one) => one.locales.includes(locale) || !one.test(key)),
    assumes: (key) => assumed.some((test) => test(key)),
    allows: (locale, key) => only.some((one) => one.locales.includes(locale) && one.test(key)),
    declarations() {
      const sources = (byLocale.get(config.source) ?? []).filter(({ exists }) => exists);
      return [...groupBy(sources, (source) => declaredPath(book, source))].flatMap(([file, own]) => {
        if (file === undefined) return [];
        const read = files.read(file);
        const [text, bom] = read.ok ? [read.text, read.bom] : ["", false];
        return [{ ...readDeclared(file, text, bom, own.flatMap(pathsIn)), catalogs: own }];
      });
    },
    resolve(full) {
      for (const namespace of namespaces) {
        const prefix = codeKey(namespace, "");
        if (!full.startsWith(prefix)) continue;
        const catalog = found.get(catalogId(config.source, namespace));
        const entry = catalog?.byKey.get(full.slice(prefix.length));
        if (catalog && entry) return { catalog, entry };
      }
      return undefined;
    },
  };
}

/** Where the file of types of a source catalog is: beside it where the path starts with a period. */
function declaredPath({ declared }: BookConfig, { file }: Catalog): string | undefined {
  if (declared === undefined || !/^\.{1,2}\//.test(declared)) return declared;
  const parts = file.split("/").slice(0, -1);
  for (const part of declared.split("/")) {
    if (part === "..") parts.pop();
    else if (part !== ".") parts.push(part);
  }
  return parts.join("/");
}

/** The paths of a catalog's entries as types declare them: flat names as they are. */
export function pathsIn({ entries }: Catalog): readonly EntryPath[] {
  return entries.map(({ path }) => path);
}

/** A catalog file as read, for all catalogs in it. */
interface FileContent extends Pick<
  Catalog,
  "file" | "exists" | "content" | "bom" | "encoding" | "format" | "lines" | "unreadable"
> {
  /** Everything in the file. */
  readonly raw: CatalogContent;
}

const say = notices("catalog", {
  encoding: { message: "not UTF-8 text: {detail}", remedy: "save the file as UTF-8" },
  unreadable: { message: "the file cannot be read: {detail}", remedy: "check its permissions" },
  "too-large": { message: "larger than 50 MB", remedy: "split it, or check what wrote it" },
  nul: { message: "NUL character: this is not a text file", remedy: "check what wrote this file" },
  skipped: { message: "skipped, because it cannot be read: {detail}", remedy: "{fix}" },
});

/** Files of more code units than this are no catalogs that people write. */
const largestFile = 50_000_000;

function readFile(
  read: FileText,
  file: string,
  format: CatalogFormat,
  separator: string,
  pool: KeyPool,
): FileContent {
  if (!read.ok) {
    const empty = { file, format, content: format.empty, bom: false, lines: lineIndex("") };
    if (read.trouble === "absent") return { ...empty, exists: false, raw: catalogContent(entryTable([])) };
    const { detail } = read;
    const problem = fileProblem(
      read.trouble === "encoding" ? say("encoding", { detail }) : say("unreadable", { detail }),
    );
    return { ...empty, exists: true, raw: noEntries(problem), unreadable: read.detail };
  }
  const { text, bom, encoding } = read;
  const base = {
    file,
    format,
    content: text,
    bom,
    ...(encoding && { encoding }),
    exists: true,
    lines: lineIndex(text),
  };
  const trouble =
    text.length > largestFile
      ? fileProblem(say("too-large", {}))
      : text.includes("\0")
        ? {
            ...fileProblem(say("nul", {})),
            span: { start: text.indexOf("\0"), end: text.indexOf("\0") + 1 },
          }
        : undefined;
  return { ...base, raw: trouble ? noEntries(trouble) : format.read(text, separator, pool) };
}

/** A file that is not there yet, in the frame of the source's: what is exported, and under which name. */
function framedAs(source: Catalog, file: FileContent, spelled: string): FileContent {
  const frame = source.exists ? source.format.code?.emptyLike(source.content) : undefined;
  if (frame === undefined) return file;
  const name = spelled.replace(/-/g, "_");
  const named = new RegExp(
    `\\b(const|let|var|default)(\\s+)${source.locale.replace(/-/g, "_")}(?![\\w$])`,
    "g",
  );
  return { ...file, content: frame.replace(named, (_, word: string, gap: string) => word + gap + name) };
}

function noEntries(problem: CatalogProblem): CatalogContent {
  return catalogContent(entryTable([]), { problems: [problem] });
}

function fileProblem(notice: Notice): CatalogProblem {
  return { code: "syntax", ...notice, span: { start: 0, end: 0 } };
}

/** One catalog of a file. */
function catalogIn(
  { raw, ...file }: FileContent,
  locale: string,
  namespace: string | undefined,
  view: CatalogView,
  separator: string,
  ofBook: PluralKeySettings,
): Catalog {
  const settings = settingsIn(ofBook, locale);
  const found = viewed(raw, view, separator);
  const table = keepsFormsApart(settings)
    ? entryTable(joinPluralKeys(found.entries, settings, separator))
    : found.table;
  return {
    ...file,
    table,
    get entries() {
      return table.entries;
    },
    emptyGroups: found.emptyGroups,
    unknown: found.unknown,
    problems: found.problems,
    settings,
    separator,
    withoutText: view.member === undefined ? [] : withoutText(raw, view.member),
    locale,
    namespace,
    view,
    byKey: table.byKey,
  };
}

/** Whether everything in the catalog could be read, so that what is not in it is really missing. */
export function isWhole(catalog: Catalog): boolean {
  return catalog.problems.length === 0 || isEmptyFile(catalog);
}

/** Whether a catalog's file holds nothing at all: broken for what reads it, and yet nothing is lost where it is filled. */
function isEmptyFile({ exists, content, unreadable }: Catalog): boolean {
  return exists && unreadable === undefined && content.trim() === "";
}

/** What a plan says of a catalog that it skips because it cannot be read whole. */
export function unreadNote({ file, lines, problems: [problem], unreadable }: Catalog): PlanNote {
  return {
    file,
    ...(problem && lines.position(problem.span.start)),
    ...say("skipped", {
      detail: problem?.message ?? unreadable ?? "",
      fix: problem?.remedy ?? "make it readable",
    }),
    undone: unreadable === undefined ? "broken" : "unreadable",
  };
}

const comparedLast = new WeakMap<Catalog, { readonly other: Catalog; readonly areSame: boolean }>();

/** Whether two catalogs have the same keys in the same order, as nearly all of one book have. */
export function haveSameKeys(one: Catalog, other: Catalog): boolean {
  const known = comparedLast.get(one);
  if (known?.other === other) return known.areSame;
  const { size } = one.table;
  let at = 0;
  if (other.table.size === size) while (at < size && one.table.keyAt(at) === other.table.keyAt(at)) at++;
  const areSame = other.table.size === size && at === size;
  comparedLast.set(one, { other, areSame });
  return areSame;
}

/** The comments that a project keeps above entries itself. */
export function ownHintsOf({ hints }: BookConfig): OwnHints | undefined {
  return typeof hints === "object" ? hints : undefined;
}

/** A source entry, for the comments above its translations. */
export function hintedEntry({ content }: Catalog, { key, text, keySpan, valueSpan }: Entry): HintedEntry {
  return { key, text: showForms(text), entry: content.slice(keySpan.start, valueSpan.end) };
}

/** What the comment lines right above an entry say; undefined where there are none. */
export function commentAbove(catalog: Catalog, entry: Entry): string | undefined {
  const lines = linesAbove(catalog, entry);
  return lines.length > 0 ? lines.map(({ content }) => content).join("\n") : undefined;
}

/** What a catalog's comments say of an entry; a comment that opens the file is about the file. */
export function descriptionOf(catalog: Catalog, entry: Entry): string | undefined {
  const [first] = linesAbove(catalog, entry);
  return first?.start === 0 && entry.key === catalog.table.keyAt(0)
    ? undefined
    : commentAbove(catalog, entry);
}

/** The comment lines right above an entry. */
export function linesAbove({ content, format, table }: Catalog, entry: Entry): readonly CommentLine[] {
  if (!format.comments || entry.isInherited) return [];
  const { start } = entry.keySpan;
  const index = table.find(entry.key);
  const before = index > 0 ? table.entryAt(index - 1).valueSpan.end : 0;
  return commentsAbove(content, format.comments, start, before <= start ? before : 0);
}

/** A file's text with changes made to one of its catalogs; `text` is the file as it is by now. */
export function editCatalog(catalog: Catalog, text: string, changes: CatalogChanges): string {
  const { format, view, encoding, byKey, separator, settings } = catalog;
  const { set, add, remove, order } = splitPluralKeys(changes, settings, separator, !format.nests, (path) =>
    byKey.get(path.join(separator)),
  );
  const placed = <Item extends { readonly path: Entry["path"] }>(items: readonly Item[] = []) =>
    items.map((item) => ({ ...item, path: view.toFile(item.path) }));
  return format.edit(
    text,
    {
      set: placed(set),
      add: placed(add),
      remove: (remove ?? []).map((path) => view.wholeInFile(path)),
      order: (order ?? []).map((path) => view.toFile(path)),
    },
    encoding,
  );
}

/** Where, in a catalog's file, a code unit of an entry's text is written. */
export function placeInFile({ format, content }: Catalog, entry: Entry, offset: number): number {
  const inFile = (one: Entry, unit: number) => format.offsetInFile(content, one, unit);
  return hasForms(entry) ? offsetInForms(entry, offset, inFile) : inFile(entry, offset);
}

/** The texts of catalog files as changes to their catalogs leave them: several catalogs may stand in one file. */
export interface CatalogEdits {
  edit(catalog: Catalog, changes: CatalogChanges): void;
  /** Gives entries other paths where they stand, and says whether that was possible; else nothing is changed. */
  rename(catalog: Catalog, moves: readonly { readonly entry: Entry; readonly path: EntryPath }[]): boolean;
  /**
   * Moves entries to where an order of all has them, with the comments above them, and says whether that was possible; else
   * nothing is changed, as where comments beside values would be lost.
   */
  move(catalog: Catalog, entries: readonly Entry[], order: readonly Entry[]): boolean;
  /** Brings what translators find above entries up to date: the lines for an entry, undefined where they stay as they are. */
  hint(
    catalog: Catalog,
    wanted: (key: string) => readonly string[] | undefined,
    own: OwnHints | undefined,
  ): void;
  /** Takes a whole file away. */
  remove(catalog: Catalog): void;
  changes(): FileChange[];
}

/** `rewritten` are the texts of files that something else has changed before: catalogs that stand in code. */
export function catalogEdits(rewritten?: ReadonlyMap<string, string>): CatalogEdits {
  const files = new Map<string, { readonly catalog: Catalog; text: string | undefined }>();
  return {
    edit(catalog, changes) {
      const file = files.get(catalog.file) ?? {
        catalog,
        text: isEmptyFile(catalog) ? catalog.format.empty : (rewritten?.get(catalog.file) ?? catalog.content),
      };
      file.text = editCatalog(catalog, file.text ?? catalog.format.empty, changes);
      files.set(catalog.file, file);
    },
    rename(catalog, moves) {
      const { format, separator, view } = catalog;
      const file = files.get(catalog.file);
      const text = file ? file.text : catalog.content;
      if (text === undefined || moves.some(({ entry }) => hasForms(entry))) return false;
      const read = format.read(text, separator);
      const byPath = new Map(read.entries.map((entry) => [entry.path.join("\u0000"), entry]));
      const moved = moves.flatMap(({ entry, path }) => {
        const [from, to] = [view.wholeInFile(entry.path), view.wholeInFile(path)];
        const found = byPath.get(view.toFile(entry.path).join("\u0000"));
        if (!found) return [];
        // What stands beside the text in an object of its own goes along.
        const own =
          found.path.length === from.length
            ? [found]
            : read.entries.filter((one) => from.every((part, at) => one.path[at] === part));
        return own.map((one) => ({
          entry: one,
          from: one.path,
          to: [...to, ...one.path.slice(from.length)],
        }));
      });
      // A key that is a duplicate would be renamed once.
      if (moved.length < moves.length || byPath.size !== read.entries.length) return false;
      const paths = [...read.entries.map(({ path }) => path), ...read.emptyGroups];
      const after = renamedInPlace(text, format, moved, paths);
      if (after === undefined) return false;
      const again = new Map(
        format.read(after, separator).entries.map((one) => [one.path.join("\u0000"), one]),
      );
      const isRight =
        again.size === byPath.size &&
        moved.every(({ entry, to }) => again.get(to.join("\u0000"))?.text === entry.text);
      if (!isRight) return false;
      files.set(catalog.file, { catalog: file?.catalog ?? catalog, text: after });
      return true;
    },
    move(catalog, entries, order) {
      const file = files.get(catalog.file);
      const text = file ? file.text : catalog.content;
      const isMovable = ({ kind, isInherited }: Entry) => kind === "text" && !isInherited;
      if (text === undefined || !entries.every(isMovable)) return false;
      const without = editCatalog(catalog, text, { remove: entries.map(({ path }) => path) });
      const after = editCatalog(catalog, without, {
        add: entries.map((entry) => {
          const comment = descriptionOf(catalog, entry);
          return { path: entry.path, text: entry.text, ...(comment !== undefined && { comment }) };
        }),
        order: order.map(({ path }) => path),
      });
      if (after === text || !haveSameSigns(after, text) || !saysTheSame(catalog, text, after)) return false;
      files.set(catalog.file, { catalog: file?.catalog ?? catalog, text: after });
      return true;
    },
    hint(catalog, wanted, own) {
      const { format, separator, settings, view, encoding } = catalog;
      const file = files.get(catalog.file);
      const text = file ? file.text : catalog.content;
      if (text === undefined) return;
      // What was changed before is elsewhere by now.
      const found = file ? viewed(format.read(text, separator), view, separator) : undefined;
      const entries = found ? joinPluralKeys(found.entries, settings, separator) : catalog.entries;
      const after = withHints(text, format, entries, ({ key }) => wanted(key), isHintLine(own), encoding);
      if (after !== text) files.set(catalog.file, { catalog: file?.catalog ?? catalog, text: after });
    },
    remove(catalog) {
      files.set(catalog.file, { catalog, text: undefined });
    },
    changes: () =>
      [...files.values()].map(({ catalog: { file, exists, content, bom, encoding }, text }) => ({
        file,
        before: exists ? content : undefined,
        after: text,
        bom,
        ...(encoding && { encoding }),
      })),
  };
}

/** Whether two texts are made of the same signs, without those that only part or quote: no comment is lost then. */
function haveSameSigns(one: string, other: string): boolean {
  const counts = new Int32Array(0x10000);
  const add = (code: number, count: number) => (counts[code] = (counts[code] ?? 0) + count);
  for (let at = 0; at < one.length; at++) add(one.charCodeAt(at), 1);
  for (let at = 0; at < other.length; at++) add(other.charCodeAt(at), -1);
  return counts.every((count, code) => count === 0 || /[\s,"'\\]/.test(String.fromCharCode(code)));
}

/** Whether two texts of a file hold the same entries, in whatever order. */
function saysTheSame({ format, separator }: Catalog, one: string, other: string): boolean {
  const entriesOf = (text: string) =>
    format
      .read(text, separator)
      .entries.map(({ path, kind, text: value }) => [path.join("\u0000"), kind, value].join("\u0001"))
      .sort(compare)
      .join("\u0002");
  return entriesOf(one) === entriesOf(other);
}

function catalogId(locale: string, namespace: string | undefined): string {
  return namespace === undefined ? locale : `${locale}\u0000${namespace}`;
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
