import { posix } from "node:path";
import { bookLayout } from "../../catalog/layout.js";
import { formatOf } from "../../catalog/formats/index.js";
import type { CatalogContent, Entry } from "../../catalog/model.js";
import type { SourceFile } from "../../source/model.js";
import { isScript } from "../../source/readers/script/endings.js";
import { languageOfTexts } from "../../locale/language-of-texts.js";
import { isOwnNameOf } from "../../locale/own-name.js";
import { spellingOf, writtenLocale } from "./written-locale.js";
import { type FoundBook, BookCount } from "./found-book.js";
import { leastSure } from "./locale-place.js";

/** A constant with a member for English, or whose members have one. */
const tableByLocale =
  /^[ \t]{0,8}(?:export[ \t]{1,4})?const[ \t]{1,4}([A-Za-z_$][\w$]{0,60})[^=\n;]{0,80}=\s{0,20}(?:[\w$.]{1,60}\(\s{0,20})?\{\s{0,200}(?:["']?en(?:[-_]\w\w)?["']?\s{0,4}:|["']?[\w$.-]{1,60}["']?\s{0,4}:\s{0,4}\{\s{0,200}["']?en(?:[-_]\w\w)?["']?\s{0,4}:)/gm;

/** Books of texts that stand beside the code in its files: one for each name that constants in several files have. */
export function booksInCode(code: readonly SourceFile[], known: ReadonlySet<string>): FoundBook[] {
  const byName = new Map<string, { readonly file: string; readonly content: CatalogContent }[]>();
  for (const { file, text, dialect } of code) {
    if (known.has(file) || !(isScript(file) || dialect?.isComponent)) continue;
    for (const [, constant = ""] of text.matchAll(tableByLocale)) {
      const content = formatOf({ files: file, constant }).read(text, ".");
      if (content.entries.length === 0 || content.problems.length > 0) continue;
      byName.set(constant, [...(byName.get(constant) ?? []), { file, content }]);
    }
  }
  return [...byName].flatMap(([constant, list]): FoundBook[] => {
    const endings = new Map<string, typeof list>();
    for (const one of list) {
      const ending = posix.extname(one.file);
      endings.set(ending, [...(endings.get(ending) ?? []), one]);
    }
    // A table or two by locale is part of what a program does: dates, addresses.
    return [...endings].flatMap(([ending, own]) => {
      const book = own.length < 2 ? undefined : bookInFiles(`{dir}/{name}${ending}`, own);
      return book ? [{ ...book, constant }] : [];
    });
  });
}

/** Whether a table is what a program keeps of each language, and no catalog: most of it is other values than texts. */
function isOfProgram({ entries }: CatalogContent): boolean {
  return entries.filter(({ kind }) => kind === "code").length * 2 > entries.length;
}

/** A book of files that each hold all locales, those of several names with their keys by name. */
function bookInFiles(
  pattern: string,
  found: readonly { readonly content: CatalogContent; readonly name?: string }[],
): FoundBook | undefined {
  if (found.some(({ content }) => isOfProgram(content))) return undefined;
  for (const inside of ["root", "leaf"] as const) {
    const book = new BookCount(false);
    const written = new Map<string, string>();
    const isAll = found.every(({ content, name }) => addAll(book, written, content, inside, name));
    if (isAll && written.size > 1) return book.found(pattern, spellingOf(written), inside);
  }
  return undefined;
}

/** Fewer files of one kind that each hold all locales are books of their own. */
const leastAlike = 3;

/** Files that each hold all locales, by themselves or with those that are called alike or stand in one folder. */
export function booksByFile(
  files: readonly { readonly file: string; readonly content: CatalogContent }[],
): FoundBook[] {
  const alone = files.flatMap(({ file, content }) => {
    const book = bookInOneFile(file, content);
    return book ? [{ file, content, book, joined: false }] : [];
  });
  const joined: FoundBook[] = [];
  for (const kindOf of kinds) {
    const groups = new Map<string, typeof alone>();
    for (const one of alone) {
      const kind = one.joined || one.book.inside === undefined ? undefined : kindOf(one.file);
      if (kind === undefined) continue;
      const pattern = `${one.book.inside} ${kind}`;
      groups.set(pattern, [...(groups.get(pattern) ?? []), one]);
    }
    for (const [pattern, group] of groups) {
      const path = pattern.slice(pattern.indexOf(" ") + 1);
      const { place, codeNamespace } = bookLayout({ files: path, spelling: "hyphen" });
      // What else a pattern finds would be catalogs too.
      const all = files.flatMap(({ file, content }) => {
        const found = place(file);
        const name = codeNamespace(found?.namespace);
        return found ? [{ content, ...(name !== undefined && { name }) }] : [];
      });
      if (group.length < leastAlike || group.length * 2 <= all.length) continue;
      const book = bookInFiles(path, all);
      if (!book) continue;
      joined.push(book);
      for (const one of group) one.joined = true;
    }
  }
  return [...joined, ...alone.flatMap((one) => (one.joined ? [] : [one.book]))];
}

/** The patterns of files that are of one kind: of the same name, with the same longer ending, or in the same folder. */
const kinds: readonly ((file: string) => string | undefined)[] = [
  (file) => `{dir}/${posix.basename(file)}`,
  (file) => {
    const [, ending] = /^[^.]+(\.[\w-]+\.\w+)$/.exec(posix.basename(file)) ?? [];
    return ending === undefined ? undefined : `{dir}/{namespace}${ending}`;
  },
  (file) => `${posix.dirname(file)}/{namespace}${posix.extname(file)}`,
];

/** A file that holds all locales, at its root or in each key; undefined for any other file. */
function bookInOneFile(file: string, content: CatalogContent): FoundBook | undefined {
  if (content.entries.length === 0 || isOfProgram(content) || isListOfLanguages(content)) return undefined;
  for (const inside of ["root", "leaf"] as const) {
    const book = new BookCount(false);
    const written = new Map<string, string>();
    const isAll = addAll(book, written, content, inside);
    if (isAll && written.size > 1) return book.found(file, spellingOf(written), inside);
  }
  return manifestBook(file, content);
}

/** Whether most texts are what the language of their name calls itself: `de: "Deutsch"`. */
function isListOfLanguages({ entries }: CatalogContent): boolean {
  const named = entries.filter(({ path, text }) => isOwnNameOf(text, String(path.at(-1))));
  return named.length >= leastSure && named.length * 2 >= entries.length;
}

/** A file of settings in which some hold their text by locale, with one by default: `"title": { "default": "…", "de-de": "…" }`. */
function manifestBook(file: string, { entries }: CatalogContent): FoundBook | undefined {
  const groups = new Map<string, Entry[]>();
  for (const entry of entries) {
    const group = entry.path.slice(0, -1).join(".");
    if (group !== "") groups.set(group, [...(groups.get(group) ?? []), entry]);
  }
  const nameOf = ({ path }: Entry) => String(path.at(-1));
  const held = [...groups.values()].filter(
    (list) =>
      list.some((entry) => nameOf(entry) === "default") &&
      list.every(
        (entry) =>
          entry.kind === "text" &&
          (nameOf(entry) === "default" || writtenLocale(nameOf(entry))?.isWeak === false),
      ),
  );
  if (held.filter(({ length }) => length > 1).length < 2) return undefined;
  const book = new BookCount(false);
  const written = new Map<string, string>();
  const texts = held.flat().flatMap((entry) => (nameOf(entry) === "default" ? [entry.text] : []));
  const language = languageOfTexts(texts) ?? "en";
  for (const entry of held.flat()) {
    const name = nameOf(entry);
    const locale = name === "default" ? language : (writtenLocale(name)?.locale ?? name);
    written.set(locale, name);
    book.addAlone(locale, entry, entry.path.slice(0, -1));
  }
  return book.found(file, spellingOf(written), "leaf");
}

/** Counts the entries of a file with all locales; says whether each names its locale there. */
function addAll(
  book: BookCount,
  written: Map<string, string>,
  { entries }: CatalogContent,
  inside: "root" | "leaf",
  namespace?: string,
): boolean {
  const nameOf = (path: Entry["path"]) => String(inside === "root" ? path[0] : path.at(-1));
  const names = [...new Set(entries.map(({ path }) => nameOf(path)))];
  const sure = names.filter((name) => writtenLocale(name)?.isWeak === false).length;
  return entries.every((entry) => {
    const { path } = entry;
    const name = nameOf(path);
    const read = path.length < 2 ? undefined : writtenLocale(name);
    // A country's code is a locale beside several that are: `cn` beside `de`, `en` and `fr`.
    if (!read || (read.isWeak && !(sure >= leastSure && /^[a-z]{2}$/.test(name)))) return false;
    written.set(read.locale, name);
    book.addAlone(read.locale, entry, inside === "root" ? path.slice(1) : path.slice(0, -1), namespace);
    return true;
  });
}
