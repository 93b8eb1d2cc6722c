import { keyCharacters, openMarkPattern } from "./open-marks.js";
import { separatorsOf } from "../text/separators.js";
import { bookLayout } from "../catalog/layout.js";
import type { BookConfig } from "../config/schema.js";
import { literally } from "../text/key-pattern.js";
import type { Files, FileText } from "../files/files.js";
import { lineIndex } from "../text/line-index.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { dialectsOf } from "./dialects/index.js";
import { isReadable, readSource } from "./read.js";
import type { DescriptorShape, Literal, LookupShapes, SourceFile } from "./model.js";

/** A file of a book's code that could not be read at all. */
export interface UnreadSource {
  readonly file: string;
  readonly detail: string;
}

/** A file of code with what it asks of catalogs, and without what only a survey needs. */
export interface CodeUse extends Omit<SourceFile, "literals" | "dialect" | "bound" | "templates"> {
  /** What code puts together as keys are; null stands for what comes from a value. */
  readonly composed: readonly (readonly (string | null)[])[];
}

/** What reading a file of code gave, as it can be kept from run to run and handed over between threads. */
export interface UseRecord extends Pick<SourceFile, "lookups" | "problems"> {
  readonly mentions: readonly string[];
  readonly composed: readonly (readonly (string | null)[])[];
}

export function useRecord({ lookups, mentions, problems, literals }: SourceFile): UseRecord {
  return {
    lookups,
    mentions: [...mentions],
    composed: literals.flatMap((literal) => composedIn(literal) ?? []),
    // What nobody wrote is none of the project's code.
    problems: problems.filter(({ isUnwritten }) => isUnwritten !== true),
  };
}

/** A literal that begins as a key does, up to a mark between its parts, and goes on with a value: `"bar.tools." + name`. */
function composedIn({ pieces }: Literal): [readonly (string | null)[]] | undefined {
  const [first] = pieces;
  if (pieces.length < 2 || first?.kind !== "text" || !/^[\w-]+[.:/][\w.:/-]*$/.test(first.value))
    return undefined;
  const parts: (string | null)[] = [];
  for (const piece of pieces) {
    if (piece.kind === "text" && /[^\w.:/-]/.test(piece.value)) return undefined;
    if (piece.kind === "tag") return undefined;
    parts.push(piece.kind === "text" ? piece.value : null);
  }
  return [parts];
}

/** The use that a record was made of, which must be of the same text. */
export function codeUse(
  file: string,
  { text, bom }: Extract<FileText, { ok: true }>,
  { lookups, mentions, composed, problems }: UseRecord,
): CodeUse {
  const lines = lineIndex(text);
  return { file, text, bom, lines, lookups, mentions: new Set(mentions), composed, problems };
}

const usesOfSources = new WeakMap<SourceFile, CodeUse>();

/** The use that a file which was read whole makes of catalogs; the same object for the same file. */
function useOfSource(source: SourceFile): CodeUse {
  const known = usesOfSources.get(source);
  if (known) return known;
  const { file, text, bom } = source;
  const made = codeUse(file, { ok: true, text, bom }, useRecord(source));
  usesOfSources.set(source, made);
  return made;
}

/** All code of one book that was asked for. */
export interface BookCode {
  readonly files: readonly CodeUse[];
  readonly unread: readonly UnreadSource[];
}

/** The expression that extraction writes in code where a book does not say. */
export const defaultCall = 't("{key}"{args})';

/** The lookups that a book names and those that its extraction writes, ready for a reader. */
export function lookupShapes(book: BookConfig, sourceLocale: string): LookupShapes {
  const calls = new Map<string, { key?: number; default?: number | string; note?: number }>();
  const members = new Set<string>();
  const components = new Map<string, { key: string; default?: string; note?: string }>();
  const makers = new Map<string, { gives?: string; namespace?: number; prefix?: number }[]>();
  const descriptors = new Map<string, DescriptorShape>();
  const attributes = new Set<string>();
  const filters = new Set<string>();
  const bindings: RegExp[] = [];
  const marks: RegExp[] = [];
  const openMarks: RegExp[] = [];
  for (const lookup of book.lookups) {
    if ("call" in lookup) calls.set(lookup.call, lookup);
    else if ("component" in lookup) components.set(lookup.component, lookup);
    else if ("tag" in lookup) components.set(lookup.tag, lookup);
    else if ("maker" in lookup) makers.set(lookup.maker, [...(makers.get(lookup.maker) ?? []), lookup]);
    else if ("descriptor" in lookup) descriptors.set(lookup.descriptor, lookup);
    else if ("member" in lookup) members.add(lookup.member.replace(/^[$@]|\(\)$/g, ""));
    else if ("attribute" in lookup) attributes.add(lookup.attribute);
    else if ("mark" in lookup) {
      marks.push(markPattern(lookup.mark));
      openMarks.push(openMarkPattern(lookup.mark));
    } else if ("filter" in lookup) filters.add(lookup.filter);
    else bindings.push(bindingPattern(lookup.binding));
  }
  for (const [name, key] of templatesOf(book).flatMap(declaredIn))
    if (!descriptors.has(name)) descriptors.set(name, { key });
  for (const name of emittedCalls(book)) if (!calls.has(name) && !descriptors.has(name)) calls.set(name, {});
  const separators = separatorsOf(book);
  const home = homeOf(book);
  const { relative } = book;
  const ownKey: { readonly isOwnKey?: true } = book.naming.pattern === "{text}" ? { isOwnKey: true } : {};
  const dialect = dialectsOf(book.dialects);
  return {
    calls,
    members,
    components,
    makers,
    descriptors,
    attributes,
    filters,
    bindings,
    marks,
    openMarks,
    ...(home !== undefined && { home }),
    marked: new Map(
      book.marked.flatMap((mark) => {
        if (typeof mark === "string") return [[mark, ownKey]];
        return "class" in mark ? [] : [[mark.attribute, { ...mark, ...ownKey }]];
      }),
    ),
    classMarks: new Map(
      book.marked.flatMap((mark) =>
        typeof mark === "object" && "class" in mark
          ? [[mark.class, { attributes: mark.attributes, ...ownKey }]]
          : [],
      ),
    ),
    separators,
    sourceLanguage: sourceLocale.split("-")[0] ?? sourceLocale,
    ...(dialect && { dialect }),
    ...(book.constant !== undefined && { constant: book.constant }),
    ...(relative && { relative: (file: string) => relativePrefix(file, relative, separators.parts) }),
  };
}

/** No lookups at all: for reading code whose lookups are still to be found. */
export const noShapes: LookupShapes = {
  calls: new Map(),
  members: new Set(),
  components: new Map(),
  makers: new Map(),
  descriptors: new Map(),
  attributes: new Set(),
  filters: new Set(),
  bindings: [],
  marks: [],
  openMarks: [],
  marked: new Map(),
  classMarks: new Map(),
  separators: { parts: ".", namespace: "." },
};

/** `text: say(KEY)` as an expression: KEY with or without quotes, white space as it comes. */
function bindingPattern(pattern: string): RegExp {
  const parts = pattern.split("KEY").map((part) => literally(part.trim()).replace(/\s+/g, "\\s*"));
  return new RegExp(parts.join("\\s*[\"'`]?([\\p{L}\\p{N}_.:/-]+)[\"'`]?\\s*"), "u");
}

/**
 * `[[KEY]]` as a pattern for marks in texts. Values may stand behind the key, parted from it by a comma or in brackets, and marks of
 * the template in it.
 */
export function markPattern(pattern: string): RegExp {
  const [before = "", behind = ""] = pattern.split("KEY");
  // A key ends where the mark behind it begins, also where that is of letters or underscores.
  const lazy = /^\w/.test(behind) ? "?" : "";
  return new RegExp(
    `${literally(before)}\\s{0,9}((?:[${keyCharacters}]|\\{\\{[\\w.]{1,60}\\}\\}){1,200}${lazy})\\s{0,9}(?:\\s*,[^\\n]{0,200}?|\\([^\\n]{0,200}?\\))?${literally(behind)}`,
    "gu",
  );
}

/** What a leading separator stands for: the folders below the root and the file's name, as the pattern has them. */
function relativePrefix(
  file: string,
  { root, pattern }: { root: string; pattern: string },
  separator: string,
): string {
  const inside = root !== "" && file.startsWith(`${root}/`) ? file.slice(root.length + 1) : file;
  const folders = inside.split("/");
  const name = ((folders.pop() ?? "").split(".", 1)[0] ?? "").replace(/^_/, "");
  return pattern
    .replace("{folders}", folders.join(separator))
    .replace("{file}", name)
    .split(".")
    .filter(Boolean)
    .join(separator);
}

/** What a call is given before its key: names, and words in quotes. */
const given = String.raw`(?:(?:[\w$.]+|"[\w./\\:-]*"|'[\w./\\:-]*')\s*,\s*)`;

/** The function that a template such as `t("{key}"{args})` or `t(:"{key}"{args})` calls; undefined where it is no plain call. */
export function calleeOf(template: string): string | undefined {
  return new RegExp(`^\\s*([\\w$.]+)\\(\\s*${given}{0,4}:?["'\`]\\{key\\}`).exec(template)?.[1];
}

/**
 * The namespace that keys have whether code writes it or not, with what parts it from them: `harbor:`. With `{name}` in its files a
 * book's `home` is the name of a catalog, which no key has.
 */
export function homeOf(book: BookConfig): string | undefined {
  const { home } = book.naming;
  const isNamespace = book.files.includes("{namespace}") || !book.files.includes("{name}");
  return home !== undefined && isNamespace ? home + separatorsOf(book).namespace : undefined;
}

/** What code writes before all keys of a book that has no namespaces of its own: `harbor:`; empty where it writes nothing there. */
export function frontOf(book: BookConfig): string {
  return book.files.includes("{namespace}") ? "" : (homeOf(book) ?? "");
}

/** Whether the usual call may be meant: a book without lookups has it, or one that names it. */
export function usesDefaultCall(lookups: BookConfig["lookups"]): boolean {
  const name = calleeOf(defaultCall);
  return lookups.length === 0 || lookups.some((lookup) => "call" in lookup && lookup.call === name);
}

/** The names that a template gives its function before the key: `locale` in `t(locale, "{key}"{args})`. */
export function givenBeforeKey(template: string): readonly string[] {
  const [, names = ""] = new RegExp(`\\(\\s*(${given}{1,4}):?["'\`]\\{key\\}`).exec(template) ?? [];
  return names.split(",").flatMap((one) => /^\s*([A-Za-z_$][\w$]*)/.exec(one)?.[1] ?? []);
}

/** The functions that a template for extraction calls with the key, wherever in it they stand, as tags too. */
export function calledIn(template: string): readonly string[] {
  const name = new RegExp(
    `(?<![\\w$.])([\\w$.]+)(?:\\(\\s*${given}{0,4}(?:\\{\\s*[\\w$]+\\s*:\\s*)?:?["'\`]|\`)\\{key\\}`,
  ).exec(template)?.[1];
  return name === undefined ? [] : [name];
}

/** The function that a template gives a key that another call makes: `say` of `say({ id: keyOf("{key}") })`. */
export function callAroundKey(template: string): string | undefined {
  return /^([\w$.]+)\(\s*\{\s*[\w$]+\s*:\s*[\w$.]+\(\s*["'`]\{key\}/.exec(template)?.[1];
}

/** The function that a template calls with the key in an object, and the property: `say({ id: "{key}" }{args})`. */
function declaredIn(template: string): readonly (readonly [name: string, key: string])[] {
  const [, name, key] = /(?<![\w$.])([\w$.]+)\(\s*\{\s*([\w$]+)\s*:\s*["'`]\{key\}/.exec(template) ?? [];
  return name === undefined || key === undefined ? [] : [[name, key]];
}

/** The object that a template takes the key as a member of: `texts` of `texts.cart.{key}` and `texts["{key}"]`. */
export function objectOf(template: string): string | undefined {
  return /(?<![\w$.])([A-Za-z_$][\w$]{0,80})(?:\([\w$., ]{0,80}\)|\.[\w$]{1,80}|\[[\w$."'() ]{1,80}\]){0,8}(?:\.|\[["'`])\{key\}/.exec(
    template,
  )?.[1];
}

/** The functions that a book's templates for extraction call: they ask for keys once they are written. */
function emittedCalls(book: BookConfig): readonly string[] {
  const { emit, lookups } = book;
  const named = templatesOf(book).flatMap(calledIn);
  return emit.call === undefined && usesDefaultCall(lookups)
    ? [calleeOf(defaultCall) ?? "", ...named]
    : named;
}

/** Whether code gives a text with its key where extraction writes a lookup. */
export function writesTexts(book: BookConfig): boolean {
  return templatesOf(book).some((template) => template.includes("{text}"));
}

/** All that a book has extraction write. */
function templatesOf({ emit }: BookConfig): readonly string[] {
  const ofEndings = Object.values(emit.endings ?? {});
  const early = ofEndings.flatMap(({ atLoad }) => (typeof atLoad === "object" ? [atLoad.call] : []));
  const usual = [emit, ...ofEndings].flatMap(({ call, plural, content, attribute, rich, withValues = {} }) =>
    [
      call,
      plural === false ? undefined : plural,
      content,
      attribute,
      rich,
      withValues.call,
      withValues.content,
      withValues.attribute,
    ].flatMap((one) => one ?? []),
  );
  return [...usual, ...early];
}

/** The files of a book's code, without those that version control ignores; `only` narrows them to some paths. */
export function listCode(
  files: Files,
  book: BookConfig,
  only: (file: string) => boolean = () => true,
): readonly string[] {
  const listed = files.list({ patterns: book.code, ignore: book.ignore, respectIgnoreFiles: true });
  // Catalogs that are modules of code hold texts that were taken out of it.
  const layout = bookLayout(book);
  const isCatalog = (file: string) => book.constant === undefined && layout.place(file) !== undefined;
  return listed.filter((file) => only(file) && isReadable(file) && !isCatalog(file));
}

/** How many files that a book's code patterns match have no reader, by ending. */
export function filesWithoutReader(
  files: Files,
  book: BookConfig,
  only: (file: string) => boolean = () => true,
): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const file of files.list({ patterns: book.code, ignore: book.ignore, respectIgnoreFiles: true })) {
    if (!only(file) || isReadable(file)) continue;
    const name = file.slice(file.lastIndexOf("/") + 1);
    const ending = name.includes(".", 1) ? name.slice(name.lastIndexOf(".")) : name;
    counts.set(ending, (counts.get(ending) ?? 0) + 1);
  }
  return counts;
}

/** Reads a book's code, or those files of it that are listed. A file that cannot be read is reported and the rest are read. */
export function readBookCode(
  files: Files,
  book: BookConfig,
  sourceLocale: string,
  keep?: Keep,
  listed = listCode(files, book),
): BookCode {
  const unread: UnreadSource[] = [];
  if (!keep)
    return { files: [...readInTurn(files, book, sourceLocale, unread, listed)].map(useOfSource), unread };
  const sources = listed.flatMap((file) => {
    const read = files.read(file);
    if (read.ok) return [useOfSource(readBookSource(book, sourceLocale, file, read, keep))];
    unread.push({ file, detail: read.detail });
    return [];
  });
  const of = [...sources, ...unread.map(({ file, detail }) => `${file} ${detail}`)];
  return keep(`code ${book.name}`, of, () => ({ files: sources, unread }));
}

const shapesByBook = new WeakMap<BookConfig, LookupShapes>();

/** A file of a book's code, which its reader must be prepared for; with `keep`, read anew only where its text is another. */
export function readBookSource(
  book: BookConfig,
  sourceLocale: string,
  file: string,
  { text, bom }: Extract<FileText, { ok: true }>,
  keep: Keep = makeAnew,
): SourceFile {
  const shapes = shapesByBook.get(book) ?? lookupShapes(book, sourceLocale);
  shapesByBook.set(book, shapes);
  return keep(`source ${book.name} ${file}`, [text, bom, shapes], () => readSource(file, text, bom, shapes));
}

/** Reads files of a book's code, each when it is asked for; those that cannot be read are added to `unread`. */
export function* readInTurn(
  files: Files,
  book: BookConfig,
  sourceLocale: string,
  unread: UnreadSource[],
  listed: readonly string[],
  isWanted: (file: string, text: string) => boolean = () => true,
): Iterable<SourceFile> {
  const shapes = lookupShapes(book, sourceLocale);
  for (const file of listed) {
    const source = files.read(file);
    if (source.ok) {
      if (isWanted(file, source.text)) yield readSource(file, source.text, source.bom, shapes);
    } else unread.push({ file, detail: source.detail });
  }
}
