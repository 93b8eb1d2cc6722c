import type { Files } from "../files/files.js";
import { isKnownLanguage } from "../locale/mistaken-tag.js";
import { languageNames } from "../locale/own-name.js";
import { lazily } from "../text/lazy.js";
import { parseTag } from "../locale/tag.js";
import { isScript } from "../source/readers/script/endings.js";

/** Why nobody's text is looked for in a file of code. */
export type LeftOut =
  | "tests"
  | "stories"
  | "types"
  | "generated"
  | "minified"
  | "vendored"
  | "migrations"
  | "documentation"
  | "examples"
  | "templates of code"
  | "templates of settings"
  | "build scripts"
  | "one file per locale";

/** Folders whose files are of a kind, by their names. */
const folders: readonly (readonly [RegExp, LeftOut])[] = [
  [
    /^(?:__tests?__|tests?|specs?|e2e|cypress|__mocks__|mocks?|fixtures?|__fixtures__|__snapshots__|test-?data|testing|test[-_]?(?:utils?|helpers?|support)|androidTest|jasmine)$/i,
    "tests",
  ],
  [/^(?:stories|__stories__|\.?storybook)$/i, "stories"],
  [
    /^(?:node_modules|bower_components|_?vendor(?:s|ed)?(?:[-_]?(?:lib|package|module)s?)?|dependencies|(?:third|3rd)[-_]?party|jspm_packages|Pods|site-packages)$/i,
    "vendored",
  ],
  // A library's folder with its version: `calendar-4.2.1`, `calendar4.2.1`.
  [/^[a-z][\w.]{0,40}(?:-[a-z]\w{0,40}){0,4}[-_]v?\d{1,4}(?:\.\d{1,4}){2,3}$/i, "vendored"],
  [/^[a-z]{3,40}\d{1,3}(?:\.\d{1,4}){2,3}$/i, "vendored"],
  [/^(?:dist|built|coverage|__generated__|generated|\.next|\.nuxt|\.svelte-kit|\.output)$/i, "generated"],
];

/** Names of files that are of a kind. */
const names: readonly (readonly [RegExp, LeftOut])[] = [
  [/\.d\.[cm]?ts$/, "types"],
  // A library as it is shipped beside its short form: `grid-debug.js`.
  [/\w-debug\.js$/, "vendored"],
  [
    /[.-]min(?:[._-][a-z]{2,3}(?:[-_]\w{2,4})?)?\.(?:[cm]?js|x?html?|handlebars|hbs|mustache)$|(?:^|[.-])bundle(?:\.\w{1,30})?\.[cm]?js$|\.chunk\.[cm]?js$|-packed\.js$/,
    "minified",
  ],
  [
    /[._-](?:test|spec|cy|e2e)s?\.\w+$|_test\.(?:go|py|rb)$|_spec\.rb$|^test_\w+\.py$|^tests?\.py$|\.mock\.\w+$|^conftest\.py$|\w(?:Tests?|Spec|IT)\.(?:java|kt|cs|php|groovy)$|^(?:setupTests|jest\.setup|mock(?:s|ups?|[-_]?data)?)\.(?:[cm]?[jt]sx?|py|rb|php)$/,
    "tests",
  ],
  [/\.(?:stories|story)\.\w+$/, "stories"],
  [
    /\.generated\.\w+$|\.g\.(?:cs|dart)$|\.pb\.go$|_pb2(?:_grpc)?\.py$|\.[Dd]esigner\.cs$|^rollup\.\w+$/,
    "generated",
  ],
  // Builders put a digest of the content into names.
  [/^(?:.{1,80}[.-])?(?=[a-f]*\d)(?=\d*[a-f])[0-9a-f]{6,40}[.-][\w.-]+$/, "generated"],
  [/[.-]v?\d{1,4}\.\d[\w.-]{0,40}\.[cm]?js$/, "vendored"],
  // A template of what a program or a shell reads: `server.conf.j2`, `boats.yaml.erb`.
  [
    /\.(?:ya?ml|conf|cfg|cnf|ini|toml|sh|bash|zsh|service|socket|timer|properties|sql|tf|env|rules)\.(?:j2|jinja2?|erb|epp|tmpl|tpl|gotmpl|mustache|hbs|handlebars|ejs|njk|mako|in)$/,
    "templates of settings",
  ],
];

/** What the name of a file says of it; undefined where people may write text in it. */
export function leftOutByName(file: string): LeftOut | undefined {
  const parts = file.split("/");
  const name = parts.pop() ?? "";
  for (const part of parts) for (const [pattern, kind] of folders) if (pattern.test(part)) return kind;
  // A package of Go for tests of another one: `httptest`.
  if (/\/[a-z]{2,40}(?<!\/(?:la|con|pro|at|de|grea))test\/[^/]+\.go$/.test(`/${file}`)) return "tests";
  // What a server hands out as it is, in a folder for what others wrote.
  if (/(?:^|\/)(?:public|static|www|wwwroot|webroot|htdocs)\/(?:(?:js|scripts|assets)\/)?libs?\//i.test(file))
    return "vendored";
  if (/^(?:packages\/[^/]+\/)?(?:examples?|demos?|playground|sandbox)\//i.test(file)) return "examples";
  // What shows a library that a server hands out.
  if (
    /(?:^|\/)(?:public|static|assets|plugins|libs?|js|javascripts)\/(?:[^/]{1,80}\/){0,6}demos?\//i.test(file)
  )
    return "examples";
  if (
    (numbered.test(name) && parts.some((part) => /^(?:migrations?|migrate|versions)$/.test(part))) ||
    (/^\d{1,2}[_-][\w-]+\.\w+$/.test(name) && parts.some((part) => /^(?:migrations?|migrate)$/.test(part)))
  )
    return "migrations";
  return (
    names.find(([pattern]) => pattern.test(name))?.[1] ??
    (isDocument(parts, name) ? "documentation" : undefined)
  );
}

/** A step from one state of a database to the next, by its number, day or digest. */
const numbered = /^(?:\d{3,14}(?:-\d{1,2}){0,6}|[0-9a-f]{12}|V\d{1,9}(?:[._]\d{1,9}){0,4}_)[_-][\w-]+\.\w+$/;

/** Whether a page or a script is part of what is written about a program, and of no part of the program that is called so. */
function isDocument(parts: readonly string[], name: string): boolean {
  const at = parts.findIndex((part) => /^(?:docs?|documentation|javadocs?|apidocs?)$/i.test(part));
  return (
    at >= 0 &&
    /\.(?:x?html?|js|py|php|rb|java|pl)$/.test(name) &&
    !parts
      .slice(0, at)
      .some((part) => /^(?:src|app|pages|views|templates|components|routes|resources)$/i.test(part))
  );
}

/** Folders in which programs keep the libraries of others beside their own parts. */
const libraryPlace = /^(?:libs?|library|libraries|externals?|deps|assets|static|js|javascripts?)$/i;

const licenseFile = /^(?:licen[sc]e|copying)(?:[-.]\w{1,20}){0,2}$/i;

/** Patterns of the files by which a folder is known to be a library of its own, or a part of this project. */
const libraryMarks = ["**/{LICEN,Licen,licen,COPYING,copying}*", "**/{package,project}.json"];

/**
 * The folders of libraries that others wrote, each with a slash behind it, by the files that `libraryMarks` lists: they have a
 * license of their own below a folder for libraries. A package of the project itself has its manifest beside it.
 */
export function libraryFolders(marks: readonly string[]): readonly string[] {
  const listed = new Set(marks);
  return marks.flatMap((file) => {
    const parts = file.split("/");
    const name = parts.pop() ?? "";
    const folder = parts.join("/");
    const isOfLibrary =
      licenseFile.test(name) &&
      parts.slice(0, -1).some((part) => libraryPlace.test(part)) &&
      !listed.has(`${folder}/package.json`) &&
      !listed.has(`${folder}/project.json`);
    return isOfLibrary ? [`${folder}/`] : [];
  });
}

/** Whether a file of code is in one of the libraries that others wrote. They are looked for only where some file is below a place for them. */
export function libraryTest(files: Files, code: readonly string[]): (file: string) => boolean {
  if (
    !code.some((file) =>
      file
        .split("/")
        .slice(0, -2)
        .some((part) => libraryPlace.test(part)),
    )
  )
    return () => false;
  const folders = libraryFolders(files.list({ patterns: libraryMarks, respectIgnoreFiles: true }));
  return (file) => folders.some((folder) => file.startsWith(folder));
}

/** So much of a script is looked at for how it is written, in code units. */
const looked = 200_000;

/** So much of a file is looked at for what its head says, in code units. */
const headLength = 2_000;

const generatedBy =
  /^[ \t]{0,20}(?:\/\/|\/\*|\*|#|--|<!--|%|;|''')[*!#\t -]{0,20}(?:@generated\b|(?:this|the) \w+ (?:was|is|has been) (?:automatically |auto-?)?generated\b|(?:auto(?:matically)?[- ]?)?generated (?:by|from|with|using|on|code|file)\b|code generated\b|[^\n]*\bdo not (?:edit|modify)\b)/im;

/** The wrapper that offers a script to every kind of loader, as only what is passed on has it. */
const forAnyLoader =
  /typeof define\s*={2,3}\s*["']function["']\s*&&\s*(?:define\.amd|typeof define\.amd)|["']function["']\s*={2,3}\s*typeof define\s*&&\s*define\.amd/;

/** A comment that minifiers keep, with a version or a license: what stands at the head of libraries. */
const libraryHead =
  /^\s*\/\*[!*][^]{0,600}?(?:\bv?\d+\.\d+\.\d+\b[^]{0,600}?\b(?:licen[sc]e|copyright)|@license\b|\b(?:licen[sc]e|copyright)\b[^]{0,600}?\bv?\d+\.\d+\.\d+\b)/i;

/** The comment at the head of a script, without its marks. */
function headComment(head: string): string {
  const [, block, lines = ""] =
    /^\s{0,200}(?:\/\*((?:(?!\*\/)[^]){0,1800})\*\/|((?:\/\/[^\n]{0,200}\n[ \t]{0,20}){1,20}))/.exec(head) ??
    [];
  return (block ?? lines).replace(/^[ \t]{0,20}(?:\*|\/\/)[!*]?/gm, "").trim();
}

/** Whether a script in a folder for libraries says what it is called, of which version, and its license: it is passed on as a file. */
function namesItself(file: string, head: string): boolean {
  const place = file.split("/").slice(0, -1);
  if (!place.some((part) => libraryPlace.test(part))) return false;
  const comment = headComment(head);
  return (
    /^[A-Za-z][\w.$-]{0,40}(?: [\w.$-]{1,40}){0,4} v?\d{1,4}(?:\.\d{1,4}){1,3}(?:-\w{1,20})?[^\S\n]{0,20}(?:\n|$)/.test(
      comment,
    ) && /\b(?:licen[sc]e|copyright)/i.test(comment)
  );
}

/** What bundlers and compilers put at the head of what they write, and nobody else does. */
const builtHead =
  /\b_interopRequire(?:Default|Wildcard)\b|^(?:exports\.__esModule = true|Object\.defineProperty\(exports, ["']__esModule["'])|\b__import(?:Default|Star)\s*=|\b__(?:commonJS|toESM|webpack_require__|webpack_modules__)\b|\bwebpack(?:Jsonp|Chunk|Bootstrap)|\bMODULE_NOT_FOUND\b[^\n]{0,400}\)\(\{\d{1,6}:\[function\(|^(?:\w{1,20}\.)?define\(["'][\w./-]{1,100}["'],\s?\[["']require["'],\s?["']exports["']/m;

/** A module with its name in front, as what joins modules into one file writes it; people leave the name to the file. */
const namedModule = /^(?:\w{1,20}\.)?define\(["'][\w./-]{1,100}["'],\s?\[/gm;
const leastModules = 3;

/** Files of languages that are read as code. */
const templateOfCode = /\.(?:rb|py|java|cs|go|kt|ts|tsx)$/;

/** Marks of a template where code has none: a tag alone in its line, or in the name that a declaration gives. */
const codeInTemplate =
  /^[ \t]{0,40}(?:<%[-=]?\s[^%\n]{1,200}-?%>|\{%-?\s(?:if|for|endif|endfor|else|block|endblock)\b[^%\n]{0,200}%\})[ \t]*$|^[ \t]{0,40}(?:class|module|def|package|import|namespace|public class|func)\s[\w.]{0,60}(?:<%=|\{\{\s?\w)/m;

/** Whether a file of code is a template that makes such a file, and not code with a template in a string of several lines. */
function isCodeInTemplate(text: string): boolean {
  const found = codeInTemplate.exec(text);
  if (!found) return false;
  const before = text.slice(0, found.index);
  return (
    !/<<[-~]?["']?[A-Z_]{2,30}/.test(before) &&
    ['"""', "'''", "`"].every((quote) => before.split(quote).length % 2 === 1)
  );
}

/** Templates whose ending does not say what they make. */
const templateOfAny = /\.(?:j2|jinja2?|njk|tmpl|tpl|gotmpl|mako|mustache)$/;

/** Code in the marks of a template. */
const codeOfTemplate = /\{%[^%]{0,2000}%\}|\{#[^#]{0,2000}#\}|\{\{[^{}]{0,2000}\}\}|<%[^%]{0,2000}%>/g;

/** Words that follow each other as they do in what people read. */
const prose = /(?<![\p{L}\d._/-])\p{Lu}\p{Ll}{0,30}(?: \p{L}[\p{L}'’]{0,30},?){2}|(?: \p{Ll}{2,30}){3}[.!?]/u;

/** A line of settings: `- name: boat`, `key = value`, `[part]`. */
const settingsLine =
  /^(?:- )?["']?[\w.*/-]{1,80}["']?:(?:\s|$)|^- [^\s]|^[\w.-]{1,60}\s?=|^\[[\w. -]{1,60}\]$|^[}\])]|^["'][^"']{0,200}["'],?$|[{[,]$/;

/** Whether a template makes settings for a program and no page: it has no element in it, and nothing that reads as a text. */
function makesSettings(text: string): boolean {
  if (/<[/!]?[a-z][\w-]*[\s>/]/i.test(text)) return false;
  const rest = text.slice(0, looked).replace(codeOfTemplate, "\uE000");
  if (prose.test(rest.replace(/^[ \t]{0,80}(?:#.*|(?:- )?[a-z][\w.-]{0,60}:[ \t].*)$/gm, ""))) return false;
  const lines = rest
    .split("\n")
    .map((line) => line.replaceAll("\uE000", "").trim())
    .filter((line) => line !== "" && !line.startsWith("#"));
  // A page that only says what goes into another one says that too.
  if (lines.length === 0)
    return (
      (text.match(/\{%-?\s*set\s/g)?.length ?? 0) > 0 &&
      !/\{%-?\s*(?:extends|include|import|from|block)\s+[^%]{0,100}(?:html?|page|layout)\b/i.test(text)
    );
  return lines.length > 3 && lines.filter((line) => settingsLine.test(line)).length * 10 >= lines.length * 8;
}

/** What the content of a file says of it; undefined where people may write text in it. */
export function leftOutByContent(file: string, text: string): LeftOut | undefined {
  const head = text.slice(0, headLength);
  if (generatedBy.test(head.split("\n", 15).join("\n"))) return "generated";
  if (
    /<meta\s+(?:name=["']?generator["']?\s+content=|content=["'][^"'<>]*["']\s+name=["']?generator\b)/i.test(
      head,
    )
  )
    return "generated";
  if (templateOfCode.test(file) && isCodeInTemplate(text)) return "templates of code";
  if (
    /(?:^|\/)setup\.py$/.test(file) &&
    /^[ \t]{0,40}(?:from|import)[ \t]{1,9}(?:setuptools|distutils)\b/m.test(text)
  )
    return "build scripts";
  if (templateOfAny.test(file) && makesSettings(text)) return "templates of settings";
  if (!isScript(file)) return undefined;
  // Nobody writes a script of this length.
  if (text.length > 1_000_000) return "generated";
  if (isMinified(text)) return "minified";
  if ((text.match(memoryOfMachine)?.length ?? 0) >= leastOfMachine) return "generated";
  if (builtHead.test(head) || (text.slice(0, looked).match(namedModule)?.length ?? 0) >= leastModules)
    return "generated";
  if (givesLocale(file, head)) return "one file per locale";
  if (namesItself(file, head)) return "vendored";
  if (/^\s*\/\*[!*]/.test(head) && libraryHead.test(head.slice(0, head.indexOf("*/") + 1 || headLength)))
    return "vendored";
  return forAnyLoader.test(head) || forAnyLoader.test(text.slice(-headLength)) ? "vendored" : undefined;
}

/** How scripts that were compiled from code for machines read their memory, and how often at least. */
const memoryOfMachine = /\bHEAPU?(?:8|16|32)\[/g;
const leastOfMachine = 10;

/**
 * Whether a script gives a program its texts in the language that the file is called by: `editor.addTexts("zh_CN", {` in
 * `zh_CN.js`, `picker.regional["de"] = {` in `picker-de.js`.
 */
function givesLocale(file: string, head: string): boolean {
  const [, locale = ""] =
    /^(?:\s|\/\/[^\n]*\n|\/\*(?:[^*]|\*(?!\/)){0,3000}\*\/|;|!?\(?function\s?\([^()]{0,100}\)\s?\{|["']use strict["'])*[\w$]{1,40}(?:\.[\w$]{1,40}){1,5}(?:\(\s{0,9}|\[)["']([a-z]{2,3}(?:[-_][A-Za-z]{2,4})?)["'](?:\s{0,9},\s{0,9}\{|\]\s{0,9}=\s{0,9}\{)/.exec(
      head,
    ) ?? [];
  if (locale === "") return false;
  const name = (file.split("/").at(-1) ?? "").replace(/(?:\.min)?\.\w+$/, "");
  return new RegExp(`(?:^|[._-])${locale.replace(/[-_]/, "[-_]")}$`, "i").test(name);
}

/** Whether a script's lines are longer than anybody writes, or it has values as only minifiers write them: `!0` for `true`. */
function isMinified(text: string): boolean {
  if (text.length < 3_000) return false;
  let lines = 1;
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) lines++;
  if (text.length / lines > 400) return true;
  const part = text.slice(0, looked);
  const short = part.match(/[=(,:?&|]\s?![01](?![\w.])|\bvoid 0\b/g)?.length ?? 0;
  return short >= 10 && short > (part.match(/\b(?:true|false|undefined)\b/g)?.length ?? 0);
}

/** So many scripts of a folder, and most of them, have a twin in one of sources where they are what a compiler made of it. */
const leastCompiled = 5;

/** A folder into which compilers write what they make of the sources in `src` beside it, or of those beside it. */
const compiledInto =
  /^((?:[^/]{1,200}\/){0,3}?)((?:(?:lib|es|esm|cjs|umd|out|output|build|compiled|transpiled|js|target|types|module)(?:[-_](?:es|esm|cjs|module|modules|modern|node|browser|dist))?)\/)(.{1,400})$/;

/** What compilers read, and what they write. */
const compilerReads = /\.(?:[cm]?tsx?|jsx?|mjs|es6|coffee|vue)$/;
const compilerWrites = /\.[cm]?js$/;

/**
 * Whether a file is in a folder whose scripts a compiler made of those in `src` or in folders of the same names beside them:
 * `lib/cart/total.js` of `src/cart/total.ts`, `transpiled/parts/total.js` of `parts/total.jsx`.
 */
export function compiledTest(files: readonly string[]): (file: string) => boolean {
  const sources = new Set<string>();
  const made = new Map<string, string[]>();
  for (const file of files) {
    if (compilerReads.test(file)) sources.add(file.replace(compilerReads, ""));
    const [, base = "", folder, rest = ""] = compiledInto.exec(file) ?? [];
    if (folder === undefined || !compilerWrites.test(rest)) continue;
    made.set(base + folder, [...(made.get(base + folder) ?? []), rest.replace(compilerWrites, "")]);
  }
  const folders = [...made].flatMap(([place, list]) => {
    const base = place.slice(0, place.lastIndexOf("/", place.length - 2) + 1);
    const isMade = (names: readonly string[], from: string) => {
      const twins = names.filter((name) => sources.has(base + from + name)).length;
      return twins >= leastCompiled && twins * 10 >= names.length * 8;
    };
    if (isMade(list, "src/") || isMade(list, "")) return [place];
    // A part of it alone may be made of sources there, and the rest of others.
    const parts = new Set(list.flatMap((name) => /^[^/]{1,200}\//.exec(name) ?? []));
    return [...parts].flatMap((part) => {
      const names = list.filter((name) => name.startsWith(part));
      return isMade(names, "src/") ? [place + part] : [];
    });
  });
  return (file) => folders.some((folder) => file.startsWith(folder));
}

/** At least so many locales make a family of files. */
const leastLocales = 3;

/** The files that stand beside others of the same name with another locale in it: their text has its place already. */
export function oneFilePerLocale(files: readonly string[]): ReadonlySet<string> {
  const families = new Map<string, Map<string, string>>();
  const countries = new Map<string, string[]>();
  for (const file of files)
    for (const { pattern, locale, isCountry } of localesIn(file)) {
      if (isCountry) {
        countries.set(pattern, [...(countries.get(pattern) ?? []), file]);
        continue;
      }
      const family = families.get(pattern) ?? new Map<string, string>();
      family.set(file, locale);
      families.set(pattern, family);
    }
  const found = new Set<string>();
  for (const [pattern, family] of families)
    if (isOfLocales(new Set(family.values())))
      for (const file of [...family.keys(), ...(countries.get(pattern) ?? [])]) found.add(file);
  for (const file of filesInLocaleFolders(files)) found.add(file);
  for (const file of besideFilesOfLocales(files, found)) found.add(file);
  for (const family of familiesByName(files).values())
    if (new Set(family.values()).size >= leastLocales) for (const file of family.keys()) found.add(file);
  return found;
}

/** The other files of folders that are named for languages, where most of those with their ending are each for a locale: `cn_utf8.js`. */
function besideFilesOfLocales(files: readonly string[], found: ReadonlySet<string>): readonly string[] {
  const folders = new Map<string, string[]>();
  for (const file of files) {
    const place = /^(?:.*\/)?(?:langs?|languages?|locales?|i18n|l10n|translations?)\/(?=[^/]*$)/i.exec(
      file,
    )?.[0];
    if (place === undefined) continue;
    const kind = place + (/\.[^./]*$/.exec(file)?.[0] ?? "");
    folders.set(kind, [...(folders.get(kind) ?? []), file]);
  }
  return [...folders.values()].flatMap((list) => {
    const others = list.filter((file) => !found.has(file));
    return others.length * 4 <= list.length && list.length > leastLocales ? others : [];
  });
}

/** So many names, and half of the smaller folder's, two folders of locales have in common. */
const leastShared = 2;

/** The files of folders that are named for locales, stand beside each other and hold files of mostly the same names. */
function filesInLocaleFolders(files: readonly string[]): readonly string[] {
  const parents = new Map<string, Map<string, Map<string, string>>>();
  for (const file of files)
    for (const match of file.matchAll(
      /(?<=^|\/)([a-z]{2,3}(?:[-_](?:[A-Z]{2}|[a-z]{2}|[A-Z][a-z]{3}))?)\//g,
    )) {
      const locale = match[1] ?? "";
      const tag = parseTag(locale.replace("_", "-"));
      if (!tag || !isKnownLanguage(tag.language)) continue;
      const parent = file.slice(0, match.index);
      const folders = parents.get(parent) ?? new Map<string, Map<string, string>>();
      parents.set(parent, folders);
      const inside = folders.get(locale) ?? new Map<string, string>();
      folders.set(locale, inside.set(file.slice(match.index + locale.length + 1), file));
    }
  const found = new Set<string>();
  for (const folders of parents.values()) {
    const alike = [...folders].filter(([locale, names]) =>
      [...folders].some(([other, others]) => {
        const shared = [...names.keys()].filter((name) => others.has(name)).length;
        const isKnown = frequent.test(locale) && frequent.test(other);
        // Two letters may be a word as well.
        return (
          other !== locale &&
          (isKnown || folders.size > leastLocales) &&
          shared >= leastShared &&
          shared * 2 >= Math.min(names.size, others.size)
        );
      }),
    );
    if (alike.filter(([locale]) => frequent.test(locale)).length < 2) continue;
    for (const [, names] of alike) for (const file of names.values()) found.add(file);
  }
  return [...found];
}

/** Where the English name of a language stands in a path, with what says which one of it is meant: `BrazilianPortuguese`, `ChineseTaiwan`. */
const namedLanguage = lazily(() => {
  const names = [...languageNames().keys()].filter((name) => name.length > 3);
  const capital = names.map((name) => name.charAt(0).toUpperCase() + name.slice(1)).join("|");
  return new RegExp(
    `(?:Brazilian|Canadian|European|Simplified|Traditional)?(?:${capital})(?:Bokmal|Nynorsk|Latin|Cyrillic|Argentina|Brazil|China|Mexico|Portugal|Spain|Taiwan|Turkey|Simplified|Traditional)?(?![a-z])|(?<![A-Za-z])(?:${names.join("|")})(?![A-Za-z])`,
    "g",
  );
});

/** Files whose paths differ in the English name of a language alone, with that name; English is among them. */
function familiesByName(files: readonly string[]): ReadonlyMap<string, ReadonlyMap<string, string>> {
  const families = new Map<string, Map<string, string>>();
  if (!files.some((file) => /english/i.test(file))) return families;
  const written = namedLanguage();
  for (const file of files) {
    const [name] = file.match(written) ?? [];
    if (name === undefined) continue;
    const pattern = file.replace(written, "{}");
    const family = families.get(pattern) ?? new Map<string, string>();
    families.set(pattern, family.set(file, name.toLowerCase()));
  }
  for (const [pattern, family] of families)
    if (![...family.values()].includes("english")) families.delete(pattern);
  // Among so many languages another word with a capital is one too: `ReplyMontenegrin.html`.
  for (const file of families.size > 0 ? files : [])
    for (const [word] of file.matchAll(/[A-Z][a-z]{3,30}(?![a-z])/g)) {
      const family = families.get(file.replaceAll(word, "{}"));
      if (family && family.size >= manyLanguages && !family.has(file)) family.set(file, word.toLowerCase());
    }
  return families;
}

/** So many languages by their names leave no doubt of what stands in the same place. */
const manyLanguages = 8;

/** Two letters may be a word as well (`is`, `to`): of several locales some are those that most products have. */
function isOfLocales(locales: ReadonlySet<string>): boolean {
  const known = [...locales].filter((one) => frequent.test(one));
  return (
    (locales.size >= leastLocales && known.length >= 2) ||
    // With a region each, two are no words by chance.
    (known.length >= 2 && known.every((one) => /[-_][A-Z]{2}$/.test(one)))
  );
}

const frequent = /^(?:en|de|fr|es|it|pt|nl|pl|ru|ja|zh|ko|tr|ar|sv|cs|uk)(?:[-_]|$)/;

/** The places of a path where a locale stands, each with the path as it is without it. */
function localesIn(
  file: string,
): readonly { readonly pattern: string; readonly locale: string; readonly isCountry: boolean }[] {
  const found: { pattern: string; locale: string; isCountry: boolean }[] = [];
  const part =
    /(?<![A-Za-z0-9])([a-z]{2,3}(?:[-_](?:[A-Z]{2}|[a-z]{2}|[A-Z][a-z]{3}|ch[st]|han[st]))?)(?![A-Za-z0-9]|[-_](?!utf|iso|win|cp\d)[A-Za-z])/g;
  for (let match = part.exec(file); match; match = part.exec(file)) {
    const written = match[1] ?? "";
    // What comes before a language may be one as well: `cal-de`.
    part.lastIndex = match.index + (/^[a-z]+/.exec(written)?.[0].length ?? written.length);
    if (file[match.index - 1] === "." && match.index + written.length === file.length) continue;
    // Older names of the scripts of Chinese: zh-CHS, zh-CHT.
    const tag = parseTag(written.replace("_", "-").replace(/-ch(?=[st]$)/, "-han"));
    // Beside files of languages, one is called by its country now and then: `ua`.
    const isCountry = tag !== undefined && !isKnownLanguage(tag.language);
    if (!tag || (isCountry && !/^[a-z]{2}$/.test(written))) continue;
    found.push({
      isCountry,
      pattern: `${file.slice(0, match.index)}{}${file.slice(match.index + written.length)}`,
      locale: written,
    });
  }
  return found;
}
