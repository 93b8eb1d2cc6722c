import { deepestNesting } from "../../../text/nesting.js";
import { voidElements } from "../../../text/html-elements.js";
import { Tokenizer, TokenizerMode, type Token, type TokenHandler } from "parse5";
import type { Span } from "../../../text/span.js";

/** An element or a piece of text of a page, with where it stands. */
export type MarkupNode = MarkupElement | MarkupText;

export interface MarkupElement {
  readonly kind: "element";
  /** As written: letter case kept. */
  readonly name: string;
  readonly attributes: readonly MarkupAttribute[];
  readonly start: number;
  /** Behind the opening tag. */
  readonly openEnd: number;
  readonly children: MarkupNode[];
  readonly parent: MarkupElement | undefined;
  /** The closing tag; undefined where there is none. */
  close: Span | undefined;
}

export interface MarkupText {
  readonly kind: "text";
  readonly start: number;
  end: number;
}

export interface MarkupAttribute {
  readonly name: string;
  /** The value as written, entities and all; undefined for a bare name. */
  readonly raw: string | undefined;
  readonly start: number;
  readonly end: number;
  /** The value without quotes. */
  readonly valueStart: number;
  readonly valueEnd: number;
  readonly quoted: boolean;
}

/** Elements that a start tag of one of these names closes (HTML Living Standard, 13.1.2.4 "optional tags"). */
const closedBy: Readonly<Record<string, readonly string[]>> = {
  li: ["li"],
  dt: ["dt", "dd"],
  dd: ["dt", "dd"],
  option: ["option", "optgroup"],
  tr: ["tr"],
  td: ["td", "th", "tr"],
  th: ["td", "th", "tr"],
};

const rawText: Readonly<Record<string, (typeof TokenizerMode)[keyof typeof TokenizerMode]>> = {
  script: TokenizerMode.SCRIPT_DATA,
  style: TokenizerMode.RAWTEXT,
  textarea: TokenizerMode.RCDATA,
  title: TokenizerMode.RCDATA,
};

const textAlone: Readonly<Record<string, true>> = { textarea: true, title: true };

/**
 * Reads markup into a tree by HTML's tokens (HTML Living Standard, 13.2.5), tolerant as templates need it: elements nest as they
 * are written, a slash before `>` closes any element, what is never closed ends with its parent. `elementsInText` reads the
 * content of `title` and `textarea` as markup, as libraries of tags do.
 */
export function readTree(text: string, elementsInText = false): MarkupElement {
  const root: MarkupElement = {
    kind: "element",
    name: "",
    attributes: [],
    start: 0,
    openEnd: 0,
    children: [],
    parent: undefined,
    close: undefined,
  };
  let current = root;
  let depth = 0;
  const leave = (to: MarkupElement) => {
    for (; current !== to && current.parent; current = current.parent) depth--;
  };
  const addText = (token: Token.CharacterToken) => {
    const location = token.location;
    if (!location) return;
    const last = current.children[current.children.length - 1];
    if (last?.kind === "text" && last.end === location.startOffset) last.end = location.endOffset;
    else current.children.push({ kind: "text", start: location.startOffset, end: location.endOffset });
  };
  const handler: TokenHandler = {
    onStartTag(token) {
      const location = token.location;
      if (!location) return;
      const closes = closedBy[token.tagName];
      if (closes?.includes(current.name.toLowerCase()) && current.parent) leave(current.parent);
      const name = text.slice(location.startOffset + 1, location.startOffset + 1 + token.tagName.length);
      const element: MarkupElement = {
        kind: "element",
        name,
        attributes: Object.values(location.attrs ?? {}).map((place) =>
          readAttribute(text, place.startOffset, place.endOffset),
        ),
        start: location.startOffset,
        openEnd: location.endOffset,
        children: [],
        parent: current,
        close: undefined,
      };
      current.children.push(element);
      if (token.selfClosing || (voidElements.has(name) && name === name.toLowerCase())) return;
      const mode =
        elementsInText && Object.hasOwn(textAlone, token.tagName) ? undefined : rawText[token.tagName];
      if (mode !== undefined) {
        tokenizer.lastStartTagName = token.tagName;
        tokenizer.state = mode;
      }
      // What reads the tree goes down by recursion: what is in deeper elements stands beside them.
      if (depth >= deepestNesting && mode === undefined) return;
      current = element;
      depth++;
    },
    onEndTag(token) {
      const location = token.location;
      if (!location) return;
      let open: MarkupElement | undefined = current;
      while (open && open.name.toLowerCase() !== token.tagName) open = open.parent;
      if (!open?.parent) return;
      open.close = { start: location.startOffset, end: location.endOffset };
      leave(open.parent);
    },
    onCharacter: addText,
    onWhitespaceCharacter: addText,
    onNullCharacter: addText,
    onComment: () => undefined,
    onDoctype: () => undefined,
    onEof: () => undefined,
  };
  const tokenizer = new Tokenizer({ sourceCodeLocationInfo: true }, handler);
  tokenizer.write(text, true);
  return root;
}

function readAttribute(text: string, start: number, end: number): MarkupAttribute {
  const written = text.slice(start, end);
  const equals = written.indexOf("=");
  if (equals < 0)
    return { name: written, raw: undefined, start, end, valueStart: end, valueEnd: end, quoted: false };
  const after = /^\s*/.exec(written.slice(equals + 1))?.[0].length ?? 0;
  const from = start + equals + 1 + after;
  const quote = text[from];
  const quoted = quote === '"' || quote === "'";
  const valueStart = quoted ? from + 1 : from;
  const valueEnd = quoted && end > valueStart ? end - 1 : end;
  return {
    name: written.slice(0, equals).trimEnd(),
    raw: text.slice(valueStart, valueEnd),
    start,
    end,
    valueStart,
    valueEnd,
    quoted,
  };
}
