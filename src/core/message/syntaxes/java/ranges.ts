import type { Branch, MessageNode } from "../../model.js";

/**
 * The texts of a `choice` style of `java.text.MessageFormat`, each with where its range begins: `0` for `0#`, `1<` for what is
 * more than 1. A text that has an argument is a pattern itself. Undefined for a style that quotes anything but apostrophes.
 */
export function readRanges(
  style: string,
  parse: (text: string) => readonly MessageNode[],
): readonly Branch[] | undefined {
  const branches: Branch[] = [];
  for (const part of splitAtBars(style)) {
    const [whole, limit = "", sign] = /^\s*([-+]?(?:[\d.]+|\u221E))\s*([#<\u2264])/.exec(part) ?? [];
    if (whole === undefined) return undefined;
    const written = part.slice(whole.length);
    if (/(?<!')'(?:'')*(?!')/.test(written)) return undefined;
    const text = written.replaceAll("''", "'");
    const nodes = text.includes("{") ? parse(text) : [{ kind: "text" as const, value: text }];
    branches.push({ selector: sign === "<" ? `${limit}<` : limit, nodes });
  }
  return branches.length > 0 ? branches : undefined;
}

/** The style for such texts; undefined where a text has a sign that means something in a style. */
export function writeRanges(
  branches: readonly Branch[],
  print: (nodes: readonly MessageNode[]) => string,
): string | undefined {
  const parts: string[] = [];
  for (const { selector, nodes } of branches) {
    const isPlain = nodes.every((node) => node.kind === "text");
    const text = isPlain
      ? nodes.map((node) => (node.kind === "text" ? node.value : "")).join("")
      : print(nodes);
    const words = nodes.map((node) => (node.kind === "text" ? node.value : "")).join("");
    if (/[|#<\u2264{}]/.test(words)) return undefined;
    const limit = selector.endsWith("<") ? selector : `${selector}#`;
    parts.push(limit + text.replaceAll("'", "''"));
  }
  return parts.join("|");
}

/** A style at its bars, but for those in the braces of an argument. */
function splitAtBars(style: string): readonly string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  for (let at = 0; at < style.length; at++) {
    const sign = style[at];
    if (sign === "{") depth++;
    else if (sign === "}") depth--;
    else if (sign === "|" && depth === 0) {
      parts.push(style.slice(start, at));
      start = at + 1;
    }
  }
  return [...parts, style.slice(start)];
}
