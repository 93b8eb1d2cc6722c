import { posix } from "node:path";
import { viewed, withTextIn } from "../../catalog/view.js";
import { formatNameOf, formatOf, formats } from "../../catalog/formats/index.js";
import { readRows, tableFormat } from "../../catalog/formats/table/table.js";
import type { CatalogContent, Entry } from "../../catalog/model.js";
import type { Files } from "../../files/files.js";
import { pluralCategoryNames, type PluralCategory } from "../../locale/plural-rules.js";
import type { SourceFile } from "../../source/model.js";
import { isScript } from "../../source/readers/script/endings.js";
import type { FormatName } from "../../config/names.js";
import { isTextPlace } from "../../catalog/text-place.js";
import { languageOfTexts } from "../../locale/language-of-texts.js";
import { isOwnNameOf } from "../../locale/own-name.js";
import { leftOutByName } from "../../survey/left-out.js";
import { formatByContent } from "./told-by-content.js";
import { countryLanguage, localeByText, spellingOf, writtenLocale } from "./written-locale.js";

/** A group of catalog files that differ in their locale alone, or one file that holds all locales. */
export interface FoundBook {
  /** The pattern of its files. */
  readonly files: string;
  /** The format of its files, where their ending does not name it. */
  readonly format?: FormatName;
  /** The constant that holds the texts of each file, where they stand in the code itself. */
  readonly constant?: string;
  /** The columns of a table, where they are not called as tables usually call them. */
  readonly table?: {
    readonly id: string;
    readonly locale: string;
    readonly text: string | readonly string[];
  };
  /** How many keys each locale has. */
  readonly locales: ReadonlyMap<string, number>;
  /** The locales of which a file cannot be read whole: how many keys they have is not known. */
  readonly unread: ReadonlySet<string>;
  readonly spelling: "hyphen" | "underscore" | Readonly<Record<string, string>>;
  /** The name around all entries of each file, where code leaves it out of its keys. */
  readonly frame?: string;
  /** Where the locale stands in the files: at their root, or at the end of each key. */
  readonly inside: "root" | "leaf" | undefined;
  /** The member that holds the text, where entries are objects. */
  readonly leaf?: string;
  /** Texts of all locales. */
  readonly texts: readonly string[];
  /** The keys of those texts that have signs of a placeholder, as code writes them. */
  readonly counted: ReadonlySet<string>;
  /** The keys of all locales by namespace; of books without, by the empty text. */
  readonly keys: ReadonlyMap<string, ReadonlySet<string>>;
  /** By locale, the keys that end in a number, and those that stand before one. */
  readonly numbered: ReadonlyMap<string, ReadonlySet<string>>;
  /** By locale, the forms of plurals that are under keys of their own. */
  readonly forms: ReadonlyMap<string, ReadonlySet<PluralCategory>>;
  /** How many keys of each locale are the very text that they stand for. */
  readonly ownText: ReadonlyMap<string, number>;
  /** How many entries stand under a name of their own at the root, and how many there are. */
  readonly flat: { readonly whole: number; readonly of: number };
  /** The same for the entries below the one name that stands around all entries of each file. */
  readonly flatBelow: number;
}

/** The endings of files that are catalogs of one locale, and hold nothing to be run. */
const catalogEndings = Object.values(formats).flatMap(({ code, holds, extensions }) =>
  code || holds !== "locale" ? [] : extensions,
);

/** Files in these formats that hold other things than texts. */
const otherData = [
  "**/package*.json",
  "**/composer*.json",
  "**/tsconfig*.json",
  "**/jsconfig*.json",
  "**/*.schema.json",
  "**/.*/**",
  "**/node_modules/**",
  "**/vendor/**",
  "**/{pyproject,Cargo}*.toml",
  "**/{docker-compose,pnpm-lock,.gitlab-ci,mkdocs,openapi,swagger}*.{yml,yaml}",
  "**/dist/**",
  "**/build/**",
  "**/coverage/**",
  "fond*.json",
];

/** The endings of code that may be a catalog. */
const moduleEndings = Object.values(formats).flatMap(({ code, extensions }) => (code ? extensions : []));

function isModule(file: string): boolean {
  return moduleEndings.includes(posix.extname(file).slice(1));
}

/** The locale in the path of a module. Folders of code are called like languages by chance: `src`, `lib`. */
function moduleLocale(file: string): LocalePlace | undefined {
  const place = localeIn(file);
  return place && !isByChance(place) ? place : undefined;
}

function isByChance({ isWeak, written }: LocalePlace): boolean {
  return isWeak || /^[a-z]{3}$/.test(written);
}

/** So many locales beside it make a short name one as well. */
const leastSure = 3;

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

/** A file that looks like a catalog, with its content. */
interface FoundFile {
  readonly file: string;
  readonly content: CatalogContent;
}

/** Where the locale stands in the path of a file. */
interface LocalePlace {
  /** The path with `{locale}`, and `{namespace}` for the name of a file in a folder of a locale. */
  readonly pattern: string;
  readonly locale: string;
  readonly written: string;
  readonly isWeak: boolean;
  readonly namespace: string | undefined;
}

interface Group {
  readonly pattern: string;
  /** The format of its files, where their ending does not name it. */
  readonly format?: FormatName;
  readonly members: (LocalePlace & { readonly found: FoundFile })[];
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
  // What may be a locale by chance is looked at when the others are known.
  for (const { file, sure } of [...placed.filter((one) => one.sure), ...placed.filter((one) => !one.sure)]) {
    const possible = sure ?? localeIn(file, true);
    const place = sure ?? (isAmongLocales(possible, groups) ? possible : undefined);
    const kind = leftOutByName(file);
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
  for (const { file, content } of alone.values()) {
    const book = bookInOneFile(file, content);
    if (book) books.push(book);
  }
  books.push(...tables(files), ...booksInCode(code, new Set(modules)));
  return books.sort((a, b) => keyCount(b) - keyCount(a));
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

const tableEndings = Object.values(formats).flatMap(({ holds, extensions }) =>
  holds === "all-locales" ? extensions : [],
);

/** Tables with a row for each text and locale. */
function tables(files: Files): FoundBook[] {
  const listed = files.list({
    patterns: tableEndings.map((ending) => `**/*.${ending}`),
    ignore: otherData,
    respectIgnoreFiles: true,
  });
  return listed.flatMap((file): FoundBook[] => {
    const read = leftOutByName(file) === "tests" ? undefined : files.read(file);
    if (!read?.ok || read.text.length > largestFile) return [];
    const { rows, problem } = readRows(read.text);
    const [header, ...body] = rows.map(({ cells }) => cells.map(({ value }) => value.trim()));
    if (problem || !header || body.length < 4) return [];
    const columns = header.map((name, at) => ({ name, values: body.map((row) => row[at] ?? "") }));
    const locale = columns.find(
      ({ values }) =>
        new Set(values).size > 1 && values.every((value) => writtenLocale(value)?.isWeak === false),
    );
    const id = columns.find(
      ({ name, values }) =>
        name !== locale?.name &&
        values.every((value) => /^[\w.:/-]+$/.test(value)) &&
        isKey(values, locale?.values ?? []),
    );
    const texts = columns.filter(
      ({ name, values }) =>
        name !== locale?.name &&
        name !== id?.name &&
        values.filter((value) => /\p{L}{2}/u.test(value) && !/^[a-z]+:|^[\w-]+$/.test(value)).length * 2 >
          values.length,
    );
    if (!locale || !id || texts.length === 0) return [];
    const format = tableFormat({ id: [id.name], locale: locale.name, text: texts.map(({ name }) => name) });
    const book = new BookCount(false);
    const written = new Map<string, string>();
    for (const entry of format.read(read.text, ".").entries) {
      const name = String(entry.path.at(-1));
      const tag = writtenLocale(name)?.locale ?? name;
      written.set(tag, name);
      book.addAlone(tag, entry, entry.path.slice(0, -1));
    }
    const [only] = texts;
    const isUsual =
      id.name === "key" && locale.name === "locale" && texts.length === 1 && only?.name === "text";
    const text = texts.length === 1 && only ? only.name : texts.map(({ name }) => name);
    const found = book.found(file, spellingOf(written), undefined);
    return [isUsual ? found : { ...found, table: { id: id.name, locale: locale.name, text } }];
  });
}

/** Whether a column and the locale name each row together, and the column alone does not. */
function isKey(values: readonly string[], locales: readonly string[]): boolean {
  return (
    new Set(values).size < values.length &&
    new Set(values.map((value, at) => `${value}\u0000${locales[at] ?? ""}`)).size === values.length
  );
}

/** A constant with a member for English, or whose members have one. */
const tableByLocale =
  /^[ \t]{0,8}(?:export[ \t]{1,4})?const[ \t]{1,4}([A-Za-z_$][\w$]{0,60})[^=\n;]{0,80}=\s{0,20}(?:[\w$.]{1,60}\(\s{0,20})?\{\s{0,200}(?:["']?en(?:[-_]\w\w)?["']?\s{0,4}:|["']?[\w$.-]{1,60}["']?\s{0,4}:\s{0,4}\{\s{0,200}["']?en(?:[-_]\w\w)?["']?\s{0,4}:)/gm;

/** Books of texts that stand beside the code in its files: one for each name that constants in several files have. */
function booksInCode(code: readonly SourceFile[], known: ReadonlySet<string>): FoundBook[] {
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

/** A book of files that each hold all locales. */
function bookInFiles(
  pattern: string,
  found: readonly { readonly content: CatalogContent }[],
): FoundBook | undefined {
  if (found.some(({ content }) => isOfProgram(content))) return undefined;
  for (const inside of ["root", "leaf"] as const) {
    const book = new BookCount(false);
    const written = new Map<string, string>();
    const isAll = found.every(({ content }) => addAll(book, written, content, inside));
    if (isAll && written.size > 1) return book.found(pattern, spellingOf(written), inside);
  }
  return undefined;
}

/** A book without the one name that stands around all entries of its files; undefined where there is none. */
export function withoutFrame(book: FoundBook): FoundBook | undefined {
  const { keys, flat } = book;
  const own = keys.get("");
  const frame = own === undefined ? undefined : /^[^.]+(?=\.)/.exec([...own][0] ?? "")?.[0];
  if (!own || keys.size > 1 || frame === undefined) return undefined;
  const before = `${frame}.`;
  if (![...own].every((key) => key.startsWith(before))) return undefined;
  const bare = (set: ReadonlySet<string>) => new Set([...set].map((key) => key.slice(before.length)));
  return {
    ...book,
    frame,
    keys: new Map([["", bare(own)]]),
    counted: bare(book.counted),
    numbered: new Map([...book.numbered].map(([locale, set]) => [locale, bare(set)])),
    flat: { ...flat, whole: book.flatBelow },
  };
}

/** How many keys a book has in all namespaces. */
export function keyCount({ keys }: FoundBook): number {
  return [...keys.values()].reduce((sum, set) => sum + set.size, 0);
}

/**
 * The locale in a path: a folder, the file's name, or the end of its name; the last that there is. Folders with names that are
 * languages by chance are none, but where `takesFolders` says that they are looked at as well.
 */
function localeIn(file: string, takesFolders = false): LocalePlace | undefined {
  const ending = posix.extname(file);
  const parts = file.slice(0, -ending.length).split("/");
  const last = parts.length - 1;
  const placeAt = (at: number, written: string, part: string): LocalePlace | undefined => {
    const read = writtenLocale(written);
    const behind = last - at;
    if (!read || behind > 1) return undefined;
    const path = parts.map((one, index) => (index === at ? part : index > at ? "{namespace}" : one));
    const namespace = behind === 1 ? parts[last] : undefined;
    return { ...read, pattern: path.join("/") + ending, written, namespace };
  };
  for (let at = last; at >= Math.max(0, last - 1); at--) {
    const part = parts[at] ?? "";
    const whole = placeAt(at, part, "{locale}");
    if (whole && (takesFolders || !(whole.isWeak && at < last))) return whole;
    if (at !== last) continue;
    const [, start, suffix] =
      /^(.+?[-_.])([a-z]{2,3}(?:[-_]?[A-Z][A-Za-z]{1,3}|[-_][A-Za-z0-9]{2,8}){0,3})$/.exec(part) ?? [];
    const ended = suffix === undefined ? undefined : placeAt(at, suffix, `${start}{locale}`);
    if (ended) return ended;
    if (whole) return whole;
  }
  return undefined;
}

/** A group without what is a locale only by chance: short names that are languages as well, where no sure one is beside them. */
function withoutStrays(group: Group): Group {
  const sure = new Set(group.members.filter(({ isWeak }) => !isWeak).map(({ locale }) => locale));
  const weak = group.members.filter(({ isWeak }) => isWeak);
  const isNamed = weak.length > 1 && weak.some(({ written }) => /^english$/i.test(written));
  return sure.size > 0 || isNamed ? group : { ...group, members: [] };
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
  // In PHP the name of the file is part of the key, also where there is one file only.
  const isOne =
    names.size === 1 &&
    onlyName !== undefined &&
    !formats[group.format ?? formatNameOf(group.pattern)].code?.keysNameFile;
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

/** What the member of an entry that holds its text is called. */
const textMemberName = /^(?:message|text|string|value|translation|term|msg|content)$/i;

/** So many entries with a member of one name are no chance. */
const leastWithMember = 5;

/** The member that holds the text of every entry, where entries are objects: `"title": { "message": "Boats", "about": "…" }`. */
function textMember(contents: readonly CatalogContent[]): string | undefined {
  const all = contents.flatMap(({ entries }) => entries);
  const outer = new Set(all.map(({ path: [name] }) => name));
  const counts = new Map<string, number>();
  for (const { path } of all)
    if (path.length === 2 && textMemberName.test(String(path[1])))
      counts.set(String(path[1]), (counts.get(String(path[1])) ?? 0) + 1);
  const member = [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
  if (member === undefined || outer.size < leastWithMember) return undefined;
  const held = contents.every(({ entries }) => {
    const names = new Set(entries.map(({ path: [name] }) => name));
    const withText = new Set(
      entries.flatMap(({ path: [name, one, more] }) => (one === member && more === undefined ? [name] : [])),
    );
    return names.size === withText.size;
  });
  return held ? member : undefined;
}

/** The files of a group, those of each name that hold their texts in a member by themselves. */
function withMembersApart(group: Group): readonly Group[] {
  const names = [...new Set(group.members.flatMap(({ namespace }) => namespace ?? []))];
  if (names.length < 2) return [group];
  const called = (name: string) => group.members.filter(({ namespace }) => namespace === name);
  const apart = names.filter(
    (name) => textMember(called(name).map(({ found }) => found.content)) !== undefined,
  );
  if (apart.length === 0 || apart.length === names.length) return [group];
  const rest = group.members.filter(({ namespace }) => !apart.includes(namespace ?? ""));
  return [...apart.map((name) => ({ ...group, members: called(name) })), { ...group, members: rest }];
}

/** A group of files as its entries' texts are, without what stands beside them. */
function withTextsIn(leaf: string, group: Group): Group {
  const view = withTextIn(leaf);
  const members = group.members.map((member) => ({
    ...member,
    found: { ...member.found, content: viewed(member.found.content, view, ".") },
  }));
  return { ...group, members };
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

/** What a text has that shows a value, in any syntax. */
const placeholderSign = /[{}%$]|__\w+__/;

/** Counts the keys of a book as its files are gone through. */
class BookCount {
  private readonly locales = new Map<string, number>();
  private readonly unread = new Set<string>();
  private readonly keys = new Map<string, Set<string>>();
  private readonly texts: string[] = [];
  private readonly counted = new Set<string>();
  private readonly numbered = new Map<string, Set<string>>();
  private readonly forms = new Map<string, Set<PluralCategory>>();
  private readonly ownText = new Map<string, number>();
  private whole = 0;
  private wholeBelow = 0;

  /** `isRooted` says that keys start with the locale, which is none of them. */
  constructor(private readonly isRooted: boolean) {}

  get size(): number {
    return [...this.keys.values()].reduce((sum, set) => sum + set.size, 0);
  }

  add(locale: string, content: CatalogContent, namespace: string): void {
    if (content.problems.length > 0) this.unread.add(locale);
    const own = this.keys.get(namespace) ?? new Set<string>();
    this.keys.set(namespace, own);
    const all = new Set<string>();
    for (const entry of content.entries)
      all.add(this.entry(entry, own, this.isRooted ? entry.path.slice(1) : entry.path));
    const numbered = this.numbered.get(locale) ?? new Set<string>();
    for (const key of all) {
      const end = /(?:_plural)?_\d{1,2}$/.exec(key);
      if (end && all.has(key.slice(0, end.index))) numbered.add(key).add(key.slice(0, end.index));
    }
    if (numbered.size > 0) this.numbered.set(locale, numbered);
    const forms = this.forms.get(locale) ?? new Set<PluralCategory>();
    for (const key of all) {
      const base = /[._]other$/.test(key) ? key.slice(0, -"other".length) : undefined;
      for (const one of pluralCategoryNames) if (base !== undefined && all.has(base + one)) forms.add(one);
    }
    if (forms.size > 1) this.forms.set(locale, forms);
    this.locales.set(locale, (this.locales.get(locale) ?? 0) + content.entries.length);
    const same = content.entries.filter(({ path, text }) => path.length === 1 && path[0] === text).length;
    this.ownText.set(locale, (this.ownText.get(locale) ?? 0) + same);
  }

  /** An entry of a file that holds all locales. */
  addAlone(locale: string, entry: Entry, path: Entry["path"]): void {
    const own = this.keys.get("") ?? new Set<string>();
    this.keys.set("", own);
    this.entry(entry, own, path);
    this.locales.set(locale, (this.locales.get(locale) ?? 0) + 1);
  }

  private entry({ text }: Entry, own: Set<string>, path: Entry["path"]): string {
    const key = path.join(".");
    own.add(key);
    this.texts.push(text);
    if (path.length === 1) this.whole++;
    if (path.length === 2) this.wholeBelow++;
    if (placeholderSign.test(text)) this.counted.add(key);
    return key;
  }

  found(files: string, spelling: FoundBook["spelling"], inside: FoundBook["inside"]): FoundBook {
    const { locales, unread, texts, counted, keys, numbered, forms, ownText, whole, wholeBelow } = this;
    return {
      files,
      locales,
      unread,
      spelling,
      inside,
      texts,
      counted,
      keys,
      numbered,
      forms,
      ownText,
      flat: { whole, of: texts.length },
      flatBelow: wholeBelow,
    };
  }
}

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
    book.addAlone(read.locale, entry, inside === "root" ? path.slice(1) : path.slice(0, -1));
    return true;
  });
}

/** Larger files are no catalogs that people write, in code units. */
const largestFile = 20_000_000;

/** What is in a file that looks like a catalog: mostly texts. One that breaks off has its problems. */
function readEntries(
  files: Files,
  file: string,
  name: FormatName = formatNameOf(file),
): CatalogContent | undefined {
  const read = files.read(file);
  if (!read.ok || read.text.length > largestFile) return undefined;
  const format = formatOf({ files: file, format: name, table: undefined });
  const content = format.read(read.text, ".");
  const texts = content.entries.filter((entry) => entry.kind === "text").length;
  const values = content.entries.filter((entry) => entry.kind !== "code").length;
  return texts * 5 < values * 4 || (isModule(file) && texts === 0 && content.problems.length === 0)
    ? undefined
    : content;
}
