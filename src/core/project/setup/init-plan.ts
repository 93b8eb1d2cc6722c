import { posix } from "node:path";
import * as v from "valibot";
import { loadBook, type Book } from "../../catalog/book.js";
import { configFileNames } from "../../config/load.js";
import { configSchema } from "../../config/schema.js";
import type { Files } from "../../files/files.js";
import { makePlan, type FileChange, type Plan } from "../../plan/plan.js";
import { noShapes } from "../../source/book-code.js";
import { fixedText, readableText, type SourceFile } from "../../source/model.js";
import { unreadCode } from "../../source/unread-code.js";
import { isReadable, prepareReaders, readSource } from "../../source/read.js";
import { isScript } from "../../source/readers/script/endings.js";
import { lazily } from "../../text/lazy.js";
import {
  compiledTest,
  leftOutByContent,
  leftOutByName,
  libraryTest,
  type LeftOut,
} from "../../survey/left-out.js";
import { ecosystemOf, type Ecosystem } from "../ecosystems/index.js";
import { declaredLookups, textsBeside } from "./declared-texts.js";
import { emissionOf } from "./emission.js";
import { findBooks, keyCount, withoutFrame, type FoundBook } from "./found-books.js";
import { languageNamed, languageOf } from "../../source/languages/index.js";
import { heldAgainst } from "./held-against.js";
import { KeyIndex } from "./key-index.js";
import { lookupModule } from "./lookup-module.js";
import { findLookups, type FoundLookups } from "./lookup-evidence.js";
import {
  choosePlurals,
  chooseSyntax,
  hasOlderPlurals,
  numberedForms,
  knownForms,
  separatorOfForms,
} from "./message-guess.js";
import { namingOf } from "./naming-style.js";
import { countAnnotationKeys } from "./annotation-keys.js";
import { fillingOf, isOfRuby } from "./filled-texts.js";
import { bareMarks, classMarks, findMarks, markInWords } from "./found-marks.js";
import { most, type LookupUse } from "./lookup-use.js";
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
import { chooseSource, hasTextsAsKeys, keysOf } from "./source-language.js";
import { namedLookups, otherCatalogs, textLookups } from "./text-lookups.js";

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

/** Everything that is known of a project before anybody answers a question. */
interface Seen {
  readonly files: Files;
  /** The project's files of types, listed when they are first asked for. */
  readonly types: () => readonly string[];
  readonly books: readonly FoundBook[];
  readonly code: readonly SourceFile[];
  /** Sentences on what was met on the way. */
  readonly grounds: readonly string[];
  /** Where the JSON Schema of the configuration is, if this package is installed in the project. */
  readonly schema: string | undefined;
  readonly ecosystem: Ecosystem | undefined;
  /** What the code shows of a book, worked out once: an answer changes none of it. */
  readonly studied: (book: FoundBook) => StudiedBook;
  /** Lookups that bring their texts along. */
  readonly declared: () => readonly LookupUse[];
  /** Lookups of texts by the texts themselves. */
  readonly byText: () => readonly LookupUse[];
  /** Calls that are named as lookups are, and ask for keys that no catalog has. */
  readonly byName: () => readonly LookupUse[];
}

/** A book with the code that uses it, and how. */
interface StudiedBook {
  /** The book as it was found, or with the names of its files left out of its keys, where code leaves them out. */
  readonly book: FoundBook;
  readonly keys: KeyIndex;
  readonly users: readonly SourceFile[];
  readonly lookups: FoundLookups;
}

function studyOf(code: readonly SourceFile[], books: readonly FoundBook[]): Seen["studied"] {
  const known = new Map<FoundBook, StudiedBook>();
  const several = books.length > 1;
  const studyAs = (book: FoundBook): StudiedBook => {
    const keys = new KeyIndex(book.keys);
    const users = several ? code.filter((source) => hasKeyOf(source, keys)) : code;
    const held = findLookups(users, keys, book.constant);
    // Where nothing is translated yet, code may bring its texts along.
    const lookups = keys.size === 0 ? { ...held, uses: declaredLookups(users) } : held;
    return { book, keys, users, lookups };
  };
  const study = (book: FoundBook) => {
    const there = known.get(book);
    if (there) return there;
    const whole = studyAs(book);
    const inside = withoutFrame(book);
    const bare = inside && studyAs(inside);
    const isBare = bare && hitsOf(bare.lookups) > 3 * hitsOf(whole.lookups);
    const studied = withoutNames(isBare ? bare : whole);
    known.set(book, studied);
    return studied;
  };
  const asked = lazily(() => new Map(books.map((book) => [book, filesThatAsk(study(book))])));
  return (book) => {
    const studied = study(book);
    const own = asked().get(book);
    // A file that has a word of this book's keys, and asks another book for its texts, is that one's.
    const isOthers = ({ file }: SourceFile) =>
      own?.has(file) !== true && [...asked().values()].some((files) => files.has(file));
    const asking = [...asked()].filter(([, files]) => files.size > 0);
    const [only] = asking;
    if (!several || asking.length !== 1 || !only)
      return { ...studied, users: studied.users.filter((source) => !isOthers(source)) };
    // Where one book alone is asked for its texts, all code is its own but for what stands beside another book.
    const isOf = (other: FoundBook) => {
      const folder = folderOf(other, only[1]);
      return ({ file }: SourceFile) => file.startsWith(folder);
    };
    if (only[0] !== book) return { ...studied, users: studied.users.filter(isOf(book)) };
    const others = books.filter((one) => one !== book).map(isOf);
    return { ...studied, users: code.filter((source) => !others.some((has) => has(source))) };
  };
}

/** The folder whose code a book's catalogs stand beside, with a slash behind it: none in which another book is asked for its texts. */
function folderOf({ files }: FoundBook, askedElsewhere: ReadonlySet<string>): string {
  const place = posix.dirname(files.split("{", 1)[0] + "x");
  const wide = `${posix.dirname(place)}/`;
  return wide === "./" || [...askedElsewhere].some((file) => file.startsWith(wide)) ? `${place}/` : wide;
}

/** Whether a key stands in a file: as a string, or between the marks of a template. */
function hasKeyOf({ mentions, literals, dialect }: SourceFile, keys: KeyIndex): boolean {
  const isKey = (text: string) => keys.match(text) !== undefined;
  return (
    [...mentions].some(isKey) ||
    (dialect !== undefined &&
      literals.some(({ form, pieces }) => form === "content" && isKey(fixedText(pieces).trim())))
  );
}

/** So many keys that code writes without the name of their file are no chance. */
const leastBare = 20;

/**
 * A book whose keys code writes without the names of their files, where hardly a key is in two of them: files of several names in
 * the folder of each locale that a program reads as one. Others stay as they are.
 */
function withoutNames(studied: StudiedBook): StudiedBook {
  const { book, users, lookups } = studied;
  if (!book.files.includes("{namespace}") || !studied.keys.hasNamespaces) return studied;
  const all = [...book.keys.values()];
  const union = new Set(all.flatMap((keys) => [...keys]));
  const twice = all.reduce((sum, { size }) => sum + size, 0) - union.size;
  if (all.length < 2 || twice * 50 > union.size) return studied;
  const named: FoundBook = {
    ...book,
    files: book.files.replace("{namespace}", "{name}"),
    keys: new Map([["", union]]),
  };
  const keys = new KeyIndex(named.keys);
  const bare = findLookups(users, keys, book.constant);
  const asked = lookups.uses.flatMap(({ samples }) => samples);
  const withName = asked.filter(
    ({ literal }) => studied.keys.match(fixedText(literal.pieces))?.namespace !== undefined,
  ).length;
  const hits = hitsOf(bare);
  if (hits < leastBare || lookups.home !== undefined || hits <= withName * 3) return studied;
  return { ...studied, book: named, keys, lookups: { ...bare, home: mostAsked(book, bare) } };
}

/** How often the lookups that were found take a key. */
function hitsOf({ uses }: FoundLookups): number {
  return uses.reduce((sum, one) => sum + one.hits, 0);
}

/** The name of the file that most of the keys are in that code asks for. */
function mostAsked({ keys }: FoundBook, { uses }: FoundLookups): string | undefined {
  const counts = new Map<string, number>();
  for (const { samples } of uses)
    for (const { literal } of samples)
      for (const [name, own] of keys)
        if (own.has(fixedText(literal.pieces))) counts.set(name, (counts.get(name) ?? 0) + 1);
  return most(counts);
}

/** The files in which a lookup of a book has a key of its. */
function filesThatAsk({ lookups }: StudiedBook): ReadonlySet<string> {
  return new Set(lookups.uses.flatMap(({ files }) => [...files]));
}

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
  const page =
    module === undefined && books.every((book) => seen.studied(book).lookups.uses.length === 0)
      ? pageScriptFor(code)
      : undefined;
  const wanted =
    answers.runtime && module !== undefined
      ? {
          ...answers,
          lookup: 't("{key}"{args})',
          import: `import { t } from "{to:${importable(module, code)}}";`,
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
  const added = answers.runtime && module !== undefined ? moduleFiles(module, files, source, targets) : [];
  const changes: FileChange[] = [
    { file: configFileNames[0], before: undefined, after: compactJson(config) },
    ...added,
  ];
  if (takesPage) changes.push(...pageFiles(page, files, source, targets));
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

/** A module's path as the project's scripts import others: with an ending where they have one. */
function importable(module: string, code: readonly SourceFile[]): string {
  if (!module.endsWith(".ts")) return module;
  const hasEndings = code.some(({ text }) =>
    /^import\s[^;\n]{0,300}from\s+["']\.{1,2}\/[^"'\n]{1,200}\.js["']/m.test(text),
  );
  return module.replace(/\.ts$/, hasEndings ? ".js" : "");
}

/** Where a module that looks texts up goes; undefined where the project has lookups, or no scripts that could use it. */
function moduleFor(
  { code, declared, byText, byName }: Pick<Seen, "code" | "declared" | "byText" | "byName">,
  books: readonly StudiedBook[],
): string | undefined {
  const scripts = code.filter(({ file, dialect }) => isScript(file) || dialect?.isComponent);
  if (scripts.length === 0 || books.some(({ lookups }) => lookups.uses.length > 0)) return undefined;
  if (declared().length + byText().length + byName().length > 0) return undefined;
  const isTyped = scripts.some(({ file }) => /\.[cm]?tsx?$/.test(file));
  const folder = scripts.some(({ file }) => file.startsWith("src/")) ? "src/" : "";
  return `${folder}texts.${isTyped ? "ts" : "js"}`;
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
  file: string,
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
  const after = lookupModule({ isTyped: file.endsWith(".ts"), source, catalogs });
  return [
    { file, before: undefined, after },
    ...locales.map((locale) => ({ file: pathOf(locale), before: undefined, after: "{}\n" })),
  ];
}

/** The book of a project without catalogs: what projects of its kind have. */
function newBook(
  { files: all, code, ecosystem, declared: bringsTexts, byText, byName }: Seen,
  grounds: string[],
  answers: InitAnswers,
  takesModule: boolean,
) {
  const { book, shown } = ecosystem ?? {};
  const files = book?.files ?? "locales/{locale}.json";
  if (shown !== undefined) grounds.push(`${shown}; what such projects use is proposed.`);
  grounds.push(
    `No catalogs found; new ones are proposed in ${posix.dirname(files)}/.${answers.targets ? "" : ' Add the target locales to "targets".'}`,
  );
  const declared = bringsTexts();
  for (const { shown, hits } of declared) grounds.push(`${shown} brings its texts along ${timesIn(hits)}.`);
  // Who names a lookup wants that one.
  const found = declared.length > 0 || answers.lookup !== undefined ? [] : byText();
  for (const { shown, hits } of found) grounds.push(`${shown} looks a text up by itself ${timesIn(hits)}.`);
  const asks = declared.length + found.length > 0 || answers.lookup !== undefined ? [] : byName();
  for (const { shown, hits } of asks)
    grounds.push(
      `${shown} is asked for keys ${timesIn(hits)}, and their catalogs are not here: name them in "files" if they can be.`,
    );
  const marks = [...(found.length > 0 ? bareMarks(code) : []), ...classMarks(code, found)];
  for (const mark of marks)
    grounds.push(`${markInWords(mark)} marks the texts of templates, which are looked up by themselves.`);
  const others = otherCatalogs(all);
  if (others !== undefined) grounds.push(others);
  const texts = [
    ...found.flatMap(({ samples }) => samples.map(({ literal }) => readableText(literal.pieces))),
    ...declared.flatMap(textsBeside),
  ];
  const syntax = texts.length > 0 ? chooseSyntax(texts, grounds, fillingOf(found)) : "icu";
  const asked = [...declared, ...asks, ...found.map((use) => ({ ...use, textSyntax: syntax }))];
  const own = answers.lookup === undefined && (book?.emit !== undefined || asked.length > 0);
  if (answers.lookup === undefined && !own)
    grounds.push(
      takesModule
        ? 'Nothing looks texts up yet: `fond init --runtime` also writes a small module that does. With a lookup of your own, set "emit" in the book.'
        : 'Before the first extract, set "emit" in the book: the call to write into the code, and its import.',
    );
  const emit = emissionOf(asked, code);
  return {
    name: "app",
    code: codeGlobs(code, grounds),
    files,
    ...book,
    ...(asked.length > 0 && { lookups: asked.map(({ lookup }) => lookup), ...(emit && { emit }) }),
    ...(syntax !== "icu" && { syntax }),
    ...(marks.length > 0 && { marked: marks }),
    ...(found.length > 0 && { naming: { pattern: "{text}", shape: "flat" } }),
    ...(!own && lookupOf(answers)),
  };
}

/** The lookup that somebody wants; that of most programs by default. */
function lookupOf({ lookup, import: line }: InitAnswers) {
  const call = /^[\w$.]+(?=\()/.exec(lookup ?? "")?.[0];
  return {
    lookups: [{ call: call ?? "t" }],
    ...(lookup !== undefined && { emit: { call: lookup, ...(line !== undefined && { import: line }) } }),
  };
}

/** What a new book goes by besides its own catalogs. */
interface Surroundings extends Seen {
  readonly source: string;
  readonly grounds: string[];
}

function describeBook(given: FoundBook, name: string, around: Surroundings, answers: InitAnswers) {
  const { grounds, source } = around;
  const { book: found, keys, users, lookups } = around.studied(given);
  const locales = [...found.locales.keys()].sort();
  grounds.push(`${found.files} has ${keysOf(keyCount(found))} in ${locales.join(", ")}.`);
  if (found.frame !== undefined)
    grounds.push(`All of them stand in "${found.frame}", which code leaves out of its keys.`);
  for (const { shown, hits, misses } of lookups.uses)
    grounds.push(
      `${shown} takes its keys ${timesIn(hits)}${misses > 0 ? `, and other strings ${timesIn(misses)}` : ""}.`,
    );
  const annotated = countAnnotationKeys(users, keys);
  if (lookups.uses.length + annotated === 0 && answers.lookup === undefined)
    grounds.push("No lookup of its keys found in the code; t(…) is proposed.");
  const relative = findRelative(users, keys, grounds);
  const inRuby = isOfRuby(lookups.uses);
  const syntax = chooseSyntax(
    found.texts,
    grounds,
    fillingOf(lookups.uses),
    inRuby ? "percent-brace" : undefined,
  );
  const allKeys = new Set([...found.keys.values()].flatMap((set) => [...set]));
  const plurals = choosePlurals(
    {
      keys: allKeys,
      texts: found.texts,
      counted: found.counted,
    },
    syntax,
    grounds,
  );
  const between = plurals === "bar" ? separatorOfForms(found.texts) : undefined;
  const known = plurals === "branches" || plurals === "suffix" ? knownForms(found.forms) : undefined;
  const forms = {
    ...(plurals === "suffix" && hasOlderPlurals(allKeys) && { second: "plural", ...numberedNames(found) }),
    ...(between !== undefined && { separator: between }),
    ...(known && { known }),
  };
  if (known)
    grounds.push(
      `All locales have the forms ${known.join(", ")}, and no other: the program is taken to choose them by the number itself ("forms.known").`,
    );
  const emit = emissionOf(lookups.uses, users);
  const naming = namingOf(
    found,
    source,
    lookups,
    around.ecosystem?.letterCase ?? (inRuby ? "snake" : undefined),
  );
  const marks = lookups.uses.some(isMarkUse)
    ? []
    : [...findMarks(users, keys), ...(naming?.pattern === "{text}" ? classMarks(users, lookups.uses) : [])];
  for (const mark of marks)
    grounds.push(
      `${markInWords(mark)} marks the texts of templates; \`fond extract --collect\` takes them into the catalog.`,
    );
  if (annotated > 0)
    grounds.push(`Annotations name its keys in braces ${timesIn(annotated)}; extraction writes them so.`);
  const inAnnotations = annotated > 0 ? { annotation: "{{key}}" } : undefined;
  const asked = [
    ...lookups.uses.map(({ lookup }) => lookup),
    ...(inAnnotations ? [{ binding: "{KEY}" }] : []),
  ];
  const written = emit || inAnnotations ? { ...emit, ...inAnnotations } : undefined;
  const book = {
    name,
    code: codeGlobs(users, grounds),
    files: found.files,
    ...(found.format && { format: found.format }),
    ...(found.table && { table: found.table }),
    ...(found.constant !== undefined && { constant: found.constant }),
    ...(found.spelling !== "hyphen" && { spelling: found.spelling }),
    ...(syntax !== "icu" && { syntax }),
    ...(plurals !== "inline" && { plurals }),
    ...(Object.keys(forms).length > 0 && { forms }),
    ...(found.inside !== "leaf" && rootOf(found)),
    ...(found.inside === "leaf" && { leaf: "{locale}" }),
    ...(asked.length > 0 ? { lookups: asked, ...(written && { emit: written }) } : lookupOf(answers)),
    ...(relative && { relative }),
    ...(marks.length > 0 && { marked: marks }),
    ...(naming && { naming }),
  };
  if (asked.length === 0 || keys.size === 0) return book;
  const assumed = sayHeld(book, source, users, found, around);
  return assumed.length > 0 ? { ...book, assumed } : book;
}

/** What stands around all entries of a book's files. */
function rootOf({ inside, frame }: FoundBook): { readonly root?: string } {
  const around = [...(inside === "root" ? ["{locale}"] : []), ...(frame === undefined ? [] : [frame])];
  return around.length > 0 ? { root: around.join(".") } : {};
}

/** Whether a lookup is what stands in templates for a text. */
function isMarkUse({ lookup }: LookupUse): boolean {
  return "attribute" in lookup || "mark" in lookup;
}

/** The `names` of forms that are numbered. */
function numberedNames(found: FoundBook): { readonly names?: object } {
  const names = numberedForms(found.numbered);
  return names ? { names } : {};
}

/** What the proposed lookups ask for, held against the catalogs; gives the groups of keys that a framework asks for by itself. */
function sayHeld(
  book: object,
  source: string,
  code: readonly SourceFile[],
  found: FoundBook,
  { grounds, files }: Pick<Surroundings, "grounds" | "files">,
): readonly string[] {
  const held = heldAgainst(book, source, code, found);
  if (!held) return [];
  const { found: asked, unknown, example, keys, unused } = held;
  const rest =
    unknown === 0 || !example
      ? ""
      : `, ${unknown} ${unknown === 1 ? "does" : "do"} not ("${example.key}" in ${example.file})`;
  grounds.push(
    `Held against the catalogs: ${asked} ${asked === 1 ? "lookup finds its key" : "lookups find their keys"}${rest}; ${unused.size} of ${keys} keys ${unused.size === 1 ? "is" : "are"} not looked up.`,
  );
  const elsewhere = unused.size === 0 ? [] : unreadCode(files).endingsWith(unused);
  if (elsewhere.length > 0)
    grounds.push(
      `Some of those stand in code of languages that are not read: ${elsewhere.map(([ending, count]) => `${count} ${count === 1 ? "file" : "files"} with ${ending}`).join(", ")}. They count as used, and texts in such files are not found.`,
    );
  const spoken = new Set(
    code.map(({ file, dialect }) => languageNamed(dialect?.language ?? languageOf(file))),
  );
  const groups = new Set(
    [...unused].flatMap((key) => {
      const group = key.split(/[.:]/, 1)[0] ?? key;
      return group !== key && [...spoken].some((one) => one?.frameworkKeys?.test(group))
        ? [`${group}.**`]
        : [];
    }),
  );
  if (groups.size > 0)
    grounds.push(
      `What is in ${[...groups].map((group) => `"${group}"`).join(", ")} counts as used ("assumed"): frameworks ask for such keys by themselves.`,
    );
  return [...groups].sort();
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

function timesIn(count: number): string {
  return count === 1 ? "once" : `${count} times`;
}

/** Leaves out groups of files without the source locale: they cannot be a book, but may be on their way to or from translators. */
function withSource(books: readonly FoundBook[], source: string, grounds: string[]): FoundBook[] {
  return books.filter((book) => {
    const has = book.locales.has(source) || (source === "en" && hasTextsAsKeys(book));
    if (!has) grounds.push(`${book.files} has no "${source}" and is skipped.`);
    return has;
  });
}

/** What keys with a leading dot stand for, where some are asked for and stand for known keys. */
function findRelative(
  code: readonly SourceFile[],
  keys: KeyIndex,
  grounds: string[],
): { root: string; pattern: string } | undefined {
  for (const { file, literals } of code) {
    const folders = posix.dirname(file).split("/");
    const name = (posix.basename(file).split(".", 1)[0] ?? "").replace(/^_/, "");
    for (const { context, pieces } of literals) {
      const text = readableText(pieces);
      if (context.role !== "argument" || context.index !== 0 || !/^\.[\w.]+$/.test(text)) continue;
      for (let start = 0; start <= folders.length; start++) {
        if (!keys.match([...folders.slice(start), name].join(".") + text)) continue;
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

/** The files of code in which people may write text, by their names. */
function readableCode(files: Files): readonly string[] {
  return files
    .list({ patterns: ["**/*"], ignore: otherCode, respectIgnoreFiles: true })
    .filter((file) => isReadable(file) && leftOutByName(file) === undefined);
}

async function readAllCode(files: Files, readable: readonly string[]): Promise<SourceFile[]> {
  const isOfLibrary = libraryTest(files, readable);
  const listed = readable.filter((file) => !isOfLibrary(file));
  await prepareReaders(listed, files);
  return listed.flatMap((file) => {
    const read = files.read(file);
    // Others wrote what is built, and call functions by names of their own.
    if (!read.ok || isBuilt(leftOutByContent(file, read.text))) return [];
    return [readSource(file, read.text, read.bom, noShapes)];
  });
}

function isBuilt(kind: LeftOut | undefined): boolean {
  return kind === "minified" || kind === "generated";
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
      folders.find((part) => !/\.(?:json5?|jsonc|ya?ml|properties|[cm]?[jt]s|php)$/.test(part)) ?? "app"
    ).replace(/[^\w-]/g, "-");
    let name = wanted;
    for (let number = 2; used.has(name); number++) name = `${wanted}-${number}`;
    used.add(name);
    return name;
  });
}
