import { lineStart as lineStartOf } from "../text/line-start.js";
import type { CommentSyntax } from "./model.js";

/** One line of a comment, without what marks it as one. */
export interface CommentLine {
  /** What it says, without space around it. */
  readonly text: string;
  /** What it says, with all space but the first behind the mark. */
  readonly content: string;
  /** From the start of the line to its end, without the line end. */
  readonly start: number;
  readonly end: number;
}

/**
 * The comment lines right above a place in a file, the first one first. `least` is the end of what precedes the place: a line
 * that is part of it is no comment, even if it looks like one.
 */
export function commentsAbove(
  text: string,
  syntax: CommentSyntax,
  place: number,
  least = 0,
): readonly CommentLine[] {
  const found: CommentLine[] = [];
  let below = lineStartOf(text, place);
  while (below > least) {
    const end = below - 1;
    const start = lineStartOf(text, end);
    if (start < least) break;
    const own = commentLine(text, syntax, start, end);
    if (own) {
      found.unshift(own);
      below = start;
      continue;
    }
    const block = blockEndingAt(text, syntax, end, least);
    if (!block) break;
    found.unshift(...block);
    below = block[0]?.start ?? 0;
  }
  return found;
}

/** Every line of a file that is a comment as a whole. */
export function commentLines(text: string, syntax: CommentSyntax): readonly CommentLine[] {
  const found: CommentLine[] = [];
  for (let start = 0; start < text.length;) {
    const feed = text.indexOf("\n", start);
    const end = feed < 0 ? text.length : feed;
    const own = commentLine(text, syntax, start, end);
    if (own) found.push(own);
    start = end + 1;
  }
  return found;
}

function commentLine(
  text: string,
  { line, block }: CommentSyntax,
  start: number,
  end: number,
): CommentLine | undefined {
  let at = start;
  while (at < end && (text[at] === " " || text[at] === "\t" || text[at] === "\f")) at++;
  const last = text[end - 1] === "\r" ? end - 1 : end;
  const marker = line.find((one) => text.startsWith(one, at));
  if (marker !== undefined) return lineOf(text, at + marker.length, last, start, end);
  const [open = "", close = ""] = block ?? [];
  if (open === "" || !text.startsWith(open, at)) return undefined;
  const closed = text.indexOf(close, at + open.length);
  if (closed < 0 || closed > last || text.slice(closed + close.length, last).trim() !== "") return undefined;
  return lineOf(text, at + open.length, closed, start, end);
}

/** The lines of a comment of several lines that ends at a line's end and opens on a line of its own. */
function blockEndingAt(
  text: string,
  { block }: CommentSyntax,
  end: number,
  least: number,
): readonly CommentLine[] | undefined {
  if (!block) return undefined;
  const [open, close] = block;
  const closed = text.slice(Math.max(least, end - 200), end).trimEnd();
  if (!closed.endsWith(close)) return undefined;
  const closeAt = Math.max(least, end - 200) + closed.length - close.length;
  const openAt = text.lastIndexOf(open, closeAt - 1);
  const first = lineStartOf(text, openAt);
  if (openAt < least || first < least || text.slice(first, openAt).trim() !== "") return undefined;
  const lines: CommentLine[] = [];
  for (let start = first; start < end;) {
    const feed = text.indexOf("\n", start);
    const lineEnd = feed < 0 || feed > end ? end : feed;
    const from = start === first ? openAt + open.length : start;
    const to = Math.min(lineEnd, closeAt);
    // The stars that many write down the left side are no part of what it says.
    const star = start === first ? null : /^[ \t]*\*(?!\/)/.exec(text.slice(from, Math.max(from, to)));
    lines.push(lineOf(text, from + (star?.[0].length ?? 0), Math.max(from, to), start, lineEnd));
    start = lineEnd + 1;
  }
  return lines;
}

function lineOf(text: string, from: number, to: number, start: number, end: number): CommentLine {
  const content = text.slice(from, to).replace(/\r$/, "");
  return { text: content.trim(), content: content.replace(/^[ \t]/, ""), start, end };
}
