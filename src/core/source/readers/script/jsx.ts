import { inlineElements, lineBreaks } from "../../../text/html-elements.js";
import { decodeHTMLStrict } from "entities";
import type { Expression, JSXChild, JSXElement, Node } from "oxc-parser";
import type { Span } from "../../../text/span.js";
import type { Obstacle, Piece } from "../../model.js";
import { blanksAhead, blanksBehind, trimEnds } from "../../pieces.js";
import { elementName } from "./context.js";
import { isGluing, PieceList } from "./pieces.js";

/** Neighbouring children of an element that a user reads as one text. */
export interface TextRun {
  readonly form: "content" | "phrase";
  readonly span: Span;
  readonly pieces: readonly Piece[];
  readonly obstacle: Obstacle | undefined;
  /** The nodes that are part of the text itself and so no literals of their own. */
  readonly consumed: readonly Node[];
}

/** Names of values that are usually elements, not text. */
const elementValue =
  /(^|[.])(children|content|slot|fallback)$|(icon|element|node|component|badge|avatar|slot|children)s?$/i;

/** Finds the texts among an element's children. `isLookup` tells calls that ask for a key: these end a text. */
export function textRuns(
  children: readonly JSXChild[],
  code: string,
  isLookup: (expression: Expression) => boolean,
  language?: string,
): TextRun[] {
  const runs: TextRun[] = [];
  let current: JSXChild[] = [];
  const finish = () => {
    const run = readRun(current, code, isLookup, language);
    if (run) runs.push(run);
    current = [];
  };
  for (const [at, child] of children.entries()) {
    if (belongsToText(child, isLookup) && !standsAlone(children, at)) current.push(child);
    else finish();
  }
  finish();
  return runs;
}

/** Whether a child is a text of its own that a condition shows or not, beside others and no part of their sentences: `{late && "The boat is late."}`. */
function standsAlone(children: readonly JSXChild[], at: number): boolean {
  const child = children[at];
  if (child?.type !== "JSXExpressionContainer" || child.expression.type !== "LogicalExpression") return false;
  const { operator, right } = child.expression;
  if (operator !== "&&" || right.type !== "Literal" || typeof right.value !== "string") return false;
  if (!/^\p{Lu}\S*\s+\S/u.test(right.value)) return false;
  const texts = (those: readonly JSXChild[]) =>
    those.map((one) =>
      one.type === "JSXText" ? one.value : one.type === "JSXExpressionContainer" ? "" : "x",
    );
  const before = texts(children.slice(0, at)).join("").trim();
  const behind = texts(children.slice(at + 1))
    .join("")
    .trim();
  return (before === "" || /[.!?:…]$/.test(before)) && (behind === "" || /^\p{Lu}/u.test(behind));
}

/** JSX's reading of text between tags: lines trimmed, blank ones dropped, the rest joined by a space, entities decoded. */
export function jsxTextValue(raw: string): string {
  const lines = raw.split(/\r\n|\n|\r/);
  const kept = lines.map((line, index) => {
    let text = line.replaceAll("\t", " ");
    if (index > 0) text = text.replace(/^ +/, "");
    if (index < lines.length - 1) text = text.replace(/(?<! ) +$/, "");
    return text;
  });
  const lastIndex = kept.findLastIndex((line) => /[^ ]/.test(line));
  const joined = kept
    .map((line, index) =>
      line === "" ? "" : index !== lastIndex && index < lines.length - 1 ? `${line} ` : line,
    )
    .join("");
  return decodeHTMLStrict(joined);
}

function readRun(
  nodes: readonly JSXChild[],
  code: string,
  isLookup: (expression: Expression) => boolean,
  language: string | undefined,
): TextRun | undefined {
  let from = 0;
  let to = nodes.length;
  const isOutside = (child: JSXChild | undefined) =>
    child !== undefined && (isBlank(child) || isEmptyElement(child));
  while (from < to && isOutside(nodes[from])) from++;
  while (to > from && isOutside(nodes[to - 1])) to--;
  const inside = nodes.slice(from, to);
  const first = inside[0];
  const last = inside[inside.length - 1];
  if (!first || !last) return undefined;
  if (!inside.some((child) => isWordy(child) || (inside.length > 1 && isChosen(child)))) {
    // Values and chosen words alone, as in `{count} {count === 1 ? "bike" : "bikes"}`: a sentence all the same.
    const list = new PieceList(code, undefined, language);
    if (valuesIn(inside) > 1) addChildren(list, inside, [], code, isLookup);
    const span = { start: first.start, end: last.end };
    return list.obstacle && { form: "phrase", span, pieces: [], obstacle: list.obstacle, consumed: [] };
  }
  if (inside.length === 1 && first.type === "JSXExpressionContainer") return undefined;
  const list = new PieceList(code, undefined, language);
  const consumed: Node[] = [];
  addChildren(list, inside, consumed, code, isLookup);
  const start =
    first.type === "JSXText" ? first.start + blanksAhead(code.slice(first.start, first.end)) : first.start;
  const end = last.type === "JSXText" ? last.end - blanksBehind(code.slice(last.start, last.end)) : last.end;
  return {
    form: inside.length === 1 && first.type === "JSXText" ? "content" : "phrase",
    span: { start, end },
    pieces: trimEnds(list.pieces),
    obstacle: list.obstacle,
    consumed: [...consumed, ...list.chosen],
  };
}

/** How many values some children show, those inside of their elements too. */
function valuesIn(children: readonly JSXChild[]): number {
  return children.reduce((sum, child) => {
    if (child.type === "JSXElement") return sum + valuesIn(child.children);
    return (
      sum + Number(child.type === "JSXExpressionContainer" && child.expression.type !== "JSXEmptyExpression")
    );
  }, 0);
}

function addChildren(
  list: PieceList,
  children: readonly JSXChild[],
  consumed: Node[],
  code: string,
  isLookup: (expression: Expression) => boolean,
): void {
  for (const child of children) {
    if (child.type === "JSXText") {
      consumed.push(child);
      list.text(jsxTextValue(code.slice(child.start, child.end)), child.start, child.end);
    } else if (child.type === "JSXExpressionContainer" && child.expression.type !== "JSXEmptyExpression") {
      if (isTextExpression(child.expression)) consumed.push(child.expression);
      list.expression(child.expression);
    } else if (child.type === "JSXElement") {
      consumed.push(child);
      addElement(list, child, consumed, code, isLookup);
    }
  }
}

function addElement(
  list: PieceList,
  element: JSXElement,
  consumed: Node[],
  code: string,
  isLookup: (expression: Expression) => boolean,
): void {
  const inner = list.nested();
  if (!isPicture(element)) addChildren(inner, element.children, consumed, code, isLookup);
  list.obstacle ??= inner.obstacle;
  const { openingElement: open, closingElement: close } = element;
  list.pieces.push({
    kind: "tag",
    name: list.uniqueName(tagName(element), code.slice(open.start, open.end)),
    span: { start: element.start, end: element.end },
    open: { start: open.start, end: open.end },
    close: close ? { start: close.start, end: close.end } : undefined,
    pieces: inner.pieces,
  });
}

/** A name for an element inside a message: what it leads to or is for, else what it is. */
function tagName(element: JSXElement): string {
  const name = elementName(element.openingElement.name).split(/[.:]/).pop() ?? "tag";
  const plain = name.charAt(0).toLowerCase() + name.slice(1);
  if (plain === "a" || plain === "link" || plain === "navLink") return "link";
  return plain.replace(/[^A-Za-z0-9]/g, "") || "tag";
}

/** Whether a child can be part of one text with its neighbors. */
function belongsToText(child: JSXChild, isLookup: (expression: Expression) => boolean): boolean {
  switch (child.type) {
    case "JSXText":
      return true;
    case "JSXExpressionContainer":
      return child.expression.type === "JSXEmptyExpression" || isPlainValue(child.expression, isLookup);
    case "JSXElement": {
      const name = elementName(child.openingElement.name);
      if (lineBreaks.has(name)) return true;
      const isComponent = /^[A-Z]/.test(name) || name.includes(".");
      if (!isComponent && !inlineElements.has(name)) return isEmptyElement(child) && !child.children.length;
      return child.children.every((inner) => belongsToText(inner, isLookup));
    }
    default:
      return false;
  }
}

/** Whether an expression's value is text or a number, as far as code shows, and no element, lookup or nothing at all. */
function isPlainValue(expression: Expression, isLookup: (expression: Expression) => boolean): boolean {
  if (isLookup(expression)) return false;
  switch (expression.type) {
    case "Identifier":
      return !elementValue.test(expression.name);
    case "MemberExpression":
      return (
        expression.computed ||
        !("name" in expression.property) ||
        !elementValue.test(expression.property.name)
      );
    case "ChainExpression":
    case "TSNonNullExpression":
      return isPlainValue(expression.expression, isLookup);
    case "Literal":
      return typeof expression.value === "string" || typeof expression.value === "number";
    case "TemplateLiteral":
      return expression.expressions.every((inner) => isPlainValue(inner, isLookup));
    case "CallExpression":
      return (
        !/(^|\.)(render|map|filter|children)/i.test(callText(expression.callee)) &&
        !expression.arguments.some(holdsElement)
      );
    case "BinaryExpression":
      return (
        expression.left.type !== "PrivateIdentifier" &&
        isPlainValue(expression.left, isLookup) &&
        isPlainValue(expression.right, isLookup)
      );
    case "LogicalExpression":
      return expression.operator === "&&"
        ? isTextExpression(expression.right)
        : isPlainValue(expression.left, isLookup) && isPlainValue(expression.right, isLookup);
    case "ConditionalExpression":
      return isPlainValue(expression.consequent, isLookup) && isPlainValue(expression.alternate, isLookup);
    default:
      return false;
  }
}

function callText(callee: Node): string {
  if (callee.type === "Identifier") return callee.name;
  return callee.type === "MemberExpression" && "name" in callee.property ? `.${callee.property.name}` : "";
}

function holdsElement(node: Node): boolean {
  if (node.type === "JSXElement" || node.type === "JSXFragment") return true;
  return node.type === "ArrowFunctionExpression" && holdsElement(node.body);
}

/** Whether a child has words of its own, at its top level. */
function isWordy(child: JSXChild): boolean {
  if (child.type === "JSXText") return /\p{L}/u.test(decodeHTMLStrict(child.value));
  return (
    child.type === "JSXExpressionContainer" &&
    isTextExpression(child.expression) &&
    hasLetters(child.expression)
  );
}

/** Words that a conditional chooses. */
function isChosen(child: JSXChild): boolean {
  if (child.type !== "JSXExpressionContainer" || child.expression.type !== "ConditionalExpression")
    return false;
  const { consequent, alternate } = child.expression;
  const isText = (node: Node): boolean =>
    isTextExpression(node) ||
    (node.type === "ConditionalExpression" && isText(node.consequent) && isText(node.alternate));
  return isText(consequent) && isText(alternate) && (hasLetters(consequent) || hasLetters(alternate));
}

function isTextExpression(node: Node): boolean {
  if (node.type === "Literal") return typeof node.value === "string";
  return node.type === "TemplateLiteral" || (node.type === "BinaryExpression" && isGluing(node));
}

function hasLetters(node: Node): boolean {
  if (node.type === "Literal") return typeof node.value === "string" && /\p{L}/u.test(node.value);
  if (node.type === "TemplateLiteral")
    return node.quasis.some((quasi) => /\p{L}/u.test(quasi.value.cooked ?? ""));
  return node.type === "BinaryExpression" && (hasLetters(node.left) || hasLetters(node.right));
}

/** White space, a comment, or `{" "}`: nothing that a text begins or ends with. */
function isBlank(child: JSXChild): boolean {
  if (child.type === "JSXText") return /^[ \t\r\n]*$/.test(child.value);
  if (child.type !== "JSXExpressionContainer") return false;
  const { expression } = child;
  return (
    expression.type === "JSXEmptyExpression" ||
    (expression.type === "Literal" && typeof expression.value === "string" && expression.value.trim() === "")
  );
}

/** An icon that a font draws for the name in it: `<Icon>arrow_forward</Icon>`. */
function isPicture(child: JSXChild): boolean {
  if (child.type !== "JSXElement" || !/Icon$/.test(elementName(child.openingElement.name))) return false;
  const [only, ...others] = child.children;
  return only?.type === "JSXText" && others.length === 0 && /^\s*[a-z][a-z0-9_]*\s*$/.test(only.value);
}

/** An element that holds no text and no values. */
function isEmptyElement(child: JSXChild): boolean {
  if (isPicture(child)) return true;
  return (
    (child.type === "JSXElement" || child.type === "JSXFragment") &&
    child.children.every((inner) => isBlank(inner) || isEmptyElement(inner))
  );
}
