import { rulesOf } from "./rules-of-plural.js";
import type { ArgumentFormat, Branch, MessageNode, PluralNode } from "./model.js";

/** A value for an argument. */
export type ArgumentValue = string | number | Date | readonly string[];

/** What filling a message gave: the text, and the arguments that no value was given for. */
export interface Filled {
  readonly text: string;
  readonly missing: readonly string[];
}

/**
 * Fills a message as a program in a locale would: plurals by CLDR's rules, numbers, dates and lists by the runtime's Intl.
 * Tags are written as they stand. An argument without a value stays in braces and is reported.
 */
export function fillMessage(
  nodes: readonly MessageNode[],
  locale: string,
  values: Readonly<Record<string, ArgumentValue>>,
): Filled {
  const missing = new Set<string>();
  const write = (all: readonly MessageNode[], count: number | undefined): string =>
    all.map((node) => writeNode(node, count)).join("");
  const valueOf = (name: string): ArgumentValue | undefined => {
    if (Object.hasOwn(values, name)) return values[name];
    missing.add(name);
    return undefined;
  };
  const writeNode = (node: MessageNode, count: number | undefined): string => {
    switch (node.kind) {
      case "text":
        return node.format ? formatArgument(node.value, node.format, locale) : node.value;
      case "count":
        return count === undefined ? "#" : formatNumber(count, locale);
      case "argument": {
        const value = valueOf(node.name);
        return value === undefined ? `{${node.name}}` : formatArgument(value, node.format, locale);
      }
      case "plural": {
        const value = valueOf(node.name);
        const number = Number(value);
        if (value === undefined || Number.isNaN(number)) return `{${node.name}}`;
        return write(pluralBranch(node, number, locale)?.nodes ?? [], number - node.offset);
      }
      case "select": {
        const value = valueOf(node.name);
        const branch = branchOf(node.branches, String(value)) ?? restOf(node.branches);
        return write(branch?.nodes ?? [], undefined);
      }
      case "tag": {
        const attributes = node.attributes.length > 0 ? ` ${write(node.attributes, count)}` : "";
        if (node.selfClosing) return `<${node.name}${attributes}/>`;
        return `<${node.name}${attributes}>${write(node.children, count)}</${node.name}>`;
      }
    }
  };
  const text = write(nodes, undefined);
  return { text, missing: [...missing] };
}

/** The branch that a number takes: its own `=n`, else its category less the offset, else `other`. */
export function pluralBranch(node: PluralNode, number: number, locale: string): Branch | undefined {
  const exact = node.branches.find(
    ({ selector }) => selector.startsWith("=") && Number(selector.slice(1)) === number,
  );
  if (exact) return exact;
  const category = rulesOf(node, locale).select(number - node.offset);
  return branchOf(node.branches, category) ?? restOf(node.branches);
}

/** The branch for what no other names; a syntax can have one beside a branch for the word `other`. */
function restOf(branches: readonly Branch[]): Branch | undefined {
  return branchOf(branches, "*") ?? branchOf(branches, "other");
}

function branchOf(branches: readonly Branch[], selector: string): Branch | undefined {
  return branches.find((branch) => branch.selector === selector);
}

/** The engine takes long to make one; most numbers are written in the plain way of their locale. */
const plainNumbers = new Map<string, Intl.NumberFormat>();

function formatNumber(value: number, locale: string, options?: Intl.NumberFormatOptions): string {
  if (options) return new Intl.NumberFormat(locale, options).format(value);
  const plain = plainNumbers.get(locale) ?? new Intl.NumberFormat(locale);
  plainNumbers.set(locale, plain);
  return plain.format(value);
}

function formatArgument(value: ArgumentValue, format: ArgumentFormat | undefined, locale: string): string {
  if (Array.isArray(value)) return new Intl.ListFormat(locale).format(value as string[]);
  const style = format?.style?.text ?? "";
  if (format && format.style?.kind !== "skeleton") {
    const byOptions = formatByOptions(value, format, locale);
    if (byOptions !== undefined) return byOptions;
  }
  switch (format?.type) {
    case "number":
      return formatNumber(Number(value), locale, numberOptions(style, format.style?.kind === "skeleton"));
    case "date":
    case "time":
      return formatDate(value, format.type, style, format.style?.kind === "skeleton", locale);
    case "list":
      return new Intl.ListFormat(locale).format([String(value)]);
    case "capitals":
      return String(value).toLocaleUpperCase(locale);
    case "title":
      return String(value).charAt(0).toLocaleUpperCase(locale) + String(value).slice(1);
    default:
      break;
  }
  if (value instanceof Date) return formatDate(value, "date", "", false, locale);
  return typeof value === "number" ? formatNumber(value, locale) : String(value);
}

/** What the functions of MessageFormat 2 make of a value with their options, or undefined for other formats. */
function formatByOptions(
  value: ArgumentValue,
  { type, style }: ArgumentFormat,
  locale: string,
): string | undefined {
  if (style !== undefined && style.kind !== "options") return undefined;
  const options = Object.fromEntries(
    [...(style?.text ?? "").matchAll(/(?<![^\s=])([^\s=]+)=(?:\|((?:\\.|[^|\\])*)\||(\S+))/g)].map(
      ([, name = "", quoted, bare]) => {
        const text = quoted?.replace(/\\(.)/g, "$1") ?? bare ?? "";
        return [name, /^\d+$/.test(text) ? Number(text) : text] as const;
      },
    ),
  );
  const { length, precision, ...rest } = options;
  try {
    switch (type) {
      case "number":
      case "percent":
        if (!style) return undefined;
        return formatNumber(Number(value), locale, {
          ...rest,
          ...(type === "percent" && { style: "percent" }),
        });
      case "integer":
        return formatNumber(Number(value), locale, { ...rest, maximumFractionDigits: 0 });
      case "currency":
      case "unit":
        return formatNumber(Number(value), locale, { ...rest, style: type });
      case "datetime": {
        const date = new Date(value as Date | string | number);
        const dateStyle = /^(?:short|medium|long|full)$/.test(String(options.dateLength ?? length))
          ? (String(options.dateLength ?? length) as "short")
          : "medium";
        return new Intl.DateTimeFormat(locale, { dateStyle, timeStyle: "short", timeZone: "UTC" }).format(
          date,
        );
      }
      case "time":
        if (!style) return undefined;
        return formatDate(value, "time", precision === "second" ? "medium" : "short", false, locale);
      case "date":
        return style ? formatDate(value, "date", String(length ?? ""), false, locale) : undefined;
      default:
        return undefined;
    }
  } catch {
    return String(value);
  }
}

/** The options for a number style: ICU's named ones, and the stems of skeletons that are used most. */
function numberOptions(style: string, isSkeleton: boolean): Intl.NumberFormatOptions {
  if (!isSkeleton) {
    if (style === "integer") return { maximumFractionDigits: 0 };
    if (style === "percent") return { style: "percent" };
    if (style === "currency") return { style: "currency", currency: "EUR" };
    const digits = /\.(0*)(#*)/.exec(style);
    return digits
      ? {
          minimumFractionDigits: digits[1]?.length ?? 0,
          maximumFractionDigits: (digits[1]?.length ?? 0) + (digits[2]?.length ?? 0),
        }
      : {};
  }
  const options: Intl.NumberFormatOptions = {};
  for (const token of style.split(/\s+/)) {
    const currency = /^currency\/([A-Z]{3})$/.exec(token)?.[1];
    const unit = /^(?:measure-)?unit\/(?:[a-z]+-)?([a-z-]+)$/.exec(token)?.[1];
    const fraction = /^\.(0*)(#*)(\+?)$/.exec(token);
    if (currency) Object.assign(options, { style: "currency", currency });
    else if (token === "percent") options.style = "percent";
    else if (unit) Object.assign(options, { style: "unit", unit });
    else if (token === "compact-short" || token === "K") options.notation = "compact";
    else if (token === "compact-long" || token === "KK")
      Object.assign(options, { notation: "compact", compactDisplay: "long" });
    else if (token === "precision-integer") options.maximumFractionDigits = 0;
    else if (token === "sign-always" || token === "+!") options.signDisplay = "always";
    else if (token === "group-off" || token === ",_") options.useGrouping = false;
    else if (fraction) {
      options.minimumFractionDigits = fraction[1]?.length ?? 0;
      options.maximumFractionDigits = fraction[3]
        ? 20
        : (fraction[1]?.length ?? 0) + (fraction[2]?.length ?? 0);
    }
  }
  try {
    new Intl.NumberFormat("en", options);
    return options;
  } catch {
    return {};
  }
}

function formatDate(
  value: ArgumentValue,
  type: "date" | "time",
  style: string,
  isSkeleton: boolean,
  locale: string,
): string {
  const date = value instanceof Date ? value : new Date(typeof value === "number" ? value : String(value));
  if (Number.isNaN(date.getTime())) return String(value);
  const named = /^(?:short|medium|long|full)$/.test(style) ? (style as "short") : "medium";
  const options: Intl.DateTimeFormatOptions = isSkeleton
    ? skeletonOptions(style)
    : type === "date"
      ? { dateStyle: named }
      : { timeStyle: named };
  const id = `${locale} ${JSON.stringify(options)}`;
  const formatter = dateFormats.get(id) ?? new Intl.DateTimeFormat(locale, { ...options, timeZone: "UTC" });
  dateFormats.set(id, formatter);
  return formatter.format(date);
}

/** The engine takes milliseconds to make one. */
const dateFormats = new Map<string, Intl.DateTimeFormat>();

/** The options for a date skeleton (UTS #35 Part 4, "Matching Skeletons"). */
function skeletonOptions(skeleton: string): Intl.DateTimeFormatOptions {
  const options: Intl.DateTimeFormatOptions = {};
  const widths = (length: number): "numeric" | "2-digit" => (length === 2 ? "2-digit" : "numeric");
  const names = (length: number): "short" | "long" | "narrow" =>
    length === 5 ? "narrow" : length >= 4 ? "long" : "short";
  for (const [run] of skeleton.matchAll(/([A-Za-z])\1*/g)) {
    const { length } = run;
    switch (run[0]) {
      case "y":
        options.year = widths(length);
        break;
      case "M":
      case "L":
        options.month = length > 2 ? names(length) : widths(length);
        break;
      case "d":
        options.day = widths(length);
        break;
      case "E":
      case "c":
        options.weekday = names(length);
        break;
      case "H":
      case "h":
      case "j":
        options.hour = widths(length);
        if (run[0] !== "j") options.hour12 = run[0] === "h";
        break;
      case "m":
        options.minute = widths(length);
        break;
      case "s":
        options.second = widths(length);
        break;
      case "z":
        options.timeZoneName = "short";
        break;
      default:
    }
  }
  return options;
}
