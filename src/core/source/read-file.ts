import { openMarksIn } from "./open-marks.js";
import { spanOfConstant } from "../catalog/formats/script/script.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";
import { notices } from "../message/notices.js";
import { readCode } from "./readers/code/code.js";
import { languageOf } from "./languages/index.js";
import { readMarkup, readScriptTemplate } from "./readers/markup/markup.js";
import type { EmbeddedReader } from "./readers/markup/page.js";
import { dialectOf, hasSharedEnding, isSharedProgram } from "./dialects/index.js";
import { tagged } from "./dialects/tagged/tagged.js";
import { isScript, startsAsXml } from "./readers/script/endings.js";
import { readScript } from "./readers/script/script.js";
import { byPlace, fixedText } from "./model.js";
import type { Literal, Lookup, LookupShapes, SourceFile, SourceProblem } from "./model.js";
import type { ExpressionContent } from "./readers/markup/expressions.js";
import { withWholeKeys } from "./key-paths.js";
import { withStringParts } from "./readers/string-parts.js";
import { withUses } from "./literal-uses.js";
import { withLanguages } from "./by-language/languages.js";
import { shiftLiteral, shiftLookup } from "./readers/shift.js";

/** Larger files are generated or minified: nobody writes text in them, and reading them takes long. In UTF-16 code units. */
export const largestFile = 5_000_000;

/** Reads a file of code by the reader that its name asks for. Never throws on bad code. */
export function readSource(file: string, text: string, bom: boolean, shapes: LookupShapes): SourceFile {
  const problem = unreadable(text);
  if (problem) {
    const none = empty(file, text, bom, shapes);
    // Keys may stand in it all the same.
    return { ...none, ...(problem.isUnwritten && { mentions: quotedIn(text) }), problems: [problem] };
  }
  const read = withoutDeclared(withoutConstant(readByName(file, text, bom, shapes), shapes), shapes);
  const literals = withStringParts(read.literals, text, shapes);
  // A text that a mark in a string makes its own key asks for that.
  const asked = literals.filter((one) => one.isBesideKey && !read.mentions.has(fixedText(one.pieces)));
  const mentions =
    asked.length === 0
      ? read.mentions
      : new Set([...read.mentions, ...asked.map(({ pieces }) => fixedText(pieces))]);
  const used = withUses(withTextsBesideKeys({ ...read, literals, mentions }));
  const source = withLanguages(used, shapes.sourceLanguage);
  const marked = shapes.marks.length > 0 ? withMarks(source, shapes) : source;
  return withWholeKeys(marked, shapes);
}

/**
 * A file without the texts that stand beside a key in an object or a tag as those of a book's lookups do, wherever the object goes:
 * `{ id: "quay.open", text: "Open now" }`; and without those of which an object of texts is made.
 */
function withoutDeclared(source: SourceFile, { descriptors, components, members }: LookupShapes): SourceFile {
  const keys = new Map<string, readonly KeyBeside[]>();
  for (const shape of [...descriptors.values(), ...components.values()])
    if ("key" in shape && shape.default !== undefined)
      keys.set(shape.default, [...(keys.get(shape.default) ?? []), keyBeside(shape.key)]);
  if (keys.size + members.size === 0) return source;
  const { text, literals } = source;
  const isDeclared = ({ context: { role, name = "", element }, span }: Literal) => {
    // What an object of texts is made of are its texts.
    const made =
      role === "property" ? element : role === "assignment" ? /^(.+?)[.[]/.exec(name)?.[1] : undefined;
    if (made !== undefined && members.has(made.replace(/^[$@]/, ""))) return true;
    const own = role === "property" || role === "attribute" ? keys.get(name) : undefined;
    if (!own) return false;
    const before = text.slice(Math.max(span.start - longestKey, 0), span.start);
    const behind = text.slice(span.end, span.end + longestKey);
    return own.some((key) => key.before.test(before) || key.behind.test(behind));
  };
  const left = literals.filter((literal) => !isDeclared(literal));
  return left.length === literals.length ? source : { ...source, literals: left };
}

/** So far from a text the key beside it stands at most, in code units. */
const longestKey = 300;

/** How a key stands before a text, and behind one. */
interface KeyBeside {
  readonly before: RegExp;
  readonly behind: RegExp;
}

/** A key as the property of an object or the attribute of a tag, by the name of that. */
function keyBeside(name: string): KeyBeside {
  const key = `["']?${literally(name)}["']?\\s{0,9}[:=]`;
  return {
    before: new RegExp(`[{,\\s]${key}[^;]{0,${longestKey}}$`),
    behind: new RegExp(`^["'\`]?[,\\s][^;{}<>]{0,99}?${key}`),
  };
}

/** The literals of a file, with those marked that a lookup is given right behind its key: `t("quay.open", "Open now")`. */
function withTextsBesideKeys(source: SourceFile): SourceFile {
  const { lookups, literals, text } = source;
  if (lookups.length === 0 || !literals.some(({ context }) => context.role === "argument")) return source;
  const ends = new Set(lookups.map(({ keySpan }) => keySpan.end));
  let isChanged = false;
  const marked = literals.map((literal) => {
    const { context, span } = literal;
    if (context.role !== "argument" || context.index !== 1) return literal;
    const before = text.slice(Math.max(span.start - 200, 0), span.start).trimEnd();
    if (!before.endsWith(",")) return literal;
    const end = span.start - (Math.min(span.start, 200) - before.slice(0, -1).trimEnd().length);
    if (!ends.has(end - 1)) return literal;
    isChanged = true;
    return { ...literal, isBesideKey: true as const };
  });
  return isChanged ? { ...source, literals: marked } : source;
}

/** A file's code without what stands in the constant that is its catalog. */
function withoutConstant(source: SourceFile, { constant }: LookupShapes): SourceFile {
  const span = constant === undefined ? undefined : spanOfConstant(source.text, constant);
  if (!span) return source;
  const isInside = (one: { readonly span: Span }) => one.span.start >= span.start && one.span.end <= span.end;
  return { ...source, literals: source.literals.filter((literal) => !isInside(literal)) };
}

/** The lookups that marks in the texts of a file are; what is nothing but marks is no text. */
function withMarks(source: SourceFile, { marks, openMarks, separators, home }: LookupShapes): SourceFile {
  // Where keys name their namespace, what does not is something else in such marks.
  const wanted = separators.namespace !== separators.parts && home === undefined ? separators.namespace : "";

  const open = openMarksIn(source.text, openMarks);
  const found = marks.flatMap((pattern) =>
    [...source.text.matchAll(pattern)].flatMap((match): Lookup[] => {
      const [whole, key = ""] = match;
      if (!key.includes(wanted)) return [];
      const at = match.index + whole.indexOf(key);
      return [
        {
          span: { start: match.index, end: match.index + whole.length },
          keySpan: { start: at, end: at + key.length },
          key: keyOfMark(key),
          argumentNames: undefined,
        },
      ];
    }),
  );
  if (found.length + open.length === 0) return source;
  const isMarked = ({ span, pieces }: Literal) =>
    found.some(({ keySpan }) => keySpan.start <= span.start && span.end <= keySpan.end) ||
    (found.some((one) => span.start <= one.span.start && one.span.end <= span.end) &&
      !/\p{L}/u.test(marks.reduce((text, pattern) => text.replaceAll(pattern, ""), fixedText(pieces))));
  return {
    ...source,
    literals: source.literals.filter((literal) => !isMarked(literal)),
    lookups: [...source.lookups, ...found, ...open].sort(byPlace),
  };
}

/** The key in a mark, composed where the template has values in it: `{{#say}}quay.{{name}}{{/say}}`. */
function keyOfMark(written: string): Lookup["key"] {
  const parts = written.split(/(\{\{[^{}]*\}\})/).filter((part) => part !== "");
  return parts.some((part) => part.startsWith("{{"))
    ? { kind: "composed", parts: parts.map((part) => (part.startsWith("{{") ? null : part)) }
    : { kind: "fixed", value: written };
}

function readByName(file: string, text: string, bom: boolean, shapes: LookupShapes): SourceFile {
  if (isScript(file) && startsAsXml(text)) return empty(file, text, bom, shapes);
  if (isScript(file)) return withTemplates(readScript(file, text, bom, shapes), shapes);
  const dialect = shapes.dialect?.(file) ?? dialectOf(file, text);
  if (!dialect) return readCode(languageOf(file) ?? "ruby", file, text, bom, shapes);
  const made = hasSharedEnding(file) && !isSharedProgram(file, text) ? "data" : madeKind(file);
  if (made === "data") return { ...empty(file, text, bom, shapes), dialect };
  const program = dialect.isProgram ? readCode("php", file, text, bom, shapes) : undefined;
  if (program && !/<[a-z!/]/i.test(text.replace(/<\?[\s\S]*?(?:\?>|$)/g, ""))) return program;
  const embedded: EmbeddedReader = (language, code) =>
    program ??
    (language === "php" ? readOpenPhp(file, code, shapes) : readCode(language, file, code, false, shapes));
  const read = made === "script" ? readScriptTemplate : readMarkup;
  const page = { ...read(file, text, bom, dialect, shapes, embedded), dialect };
  return program ? { ...page, problems: program.problems } : page;
}

/** A file of which nothing is read. */
function empty(file: string, text: string, bom: boolean, shapes: LookupShapes): SourceFile {
  return { ...readScript("empty.js", "", bom, shapes), file, text };
}

/** What a template makes, by the ending before its own: a page, a script, or what programs alone read. */
function madeKind(file: string): "page" | "script" | "data" {
  const inner = /\.(\w+)\.\w+$/.exec(file)?.[1] ?? "";
  // What crawlers read.
  if (/(?:^|\/)robots\.\w+(?:\.\w+)?$/.test(file)) return "data";
  if (/^(?:[cm]?js|ts|jsx|tsx|coffee)$/.test(inner)) return "script";
  return /^(?:css|s[ac]ss|less|json|ya?ml|sql|sh|bash|conf|cfg|ini|toml|service|properties|csv|env|ics|rss|atom|rb|py|go|java|cs|xsd|wsdl)$/.test(
    inner,
  )
    ? "data"
    : "page";
}

/** A script with what the templates of markup in it hold. */
function withTemplates(script: SourceFile, shapes: LookupShapes): SourceFile {
  const { templates = [], text } = script;
  if (templates.length === 0) return script;
  const literals = new Map<string, Literal>();
  const lookups = new Map<number, Lookup>();
  const idOf = ({ span }: Literal) => `${span.start}-${span.end}`;
  for (const literal of script.literals) literals.set(idOf(literal), literal);
  for (const lookup of script.lookups) lookups.set(lookup.keySpan.start, lookup);
  for (const { start, end } of templates) {
    const page = readMarkup(script.file, text.slice(start, end), false, tagged, shapes, () => ({
      literals: [],
      lookups: [],
      mentions: [],
    }));
    for (const found of page.literals) {
      const literal = shiftLiteral(found, start);
      const known = literals.get(idOf(literal));
      // What stands in an expression was read with the script; the page knows where its value goes.
      if (known && known.context.role !== "tagged") continue;
      literals.set(idOf(literal), {
        ...literal,
        obstacle: say("markup-template", {}),
      });
    }
    for (const found of page.lookups) {
      const lookup = shiftLookup(found, start);
      if (!lookups.has(lookup.keySpan.start)) lookups.set(lookup.keySpan.start, lookup);
    }
  }
  return {
    ...script,
    literals: [...literals.values()].sort(byPlace),
    lookups: [...lookups.values()].sort(byPlace),
  };
}

/** Reads PHP that stands without its opening tag. */
function readOpenPhp(file: string, code: string, shapes: LookupShapes): ExpressionContent {
  const open = "<?php ";
  const { literals, lookups, mentions } = readCode("php", file, open + code, false, shapes);
  return {
    literals: literals.map((one) => shiftLiteral(one, -open.length)),
    lookups: lookups.map((one) => shiftLookup(one, -open.length)),
    mentions,
  };
}

const say = notices("extract", {
  "markup-template": {
    message: "it is in a template of markup",
    remedy: "move it by hand, or into a component",
  },
});

const sayOf = notices("source", {
  "too-large": {
    message: "skipped: the file is too large to be written by hand",
    remedy: 'exclude it with the book\'s "ignore"',
  },
  nul: { message: "skipped: the file holds NUL bytes", remedy: 'exclude it with the book\'s "ignore"' },
  minified: { message: "skipped: the file is minified", remedy: 'exclude it with the book\'s "ignore"' },
});

function unreadable(text: string): SourceProblem | undefined {
  const span = { start: 0, end: 0 };
  if (text.length > largestFile) return { ...sayOf("too-large", {}), span, isUnwritten: true };
  if (text.includes("\0")) return { ...sayOf("nul", {}), span };
  const isMinified = text.length > 50_000 && text.length / (1 + (text.match(/\n/g)?.length ?? 0)) > 5_000;
  if (isMinified) return { ...sayOf("minified", {}), span, isUnwritten: true };
  return undefined;
}

/** What stands in quotes in a script that is not read, as far as it may be a key. */
function quotedIn(text: string): Set<string> {
  return new Set([...text.matchAll(/["'`]([\w.:/-]{2,200})["'`]/g)].map(([, quoted = ""]) => quoted));
}
