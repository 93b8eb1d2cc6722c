import type { ConditionalExpression, Expression, ObjectExpression } from "oxc-parser";
import { isKnownLanguage } from "../../../locale/mistaken-tag.js";
import { pluralRules } from "../../../locale/plural-rules.js";

/** What decides between the words of a conditional, as a message can say it. */
export interface ChoiceTest {
  readonly kind: "plural" | "select";
  /** The value that is compared; the whole test where it is only true or false. */
  readonly operand: Expression;
  /** The code that gives the argument's value. */
  readonly value: string;
  /** The selectors that the first branch stands for, and the second. */
  readonly first: readonly string[];
  readonly second: readonly string[];
}

/** Reads the test of a conditional: a number against 0, 1 or 2, a value against a name, or anything that is true or false. */
export function choiceTest(node: ConditionalExpression, code: string): ChoiceTest {
  const { test } = node;
  const write = (one: Expression) => code.slice(one.start, one.end);
  if (test.type === "BinaryExpression" && test.left.type !== "PrivateIdentifier") {
    const flipped = test.left.type === "Literal";
    const [operand, bound] = flipped ? [test.right, test.left] : [test.left, test.right];
    const operator = flipped ? flip(test.operator) : test.operator;
    if (bound.type === "Literal" && isValue(operand)) {
      const given = { operand, value: write(operand) };
      if (typeof bound.value === "number") {
        const numbers = numbersFor(operator, bound.value);
        if (numbers) return { kind: "plural", ...given, ...numbers };
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
  return {
    kind: "select",
    operand: test,
    value: `${write(test)} ? "yes" : "no"`,
    first: ["yes"],
    second: ["other"],
  };
}

function flip(operator: string): string {
  return { "<": ">", ">": "<", "<=": ">=", ">=": "<=" }[operator] ?? operator;
}

/** What can be passed as it is: reading it once more changes nothing. */
function isValue(node: Expression): boolean {
  return /^(?:Identifier|MemberExpression|ChainExpression|CallExpression|TSNonNullExpression)$/.test(
    node.type,
  );
}

/** The numbers of things that a comparison with a small number stands for. */
function numbersFor(operator: string, bound: number): Pick<ChoiceTest, "first" | "second"> | undefined {
  if (![0, 1, 2].includes(bound)) return undefined;
  const below = (limit: number) => Array.from({ length: limit }, (_, number) => `=${number}`);
  switch (operator) {
    case "===":
    case "==":
      return { first: [`=${bound}`], second: ["other"] };
    case "!==":
    case "!=":
      return { first: ["other"], second: [`=${bound}`] };
    case ">":
      return { first: ["other"], second: below(bound + 1) };
    case ">=":
      return bound === 0 ? undefined : { first: ["other"], second: below(bound) };
    case "<":
      return bound === 0 ? undefined : { first: below(bound), second: ["other"] };
    case "<=":
      return { first: below(bound + 1), second: ["other"] };
    default:
      return undefined;
  }
}

const pairs = new Set(
  "is are|was were|has have|does do|this these|that those|it they|its their|person people|child children|man men|woman women|foot feet|mouse mice|day days|a some|an some|one many"
    .split("|")
    .flatMap((pair) => [pair, pair.split(" ").reverse().join(" ")]),
);

/**
 * Whether two texts look like the forms of one, so that the number between them counts things: `bike` and `bikes`, an
 * ending alone, or a text that shows the number.
 */
export function looksCounted(first: string, second: string): boolean {
  const one = first.trim().toLowerCase();
  const two = second.trim().toLowerCase();
  if (one.length <= 3 && two.length <= 3 && (one === "" || two === "")) return true;
  if (pairs.has(`${one} ${two}`)) return true;
  const wordsOf = (text: string) => new Set(text.match(/\p{L}{3,}/gu) ?? []);
  const words = wordsOf(two);
  for (const word of wordsOf(one))
    for (const other of words)
      if (word.slice(0, Math.max(3, word.length - 2)) === other.slice(0, Math.max(3, word.length - 2)))
        return true;
  return false;
}

/** Whether exactly the number 1 takes the category `one` in a language, so that `one` may stand for it. */
export function oneIsExact(language: string | undefined): boolean {
  return language !== undefined && pluralRules(language, "cardinal").onlyWholeNumber("one") === 1;
}

/** Texts in several languages that code chooses among: by locale as written; undefined stands for all others. */
export type LanguageBranches = ReadonlyMap<string | undefined, Expression>;

/** Reads `lang === "de" ? "Hallo" : "Hello"`, as long a chain as it is; undefined for anything else. */
export function languageChoice(node: ConditionalExpression, code: string): LanguageBranches | undefined {
  const branches = new Map<string | undefined, Expression>();
  let operand: string | undefined;
  let at: Expression = node;
  while (at.type === "ConditionalExpression") {
    const test: Expression = at.test;
    if (test.type !== "BinaryExpression" || !/^[!=]==?$/.test(test.operator)) return undefined;
    const [value, bound] = test.left.type === "Literal" ? [test.right, test.left] : [test.left, test.right];
    const written = code.slice(value.start, value.end);
    if (bound.type !== "Literal" || typeof bound.value !== "string" || !isLanguage(bound.value))
      return undefined;
    if (
      !/(?:locale|lang|language)\w*(?:\(\))?$/i.test(written) ||
      (operand !== undefined && operand !== written)
    )
      return undefined;
    operand = written;
    const isEqual: boolean = test.operator.startsWith("=");
    if (!isEqual && at.alternate.type === "ConditionalExpression") return undefined;
    branches.set(bound.value, isEqual ? at.consequent : at.alternate);
    at = isEqual ? at.alternate : at.consequent;
  }
  branches.set(undefined, at);
  return [...branches.values()].every(isWritten) ? branches : undefined;
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

function isLanguage(name: string): boolean {
  return /^[a-z]{2,3}(?:[-_][A-Za-z]{2,4})?$/.test(name) && isKnownLanguage(name.split(/[-_]/, 1)[0] ?? "");
}

function isWritten(node: Expression): boolean {
  return (node.type === "Literal" && typeof node.value === "string") || node.type === "TemplateLiteral";
}
