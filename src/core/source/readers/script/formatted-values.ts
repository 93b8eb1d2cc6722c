import type { CallExpression, Expression } from "oxc-parser";
import type { FormattedValue } from "../../model.js";
import { propertyName } from "./context.js";

/** An expression whose value is formatted for a locale, as a message can say it; with the value that is formatted. */
export interface FormattedExpression extends Pick<FormattedValue, "type" | "style"> {
  readonly value: Expression;
}

/**
 * Reads `day.toLocaleDateString()`, `new Intl.NumberFormat(locale, { style: "currency", currency: "EUR" }).format(price)` and
 * their like. Undefined where something is not certain: an option that no skeleton has (UTS #35 Part 4, "Date Field
 * Symbol Table"; ICU "Number Skeletons"), or a language other than that of the texts.
 */
export function formattedValue(
  node: Expression,
  language: string | undefined,
): FormattedExpression | undefined {
  if (node.type !== "CallExpression" || node.callee.type !== "MemberExpression" || node.callee.computed)
    return undefined;
  const { object, property } = node.callee;
  const method = property.type === "Identifier" ? property.name : "";
  if (object.type === "Super") return undefined;
  switch (method) {
    case "toLocaleDateString":
      return dated("date", object, node, language);
    case "toLocaleTimeString":
      return dated("time", object, node, language);
    case "toLocaleString": {
      // Dates have the method as well: only a style of numbers says what this is.
      const options = optionsOf(node.arguments[0], node.arguments[1], language);
      return options?.has("style") ? numbered(object, options) : undefined;
    }
    case "format": {
      const [value, ...others] = node.arguments;
      if (object.type !== "NewExpression" || !value || value.type === "SpreadElement" || others.length > 0)
        return undefined;
      const { callee } = object;
      const maker =
        callee.type === "MemberExpression" &&
        callee.object.type === "Identifier" &&
        callee.object.name === "Intl"
          ? callee.property.type === "Identifier" && callee.property.name
          : undefined;
      const options = optionsOf(object.arguments[0], object.arguments[1], language);
      if (!options) return undefined;
      if (maker === "NumberFormat") return numbered(value, options);
      if (maker !== "DateTimeFormat") return undefined;
      const style = dateStyle(options, "yMd");
      return style && { type: style.isTime ? "time" : "date", style: style.text, value };
    }
    default:
      return undefined;
  }
}

type Options = ReadonlyMap<string, string | number>;

/** The options that are written out; undefined where one of them is not, or the locale is that of another language. */
function optionsOf(
  locale: CallExpression["arguments"][number] | undefined,
  given: CallExpression["arguments"][number] | undefined,
  language: string | undefined,
): Options | undefined {
  if (
    locale?.type === "Literal" &&
    typeof locale.value === "string" &&
    locale.value.split("-")[0] !== language
  )
    return undefined;
  const isOther = locale?.type === "ArrayExpression" && locale.elements.length > 0;
  if (locale?.type === "SpreadElement" || isOther) return undefined;
  const options = new Map<string, string | number>();
  if (given === undefined || (given.type === "Identifier" && given.name === "undefined")) return options;
  if (given.type !== "ObjectExpression") return undefined;
  for (const one of given.properties) {
    const name = one.type === "Property" && !one.computed ? propertyName(one.key) : undefined;
    const value = one.type === "Property" && one.value.type === "Literal" ? one.value.value : undefined;
    if (name === undefined || (typeof value !== "string" && typeof value !== "number")) return undefined;
    options.set(name, value);
  }
  return options;
}

function dated(
  type: "date" | "time",
  value: Expression,
  { arguments: [locale, given] }: CallExpression,
  language: string | undefined,
): FormattedExpression | undefined {
  const options = optionsOf(locale, given, language);
  const style = options && dateStyle(options, type === "date" ? "yMd" : "jms");
  return style && { type: style.isTime ? "time" : type, style: style.text, value };
}

/** The letters of a date skeleton, in the order in which skeletons are written. */
const fields: readonly (readonly [option: string, letters: Readonly<Record<string, string>>])[] = [
  ["weekday", { short: "E", long: "EEEE" }],
  ["year", { numeric: "y", "2-digit": "yy" }],
  ["month", { numeric: "M", "2-digit": "MM", short: "MMM", long: "MMMM" }],
  ["day", { numeric: "d", "2-digit": "dd" }],
  ["hour", { numeric: "j", "2-digit": "jj" }],
  ["minute", { numeric: "m", "2-digit": "mm" }],
  ["second", { numeric: "s", "2-digit": "ss" }],
];

function dateStyle(
  options: Options,
  usual: string,
): { readonly text: string; readonly isTime: boolean } | undefined {
  if (options.size === 0) return { text: `::${usual}`, isTime: usual.startsWith("j") };
  const [[only, named] = ["", ""]] = options;
  if (options.size === 1 && (only === "dateStyle" || only === "timeStyle"))
    return { text: String(named), isTime: only === "timeStyle" };
  let letters = "";
  for (const [option, byValue] of fields) {
    const value = options.get(option);
    const letter = value === undefined ? "" : byValue[String(value)];
    if (letter === undefined) return undefined;
    letters += letter;
  }
  const known = [...options.keys()].every((name) => fields.some(([option]) => option === name));
  return known && letters !== "" ? { text: `::${letters}`, isTime: !/[EyMd]/.test(letters) } : undefined;
}

function numbered(value: Expression, options: Options): FormattedExpression | undefined {
  const rest = new Map(options);
  const parts: string[] = [];
  const style = rest.get("style") ?? "decimal";
  rest.delete("style");
  if (style === "currency") {
    const currency = rest.get("currency");
    if (typeof currency !== "string" || !/^[A-Z]{3}$/.test(currency)) return undefined;
    rest.delete("currency");
    parts.push(`currency/${currency}`);
  } else if (style === "percent") parts.push("percent", "scale/100");
  else if (style !== "decimal") return undefined;
  const least = rest.get("minimumFractionDigits");
  const most = rest.get("maximumFractionDigits");
  if (least !== undefined || most !== undefined) {
    if (typeof most !== "number" || (least !== undefined && typeof least !== "number")) return undefined;
    const zeros = least ?? 0;
    if (zeros > most || most > 9) return undefined;
    parts.push(most === 0 ? "precision-integer" : `.${"0".repeat(zeros)}${"#".repeat(most - zeros)}`);
    rest.delete("minimumFractionDigits");
    rest.delete("maximumFractionDigits");
  } else if (style === "percent") parts.splice(1, 0, "precision-integer");
  if (rest.size > 0) return undefined;
  return { type: "number", style: parts.length === 0 ? undefined : `::${parts.join(" ")}`, value };
}
