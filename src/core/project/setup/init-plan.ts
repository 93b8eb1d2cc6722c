import { posix } from "node:path";
import * as v from "valibot";
import { loadBook, type Book } from "../../catalog/book.js";
import { configFileNames } from "../../config/load.js";
import { configSchema } from "../../config/schema.js";
import type { Files } from "../../files/files.js";
import { makePlan, type FileChange, type Plan } from "../../plan/plan.js";
import type { SourceFile } from "../../source/model.js";
import { isRenderedScript } from "../../source/dialects/dialect.js";
import { isCommonModule } from "../../source/readers/script/module-kind.js";
import { isScript } from "../../source/readers/script/endings.js";
import { lazily } from "../../text/lazy.js";
import { compiledTest } from "../../survey/left-out.js";
import { ecosystemOf } from "../ecosystems/index.js";
import { declaredLookups } from "./declared-texts.js";
import type { FoundBook } from "./found-book.js";
import { unreadTemplates } from "../../source/unread-code.js";
import { findBooks } from "./found-books.js";
import { lookupModule } from "./lookup-module.js";
import { findDeclared } from "./found-declared.js";
import {
  pageEmission,
  pageLookups,
  pageScript,
  pageScriptFor,
  pagesWithScript,
  type PageScript,
} from "./page-script.js";
import { findOwnHints } from "./own-hints.js";
import { chooseSource, hasTextsAsKeys } from "./source-language.js";
import { namedLookups, textLookups } from "./text-lookups.js";
import { describeBook, newBook } from "./described-book.js";
import { type Seen, type StudiedBook, readAllCode, readableCode, studyOf } from "./study.js";

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
  /** Whether a module that looks texts up can be written: the project is in JavaScript or TypeScript, and has no lookups. */
  readonly takesRuntime: boolean;
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
  /** Whether a module that looks texts up is written as well, for a project that has none. */
  readonly runtime?: boolean;
}

export type InitResult =
  { readonly ok: true; readonly plan: InitPlan } | { readonly ok: false; readonly file: string };

/** Where the JSON Schema of the configuration is in a project that has this package installed. */
const installedSchema = "node_modules/fond-ledger/schema/config.json";

/** Looks at a project and plans its configuration. Refuses where one already exists. */
export async function planInit(files: Files): Promise<InitResult> {
  const there = configFileNames.find((name) => files.read(name).ok);
  if (there) return { ok: false, file: there };
  const grounds: string[] = [];
  const readable = readableCode(files);
  const isCompiled = compiledTest(readable);
  const code = await readAllCode(
    files,
    readable.filter((file) => !isCompiled(file)),
  );
  const books = findBooks(files, code, isCompiled, grounds);
  const templates = unreadTemplates(files);
  if (templates.length > 0)
    grounds.push(
      `Templates that are not read: ${templates.map(([ending, count]) => `${count} ${count === 1 ? "file" : "files"} with ${ending}`).join(", ")}. Texts in them are not found.`,
    );
  const ecosystem = ecosystemOf(files);
  const types = lazily(() =>
    files.list({ patterns: ["**/*.d.ts"], ignore: ["**/node_modules/**"], respectIgnoreFiles: true }),
  );
  const schema = files.read(installedSchema).ok ? `./${installedSchema}` : undefined;
  return {
    ok: true,
    plan: planWith(
      {
        files,
        types,
        books,
        code,
        grounds,
        schema,
        ecosystem,
        studied: studyOf(code, books),
        declared: lazily(() => declaredLookups(code)),
        byText: lazily(() => textLookups(code)),
        byName: lazily(() => namedLookups(code)),
      },
      {},
    ),
  };
}

function planWith(seen: Seen, answers: InitAnswers): InitPlan {
  const { code, schema } = seen;
  const grounds = [...seen.grounds];
  const open: InitQuestion[] = [];
  const chosen = answers.source === undefined ? chooseSource(seen.books[0], code, grounds) : undefined;
  if (chosen?.isSure === false) open.push("source");
  const source = answers.source ?? chosen?.locale ?? "en";
  const books = withSource(seen.books, source, grounds);
  const targets = [
    ...new Set([...books.flatMap((book) => [...book.locales.keys()]), ...(answers.targets ?? [])]),
  ]
    .filter((locale) => locale !== source)
    .sort();
  if (targets.length === 0 && !answers.targets) open.push("targets");
  const names = bookNames(books);
  const module = moduleFor(seen, books.map(seen.studied));
  const isCommon = module?.endsWith(".js") === true && takesByRequire(seen);
  const page =
    module === undefined && books.every((book) => seen.studied(book).lookups.uses.length === 0)
      ? pageScriptFor(code)
      : undefined;
  const wanted =
    answers.runtime && module !== undefined
      ? {
          ...answers,
          lookup: 't("{key}"{args})',
          import: isCommon
            ? `const { t } = require("{to:${module}}");`
            : `import { t } from "{to:${importable(module, code)}}";`,
        }
      : answers;
  const written: {
    readonly files: string;
    readonly code: readonly string[];
    readonly emit?: object;
    readonly hints?: object;
    readonly declared?: string;
    readonly lookups?: readonly object[];
    readonly only?: object;
  }[] = books.map((book, index) =>
    describeBook(book, names[index] ?? "app", { ...seen, source, grounds }, wanted),
  );
  for (const [index, book] of books.entries()) {
    const own = written[index];
    const has = targets.filter((locale) => book.locales.has(locale));
    if (!own || books.length === 1 || has.length === 0 || has.length === targets.length) continue;
    // What other books are translated into is not asked of this one.
    written[index] = { ...own, only: { "**": has } };
    grounds.push(`Of the target locales, ${own.files} is asked for those that it has ("only").`);
  }
  if (books.length === 0)
    written.push(newBook(seen, grounds, wanted, module !== undefined || page !== undefined));
  const [only] = written;
  const takesPage = answers.runtime && page !== undefined && only !== undefined && books.length === 0;
  if (takesPage)
    written[0] = { ...only, code: [...only.code, page.file], lookups: pageLookups, emit: pageEmission };
  if (code.length > 0 && wanted.lookup === undefined && written.every(({ emit }) => emit === undefined))
    open.push("lookup");
  const types = seen.types();
  for (const [index, book] of openedBooks(seen.files, { source, targets, books: written }).entries()) {
    const own = written[index];
    if (!own) continue;
    const declared = findDeclared(seen.files, book, types);
    const hints = findOwnHints(book);
    written[index] = { ...own, ...(declared !== undefined && { declared }), ...(hints && { hints }) };
    if (declared !== undefined)
      grounds.push(`${declared.replace(/^\.\//, "")} declares the texts of ${own.files}.`);
    const said = [hints?.source, hints?.open].flatMap((one) => (one === undefined ? [] : [`"${one}"`]));
    if (said.length > 0)
      grounds.push(
        `Comments for translators in ${own.files}: ${said.join(" and ")}. Reconcile keeps them up.`,
      );
  }
  const config = { ...(schema !== undefined && { $schema: schema }), source, targets, books: written };
  const files = written[0]?.files ?? "";
  const added: FileChange[] =
    answers.runtime && module !== undefined
      ? [...moduleFiles({ file: module, isCommon }, files, source, targets)]
      : [];
  if (takesPage) added.push(...pageFiles(page, files, source, targets));
  const rendered = answers.runtime && module !== undefined ? renderedEndings(code) : [];
  if (rendered.length > 0)
    grounds.push(
      `Templates in ${rendered.map((ending) => `*${ending}`).join(" and ")} know only what they are given: give them "t" where the program renders them, and their texts can move as well.`,
    );
  const changes: FileChange[] = [
    { file: configFileNames[0], before: undefined, after: compactJson(config) },
    // Catalogs that are there stay as they are.
    ...added.filter(({ file, before }) => before !== undefined || !seen.files.read(file).ok),
  ];
  const plan = makePlan(changes, { books: written.length, locales: targets.length + 1 });
  const hasFound = seen.books.length + code.length > 0;
  const takesRuntime = module !== undefined || (page !== undefined && books.length === 0);
  return { ...plan, grounds, open, source, hasFound, takesRuntime, answer: (more) => planWith(seen, more) };
}

/** The books of a proposed configuration, with their catalogs. */
function openedBooks(files: Files, proposed: object): readonly Book[] {
  const checked = v.safeParse(configSchema, proposed);
  return checked.success ? checked.output.books.map((book) => loadBook(files, checked.output, book)) : [];
}

/** The endings of templates of script that a program renders. */
function renderedEndings(code: readonly SourceFile[]): readonly string[] {
  const endings = code.flatMap(({ file, dialect }) =>
    isRenderedScript(dialect) && dialect?.shown ? [posix.extname(file)] : [],
  );
  return [...new Set(endings)].sort();
}

/** A module's path as the project's scripts import others: with an ending where they have one. */
function importable(module: string, code: readonly SourceFile[]): string {
  if (!module.endsWith(".ts")) return module;
  const hasEndings = code.some(({ text }) =>
    /^import\s[^;\n]{0,300}from\s+["']\.{1,2}\/[^"'\n]{1,200}\.js["']/m.test(text),
  );
  return module.replace(/\.ts$/, hasEndings ? ".js" : "");
}

/** What the module may be called: the first that no file has. */
const moduleNames = ["texts", "page-texts", "lookup-texts"] as const;

/** Where a module that looks texts up goes; undefined where the project has lookups, or no scripts that could use it. */
function moduleFor(
  { files, books: found, code, declared, byText, byName }: Seen,
  books: readonly StudiedBook[],
): string | undefined {
  const scripts = code.filter(({ file, dialect }) => isScript(file) || dialect?.isComponent);
  if (scripts.length === 0 || books.some(({ lookups }) => lookups.uses.length > 0)) return undefined;
  if (declared().length + byText().length + byName().length > 0) return undefined;
  const isTyped = scripts.some(({ file }) => /\.[cm]?tsx?$/.test(file));
  const folder = scripts.some(({ file }) => file.startsWith("src/")) ? "src/" : "";
  // The module takes its texts in as JSON, and the place of no other file.
  if (found.some((book) => !book.files.endsWith(".json"))) return undefined;
  return moduleNames
    .map((name) => `${folder}${name}.${isTyped ? "ts" : "js"}`)
    .find((file) => !files.read(file).ok);
}

/** Whether most scripts of a project take their modules in by `require()`, and its package does not say otherwise (CommonJS). */
function takesByRequire({ files, code }: Seen): boolean {
  const settings = files.read("package.json");
  if (settings.ok && /"type"\s{0,9}:\s{0,9}"module"/.test(settings.text)) return false;
  let common = 0;
  for (const { file, text } of code)
    if (isScript(file) && !/\.[cm]?tsx?$/.test(file)) {
      if (/^\s{0,40}(?:import\s[^(]|export\s)/m.test(text)) common--;
      else if (isCommonModule(text)) common++;
    }
  return common > 0;
}

/** The script of plain pages, the pages that load it, and empty catalogs. */
function pageFiles(
  page: PageScript,
  files: string,
  source: string,
  targets: readonly string[],
): readonly FileChange[] {
  const locales = [source, ...targets];
  const after = pageScript(source, locales, posix.relative(posix.dirname(page.file), files));
  return [
    { file: page.file, before: undefined, after },
    ...pagesWithScript(page),
    ...locales.map((locale) => ({
      file: files.replace("{locale}", locale),
      before: undefined,
      after: "{}\n",
    })),
  ];
}

/** The module, and empty catalogs for it to import. */
function moduleFiles(
  { file, isCommon }: { readonly file: string; readonly isCommon: boolean },
  files: string,
  source: string,
  targets: readonly string[],
): readonly FileChange[] {
  const locales = [source, ...targets];
  const pathOf = (locale: string) => files.replace("{locale}", locale);
  const catalogs = locales.map((locale) => {
    const path = posix.relative(posix.dirname(file), pathOf(locale));
    return { locale, path: path.startsWith(".") ? path : `./${path}` };
  });
  const after = lookupModule({ isTyped: file.endsWith(".ts"), isCommon, source, catalogs });
  return [
    { file, before: undefined, after },
    ...locales.map((locale) => ({ file: pathOf(locale), before: undefined, after: "{}\n" })),
  ];
}

/** JSON with two spaces of indent, lists and objects of plain values on one line where they fit. */
function compactJson(value: object): string {
  return laidOut(value, "") + "\n";
}

/** JSON in which a list or an object of plain values has a line, where that is not too long. */
function laidOut(value: unknown, indent: string): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value);
  const inner = `${indent}  `;
  const [open, close] = Array.isArray(value) ? ["[", "]"] : ["{", "}"];
  const parts = Object.entries(value)
    .filter(([, part]) => part !== undefined)
    .map(([name, part]) => (open === "[" ? "" : `${JSON.stringify(name)}: `) + laidOut(part, inner));
  const line = parts.join(", ");
  const isFlat = Object.values(value).every((part) => typeof part !== "object" || part === null);
  if (parts.length === 0 || (isFlat && line.length <= 90))
    return open === "{" && line !== "" ? `{ ${line} }` : open + line + close;
  return `${open}\n${parts.map((part) => inner + part).join(",\n")}\n${indent}${close}`;
}

/** Leaves out groups of files without the source locale: they cannot be a book, but may be on their way to or from translators. */
function withSource(books: readonly FoundBook[], source: string, grounds: string[]): FoundBook[] {
  return books.filter((book) => {
    const has = book.locales.has(source) || (source === "en" && hasTextsAsKeys(book));
    if (!has) grounds.push(`${book.files} has no "${source}" and is skipped.`);
    return has;
  });
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
      folders.find((part) => !/\.(?:json5?|jsonc|ya?ml|properties|[cm]?[jt]s|php)$/.test(part)) ?? "app"
    ).replace(/[^\w-]/g, "-");
    let name = wanted;
    for (let number = 2; used.has(name); number++) name = `${wanted}-${number}`;
    used.add(name);
    return name;
  });
}
