import { formatOf } from "./formats/index.js";
import type { BookConfig } from "../config/schema.js";
import { catalogContent, entryTable } from "./entry-table.js";
import type { CatalogContent, Entry, EntryPath } from "./model.js";

/**
 * How a catalog's paths stand in its file: the whole file, below the locale, or with the locale or the member that holds the text
 * at their end.
 */
export interface CatalogView {
  /** The path in the file. */
  toFile(path: EntryPath): EntryPath;
  /** The path in the file of all that belongs to an entry: its text, and what stands beside it in an object of its own. */
  wholeInFile(path: EntryPath): EntryPath;
  /** The path in the catalog; undefined for one of another locale. */
  fromFile(path: EntryPath): EntryPath | undefined;
  /** The member of each entry that holds its text, where entries are objects. */
  readonly member?: string;
}

const wholeFile: CatalogView = {
  toFile: (path) => path,
  wholeInFile: (path) => path,
  fromFile: (path) => path,
};

/** What "leaf" says where keys end with the locale; another is the member of each entry that holds its text. */
const byLocale = "{locale}";

/** Where the locale stands inside the files of a book. */
export function localeInside(
  book: Pick<BookConfig, "root" | "leaf" | "format" | "files">,
): "root" | "leaf" | undefined {
  if (book.root?.startsWith("{locale}") === true) return "root";
  if (book.leaf === byLocale || formatOf(book).holds === "all-locales") return "leaf";
  return undefined;
}

/** The view of one locale of a book, as its file writes the locale. */
export function viewOf(
  book: Pick<BookConfig, "root" | "leaf" | "format" | "files">,
  written: string,
): CatalogView {
  if (book.root !== undefined) {
    const around = book.root.split(".").map((part) => (part === "{locale}" ? written : part));
    const toFile = (path: EntryPath) => [...around, ...path];
    return {
      toFile,
      wholeInFile: toFile,
      fromFile: (path) =>
        path.length > around.length && around.every((part, index) => path[index] === part)
          ? path.slice(around.length)
          : undefined,
    };
  }
  const isByLocale = localeInside(book) !== undefined;
  return isByLocale ? endingIn(written) : book.leaf === undefined ? wholeFile : withTextIn(book.leaf);
}

function endingIn(end: string): CatalogView {
  const toFile = (path: EntryPath) => [...path, end];
  return {
    toFile,
    wholeInFile: toFile,
    fromFile: (path) => (path.at(-1) === end && path.length > 1 ? path.slice(0, -1) : undefined),
  };
}

/** The view of entries that are objects with the text in one member: `"title": { "message": "Boats", "about": "…" }`. */
export function withTextIn(member: string): CatalogView {
  return { ...endingIn(member), wholeInFile: (path) => path, member };
}

/**
 * Where entries are objects with the text in one member: the first entry of everything that has no such member and belongs to
 * nothing that has one, with the path of that. Nobody reads it as a text.
 */
export function withoutText(
  { entries }: CatalogContent,
  member: string,
): readonly { readonly entry: Entry; readonly path: EntryPath }[] {
  const idOf = (path: EntryPath) => JSON.stringify(path);
  const withText = new Set<string>();
  const around = new Set<string>();
  for (const { path } of entries) {
    if (path.at(-1) !== member || path.length === 1) continue;
    withText.add(idOf(path.slice(0, -1)));
    for (let length = 1; length < path.length - 1; length++) around.add(idOf(path.slice(0, length)));
  }
  const found = new Map<string, { readonly entry: Entry; readonly path: EntryPath }>();
  for (const entry of entries) {
    const starts = entry.path.map((_, index) => entry.path.slice(0, index + 1));
    if (starts.some((start) => withText.has(idOf(start)))) continue;
    const path = starts.find((start) => !around.has(idOf(start)));
    if (path && !found.has(idOf(path))) found.set(idOf(path), { entry, path });
  }
  return [...found.values()];
}

/** The locales that a file's entries stand in, as it writes them. */
export function localesInside(content: CatalogContent, inside: "root" | "leaf"): readonly string[] {
  const found = new Set<string>();
  for (const { path } of content.entries)
    if (path.length > 1) found.add(String(inside === "root" ? path[0] : path.at(-1)));
  for (const path of content.emptyGroups) if (inside === "root") found.add(String(path[0]));
  return [...found];
}

/** What of a file's content belongs to one catalog. */
export function viewed(content: CatalogContent, view: CatalogView, separator: string): CatalogContent {
  if (view === wholeFile) return content;
  const entries = content.entries.flatMap((entry): Entry[] => {
    const path = view.fromFile(entry.path);
    if (!path) return [];
    const { text, kind, keySpan, valueSpan, isInherited } = entry;
    return [
      {
        key: path.join(separator),
        path,
        text,
        kind,
        keySpan,
        valueSpan,
        ...(isInherited && { isInherited }),
      },
    ];
  });
  const emptyGroups = content.emptyGroups.flatMap((path) => {
    const own = view.fromFile(path);
    return own ? [own] : [];
  });
  return catalogContent(entryTable(entries), { ...content, emptyGroups });
}
