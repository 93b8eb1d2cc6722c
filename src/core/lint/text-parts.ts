import { visitNodes } from "../message/facts.js";
import type { MessageNode, TextNode } from "../message/model.js";
import type { Span } from "../text/span.js";

/** The literal texts of a message, in order. */
export function textNodesIn(nodes: readonly MessageNode[]): TextNode[] {
  const found: TextNode[] = [];
  visitNodes(nodes, (node) => {
    if (node.kind === "text" && !node.format) found.push(node);
  });
  return found;
}

/** What stands at the end of what users read, in each branch: text, or an empty one where a value or sign does. */
export function endingsOf(
  nodes: readonly MessageNode[],
): { readonly text: string; readonly span: Span | undefined }[] {
  const last = nodes.findLast((node) => node.kind !== "text" || node.value !== "");
  if (!last) return [];
  switch (last.kind) {
    case "text":
      if (last.format) return [{ text: "", span: last.span }];
      // White space alone says nothing of how the text ends.
      return last.value.trim() === ""
        ? endingsOf(nodes.slice(0, nodes.lastIndexOf(last)))
        : [{ text: last.value, span: last.span }];
    case "plural":
    case "select":
      return last.branches.flatMap((branch) => endingsOf(branch.nodes));
    case "tag":
      return last.selfClosing ? [{ text: "", span: last.span }] : endingsOf(last.children);
    default:
      return [{ text: "", span: last.span }];
  }
}

/** Where a match inside a text node stands in the message. Quoting before it can move it: then the whole node is meant. */
export function spanInText(node: TextNode, index: number, length: number): Span | undefined {
  if (!node.span) return undefined;
  const { start, end } = node.span;
  if (end - start !== node.value.length) return node.span;
  return { start: start + index, end: start + index + length };
}

/** Digits of any script as ASCII ones. */
export function asciiDigits(text: string): string {
  return text.replace(/\p{Nd}/gu, (digit) => {
    const code = digit.codePointAt(0) ?? 0;
    if (code < 0x80) return digit;
    // The digits of a script stand in a row of ten, zero first.
    let zero = code;
    while (code - zero < 9 && /\p{Nd}/u.test(String.fromCodePoint(zero - 1))) zero--;
    return String((code - zero) % 10);
  });
}

const languages = new Map<string, string>();

/** The language of a tag, without script and region. */
export function languageOf(locale: string): string {
  let language = languages.get(locale);
  if (language === undefined) {
    [language = locale] = locale.split("-", 1);
    languages.set(locale, language);
  }
  return language;
}

/** Whether a text only shows what a value may look like: `e.g. 12345678`. */
export function isExample(text: string): boolean {
  return /^\P{L}{0,3}(?:e\.\s?g\b|ex(?:ample)?\s?[:.]|for (?:example|instance)\b)/iu.test(text);
}
