import { delimited } from "../../../text/delimited.js";
import { lineIndex } from "../../../text/line-index.js";
import type { Span } from "../../../text/span.js";
import { blocksOf, type Dialect } from "../../dialects/dialect.js";
import { withDivided } from "../../divided.js";
import { byPlace, type Literal, type LookupShapes, type SourceFile } from "../../model.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { readAttributes } from "./attributes.js";
import { readIslandCode } from "./island-code.js";
import { joinChoices } from "./join-choices.js";
import { Page, type EmbeddedReader } from "./page.js";
import { readScriptElement, readScriptPart } from "./page-scripts.js";
import { blanked, pageComments } from "./parts.js";
import { readSentences } from "./sentences.js";
import { readTree, type MarkupElement } from "./tree.js";

/** Reads a page or template: text between tags, attributes, code in islands and in script elements. Never throws on bad markup. */
export function readMarkup(
  file: string,
  text: string,
  bom: boolean,
  dialect: Dialect,
  shapes: LookupShapes,
  readEmbedded: EmbeddedReader,
): SourceFile {
  const page = pageOf(text, dialect, shapes, readEmbedded);
  readPage(page);
  return withDivided(found(page, joinChoices(page.literals, text), file, bom), page.islands);
}

/** Reads a template of a script: code in another language that puts together a script for the browser. */
export function readScriptTemplate(
  file: string,
  text: string,
  bom: boolean,
  dialect: Dialect,
  shapes: LookupShapes,
  readEmbedded: EmbeddedReader,
): SourceFile {
  const page = pageOf(text, { ...dialect, codeInScripts: true }, shapes, readEmbedded);
  page.isScript = true;
  readScriptPart(page, "script.js", { start: 0, end: text.length });
  readIslandCode(page, readTree(""));
  applySkips(page);
  return found(page, page.literals, file, bom);
}

function pageOf(text: string, dialect: Dialect, shapes: LookupShapes, readEmbedded: EmbeddedReader): Page {
  return new Page(text, dialect, shapes, readEmbedded, (inner, innerDialect, readInner) =>
    readMarkup("template.html", inner, false, innerDialect, shapes, readInner),
  );
}

/** Whether a string of a script stands where one is filled in: `/*[[#{boat.title}]]*\/ "Sea Rose"`. */
function isBesideInlined(text: string, { span }: Literal): boolean {
  return /[\])]\]\*\/\s{0,9}$/.test(text.slice(Math.max(span.start - 20, 0), span.start));
}

function found(
  { text, lookups, mentions, problems, dialect }: Page,
  read: Literal[],
  file: string,
  bom: boolean,
): SourceFile {
  const literals = dialect.fills ? read.filter((one) => !isBesideInlined(text, one)) : read;
  literals.sort(byPlace);
  lookups.sort(byPlace);
  return { file, text, bom, lines: lineIndex(text), literals, lookups, mentions, problems };
}

/** Elements whose content is no text of the page. */
const skippedElements = new Set(["script", "style"]);

function readPage(page: Page): void {
  const blocks = (page.dialect.codeBlocks?.(page.text, page.islands) ?? []).filter(
    ({ start, end }) => !/^\s{0,40}<(?:script|style|link|template)\b/im.test(page.masked.slice(start, end)),
  );
  for (const block of blocks) readScriptPart(page, "script.js", block);
  page.ownBlocks = ofOtherUse(page);
  page.masked = [...blocks, ...page.ownBlocks].reduce((text, span) => blanked(text, span), page.masked);
  const root = readTree(page.masked, page.dialect.elementsInText);
  readElements(page, root);
  readIslandCode(page, root);
  applySkips(page);
}

/** What stands in blocks of islands whose content is looked up already, or is no text. */
function ofOtherUse(page: Page): readonly Span[] {
  const { closeOfOther } = page.dialect;
  if (!closeOfOther) return [];
  let close: string | undefined;
  return blocksOf(
    page.text,
    page.islands,
    (code) => (close = closeOfOther(code)) !== undefined,
    (code) => (close !== undefined && code.startsWith(close) ? -1 : 0),
  );
}

function readElements(page: Page, parent: MarkupElement): void {
  const { exempt: outer, isAsItIs } = page;
  page.exempt = exemption(page, parent) ?? outer;
  page.isAsItIs = isAsItIs || parent.attributes.some(({ name }) => name === page.dialect.asItIs);
  if (parent.name !== "") readAttributes(page, parent);
  const name = parent.name.toLowerCase();
  if (name === "script") readScriptElement(page, parent);
  else if (!skippedElements.has(name)) {
    // What is filled in by an attribute only shows what the page looks like.
    if (!isFilled(page, parent)) {
      if (!page.isLookupElement(parent)) readSentences(page, parent);
      for (const child of parent.children) if (child.kind === "element") readElements(page, child);
    }
  }
  page.exempt = outer;
  page.isAsItIs = isAsItIs;
}

function isFilled({ dialect: { fills } }: Page, { attributes }: MarkupElement): boolean {
  return (
    fills !== undefined && attributes.some(({ name, raw = "" }) => fills.filledBy(name, raw) === "content")
  );
}

function exemption(page: Page, element: MarkupElement): string | undefined {
  const value = (name: string) =>
    element.attributes.find((attribute) => attribute.name.toLowerCase() === name)?.raw;
  if (value("translate")?.toLowerCase() === "no") return "translate=no";
  const lang = /^(html|script|style|template)$/i.test(element.name) ? undefined : value("lang");
  const language = lang?.split("-")[0]?.toLowerCase();
  if (language && /^[a-z]{2,3}$/.test(language) && language !== page.shapes.sourceLanguage)
    return `lang=${lang}`;
  return undefined;
}

/** Comments of the page speak for what follows them; those in its code were heard by the reader of that code. */
function applySkips(page: Page): void {
  const marks: CommentMarks = new Map();
  const lines = lineIndex(page.text);
  if (page.text.includes("fond:"))
    for (const [open, close] of pageComments)
      for (const { start, end } of delimited(page.text, open, close)) {
        const comment = page.text.slice(start, end);
        if (comment.includes("fond:")) markComment(marks, comment, lines.position(end - 1).line);
      }
  const marked = applyMarks(page.literals, marks, lines);
  page.literals.splice(0, page.literals.length, ...marked);
}
