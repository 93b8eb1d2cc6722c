import { posix } from "node:path";
import { formatNameOf, formats } from "../../catalog/formats/index.js";
import type { CatalogContent } from "../../catalog/model.js";
import type { Files } from "../../files/files.js";
import type { SourceFile } from "../../source/model.js";
import { isTextPlace } from "../../catalog/text-place.js";
import { isWordOfEnglish } from "../../locale/word-codes.js";
import { languageOfTexts } from "../../locale/language-of-texts.js";
import { leftOutByName, libraryTest } from "../../survey/left-out.js";
import { formatByContent } from "./told-by-content.js";
import { countryLanguage, isNameless, localeByText, spellingOf, writtenLocale } from "./written-locale.js";
import { type FoundBook, keyCount, BookCount } from "./found-book.js";
import {
  catalogEndings,
  otherData,
  moduleEndings,
  isModule,
  type FoundFile,
  type Group,
  largestFile,
  readEntries,
} from "./found-file.js";
import { moduleLocale, isByChance, leastSure, type LocalePlace, localeIn } from "./locale-place.js";
import { areTexts } from "./source-language.js";
import { tables } from "./table-books.js";
import { booksInCode, booksByFile } from "./all-locales-books.js";
import { textMember, withMembersApart, withTextsIn } from "./text-member.js";

/** Whether a module's place is a locale because others are beside it: `kab` beside `de`, `fr` and `nl`. */
function isAmongLocales(place: LocalePlace | undefined, groups: ReadonlyMap<string, Group>): boolean {
  const members =
    place && /^(?:[a-z]{2,3}|[a-z]{2}[A-Z][A-Za-z]{1,3})$/.test(place.written)
      ? groups.get(place.pattern)?.members
      : undefined;
  return new Set(members?.filter((one) => !isByChance(one)).map(({ locale }) => locale)).size >= leastSure;
}

/** Whether a module of code stands where catalogs do: all of code is not read for them. */
function mayBeCatalog(file: string): boolean {
  const parts = file.replace(/\.\w+$/, "").split("/");
  return moduleLocale(file) !== undefined || parts.slice(-3).some(isTextPlace);
}

/** Finds the catalogs of a project, but for those that a compiler copied. What was met on the way goes to `grounds`, a sentence each. */
export function findBooks(
  files: Files,
  code: readonly SourceFile[],
  isCompiled: (file: string) => boolean,
  grounds: string[],
): FoundBook[] {
  const groups = new Map<string, Group>();
  const alone = new Map<string, FoundFile>();
  const others = new Map<string, number>();
  // How many files of a pattern are programs that hold no texts, which nothing can read as catalogs.
  const programs = new Map<string, number>();
  const listed = files.list({
    patterns: [`**/*.{${catalogEndings.join(",")}}`],
    ignore: otherData,
    respectIgnoreFiles: true,
  });
  const modules = files
    .list({ patterns: [`**/*.{${moduleEndings.join(",")}}`], ignore: otherData, respectIgnoreFiles: true })
    .filter(mayBeCatalog);
  // Compilers and what is called with them take catalogs along.
  const all = [...listed, ...modules].filter((file) => !isCompiled(file));
  const placed = all.map((file) => ({
    file,
    sure: isModule(file) ? moduleLocale(file) : localeIn(file),
  }));
  const isOfLibrary = libraryTest(files, all);
  // What may be a locale by chance is looked at when the others are known.
  for (const { file, sure } of [...placed.filter((one) => one.sure), ...placed.filter((one) => !one.sure)]) {
    const possible = sure ?? localeIn(file, true);
    const place = sure ?? (isAmongLocales(possible, groups) ? possible : undefined);
    const kind = isOfLibrary(file) ? "vendored" : leftOutByName(file);
    const owner = kind === "tests" ? "tests" : kind === "vendored" ? "libraries" : undefined;
    if (owner !== undefined) {
      if (place && !place.isWeak) others.set(owner, (others.get(owner) ?? 0) + 1);
      continue;
    }
    const content = readEntries(files, file);
    if (!content || (!place && content.problems.length > 0)) continue;
    // Code without texts is code.
    if (content.problems.some(({ code }) => code === "shape") && isModule(file)) {
      if (place) programs.set(place.pattern, (programs.get(place.pattern) ?? 0) + 1);
      continue;
    }
    if (!place || isOfOtherLocale(place, content)) {
      alone.set(file, { file, content });
      continue;
    }
    const group = groups.get(place.pattern) ?? { pattern: place.pattern, members: [] };
    groups.set(place.pattern, group);
    group.members.push({ ...place, found: { file, content } });
  }
  // Where most of them are programs, so are the others, whatever they hold.
  for (const [pattern, count] of programs)
    if (count > (groups.get(pattern)?.members.length ?? 0)) groups.delete(pattern);
  for (const group of groupsByContent(files)) groups.set(group.pattern, group);
  for (const group of groups.values()) takeSource(group, alone, grounds);
  for (const [owner, count] of others)
    grounds.push(
      `${count === 1 ? `One catalog of ${owner} is` : `${count} catalogs of ${owner} are`} left out.`,
    );
  const kept = [...groups.values()].map(withoutStrays);
  // A folder such as `src` is a language by chance, and says nothing of its files.
  for (const [index, group] of [...groups.values()].entries())
    if (kept[index]?.members.length === 0)
      for (const { found } of group.members)
        if (found.content.problems.length === 0) alone.set(found.file, found);
  const books = joinFolders(kept)
    .flatMap(withMembersApart)
    .flatMap((group) => {
      const book = bookByRoot(group, alone) ?? bookOf(group, alone, grounds);
      return book ? [book] : [];
    });
  books.push(...booksByFile([...alone.values()]), ...tables(files), ...booksInCode(code, new Set(modules)));
  return books.sort((a, b) => keyCount(b) - keyCount(a));
}

/** What the catalog of the source is called where the others are called by their locales. */
const sourceNames = [
  "main",
  "base",
  "default",
  "source",
  "reference",
  "original",
  "template",
  "master",
] as const;

/** So much of its keys, or of theirs, a file has in common with those of the locales. */
const sharedKeys = 0.7;

/** Adds to the files of several locales the one that the source has under another name: `main.json` beside `de.json`. */
function takeSource(group: Group, alone: Map<string, FoundFile>, grounds: string[]): void {
  const sure = group.members.filter((member) => !isByChance(member));
  if (new Set(sure.map(({ locale }) => locale)).size < leastSure) return;
  const keysOf = ({ content }: FoundFile) => content.entries.map(({ path }) => path.join("\0"));
  for (const written of sourceNames) {
    const path = (namespace: string) =>
      group.pattern.replace("{locale}", written).replace("{namespace}", namespace);
    const names = new Set(group.members.map(({ namespace }) => namespace ?? ""));
    const own = [...names].flatMap((name) => {
      const found = alone.get(path(name));
      return found ? [{ name, found }] : [];
    });
    if (own.length === 0) continue;
    const keys = own.flatMap(({ found }) => keysOf(found));
    const known = new Set(group.members.flatMap(({ found }) => keysOf(found)));
    const shared = keys.filter((key) => known.has(key)).length;
    if (shared < Math.min(keys.length, known.size) * sharedKeys) continue;
    const locale = languageOfTexts(own.flatMap(({ found }) => found.content.entries.map(({ text }) => text)));
    if (locale === undefined) continue;
    const there = group.members.filter((member) => member.locale === locale);
    const count = there.reduce((sum, { found }) => sum + found.content.entries.length, 0);
    if (count * 2 > keys.length) continue;
    // A file that is hardly begun is what programs fill from this one.
    for (const member of there) group.members.splice(group.members.indexOf(member), 1);
    for (const { name, found } of own) {
      alone.delete(found.file);
      const namespace = group.pattern.includes("{namespace}") ? name : undefined;
      group.members.push({ pattern: group.pattern, locale, written, isWeak: false, namespace, found });
    }
    grounds.push(`"${written}" stands for ${locale}: that is what its texts are in.`);
    return;
  }
}

/** Groups of files in several locales whose ending names no format, and whose content does. */
function groupsByContent(files: Files): Group[] {
  const known = Object.values(formats).flatMap(({ extensions }) => extensions);
  const byPattern = new Map<string, { readonly file: string; readonly place: LocalePlace }[]>();
  for (const file of files.list({ patterns: ["**/*.*"], ignore: otherData, respectIgnoreFiles: true })) {
    if (known.includes(posix.extname(file).slice(1).toLowerCase()) || leftOutByName(file) !== undefined)
      continue;
    const place = localeIn(file);
    if (place) byPattern.set(place.pattern, [...(byPattern.get(place.pattern) ?? []), { file, place }]);
  }
  return [...byPattern].flatMap(([pattern, list]): Group[] => {
    const [first] = list;
    const sure = list.filter(({ place }) => !isByChance(place));
    if (!first || new Set(sure.map(({ place }) => place.locale)).size < leastSure) return [];
    const read = files.read(first.file);
    const format = read.ok && read.text.length <= largestFile ? formatByContent(read.text) : undefined;
    if (format === undefined) return [];
    const members = list.flatMap(({ file, place }) => {
      const content = readEntries(files, file, format);
      return content && content.problems.length === 0 ? [{ ...place, found: { file, content } }] : [];
    });
    return members.length < leastSure ? [] : [{ pattern, format, members }];
  });
}

/** A group without what is a locale only by chance: short names that are languages as well, where no sure one is beside them. */
function withoutStrays(whole: Group): Group {
  const named = whole.members.filter(({ written, isWeak }) => !isWeak && !isNameless(written));
  const isOfMany = new Set(named.map(({ locale }) => locale)).size >= manyLocales;
  const members = whole.members.filter(
    (member) => !isEnglishWord(member) && (isOfMany || !isNameless(member.written)),
  );
  const group = { ...whole, members };
  const sure = new Set(group.members.filter(({ isWeak }) => !isWeak).map(({ locale }) => locale));
  const weak = group.members.filter(({ isWeak }) => isWeak);
  const isNamed = weak.length > 1 && weak.some(({ written }) => /^english$/i.test(written));
  return sure.size > 0 || isNamed ? group : { ...group, members: [] };
}

/** Beside so many locales a name of three letters is a language too, if it is the code of one that hardly anybody has heard of. */
const manyLocales = 10;

/** Whether a file is called as an English word and its texts are in English: `texts_new` beside `texts_de`. */
function isEnglishWord({ written, found: { content } }: Group["members"][number]): boolean {
  return isWordOfEnglish(written) && languageOfTexts(content.entries.map(({ text }) => text)) === "en";
}

/** Fewer folders with catalogs of their own are books of their own. */
const leastFolders = 3;

/** Catalogs beside the parts of a program as one book: `{dir}` stands for the folder of each. */
function joinFolders(groups: readonly Group[]): Group[] {
  const byEnd = new Map<string, Group[]>();
  for (const group of groups) {
    const parts = group.pattern.split("/");
    const at = parts.findIndex((part) => part.includes("{locale}"));
    // The folder that catalogs are in belongs to the end of the path: `locales/{locale}.json`.
    const from = Math.max(at - (/^\{locale\}/.test(parts[at] ?? "") ? 1 : 0), 1);
    const end = parts.slice(from).join("/");
    byEnd.set(end, [...(byEnd.get(end) ?? []), group]);
  }
  return [...byEnd].flatMap(([end, list]): Group[] => {
    const filled = list.filter(({ members }) => members.length > 0);
    if (filled.length < leastFolders || end.includes("{namespace}")) return filled;
    const format = filled[0]?.format;
    return [
      {
        pattern: `{dir}/${end}`,
        ...(format && { format }),
        members: filled.flatMap(({ members }) => members),
      },
    ];
  });
}

function bookOf(whole: Group, alone: Map<string, FoundFile>, grounds: string[]): FoundBook | undefined {
  const leaf = textMember(whole.members.map(({ found }) => found.content));
  const group = leaf === undefined ? whole : withTextsIn(leaf, whole);
  const names = new Set(group.members.flatMap(({ namespace }) => namespace ?? []));
  const [onlyName] = names;
  // In PHP the name of the file is part of the key, also where there is one file only; but not of a text that is its own key.
  const isOne =
    names.size === 1 &&
    onlyName !== undefined &&
    (!formats[group.format ?? formatNameOf(group.pattern)].code?.keysNameFile ||
      areTexts(group.members.flatMap(({ found }) => found.content.entries.map(({ key }) => key))));
  const files = isOne ? group.pattern.replace("{namespace}", onlyName) : group.pattern;
  const isRooted = group.members.every(
    ({ found: { content }, written }) =>
      (content.entries.length > 0 || content.problems.length > 0) &&
      content.entries.every(({ path: way }) => way[0] === written && way.length > 1),
  );
  const book = new BookCount(isRooted);
  const written = new Map<string, string>();
  const sure = group.members.flatMap((member) => (member.isWeak ? [] : [member.locale]));
  for (const member of group.members) {
    const { content } = member.found;
    const locale = localeByText(
      member.written,
      // Of a country's languages, that which the others have no file for.
      countryLanguage(member.written, sure) ?? member.locale,
      content.entries.map(({ text }) => text),
    );
    if (locale !== member.locale && !written.has(locale))
      grounds.push(`"${member.written}" stands for ${locale}: that is what its texts are in.`);
    written.set(locale, member.written);
    book.add(locale, content, isOne ? "" : (member.namespace ?? ""));
    const [problem] = content.problems;
    if (problem) grounds.push(`${member.found.file} cannot be read: ${problem.message}.`);
  }
  const bare = bareOf(files, alone);
  if (bare) {
    alone.delete(bare.file);
    const locale = bareLocale(bare, written);
    grounds.push(`${bare.file} is taken for ${locale}: it is the one without a locale in its name.`);
    book.add(locale, bare.content, "");
    written.set(locale, "");
  }
  const isPlausible =
    written.size > 1 ||
    (written.size === 1 &&
      /(^|\/)(locales?|lang|langs|languages?|messages|translations|catalogs?|texts|i18n)(\/|$)/.test(files));
  const isEmpty = group.members.every(({ found }) => found.content.problems.length === 0);
  if (!isPlausible || (book.size === 0 && !isEmpty)) return undefined;
  const found = book.found(files, spellingOf(written), isRooted ? "root" : undefined);
  return {
    ...found,
    ...(group.format !== undefined && { format: group.format }),
    ...(leaf !== undefined && { leaf }),
  };
}

/** The one name that stands around all entries of a file; undefined where there are several, or none. */
function rootOf({ entries }: CatalogContent): string | undefined {
  const root = entries[0]?.path[0];
  return entries.every(({ path }) => path.length > 1 && path[0] === root) && root !== undefined
    ? String(root)
    : undefined;
}

/** Whether a file is called as one locale by chance, and its entries stand below another: `command_ps.yml` with `en:` in it. */
function isOfOtherLocale({ pattern, written, locale }: LocalePlace, content: CatalogContent): boolean {
  if (/(?:^|\/)\{locale\}(?:\.\w+|\/)/.test(pattern)) return false;
  const root = rootOf(content);
  const other = root === undefined || root === written ? undefined : writtenLocale(root);
  return other?.isWeak === false && other.locale !== locale;
}

/**
 * The book of files that are called for their locale, with those beside them that have one around their entries and are called for
 * something else: `en.yml` and `mails.yml`, both with `en:` in them.
 */
function bookByRoot(
  { pattern, format, members }: Group,
  alone: Map<string, FoundFile>,
): FoundBook | undefined {
  const ending = /(?:^|\/)\{locale\}(\.\w+)$/.exec(pattern)?.[1];
  if (ending === undefined || !members.every(({ found, written }) => rootOf(found.content) === written))
    return undefined;
  const written = new Map(members.map((member) => [member.locale, member.written]));
  const folders = new Set(members.map(({ found }) => posix.dirname(found.file)));
  const roots = new Set(written.values());
  const beside = [...alone.values()].filter(
    ({ file, content }) =>
      file.endsWith(ending) && folders.has(posix.dirname(file)) && roots.has(rootOf(content) ?? ""),
  );
  if (beside.length === 0) return undefined;
  const book = new BookCount(false);
  const localeOf = new Map([...written].map(([locale, root]) => [root, locale]));
  for (const { file, content } of [...members.map(({ found }) => found), ...beside]) {
    alone.delete(file);
    for (const entry of content.entries) {
      const root = String(entry.path[0]);
      book.addAlone(localeOf.get(root) ?? root, entry, entry.path.slice(1));
    }
  }
  const found = book.found(pattern.replace("{locale}", "{name}"), spellingOf(written), "root");
  return format === undefined ? found : { ...found, format };
}

/** The file of the same name without a locale, as bundles of properties have it for their source texts. */
function bareOf(files: string, alone: ReadonlyMap<string, FoundFile>): FoundFile | undefined {
  const bare = files.replace(/[-_.]\{locale\}/, "");
  return bare === files || bare.includes("{") ? undefined : alone.get(bare);
}

/** The locale of a file without one: that of its texts, or English. */
function bareLocale({ content }: FoundFile, others: ReadonlyMap<string, string>): string {
  const language = languageOfTexts(content.entries.map(({ text }) => text)) ?? "en";
  if (!others.has(language)) return language;
  // English beside a file of English is that of another region.
  const region = new Intl.Locale(language).maximize().region ?? "US";
  return `${language}-${region}`;
}
