import { htmlElements } from "../../../text/html-elements.js";
import type { Span } from "../../../text/span.js";
import type { Island } from "../../dialects/dialect.js";
import { type MarkupElement, type MarkupNode, type MarkupText } from "./tree.js";

/** A text with a part of it blank, so that places stay. */
export function blanked(text: string, { start, end }: Span): string {
  return text.slice(0, start) + text.slice(start, end).replace(/[^\r\n]/g, " ") + text.slice(end);
}

/**
 * Masked text in which islands that give tags their names, `<{{ tag }} class="wide">`, are names to a tokenizer, and blocks right
 * behind the name of an element are no part of it: `<script{% if nonce %} nonce="…"{% endif %}>`.
 */
export function withTagNames(masked: string): string {
  return masked
    .replace(
      /(<\/?)([\uE000-\uE002]{1,200})(?=(?:[\w-]{1,40}[\uE000-\uE002]{0,200}){0,4}(?:\s{1,99}[\w:@-]{1,60}\s{0,9}=|\s{0,99}\/?>))/g,
      (_, open: string, island: string) => open + "x".repeat(island.length),
    )
    .replace(/<([a-zA-Z]\w{0,20})[\uE000-\uE002]/g, (whole, name: string) =>
      htmlElements.has(name.toLowerCase()) ? `<${name} ` : whole,
    );
}

/** Settings at the head of a page, between lines of dashes, which are none of its text. */
export function headIsland(text: string): Island[] {
  const end = /^---\r?\n/.test(text) ? text.indexOf("\n---", 3) : -1;
  return end < 0 ? [] : [{ kind: "comment", start: 0, end: end + 4, codeStart: 4, codeEnd: end }];
}

/** Whether an island is an expression of a page's own small language, `${…}`. */
export function isExpression(text: string, { start }: Island): boolean {
  return /^[$#]\{/.test(text.slice(start, start + 2));
}

/** The marks around the comments of pages and templates. */
export const pageComments: readonly (readonly [open: RegExp, close: RegExp])[] = [
  [/<!--/, /-->/],
  [/<%--/, /--%>/],
  [/<%#/, /%>/],
  [/\{\{!?--/, /--\}\}/],
  [/\{#/, /#\}/],
];

/** The attribute that a binding sets, and what its value is; undefined for a plain attribute. */
export function boundName(name: string): { name: string; kind: "value" | "content" | "event" } | undefined {
  const event = /^(?:@|v-on:|on:|\(|x-on:|hx-on)/.test(name);
  if (event) return { name, kind: "event" };
  const bound = /^(?::|v-bind:|x-bind:|\[(?:attr\.)?)([\w.-]+)\]?$/.exec(name);
  if (bound) return { name: bound[1] ?? name, kind: "value" };
  if (/^(?:v-text|v-html|x-text|x-html|\[innerText\]|\[textContent\])$/.test(name))
    return { name, kind: "content" };
  if (/^(?:v-|x-|\*|#)/.test(name)) return { name, kind: "event" };
  return undefined;
}

/** The name that an element of a head has for what its content says; empty for any other. */
export function metaName(element: MarkupElement): string {
  return element.attributes
    .filter(({ name }) => name === "name" || name === "property")
    .map(({ raw }) => raw ?? "")
    .join(" ");
}

/** A text node parted wherever a mark stands in it. */
export function splitText(masked: string, node: MarkupText, mark: string): (MarkupText | "break")[] {
  const parts: (MarkupText | "break")[] = [];
  let from = node.start;
  for (let at = node.start; at < node.end; at++) {
    if (masked[at] !== mark) continue;
    if (at > from) parts.push({ kind: "text", start: from, end: at });
    if (parts[parts.length - 1] !== "break") parts.push("break");
    from = at + 1;
  }
  if (from < node.end) parts.push({ kind: "text", start: from, end: node.end });
  return parts;
}

/** The innermost element around a place; undefined outside of all. */
export function elementAt(root: MarkupElement, offset: number): MarkupElement | undefined {
  let found: MarkupElement | undefined;
  let at: MarkupElement | undefined = root;
  while (at) {
    const inner: MarkupElement | undefined = at.children.find(
      (child): child is MarkupElement =>
        child.kind === "element" && child.start <= offset && offset < endOf(child),
    );
    if (inner) found = inner;
    at = inner;
  }
  return found;
}

const ends = new WeakMap<MarkupNode, number>();

/** Where a node ends: of elements that are never closed each ends with its last child, which is asked for once. */
export function endOf(node: MarkupNode): number {
  const open: MarkupNode[] = [];
  let at = node;
  let end = ends.get(at);
  while (end === undefined) {
    open.push(at);
    if (at.kind === "text") end = at.end;
    else if (at.close) end = at.close.end;
    else {
      const last: MarkupNode | undefined = at.children[at.children.length - 1];
      if (!last) end = at.openEnd;
      else {
        at = last;
        end = ends.get(at);
      }
    }
  }
  for (const one of open) ends.set(one, end);
  return end;
}
