import type { Expression, Node } from "oxc-parser";

/**
 * A name for the value of an expression, as a message's argument: `user.profile.firstName` gives `firstName`,
 * `formatPrice(total)` gives `price`, `bikes.length` gives `bikeCount`. `value` where nothing can be made out.
 */
export function nameForExpression(expression: Expression): string {
  return toName(namePart(expression)) ?? "value";
}

/** Objects of the language whose functions only change a value. */
const helpers: ReadonlySet<string> = new Set("Math Array Object JSON Number String Date Intl".split(" "));

function namePart(node: Node): string | undefined {
  switch (node.type) {
    case "Identifier":
      return node.name;
    case "MemberExpression": {
      if (node.computed) {
        const { property } = node;
        const picked =
          property.type === "Literal" && typeof property.value === "string" ? property.value : "";
        return /^[A-Za-z_]\w*$/.test(picked) ? picked : namePart(node.object);
      }
      const property = "name" in node.property ? node.property.name : undefined;
      if (property === "length" || property === "size") {
        const counted = namePart(node.object);
        return counted && `${singular(counted)}Count`;
      }
      if (property === "value" || property === "current") return namePart(node.object) ?? property;
      return property;
    }
    case "CallExpression": {
      const { callee } = node;
      const called =
        callee.type === "MemberExpression"
          ? namePart(callee)
          : callee.type === "Identifier"
            ? callee.name
            : undefined;
      const [first] = node.arguments;
      const got =
        callee.type === "Identifier" || /^(?:get\w*|tr?|text|translate|say|param)$/.test(called ?? "");
      const last = got ? keyEnding(first) : undefined;
      if (last !== undefined) return last;
      const noun = called && /^(?:get|format|render|to|compute|calculate|use)([A-Z]\w*)$/.exec(called)?.[1];
      const generic =
        !noun ||
        /^(String|Number|Value|Count|Fixed|LocaleString|LocaleDateString|LocaleTimeString|LowerCase|UpperCase|ISOString|Precision)$/.test(
          noun,
        );
      if (!generic) return noun;
      const isHelper =
        callee.type === "MemberExpression" &&
        callee.object.type === "Identifier" &&
        helpers.has(callee.object.name);
      if (callee.type === "MemberExpression" && !isHelper) return namePart(callee.object) ?? called;
      return (first && first.type !== "SpreadElement" ? namePart(first) : undefined) ?? called;
    }
    case "ChainExpression":
    case "TSNonNullExpression":
    case "TSAsExpression":
    case "ParenthesizedExpression":
      return namePart(node.expression);
    case "BinaryExpression":
    case "LogicalExpression":
      return namePart(node.left) ?? namePart(node.right);
    case "UnaryExpression":
      return namePart(node.argument);
    case "ConditionalExpression":
      return namePart(node.consequent) ?? namePart(node.alternate) ?? namePart(node.test);
    case "TemplateLiteral": {
      const [first] = node.expressions;
      return first && namePart(first);
    }
    default:
      return undefined;
  }
}

/** What a value is called by the key that it is got by: the last part of `main.title`. */
function keyEnding(node: Node | undefined): string | undefined {
  const key = node?.type === "Literal" && typeof node.value === "string" ? node.value : "";
  const last = /^[A-Za-z][\w.-]{2,80}$/.test(key) ? (key.split(/[.-]/).at(-1) ?? "") : "";
  return /^(?=[^a-z]{0,80}[a-z])[A-Za-z_]\w{0,80}$/.test(last) ? last : undefined;
}

function toName(words: string | undefined): string | undefined {
  const cleaned = words?.replace(/[^A-Za-z0-9_]/g, "").replace(/^\d+/, "");
  if (!cleaned) return undefined;
  if (/^[A-Z0-9_]+$/.test(cleaned))
    return cleaned.toLowerCase().replace(/(?<!_)_+([a-z0-9])/g, (_, unit: string) => unit.toUpperCase());
  return cleaned.charAt(0).toLowerCase() + cleaned.slice(1);
}

function singular(name: string): string {
  if (/ies$/.test(name)) return `${name.slice(0, -3)}y`;
  if (/(ches|shes|sses|xes)$/.test(name)) return name.slice(0, -2);
  return /[^s]s$/.test(name) ? name.slice(0, -1) : name;
}
