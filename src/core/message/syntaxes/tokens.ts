import { mostProblems } from "./most-problems.js";
import { htmlElements, voidElementsInMessages } from "../../text/html-elements.js";
import type { Message, MessageNode, MessageProblem, TagNode } from "../model.js";
import { deepestNesting } from "./icu/icu-reader.js";

/** A piece of a message of a syntax without nesting of its own. */
export type Token =
  | { readonly kind: "node"; readonly node: MessageNode; readonly start: number; readonly end: number }
  | {
      readonly kind: "text";
      readonly value: string;
      readonly start: number;
      readonly end: number;
      /** Set where quoting makes text of whatever it holds. */
      readonly isLiteral?: boolean;
    };

const tagPattern = /<(\/?)([A-Za-z][A-Za-z0-9_.:-]*)((?:\s[^<>]*|\/)?)>/g;

/** A message in which no tag is found inside of what is no plain text: arguments, and what quoting makes text of. */
function maskedTokens(source: string, tokens: readonly Token[]): string {
  let masked = "";
  let at = 0;
  for (const token of tokens) {
    // Escapes make a text shorter than it is written; tags are looked for where both are the same.
    const isPlain =
      token.kind === "text" && token.isLiteral !== true && token.value.length === token.end - token.start;
    masked += " ".repeat(Math.max(0, token.start - at));
    masked += isPlain
      ? token.value
      : (token.kind === "node" ? "\uE000" : "\uE001").repeat(token.end - token.start);
    at = Math.max(at, token.end);
  }
  return masked + source.slice(at).replace(/[^]/g, " ");
}

/** Nodes without the blanks at their ends. */
function trimmedNodes(nodes: readonly MessageNode[]): MessageNode[] {
  return nodes
    .map((node, index): MessageNode => {
      if (node.kind !== "text") return node;
      let { value } = node;
      if (index === 0) value = value.trimStart();
      if (index === nodes.length - 1) value = value.trimEnd();
      return { kind: "text", value };
    })
    .filter((node) => node.kind !== "text" || node.value !== "");
}

/**
 * Builds the tree of a message from its tokens: text is searched for rich-text tags, which are paired. A closing tag
 * without an opening one and an opening one that nothing closes are problems; a `<` that starts no tag is text.
 */
export function treeOf(
  source: string,
  tokens: readonly Token[],
  problems: readonly MessageProblem[],
  tags: boolean,
): Message {
  const found: MessageProblem[] = [...problems];
  const root: MessageNode[] = [];
  const open: {
    readonly name: string;
    readonly start: number;
    readonly openEnd: number;
    readonly attributes: MessageNode[];
    readonly nodes: MessageNode[];
  }[] = [];
  const current = () => open[open.length - 1]?.nodes ?? root;
  const put = (node: MessageNode) => {
    // What quoting leaves nothing of is no text.
    if (node.kind === "text" && node.value === "") return;
    const list = current();
    const last = list[list.length - 1];
    if (node.kind === "text" && last?.kind === "text" && node.span && last.span)
      list[list.length - 1] = {
        kind: "text",
        value: last.value + node.value,
        span: { start: last.span.start, end: node.span.end },
      };
    else list.push(node);
  };
  const leave = (isClosed: boolean) => {
    const tag = open.pop();
    if (!tag) return;
    const end = isClosed ? tag.openEnd : (tag.nodes.at(-1)?.span?.end ?? tag.openEnd);
    const node: TagNode = {
      kind: "tag",
      name: tag.name,
      attributes: tag.attributes,
      children: tag.nodes,
      selfClosing: false,
      span: { start: tag.start, end },
      openSpan: { start: tag.start, end: tag.openEnd },
    };
    put(node);
  };
  const unclosed = (tag: { name: string; start: number; openEnd: number }) =>
    found.push({
      severity: "error",
      code: "tag-unclosed",
      name: "unclosed-tag",
      data: { tag: `<${tag.name}>`, end: `</${tag.name}>` },
      span: { start: tag.start, end: tag.openEnd },
    });
  const masked = tags && source.includes("<") ? maskedTokens(source, tokens) : "";
  let token = 0;
  /** Puts what stands between two places, none of them inside of a token that is no plain text. */
  const between = (from: number, to: number, put: (node: MessageNode) => void) => {
    for (; token < tokens.length; token++) {
      const one = tokens[token];
      if (!one || one.start >= to) return;
      if (one.kind === "node") put(one.node);
      else {
        const start = Math.max(one.start, from);
        const end = Math.min(one.end, to);
        const isWhole = start === one.start && end === one.end;
        const value = isWhole ? one.value : one.value.slice(start - one.start, end - one.start);
        if (end > start) put({ kind: "text", value, span: { start, end } });
        // The rest of it comes behind the tag.
        if (one.end > to) return;
      }
    }
  };
  let at = 0;
  for (const match of masked.matchAll(tagPattern)) {
    if (found.length >= mostProblems) break;
    const [whole, slash = "", name = "", behind = ""] = match;
    const start = match.index;
    const end = start + whole.length;
    const isSelfClosing = behind.endsWith("/");
    const attributes = isSelfClosing ? behind.slice(0, -1) : behind;
    // Words in angle brackets are no element: `<not supported>`, and neither is a text that is nothing else.
    if (attributes.trim() !== "" && !/[=\uE000]/.test(attributes) && !htmlElements.has(name.toLowerCase()))
      continue;
    if (slash === "" && !isSelfClosing && start === 0 && end === source.length) continue;
    between(at, start, put);
    const given: MessageNode[] = [];
    const from = start + 1 + slash.length + name.length;
    between(start, from, () => undefined);
    between(from, from + attributes.length, (node) => given.push(node));
    between(from + attributes.length, end, () => undefined);
    at = end;
    const inner = trimmedNodes(given);
    if (slash !== "") {
      const index = open.findLastIndex((tag) => tag.name === name);
      if (index < 0) {
        found.push({
          severity: "error",
          code: "tag-unopened",
          name: "unopened-tag",
          data: { tag: `<${name}>`, end: `</${name}>` },
          span: { start, end },
        });
        continue;
      }
      while (open.length > index + 1) {
        const tag = open[open.length - 1];
        if (tag) unclosed(tag);
        leave(false);
      }
      const closing = open[open.length - 1];
      leave(true);
      const list = current();
      const last = list[list.length - 1];
      if (closing && last?.kind === "tag")
        list[list.length - 1] = { ...last, span: { start: closing.start, end } };
    } else if (
      isSelfClosing ||
      voidElementsInMessages.has(name.toLowerCase()) ||
      open.length >= deepestNesting
    )
      put({
        kind: "tag",
        name,
        attributes: inner,
        children: [],
        selfClosing: true,
        span: { start, end },
        openSpan: { start, end },
      });
    else open.push({ name, start, openEnd: end, attributes: inner, nodes: [] });
  }
  between(at, source.length, put);
  while (open.length > 0) {
    const tag = open[open.length - 1];
    if (tag) unclosed(tag);
    leave(false);
  }
  return { source, nodes: root, problems: found, quoted: [] };
}
