import type { Book } from "../catalog/book.js";
import type { Ledger } from "../ledger/ledger.js";
import type { MessageReader } from "../message/parse.js";
import type { BookCode } from "../source/book-code.js";
import type { UnreadCode } from "../source/unread-code.js";
import type { Concept } from "./glossary.js";
import type { CodeText, OtherBook } from "./rule.js";

/** One book with all that the rules look at. */
export interface LintSubject {
  readonly book: Book;
  /** The book's code; undefined for a book of catalogs alone. */
  readonly code: BookCode | undefined;
  readonly reader: MessageReader;
  ledger(locale: string): Ledger;
  /** Files with the program's settings, besides the code. */
  readonly settings?: readonly CodeText[];
  /** Code in languages that have no reader. */
  readonly unreadCode?: Pick<UnreadCode, "mentions">;
  /** The project's other books, in the order of the configuration; those before this one are told apart. */
  readonly others?: readonly OtherBook[];
  /** The concepts of the project's glossary. */
  readonly glossary?: readonly Concept[];
  /** What a source text was, by full key and digest, where the ledger still has it. */
  formerSource?(fullKey: string, digest: string): string | undefined;
  /** The file that says so, where the book is looked at again and again. */
  readonly formerTexts?: string;
}
