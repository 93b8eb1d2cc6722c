import { displayWidth } from "../../core/text/width.js";
import { safeText } from "../../output/safe-text.js";
import type { Range } from "../../core/text/span.js";
import type { Style } from "./style.js";

/** More code units than this hardly share a column: of the line of a minified file only so much is looked at. */
const mostUnits = 16;

/** A line of a file with a place in it marked below, as two lines; cut around the place to fit `width` columns. */
export function excerpt(
  line: string,
  range: Range,
  width: number,
  style: Style,
  paint: (text: string) => string,
): string[] {
  const gutter = `${String(range.line).padStart(6)} │ `;
  const room = Math.max(width - gutter.length, 20);
  const shown = line.replaceAll("\t", " ");
  const from = Math.min(range.column - 1, shown.length);
  const to =
    range.endLine === range.line ? Math.max(Math.min(range.endColumn - 1, shown.length), from) : shown.length;
  const indent = /^ */.exec(shown)?.[0].length ?? 0;
  // Where the line is too long, it starts a little before the place, else at its first word.
  const start =
    shown.length - indent <= room * mostUnits && widthOf(shown.slice(indent)) <= room
      ? Math.min(indent, from)
      : Math.max(Math.min(indent, from), from - Math.floor(room / 3));
  const head = start > indent ? "…" : "";
  const fits = (end: number) => widthOf(head + shown.slice(start, end)) < room;
  let end = Math.min(shown.length, start + room * mostUnits);
  if (!fits(end)) {
    let least = start;
    while (end - least > 1) {
      const middle = (least + end) >> 1;
      if (fits(middle)) least = middle;
      else end = middle;
    }
    end = least;
  }
  const tail = end < shown.length ? "…" : "";
  const before = widthOf(head + shown.slice(start, from));
  const marked = Math.max(widthOf(shown.slice(from, Math.min(to, end))), 1);
  return [
    style.dim(gutter) + head + shown.slice(start, end) + tail,
    style.dim(`${" ".repeat(6)} │ `) +
      " ".repeat(before) +
      paint("^".repeat(Math.min(marked, Math.max(room - before, 1)))),
  ];
}

/** Columns of a text as it is printed, with stand-ins for control characters. */
function widthOf(text: string): number {
  return displayWidth(safeText(text));
}
