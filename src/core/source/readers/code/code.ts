import { notices } from "../../../message/notices.js";
import { lineIndex } from "../../../text/line-index.js";
import { byPlace } from "../../model.js";
import type { LookupShapes, SourceFile, SourceProblem } from "../../model.js";
import type { CodeLanguage } from "../../languages/language.js";
import { joinTexts } from "../../pieces.js";
import { choiceRemark } from "../choice-remark.js";
import { applyMarks, markComment, type CommentMarks } from "../comment-marks.js";
import { uniqueNames } from "../expression-names.js";
import { isCounted } from "../worded-choice.js";
import { readBoundKey, readLookup, readMember } from "./code-lookups.js";
import { CodeTexts, constantOnly } from "./code-texts.js";
import { parseCode } from "./grammars.js";
import { isFormatOperator, readFormatOperator, readPatternCall } from "./patterns.js";
import { namedChildren, type CodeNode } from "./tree.js";

const say = notices("source", {
  "too-deep-code": {
    message: "the code is nested too deeply to be read whole",
    remedy: 'exclude it with the book\'s "ignore" if nobody writes text in it',
  },
  "syntax-error": {
    message: "the code does not parse here",
    remedy: "fix the code; the rest of the file was read",
  },
});

/** Reads Ruby, PHP, Java, Python, Go or C#: literals with their context, and lookups as calls. The grammar must be loaded. */
export function readCode(
  language: CodeLanguage,
  file: string,
  text: string,
  bom: boolean,
  shapes: LookupShapes,
): SourceFile {
  const root = parseCode(language, text);
  const reader = new CodeReader(language, text, shapes);
  try {
    reader.visit(root);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    reader.problems.push({ ...say("too-deep-code", {}), span: { start: 0, end: 1 } });
  }
  const lines = lineIndex(text);
  const marks: CommentMarks = new Map();
  for (const { start, end } of reader.comments)
    markComment(marks, text.slice(start, end).trimEnd(), lines.position(Math.max(end - 1, start)).line);
  const literals = applyMarks(reader.texts.literals, marks, lines);
  literals.sort(byPlace);
  reader.texts.lookups.sort(byPlace);
  return {
    file,
    text,
    bom,
    lines,
    literals,
    lookups: reader.texts.lookups,
    mentions: reader.texts.mentions,
    problems: reader.problems,
  };
}

class CodeReader {
  readonly texts: CodeTexts;
  readonly problems: SourceProblem[] = [];
  readonly comments: CodeNode[] = [];
  /** The nodes around what opened strings whose lines follow later, and that itself. */
  private readonly openings: CodeNode[][] = [];

  constructor(language: CodeLanguage, text: string, shapes: LookupShapes) {
    this.texts = new CodeTexts(language, text, shapes);
  }

  visit(node: CodeNode): void {
    const { spec } = this.texts.nodes;
    if (node.isError && this.problems.length === 0)
      this.problems.push({
        ...say("syntax-error", {}),
        span: { start: node.start, end: Math.max(node.end, node.start + 1) },
      });
    if (spec.comments.includes(node.type)) {
      this.comments.push(node);
      return;
    }
    if (spec.imports.includes(node.type)) return;
    if (this.isDocumentation(node)) {
      if (this.texts.nodes.spoken.shownDocumentation?.(node, this.texts.around.near, this.texts.nodes.text))
        this.documentation(node);
      return;
    }
    if (spec.blockStrings?.opening !== undefined && spec.blockStrings.whole.includes(node.type)) {
      this.followingLines(node);
      return;
    }
    if (spec.calls.includes(node.type)) {
      if (!readLookup(this.texts, node)) readPatternCall(this.texts, node);
    }
    if (spec.subscripts.includes(node.type)) readMember(this.texts, node);
    if (/conditional|ternary/.test(node.type)) this.choice(node);
    if (!this.texts.consumed.has(node)) {
      if (this.texts.wording.isGluing(node)) {
        this.glued(node);
        this.texts.consumeGlued(node);
      } else if (isFormatOperator(this.texts, node)) readFormatOperator(this.texts, node);
      else if (spec.strings.includes(node.type)) this.string(node);
    }
    if (node.type === spec.blockStrings?.opening) this.openings.push([...this.texts.around.ancestors, node]);
    this.texts.around.ancestors.push(node);
    for (const child of node.children) this.visit(child);
    this.texts.around.ancestors.pop();
  }

  /** The lines of a string that was opened in a line before: they stand for what opened it. */
  private followingLines(node: CodeNode): void {
    const { around } = this.texts;
    const opened = this.openings.shift();
    const own = around.ancestors.splice(0);
    if (opened) {
      const opening = opened.pop();
      // What takes blanks away, or marks it as it is, makes the same text of it.
      while (opened.length > 0 && this.isTidied(opened.at(-1))) opened.pop();
      around.ancestors.push(...opened);
      if (opening) around.standIns.set(node, opening);
    }
    this.string(node);
    around.ancestors.push(node);
    for (const child of node.children) this.visit(child);
    around.ancestors.splice(0, around.ancestors.length, ...own);
  }

  private isTidied(node: CodeNode | undefined): boolean {
    return (
      node !== undefined &&
      /^<<[-~]?["'`]?\w+["'`]?\.(?:strip|squish|chomp|strip_heredoc|html_safe|freeze)$/.test(
        this.texts.nodes.textOf(node).replace(/\(\)$/, ""),
      )
    );
  }

  /** Strings that document the code: Python's, standing alone as a statement. */
  private isDocumentation(node: CodeNode): boolean {
    return this.texts.nodes.spoken.isDocumentation?.(node) ?? false;
  }

  /** What documents the code and is shown as well, as the help of a command. */
  private documentation(node: CodeNode): void {
    const [only] = namedChildren(node);
    if (!only) return;
    this.texts.add(
      "string",
      only,
      joinTexts(this.texts.wording.piecesOf(only, uniqueNames())),
      [],
      constantOnly(),
    );
    const literal = this.texts.literals.at(-1);
    if (literal?.span.start === only.start)
      this.texts.literals[this.texts.literals.length - 1] = {
        ...literal,
        context: { ...literal.context, role: "property", name: "help" },
      };
  }

  /** Words chosen by a number or by the language: told of with each of them. */
  private choice(node: CodeNode): void {
    const [test] = namedChildren(node);
    if (!test) return;
    const condition = this.texts.wording.conditionalOf(node)?.test ?? test;
    const remark = choiceRemark(this.texts.nodes.textOf(condition));
    if (!remark) return;
    this.texts.remarked.push({ start: node.start, end: node.end, remark });
    if (remark.kind === "plural-by-hand" && !this.texts.consumed.has(node)) this.countedChoice(node);
  }

  /** A conditional by itself that chooses between the forms of one text by a number. */
  private countedChoice(node: CodeNode): void {
    const taken: CodeNode[] = [];
    const piece = this.texts.wording.choiceOf(node, uniqueNames(), taken);
    if (
      piece?.choice !== "plural" ||
      !isCounted(
        piece.branches.map(({ pieces }) => pieces),
        piece.code,
      )
    )
      return;
    for (const one of taken) this.texts.consumeChoice(one);
    this.texts.add("template", node, [piece]);
  }

  private glued(node: CodeNode): void {
    const unique = uniqueNames();
    const taken: CodeNode[] = [];
    const pieces = this.texts.wording.partsOf(node, unique, taken);
    for (const one of taken) this.texts.consumeChoice(one);
    const remarks = [
      { kind: "glued" as const, message: `put together with ${this.texts.nodes.operatorOf(node)}` },
    ];
    this.texts.add("template", node, joinTexts(pieces), remarks);
  }

  private string(node: CodeNode): void {
    if (readBoundKey(this.texts, node)) return;
    const taken: CodeNode[] = [];
    const pieces = joinTexts(this.texts.wording.piecesOf(node, uniqueNames(), taken));
    for (const one of taken) this.texts.consumeChoice(one);
    const isPlain = pieces.every(({ kind }) => kind === "text");
    if (isPlain) this.texts.mentions.add(this.texts.nodes.plainText(node));
    this.texts.consume(node);
    this.texts.add(isPlain ? "string" : "template", node, pieces);
  }
}
