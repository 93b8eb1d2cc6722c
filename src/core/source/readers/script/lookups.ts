import type { CallExpression, Expression, JSXOpeningElement, Node } from "oxc-parser";
import type { Lookup, LookupKey, LookupShapes } from "../../model.js";
import { calleeName, elementName, propertyName } from "./context.js";
import { isGluing } from "./pieces.js";

/** A lookup together with the nodes that write its key, which are no literals. */
export interface FoundLookup {
  readonly lookups: readonly Lookup[];
  readonly keyNodes: readonly Node[];
}

/** Whether an expression is a call that asks for a key. */
export function isLookupCall(node: Node, shapes: LookupShapes): node is CallExpression {
  if (node.type !== "CallExpression") return false;
  const name = calleeName(node.callee);
  return name !== undefined && shapes.calls.has(name);
}

/** Reads `t("key", { … })`. A key chosen by a condition gives a lookup for each of its values. */
export function readCallLookup(call: CallExpression): FoundLookup {
  const [first, second] = call.arguments;
  if (!first || first.type === "SpreadElement") return { lookups: [], keyNodes: [] };
  const argumentNames =
    second === undefined ? [] : second.type === "SpreadElement" ? undefined : namesIn(second);
  return keyAlternatives(first, { start: call.start, end: call.end }, argumentNames);
}

/** Reads `<Message id="key" …>`; undefined where the component's key prop is not there. */
export function readComponentLookup(
  opening: JSXOpeningElement,
  shapes: LookupShapes,
): FoundLookup | undefined {
  const keyProp = shapes.components.get(elementName(opening.name));
  if (keyProp === undefined) return undefined;
  for (const attribute of opening.attributes) {
    if (
      attribute.type !== "JSXAttribute" ||
      attribute.name.type !== "JSXIdentifier" ||
      attribute.name.name !== keyProp
    )
      continue;
    const { value } = attribute;
    const key = value?.type === "JSXExpressionContainer" ? value.expression : value;
    if (!key || key.type === "JSXEmptyExpression") return undefined;
    return keyAlternatives(key as Expression, { start: opening.start, end: opening.end }, undefined);
  }
  return undefined;
}

function keyAlternatives(
  key: Expression,
  span: { start: number; end: number },
  argumentNames: readonly string[] | undefined,
): FoundLookup {
  if (key.type === "ConditionalExpression") {
    const parts = [key.consequent, key.alternate].map((part) => keyAlternatives(part, span, argumentNames));
    return {
      lookups: parts.flatMap((part) => part.lookups),
      keyNodes: parts.flatMap((part) => part.keyNodes),
    };
  }
  const isQuoted = key.type === "Literal" || key.type === "TemplateLiteral";
  const keySpan = isQuoted ? { start: key.start + 1, end: key.end - 1 } : { start: key.start, end: key.end };
  const read = readKey(key);
  return {
    lookups: [{ span, keySpan, key: read, argumentNames }],
    keyNodes: read.kind === "unknown" ? [] : [key],
  };
}

function readKey(node: Expression): LookupKey {
  const parts = keyParts(node);
  const [only] = parts;
  if (parts.length === 1 && typeof only === "string") return { kind: "fixed", value: only };
  return parts.some((part) => part !== null && part !== "")
    ? { kind: "composed", parts }
    : { kind: "unknown" };
}

/** The parts of a key put together in code; null for what is known at run time only. Neighbours of a kind are joined. */
function keyParts(node: Expression): (string | null)[] {
  if (node.type === "Literal" && typeof node.value === "string") return [node.value];
  if (node.type === "TSAsExpression" || node.type === "TSNonNullExpression") return keyParts(node.expression);
  if (node.type === "TemplateLiteral") {
    const parts = node.quasis.flatMap((quasi, index) => {
      const expression = node.expressions[index];
      return [quasi.value.cooked ?? "", ...(expression ? keyParts(expression) : [])];
    });
    return joined(parts);
  }
  if (node.type === "BinaryExpression" && isGluing(node))
    return joined([...keyParts(node.left as Expression), ...keyParts(node.right)]);
  return [null];
}

function joined(parts: readonly (string | null)[]): (string | null)[] {
  const result: (string | null)[] = [];
  for (const part of parts) {
    const last = result[result.length - 1];
    if (typeof part === "string" && typeof last === "string") result[result.length - 1] = last + part;
    else if (part !== "" || parts.length === 1) result.push(part);
  }
  return result;
}

function namesIn(node: Expression): readonly string[] | undefined {
  if (node.type !== "ObjectExpression") return undefined;
  const names: string[] = [];
  for (const property of node.properties) {
    const name = property.type === "Property" && !property.computed ? propertyName(property.key) : undefined;
    if (name === undefined) return undefined;
    names.push(name);
  }
  return names;
}
