import { posix } from "node:path";
import { formatNameOf, formatOf } from "../catalog/formats/index.js";
import type { CatalogContent } from "../catalog/model.js";
import { bookLayout } from "../catalog/layout.js";
import { configFileNames } from "../config/load.js";
import type { Files } from "../files/files.js";
import { isKnownLanguage } from "../locale/mistaken-tag.js";
import { canonicalTag, parseTag } from "../locale/tag.js";
import { makePlan, type Plan } from "../plan/plan.js";
import { noShapes } from "../source/book-code.js";
import { choosePlurals, chooseSyntax } from "./message-guess.js";
import type { SourceFile } from "../source/model.js";
import { readableText } from "../source/model.js";
import { isReadable, prepareReaders, readSource } from "../source/read.js";

/** The plan for a new configuration, with what led to each part of it. */
export interface InitPlan extends Plan {
  /** In the order of the configuration, each a sentence for people. */
  readonly grounds: readonly string[];
  /** What the files do not tell: those who know can answer it. */
  readonly open: readonly InitQuestion[];
  /** The source locale that is proposed. */
  readonly source: string;
  /** Whether there are catalogs or code: without both the plan is what any new project starts with. */
  readonly hasFound: boolean;
  /** The same with answers, which come before what was found. */
  answer(answers: InitAnswers): InitPlan;
}

/** Which locale the texts are written in, which they are translated into, and how code asks for a text. */
export type InitQuestion = "source" | "targets" | "lookup";

/** What somebody who knows the project says of it. */
export interface InitAnswers {
  readonly source?: string;
  readonly targets?: readonly string[];
  /** What stands in the code for a text, with `{key}` and `{args}`: `t("{key}"{args})`. */
  readonly lookup?: string;
  /** The line that brings the lookup in. */
  readonly import?: string;
}

export type InitResult =
  { readonly ok: true; readonly plan: InitPlan } | { readonly ok: false; readonly file: string };

/** A group of files that differ in their locale alone. */
interface FoundBook {
  readonly files: string;
  readonly locales: ReadonlyMap<string, number>;
  readonly spelling: "hyphen" | "underscore" | Readonly<Record<string, string>>;
  /** Where the locale stands in the files. */
  readonly inside: "root" | "leaf" | undefined;
  /** Set where a file without a suffix is the source's. */
  readonly blank?: string;
  /** Texts of all locales, to count placeholders in. */
  readonly texts: readonly string[];
  /** The keys of those texts that have signs of a placeholder. */
  readonly counted: ReadonlySet<string>;
  /** Full keys of all locales. */
  readonly keys: ReadonlySet<string>;
}

interface FoundLookups {
  readonly calls: readonly {
    readonly name: string;
    readonly count: number;
    readonly from: string | undefined;
  }[];
  readonly components: readonly { readonly name: string; readonly prop: string; readonly count: number }[];
}

const otherData = [
  "**/package*.json",
  "**/tsconfig*.json",
  "**/jsconfig*.json",
  "**/*.schema.json",
  "**/.*/**",
  "**/node_modules/**",
  "**/{docker-compose,pnpm-lock,.gitlab-ci,mkdocs,openapi,swagger}*.{yml,yaml}",
  "**/dist/**",
  "**/build/**",
  "**/coverage/**",
  "fond*.json",
];
const otherCode = [
  "**/dist/**",
  "**/build/**",
  "**/coverage/**",
  "**/*.d.ts",
  "**/*.test.*",
  "**/*.spec.*",
  "**/*.config.*",
  "**/*.min.js",
  "**/vendor/**",
  "**/node_modules/**",
  "**/*.{svg,xml}",
];

/** Looks at a project and plans its configuration. Refuses where one already exists. */
export async function planInit(files: Files): Promise<InitResult> {
  const there = configFileNames.find((name) => files.read(name).ok);
  if (there) return { ok: false, file: there };
  const seen: string[] = [];
  const found = findBooks(files, seen);
  const code = await readAllCode(files);
  const schema = files.read(installedSchema).ok ? `./${installedSchema}` : undefined;
  const answer = (answers: InitAnswers) => planWith(found, code, seen, schema, answers, answer);
  return { ok: true, plan: answer({}) };
}

/** Where the JSON Schema of the configuration is in a project that has this package installed. */
const installedSchema = "node_modules/fond-ledger/schema/config.json";

function planWith(
  found: readonly FoundBook[],
  code: readonly SourceFile[],
  seen: readonly string[],
  schema: string | undefined,
  answers: InitAnswers,
  answer: InitPlan["answer"],
): InitPlan {
  const grounds = [...seen];
  const open: InitQuestion[] = [];
  const sourceLocale = answers.source ?? chooseSource(found[0], code.length > 0, grounds, open);
  const books = withSource(found, sourceLocale, grounds);
  const targets = [
    ...new Set([...books.flatMap((book) => [...book.locales.keys()]), ...(answers.targets ?? [])]),
  ]
    .filter((locale) => locale !== sourceLocale)
    .sort();
  if (targets.length === 0 && !answers.targets) open.push("targets");
  const names = bookNames(books);
  const written = books.map((book, index) =>
    describeBook(book, names[index] ?? "app", code, books.length > 1, grounds, answers),
  );
  if (code.length > 0 && answers.lookup === undefined && written.every(({ emit }) => emit === undefined))
    open.push("lookup");
  if (books.length === 0) {
    grounds.push(
      `No catalogs found; new ones are proposed in locales/.${answers.targets ? "" : ' Add the target locales to "targets".'}`,
    );
    if (answers.lookup === undefined)
      grounds.push(
        'Before the first extract, set "emit" in the book: the call to write into the code, and its import.',
      );
    written.push({
      name: "app",
      code: codeGlobs(code, grounds),
      files: "locales/{locale}.json",
      ...lookupOf(answers),
    });
  }
  const config = {
    ...(schema !== undefined && { $schema: schema }),
    source: sourceLocale,
    targets,
    books: written,
  };
  const after = compactJson(config);
  const plan = makePlan([{ file: configFileNames[0], before: undefined, after }], {
    books: written.length,
    locales: targets.length + 1,
  });
  const hasFound = found.length + code.length > 0;
  return { ...plan, grounds, open, source: sourceLocale, hasFound, answer };
}

/** The lookup that somebody wants; that of most programs by default. */
function lookupOf({ lookup, import: line }: InitAnswers) {
  const call = /^[\w$.]+(?=\()/.exec(lookup ?? "")?.[0];
  return {
    lookups: [{ call: call ?? "t" }],
    ...(lookup !== undefined && { emit: { call: lookup, ...(line !== undefined && { import: line }) } }),
  };
}

/** JSON with two spaces of indent, lists and objects of plain values on one line where they fit. */
function compactJson(value: object): string {
  const wide = JSON.stringify(value, undefined, 2);
  const narrow = wide.replace(
    /([[{])\n *([^[\]{}\s][^[\]{}]*)\n *([\]}])/g,
    (whole: string, open: string, inner: string, close: string) => {
      const line = inner.replace(/\n\s+/g, " ");
      const pad = open === "{" ? " " : "";
      return line.length > 90 ? whole : open + pad + line + pad + close;
    },
  );
  return narrow + "\n";
}

function timesIn(count: number): string {
  return count === 1 ? "once" : `${count} times`;
}

const catalogEndings = "json,jsonc,json5,yaml,yml,properties";

/** A file that looks like a catalog, with its content. */
interface FoundFile {
  readonly file: string;
  readonly content: CatalogContent;
}

/** Groups catalog files by what is left when the locale is taken out of their path. */
function findBooks(files: Files, grounds: string[]): FoundBook[] {
  interface Group {
    readonly paths: Map<string, { readonly found: FoundFile; readonly written: string }[]>;
    readonly names: Set<string>;
    underscore: boolean;
  }
  const groups = new Map<string, Group>();
  const alone = new Map<string, FoundFile>();
  for (const file of files.list({
    patterns: [`**/*.{${catalogEndings}}`],
    ignore: otherData,
    respectIgnoreFiles: true,
  })) {
    const place = localeIn(file);
    const content = readEntries(files, file);
    if (!content || (!place && content.problems.length > 0)) continue;
    if (!place) {
      alone.set(file, { file, content });
      continue;
    }
    const group = groups.get(place.pattern) ?? {
      paths: new Map<string, { found: FoundFile; written: string }[]>(),
      names: new Set<string>(),
      underscore: false,
    };
    groups.set(place.pattern, group);
    const one = { found: { file, content }, written: place.written };
    group.paths.set(place.locale, [...(group.paths.get(place.locale) ?? []), one]);
    if (place.namespace !== undefined) group.names.add(place.namespace);
    group.underscore ||= place.written.includes("_");
  }
  const books: FoundBook[] = [];
  for (const [pattern, group] of groups) {
    const [onlyName] = group.names;
    const path =
      group.names.size === 1 && onlyName !== undefined ? pattern.replace("{namespace}", onlyName) : pattern;
    const spelling = group.underscore ? "underscore" : "hyphen";
    const layout = bookLayout({ files: path, spelling });
    const all = [...group.paths.values()].flat();
    const isRooted = all.every(
      ({ found, written }) =>
        (found.content.entries.length > 0 || found.content.problems.length > 0) &&
        found.content.entries.every(({ path: way }) => way[0] === written && way.length > 1),
    );
    const locales = new Map<string, number>();
    const keys = new Set<string>();
    const texts: string[] = [];
    const counted = new Set<string>();
    const add = (locale: string, content: CatalogContent, namespace: string | undefined) => {
      for (const entry of content.entries) {
        texts.push(entry.text);
        const key = isRooted ? entry.path.slice(1).join(".") : entry.key;
        const fullKey = namespace === undefined ? key : `${namespace}.${key}`;
        keys.add(fullKey);
        if (placeholderSign.test(entry.text)) counted.add(fullKey);
      }
      locales.set(locale, (locales.get(locale) ?? 0) + content.entries.length);
    };
    for (const [locale, held] of group.paths)
      for (const { found } of held) add(locale, found.content, layout.place(found.file)?.namespace);
    // A file of the same name without a locale holds the source texts, as bundles of properties have it.
    const bare = path.replace(/[-_.]\{locale\}/, "");
    const source = bare === path || bare.includes("{") ? undefined : alone.get(bare);
    if (source) {
      alone.delete(bare);
      add(locales.has("en") ? "en-US" : "en", source.content, undefined);
    }
    const isPlausible =
      locales.size > 1 ||
      (locales.size === 1 &&
        /(^|\/)(locales?|lang|languages?|messages|translations|catalogs?|texts|i18n)(\/|$)/.test(pattern));
    if (!isPlausible || keys.size === 0) continue;
    for (const { found } of all)
      if (found.content.problems[0])
        grounds.push(`${found.file} cannot be read: ${found.content.problems[0].message}.`);
    books.push({
      files: path,
      locales,
      spelling,
      inside: isRooted ? "root" : undefined,
      keys,
      texts,
      counted,
      ...(source && { blank: locales.has("en-US") ? "en-US" : "en" }),
    });
  }
  for (const { file, content } of alone.values()) {
    const book = bookInOneFile(file, content);
    if (book) books.push(book);
  }
  return books.sort((a, b) => b.keys.size - a.keys.size);
}

/** What a text has that shows a value, in any syntax. */
const placeholderSign = /[{}%$]|__\w+__/;

/** A file that holds all locales, at its root or in each key; undefined for any other file. */
function bookInOneFile(file: string, content: CatalogContent): FoundBook | undefined {
  if (content.entries.length === 0) return undefined;
  for (const inside of ["root", "leaf"] as const) {
    const locales = new Map<string, number>();
    const keys = new Set<string>();
    let underscore = false;
    const isAll = content.entries.every(({ path }) => {
      const written = String(inside === "root" ? path[0] : path.at(-1));
      if (path.length < 2 || !isLocale(written)) return false;
      underscore ||= written.includes("_");
      const locale = canonicalTag(written.replaceAll("_", "-"));
      locales.set(locale, (locales.get(locale) ?? 0) + 1);
      keys.add((inside === "root" ? path.slice(1) : path.slice(0, -1)).join("."));
      return true;
    });
    if (isAll && locales.size > 1)
      return {
        files: file,
        locales,
        spelling: underscore ? "underscore" : "hyphen",
        inside,
        keys,
        texts: content.entries.map(({ text }) => text),
        counted: new Set(
          content.entries.filter(({ text }) => placeholderSign.test(text)).map(({ key }) => key),
        ),
      };
  }
  return undefined;
}

function isLocale(written: string): boolean {
  const tag = parseTag(written.replaceAll("_", "-"));
  return tag !== undefined && tag.language.length === 2 && isKnownLanguage(tag.language);
}

/** The locale in a path: a folder, the file's name, or the end of its name; the last that there is. */
function localeIn(
  file: string,
): { pattern: string; locale: string; written: string; namespace: string | undefined } | undefined {
  const ending = posix.extname(file);
  const parts = file.slice(0, -ending.length).split("/");
  const found = (at: number, written: string, part: string) => {
    const behind = parts.length - 1 - at;
    if (behind > 1) return undefined;
    const pattern = parts
      .map((one, index) => (index === at ? part : index > at ? "{namespace}" : one))
      .join("/");
    return {
      pattern: pattern + ending,
      locale: canonicalTag(written.replaceAll("_", "-")),
      written,
      namespace: behind === 1 ? parts[parts.length - 1] : undefined,
    };
  };
  for (let at = parts.length - 1; at >= 0; at--) {
    const part = parts[at] ?? "";
    if (isLocale(part)) return found(at, part, "{locale}");
    const suffix =
      at === parts.length - 1 ? /^(.+?[-_.])([a-z]{2}(?:[-_][A-Za-z0-9]{2,8}){0,4})$/.exec(part) : null;
    const written = suffix?.[2] ?? "";
    if (suffix && isLocale(written)) return found(at, written, `${suffix[1]}{locale}`);
  }
  return undefined;
}

/** What is in a file that looks like a catalog: mostly texts. One that breaks off has its problems. */
function readEntries(files: Files, file: string): CatalogContent | undefined {
  const read = files.read(file);
  if (!read.ok || read.text.length > 20_000_000) return undefined;
  const content = formatOf({ files: file, format: formatNameOf(file), table: undefined }).read(
    read.text,
    ".",
  );
  const texts = content.entries.filter((entry) => entry.kind === "text").length;
  return texts * 5 < content.entries.length * 4 ? undefined : content;
}

/** The locale in which the largest book has the most keys; English where it has nearly as many, since extra keys gather in translations. */
function chooseSource(
  book: FoundBook | undefined,
  hasCode: boolean,
  grounds: string[],
  open: InitQuestion[],
): string {
  const totals = book?.locales ?? new Map<string, number>();
  const most = Math.max(...totals.values());
  const rank = (locale: string) => (locale === "en" ? 0 : locale.startsWith("en-") ? 1 : 2);
  const [best, ...others] = [...totals]
    // Translations keep keys that the source has given up; most products are written in English.
    .filter(([locale, count]) => count >= most * (rank(locale) < 2 ? 0.6 : 0.9))
    .sort(([a, x], [b, y]) => rank(a) - rank(b) || y - x || (a < b ? -1 : 1));
  if (best ? others.length > 0 && rank(best[0]) === 2 : hasCode) open.push("source");
  if (!best) return "en";
  grounds.push(
    `Source locale "${best[0]}", with ${best[1]} keys. Change "source" if the texts are written in another locale.`,
  );
  return best[0];
}

/** Leaves out groups of files without the source locale: they cannot be a book, but may be on their way to or from translators. */
function withSource(books: readonly FoundBook[], source: string, grounds: string[]): FoundBook[] {
  return books.filter((book) => {
    const has = book.locales.has(source);
    if (!has) grounds.push(`${book.files} has no "${source}" and is skipped.`);
    return has;
  });
}

function describeBook(
  book: FoundBook,
  name: string,
  code: readonly SourceFile[],
  several: boolean,
  grounds: string[],
  answers: InitAnswers,
) {
  grounds.push(`${book.files} has ${book.keys.size} keys in ${[...book.locales.keys()].sort().join(", ")}.`);
  const found = findLookups(code, book.keys);
  const users = several
    ? code.filter((source) => [...source.mentions].some((mention) => book.keys.has(mention)))
    : code;
  const lookups = [
    ...found.calls.map(({ name: call }) => ({ call })),
    ...found.components.map(({ name: component, prop: key }) => ({ component, key })),
  ];
  for (const { name: call, count } of found.calls)
    grounds.push(`${call}(…) looks up its keys ${timesIn(count)}.`);
  for (const { name: component, prop, count } of found.components)
    grounds.push(`<${component} ${prop}=…> looks up its keys ${timesIn(count)}.`);
  if (lookups.length === 0 && answers.lookup === undefined)
    grounds.push("No lookup of its keys found in the code; t(…) is proposed.");
  const relative = findRelative(code, book.keys, grounds);
  const main = found.calls[0];
  const syntax = chooseSyntax(book.texts, grounds);
  const plurals = choosePlurals(book, syntax, grounds);
  return {
    name,
    code: codeGlobs(users, grounds),
    files: book.files,
    ...(book.blank !== undefined
      ? { spelling: blankSpelling(book, book.blank) }
      : book.spelling !== "hyphen" && { spelling: book.spelling }),
    ...(syntax !== "icu" && { syntax }),
    ...(plurals !== "inline" && { plurals }),
    ...(book.inside === "root" && { root: "{locale}" }),
    ...(book.inside === "leaf" && { leaf: "{locale}" }),
    ...(lookups.length > 0 ? { lookups } : lookupOf(answers)),
    ...(relative && { relative }),
    ...(main && {
      emit: {
        call: `${main.name}("{key}"{args})`,
        ...(main.from !== undefined && {
          import: `import { ${main.name.split(".")[0] ?? main.name} } from "${main.from}";`,
        }),
      },
    }),
  };
}

/** The map of spellings for a book whose source file has no suffix. */
function blankSpelling(book: FoundBook, source: string): Record<string, string> {
  const written = (locale: string) => (book.spelling === "underscore" ? locale.replaceAll("-", "_") : locale);
  return Object.fromEntries(
    [...book.locales.keys()].flatMap((locale) =>
      locale === source ? [[locale, ""]] : written(locale) === locale ? [] : [[locale, written(locale)]],
    ),
  );
}

/** The calls and components whose first argument or prop is a known key. */
function findLookups(code: readonly SourceFile[], keys: ReadonlySet<string>): FoundLookups {
  const calls = new Map<string, { count: number; from: string | undefined }>();
  const components = new Map<string, { name: string; prop: string; count: number }>();
  for (const source of code) {
    for (const { context, pieces } of source.literals) {
      if (!keys.has(readableText(pieces)) || !context.name) continue;
      if (context.role === "argument" && context.index === 0) {
        const call = calls.get(context.name) ?? { count: 0, from: undefined };
        calls.set(context.name, {
          count: call.count + 1,
          from: call.from ?? importPath(source, context.name),
        });
      } else if (context.role === "attribute" && context.element && /^[A-Z]/.test(context.element)) {
        const id = `${context.element} ${context.name}`;
        components.set(id, {
          name: context.element,
          prop: context.name,
          count: (components.get(id)?.count ?? 0) + 1,
        });
      }
    }
  }
  return {
    calls: [...calls].map(([name, call]) => ({ name, ...call })).sort((a, b) => b.count - a.count),
    components: [...components.values()].sort((a, b) => b.count - a.count),
  };
}

/** What keys with a leading dot stand for, where some are asked for and stand for known keys. */
function findRelative(
  code: readonly SourceFile[],
  keys: ReadonlySet<string>,
  grounds: string[],
): { root: string; pattern: string } | undefined {
  for (const { file, literals } of code) {
    const folders = posix.dirname(file).split("/");
    const name = (posix.basename(file).split(".", 1)[0] ?? "").replace(/^_/, "");
    for (const { context, pieces } of literals) {
      const text = readableText(pieces);
      if (context.role !== "argument" || context.index !== 0 || !/^\.[\w.]+$/.test(text)) continue;
      for (let start = 0; start <= folders.length; start++) {
        if (!keys.has([...folders.slice(start), name].join(".") + text)) continue;
        const root = folders.slice(0, start).join("/");
        grounds.push(
          `Keys with a leading dot are relative to ${root || "the project"}: "${text}" in ${file}.`,
        );
        return { root, pattern: "{folders}.{file}" };
      }
    }
  }
  return undefined;
}

/** Where a file imports a function from: a project path as `{to:…}`, a package by its name. */
function importPath(source: SourceFile, call: string): string | undefined {
  const root = call.split(".")[0] ?? call;
  const match = new RegExp(
    `import\\s*\\{[^}]*\\b${root.replace(/\$/g, "\\$")}\\b[^}]*\\}\\s*from\\s*["']([^"']+)["']`,
  ).exec(source.text);
  const from = match?.[1];
  if (from === undefined || !from.startsWith(".")) return from;
  return `{to:${posix.normalize(posix.join(posix.dirname(source.file), from))}}`;
}

async function readAllCode(files: Files): Promise<SourceFile[]> {
  const listed = files
    .list({ patterns: ["**/*"], ignore: otherCode, respectIgnoreFiles: true })
    .filter((file) => isReadable(file));
  await prepareReaders(listed, files);
  return listed.flatMap((file) => {
    const read = files.read(file);
    return read.ok ? [readSource(file, read.text, read.bom, noShapes)] : [];
  });
}

/** Globs for the code: the top folders that hold it, with the endings found there. */
function codeGlobs(code: readonly SourceFile[], grounds: string[]): string[] {
  const endings = new Map<string, Set<string>>();
  for (const { file } of code) {
    const top = file.includes("/") ? (file.split("/")[0] ?? "") : "";
    endings.set(top, (endings.get(top) ?? new Set()).add(posix.extname(file).slice(1)));
  }
  const globs = [...endings]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([top, set]) => {
      const list = [...set].sort();
      const ending = list.length === 1 ? (list[0] ?? "") : `{${list.join(",")}}`;
      return top === "" ? `*.${ending}` : `${top}/**/*.${ending}`;
    });
  grounds.push(
    globs.length > 0
      ? `Code is in ${globs.join(", ")} (${code.length} ${code.length === 1 ? "file" : "files"}).`
      : 'No code found; set "code" to where it is.',
  );
  return globs;
}

/** A name for each book: the folder that its catalogs are in, made unique. */
function bookNames(books: readonly FoundBook[]): string[] {
  const used = new Set<string>();
  return books.map((book) => {
    const folders = book.files
      .split("/")
      .filter(
        (part) =>
          !part.includes("{") &&
          !/^(src|app|locales?|lang|languages?|messages|translations|public|assets)$/.test(part),
      );
    const wanted = (
      folders.find((part) => !new RegExp(`\\.(?:${catalogEndings.replaceAll(",", "|")})$`).test(part)) ??
      "app"
    ).replace(/[^\w-]/g, "-");
    let name = wanted;
    for (let number = 2; used.has(name); number++) name = `${wanted}-${number}`;
    used.add(name);
    return name;
  });
}
