import type { LookupValue } from "./emit.js";
import { fixedText, type Literal, type SourceFile } from "../source/model.js";
import { voidElements } from "../text/html-elements.js";
import type { Span } from "../text/span.js";
import type { Host } from "./hosts.js";

/** So far before a text the tag around it begins at most, in code units. */
const longestTag = 2_000;

/** The tag right before a text, and where its attributes end; undefined for anything else. */
export function tagBefore(
  text: string,
  { start }: Span,
): { readonly name: string; readonly end: number } | undefined {
  const before = text.slice(Math.max(start - longestTag, 0), start).trimEnd();
  const open = Math.max(before.lastIndexOf("<"), 0);
  const name = /^<([a-zA-Z][\w-]{0,60})(?:>$|\s[^<>]{0,1900}[^/<>]>$)/.exec(before.slice(open))?.[1];
  if (name === undefined) return undefined;
  return { name, end: start - (Math.min(start, longestTag) - before.length) - 1 };
}

/** Whether a text is all that its element holds. */
export function isWholeContent(text: string, { form, span, pieces }: Literal): boolean {
  const isText = form === "content" || (form === "phrase" && pieces.every(({ kind }) => kind !== "tag"));
  const tag = isText ? tagBefore(text, span) : undefined;
  if (!tag || voidElements.has(tag.name.toLowerCase())) return false;
  const close = /^\s*<\/([a-zA-Z][\w-]{0,60})/.exec(text.slice(span.end, span.end + 200))?.[1];
  return close?.toLowerCase() === tag.name.toLowerCase();
}

/** Whether what takes a text's place is put together with other strings, or filled. */
export function isJoined({ frame, span }: Literal, { text }: SourceFile): boolean {
  return (
    frame !== undefined ||
    /[+%.]\s{0,40}$/.test(text.slice(Math.max(span.start - 41, 0), span.start)) ||
    /^\s{0,40}(?:\+(?!\+)|%(?![%>])|\.\s{0,9}["'\w$])/.test(text.slice(span.end, span.end + 60))
  );
}

/** Whether a whole text is given to a call, which mostly shows it: elsewhere programs count on a string. */
export function isGiven(literal: Literal, source: SourceFile): boolean {
  if (isJoined(literal, source)) return false;
  const { context, span } = literal;
  const { text } = source;
  if (context.role === "argument") return true;
  // An argument by its name, and no entry of a map.
  return (
    context.role === "property" &&
    /[\w)]\s?=\s{0,40}$/.test(text.slice(Math.max(span.start - 80, 0), span.start))
  );
}

/** Whether a text of an annotation can be given by its key, as the book writes keys there: values cannot be passed. */
export function annotated({ context, pieces, form, obstacle }: Literal, { annotation }: Host): boolean {
  return (
    annotation !== undefined &&
    context.isAnnotation === true &&
    (obstacle === undefined || obstacle.messageId.endsWith("annotation-only")) &&
    form === "string" &&
    pieces.length === 1 &&
    !/[{}$\\]/.test(fixedText(pieces))
  );
}

/** The code of a value of a template or of code other than script, where tags are none. */
export function valueCode(piece: LookupValue["piece"]): string | undefined {
  return piece.kind === "tag" ? undefined : piece.kind === "choice" ? piece.value : piece.code;
}
