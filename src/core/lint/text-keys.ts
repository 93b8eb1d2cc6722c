import type { Book } from "../catalog/book.js";

const known = new WeakMap<Book, boolean>();

/** So many keys at least show how a book names them. */
const leastKeys = 10;

/** Whether the keys of a book's source are texts: what many of them say, or words with blanks between them. */
export function keysAreTexts(book: Book): boolean {
  const is = known.get(book) ?? judge(book);
  known.set(book, is);
  return is;
}

function judge(book: Book): boolean {
  const all = book.catalogsOf(book.sourceLocale).flatMap(({ byKey }) => [...byKey.values()]);
  const texts = all.filter(({ key, text }) => key === text || hasBlank.test(key)).length;
  return all.length >= leastKeys && texts * 3 > all.length;
}

const hasBlank = /[\p{L}\p{N}'’.,:)] [\p{L}\p{N}('’"]/u;

/** Whether a key of such a book is more than a name: words with a blank between them, or a word with a capital. */
export function isText(key: string): boolean {
  return hasBlank.test(key) || /^\p{Lu}\p{Ll}{1,30}[.:!?…]{0,3}$/u.test(key);
}
