import { isTextPlace } from "../catalog/text-place.js";
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
 * Whether new texts of a file go into a book, among all books whose code it is: into the one whose catalogs stand in the part of
 * the project that the file is in, the innermost, then into that whose catalogs are nearest, then into that whose code patterns
 * name the longest way to it, then into the first.
 */
export function isHomeOf(books: readonly BookConfig[], book: BookConfig, file: string): boolean {
  const naming = books.filter((one) => isCodeOf(one, file));
  if (naming.length < 2 || !naming.includes(book)) return true;
  const best = naming
    .map((one, index) => ({ one, index, near: nearness(one, file) }))
    .sort(
      (a, b) => b.near[0] - a.near[0] || b.near[1] - a.near[1] || b.near[2] - a.near[2] || a.index - b.index,
    )[0];
  return best?.one === book;
}

/** Folders of what a program is shipped with: like those of texts they belong to the part of the project above them. */
const shipped = /^(?:assets|config|public|resources|static)$/i;

function isOfPartAbove(folder: string): boolean {
  return isTextPlace(folder) || shipped.test(folder);
}

/** How many folders lead to the part of the project that a book's catalogs belong to; -1 where a file is outside of it. */
function depthOfPart(files: string, file: string): number {
  const folders = files.split("/").slice(0, -1);
  const open = folders.findIndex((folder) => /[{*]/.test(folder));
  const part = open < 0 ? folders : folders.slice(0, open);
  while (isOfPartAbove(part.at(-1) ?? "")) part.pop();
  return part.length === 0 || file.startsWith(`${part.join("/")}/`) ? part.length : -1;
}

/**
 * How deep in the project the part is that a file and the catalogs of a book have in common, how many folders they share, and
 * how many the book's code patterns name on the way to the file.
 */
function nearness(book: BookConfig, file: string): readonly [part: number, catalogs: number, code: number] {
  const way = file.split("/").slice(0, -1);
  const shared = (pattern: string) => {
    const folders = pattern.split("/").slice(0, -1);
    const apart = folders.findIndex((folder, index) => folder !== way[index]);
    return apart === -1 ? folders.length : apart;
  };
  return [depthOfPart(book.files, file), shared(book.files), Math.max(0, ...book.code.map(shared))];
}
