import { withoutQuoted } from "../../../text/delimited.js";
import type { Expression, IfStatement, Node, ReturnStatement, Statement, SwitchStatement } from "oxc-parser";
import type { Span } from "../../../text/span.js";
import type { ChoiceTest } from "../worded-choice.js";
import {
  choiceTest,
  isCalledForLanguage,
  isLanguage,
  isValue,
  isWritten,
  languageTest,
  type LanguageBranches,
} from "./choices.js";
import { nameForExpression } from "./names.js";
import { choosesWords, isGluing } from "./pieces.js";

/** A test with the text that is returned where it holds. */
export interface ReturnLink {
  readonly test: ChoiceTest;
  readonly text: Expression;
}

/** Statements that return one of several texts by a number. */
export interface ReturnedTexts {
  readonly links: readonly ReturnLink[];
  readonly last: ReturnStatement & { readonly argument: Expression };
  /** From the first statement to the last. */
  readonly span: Span;
}

type TextReturn = ReturnedTexts["last"];

/** Reads `switch (n) { case 0: return "None"; case 1: return "One"; default: return … }`. */
export function returnedBySwitch(node: SwitchStatement, code: string): ReturnedTexts | undefined {
  if (!isValue(node.discriminant)) return undefined;
  const operand = code.slice(node.discriminant.start, node.discriminant.end);
  const links: ReturnLink[] = [];
  let selectors: string[] = [];
  for (const [index, one] of node.cases.entries()) {
    const returned = one.consequent.length === 1 ? textReturn(one.consequent[0]) : undefined;
    if (one.test === null)
      return returned && index === node.cases.length - 1 && selectors.length === 0
        ? found(links, returned, node, node, code)
        : undefined;
    if (
      one.test.type !== "Literal" ||
      typeof one.test.value !== "number" ||
      !/^\d$/.test(String(one.test.value))
    )
      return undefined;
    selectors.push(`=${one.test.value}`);
    if (one.consequent.length === 0) continue;
    if (!returned) return undefined;
    const name = nameForExpression(node.discriminant);
    const test: ChoiceTest = {
      kind: "plural",
      code: operand,
      value: operand,
      name,
      first: selectors,
      second: ["other"],
    };
    links.push({ test, text: returned.argument });
    selectors = [];
  }
  return undefined;
}

/** Reads `if (n === 0) return "None"; if (n === 1) return "One"; return …` at the end of a block. */
export function returnedInTurn(body: readonly Statement[], code: string): ReturnedTexts | undefined {
  const last = textReturn(body.at(-1));
  if (!last) return undefined;
  const links: ReturnLink[] = [];
  let first: Node = last;
  for (let at = body.length - 2; at >= 0; at--) {
    const statement = body[at];
    if (statement?.type !== "IfStatement" || statement.alternate) break;
    const link = linkOf(statement, code);
    if (!link || (links[0] && links[0].test.code !== link.test.code)) break;
    links.unshift(link);
    first = statement;
  }
  return found(links, last, first, last, code);
}

/** Reads `if (n === 0) return "None"; else if (n === 1) return "One"; else return …`. */
export function returnedByElse(node: IfStatement, code: string): ReturnedTexts | undefined {
  const links: ReturnLink[] = [];
  let at: Statement | null = node;
  while (at?.type === "IfStatement") {
    const link = linkOf(at, code);
    if (!link) return undefined;
    links.push(link);
    at = at.alternate;
  }
  const last = textReturn(at ?? undefined);
  return last && found(links, last, node, node, code);
}

/** Statements that return a text in one of several languages. */
export interface LanguageReturns {
  readonly branches: LanguageBranches;
  readonly last: TextReturn;
  readonly span: Span;
}

/** Reads `if (lang === "de") return "Hallo"; return "Hello";` at the end of a block, the same with `else`, and with `switch`. */
export function returnedByLanguage(
  node: SwitchStatement | IfStatement | readonly Statement[],
  code: string,
): LanguageReturns | undefined {
  const found = new Map<string | undefined, Expression>();
  let operand: string | undefined;
  const put = (test: Expression, statement: Statement): boolean => {
    const language = languageTest(test, code);
    const returned = textReturn(statement);
    if (!language?.isEqual || !returned || !isWritten(returned.argument)) return false;
    if (operand !== undefined && operand !== language.operand) return false;
    operand = language.operand;
    found.set(language.locale, returned.argument);
    return true;
  };
  let first: Node | undefined;
  let last: TextReturn | undefined;
  if ("type" in node && node.type === "SwitchStatement") {
    if (!isCalledForLanguage(code.slice(node.discriminant.start, node.discriminant.end))) return undefined;
    for (const [index, one] of node.cases.entries()) {
      const returned = one.consequent.length === 1 ? textReturn(one.consequent[0]) : undefined;
      if (!returned || !isWritten(returned.argument)) return undefined;
      if (one.test === null && index < node.cases.length - 1) return undefined;
      const locale = one.test?.type === "Literal" ? String(one.test.value) : undefined;
      if (one.test && (locale === undefined || !isLanguage(locale))) return undefined;
      found.set(locale, returned.argument);
      if (one.test === null) last = returned;
    }
    first = node;
  } else if ("type" in node) {
    let at: Statement | null = node;
    while (at?.type === "IfStatement") {
      if (!put(at.test, at.consequent)) return undefined;
      at = at.alternate;
    }
    last = textReturn(at ?? undefined);
    first = node;
  } else {
    last = textReturn(node.at(-1));
    for (let at = node.length - 2; at >= 0; at--) {
      const statement = node[at];
      if (statement?.type !== "IfStatement" || statement.alternate) break;
      if (!put(statement.test, statement.consequent)) break;
      first = statement;
    }
  }
  if (!first || !last || found.size === 0 || !isWritten(last.argument)) return undefined;
  found.set(undefined, last.argument);
  const end: Node = "type" in node ? node : last;
  const span = { start: first.start, end: end.end };
  const written = withoutQuoted(code.slice(span.start, span.end), "\"'`", () => "_");
  return /\/[/*]/.test(written) ? undefined : { branches: found, last, span };
}

function linkOf(statement: IfStatement, code: string): ReturnLink | undefined {
  const returned = textReturn(statement.consequent);
  const test = choiceTest(statement.test, code);
  return returned && test.kind === "plural" ? { test, text: returned.argument } : undefined;
}

function found(
  links: readonly ReturnLink[],
  last: TextReturn,
  first: Node,
  end: Node,
  code: string,
): ReturnedTexts | undefined {
  const span = { start: first.start, end: end.end };
  const written = withoutQuoted(code.slice(span.start, span.end), "\"'`", () => "_");
  const [outer] = links;
  // A comment among them would be lost.
  return outer && links.every(({ test }) => test.code === outer.test.code) && !/\/[/*]/.test(written)
    ? { links, last, span }
    : undefined;
}

/** A statement that returns a text, by itself or in braces. */
function textReturn(statement: Statement | undefined): TextReturn | undefined {
  const [only, ...others] =
    statement?.type === "BlockStatement" ? statement.body : statement ? [statement] : [];
  if (only?.type !== "ReturnStatement" || others.length > 0 || !only.argument) return undefined;
  const { argument } = only;
  const isText =
    (argument.type === "Literal" && typeof argument.value === "string") ||
    argument.type === "TemplateLiteral" ||
    (argument.type === "BinaryExpression" && isGluing(argument)) ||
    (argument.type === "ConditionalExpression" && choosesWords(argument));
  return isText ? (only as TextReturn) : undefined;
}
