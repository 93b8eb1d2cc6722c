import { posix } from "node:path";
import type { Files } from "../../files/files.js";
import { noShapes } from "../../source/book-code.js";
import { fixedText, type SourceFile } from "../../source/model.js";
import { bookLayout } from "../../catalog/layout.js";
import { isScript, startsAsXml } from "../../source/readers/script/endings.js";
import { hasSharedEnding, isSharedProgram } from "../../source/dialects/index.js";
import { isReadable, prepareReaders, readSource } from "../../source/read.js";
import { lazily } from "../../text/lazy.js";
import {
  leftOutByContent,
  leftOutByName,
  libraryTest,
  oneFilePerLocale,
  type LeftOut,
} from "../../survey/left-out.js";
import type { Ecosystem } from "../ecosystems/index.js";
import { declaredLookups } from "./declared-texts.js";
import { withoutFrame, type FoundBook } from "./found-book.js";
import { KeyIndex } from "./key-index.js";
import { underscored } from "../../source/unread-code.js";
import { findLookups, type FoundLookups } from "./lookup-evidence.js";
import { most, type LookupUse } from "./lookup-use.js";

/** Everything that is known of a project before anybody answers a question. */
export interface Seen {
  readonly files: Files;
  /** The project's files of types, listed when they are first asked for. */
  readonly types: () => readonly string[];
  readonly books: readonly FoundBook[];
  readonly code: readonly SourceFile[];
  /** Sentences on what was met on the way. */
  readonly grounds: readonly string[];
  /** Where the JSON Schema of the configuration is, if this package is installed in the project. */
  readonly schema: string | undefined;
  readonly ecosystem: Ecosystem | undefined;
  /** What the code shows of a book, worked out once: an answer changes none of it. */
  readonly studied: (book: FoundBook) => StudiedBook;
  /** Lookups that bring their texts along. */
  readonly declared: () => readonly LookupUse[];
  /** Lookups of texts by the texts themselves. */
  readonly byText: () => readonly LookupUse[];
  /** Calls that are named as lookups are, and ask for keys that no catalog has. */
  readonly byName: () => readonly LookupUse[];
}

/** A book with the code that uses it, and how. */
export interface StudiedBook {
  /** The book as it was found, or with the names of its files left out of its keys, where code leaves them out. */
  readonly book: FoundBook;
  readonly keys: KeyIndex;
  readonly users: readonly SourceFile[];
  readonly lookups: FoundLookups;
}

/** Whether a file is a catalog of one of some books; what holds its texts in a constant among other code is code. */
function catalogTest(books: readonly FoundBook[]): (file: string) => boolean {
  const layouts = books.flatMap((book) => (book.constant === undefined ? [bookLayout(book)] : []));
  return (file) => layouts.some((layout) => layout.place(file) !== undefined);
}

/** Finds the code that uses each book, and how; each book is asked for once. */
export function studyOf(all: readonly SourceFile[], books: readonly FoundBook[]): Seen["studied"] {
  const isCatalog = catalogTest(books);
  const code = all.filter(({ file }) => !isCatalog(file));
  const known = new Map<FoundBook, StudiedBook>();
  const several = books.length > 1;
  const studyAs = (book: FoundBook): StudiedBook => {
    const keys = new KeyIndex(book.keys);
    const users = several ? code.filter((source) => hasKeyOf(source, keys)) : code;
    const held = findLookups(users, keys, book.constant);
    // Where nothing is translated yet, code may bring its texts along.
    const lookups = keys.size === 0 ? { ...held, uses: declaredLookups(users) } : held;
    return { book, keys, users, lookups };
  };
  const studyAlone = (book: FoundBook) => {
    const there = known.get(book);
    if (there) return there;
    const whole = studyAs(book);
    const inside = withoutFrame(book);
    const bare = inside && studyAs(inside);
    const isBare = bare && hitsOf(bare.lookups) > 3 * hitsOf(whole.lookups);
    const studied = withoutNames(isBare ? bare : whole);
    known.set(book, studied);
    return studied;
  };
  const studyAll = new Map<FoundBook, StudiedBook>();
  const study = (book: FoundBook): StudiedBook => {
    const there = studyAll.get(book);
    if (there) return there;
    const studied = withShared(
      studyAlone(book),
      several ? books.filter((one) => one !== book).map(studyAlone) : [],
    );
    studyAll.set(book, studied);
    return studied;
  };
  const asked = lazily(() => new Map(books.map((book) => [book, filesThatAsk(study(book))])));
  return (book) => {
    const studied = study(book);
    const own = asked().get(book);
    // A file that has a word of this book's keys, and asks another book for its texts, is that one's.
    const isOthers = ({ file }: SourceFile) =>
      own?.has(file) !== true && [...asked().values()].some((files) => files.has(file));
    const asking = [...asked()].filter(([, files]) => files.size > 0);
    const [only] = asking;
    if (!several || asking.length !== 1 || !only)
      return { ...studied, users: studied.users.filter((source) => !isOthers(source)) };
    // Where one book alone is asked for its texts, all code is its own but for what stands beside another book.
    const isOf = (other: FoundBook) => {
      const folder = folderOf(other, only[1]);
      return ({ file }: SourceFile) => file.startsWith(folder);
    };
    if (only[0] !== book) return { ...studied, users: studied.users.filter(isOf(book)) };
    const others = books.filter((one) => one !== book).map(isOf);
    return { ...studied, users: code.filter((source) => !others.some((has) => has(source))) };
  };
}

/** A book that nothing asks by itself, with those lookups of other books that take its keys too. */
function withShared(studied: StudiedBook, others: readonly StudiedBook[]): StudiedBook {
  const asking = others.filter(({ lookups }) => lookups.uses.length > 0);
  if (studied.lookups.uses.length > 0 || studied.keys.size === 0 || asking.length === 0) return studied;
  const lookups = findLookups(studied.users, studied.keys, studied.book.constant, {
    uses: asking.flatMap((one) => one.lookups.uses),
    isKey: (text) => asking.some(({ keys }) => keys.match(text) !== undefined),
  });
  return lookups.uses.length > 0 ? { ...studied, lookups } : studied;
}

/** The folder whose code a book's catalogs stand beside, with a slash behind it: none in which another book is asked for its texts. */
function folderOf({ files }: FoundBook, askedElsewhere: ReadonlySet<string>): string {
  const place = posix.dirname(files.split("{", 1)[0] + "x");
  const wide = `${posix.dirname(place)}/`;
  return wide === "./" || [...askedElsewhere].some((file) => file.startsWith(wide)) ? `${place}/` : wide;
}

/** Whether a key stands in a file: as a string, or between the marks of a template. */
function hasKeyOf({ text, mentions, literals, dialect }: SourceFile, keys: KeyIndex): boolean {
  const isKey = (text: string) => keys.match(text) !== undefined;
  return (
    [...mentions].some(isKey) ||
    [...text.matchAll(underscored)].some(([, , key = ""]) => isKey(key)) ||
    (dialect !== undefined &&
      literals.some(({ form, pieces }) => form === "content" && isKey(fixedText(pieces).trim())))
  );
}

/** So many keys that code writes without the name of their file are no chance. */
const leastBare = 20;

/**
 * A book whose keys code writes without the names of their files, where hardly a key is in two of them: files of several names in
 * the folder of each locale that a program reads as one. Others stay as they are.
 */
function withoutNames(studied: StudiedBook): StudiedBook {
  const { book, users, lookups } = studied;
  if (!book.files.includes("{namespace}") || !studied.keys.hasNamespaces) return studied;
  const all = [...book.keys.values()];
  const union = new Set(all.flatMap((keys) => [...keys]));
  const twice = all.reduce((sum, { size }) => sum + size, 0) - union.size;
  if (all.length < 2 || twice * 50 > union.size) return studied;
  const named: FoundBook = {
    ...book,
    files: book.files.replace("{namespace}", "{name}"),
    keys: new Map([["", union]]),
  };
  const keys = new KeyIndex(named.keys);
  const bare = findLookups(users, keys, book.constant);
  const asked = lookups.uses.flatMap(({ samples }) => samples);
  const withName = asked.filter(
    ({ literal }) => studied.keys.match(fixedText(literal.pieces))?.namespace !== undefined,
  ).length;
  const hits = hitsOf(bare);
  if (hits < leastBare || lookups.home !== undefined || hits <= withName * 3) return studied;
  return { ...studied, book: named, keys, lookups: { ...bare, home: mostAsked(book, bare) } };
}

/** How often the lookups that were found take a key. */
function hitsOf({ uses }: FoundLookups): number {
  return uses.reduce((sum, one) => sum + one.hits, 0);
}

/** The name of the file that most of the keys are in that code asks for. */
function mostAsked({ keys }: FoundBook, { uses }: FoundLookups): string | undefined {
  const counts = new Map<string, number>();
  for (const { samples } of uses)
    for (const { literal } of samples)
      for (const [name, own] of keys)
        if (own.has(fixedText(literal.pieces))) counts.set(name, (counts.get(name) ?? 0) + 1);
  return most(counts);
}

/** The files in which a lookup of a book has a key of its. */
function filesThatAsk({ lookups }: StudiedBook): ReadonlySet<string> {
  return new Set(lookups.uses.flatMap(({ files }) => [...files]));
}

const otherCode = [
  "**/dist/**",
  "**/build/**",
  "**/coverage/**",
  "**/*.d.ts",
  "**/*.test.*",
  "**/*.spec.*",
  "**/*.config.*",
  "**/*.min.js",
  "**/vendor/**",
  "**/node_modules/**",
  "**/*.{svg,xml}",
];

/** The files of code in which people may write text, by their names. */
export function readableCode(files: Files): readonly string[] {
  return files
    .list({ patterns: ["**/*"], ignore: otherCode, respectIgnoreFiles: true })
    .filter((file) => isReadable(file) && leftOutByName(file) === undefined)
    .filter((file) => !hasSharedEnding(file) || isProgram(files, file));
}

/** Whether a file whose ending others use as well holds a program. */
function isProgram(files: Files, file: string): boolean {
  const read = files.read(file);
  return read.ok && isSharedProgram(file, read.text);
}

/** Reads files of code, without those that were built or are hardly readable. */
export async function readAllCode(files: Files, readable: readonly string[]): Promise<SourceFile[]> {
  const isOfLibrary = libraryTest(files, readable);
  // What one file says for each locale, its first one says as well.
  const perLocale = oneFilePerLocale(readable);
  const listed = readable.filter((file) => !isOfLibrary(file) && !perLocale.has(file));
  await prepareReaders(listed, files);
  return listed.flatMap((file) => {
    const read = files.read(file);
    // Others wrote what is built, and call functions by names of their own.
    if (!read.ok || isBuilt(leftOutByContent(file, read.text))) return [];
    if (isScript(file) && startsAsXml(read.text)) return [];
    return [readSource(file, read.text, read.bom, noShapes)];
  });
}

function isBuilt(kind: LeftOut | undefined): boolean {
  return kind === "minified" || kind === "generated";
}
