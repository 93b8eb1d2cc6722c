import type { SyntaxSetting } from "../message/names.js";
import { syntaxOf } from "../message/syntaxes/index.js";
import { posix } from "node:path";
import type { BookConfig } from "../config/schema.js";
import { rawElements } from "../source/readers/markup/raw-elements.js";
import { literally } from "../text/key-pattern.js";
import { applyEdits } from "../text/edits.js";
import { countOf, passAlone } from "./emit.js";
import { calleeOf, defaultCall, frontOf, usesDefaultCall } from "../source/book-code.js";
import type { Literal, SourceFile } from "../source/model.js";
import { languageNamed, languageOf } from "../source/languages/index.js";
import { listed, type Language, type ValueWriter } from "../source/languages/language.js";
import { hasNoFilter, isRenderedScript } from "../source/dialects/dialect.js";
import { dialectOf } from "../source/dialects/index.js";
import { isScript } from "../source/readers/script/endings.js";

/** Where a lookup takes a text's place: an attribute's value, an expression, or what stands between tags. */
export type TemplateSlot = "attribute" | "call" | "content";

/** How one kind of file writes lookups: the book's templates where it gives them, else what is usual in its language. */
export interface Host {
  readonly kind: "script" | "code" | "markup";
  readonly language: string;
  /** The usual call's name, where a template could use it and nothing says that it is given it. */
  readonly notGiven: string | undefined;
  /** The line that brings the lookup into a file of code. */
  readonly importLine: string | undefined;
  /** Whether lookups work while a file is loaded: what they give is worked out when it is shown, and is no string before. */
  readonly atLoad: boolean;
  /** The host for what is evaluated while the file is loaded, where the book has another lookup for that. */
  readonly early?: Host;
  /** An expression; undefined where the book has lookups and does not say how files of this kind write them. */
  readonly call: string | undefined;
  /** What stands between tags of a template, and as an attribute's value; undefined where nothing is usual. */
  readonly content: string | undefined;
  readonly attribute: string | undefined;
  /** The same for texts with values, where they are written in another way. */
  readonly withValues: {
    readonly call: string | undefined;
    readonly content: string | undefined;
    readonly attribute: string | undefined;
  };
  /** How a text of an annotation, which takes constants alone, names its key. */
  readonly annotation: string | undefined;
  /** The same for texts with a plural, where another lookup chooses its form; false where that one cannot be written. */
  readonly plural: Readonly<Record<TemplateSlot, string | undefined>> | false | undefined;
  /** An attribute of an element that takes expressions, as it is written for a call; undefined for other elements. */
  readonly attributeOn: (element: string, call: string) => string | undefined;
  /** An expression for text with elements in it. */
  readonly rich: string | undefined;
  /** What stands before all keys of the book in code; empty where nothing does. */
  readonly front: string;
  /** How values are passed: names and their code, as they stand behind the key. */
  readonly pass: ValueWriter;
  /** The quotes that strings stand in, where no others do. */
  readonly onlyQuote: '"' | undefined;
  /** Whether values can be given to a call by their names, or the book's messages need none. */
  readonly takesNames: boolean;
  /** A value as joining writes it, where a message would write it otherwise: see {@link Language.asJoined}. */
  readonly asJoined?: Language["asJoined"];
  /** What a literal's islands may look like, so that their code can be passed to a call. */
  readonly readsIsland: (island: string) => boolean;
  /** Whether the dialect's own marks are taken, and a template with marks of another language alone would not show them. */
  readonly isForeign: (text: string) => boolean;
  /** Whether what is shown is put on the page as it is, so that signs of markup in a text would become markup. */
  readonly showsRaw: (form: Literal["form"]) => boolean;
  /** The expression for an attribute's value in a string of markup, where the book writes another for attributes. */
  readonly quotedCall: (hasValues: boolean) => string | undefined;
}

/** How the languages of scripts and of templates pass values. */
export const passes = {
  script: listed("{ ", (name, code) => (name === code ? name : `${name}: ${code}`), " }"),
  expression: listed("", (name, code) => `${name}=${code}`, ""),
} satisfies Readonly<Record<string, ValueWriter>>;

function passesIn(language: string): ValueWriter | undefined {
  return language === "script" || language === "expression" ? passes[language] : undefined;
}

/** Values without names, for messages whose arguments are numbered. */
export const inOrder: ValueWriter = (values) => values.map(([, code]) => `, ${code}`).join("");

/** Writes values under names with marks around them, as some programs want those in messages: `'%name%' => $name`. */
function withMarks(pass: ValueWriter, names: string | undefined): ValueWriter {
  // Names that stand without quotes cannot have marks.
  if (names === undefined || !/["']x["']/.test(pass([["x", "y"]]))) return pass;
  return (values) => pass(values.map(([name, code]) => [names.replace("{name}", () => name), code]));
}

/** The host that a file is, with a book's templates for it. */
export function hostOf(
  { file, dialect }: Pick<SourceFile, "file" | "dialect">,
  book: BookConfig,
  usual?: readonly string[],
): Host {
  const forEnding = book.emit.endings?.[posix.extname(file)];
  const own = { ...book.emit, ...forEnding };
  const script = isScript(file);
  const language = script ? "script" : dialect ? dialect.language : (languageOf(file) ?? "script");
  // What a line of scripts brings in is in no other language, unless that has a function of the same name.
  // Nor does a component have what nobody says but the usual name.
  const isScripts = script || (own.call !== undefined && language === "script" && !isRenderedScript(dialect));
  const mayCall = usual === undefined || isScripts || usual.includes(spokenIn(language, dialect));
  const usualCall = own.call ?? (usesDefaultCall(book.lookups) ? defaultCall : undefined);
  const helper = helperIn(own.content);
  const filter = dialect?.filtersInBrackets === true ? filterIn(forEnding?.content) : undefined;
  const call =
    forEnding?.call ??
    (helper !== undefined || filter !== undefined
      ? `(${helper ?? filter ?? ""})`
      : dialect?.takesHelpers?.(file) ||
          isFilter(forEnding?.content) ||
          speaksOtherwise(forEnding, dialect, own)
        ? undefined
        : mayCall
          ? usualCall
          : undefined);
  const marks = dialect?.shown;
  const content = own.content ?? (marks && call !== undefined ? marks[0] + call + marks[1] : undefined);
  const isNumbered = syntaxOf(book.syntax).numberedFrom !== undefined;
  const filled = { ...book.emit.withValues, ...forEnding?.withValues };
  const atLoad = forEnding?.atLoad ?? book.emit.atLoad ?? false;
  const attribute =
    own.attribute ??
    (call === undefined ? undefined : dialect?.attribute?.(call)) ??
    (isAttribute(content) ? undefined : content);
  const filterFilled = filter === undefined ? undefined : filterIn(filled.content);
  const filledBy =
    filled.call ??
    (filterFilled === undefined ? filledCall(call, language, book.syntax) : `(${filterFilled})`);
  const filledContent =
    own.content === undefined && marks && filledBy !== undefined ? marks[0] + filledBy + marks[1] : undefined;
  const host: Host = {
    kind: script ? "script" : dialect ? "markup" : "code",
    language,
    notGiven: !mayCall && isRenderedScript(dialect) && dialect?.shown ? calleeOf(usualCall ?? "") : undefined,
    importLine: forEnding?.import,
    atLoad: atLoad === true,
    call,
    content,
    attribute,
    withValues: {
      call: filledBy,
      content: filled.content ?? filledContent,
      attribute:
        filled.attribute ??
        (filledContent === undefined || own.attribute !== undefined
          ? undefined
          : (dialect?.attribute?.(filledBy ?? "") ?? filledContent)),
    },
    plural:
      typeof own.plural === "string"
        ? pluralIn(own.plural, [call, filledBy], {
            content,
            attribute: own.attribute === undefined ? dialect?.attribute?.(own.plural) : undefined,
            usual: attribute,
          })
        : own.plural,
    attributeOn: (element, asked) =>
      own.attribute === undefined ? dialect?.attributeOn?.(element, asked) : undefined,
    // What scripts write for elements says nothing of templates.
    annotation: own.annotation,
    front: frontOf(book),
    rich: dialect ? forEnding?.rich : own.rich,
    isForeign: (text) =>
      own.content === undefined &&
      marks !== undefined &&
      dialect?.foreign !== undefined &&
      !text.includes(marks[0].trim()) &&
      (text.match(dialect.foreign) ?? []).some((mark) => !/^<%(?![=-])/.test(mark)),
    showsRaw: (form) =>
      dialect?.showsRaw === true &&
      own.content === undefined &&
      (form !== "attribute" || own.attribute === undefined),
    quotedCall: (hasValues) =>
      insideMarks((hasValues ? filled.attribute : undefined) ?? own.attribute, marks),
    ...(syntaxOf(book.syntax).name === "java" && { asJoined: languageNamed(language)?.asJoined }),
    onlyQuote: dialect?.valuesInOrder ? '"' : undefined,
    takesNames: (!dialect?.valuesInOrder && !dialect?.fills) || isNumbered,
    pass: dialect?.valuesInOrder
      ? passAlone
      : isNumbered
        ? inOrder
        : withMarks(languageNamed(language)?.passValues ?? passesIn(language) ?? inOrder, book.emit.names),
    readsIsland: (island) =>
      !(dialect?.foreign && new RegExp(`^(?:${dialect.foreign.source})$`).test(island)) &&
      (dialect?.passesIsland(island) ?? hasNoFilter(island)),
  };
  if (typeof atLoad === "boolean") return host;
  const { call: lazyCall, import: lazyLine } = atLoad;
  const withValues = { ...host.withValues, call: undefined };
  return { ...host, early: { ...host, call: lazyCall, importLine: lazyLine, withValues, atLoad: true } };
}

/** The templates for texts with a plural: what stands around a usual call stays when the other takes its place. */
function pluralIn(
  plural: string,
  usual: readonly (string | undefined)[],
  around: Readonly<Record<"content" | "attribute" | "usual", string | undefined>>,
): Readonly<Record<TemplateSlot, string | undefined>> {
  const instead = (template = "") => {
    const asked = usual.find((one) => one !== undefined && template.includes(one));
    return asked === undefined ? undefined : template.replace(asked, () => plural);
  };
  return {
    call: plural,
    content: instead(around.content),
    attribute: around.attribute ?? instead(around.usual),
  };
}

/** What {@link usualIn} calls the language of templates of script that a program renders. */
const rendered = "rendered";

function spokenIn(language: string, dialect: SourceFile["dialect"]): string {
  return isRenderedScript(dialect) ? rendered : language;
}

/** The host for one of a file's texts. */
export function hostFor(host: Host, { context }: Literal): Host {
  return context.atLoad ? (host.early ?? host) : host;
}

/**
 * Whether a book says how pages of an ending look up a text, and it is not by the call that scripts use: what a browser works out
 * in a page has none of the scripts' names.
 */
function speaksOtherwise(
  forEnding: { readonly content?: string | undefined } | undefined,
  dialect: SourceFile["dialect"],
  { call }: { readonly call?: string | undefined },
): boolean {
  const content = forEnding?.content;
  const callee = call === undefined ? undefined : calleeOf(call);
  return (
    dialect?.language === "script" &&
    !dialect.codeInScripts &&
    content !== undefined &&
    callee !== undefined &&
    !content.includes(callee.replace(/^this\./, ""))
  );
}

/** The expression between the marks that show it. */
function insideMarks(
  template: string | undefined,
  marks: readonly [string, string] | undefined,
): string | undefined {
  if (template === undefined || !marks) return undefined;
  const [open, close] = marks;
  return template.startsWith(open) && template.endsWith(close)
    ? template.slice(open.length, -close.length)
    : undefined;
}

/** The helper that a template for content is, without its braces: `text "{key}"{args}`. */
function helperIn(content: string | undefined): string | undefined {
  return /^\{\{\{?\s{0,9}([\w./-]{1,60}\s{1,9}["']\{key\}["'](?:\s{0,9}\{(?:args|values)\})?)\s{0,9}\}\}/.exec(
    content ?? "",
  )?.[1];
}

/** The filter that a template for content is, without its marks: `'{key}' | text`. */
function filterIn(content: string | undefined): string | undefined {
  return isFilter(content) ? /^\{\{([^]*)\}\}\s*$/.exec(content ?? "")?.[1]?.trim() : undefined;
}

/** Whether a template for content is a filter in marks, `{'{key}'|text}`: how an expression asks for a text is not said by it. */
function isFilter(content: string | undefined): boolean {
  return content !== undefined && /^\{{1,2}\s{0,9}["']\{key\}["']\s{0,9}\|/.test(content);
}

/** A lookup that takes its key alone, with what fills the text that it gives; undefined for others. */
export function filledCall(
  call: string | undefined,
  language: string,
  syntax: SyntaxSetting | undefined,
): string | undefined {
  const { keyAlone, fillers = {} } = languageNamed(language) ?? {};
  const filler = typeof syntax === "string" ? fillers[syntax] : undefined;
  if (call === undefined || filler === undefined || !keyAlone?.test(calleeOf(call) ?? "")) return undefined;
  return filler.replace("{call}", () => call.replace("{args}", ""));
}

/** Whether a template for content is an attribute of the element around it: `data-text="{key}"`. */
export function isAttribute(template: string | undefined): boolean {
  return template !== undefined && /^[\w:.-]+="[^"<>]*\{key\}[^"<>]*"$/.test(template);
}

/** Lines that are remarks as a whole, in any language. */
const remarks = /^[ \t]{0,80}(?:\*|\/\/|\/\*|#(?![{(])|<!--).*$/gm;

/** A page without its scripts and styles, which a browser reads. */
function withoutRaw(text: string): string {
  return applyEdits(
    text,
    [...rawElements(text)].map(({ start, end }) => ({ start, end, replacement: "" })),
  );
}

/** Whether a line brings a name into a script, as no other language does it (ECMA-262, section 16.2.2; CommonJS). */
function isScriptImport(line: string): boolean {
  return /^\s*import\s[^;]*?\bfrom\s*["']|^\s*(?:const|var|let)\s[^=]+=\s*require\(/.test(line);
}

/** What comes before a name where a program gives it to its templates: `app.locals.t = t`, `res.render("a", { t })`, `addGlobal("t", t)`. */
const givers =
  "(?:\\b(?:locals|imports|globals?|helpers?)\\b[\\w.]{0,40}(?:\\s{0,4},|\\s{0,4}=\\s{0,4}\\{|\\.|\\[|\\s{0,4}:\\s{0,4}\\{)[^;()]{0,200}?|\\badd(?:Global|Helper|Filter)\\(\\s{0,9}|\\b(?:render|renderFile|view)\\([^;()]{0,200}?\\{[^;()]{0,200}?)";

/**
 * The languages of a book's code in which the usual call stands already, or what makes it: in others nothing says that there is
 * such a function. Undefined where that is not asked, since the book says how lookups are written, and not by what a line of
 * scripts alone brings in, or has none.
 */
export function usualIn(
  book: BookConfig,
  code: () => Iterable<{ readonly file: string; readonly text: string }>,
): readonly string[] | undefined {
  const { call, import: line } = book.emit;
  if (call === undefined && (book.lookups.length === 0 || !usesDefaultCall(book.lookups))) return undefined;
  // A call that no code has yet is meant for all of it, unless it comes with a line of scripts.
  const isForAll = call !== undefined && ![line ?? []].flat().some(isScriptImport);
  const name = literally(calleeOf(call ?? defaultCall) ?? "");
  if (name === "") return undefined;
  const made = `^[ \\t]{0,40}(?:from|import|use)\\s[^\\n;]{0,300}(?<![\\w$])${name}(?!\\w)`;
  const stands = (behind: string) => new RegExp(`(?<![\\w$@.>:/-])${name}${behind}|${made}`, "m");
  const inBrackets = stands("\\s?\\(");
  const bare = stands("(?:\\s?\\(|\\s[\"':])");
  const gives = new RegExp(`${givers}(?<![\\w$.])["']?${name}(?![\\w$])`);
  const found = new Set<string>();
  for (const { file, text } of code()) {
    if (isScript(file)) {
      if (isForAll && bare.test(text)) found.add("script").add(rendered);
      else if (gives.test(text)) found.add(rendered);
      continue;
    }
    if (!bare.test(text)) continue;
    const dialect = dialectOf(file, text);
    const language = dialect?.language ?? languageOf(file);
    if (language === undefined || found.has(spokenIn(language, dialect))) continue;
    // Neither a remark nor a script inside of the page says that the page's own language has it.
    const own = (dialect ? withoutRaw(text) : text).replaceAll(remarks, "");
    const spoken = languageNamed(language);
    if ((spoken && !spoken.callsBare ? inBrackets : bare).test(own)) found.add(spokenIn(language, dialect));
  }
  return isForAll && found.size === 0 ? undefined : [...found].sort();
}

/** What a host writes in one place for a text: with values or without, with a plural, or on an element that takes expressions. */
export function templateIn(
  host: Host,
  slot: TemplateSlot,
  { pieces, context }: Literal,
  hasValues: boolean,
): string | undefined {
  const isPlural = host.plural !== undefined && countOf(pieces) !== undefined;
  const inSlot = (one: TemplateSlot) =>
    isPlural
      ? host.plural && host.plural[one]
      : ((hasValues ? host.withValues[one] : undefined) ?? host[one]);
  const call = (slot === "attribute" && inSlot("call")) || undefined;
  const bound = call === undefined ? undefined : host.attributeOn(context.element ?? "", call);
  return bound ?? (inSlot(slot) || undefined);
}
