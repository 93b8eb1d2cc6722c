import type { Expression, Node } from "oxc-parser";
import type { Span } from "../../../text/span.js";
import type {
  Literal,
  LiteralForm,
  Lookup,
  LookupShapes,
  Obstacle,
  Piece,
  Remark,
  WrittenString,
} from "../../model.js";
import { hasLetters, mayHaveParts } from "../../pieces.js";
import { withOneName } from "../worded-choice.js";
import { contextOf } from "./context.js";
import { isGluing, PieceList, wordByValue } from "./pieces.js";

/** What was found in a script so far, and where in it the reader stands. */
export class ScriptTexts {
  readonly literals: Literal[] = [];
  readonly lookups: Lookup[] = [];
  readonly mentions = new Set<string>();
  readonly ancestors: Node[] = [];
  readonly enclosing = { names: [] as string[], deferred: 0 };
  /** Nodes that are part of a literal or lookup already found. */
  readonly consumed = new Set<Node>();
  readonly remarked: { start: number; end: number; remark: Remark }[] = [];
  /** Parts of the code that cannot be rewritten as a whole, so neither can the words in them. */
  private readonly obstructed: { span: Span; obstacle: Obstacle }[] = [];

  constructor(
    readonly text: string,
    readonly shapes: LookupShapes,
  ) {}

  add(
    form: LiteralForm,
    node: Node,
    span: Span,
    pieces: readonly Piece[],
    obstacle?: Obstacle,
    strings?: readonly WrittenString[],
  ): void {
    if (obstacle) this.obstructed.push({ span: { start: span.start, end: span.end }, obstacle });
    if (!hasLetters(pieces)) return;
    const named = withOneName(pieces);
    const within = this.obstructed.find(
      (outer) => outer.span.start <= span.start && span.end <= outer.span.end,
    );
    const found = within?.obstacle ?? obstacle;
    const remarks = this.remarked
      .filter((one) => one.start <= span.start && span.end <= one.end)
      .map((one) => one.remark);
    if (form === "template" && node.type === "BinaryExpression" && pieces.length > 1)
      remarks.unshift({ kind: "glued", message: "put together with +" });
    const isPlural = pieces.some((piece) => piece.kind === "choice" && piece.choice === "plural");
    if (
      (isPlural || found?.messageId === wordByValue) &&
      !remarks.some(({ kind }) => kind === "plural-by-hand")
    )
      remarks.push({ kind: "plural-by-hand", message: "a plural made by hand" });
    this.literals.push({
      form,
      span: { start: span.start, end: span.end },
      pieces: named,
      context: contextOf(node, this.ancestors, this.enclosing, this.text),
      ...(strings && mayHaveParts(named) && { strings }),
      ...(remarks.length > 0 && { remarks }),
      ...(found && { obstacle: found }),
    });
  }

  template(node: Expression, fill: (list: PieceList) => void): void {
    if (this.consumed.has(node)) return;
    const list = this.pieceList();
    fill(list);
    for (const chosen of list.chosen) this.consumeGlued(chosen);
    const only = list.pieces.length === 1 ? list.pieces[0] : undefined;
    if (only?.kind === "text") this.mentions.add(only.value);
    this.add("template", node, node, list.pieces, list.obstacle, list.strings);
  }

  addLookup(found: { lookups: readonly Lookup[]; keyNodes: readonly Node[] }): void {
    this.lookups.push(...found.lookups);
    for (const node of found.keyNodes) {
      this.consumed.add(node);
      this.consumeGlued(node);
    }
  }

  /** The strings and templates that a `+` joins belong to the whole. */
  consumeGlued(node: Node): void {
    if (node.type === "BinaryExpression" && isGluing(node)) {
      this.consumed.add(node);
      this.consumeGlued(node.left);
      this.consumeGlued(node.right);
    } else if (node.type === "ConditionalExpression") {
      this.consumed.add(node);
      this.consumeGlued(node.consequent);
      this.consumeGlued(node.alternate);
    } else if (node.type === "TemplateLiteral" || node.type === "Literal") this.consumed.add(node);
  }

  obstruct({ start, end }: Span, obstacle: Obstacle): void {
    this.obstructed.push({ span: { start, end }, obstacle });
  }

  pieceList(): PieceList {
    return new PieceList(this.text, undefined, this.shapes.sourceLanguage);
  }

  /** The innermost function, or the whole file. */
  enclosingScope(): Span {
    const found = this.ancestors.findLast(
      (node) =>
        node.type === "FunctionDeclaration" ||
        node.type === "FunctionExpression" ||
        node.type === "ArrowFunctionExpression",
    );
    return found ? { start: found.start, end: found.end } : { start: 0, end: this.text.length };
  }
}
