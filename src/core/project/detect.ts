import { posix } from "node:path";
import { jsonFormat } from "../catalog/formats/json.js";
import { bookLayout } from "../catalog/layout.js";
import { configFileNames } from "../config/load.js";
import type { Files } from "../files/files.js";
import { isKnownLanguage } from "../locale/mistaken-tag.js";
import { canonicalTag, parseTag } from "../locale/tag.js";
import { makePlan, type Plan } from "../plan/plan.js";
import { scriptEndings, readScript } from "../source/readers/script/script.js";
import { noShapes } from "../source/book-code.js";
import type { SourceFile } from "../source/model.js";
import { readableText } from "../source/model.js";

/** The plan for a new configuration, with what led to each part of it. */
export interface InitPlan extends Plan {
  /** In the order of the configuration, each a sentence for people. */
  readonly grounds: readonly string[];
}

export type InitResult =
  { readonly ok: true; readonly plan: InitPlan } | { readonly ok: false; readonly file: string };

/** A group of files that differ in their locale alone. */
interface FoundBook {
  readonly files: string;
  readonly locales: ReadonlyMap<string, number>;
  readonly spelling: "hyphen" | "underscore";
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

const otherJson = [
  "**/package*.json",
  "**/tsconfig*.json",
  "**/jsconfig*.json",
  "**/*.schema.json",
  "**/.*/**",
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
];

/** Looks at a project and plans its configuration. Refuses where one is there already. */
export function planInit(files: Files): InitResult {
  const there = configFileNames.find((name) => files.read(name).ok);
  if (there) return { ok: false, file: there };
  const grounds: string[] = [];
  const found = findBooks(files);
  const code = readAllCode(files);
  const sourceLocale = chooseSource(found[0], grounds);
  const books = withSource(found, sourceLocale, grounds);
  const targets = [...new Set(books.flatMap((book) => [...book.locales.keys()]))]
    .filter((locale) => locale !== sourceLocale)
    .sort();
  const names = bookNames(books);
  const written = books.map((book, index) =>
    describeBook(book, names[index] ?? "app", code, books.length > 1, grounds),
  );
  if (books.length === 0) {
    grounds.push(
      "No catalogs were found, so new ones are proposed in locales/. Name the locales that you translate into in “targets”.",
    );
    grounds.push(
      "Before the first extract, set “emit” in the book: the call that you want in the code, and the import that brings it in.",
    );
    written.push({
      name: "app",
      code: codeGlobs(code, grounds),
      files: "locales/{locale}.json",
      lookups: [{ call: "t" }],
    });
  }
  const config = { source: sourceLocale, targets, books: written };
  const after = compactJson(config);
  const plan = makePlan([{ file: configFileNames[0], before: undefined, after }], {
    books: written.length,
    locales: targets.length + 1,
  });
  return { ok: true, plan: { ...plan, grounds } };
}

/** JSON with two spaces of indent, lists and objects of plain values on one line where they fit. */
function compactJson(value: object): string {
  const wide = JSON.stringify(value, undefined, 2);
  const narrow = wide.replace(
    /([[{])\n\s+([^[\]{}]*?)\n\s+([\]}])/g,
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

/** Groups JSON files by what is left when the locale is taken out of their path. */
function findBooks(files: Files): FoundBook[] {
  interface Group {
    readonly paths: Map<string, string[]>;
    readonly names: Set<string>;
    underscore: boolean;
  }
  const groups = new Map<string, Group>();
  for (const file of files.list({ patterns: ["**/*.json"], ignore: otherJson, respectIgnoreFiles: true })) {
    const found = localeIn(file);
    if (!found) continue;
    const group = groups.get(found.pattern) ?? {
      paths: new Map<string, string[]>(),
      names: new Set<string>(),
      underscore: false,
    };
    groups.set(found.pattern, group);
    group.paths.set(found.locale, [...(group.paths.get(found.locale) ?? []), file]);
    if (found.namespace !== undefined) group.names.add(found.namespace);
    group.underscore ||= found.written.includes("_");
  }
  const books: FoundBook[] = [];
  for (const [pattern, group] of groups) {
    const [onlyName] = group.names;
    const path =
      group.names.size === 1 && onlyName !== undefined ? pattern.replace("{namespace}", onlyName) : pattern;
    const layout = bookLayout({ files: path, spelling: group.underscore ? "underscore" : "hyphen" });
    const locales = new Map<string, number>();
    const keys = new Set<string>();
    for (const [locale, paths] of group.paths) {
      for (const file of paths) {
        const entries = readEntries(files, file);
        if (!entries) continue;
        const namespace = layout.place(file)?.namespace;
        for (const key of entries) keys.add(namespace === undefined ? key : `${namespace}.${key}`);
        locales.set(locale, (locales.get(locale) ?? 0) + entries.length);
      }
    }
    const isPlausible =
      locales.size > 1 ||
      (locales.size === 1 &&
        /(^|\/)(locales?|lang|languages?|messages|translations|catalogs?|texts)(\/|$)/.test(pattern));
    if (isPlausible)
      books.push({ files: path, locales, spelling: group.underscore ? "underscore" : "hyphen", keys });
  }
  return books.sort((a, b) => b.keys.size - a.keys.size);
}

/** The locale in a path: a folder or the file's name, the last that there is. */
function localeIn(
  file: string,
): { pattern: string; locale: string; written: string; namespace: string | undefined } | undefined {
  const parts = file.replace(/\.json$/, "").split("/");
  for (let index = parts.length - 1; index >= 0; index--) {
    const written = parts[index] ?? "";
    const tag = parseTag(written.replaceAll("_", "-"));
    if (!tag || tag.language.length !== 2 || !isKnownLanguage(tag.language)) continue;
    const behind = parts.length - 1 - index;
    if (behind > 1) continue;
    const pattern = parts
      .map((part, at) => (at === index ? "{locale}" : at > index ? "{namespace}" : part))
      .join("/");
    return {
      pattern: `${pattern}.json`,
      locale: canonicalTag(written.replaceAll("_", "-")),
      written,
      namespace: behind === 1 ? parts[parts.length - 1] : undefined,
    };
  }
  return undefined;
}

/** The keys of a file that looks like a catalog: an object whose values are mostly texts. */
function readEntries(files: Files, file: string): string[] | undefined {
  const read = files.read(file);
  if (!read.ok) return undefined;
  const { entries, problems } = jsonFormat.read(read.text, ".");
  const texts = entries.filter((entry) => entry.kind === "text").length;
  return problems.length > 0 || texts * 5 < entries.length * 4
    ? undefined
    : entries.map((entry) => entry.key);
}

/** The locale in which the largest book has the most keys; English where it has nearly as many, since extra keys gather in translations. */
function chooseSource(book: FoundBook | undefined, grounds: string[]): string {
  const totals = book?.locales ?? new Map<string, number>();
  const most = Math.max(...totals.values());
  const rank = (locale: string) => (locale === "en" ? 0 : locale.startsWith("en-") ? 1 : 2);
  const [best] = [...totals]
    .filter(([, count]) => count >= most * 0.9)
    .sort(([a, x], [b, y]) => rank(a) - rank(b) || y - x || (a < b ? -1 : 1));
  if (!best) return "en";
  grounds.push(
    `“${best[0]}” is taken as the source locale, with ${best[1]} keys. Change “source” if the texts are written in another.`,
  );
  return best[0];
}

/** Leaves out groups of files without the source locale: they cannot be a book, but may be on their way to or from translators. */
function withSource(books: readonly FoundBook[], source: string, grounds: string[]): FoundBook[] {
  return books.filter((book) => {
    const has = book.locales.has(source);
    if (!has) grounds.push(`${book.files} has no “${source}” and is left out.`);
    return has;
  });
}

function describeBook(
  book: FoundBook,
  name: string,
  code: readonly SourceFile[],
  several: boolean,
  grounds: string[],
) {
  grounds.push(
    `${book.files} holds ${book.keys.size} keys in ${[...book.locales.keys()].sort().join(", ")}.`,
  );
  const found = findLookups(code, book.keys);
  const users = several
    ? code.filter((source) => [...source.mentions].some((mention) => book.keys.has(mention)))
    : code;
  const lookups = [
    ...found.calls.map(({ name: call }) => ({ call })),
    ...found.components.map(({ name: component, prop: key }) => ({ component, key })),
  ];
  for (const { name: call, count } of found.calls)
    grounds.push(`${call}(…) asks for its keys ${timesIn(count)}.`);
  for (const { name: component, prop, count } of found.components)
    grounds.push(`<${component} ${prop}=…> asks for its keys ${timesIn(count)}.`);
  if (lookups.length === 0) grounds.push("No lookup of its keys was found in the code; t(…) is proposed.");
  const main = found.calls[0];
  return {
    name,
    code: codeGlobs(users, grounds),
    files: book.files,
    ...(book.spelling === "underscore" && { spelling: book.spelling }),
    lookups: lookups.length > 0 ? lookups : [{ call: "t" }],
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

function readAllCode(files: Files): SourceFile[] {
  const patterns = scriptEndings.map((ending) => `**/*${ending}`);
  return files.list({ patterns, ignore: otherCode, respectIgnoreFiles: true }).flatMap((file) => {
    const read = files.read(file);
    return read.ok ? [readScript(file, read.text, read.bom, noShapes)] : [];
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
      : "No JavaScript or TypeScript was found; set “code” to where it is.",
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
    const wanted = (folders.find((part) => !part.endsWith(".json")) ?? "app").replace(/[^\w-]/g, "-");
    let name = wanted;
    for (let number = 2; used.has(name); number++) name = `${wanted}-${number}`;
    used.add(name);
    return name;
  });
}
