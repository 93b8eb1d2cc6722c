import type { Book } from "../catalog/book.js";

/** How the keys of a book's source are written. */
interface KeyHabits {
  /** Whether they are texts: what many of them say, or words with blanks between them. */
  readonly areTexts: boolean;
  /** Whether hardly one of them looks like a text. */
  readonly areNames: boolean;
}

const known = new WeakMap<Book, KeyHabits>();

/** So many keys at least show how a book names them. */
const leastKeys = 10;

function habitsOf(book: Book): KeyHabits {
  const is = known.get(book) ?? judge(book);
  known.set(book, is);
  return is;
}

function judge(book: Book): KeyHabits {
  const all = book.catalogsOf(book.sourceLocale).flatMap(({ byKey }) => [...byKey.values()]);
  const texts = all.filter(({ key, text }) => key === text || hasBlank.test(key)).length;
  const like = all.filter(({ key }) => isText(key)).length;
  return {
    areTexts: all.length >= leastKeys && texts * 3 > all.length,
    areNames: all.length >= leastKeys && like * 20 < all.length,
  };
}

/** Whether the keys of a book's source are texts: what many of them say, or words with blanks between them. */
export function keysAreTexts(book: Book): boolean {
  return habitsOf(book).areTexts;
}

/** Whether code asks a book for a text where keys stand: as its keys are, or because none of its keys looks like this one. */
export function asksForText(book: Book, key: string): boolean {
  const { areTexts, areNames } = habitsOf(book);
  return isText(key) && (areTexts || areNames);
}

const hasBlank = /[\p{L}\p{N}'’.,:)] [\p{L}\p{N}('’"]/u;

/** Whether a key is more than a name: words with a blank between them, or a word with a capital. */
function isText(key: string): boolean {
  return hasBlank.test(key) || /^\p{Lu}\p{Ll}{1,30}[.:!?…]{0,3}$/u.test(key);
}
