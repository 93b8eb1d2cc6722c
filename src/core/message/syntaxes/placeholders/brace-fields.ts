import { visitNodes } from "../../facts.js";
import { plain } from "./plain.js";
import { placeholderSyntax } from "./placeholders.js";
import type { Span } from "../../../text/span.js";
import type { Message, MessageNode, MessageProblem } from "../../model.js";
import type { Syntax } from "../syntax.js";

/**
 * A field: its name or number, what is taken of its value, and how that is written; or two braces for one, or one alone. A format may
 * have fields of its own in it.
 */
const field =
  /\{\{|\}\}|\{([\p{L}_][\p{L}\p{N}_]{0,60}|\d{1,9})?((?:\.[\p{L}_][\p{L}\p{N}_]{0,60}|\[[^[\]{}]{1,60}\]){0,9})((?:![rsa])?(?::(?:[^{}]|\{[\w.]{0,40}\}){0,80})?)\}|[{}]/gu;

/** An item: its number, how wide it is, and how its value is written; or two braces for one, or one alone. */
const item = /\{\{|\}\}|\{(\d{1,9})()((?:,\s?-?\d{1,9})?(?::(?:[^{}]|\{\{|\}\}){0,80})?)\}|[{}]/gu;

/**
 * The replacement fields of Python's `str.format` (its Format String Syntax): `{name}`, `{0.title!r:>10}`, and `{}` for values in
 * their order.
 */
export const braceField = filledAsAWhole(
  placeholderSyntax({
    name: "brace-field",
    signs: { single: "{}<" },
    placeholders: ["brace", "brace-number"],
    countsUnnamed: true,
    isFilledLater: true,
    givenAs: (name) => name.split(/[.[]/, 1)[0] ?? name,
    recognized: {
      pattern:
        /\{\}|\{(?:[\p{L}_][\p{L}\p{N}_]{0,60}|\d{0,2})(?:![rsa]|(?:\.[\p{L}_]\w{0,60}|\[\w{1,60}\]){1,9}(?=[:}])|:(?:[^{}]?[<>=^])?[-+ ]?#?0?\d{0,4}[,_]?(?:\.\d{1,3})?[bcdeEfFgGnosxX%]?\})/u,
      ignoring: /[%$#]\{[^{}]*\}|\{\{[^{}]*\}\}/g,
    },
    pattern: field,
    read: ([whole, name, path, format], counted) => {
      if (path === undefined) return single(whole);
      const base = name ?? String(counted() - 1);
      return {
        name: base + path,
        ...(name !== undefined && { nameAt: 1 }),
        ...(format !== undefined && format !== "" && { type: "s", style: format }),
      };
    },
    write: ({ name, format }) => `{${name}${format?.style?.text ?? ""}}`,
    escape: doubled,
  }),
);

/** The format items of .NET's composite formatting, `String.Format`: `{0}`, `{1,8:N2}`. */
export const braceIndex = filledAsAWhole(
  placeholderSyntax({
    name: "brace-index",
    signs: { single: "{}<" },
    placeholders: ["brace-number"],
    numberedFrom: 0,
    recognized: {
      pattern: /\{\d{1,2}(?:,\s?-?\d{1,3}\}|(?:,\s?-?\d{1,3})?:(?:[CEFGNPRX]\d{0,2}\}|[^{}%]{0,40}[#yMHh]))/,
      ignoring: /[%$#]\{[^{}]*\}|\{\{[^{}]*\}\}/g,
    },
    pattern: item,
    read: ([whole, name, , format]) =>
      name === undefined
        ? single(whole)
        : {
            name,
            nameAt: 1,
            ...(format !== undefined && format !== "" && { type: "s", style: format }),
          },
    write: ({ name, format }) => `{${name}${format?.style?.text ?? ""}}`,
    escape: doubled,
  }),
);

/** What a match without a field is: a brace that is meant, or one that programs stop at. */
function single(whole: string) {
  return whole.length === 2
    ? { text: whole.charAt(0) }
    : {
        problem: {
          code: "argument-unclosed" as const,
          name: "single-brace" as const,
          data: { brace: whole },
        },
      };
}

function doubled(text: string): string {
  return text.replace(/[{}]/g, "$&$&");
}

/** A syntax that programs fill texts with values by, and leave all others as they are: in these, braces are only braces. */
function filledAsAWhole(syntax: Syntax): Syntax {
  const parse = (text: string, tags: boolean): Message => {
    const message = syntax.parse(text, tags);
    if (!hasArguments(message.nodes)) return plain.parse(text, tags);
    const mixed = mixedNumbers(message.nodes);
    return mixed ? { ...message, problems: [...message.problems, mixed] } : message;
  };
  return {
    ...syntax,
    parse,
    print: (nodes, tags) => {
      if (hasArguments(nodes)) return syntax.print(nodes, tags);
      const literal = plain.print(nodes, tags);
      return hasArguments(parse(literal, tags).nodes) ? syntax.print(nodes, tags) : literal;
    },
  };
}

/** A numbered field beside one that is counted, at which Python stops. */
function mixedNumbers(nodes: readonly MessageNode[]): MessageProblem | undefined {
  let isCounted = false;
  let numbered: Span | undefined;
  visitNodes(nodes, (node) => {
    if (node.kind !== "argument" || !/^\d/.test(node.name)) return;
    if (node.nameSpan?.start === node.span?.start) isCounted = true;
    else numbered ??= node.span;
  });
  return isCounted && numbered
    ? { severity: "error", code: "argument-name", name: "mixed-numbers", data: {}, span: numbered }
    : undefined;
}

function hasArguments(nodes: readonly MessageNode[]): boolean {
  let has = false;
  visitNodes(nodes, ({ kind }) => {
    has ||= kind === "argument";
  });
  return has;
}
