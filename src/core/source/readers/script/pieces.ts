import { notices } from "../../../message/notices.js";
import type {
  BinaryExpression,
  ConditionalExpression,
  Expression,
  Node,
  PrivateInExpression,
  TemplateLiteral,
} from "oxc-parser";
import type { Span } from "../../../text/span.js";
import type { ChoicePiece, Obstacle, Piece, WrittenString } from "../../model.js";
import { uniqueNames } from "../expression-names.js";
import { choicePiece } from "../worded-choice.js";
import { choiceTest } from "./choices.js";
import type { ReturnLink } from "./returned-texts.js";
import { formattedValue } from "./formatted-values.js";
import { nameForExpression } from "./names.js";

/** Pieces of one literal being read, its argument names kept apart. */
export class PieceList {
  readonly pieces: Piece[] = [];
  obstacle: Obstacle | undefined;
  /** The strings and templates that the text is written in. */
  readonly strings: WrittenString[];
  /** The conditionals whose words are part of the text. */
  readonly chosen: ConditionalExpression[];

  constructor(
    private readonly code: string,
    /** `wanted`, or with a number behind it where other code of this literal has that name already. */
    readonly uniqueName: (wanted: string, code: string) => string = uniqueNames(),
    /** The language of the texts, whose plurals say what `one` stands for. */
    private readonly language?: string,
    outer?: PieceList,
  ) {
    this.chosen = outer?.chosen ?? [];
    this.strings = outer?.strings ?? [];
  }

  /** A list for what is inside a tag: its own pieces, the same argument names. */
  nested(): PieceList {
    return new PieceList(this.code, this.uniqueName, this.language, this);
  }

  text(value: string, start: number, end: number): void {
    if (value === "") return;
    const last = this.pieces[this.pieces.length - 1];
    if (last?.kind === "text")
      this.pieces[this.pieces.length - 1] = {
        kind: "text",
        value: last.value + value,
        span: { start: last.span.start, end },
      };
    else this.pieces.push({ kind: "text", value, span: { start, end } });
  }

  /** Adds the value of an expression: fixed text is text, anything else an argument. */
  expression(expression: Expression): void {
    const { start, end } = expression;
    if (expression.type === "Literal" && typeof expression.value === "string") {
      this.strings.push({ start, end, innerStart: start + 1, innerEnd: end - 1 });
      this.text(expression.value, start, end);
    } else if (expression.type === "TemplateLiteral") this.template(expression);
    else if (expression.type === "BinaryExpression" && isGluing(expression)) this.glued(expression);
    else if (
      expression.type === "ConditionalExpression" &&
      choosesWords(expression) &&
      !holdsNothing(expression)
    )
      this.choice(expression);
    else {
      this.obstacle ??= obstacleIn(expression);
      const code = this.code.slice(start, end);
      const found = formattedValue(expression, this.language);
      if (found) {
        const { type, style } = found;
        const value = { start: found.value.start, end: found.value.end };
        const bare = this.code.slice(value.start, value.end);
        this.pieces.push({
          kind: "argument",
          name: this.uniqueName(nameForExpression(found.value), bare),
          code: bare,
          span: { start, end },
          mayBeAbsent: mayBeAbsent(found.value),
          formatted: { type, style, value, whole: code },
        });
        return;
      }
      this.pieces.push({
        kind: "argument",
        name: this.uniqueName(nameForExpression(expression), code),
        code,
        span: { start, end },
        mayBeAbsent: mayBeAbsent(expression),
      });
    }
  }

  /** Words chosen by a conditional, and by the conditionals in its branches that compare the same value. */
  choice(expression: ConditionalExpression): void {
    const { start, end } = expression;
    const piece = choicePiece<Expression>(
      expression,
      { start, end },
      {
        read: (node) =>
          node.type === "ConditionalExpression" && choosesWords(node)
            ? { test: choiceTest(node.test, this.code), first: node.consequent, second: node.alternate }
            : undefined,
        pieces: (branch) => {
          const list = this.nested();
          list.expression(branch);
          this.obstacle ??= list.obstacle;
          return list.pieces;
        },
        codeOf: ({ start, end }) => this.code.slice(start, end),
        take: (node) => {
          if (node.type === "ConditionalExpression") this.chosen.push(node);
        },
        uniqueName: this.uniqueName,
        language: this.language,
      },
    );
    if (piece) this.pieces.push(piece);
  }

  /** The texts that statements return by a test each, the last one where none holds: undefined where no number decides. */
  returned(links: readonly ReturnLink[], last: Expression, span: Span): ChoicePiece | undefined {
    type Part = { readonly from: number } | { readonly text: Expression };
    const whole: Part = { from: 0 };
    let isWhole = true;
    const piece = choicePiece<Part>(whole, span, {
      read: (part) => {
        const link = "from" in part ? links[part.from] : undefined;
        if (link && "from" in part)
          return { test: link.test, first: { text: link.text }, second: { from: part.from + 1 } };
        const node = "text" in part ? part.text : last;
        return node.type === "ConditionalExpression" && choosesWords(node)
          ? {
              test: choiceTest(node.test, this.code),
              first: { text: node.consequent },
              second: { text: node.alternate },
            }
          : undefined;
      },
      pieces: (part) => {
        // Where a test has left nothing for the next one, its text belongs to no form.
        if ("from" in part && part.from < links.length) isWhole = false;
        const list = this.nested();
        list.expression("text" in part ? part.text : last);
        this.obstacle ??= list.obstacle;
        return list.pieces;
      },
      codeOf: (part) => {
        const { start, end } = "text" in part ? part.text : (links[part.from]?.text ?? last);
        return this.code.slice(start, end);
      },
      take: () => undefined,
      uniqueName: this.uniqueName,
      language: this.language,
    });
    return isWhole && piece?.choice === "plural" ? piece : undefined;
  }

  template(template: TemplateLiteral): void {
    const { start, end } = template;
    this.strings.push({ start, end, innerStart: start + 1, innerEnd: end - 1 });
    template.quasis.forEach((quasi, index) => {
      this.text(quasi.value.cooked ?? quasi.value.raw, quasi.start, quasi.end);
      const expression = template.expressions[index];
      if (expression) this.expression(expression);
    });
  }

  /** `"a" + b + "c"`, as far to the left as it is text that is being put together. */
  glued(node: BinaryExpression): void {
    const { left, right } = node;
    if (left.type === "BinaryExpression" && isGluing(left)) this.glued(left);
    else this.expression(left as Expression);
    this.expression(right);
  }
}

/** Whether a `+` puts text together: one of the operands that it joins is a string or template. */
export function isGluing(node: BinaryExpression | PrivateInExpression): node is BinaryExpression {
  if (node.operator !== "+") return false;
  for (let current: Node = node; ;) {
    if (current.type !== "BinaryExpression" || current.operator !== "+") return isText(current);
    if (isText(current.right)) return true;
    current = current.left;
  }
}

function isText(node: Node): boolean {
  return (
    node.type === "TemplateLiteral" ||
    (node.type === "Literal" && typeof node.value === "string") ||
    (node.type === "ConditionalExpression" && choosesWords(node) && !holdsNothing(node))
  );
}

/** Why an expression inside a text keeps it from becoming one message: it chooses between words itself. */
const say = notices("extract", {
  "word-by-value": {
    message: "the sentence chooses a word by a number or value in code",
    remedy: "write it as one message with a plural or select, then look that up",
  },
  "word-by-code": {
    message: "the sentence has a word in it that code chooses",
    remedy: "write one message for each case, or a select",
  },
});

/** The id of the refusal of a sentence whose words depend on a number or value. */
export const wordByValue = "extract/word-by-value";

function obstacleIn(expression: Expression): Obstacle | undefined {
  if (!choosesWords(expression)) return undefined;
  const counts =
    expression.type === "ConditionalExpression" && /===?|!==?|[<>]/.test(testOperator(expression.test));
  return counts ? say("word-by-value", {}) : say("word-by-code", {});
}

function testOperator(test: Expression): string {
  return test.type === "BinaryExpression" ? test.operator : "";
}

export function choosesWords(node: Expression): boolean {
  if (node.type === "ConditionalExpression") return hasWords(node.consequent) || hasWords(node.alternate);
  // What is shown where a value lacks takes its place as it would: the sentence is the same.
  if (node.type === "LogicalExpression") return node.operator === "&&" && hasWords(node.right);
  return false;
}

function hasWords(node: Expression): boolean {
  if (node.type === "Literal") return typeof node.value === "string" && /\p{L}/u.test(node.value);
  if (node.type === "TemplateLiteral") return node.quasis.some((quasi) => /\p{L}/u.test(quasi.value.raw));
  return choosesWords(node) || (node.type === "BinaryExpression" && isGluing(node));
}

/** Whether a branch is null or undefined, which is shown as a word in one place and not at all in another. */
function holdsNothing(node: Expression): boolean {
  if (node.type === "ConditionalExpression")
    return holdsNothing(node.consequent) || holdsNothing(node.alternate);
  return (
    (node.type === "Literal" && typeof node.value !== "string" && typeof node.value !== "number") ||
    (node.type === "Identifier" && node.name === "undefined") ||
    /^JSX(?:Element|Fragment)$/.test(node.type)
  );
}

/** Whether the expression says itself that it may be null or undefined, which JSX shows as nothing. */
function mayBeAbsent(expression: Expression): boolean {
  return expression.type === "ChainExpression";
}
