import { lazily } from "../../../text/lazy.js";
import { notices } from "../../../message/notices.js";
import type { Span } from "../../../text/span.js";
import type { Dialect, Island, IslandLanguage } from "../../dialects/dialect.js";
import { findIslands, maskIslands } from "../../dialects/index.js";
import type {
  Literal,
  LiteralContext,
  Lookup,
  LookupShapes,
  SourceFile,
  SourceProblem,
} from "../../model.js";
import { shiftLiteral, shiftLookup } from "../shift.js";
import type { ExpressionContent } from "./expressions.js";
import { markingOf, type Marking } from "./marks.js";
import { headIsland, withTagNames } from "./parts.js";
import { isProgramText } from "./program-text.js";
import { rawElements } from "./raw-elements.js";
import type { MarkupElement } from "./tree.js";

const say = notices("extract", {
  "as-it-is": {
    message: "an element around it puts marks out as they are, and a lookup would be shown as code",
    remedy: "move the text out of that element, then extract again",
  },
});

/** Reads the code of a template's islands in a language that has a reader of its own; the text is masked outside of them. */
export type EmbeddedReader = (
  language: Exclude<IslandLanguage, "script" | "expression">,
  text: string,
  shapes: LookupShapes,
) => ExpressionContent;

/** Reads a template that stands in a page as a page of its own. */
export type TemplateReader = (text: string, dialect: Dialect, readEmbedded: EmbeddedReader) => SourceFile;

/** A page while it is read: its text, its islands, and what was found in it so far. */
export class Page {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly problems: SourceProblem[] = [];
  readonly islands: readonly Island[];
  /** The text with its islands, and later the blocks of scripts, taken out; places stay. */
  masked: string;
  /** Blocks whose content is looked up already, or is no text. */
  ownBlocks: readonly Span[] = [];
  /** Why literals here are not to be translated: the markup says so. */
  exempt: string | undefined = undefined;
  /** Whether an element around what is read has its marks put out as they are. */
  isAsItIs = false;
  /** Whether the whole page is a script with islands in it. */
  isScript = false;
  /** Attributes whose value is code of the template's own language, `:options="['all' => 'All']"`, and where it goes. */
  readonly boundCode: (Span & { readonly place: LiteralContext })[] = [];
  /** Templates inside the page that were read as pages of their own. */
  readonly readAlone: Span[] = [];
  /** The spans of texts that are literals already, so that elements inside them are none once more. */
  readonly inRun: Span[] = [];
  /** Whether elements are part of a sentence, and whether they are empty: asked at each level above them. */
  readonly inline = new Map<MarkupElement, boolean>();
  readonly empty = new Map<MarkupElement, boolean>();

  constructor(
    readonly text: string,
    readonly dialect: Dialect,
    readonly shapes: LookupShapes,
    readonly readEmbedded: EmbeddedReader,
    readonly readTemplate: TemplateReader,
  ) {
    // A lookup's output is a text of its own: it parts what stands around it, as other code does.
    this.islands = [...headIsland(text), ...findIslands(this.maskedScripts(), dialect)].map((island) =>
      island.kind === "output" && this.holdsLookup(text.slice(island.codeStart, island.codeEnd))
        ? { ...island, kind: "code" as const, isShown: true }
        : island,
    );
    this.masked = withTagNames(maskIslands(text, this.islands));
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

  /** Takes what was found in a part of the page. */
  take({ literals, lookups, mentions }: ExpressionContent): void {
    for (const literal of literals)
      this.literals.push(this.exempt === undefined ? literal : { ...literal, skipped: this.exempt });
    this.lookups.push(...lookups);
    for (const mention of mentions) this.mentions.add(mention);
  }

  /** Takes a text, if it is no part of one that was taken. */
  add(literal: Literal): void {
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
    const own = this.isAsItIs ? { ...literal, obstacle: literal.obstacle ?? say("as-it-is", {}) } : literal;
    this.literals.push(this.exempt === undefined ? own : { ...own, skipped: this.exempt });
  }

  /** What was found in a part that was read alone, at its places in the page. */
  shifted(source: SourceFile, by: number): ExpressionContent {
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

  /** What the marks of an element say of its content, or of an attribute. */
  marking(element: MarkupElement, of?: string): Marking {
    const found = markingOf(this.shapes, element, of);
    if (found.key !== undefined) this.mentions.add(found.key);
    return found;
  }

  isLookupElement(element: MarkupElement): boolean {
    return (
      this.shapes.components.has(element.name) ||
      element.attributes.some(({ name }) => this.shapes.attributes.has(name))
    );
  }

  islandsIn(start: number, end: number): readonly Island[] {
    return this.islands.filter((island) => island.start >= start && island.end <= end);
  }

  /** Whether a place is in a template that was read as a page of its own, with the code in it. */
  isReadAlone({ start, end }: Span): boolean {
    return this.readAlone.some((one) => one.start <= start && end <= one.end);
  }

  /** Whether a text outside of all elements is part of a script: of what stands between tags and longer code, most is one's. */
  isInProgram({ start, end }: Span): boolean {
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
}
