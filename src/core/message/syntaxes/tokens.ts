import { mostProblems } from "./most-problems.js";
import { voidElementsInMessages } from "../../text/html-elements.js";
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

const tagPattern = /<(\/?)([A-Za-z][A-Za-z0-9_.:-]*)((?:\s[^<>]*)?)(\/?)>/g;
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
  const text = (value: string, start: number, end: number) => {
    if (end > start) put({ kind: "text", value, span: { start, end } });
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
  for (const token of tokens) {
    if (token.kind === "node") {
      put(token.node);
      continue;
    }
    // Escapes make a text shorter than it is written; tags are looked for where both are the same.
    const isSame = token.value.length === token.end - token.start;
    if (!tags || !isSame || token.isLiteral || found.length >= mostProblems || !token.value.includes("<")) {
      text(token.value, token.start, token.end);
      continue;
    }
    let at = 0;
    for (const match of token.value.matchAll(tagPattern)) {
      if (found.length >= mostProblems) break;
      const [whole, slash = "", name = "", attributes = "", self = ""] = match;
      const start = token.start + match.index;
      const end = start + whole.length;
      text(token.value.slice(at, match.index), token.start + at, start);
      at = match.index + whole.length;
      const inner = attributes.trim();
      const given: MessageNode[] = inner === "" ? [] : [{ kind: "text", value: inner }];
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
        self !== "" ||
        voidElementsInMessages.has(name.toLowerCase()) ||
        open.length >= deepestNesting
      )
        put({
          kind: "tag",
          name,
          attributes: given,
          children: [],
          selfClosing: true,
          span: { start, end },
          openSpan: { start, end },
        });
      else open.push({ name, start, openEnd: end, attributes: given, nodes: [] });
    }
    text(token.value.slice(at), token.start + at, token.end);
  }
  while (open.length > 0) {
    const tag = open[open.length - 1];
    if (tag) unclosed(tag);
    leave(false);
  }
  return { source, nodes: root, problems: found, quoted: [] };
}
