import type { ArgumentNode, Message, MessageNode, MessageProblem } from "../model.js";
import { mostProblems, treeOf, type Token } from "./tokens.js";

/** The syntaxes whose messages are text with placeholders in it. */
export type PlaceholderSyntax =
  "double-brace" | "percent-brace" | "percent-paren" | "colon" | "printf" | "plain";

interface Placeholder {
  readonly name: string;
  /** Where in the match the name stands; absent where it is counted. */
  readonly nameAt?: number;
  readonly type?: string;
}

/** How one syntax writes placeholders, and what stands for its own signs. */
interface Grammar {
  /** Finds placeholders, escapes and what looks like a placeholder that breaks off. */
  readonly pattern: RegExp | undefined;
  /** What a match is: a placeholder, text, or a problem. */
  read(
    match: RegExpExecArray,
    counted: () => number,
  ):
    | Placeholder
    | { readonly text: string }
    | { readonly problem: Pick<MessageProblem, "name" | "data" | "code"> };
  write(argument: ArgumentNode, index: number): string;
  escape(text: string): string;
}

const grammars: Readonly<Record<PlaceholderSyntax, Grammar>> = {
  "double-brace": {
    pattern: /\{\{(-?\s*)([\p{L}\p{N}_$][\p{L}\p{N}_$.-]*)\s*(?:,([^{}]*))?\}\}|\{\{/gu,
    read: ([whole, lead = "", name, type]) =>
      name === undefined
        ? {
            problem: {
              code: "argument-unclosed",
              name: "incomplete-placeholder",
              data: { placeholder: "{{name}}" },
            },
          }
        : {
            name,
            nameAt: whole.indexOf(name, 2 + lead.length),
            ...(type !== undefined && type.trim() !== "" && { type: type.trim() }),
          },
    write: ({ name, format }) => `{{${name}${format ? `, ${format.type}` : ""}}}`,
    escape: (text) => text,
  },
  "percent-brace": {
    pattern: /%%(?=\{)|%\{\s*([\p{L}_][\p{L}\p{N}_.]*)\s*\}|%\{/gu,
    read: ([whole, name]) =>
      whole === "%%"
        ? { text: "%" }
        : name === undefined
          ? {
              problem: {
                code: "argument-unclosed",
                name: "incomplete-percent-brace",
                data: { placeholder: "%{name}", escaped: "%%{" },
              },
            }
          : { name, nameAt: whole.indexOf(name) },
    write: ({ name }) => `%{${name}}`,
    escape: (text) => text.replace(/%(?=\{)/g, "%%"),
  },
  "percent-paren": {
    pattern: /%%|%\(([^()]+)\)([-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?[diouxXeEfFgGcrsa])|%\([^()]*\)?/g,
    read: ([whole, name, type]) =>
      whole === "%%"
        ? { text: "%" }
        : name === undefined || type === undefined
          ? {
              problem: {
                code: "argument-type",
                name: "no-conversion",
                data: { text: "%(name)s", number: "%(count)d" },
              },
            }
          : { name, nameAt: 2, ...(type !== "s" && { type }) },
    write: ({ name, format }) => `%(${name})${format?.type ?? "s"}`,
    escape: (text) => text.replaceAll("%", "%%"),
  },
  colon: {
    pattern: /(?<![\p{L}\p{N}_:]):([A-Za-z_][A-Za-z0-9_]*)/gu,
    read: ([, written = ""]) => {
      const isCapitals = written.length > 1 && written === written.toUpperCase() && /[A-Z]/.test(written);
      const isTitle = !isCapitals && /^[A-Z]/.test(written);
      const name = isCapitals
        ? written.toLowerCase()
        : isTitle
          ? written.charAt(0).toLowerCase() + written.slice(1)
          : written;
      // The same argument in another case: how it is shown, not another one.
      return { name, nameAt: 1, ...(isCapitals ? { type: "capitals" } : isTitle ? { type: "title" } : {}) };
    },
    write: ({ name, format }) =>
      `:${format?.type === "capitals" ? name.toUpperCase() : format?.type === "title" ? name.charAt(0).toUpperCase() + name.slice(1) : name}`,
    escape: (text) => text,
  },
  printf: {
    pattern:
      /%%|%(?:(\d+)\$)?([-+ 0#,']*(?:[1-9]\d*|\*)?(?:\.(?:\d+|\*))?(?:hh|h|ll|l|q|L|z|j|t)?[diouxXeEfFgGaAcCsSpn@bvqT])|%(?=[{([]|$)/g,
    read: ([whole, place, type], counted) =>
      whole === "%%"
        ? { text: "%" }
        : type === undefined
          ? {
              problem: {
                code: "argument-type",
                name: "bare-percent",
                data: {},
              },
            }
          : {
              name: place ?? String(counted()),
              ...(place !== undefined && { nameAt: 1 }),
              ...(type !== "s" && { type }),
            },
    write: ({ name, format }, index) => `%${name === String(index) ? "" : `${name}$`}${format?.type ?? "s"}`,
    escape: (text) => text.replaceAll("%", "%%"),
  },
  plain: { pattern: undefined, read: () => ({ text: "" }), write: () => "", escape: (text) => text },
};

/** Reads a message of a syntax whose placeholders stand in plain text. One pass; never throws. */
export function parsePlaceholders(source: string, syntax: PlaceholderSyntax, tags = true): Message {
  const { pattern, read } = grammars[syntax];
  const tokens: Token[] = [];
  const problems: MessageProblem[] = [];
  let at = 0;
  let count = 0;
  const text = (value: string, start: number, end: number) => {
    if (end > start) tokens.push({ kind: "text", value, start, end });
  };
  if (pattern)
    for (const match of source.matchAll(pattern)) {
      const start = match.index;
      const end = start + match[0].length;
      const found = read(match as RegExpExecArray, () => ++count);
      if (end === start) continue;
      // A text with that many faults is of another syntax: the rest of them would help nobody.
      if (problems.length >= mostProblems) break;
      text(source.slice(at, start), at, start);
      at = end;
      if ("text" in found) text(found.text, start, end);
      else if ("problem" in found) {
        problems.push({ severity: "error", ...found.problem, span: { start, end } });
        text(source.slice(start, end), start, end);
      } else {
        const { name, nameAt, type } = found;
        tokens.push({
          kind: "node",
          start,
          end,
          node: {
            kind: "argument",
            name,
            ...(type !== undefined && { format: { type } }),
            span: { start, end },
            nameSpan:
              nameAt === undefined
                ? { start, end }
                : { start: start + nameAt, end: Math.min(start + nameAt + name.length, end) },
          },
        });
      }
    }
  text(source.slice(at), at, source.length);
  return treeOf(source, tokens, problems, tags);
}

/** Writes nodes as a message of the syntax. A plural or select has no place in it: its last branch is written. */
export function printPlaceholders(nodes: readonly MessageNode[], syntax: PlaceholderSyntax): string {
  const grammar = grammars[syntax];
  let index = 0;
  const print = (all: readonly MessageNode[]): string =>
    all
      .map((node): string => {
        switch (node.kind) {
          case "text":
            return grammar.escape(node.value);
          case "argument":
            index++;
            return grammar.write(node, index);
          case "count":
            return "";
          case "tag": {
            const attributes = node.attributes.length > 0 ? ` ${print(node.attributes)}` : "";
            return node.selfClosing
              ? `<${node.name}${attributes}/>`
              : `<${node.name}${attributes}>${print(node.children)}</${node.name}>`;
          }
          case "plural":
          case "select":
            return print(node.branches.at(-1)?.nodes ?? []);
        }
      })
      .join("");
  return print(nodes);
}
