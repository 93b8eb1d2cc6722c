import type { FormatName } from "../config/names.js";
import type { BookConfig } from "../config/schema.js";
import type { Notice } from "../text/wording.js";
import type { TextEncoding } from "../files/files.js";
import type { Span } from "../text/span.js";
import type { EntryTable } from "./entry-table.js";
import type { KeyPool } from "./key-pool.js";

/** One step into a catalog's groups: a member's name, or an index into a list of texts. */
export type PathPart = string | number;
export type EntryPath = readonly PathPart[];

/** One key with its text in one catalog file. */
export interface Entry {
  /** The path joined by the book's separator: what code asks for, without a namespace. */
  readonly key: string;
  readonly path: EntryPath;
  readonly text: string;
  /** What the file holds: a text, or something else where a text is expected (`text` is then as written). */
  readonly kind: "text" | "number" | "boolean" | "null" | "code";
  readonly keySpan: Span;
  /** The value as written, quotes included. */
  readonly valueSpan: Span;
  /** Set where the value is elsewhere in the file and is only referred to here, as by a merge key of YAML. */
  readonly isInherited?: boolean;
}

/** Whether a value is a setting of its locale and no text, such as the direction of its script: `rtl: true`. */
export function isSetting({ kind }: Entry): boolean {
  return kind === "number" || kind === "boolean" || kind === "code";
}

/** Something that keeps a catalog file from being read, or from being read whole. */
export interface CatalogProblem extends Notice {
  readonly code: "syntax" | "merge-marker" | "shape";
  readonly span: Span;
}

/** A catalog file's text, read. With a problem, `entries` holds what could be made out before it. */
export interface CatalogContent {
  readonly table: EntryTable;
  /** The entries of the table, made when they are first asked for. */
  readonly entries: readonly Entry[];
  /** Keys of groups without any member, which hold no entry but are there. */
  readonly emptyGroups: readonly EntryPath[];
  /** Where code adds entries under names that only running it tells. */
  readonly unknown: readonly Span[];
  readonly problems: readonly CatalogProblem[];
}

/** Changes to one catalog file. Paths to set or remove must be in it, paths to add must not. */
export interface CatalogChanges {
  readonly set?: readonly PathText[];
  readonly add?: readonly PathText[];
  readonly remove?: readonly EntryPath[];
  /** The paths of the source catalog in order: added entries go where this has them. */
  readonly order?: readonly EntryPath[];
}

export interface PathText {
  readonly path: EntryPath;
  readonly text: string;
  /** Said above the entry, in formats that have comments. */
  readonly comment?: string;
}

/** What of a book's settings a format may need. */
export type FormatSettings = Pick<BookConfig, "table" | "constant">;

/** How a format writes comments. */
export interface CommentSyntax {
  /** What a comment to the end of its line starts with. */
  readonly line: readonly string[];
  /** What opens and closes a comment of any length. */
  readonly block?: readonly [open: string, close: string];
}

/** What catalogs have that are code: a frame around the texts. */
export interface CodeFrame {
  /** The text of a catalog without entries in the frame of another locale's file; undefined where that cannot be read. */
  emptyLike(text: string): string | undefined;
  /** Set where keys start with the name of their file by custom. */
  readonly keysNameFile?: true;
}

/** How one kind of file holds a catalog: everything that the rest of the program knows of it. */
export interface CatalogFormat {
  readonly name: FormatName;
  /** The extensions of its files, without the period. */
  readonly extensions: readonly string[];
  /** Where a file holds all locales by its nature, and not one: at the end of each path. */
  readonly holds: "locale" | "all-locales";
  /**
   * Reads a file's text. `separator` stands between the parts of a key; catalogs that likely have the same keys are read
   * with one pool. Never throws.
   */
  read(text: string, separator: string, pool?: KeyPool): CatalogContent;
  /** The text with changes made in place: what they do not touch stays as it is. The text must be readable. */
  edit(text: string, changes: CatalogChanges, encoding?: TextEncoding): string;
  /** The text of a new catalog without entries. */
  readonly empty: string;
  /** Set for formats whose files are code. */
  readonly code?: CodeFrame;
  /** Its comments; undefined for a format without. */
  readonly comments: CommentSyntax | undefined;
  /** What makes a line a comment of the file, for its text and encoding; in formats that have comments. */
  commentWriter?(text: string, encoding?: TextEncoding): (line: string) => string;
  /** Whether a key's parts can be groups in the file; otherwise keys are always written whole. */
  readonly nests: boolean;
  /** A name as the file writes names, in the style of the one there; not in formats whose keys are more than names. */
  writeKey?(name: string, written: string): string;
  /** Where the name of a group is written; undefined where there is no such group, or it has no name of its own there. */
  groupKeySpan?(text: string, path: EntryPath): Span | undefined;
  /** Whether entries can change places; not the rows of a table, which stand by locale too. */
  readonly canReorder: boolean;
  /** The format for a book with settings of its own for it. */
  forBook?(book: FormatSettings): CatalogFormat;
  /** Where, in the file's text, a code unit of an entry's text is written. */
  offsetInFile(text: string, entry: Entry, offset: number): number;
}
