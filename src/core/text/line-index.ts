import type { Position, Range, Span } from "./span.js";

/** Turns offsets of one text into lines and columns. Made once a text, lines are found on first use. */
export interface LineIndex {
  /** The line and column (from 1, UTF-16 code units) of an offset; offsets beyond the text count as its end. */
  position(offset: number): Position;
  range(span: Span): Range;
  /** The text of a line (from 1) without its line end; empty for a line that is not there. */
  line(number: number): string;
}

/** Makes the index of `text`. Lines end at LF, CRLF or a lone CR. */
export function lineIndex(text: string): LineIndex {
  let starts: number[] | undefined;
  const lineStarts = () => (starts ??= findLineStarts(text));
  const position = (offset: number): Position => {
    const all = lineStarts();
    const bounded = Math.min(Math.max(offset, 0), text.length);
    let low = 0;
    let high = all.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((all[middle] ?? 0) <= bounded) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: bounded - (all[low] ?? 0) + 1 };
  };
  return {
    position,
    range(span) {
      const from = position(span.start);
      const to = position(span.end);
      return { line: from.line, column: from.column, endLine: to.line, endColumn: to.column };
    },
    line(number) {
      const all = lineStarts();
      const start = all[number - 1];
      if (start === undefined) return "";
      return text.slice(start, all[number] ?? text.length).replace(/(?<![\r\n])[\r\n]+$/, "");
    },
  };
}

function findLineStarts(text: string): number[] {
  const starts = [0];
  if (!text.includes("\r")) {
    for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) starts.push(at + 1);
    return starts;
  }
  for (let at = 0; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit === 10 || (unit === 13 && text.charCodeAt(at + 1) !== 10)) starts.push(at + 1);
  }
  return starts;
}
