import type {
  BinaryExpression,
  ConditionalExpression,
  Expression,
  Node,
  PrivateInExpression,
  TemplateLiteral,
} from "oxc-parser";
import { fixedText, type Obstacle, type Piece } from "../../model.js";
import { uniqueNames } from "../expression-names.js";
import { choiceTest, looksCounted, oneIsExact } from "./choices.js";
import { nameForExpression } from "./names.js";

/** Pieces of one literal being read, its argument names kept apart. */
export class PieceList {
  readonly pieces: Piece[] = [];
  obstacle: Obstacle | undefined;
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
    if (expression.type === "Literal" && typeof expression.value === "string")
      this.text(expression.value, start, end);
    else if (expression.type === "TemplateLiteral") this.template(expression);
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
    const test = choiceTest(expression, this.code);
    const operandCode = this.code.slice(test.operand.start, test.operand.end);
    const branches = new Map<string, readonly Piece[]>();
    const collect = (node: Expression, selectors: readonly string[]) => {
      if (node.type === "ConditionalExpression" && choosesWords(node) && selectors.includes("other")) {
        const inner = choiceTest(node, this.code);
        const isSame =
          inner.kind === test.kind && this.code.slice(inner.operand.start, inner.operand.end) === operandCode;
        if (isSame) {
          // A test that an outer one has answered already cannot be asked again.
          const left = (those: readonly string[]) =>
            those.filter((one) => one === "other" || !branches.has(one));
          collect(node.consequent, left(inner.first));
          collect(node.alternate, left(inner.second));
          for (const one of selectors)
            if (one !== "other" && !branches.has(one)) collect(node.alternate, [one]);
          this.chosen.push(node);
          return;
        }
      }
      const list = this.nested();
      list.expression(node);
      this.obstacle ??= list.obstacle;
      for (const selector of selectors) if (!branches.has(selector)) branches.set(selector, list.pieces);
    };
    const [sure, rest] = test.first.includes("other")
      ? [[expression.alternate, test.second] as const, [expression.consequent, test.first] as const]
      : [[expression.consequent, test.first] as const, [expression.alternate, test.second] as const];
    collect(...sure);
    collect(...rest);
    this.chosen.push(expression);
    const isCounted = test.kind === "plural" && this.isCounted(branches, operandCode);
    const renamed = [...branches].map(([selector, pieces]) => ({
      selector: selector === "=1" && isCounted && oneIsExact(this.language) ? "one" : selector,
      pieces,
    }));
    this.pieces.push({
      kind: "choice",
      choice: test.kind,
      name: this.uniqueName(nameForExpression(test.operand), operandCode),
      code: operandCode,
      value: test.value,
      span: { start: expression.start, end: expression.end },
      branches: renamed.sort((a, b) => rankOf(a.selector) - rankOf(b.selector)),
    });
  }

  /** Whether the branches are forms of one text, so that the number counts what they name. */
  isCounted(branches: ReadonlyMap<string, readonly Piece[]>, operandCode: string): boolean {
    const all = [...branches.values()];
    const shows = all.some((pieces) =>
      pieces.some((piece) => piece.kind === "argument" && piece.code === operandCode),
    );
    const [first, ...others] = all.map((pieces) => fixedText(pieces));
    return shows || others.some((other) => looksCounted(first ?? "", other));
  }

  template(template: TemplateLiteral): void {
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
  return node.type === "TemplateLiteral" || (node.type === "Literal" && typeof node.value === "string");
}

/** Why an expression inside a text keeps it from becoming one message: it chooses between words itself. */
function obstacleIn(expression: Expression): Obstacle | undefined {
  if (!choosesWords(expression)) return undefined;
  const counts =
    expression.type === "ConditionalExpression" && /===?|!==?|[<>]/.test(testOperator(expression.test));
  return counts
    ? {
        reason: "the sentence chooses a word by a number or value in code",
        remedy: "write it as one message with a plural or select, then look that up",
      }
    : {
        reason: "the sentence has a word in it that code chooses",
        remedy: "write one message for each case, or a select",
      };
}

function testOperator(test: Expression): string {
  return test.type === "BinaryExpression" ? test.operator : "";
}

function choosesWords(node: Expression): boolean {
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

/** Exact numbers first, then the rest, `other` last. */
function rankOf(selector: string): number {
  return selector === "other" ? 3 : selector.startsWith("=") ? 0 : 1;
}

/** Whether the expression says itself that it may be null or undefined, which JSX shows as nothing. */
function mayBeAbsent(expression: Expression): boolean {
  return expression.type === "ChainExpression";
}
