import type { ProblemData, ProblemName } from "../../problem-wordings.js";
import type { Span } from "../../../text/span.js";
import type { ArgumentNode, Message, MessageNode, MessageProblem } from "../../model.js";
import { mostProblems } from "../most-problems.js";
import { treeOf, type Token } from "../tokens.js";

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
    const end = closingBrace(source, at);
    const inner = source.slice(at + 1, end ?? source.length);
    const match = /^\s*(?:([^\s,{}]+)\s*)?(?:,\s*(?:([a-zA-Z]+)\s*)?(?:,([\s\S]*))?)?$/.exec(inner);
    at = from = end === undefined ? source.length : end + 1;
    if (end === undefined) {
      problem("argument-unclosed", start, start + 1, "unclosed-brace", {});
      tokens.push({ kind: "text", value: source.slice(start), start, end: source.length });
      continue;
    }
    const name = match?.[1] ?? "";
    if (!/^\d+$/.test(name)) {
      if (name === "") problem("argument-name", start, at, "java-no-number", { first: "{0}", second: "{1}" });
      else
        problem("argument-name", start, at, "java-name", {
          name: name.slice(0, 30),
          first: "{0}",
          second: "{1}",
        });
      tokens.push({ kind: "text", value: source.slice(start, at), start, end: at });
      continue;
    }
    const type = match?.[2]?.toLowerCase();
    const style = match?.[3];
    if (type !== undefined && !/^(?:number|date|time|choice)$/.test(type))
      problem("argument-type", start, at, "java-type", { type });
    const nameStart = start + 1 + inner.indexOf(name);
    const node: ArgumentNode = {
      kind: "argument",
      name: String(Number(name)),
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

/** The brace that closes the one at a place; quoted braces do not count. */
function closingBrace(source: string, start: number): number | undefined {
  let depth = 0;
  for (let at = start; at < source.length; at++) {
    const unit = source[at];
    if (unit === "'") {
      const close = source.indexOf("'", at + 1);
      if (close < 0) return undefined;
      at = close;
    } else if (unit === "{") depth++;
    else if (unit === "}" && --depth === 0) return at;
  }
  return undefined;
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
