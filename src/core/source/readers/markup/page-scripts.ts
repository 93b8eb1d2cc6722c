import type { Span } from "../../../text/span.js";
import { notices } from "../../../message/notices.js";
import { dialectByContent, islandMarks } from "../../dialects/index.js";
import type { Literal, Piece } from "../../model.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { readScript } from "../script/script.js";
import { shiftLiteral, shiftLookup } from "../shift.js";
import type { EmbeddedReader, Page } from "./page.js";
import type { MarkupElement } from "./tree.js";

const say = notices("extract", {
  template: {
    message: "it is in a template inside the page, which writes lookups in another way",
    remedy: "move the template to a file of its own, or the text by hand",
  },
  island: {
    message: "the template puts a value into it while it makes the script",
    remedy: "pass the value to the script, and move the text by hand",
  },
});

/** A letter that no code uses: a run of it is a name to a parser, and stands out in a string. */
const islandName = "\uA66E";

/** Types of script elements that hold code (HTML, section 4.12.1), or what is compiled to it. */
const scriptType =
  /^(?:module|(?:text|application)\/(?:x-)?(?:(?:java|ecma|type|live|j)script[-\d.]{0,5}|babel|[jt]sx))(?:\s*;.*)?$/i;

/** Types of script elements that hold templates of markup. */
const templateType =
  /^(?:text\/(?:html|template|ejs|mustache|tmpl|(?:x|ng)-[\w-]{0,40}(?:template|tmpl|handlebars|mustache)[\w-]{0,40}|ng-template|x-template)|x-tmpl[\w-]{0,40}|x-template)$/i;

/** Reads the content of a script element, which is code or a template of markup. */
export function readScriptElement(page: Page, element: MarkupElement): void {
  const type = element.attributes.find((attribute) => attribute.name === "type")?.raw ?? "";
  const lang = element.attributes.find((attribute) => attribute.name === "lang")?.raw ?? "js";
  if (templateType.test(type)) {
    for (const child of element.children) if (child.kind === "text") readPageTemplate(page, child);
    return;
  }
  if (type !== "" && !scriptType.test(type)) return;
  for (const child of element.children) {
    if (child.kind !== "text") continue;
    readScriptPart(
      page,
      `script.${lang === "ts" || /typescript/i.test(type) ? "ts" : lang === "tsx" ? "tsx" : "js"}`,
      child,
    );
  }
}

/** Reads a template that a page holds for its scripts, `<script type="text/html">`, as a page of its own. */
function readPageTemplate(page: Page, { start, end }: Span): void {
  const text = page.text.slice(start, end);
  // Values that the page itself puts out are there before a script sees the template.
  const isOfPage =
    page.dialect.codeInScripts === true &&
    !page.dialect.isProgram &&
    page.islands.some((one) => one.isForeign !== true && start <= one.start && one.end <= end);
  const dialect = isOfPage ? page.dialect : dialectByContent(text);
  // What is a program is read as a whole, the code in its templates too; of others it is read here, where its place is known.
  const readEmbedded: EmbeddedReader = page.dialect.isProgram
    ? () => ({ literals: [], lookups: [], mentions: [] })
    : page.readEmbedded;
  if (isOfPage) page.readAlone.push({ start, end });
  const read = page.readTemplate(text, dialect, readEmbedded);
  const isOther = dialect !== page.dialect && dialect.shown !== undefined;
  const literals = read.literals.map((literal) => {
    const shifted = shiftLiteral(literal, start);
    // A value of the browser's is none of the page's.
    const hasValues = dialect !== page.dialect && literal.pieces.some(({ kind }) => kind !== "text");
    return isOther || hasValues ? { ...shifted, obstacle: shifted.obstacle ?? say("template", {}) } : shifted;
  });
  const lookups = read.lookups.map((lookup) => shiftLookup(lookup, start));
  page.take({ literals, lookups, mentions: read.mentions });
}

/** Reads a part of the template as a script: a value that an island puts out stands as a name, or as part of a string. */
export function readScriptPart(page: Page, name: string, { start, end }: Span): void {
  const masked = page.masked.slice(start, end).replace(/\uE000/g, islandName);
  // What marks the script as text of an XML document is none of it.
  let code = masked
    .replace(/[\uE001\uE002]/g, " ")
    .replace(/<!\[CDATA\[|\]\]>/g, (mark) => " ".repeat(mark.length));
  let read = readScript(name, code, false, page.shapes);
  if (read.problems.length > 0 && masked.includes(islandMarks.code)) {
    // Code that puts out a value without saying so leaves a hole where it is taken for a statement.
    const named = masked.replace(/\uE001/g, islandName).replace(/\uE002/g, " ");
    const again = readScript(name, named, false, page.shapes);
    if (again.problems.length === 0) [code, read] = [named, again];
  }
  const found = page.shifted(read, start);
  const hasIslands = code.includes(islandName);
  page.take(
    hasIslands ? { ...found, literals: found.literals.map((literal) => withIslands(page, literal)) } : found,
  );
}

/** A string of a script with the islands in it as its arguments. */
function withIslands(page: Page, literal: Literal): Literal {
  if (!literal.pieces.some((piece) => piece.kind === "text" && piece.value.includes(islandName)))
    return literal;
  const unique = uniqueNames();
  const pieces = literal.pieces.flatMap((piece): Piece[] => {
    if (piece.kind !== "text") return [piece];
    const islands = page.islandsIn(piece.span.start, piece.span.end).filter(({ kind }) => kind === "output");
    let next = 0;
    return piece.value.split(/(\uA66E+)/).flatMap((value): Piece[] => {
      if (value === "") return [];
      const island = value.startsWith(islandName) ? islands[next++] : undefined;
      if (!island) return [{ kind: "text", value: value.replaceAll(islandName, ""), span: piece.span }];
      const code = page.text.slice(island.codeStart, island.codeEnd).trim();
      const name = unique(nameFromCode(code), code);
      return [
        {
          kind: "argument",
          name,
          code,
          span: { start: island.start, end: island.end },
          mayBeAbsent: false,
        },
      ];
    });
  });
  return { ...literal, pieces, obstacle: literal.obstacle ?? say("island", {}) };
}
