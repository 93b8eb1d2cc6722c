import { notices } from "../../../message/notices.js";
import type { CodeLanguage } from "../../languages/language.js";
import type { Literal, LiteralContext, Lookup, LookupShapes, Obstacle, Piece, Remark } from "../../model.js";
import { hasLetters, mayHaveParts } from "../../pieces.js";
import { withOneName } from "../worded-choice.js";
import { withBareCounts } from "./bare-counts.js";
import { NodeTexts } from "./node-texts.js";
import { Surroundings } from "./surroundings.js";
import { bareNode, childIn, type CodeNode } from "./tree.js";
import { Wording } from "./wording.js";

const say = notices("extract", {
  bytes: {
    message: "it is a string of bytes, and a lookup gives text",
    remedy: "make a text of it that is encoded where it is sent, then extract again",
  },
  "annotation-only": {
    message: "an annotation takes constants alone, and a lookup is a call",
    remedy: "set emit.annotation if what reads it takes a key there, for example to {example}",
  },
  "constant-only": {
    message: "only a constant can stand here, and a lookup is a call",
    remedy: "set the value where it is used, or in the constructor",
  },
  name: {
    message: "it is the name of a value, and code may look it up by this text",
    remedy: "check who reads it, and move it by hand",
  },
});

/** Why a text stays where the language takes nothing but a constant. */
export const constantOnly = (): Obstacle => say("constant-only", {});

/** What was found in a file of code so far, and where in it the reader stands. */
export class CodeTexts {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly remarked: { start: number; end: number; remark: Remark }[] = [];
  readonly nodes: NodeTexts;
  readonly wording: Wording;
  readonly around: Surroundings;
  /** Nodes that are part of a literal or lookup already found. */
  readonly consumed = new Set<CodeNode>();

  constructor(
    language: CodeLanguage,
    text: string,
    readonly shapes: LookupShapes,
  ) {
    this.nodes = new NodeTexts(language, text);
    this.wording = new Wording(this.nodes, shapes.sourceLanguage);
    this.around = new Surroundings(this.nodes, this.wording);
  }

  add(
    form: "string" | "template",
    node: CodeNode,
    pieces: readonly Piece[],
    own: readonly Remark[] = [],
    obstacle?: Obstacle,
    isFilled = false,
    printed?: { readonly end: number; readonly before: string },
  ): void {
    const written = this.wording.takeWritten(node);
    const strings = isFilled ? [] : written;
    if (!hasLetters(pieces)) return;
    const chosen = this.remarked
      .filter(({ start, end }) => start <= node.start && node.end <= end)
      .map(({ remark }) => remark);
    const remarks = [...(pieces.length > 1 ? own : []), ...chosen];
    const span = { start: node.start, end: printed?.end ?? node.end };
    const around = this.around.contextOf(this.around.standIns.get(node) ?? node);
    // Such a string is often named for the language that its lines are in.
    const name = this.nodes.blockOf(node)?.name ?? "";
    const context: LiteralContext = this.nodes.spoken.habits.codeTemplate.test(name)
      ? { ...around, role: "tagged", name }
      : around;
    const { ofBytes } = this.nodes.spoken;
    const isOfBytes =
      ofBytes !== undefined &&
      [node, ...written].some(({ start }) => ofBytes.test(this.nodes.text.slice(start, start + 4)));
    const hindrance =
      obstacle ??
      (isOfBytes ? say("bytes", {}) : undefined) ??
      (context.role === "key"
        ? say("name", {})
        : context.isAnnotation && this.nodes.spoken.constantPlaces
          ? say("annotation-only", { example: '"{{key}}"' })
          : this.around.near.some(({ type }) => this.nodes.spoken.constantPlaces?.test(type))
            ? constantOnly()
            : undefined);
    this.literals.push({
      form,
      span,
      pieces: withOneName(withBareCounts(pieces)),
      context,
      ...(mayHaveParts(pieces) && (strings.length > 0 || isFilled) && { strings }),
      ...(remarks.length > 0 && { remarks }),
      ...(printed && { frame: { before: printed.before, after: "" } }),
      ...(hindrance && { obstacle: hindrance }),
    });
  }

  consume(node: CodeNode): void {
    this.consumed.add(node);
    for (const child of node.children)
      if (this.nodes.spec.strings.includes(child.type) || this.nodes.spec.contents.includes(child.type))
        this.consume(child);
    if (node.type === "argument") for (const child of node.children) this.consume(child);
  }

  consumeGlued(node: CodeNode): void {
    this.consumed.add(node);
    for (const side of [childIn(node, "left"), childIn(node, "right")]) {
      if (!side) continue;
      if (this.wording.isGluing(side)) this.consumeGlued(side);
      else if (this.nodes.spec.strings.includes(side.type)) this.consume(side);
    }
  }

  /** The strings of a conditional whose words are part of a text belong to that text. */
  consumeChoice(node: CodeNode): void {
    this.consumed.add(node);
    const parts = this.wording.conditionalOf(node);
    for (const branch of parts ? [parts.first, parts.second] : []) {
      const bare = bareNode(branch);
      if (this.wording.isGluing(bare)) this.consumeGlued(bare);
      else if (this.nodes.spec.strings.includes(bare.type)) this.consume(bare);
    }
  }
}
