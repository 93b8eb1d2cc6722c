import type { ConditionalExpression, Expression, ObjectExpression } from "oxc-parser";
import { isKnownLanguage } from "../../../locale/mistaken-tag.js";
import { asksForAny, flip, numbersFor, type ChoiceTest } from "../worded-choice.js";
import { nameForExpression } from "./names.js";

/** Reads the test of a conditional: a number against 0, 1 or 2, a value against a name, or anything that is true or false. */
export function choiceTest(test: Expression, code: string): ChoiceTest {
  const write = (one: Expression) => code.slice(one.start, one.end);
  if (test.type === "BinaryExpression" && test.left.type !== "PrivateIdentifier") {
    const flipped = test.left.type === "Literal";
    const [operand, bound] = flipped ? [test.right, test.left] : [test.left, test.right];
    const operator = flipped ? flip(test.operator) : test.operator;
    if (bound.type === "Literal" && isValue(operand)) {
      const given = { code: write(operand), value: write(operand), name: nameForExpression(operand) };
      if (typeof bound.value === "number") {
        const numbers = numbersFor(operator, bound.value);
        if (numbers) {
          const plural = { kind: "plural", ...given, ...numbers } as const;
          return asksForAny(operator, numbers) ? { ...plural, orElse: truthOf(test, code) } : plural;
        }
      }
      if (
        typeof bound.value === "string" &&
        /^[\p{L}_][\p{L}\p{N}_-]*$/u.test(bound.value) &&
        bound.value !== "other"
      ) {
        if (/^===?$/.test(operator))
          return { kind: "select", ...given, first: [bound.value], second: ["other"] };
        if (/^!==?$/.test(operator))
          return { kind: "select", ...given, first: ["other"], second: [bound.value] };
      }
    }
  }
  return truthOf(test, code);
}

/** A test as what is true or not. */
function truthOf(test: Expression, code: string): ChoiceTest {
  const written = code.slice(test.start, test.end);
  return {
    kind: "select",
    code: written,
    name: nameForExpression(test),
    value: `${written} ? "yes" : "no"`,
    first: ["yes"],
    second: ["other"],
  };
}

/** What can be passed as it is: reading it once more changes nothing. */
export function isValue(node: Expression): boolean {
  return /^(?:Identifier|MemberExpression|ChainExpression|CallExpression|TSNonNullExpression)$/.test(
    node.type,
  );
}

/** Texts in several languages that code chooses among: by locale as written; undefined stands for all others. */
export type LanguageBranches = ReadonlyMap<string | undefined, Expression>;

/** Reads `lang === "de" ? "Hallo" : "Hello"`, as long a chain as it is; undefined for anything else. */
export function languageChoice(node: ConditionalExpression, code: string): LanguageBranches | undefined {
  const branches = new Map<string | undefined, Expression>();
  let operand: string | undefined;
  let at: Expression = node;
  while (at.type === "ConditionalExpression") {
    const test = languageTest(at.test, code);
    if (!test || (operand !== undefined && operand !== test.operand)) return undefined;
    operand = test.operand;
    const { isEqual } = test;
    if (!isEqual && at.alternate.type === "ConditionalExpression") return undefined;
    branches.set(test.locale, isEqual ? at.consequent : at.alternate);
    at = isEqual ? at.alternate : at.consequent;
  }
  branches.set(undefined, at);
  return [...branches.values()].every(isWritten) ? branches : undefined;
}

/** A comparison of what is called for a locale or language with one of them. */
export function languageTest(
  test: Expression,
  code: string,
): { readonly operand: string; readonly locale: string; readonly isEqual: boolean } | undefined {
  if (test.type !== "BinaryExpression" || !/^[!=]==?$/.test(test.operator)) return undefined;
  const [value, bound] = test.left.type === "Literal" ? [test.right, test.left] : [test.left, test.right];
  if (bound.type !== "Literal" || typeof bound.value !== "string" || !isLanguage(bound.value))
    return undefined;
  const operand = code.slice(value.start, value.end);
  if (!isCalledForLanguage(operand)) return undefined;
  return { operand, locale: bound.value, isEqual: test.operator.startsWith("=") };
}

export function isCalledForLanguage(operand: string): boolean {
  return /locale|lang/i.test(/(?<!\w)\w+(?:\(\))?$/.exec(operand)?.[0] ?? "");
}

/** Reads `{ en: "Hello", de: "Hallo" }[lang]`. */
export function languageTable(object: ObjectExpression): LanguageBranches | undefined {
  const branches = new Map<string | undefined, Expression>();
  for (const property of object.properties) {
    if (property.type !== "Property" || property.computed) return undefined;
    const { key, value } = property;
    const name = key.type === "Identifier" ? key.name : key.type === "Literal" ? String(key.value) : "";
    if (!isLanguage(name)) return undefined;
    branches.set(name, value);
  }
  return branches.size > 1 && [...branches.values()].every(isWritten) ? branches : undefined;
}

export function isLanguage(name: string): boolean {
  return /^[a-z]{2,3}(?:[-_][A-Za-z]{2,4})?$/.test(name) && isKnownLanguage(name.split(/[-_]/, 1)[0] ?? "");
}

export function isWritten(node: Expression): boolean {
  return (node.type === "Literal" && typeof node.value === "string") || node.type === "TemplateLiteral";
}
