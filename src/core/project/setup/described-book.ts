import { posix } from "node:path";
import { readableText, type SourceFile } from "../../source/model.js";
import { unreadCode } from "../../source/unread-code.js";
import { textsBeside } from "./declared-texts.js";
import { emissionOf } from "./emission.js";
import { keysWithForms } from "./plural-emission.js";
import { keyCount, type FoundBook } from "./found-book.js";
import { languageNamed, languageOf } from "../../source/languages/index.js";
import { heldAgainst } from "./held-against.js";
import type { KeyIndex } from "./key-index.js";
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
import { bareMarks, classMarks, findMarks, markInWords, type ProposedMark } from "./found-marks.js";
import { isOfBrowser, numberedByBrowser, type LookupUse } from "./lookup-use.js";
import { keysOf } from "./source-language.js";
import { markedNames } from "./filled-call.js";
import { otherCatalogs } from "./text-lookups.js";
import type { InitAnswers } from "./init-plan.js";
import type { Seen } from "./study.js";

/** The book of a project without catalogs: what projects of its kind have. */
export function newBook(
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
  const syntax = texts.length > 0 ? chooseSyntax(texts, grounds, fillingOf(found, code)) : "icu";
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

/** A book of the configuration for catalogs that are there; what was decided by goes to the grounds. */
export function describeBook(given: FoundBook, name: string, around: Surroundings, answers: InitAnswers) {
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
  const marked = markedNames(lookups.uses, found.texts);
  if (marked !== undefined)
    grounds.push(`Code names the values of its texts as these write them: ${JSON.stringify(marked)}.`);
  const syntax =
    marked !== undefined
      ? { argument: marked }
      : chooseSyntax(
          found.texts,
          grounds,
          fillingOf(lookups.uses, around.code),
          inRuby ? "percent-brace" : lookups.uses.some(isOfBrowser) ? numberedByBrowser : undefined,
          keyCount(found),
          !/\.properties$/.test(found.files) && users.length > 0 && !users.some(isOfJava),
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
  const emit = emissionOf(lookups.uses, users, keysWithForms(found, plurals));
  const naming = namingOf(
    found,
    source,
    lookups,
    around.ecosystem?.letterCase ?? (inRuby ? "snake" : undefined),
  );
  const byText = naming?.pattern === "{text}";
  const marks: ProposedMark[] = lookups.uses.some(isMarkUse)
    ? []
    : [...findMarks(users, keys), ...(byText ? classMarks(users, lookups.uses) : [])];
  if (byText) marks.push(...bareMarks(users).filter((mark) => !marks.includes(mark)));
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
  const named = emit && marked !== undefined ? { names: marked } : undefined;
  const written = emit || inAnnotations ? { ...emit, ...named, ...inAnnotations } : undefined;
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
    ...(found.inside === "leaf" ? { leaf: "{locale}" } : found.leaf !== undefined && { leaf: found.leaf }),
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
  { grounds, files, books, studied }: Pick<Surroundings, "grounds" | "files" | "books" | "studied">,
): readonly string[] {
  const asking = books.map(studied).filter(({ lookups }) => lookups.uses.length > 0);
  const others = asking.filter((one) => one.book.files !== found.files).map(({ keys }) => keys);
  const held = heldAgainst(book, source, code, found, others);
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

function timesIn(count: number): string {
  return count === 1 ? "once" : `${count} times`;
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

/** Whether a file is a program or a page of Java, or of a language that has its library. */
function isOfJava({ file }: SourceFile): boolean {
  return /\.(?:java|kt|kts|groovy|scala|jspx?|jspf|tag|ftl|xhtml)$/.test(file);
}
