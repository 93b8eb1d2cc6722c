import type { BookConfig } from "../config/schema.js";
import { globTest } from "../files/glob.js";

const tests = new WeakMap<BookConfig, (file: string) => boolean>();

/** Whether a file is one that a book's code patterns name, and none that it ignores. */
export function isCodeOf(book: BookConfig, file: string): boolean {
  let test = tests.get(book);
  if (!test) {
    const [wanted, ignored] = [globTest(book.code), globTest(book.ignore)];
    test = (path) => wanted(path) && !ignored(path);
    tests.set(book, test);
  }
  return test(file);
}

/**
 * Whether new texts of a file go into a book, among all books whose code it is: into the one whose catalogs are nearest to
 * the file, then into that whose code patterns name the longest way to it, then into the first.
 */
export function isHomeOf(books: readonly BookConfig[], book: BookConfig, file: string): boolean {
  const naming = books.filter((one) => isCodeOf(one, file));
  if (naming.length < 2 || !naming.includes(book)) return true;
  const best = naming
    .map((one, index) => ({ one, index, near: nearness(one, file) }))
    .sort((a, b) => b.near[0] - a.near[0] || b.near[1] - a.near[1] || a.index - b.index)[0];
  return best?.one === book;
}

/** How many folders a file shares with the catalogs of a book, and how many its code patterns name on the way to it. */
function nearness(book: BookConfig, file: string): readonly [catalogs: number, code: number] {
  const way = file.split("/").slice(0, -1);
  const shared = (pattern: string) => {
    const folders = pattern.split("/").slice(0, -1);
    const apart = folders.findIndex((folder, index) => folder !== way[index]);
    return apart === -1 ? folders.length : apart;
  };
  return [shared(book.files), Math.max(0, ...book.code.map(shared))];
}
