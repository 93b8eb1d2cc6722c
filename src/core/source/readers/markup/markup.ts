import { withDivided } from "../../divided.js";
import { lazily } from "../../../text/lazy.js";
import { isProgramText } from "./program-text.js";
import { holdsMarkup, inlineElements, lineBreaks, lookupElement } from "../../../text/html-elements.js";
import { delimited } from "../../../text/delimited.js";
import { rawElements } from "./raw-elements.js";
import { decodeHTML } from "entities";
import { lineIndex } from "../../../text/line-index.js";
import type { Span } from "../../../text/span.js";
import { notices } from "../../../message/notices.js";
import { byPlace } from "../../model.js";
import type {
  Literal,
  LiteralContext,
  Lookup,
  LookupShapes,
  Piece,
  SourceFile,
  SourceProblem,
} from "../../model.js";
import { blanksAhead, blanksBehind, hasLetters, trimEnds } from "../../pieces.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { readScript } from "../script/script.js";
import { joinChoices } from "./join-choices.js";
import { shiftLiteral, shiftLookup } from "../shift.js";
import { placed, readPlainExpression, readScriptExpression, type ExpressionContent } from "./expressions.js";
import { blocksOf, type Dialect, type Island, type IslandLanguage } from "../../dialects/dialect.js";
import { dialectByContent, findIslands, islandMarks, maskIslands } from "../../dialects/index.js";
import {
  readTree,
  type MarkupAttribute,
  type MarkupElement,
  type MarkupNode,
  type MarkupText,
} from "./tree.js";
import { attributeLookups, attributesFilled, tagLookups } from "./element-lookups.js";
import { attributeContext, contentContext } from "./element-places.js";
import { writtenMessage } from "./in-mark.js";
import { classMarksOf, isMark, isMarkOf, markingOf, type Marking } from "./marks.js";
import {
  blanked,
  boundName,
  elementAt,
  endOf,
  headIsland,
  isExpression,
  pageComments,
  splitText,
  withTagNames,
} from "./parts.js";
import { isOneElement, withoutWidgets } from "./widgets.js";

/** Reads the code of a template's islands in a language that has a reader of its own; the text is masked outside of them. */
export type EmbeddedReader = (
  language: Exclude<IslandLanguage, "script" | "expression">,
  text: string,
  shapes: LookupShapes,
) => ExpressionContent;

/** Reads a page or template: text between tags, attributes, code in islands and in script elements. Never throws on bad markup. */
export function readMarkup(
  file: string,
  text: string,
  bom: boolean,
  dialect: Dialect,
  shapes: LookupShapes,
  readEmbedded: EmbeddedReader,
): SourceFile {
  const reader = new MarkupReader(text, dialect, shapes, readEmbedded);
  reader.read();
  return withDivided(found(reader, joinChoices(reader.literals, text), file, text, bom), reader.islands);
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
  const reader = new MarkupReader(text, { ...dialect, codeInScripts: true }, shapes, readEmbedded);
  reader.readScriptTemplate();
  return found(reader, reader.literals, file, text, bom);
}

export function found(
  { lookups, mentions, problems }: MarkupReader,
  literals: Literal[],
  file: string,
  text: string,
  bom: boolean,
): SourceFile {
  literals.sort(byPlace);
  lookups.sort(byPlace);
  return { file, text, bom, lines: lineIndex(text), literals, lookups, mentions, problems };
}

const say = notices("extract", {
  "attribute-markup": {
    message: "it is markup in an attribute's value",
    remedy: "move the markup out of it, or the text by hand",
  },
  template: {
    message: "it is in a template inside the page, which writes lookups in another way",
    remedy: "move the template to a file of its own, or the text by hand",
  },
  "page-expression": {
    message: "it is in an expression of the page, where no lookup can be written",
    remedy: "choose between two lookups outside of the expression, by hand",
  },
  island: {
    message: "the template puts a value into it while it makes the script",
    remedy: "pass the value to the script, and move the text by hand",
  },
});

/** A letter that no code uses: a run of it is a name to a parser, and stands out in a string. */
const islandName = "\uA66E";

const emptyElements = new Set("br wbr img input hr svg".split(" "));

/** Types of script elements that hold code (HTML, section 4.12.1), or what is compiled to it. */
const scriptType =
  /^(?:module|(?:text|application)\/(?:x-)?(?:(?:java|ecma|type|live|j)script[-\d.]{0,5}|babel|[jt]sx))(?:\s*;.*)?$/i;

/** Types of script elements that hold templates of markup. */
const templateType =
  /^(?:text\/(?:html|template|ejs|mustache|tmpl|(?:x|ng)-[\w-]{0,40}(?:template|tmpl|handlebars|mustache)[\w-]{0,40}|ng-template|x-template)|x-tmpl[\w-]{0,40}|x-template)$/i;

/** Elements whose content is no text of the page. */
const skippedElements = new Set(["script", "style"]);

class MarkupReader {
  /** Whether elements are part of a sentence, and whether they are empty: asked at each level above them. */
  private readonly inline = new Map<MarkupElement, boolean>();
  private readonly empty = new Map<MarkupElement, boolean>();
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly problems: SourceProblem[] = [];
  readonly islands: readonly Island[];
  /** The text with its islands, and later the blocks of scripts, taken out; places stay. */
  private masked: string;
  /** Blocks whose content is looked up already, or is no text. */
  private ownBlocks: readonly Span[] = [];
  /** Why literals here are not to be translated: the markup says so. */
  private exempt: string | undefined = undefined;

  constructor(
    private readonly text: string,
    private readonly dialect: Dialect,
    private readonly shapes: LookupShapes,
    private readonly readEmbedded: EmbeddedReader,
  ) {
    // A lookup's output is a text of its own: it parts what stands around it, as other code does.
    this.islands = [...headIsland(text), ...findIslands(this.maskedScripts(), dialect)].map((island) =>
      island.kind === "output" && this.holdsLookup(text.slice(island.codeStart, island.codeEnd))
        ? { ...island, kind: "code" as const, isShown: true }
        : island,
    );
    this.masked = withTagNames(maskIslands(text, this.islands));
  }

  read(): void {
    const blocks = (this.dialect.codeBlocks?.(this.text, this.islands) ?? []).filter(
      ({ start, end }) => !/^\s{0,40}<(?:script|style|link|template)\b/im.test(this.masked.slice(start, end)),
    );
    for (const block of blocks) this.scriptCode("script.js", block);
    this.ownBlocks = this.ofOtherUse();
    this.masked = [...blocks, ...this.ownBlocks].reduce((text, span) => blanked(text, span), this.masked);
    const root = readTree(this.masked, this.dialect.elementsInText);
    this.elements(root);
    this.islandCode(root);
    this.applySkips();
  }

  /** What stands in blocks of islands whose content is looked up already, or is no text. */
  private ofOtherUse(): readonly Span[] {
    const { closeOfOther } = this.dialect;
    if (!closeOfOther) return [];
    let close: string | undefined;
    return blocksOf(
      this.text,
      this.islands,
      (code) => (close = closeOfOther(code)) !== undefined,
      (code) => (close !== undefined && code.startsWith(close) ? -1 : 0),
    );
  }

  private holdsLookup(code: string): boolean {
    const called = [...code.matchAll(/(?<![\w.$])([\w$.]+)\s*(?:\(\s*)?(?=["':])/g)].some((match) =>
      this.shapes.calls.has(match[1] ?? ""),
    );
    return (
      called ||
      [...code.matchAll(/["'`]\s*\|(?!\|)\s*([\w$]+)/g)].some((match) =>
        this.shapes.filters.has(match[1] ?? ""),
      )
    );
  }

  /** Braces in scripts and styles are no islands: those parts are blanked while islands are looked for. */
  private maskedScripts(): string {
    if (this.dialect.codeInScripts) return this.text;
    let masked = "";
    let at = 0;
    for (const { contentStart, contentEnd } of rawElements(this.text)) {
      masked += this.text.slice(at, contentStart) + " ".repeat(contentEnd - contentStart);
      at = contentEnd;
    }
    return masked + this.text.slice(at);
  }

  private elements(parent: MarkupElement): void {
    const outer = this.exempt;
    this.exempt = this.exemption(parent) ?? outer;
    if (parent.name !== "") this.attributes(parent);
    const name = parent.name.toLowerCase();
    if (name === "script") this.script(parent);
    else if (!skippedElements.has(name)) {
      if (!this.isLookupElement(parent)) this.runs(parent);
      for (const child of parent.children) if (child.kind === "element") this.elements(child);
    }
    this.exempt = outer;
  }

  private exemption(element: MarkupElement): string | undefined {
    const value = (name: string) =>
      element.attributes.find((attribute) => attribute.name.toLowerCase() === name)?.raw;
    if (value("translate")?.toLowerCase() === "no") return "translate=no";
    const lang = /^(html|script|style|template)$/i.test(element.name) ? undefined : value("lang");
    const language = lang?.split("-")[0]?.toLowerCase();
    if (language && /^[a-z]{2,3}$/.test(language) && language !== this.shapes.sourceLanguage)
      return `lang=${lang}`;
    return undefined;
  }

  private script(element: MarkupElement): void {
    const type = element.attributes.find((attribute) => attribute.name === "type")?.raw ?? "";
    const lang = element.attributes.find((attribute) => attribute.name === "lang")?.raw ?? "js";
    if (templateType.test(type)) {
      for (const child of element.children) if (child.kind === "text") this.template(child);
      return;
    }
    if (type !== "" && !scriptType.test(type)) return;
    for (const child of element.children) {
      if (child.kind !== "text") continue;
      this.scriptCode(
        `script.${lang === "ts" || /typescript/i.test(type) ? "ts" : lang === "tsx" ? "tsx" : "js"}`,
        child,
      );
    }
  }

  /** Reads a template that a page holds for its scripts, `<script type="text/html">`, as a page of its own. */
  private template({ start, end }: Span): void {
    const text = this.text.slice(start, end);
    // Values that the page itself puts out are there before a script sees the template.
    const isOfPage =
      this.dialect.codeInScripts === true &&
      !this.dialect.isProgram &&
      this.islands.some((one) => one.isForeign !== true && start <= one.start && one.end <= end);
    const dialect = isOfPage ? this.dialect : dialectByContent(text);
    // What is a program is read as a whole, the code in its templates too; of others it is read here, where its place is known.
    const readEmbedded: EmbeddedReader = this.dialect.isProgram
      ? () => ({ literals: [], lookups: [], mentions: [] })
      : this.readEmbedded;
    if (isOfPage) this.readAlone.push({ start, end });
    const read = readMarkup("template.html", text, false, dialect, this.shapes, readEmbedded);
    const isOther = dialect !== this.dialect && dialect.shown !== undefined;
    const literals = read.literals.map((literal) => {
      const shifted = shiftLiteral(literal, start);
      return isOther ? { ...shifted, obstacle: shifted.obstacle ?? say("template", {}) } : shifted;
    });
    const lookups = read.lookups.map((lookup) => shiftLookup(lookup, start));
    this.take({ literals, lookups, mentions: read.mentions });
  }

  /** Reads a part of the template as a script: a value that an island puts out stands as a name, or as part of a string. */
  private scriptCode(name: string, { start, end }: Span): void {
    const masked = this.masked.slice(start, end).replace(/\uE000/g, islandName);
    // What marks the script as text of an XML document is none of it.
    let code = masked
      .replace(/[\uE001\uE002]/g, " ")
      .replace(/<!\[CDATA\[|\]\]>/g, (mark) => " ".repeat(mark.length));
    let read = readScript(name, code, false, this.shapes);
    if (read.problems.length > 0 && masked.includes(islandMarks.code)) {
      // Code that puts out a value without saying so leaves a hole where it is taken for a statement.
      const named = masked.replace(/\uE001/g, islandName).replace(/\uE002/g, " ");
      const again = readScript(name, named, false, this.shapes);
      if (again.problems.length === 0) [code, read] = [named, again];
    }
    const found = this.shifted(read, start);
    const hasIslands = code.includes(islandName);
    this.take(
      hasIslands ? { ...found, literals: found.literals.map((literal) => this.withIslands(literal)) } : found,
    );
  }

  /** A string of a script with the islands in it as its arguments. */
  private withIslands(literal: Literal): Literal {
    if (!literal.pieces.some((piece) => piece.kind === "text" && piece.value.includes(islandName)))
      return literal;
    const unique = uniqueNames();
    const pieces = literal.pieces.flatMap((piece): Piece[] => {
      if (piece.kind !== "text") return [piece];
      const islands = this.islandsIn(piece.span.start, piece.span.end).filter(
        ({ kind }) => kind === "output",
      );
      let next = 0;
      return piece.value.split(/(\uA66E+)/).flatMap((value): Piece[] => {
        if (value === "") return [];
        const island = value.startsWith(islandName) ? islands[next++] : undefined;
        if (!island) return [{ kind: "text", value: value.replaceAll(islandName, ""), span: piece.span }];
        const code = this.text.slice(island.codeStart, island.codeEnd).trim();
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

  /** Reads the whole file as a script with islands in it. */
  readScriptTemplate(): void {
    this.scriptCode("script.js", { start: 0, end: this.text.length });
    this.isScript = true;
    this.islandCode(readTree(""));
    this.applySkips();
  }

  private isScript = false;
  /** Attributes whose value is code of the template's own language, `:options="['all' => 'All']"`, and where it goes. */
  private readonly boundCode: (Span & { readonly place: LiteralContext })[] = [];

  private shifted(source: SourceFile, by: number): ExpressionContent {
    const problem = source.problems[0];
    if (problem && this.problems.length === 0 && !/[\uE000-\uE002]/.test(this.masked))
      this.problems.push({
        ...problem,
        span: { start: problem.span.start + by, end: problem.span.end + by },
      });
    return {
      literals: source.literals.map((one) => shiftLiteral(one, by)),
      lookups: source.lookups.map((one) => shiftLookup(one, by)),
      mentions: source.mentions,
    };
  }

  private take({ literals, lookups, mentions }: ExpressionContent): void {
    for (const literal of literals)
      this.literals.push(this.exempt === undefined ? literal : { ...literal, skipped: this.exempt });
    this.lookups.push(...lookups);
    for (const mention of mentions) this.mentions.add(mention);
  }

  private attributes(element: MarkupElement): void {
    const component = this.shapes.components.get(element.name);
    const marks = new Set<string>();
    for (const { name } of element.attributes) {
      for (const mark of this.shapes.marked.keys())
        if (name.startsWith(`${mark}-`)) marks.add(name.slice(mark.length + 1));
    }
    for (const { attributes = [] } of classMarksOf(this.shapes, element))
      for (const name of attributes) marks.add(name);
    const filled = attributesFilled(this.shapes, element);
    for (const attribute of element.attributes) {
      const { raw, name } = attribute;
      if (filled.has(name)) continue;
      if (raw === undefined || raw === "" || isMark(this.shapes, name)) continue;
      if (isMarkOf(this.shapes, element, name)) {
        this.mentions.add(raw);
        continue;
      }
      const asked = attributeLookups(this.shapes, this.masked, element, attribute, component);
      if (asked) this.lookups.push(...asked);
      if (asked) continue;
      const tags = tagLookups(this.shapes, this.text, attribute);
      this.lookups.push(...tags.lookups);
      if (tags.isAll) continue;
      const isGiven = this.dialect.givesByAt && name.startsWith("@");
      const bound = this.dialect.bindsAttributes && !isGiven ? boundName(name) : undefined;
      if (bound !== undefined) {
        const isEvent = bound.kind === "event";
        const context = attributeContext(this.dialect, element, bound.name);
        if (this.dialect.language === "php" && /^:[\w-]+$/.test(name)) {
          const { valueStart: start, valueEnd: end } = attribute;
          if (!/[\uE000-\uE002]/.test(this.masked.slice(start, end)))
            this.boundCode.push({ start, end, place: context });
          continue;
        }
        const inner = this.dialect.bindsInBraces
          ? undefined
          : readScriptExpression(
              this.text,
              attribute.valueStart,
              attribute.valueEnd,
              this.shapes,
              isEvent ? undefined : bound.kind === "content" ? contentContext(element) : context,
            );
        if (inner) this.take(inner);
        continue;
      }
      if (
        /^on[a-z]+$/i.test(name) &&
        /["'`]/.test(raw) &&
        !raw.includes("&") &&
        !/[\uE000-\uE002]/.test(this.masked.slice(attribute.valueStart, attribute.valueEnd))
      ) {
        this.take(
          this.shifted(
            readScript("handler.js", `(()=>{${raw}\n})`, false, this.shapes),
            attribute.valueStart - "(()=>{".length,
          ),
        );
        continue;
      }
      this.mentions.add(raw);
      this.attributeLiteral(element, attribute, marks.has(name));
    }
  }

  /** What the marks of an element say of its content, or of an attribute. */
  private marking(element: MarkupElement, of?: string): Marking {
    const found = markingOf(this.shapes, element, of);
    if (found.key !== undefined) this.mentions.add(found.key);
    return found;
  }

  /** An attribute's value with what is filled in, as a literal. */
  private attributeLiteral(element: MarkupElement, attribute: MarkupAttribute, isMarked: boolean): void {
    const { valueStart, valueEnd, start, end, quoted, name } = attribute;
    // Of a value that a block looks up as a whole nothing is left: `title="{% trans %}Boats{% endtrans %}"`.
    const value = this.masked.slice(valueStart, valueEnd);
    if (/^[\s\uE001\uE002]*$/.test(value)) return;
    // Nor is what stands in such a block beside other values.
    const holdsBlock = this.ownBlocks.some(({ start, end }) => start < valueEnd && valueStart < end);
    if (holdsBlock && !/\p{L}/u.test(value.replace(/[\uE000-\uE002]/g, ""))) return;
    const around = /^\s{0,40}<([a-z]\w{0,20})>[^<>]{0,1000}<\/([a-z]\w{0,20})>\s{0,40}$/i.exec(value);
    if (around !== null && around[1] === around[2] && lookupElement.test(around[1] ?? "")) return;
    const unique = uniqueNames();
    const pieces: Piece[] = [];
    this.textPieces(valueStart, valueEnd, pieces, unique, false);
    if (!hasLetters(pieces)) return;
    const base = attributeContext(this.dialect, element, name);
    const written = writtenMessage(pieces);
    const hasMarkup = pieces.some((piece) => piece.kind === "text" && holdsMarkup(piece.value));
    this.add({
      form: "attribute",
      span: quoted
        ? { start: valueStart - 1, end: valueEnd + 1 }
        : { start: Math.max(valueStart, start), end },
      pieces,
      context: isMarked ? { ...base, name: "title" } : base,
      ...((hasMarkup || holdsBlock) && { obstacle: say("attribute-markup", {}) }),
      ...(isMarked && this.marking(element, name)),
      ...(written !== undefined && { written }),
    });
  }

  private isLookupElement(element: MarkupElement): boolean {
    return (
      this.shapes.components.has(element.name) ||
      element.attributes.some(({ name }) => this.shapes.attributes.has(name))
    );
  }

  /** Neighbouring children that a user reads as one text. */
  private runs(parent: MarkupElement): void {
    let run: MarkupNode[] = [];
    const finish = () => {
      this.run(parent, run);
      run = [];
    };
    for (const child of parent.children) {
      if (child.kind === "element") {
        if (this.isInline(child)) run.push(child);
        else finish();
        continue;
      }
      // Code between texts parts them: what follows may not be shown with what precedes.
      for (const part of splitText(this.masked, child, islandMarks.code)) {
        if (part === "break") finish();
        else run.push(part);
      }
    }
    finish();
  }

  private run(parent: MarkupElement, nodes: readonly MarkupNode[]): void {
    let from = 0;
    let to = nodes.length;
    const isOutside = (node: MarkupNode | undefined) =>
      node !== undefined && (node.kind === "text" ? this.isBlank(node) : this.isEmpty(node));
    while (from < to && isOutside(nodes[from])) from++;
    while (to > from && isOutside(nodes[to - 1])) to--;
    const inside = nodes.slice(from, to);
    const [first] = inside;
    const last = inside[inside.length - 1];
    if (!first || !last || !inside.some((node) => node.kind === "text" && /\p{L}/u.test(this.plain(node))))
      return;
    // An element of a sentence is part of it, and no text once more.
    const whole = { start: first.start, end: last.kind === "text" ? last.end : endOf(last) };
    if (this.inRun.some((span) => span.start <= whole.start && whole.end <= span.end)) return;
    if (parent.name === "" && this.isInProgram(whole)) return;
    const unique = uniqueNames();
    const pieces: Piece[] = [];
    for (const node of inside) this.nodePieces(node, pieces, unique);
    const edges = withoutWidgets(pieces);
    const trimmed = trimEnds(edges.pieces);
    if (!hasLetters(trimmed) || isOneElement(trimmed)) return;
    const start =
      edges.start !== undefined
        ? this.pastBlanks(edges.start, 1)
        : first.kind === "text"
          ? first.start + blanksAhead(this.masked.slice(first.start, first.end))
          : first.start;
    const end =
      edges.end !== undefined
        ? this.pastBlanks(edges.end, -1)
        : last.kind === "text"
          ? last.end - blanksBehind(this.masked.slice(last.start, last.end))
          : endOf(last);
    const form = inside.length === 1 && trimmed.length === 1 ? "content" : "phrase";
    this.inRun.push({ start, end });
    const marking = this.marking(parent);
    // A text that is its own key asks for that, with one blank for several.
    if (marking.isBesideKey) this.mentions.add(decodeHTML(this.text.slice(start, end)).replace(/\s+/g, " "));
    const written = writtenMessage(trimmed);
    this.add({
      form,
      span: { start, end },
      pieces: trimmed,
      context: contentContext(parent),
      ...marking,
      ...(written !== undefined && { written }),
    });
  }

  /** Whether a text outside of all elements is part of a script: of what stands between tags and longer code, most is one's. */
  private isInProgram({ start, end }: Span): boolean {
    return this.programs().some((one) => one.start <= start && end <= one.end);
  }

  /** The parts between tags, and between code of several lines, that are scripts. */
  private readonly programs = lazily((): readonly Span[] => {
    const long = this.islands.filter(
      ({ kind, start, end }) => kind === "code" && this.text.slice(start, end).includes("\n"),
    );
    const ends = [
      ...[...this.masked.matchAll(/[<>]/g)].map(({ index }) => ({ start: index, end: index + 1 })),
      ...long,
      { start: this.masked.length, end: this.masked.length },
    ].sort((a, b) => a.start - b.start);
    const found: Span[] = [];
    let from = 0;
    for (const { start, end } of ends) {
      if (start > from && isProgramText(this.masked.slice(from, start)))
        found.push({ start: from, end: start });
      from = Math.max(from, end);
    }
    return found;
  });

  /** The nearest place, forward or backward, that is no blank. */
  private pastBlanks(from: number, step: 1 | -1): number {
    let at = from;
    while (/[\s\uE002]/.test(this.masked[step === 1 ? at : at - 1] ?? "x")) at += step;
    return at;
  }

  /** Templates inside the page that were read as pages of their own. */
  private readonly readAlone: Span[] = [];
  /** The spans of texts that are literals already, so that elements inside them are none once more. */
  private readonly inRun: Span[] = [];

  private nodePieces(
    node: MarkupNode,
    pieces: Piece[],
    unique: (wanted: string, code: string) => string,
  ): void {
    if (node.kind === "text") {
      this.textPieces(node.start, node.end, pieces, unique, true);
      return;
    }
    const inner: Piece[] = [];
    for (const child of node.children) this.nodePieces(child, inner, unique);
    const open = { start: node.start, end: node.openEnd };
    const plain = node.name.toLowerCase();
    const name = plain === "a" || plain === "router-link" ? "link" : plain.replace(/[^a-z0-9]/g, "") || "tag";
    pieces.push({
      kind: "tag",
      name: unique(name, this.text.slice(open.start, open.end)),
      span: { start: node.start, end: endOf(node) },
      open,
      close: node.close,
      pieces: inner,
    });
  }

  /** Text with what islands fill in, entities decoded; `collapse` reads white space as a page shows it. */
  private textPieces(
    start: number,
    end: number,
    pieces: Piece[],
    unique: (wanted: string, code: string) => string,
    collapse: boolean,
  ): void {
    let at = start;
    const put = (from: number, to: number) => {
      const raw = this.text.slice(from, to);
      const value = decodeHTML(collapse ? raw.replace(/[ \t\r\n\f]+/g, " ") : raw);
      if (value === "") return;
      const last = pieces[pieces.length - 1];
      if (last?.kind === "text")
        pieces[pieces.length - 1] = {
          kind: "text",
          value: last.value + value,
          span: { start: last.span.start, end: to },
        };
      else pieces.push({ kind: "text", value, span: { start: from, end: to } });
    };
    for (const island of this.islandsIn(start, end)) {
      put(at, island.start);
      at = island.end;
      if (island.kind !== "output") continue;
      const code = this.text.slice(island.codeStart, island.codeEnd).trim();
      pieces.push({
        kind: "argument",
        name: unique(nameFromCode(code), code),
        code,
        span: { start: island.start, end: island.end },
        mayBeAbsent: false,
      });
    }
    put(at, end);
  }

  private islandsIn(start: number, end: number): readonly Island[] {
    return this.islands.filter((island) => island.start >= start && island.end <= end);
  }

  private isInline(element: MarkupElement): boolean {
    const known = this.inline.get(element);
    if (known !== undefined) return known;
    const found = this.isInlineNow(element);
    this.inline.set(element, found);
    return found;
  }

  private isInlineNow(element: MarkupElement): boolean {
    if (this.isLookupElement(element)) return false;
    const name = element.name.toLowerCase();
    const isCustom = /[A-Z]/.test(element.name) || element.name.includes("-");
    if (emptyElements.has(name)) return true;
    if (!isCustom && !inlineElements.has(name) && !lineBreaks.has(name)) return false;
    if (isCustom && element.children.length === 0) return true;
    return element.children.every((child) =>
      child.kind === "text"
        ? !this.masked.slice(child.start, child.end).includes(islandMarks.code)
        : this.isInline(child),
    );
  }

  private isEmpty(element: MarkupElement): boolean {
    const known = this.empty.get(element);
    if (known !== undefined) return known;
    const found = element.children.every((child) =>
      child.kind === "text" ? this.isBlank(child) : this.isEmpty(child),
    );
    this.empty.set(element, found);
    return found;
  }

  private isBlank(node: MarkupText): boolean {
    const text = this.masked.slice(node.start, node.end);
    return blanksAhead(text) === text.length;
  }

  /** The text of a node without islands, decoded. */
  private plain(node: MarkupText): string {
    return decodeHTML(this.masked.slice(node.start, node.end).replace(/[\uE000-\uE002]/g, ""));
  }

  private add(literal: Literal): void {
    const within =
      literal.form === "content" || literal.form === "phrase"
        ? this.inRun.some(
            (span) =>
              span !== this.inRun[this.inRun.length - 1] &&
              span.start <= literal.span.start &&
              literal.span.end <= span.end,
          )
        : false;
    if (within) return;
    this.literals.push(this.exempt === undefined ? literal : { ...literal, skipped: this.exempt });
  }

  /** Whether a place is in a template that was read as a page of its own, with the code in it. */
  private isReadAlone({ start, end }: Span): boolean {
    return this.readAlone.some((one) => one.start <= start && end <= one.end);
  }

  /** The code of the islands: strings that are shown, and lookups. */
  private islandCode(root: MarkupElement): void {
    const { language } = this.dialect;
    this.foreignLookups();
    if (language === "ruby" || language === "java" || language === "php") {
      const code = this.dialect.isProgram ? this.text : this.codeAlone(language);
      const content = this.readEmbedded(language, code, this.shapes);
      this.take({
        ...content,
        literals: content.literals
          .filter(({ span }) => !this.isReadAlone(span))
          .map((literal) => this.inOutput(literal, root)),
        lookups: content.lookups.filter(({ span }) => !this.isReadAlone(span)),
      });
      if (this.dialect.hasLooseLookups) this.looseExpressions(root);
      return;
    }
    if (this.dialect.isScripted && this.scriptProgram(root)) return;
    for (const island of this.islands) {
      if (island.kind === "comment" || island.isForeign || this.isReadAlone(island)) continue;
      const place = island.kind === "code" && !island.isShown ? undefined : this.placeOf(island, root);
      const read = language === "expression" ? readPlainExpression : readScriptExpression;
      this.take(read(this.text, island.codeStart, island.codeEnd, this.shapes, place));
    }
  }

  /** Reads the islands as one program of statements; false where they are none, and each has to be read by itself. */
  private scriptProgram(root: MarkupElement): boolean {
    const source = readScript("template.js", this.codeAlone("script"), false, this.shapes);
    if (source.problems.length > 0) return false;
    const literals = source.literals
      .filter(({ span }) => !this.isReadAlone(span))
      .map((literal) => this.inOutput({ ...literal, context: { ...literal.context, atLoad: false } }, root));
    const lookups = source.lookups.filter(({ span }) => !this.isReadAlone(span));
    this.take({ ...source, literals, lookups });
    return true;
  }

  /** Lookups in the marks of another language; its strings are none of this one's texts. */
  private foreignLookups(): void {
    for (const { isForeign, codeStart, codeEnd } of this.islands) {
      if (!isForeign) continue;
      const { lookups, mentions } = readScriptExpression(
        this.text,
        codeStart,
        codeEnd,
        this.shapes,
        undefined,
      );
      this.take({ literals: [], lookups, mentions });
    }
  }

  /** What islands hold that are no whole statements of their language, such as `@lang('key')` and `${text('key')}`. */
  private looseExpressions(root: MarkupElement): void {
    const known = new Set(this.lookups.map(({ keySpan }) => keySpan.start));
    for (const island of this.islands) {
      if (island.kind === "comment" || island.isForeign) continue;
      const isAlone = isExpression(this.text, island);
      const { literals, lookups, mentions } = readPlainExpression(
        this.text,
        island.codeStart,
        island.codeEnd,
        this.shapes,
        isAlone ? this.placeOf(island, root) : undefined,
      );
      this.take({
        literals: isAlone
          ? literals.map((literal) => ({ ...literal, obstacle: say("page-expression", {}) }))
          : [],
        lookups: lookups.filter(({ keySpan }) => !known.has(keySpan.start)),
        mentions,
      });
    }
  }

  private inOutput(literal: Literal, root: MarkupElement): Literal {
    const { role, name = "" } = literal.context;
    const isPrinted = role === "argument" && /^(?:echo|print|out\.print)$/.test(name);
    if (role !== "other" && role !== "argument") return literal;
    const holds = ({ start, end }: Span) => start <= literal.span.start && literal.span.end <= end;
    const bound = this.boundCode.find(holds);
    if (bound) return role === "other" ? { ...literal, context: placed(literal, bound.place) } : literal;
    const island = this.islands.find(holds);
    if (!island || (island.kind !== "output" && !island.isShown && !isPrinted)) return literal;
    const place = this.placeOf(island, root);
    if (isPrinted) return place.role === "attribute" ? { ...literal, context: place } : literal;
    return role === "other"
      ? { ...literal, context: placed(literal, place) }
      : { ...literal, context: { ...literal.context, isOutput: true } };
  }

  /** Where an island's value is shown: in an attribute, or between tags. */
  private placeOf(island: Island, root: MarkupElement): LiteralContext {
    if (this.isScript) return { language: "markup", role: "other", atLoad: false };
    const element = elementAt(root, island.start);
    const isInTag = element !== undefined && element.name !== "" && island.start < element.openEnd;
    const attribute = isInTag
      ? element.attributes.find(({ start, end }) => start <= island.start && island.end <= end)
      : undefined;
    // What stands where names do names an attribute, or the element.
    if (isInTag && (attribute?.raw === undefined || island.end <= attribute.valueStart))
      return { language: "markup", role: "key", atLoad: false };
    return attribute && element
      ? attributeContext(this.dialect, element, attribute.name.replace(/^[:[]|\]$/g, ""))
      : contentContext(element);
  }

  /** The islands' code as one program of the same length: white space for the markup, statement ends between islands. */
  private codeAlone(language: Exclude<IslandLanguage, "expression">): string {
    let code = "";
    let at = 0;
    const blank = (from: number, to: number) => this.text.slice(from, to).replace(/[^\r\n]/g, " ");
    const bound = [...this.boundCode];
    for (const island of this.islands) {
      for (let next = bound[0]; next && next.end <= island.start; next = bound[0]) {
        // The signs around the value become those of a statement: `="…" `.
        code += `${blank(at, next.start - 2)};(${this.text.slice(next.start, next.end)})`;
        at = next.end + 1;
        bound.shift();
      }
      code += blank(at, island.start);
      at = island.start;
      if (island.kind === "comment" || island.isForeign || isExpression(this.text, island)) continue;
      const statement = this.dialect.statement?.(this.text.slice(island.start, island.end));
      if (statement !== undefined) {
        code += statement;
        at = island.end;
        continue;
      }
      const gap = blank(at, island.codeStart);
      const ending = blank(island.codeEnd, island.end);
      const inner = this.text.slice(island.codeStart, island.codeEnd);
      if (language === "script") {
        // A value that is put out stands in brackets: a string alone would be a directive.
        const isShown = island.kind === "output";
        const isOpen = /[{(,:;]\s*$|^\s*$/.test(inner);
        code += isShown ? `${gap.slice(1)}(${inner})${ending.slice(1, -1)};` : gap + inner;
        code += isShown ? "" : isOpen ? ending : `;${ending.slice(1)}`;
        at = island.end;
        continue;
      }
      const close =
        ending.length > 0
          ? `${language === "ruby" && /(?:\bdo|\{)\s*(?:\|[^|]*\|\s*)?$/.test(inner) ? "\n" : ";"}${ending.slice(1)}`
          : "";
      code +=
        language === "php" && gap.length >= 2 ? `${gap.slice(2)}; ${inner}${close}` : gap + inner + close;
      at = island.end;
    }
    return code + blank(at, this.text.length);
  }

  /** Comments of the page speak for what follows them; those in its code were heard by the reader of that code. */
  private applySkips(): void {
    const marks: CommentMarks = new Map();
    const lines = lineIndex(this.text);
    if (this.text.includes("fond:"))
      for (const [open, close] of pageComments)
        for (const { start, end } of delimited(this.text, open, close)) {
          const comment = this.text.slice(start, end);
          if (comment.includes("fond:")) markComment(marks, comment, lines.position(end - 1).line);
        }
    const marked = applyMarks(this.literals, marks, lines);
    this.literals.splice(0, this.literals.length, ...marked);
  }
}
