import type { ProblemData, ProblemName } from "../../problem-wordings.js";
import type { Span } from "../../../text/span.js";
import type { ArgumentNode, Message, MessageNode, MessageProblem } from "../../model.js";
import { mostProblems } from "../most-problems.js";
import { treeOf, type Token } from "../tokens.js";
import { javaFormatFault } from "./formats.js";

/**
 * Reads a message of `java.text.MessageFormat`. Its quoting is not ICU's: every apostrophe quotes until the next one,
 * or to the end, and two of them are one. Arguments are numbers. Never throws.
 */
export function parseJava(source: string, tags = true): Message {
  const tokens: Token[] = [];
  const problems: MessageProblem[] = [];
  const quoted: Span[] = [];
  let value = "";
  let from = 0;
  let at = 0;
  const flush = (end: number) => {
    if (end > from) tokens.push({ kind: "text", value, start: from, end });
    value = "";
  };
  const problem = <N extends ProblemName>(
    code: MessageProblem["code"],
    start: number,
    end: number,
    name: N,
    data: ProblemData<N>,
  ) => problems.push({ severity: "error", code, name, data, span: { start, end } });
  while (at < source.length) {
    const unit = source[at];
    if (unit === "'") {
      flush(at);
      const start = at;
      if (source[at + 1] === "'") {
        at = from = at + 2;
        tokens.push({ kind: "text", value: "'", start, end: at, isLiteral: true });
        continue;
      }
      let inside = "";
      at++;
      for (; at < source.length; at++) {
        if (source[at] === "'") {
          if (source[at + 1] !== "'") break;
          at++;
        }
        inside += source[at] ?? "";
      }
      at = from = Math.min(at + 1, source.length);
      quoted.push({ start, end: at });
      tokens.push({ kind: "text", value: inside, start, end: at, isLiteral: true });
      continue;
    }
    if (unit !== "{" || problems.length >= mostProblems) {
      value += unit ?? "";
      at++;
      continue;
    }
    flush(at);
    const start = at;
    const argument = readArgument(source, at);
    at = from = argument?.end ?? source.length;
    if (!argument) {
      problem("argument-unclosed", start, start + 1, "unclosed-brace", {});
      tokens.push({ kind: "text", value: source.slice(start), start, end: source.length });
      continue;
    }
    const { name, style } = argument;
    const number = numberOf(name);
    if (number === undefined) {
      const data = { first: "{0}", second: "{1}" };
      const isSpaced = numberOf(name.trim()) !== undefined;
      if (name.trim() === "") problem("argument-name", start, at, "java-no-number", data);
      else if (isSpaced) problem("argument-name", start, at, "java-space", { written: `{${name.trim()}` });
      else problem("argument-name", start, at, "java-name", { name: name.slice(0, 30), ...data });
      tokens.push({ kind: "text", value: source.slice(start, at), start, end: at });
      continue;
    }
    const type = argument.type?.trim().toLowerCase() || undefined;
    if (type !== undefined && !/^(?:number|date|time|choice)$/.test(type))
      problem("argument-type", start, at, "java-type", { type });
    else if (type !== undefined) {
      const fault = javaFormatFault(type, style ?? "");
      if (fault) problem("argument-type", start, at, fault, { style: style ?? "" });
    }
    const nameStart = start + 1;
    const node: ArgumentNode = {
      kind: "argument",
      name: String(number),
      ...(type !== undefined && {
        format: {
          type,
          ...(style !== undefined && {
            style: {
              kind: /^(?:integer|currency|percent|short|medium|long|full)$/.test(style.trim())
                ? ("named" as const)
                : ("pattern" as const),
              text: type === "choice" ? style : style.trim(),
            },
          }),
        },
      }),
      span: { start, end: at },
      nameSpan: { start: nameStart, end: nameStart + name.length },
    };
    tokens.push({ kind: "node", node, start, end: at });
  }
  flush(source.length);
  const read = treeOf(source, tokens, problems, tags);
  return { ...read, quoted };
}

/** An argument's three parts as `MessageFormat.applyPattern` takes them apart, quotes and all; undefined where no brace ends it. */
function readArgument(
  source: string,
  start: number,
):
  | { readonly name: string; readonly type?: string; readonly style?: string; readonly end: number }
  | undefined {
  const parts = [""];
  let depth = 0;
  let isQuoted = false;
  for (let at = start + 1; at < source.length; at++) {
    const unit = source[at] ?? "";
    const last = parts.length - 1;
    if (!isQuoted) {
      if (unit === "," && parts.length < 3) {
        parts.push("");
        continue;
      }
      if (unit === "}" && depth === 0) {
        const [name = "", type, style] = parts;
        return {
          name,
          ...(type !== undefined && { type }),
          ...(style !== undefined && { style }),
          end: at + 1,
        };
      }
      if (unit === "{") depth++;
      else if (unit === "}") depth--;
      // Blanks before the type are none of it.
      if (unit === " " && last === 1 && parts[1] === "") continue;
    }
    if (unit === "'") isQuoted = !isQuoted;
    parts[last] = (parts[last] ?? "") + unit;
  }
  return undefined;
}

/** `Integer.parseInt` for the numbers that arguments have: digits of any script, perhaps with a plus before them. */
function numberOf(written: string): number | undefined {
  const digits = /^\+?(\p{Nd}{1,9})$/u.exec(written)?.[1];
  if (digits === undefined) return undefined;
  let number = 0;
  for (const digit of digits) {
    // The ten digits of a script follow each other from its zero on.
    let value = 0;
    while (value < 9 && /\p{Nd}/u.test(String.fromCodePoint((digit.codePointAt(0) ?? 0) - value - 1)))
      value++;
    number = number * 10 + value;
  }
  return number;
}

/** Writes nodes for `java.text.MessageFormat`: every apostrophe doubled, braces and what looks like a tag in quotes. */
export function printJava(nodes: readonly MessageNode[]): string {
  return nodes
    .map((node): string => {
      switch (node.kind) {
        case "text":
          return node.value.replace(/(?:[{}']|<(?=\/?[A-Za-z]))+/g, (signs) => {
            // Apostrophes beside what is quoted stand in the same quotes: two quotes in a row would be one of them.
            const doubled = signs.replaceAll("'", "''");
            return /[{}<]/.test(signs) ? `'${doubled}'` : doubled;
          });
        case "argument": {
          const { name, format } = node;
          if (!format) return `{${name}}`;
          return `{${name},${format.type}${format.style ? `,${format.style.text}` : ""}}`;
        }
        case "count":
          return "";
        case "tag": {
          const attributes = node.attributes.length > 0 ? ` ${printJava(node.attributes)}` : "";
          return node.selfClosing
            ? `<${node.name}${attributes}/>`
            : `<${node.name}${attributes}>${printJava(node.children)}</${node.name}>`;
        }
        case "plural":
        case "select":
          return printJava(node.branches.at(-1)?.nodes ?? []);
      }
    })
    .join("");
}
