import { delimitedParts } from "../text/delimited.js";
import { findIslands, hasOpenEnding } from "../source/dialects/index.js";
import { languageNamed } from "../source/languages/index.js";
import { countOf, lookupValues, pluralExample, takesAll } from "./emit.js";
import { notices } from "../message/notices.js";
import { rawElements } from "../source/readers/markup/raw-elements.js";
import type { Span } from "../text/span.js";
import { importLineEdit, lacksImportPlace } from "./import-line.js";
import { shadowedName } from "./shadowed.js";
import { parseScript } from "../source/readers/script/parse.js";
import type { MessageReader } from "../message/parse.js";
import { literalMessage } from "../source/literal-message.js";
import { fixedText, type Literal, type Obstacle, type SourceFile } from "../source/model.js";
import { classKnown } from "./class-receiver.js";
import { type BookClasses, memberKnown, type Receiver } from "./member-receiver.js";
import { mixinKnown } from "./mixin-receiver.js";
import { lackingArgument, variableKnown } from "./scope-receiver.js";
import { methodKnown } from "./self-receiver.js";
import { lackingVariable } from "./variable-receiver.js";
import { type Host, isAttribute, templateIn } from "./hosts.js";
import { isJoined, isWholeContent, valueCode } from "./literal-place.js";

const say = notices("extract", {
  "before-setup": {
    message: "it says how the program is called, before what looks texts up is set up",
    remedy: "bring the lookup in by hand if it works that early, then extract again",
  },
  "before-loading": {
    message: "it tells why the program ends before the files are taken in that have the lookup",
    remedy: "leave it, or take in the file of the lookup before it, then extract again",
  },
  shadowed: {
    message: '"{name}" is a value here, and no lookup',
    remedy: 'rename the value "{name}", then extract again',
  },
  "no-plural": {
    message: "another lookup chooses the forms of plurals, and the book does not say how it is written here",
    remedy: "set emit.plural to that call, for example to {example}",
  },
  "form-by-helper": {
    message: '"{code}" chooses a word of the source language by a number',
    remedy: "write one message with a plural, or with forms as the book keeps them, then look that up",
  },
  "no-import-place": {
    message: 'this file has no place for "{line}", which the lookup needs',
    remedy: "write the lookup by hand with the whole name of what is called, or extract to a file of code",
  },
  "not-declared": {
    message: '"{name}" is not known in this file',
    remedy: "set emit.endings to the line that brings it in, or declare it here",
  },
  "tags-not-declared": {
    message: 'nothing in this page declares the tags "{prefix}:…", so they would be put out as they are',
    remedy: "declare them in the page, as a directive taglib does, then extract again",
  },
  lines: {
    message: "it goes over several lines of plain text, and a message would be one",
    remedy: "make a paragraph of its lines, or move each by hand",
  },
  "not-known": {
    message: '"{name}" is not known here: nothing in this function or file makes it',
    remedy: "make it known here, or set emit.endings to a call that is known everywhere",
  },
  "in-tag": {
    message: "it is in a tag that the template itself replaces, and the lookup is such a tag as well",
    remedy: "let the tag take a key, or move it by hand",
  },
  statements: {
    message: "several statements return it, and this is not a script of its own",
    remedy: "choose the words in a function of the component, or move them by hand",
  },
  message: {
    message: "it is already a message with plurals or cases",
    remedy: "move it into the catalog by hand, and pass it its values",
  },
  "at-load": {
    message: "it is evaluated when the file is loaded, before a locale is chosen",
    remedy: "move it into the method that uses it, or set emit.atLoad if your lookups work that early",
  },
  "inline-script": {
    message: "it is in a script inside markup, where no lookups are known",
    remedy: "move the script to a file of its own, or move the text by hand",
  },
  "odd-literal": {
    message: "a lookup cannot replace a literal written this way",
    remedy: "move it by hand",
  },
  rich: {
    message: "it contains elements, and the book has no way to write them",
    remedy: "set emit.rich, or restructure the sentence so that the elements enclose whole texts",
  },
  "plain-page": {
    message: "it is in a whole page without marks of a template, which a browser may get as it is",
    remedy: 'name the page in "dialects" if a program fills it in, or write it anew as a template',
  },
  "no-call": {
    message: "the book does not say how code of this language looks up a key, and none there does",
    remedy: "set emit.endings for its files, for example with the call {example}",
  },
  "no-expression": {
    message: "it is in an expression of the template, and the book says only how texts are put out",
    remedy: "set emit.endings to a call that such templates know, for example {example}",
  },
  "not-given": {
    message: 'templates of this kind know what they are given, and nothing gives them "{name}"',
    remedy: "give it to them where the program renders them, or set emit.content to what they know",
  },
  "no-template": {
    message: "the book does not say how a template of this kind looks up a key",
    remedy: "set emit.content and emit.attribute, for example to {example}",
  },
  escape: {
    message: "it contains a character that must be escaped on the page, and the usual lookup does not escape",
    remedy: "set emit.content and emit.attribute to templates that escape what the lookup returns",
  },
  "not-whole": {
    message:
      "other content stands beside it in its element, and the lookup is an attribute of the whole element",
    remedy: "put it into an element of its own",
  },
  "no-names": {
    message: "it has values, and calls of such templates are given theirs without names",
    remedy: "write the lookup by hand, as your function takes values",
  },
  "no-args": {
    message: "it has values, and the template of the book has no place for them",
    remedy: "put {args} into the template in emit",
  },
  value: {
    message: 'the value of "{code}" cannot be passed to a lookup as it is',
    remedy: "move what it does to the value out of the text, then extract again",
  },
  formatted: {
    message: '"{code}" is formatted in place',
    remedy: "format the value in a variable, or write the message by hand with a typed argument",
  },
  "too-many-choices": {
    message: "its words are chosen by a value in a way that no plural or select expresses",
    remedy: "write one message for each case",
  },
  "no-choices": {
    message: "its words are chosen by a value, and messages in {syntax} have no plurals or cases",
    remedy: 'set "plurals" to where the book keeps plural forms, or write one message for each case',
  },
});

/** Templates of plain text, as mails have them beside those of pages. */
const plainText = /\.(?:text|txt|plain)\.\w{1,12}$|\.(?:txt|text)$/;

/** Why a text of a template or of code other than script is not replaced; undefined where it is safe. */
export function hostRefusal(
  literal: Literal,
  source: SourceFile,
  host: Host,
  reader: MessageReader,
  classes?: BookClasses,
): Obstacle | undefined {
  const { form, context, pieces, written } = literal;
  if (literal.frame?.isStatement) return say("statements", {});
  if (written !== undefined) return say("message", {});
  // What is put together while the file is loaded has its language from then on.
  if (context.atLoad && host.kind === "code" && (!host.atLoad || isJoined(literal, source)))
    return say("at-load", {});
  if (literalMessage(pieces, reader) === undefined) return tooManyChoices(reader);
  const isExpression = form === "string" || form === "template";
  if (isExpression && host.kind === "markup" && isOfBrowser(literal, source)) return say("inline-script", {});
  if (
    isExpression &&
    !literal.frame &&
    !/^(?:["'`]|<<<|%[qQ(]|[frFRuUbB$@]{1,2}["']|[\p{L}\d_$@(!])/u.test(source.text.slice(literal.span.start))
  )
    return say("odd-literal", {});
  if (isExpression && host.language === "expression" && !takesCalls(source.text, literal.span))
    return say("no-template", { example: '"{{ t("{key}"{args}) }}"' });
  if (pieces.some(({ kind }) => kind === "tag") && host.rich === undefined) return say("rich", {});
  const values = lookupValues(pieces, valueCode);
  const slot = form === "attribute" ? "attribute" : isExpression ? "call" : "content";
  const template = templateIn(host, slot, literal, values.length > 0);
  const counted = countOf(pieces)?.name;
  if (template === undefined && counted !== undefined && host.plural !== undefined)
    return say("no-plural", { example: pluralExample });
  if (template === undefined && isExpression && host.kind === "code")
    return say("no-call", { example: JSON.stringify('lookUp("{key}"{args})') });
  if (template === undefined && host.notGiven !== undefined) return say("not-given", { name: host.notGiven });
  const isFilter =
    template !== undefined && source.dialect?.filtersInBrackets === true && / \| /.test(template);
  const isMisplaced = isFilter && isExpression && isInStatement(source.text, literal.span);
  if (
    (template === undefined || isMisplaced) &&
    isExpression &&
    host.kind === "markup" &&
    host.content !== undefined
  )
    return say("no-expression", { example: JSON.stringify('t("{key}"{args})') });
  if (template === undefined || (!isExpression && host.isForeign(source.text)))
    return say("no-template", { example: '"{{ t("{key}"{args}) }}"' });
  if (!isExpression && isPlainPage(source, template)) return say("plain-page", {});
  // Where no page folds them, line breaks are a part of what readers see.
  if (
    !isExpression &&
    plainText.test(source.file) &&
    source.text.slice(literal.span.start, literal.span.end).trim().includes("\n")
  )
    return say("lines", {});
  const receiver = receiverOf(template, source, literal.span, host, classes);
  if (receiver?.isKnown === false) return say("not-known", { name: receiver.name });
  const lacking = host.kind === "code" && !receiver ? lackingName(template, source, host) : undefined;
  if (lacking !== undefined) return say("not-declared", { name: lacking });
  if (host.kind === "code" && startsProgram(literal, source, host)) return say("before-setup", {});
  if (endsBefore(literal, source, host)) return say("before-loading", {});
  const shadowed = shadowedName(template, source, literal.span);
  if (shadowed !== undefined) return say("shadowed", { name: shadowed });
  const tags = isExpression ? undefined : lackingTags(template, source);
  if (tags !== undefined) return say("tags-not-declared", { prefix: tags });
  if (
    host.importLine !== undefined &&
    lacksImportPlace(host.language, source.dialect, source.text, host.importLine)
  )
    return say("no-import-place", { line: host.importLine });
  const variable = lackingVariable(template, source, literal.span);
  if (variable !== undefined) return say("not-known", { name: variable });
  if (form === "attribute" && /^\s*<[\w-]+:/.test(template) && (context.element ?? "").includes(":"))
    return say("in-tag", {});
  if (!isExpression && host.showsRaw(form) && /[&<"]/.test(fixedText(pieces))) return say("escape", {});
  if (form !== "attribute" && !isExpression && isAttribute(template) && !isWholeContent(source.text, literal))
    return say("not-whole", {});
  if (!takesAll(template, values, counted)) return say("no-args", { args: "{args}" });
  if (values.length > 0 && !host.takesNames) return say("no-names", {});
  for (const { code, piece } of values) {
    const island = source.text.slice(piece.span.start, piece.span.end);
    if (!isExpression && !host.readsIsland(island)) return say("value", { code: island });
    // A quote would end the attribute that the lookup is.
    if (!isExpression && isAttribute(template) && code?.includes('"')) return say("value", { code: island });
    // `echo $a, $b` puts out several values, and a message would take the first.
    if (
      host.kind === "markup" &&
      !languageNamed(host.language)?.callsBare &&
      code !== undefined &&
      delimitedParts(code).length > 1
    )
      return say("value", { code: island });
    // What is no expression by itself was misread: a value is passed whole or not at all.
    if (
      host.kind === "markup" &&
      host.language === "script" &&
      parseScript("value.ts", `(${code}\n)`).problems.length > 0
    )
      return say("value", { code: island });
    const helped = formByHelper(code);
    if (helped) return helped;
    if (languageNamed(context.language)?.formatsInPlace?.(code)) return say("formatted", { code });
    // Messages in percent signs keep the letter by which a value is written; in others it would be written anew.
    const letter = piece.kind === "argument" ? (piece.letter ?? "") : "";
    if (/^[oxXeEfFgGcqb]$/.test(letter) && !/^(?:printf|percent-paren)$/.test(reader.syntax.name))
      return say("formatted", { code: `%${letter}` });
  }
  return undefined;
}

/** A call that gives one of two words by a number, the words among what it is given: `pluralize(count, "boat")`. */
const choosesForm = /(?<![\w$])(?:pluralize|plural|inflect)\w{0,20}[( ][^()"']{0,200}["']\p{L}/u;

/** Why the value of a text keeps it from being a message, where a helper chooses words of its language; undefined for other values. */
export function formByHelper(code: string): Obstacle | undefined {
  return choosesForm.test(code) ? say("form-by-helper", { code }) : undefined;
}

/** What a lookup in code is asked of, as the file's language finds it; undefined where it is brought in, or names nothing. */
function receiverOf(
  template: string,
  source: SourceFile,
  span: Span,
  { kind, language: written, importLine }: Host,
  classes: BookClasses | undefined,
): Receiver | undefined {
  const language = importLine === undefined ? languageNamed(written)?.name : undefined;
  if (language === undefined) return undefined;
  const lacking =
    kind === "code" && written !== "php" ? lackingArgument(template, source, span, language) : undefined;
  if (lacking) return lacking;
  const ofSpace = classes && classKnown(template, source.text, language, classes);
  if (ofSpace || kind !== "code") return ofSpace;
  const ofClasses =
    classes &&
    (memberKnown(template, source, span, language, classes) ??
      mixinKnown(template, source, span, language, classes) ??
      methodKnown(template, source, span, language, classes));
  return ofClasses ?? variableKnown(template, source, span, language);
}

/** Whether a text says how the program is called that the file starts, where the lookup would have to be brought in first. */
function startsProgram(
  { context }: Literal,
  { text, dialect }: SourceFile,
  { language, importLine }: Host,
): boolean {
  const callee = (context.role === "argument" ? context.name : context.element) ?? "";
  return (
    importLine !== undefined &&
    languageNamed(language)?.runsBeforeSetup?.(callee, text, importLine) === true &&
    importLineEdit(language, dialect, text, importLine) !== undefined
  );
}

/** Whether a text tells why the program ends before it has the lookup. */
function endsBefore({ context, span }: Literal, { text }: SourceFile, { language }: Host): boolean {
  const callee = context.role === "argument" ? (context.name ?? "") : "";
  return languageNamed(language)?.endsBeforeLoading?.(callee, text, span.start) === true;
}

/**
 * The prefix of the tag that a template writes into a page (JSP), where nothing in the page declares it (Jakarta Server Pages 3.1,
 * "The taglib Directive"): such a tag is put out as it is. A page whose declarations are in other files uses or includes them.
 */
function lackingTags(template: string, { text, dialect }: SourceFile): string | undefined {
  const prefix = dialect?.name === "jsp" ? /^\s*<([a-z][\w-]{0,40}):[a-z]/i.exec(template)?.[1] : undefined;
  if (prefix === undefined || prefix === "jsp") return undefined;
  const declared = new Set(
    [...text.matchAll(/\bprefix\s{0,9}=\s{0,9}["']([\w-]{1,40})["']|\bxmlns:([\w-]{1,40})\s{0,9}=/g)].map(
      ([, directive, namespace]) => directive ?? namespace,
    ),
  );
  const used = [...text.matchAll(/<([a-z][\w-]{0,40}):[a-z]/gi)].map(([, name]) => name);
  const isElsewhere =
    /<%@\s{0,9}include\b|<jsp:directive\.include\b/.test(text) ||
    used.some((name) => name !== "jsp" && !declared.has(name));
  return declared.has(prefix) || used.includes(prefix) || isElsewhere ? undefined : prefix;
}

/** Whether marks of a template are to stand in a whole page that has none: readers of it may get it as it is. */
function isPlainPage(source: SourceFile, template: string): boolean {
  const { file, text, dialect } = source;
  return (
    dialect?.name === "html" &&
    islandsOf(source).length === 0 &&
    hasOpenEnding(file) &&
    /^\s*(?:[{$#]\{|\{[%$]|<%|\[\[)/.test(template) &&
    /<!doctype\s|<html[\s>]/i.test(text.slice(0, 2_000))
  );
}

/** Whether a string is part of a script that a browser runs, while the template around it runs on a server or is no script. */
function isOfBrowser({ span, context }: Literal, source: SourceFile): boolean {
  if (isInScript(source.text, span.start)) return true;
  const { dialect } = source;
  if (!dialect?.codeInScripts || dialect.isComponent) return false;
  if (context.language === dialect.language && context.language !== "script") return false;
  return !islandsOf(source).some(({ start, end }) => start <= span.start && span.end <= end);
}

/** Whether a place is in an attribute whose value is run, or which has a language of its own: `(click)="…"`, `*ngIf="…"`. */
function isInStatement(text: string, { start }: Span): boolean {
  const before = text.slice(Math.max(start - 600, 0), start);
  const tag = before.slice(before.lastIndexOf("<"));
  const name = /\s([^\s"'=<>]{1,80})\s{0,9}=\s{0,9}(?:"[^"]{0,500}|'[^']{0,500})$/.exec(tag)?.[1];
  return name !== undefined && /^(?:\(|\*|on-|[@#])|^ng-(?:click|submit|change|init|repeat)/.test(name);
}

function isInScript(text: string, offset: number): boolean {
  for (const { name, start, end } of rawElements(text))
    if (name === "script" && start <= offset && offset < end) return true;
  return false;
}

const islandsByFile = new WeakMap<SourceFile, readonly Span[]>();

function islandsOf(source: SourceFile): readonly Span[] {
  let found = islandsByFile.get(source);
  if (!found)
    islandsByFile.set(source, (found = source.dialect ? findIslands(source.text, source.dialect) : []));
  return found;
}

/** Whether a string in a template language stands where a call can: behind the colon of a filter, or in a tag's own settings, none can. */
function takesCalls(text: string, { start }: Span): boolean {
  const before = text.slice(Math.max(0, start - 200), start);
  const island = before.slice(Math.max(before.lastIndexOf("{{"), before.lastIndexOf("{%")));
  return !/\|\s*\w+\s*:\s*$|^\{%-?\s*(?:include|with|url|trans|translate|block|extends|load|cycle|firstof)\b/.test(
    island,
  );
}

/** What a lookup names that a file of code neither declares nor brings in, where its language wants that. */
function lackingName(
  template: string,
  { text }: SourceFile,
  { language, importLine }: Host,
): string | undefined {
  const { declared, ownFunctions } = languageNamed(language) ?? {};
  // A function alone may be everywhere in most languages; an object is somewhere.
  const name = (ownFunctions ? /^\s*([A-Za-z_]\w*)[.(]/ : /^\s*([A-Za-z_]\w*)\./).exec(template)?.[1];
  if (declared === undefined || name === undefined || importLine !== undefined) return undefined;
  if (/^(?:this|self|base|super|cls)$/.test(name) || (declared === "values" && /^\p{Lu}/u.test(name)))
    return undefined;
  const isFunction = /^\s*\w+\(/.test(template);
  const known =
    isFunction && ownFunctions !== undefined
      ? ownFunctions.replaceAll("NAME", name)
      : `(?<![\\w.])${name}(?!\\w)`;
  return new RegExp(known, "m").test(text) ? undefined : name;
}

/** Why words that code chooses stay: the book's messages have no room for them, or nobody's have. */
export function tooManyChoices({ syntax, plurals }: MessageReader): Obstacle {
  return syntax.choices !== undefined || plurals !== "inline"
    ? say("too-many-choices", {})
    : say("no-choices", { syntax: syntax.name });
}
