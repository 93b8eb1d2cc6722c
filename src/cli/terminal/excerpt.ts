import { displayWidth } from "../../core/text/width.js";
import type { Range } from "../../core/text/span.js";
import type { Style } from "./style.js";

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
    displayWidth(shown.slice(indent)) <= room
      ? Math.min(indent, from)
      : Math.max(Math.min(indent, from), from - Math.floor(room / 3));
  const head = start > indent ? "…" : "";
  let end = shown.length;
  while (end > start && displayWidth(head + shown.slice(start, end)) > room - 1) end--;
  const tail = end < shown.length ? "…" : "";
  const before = displayWidth(head + shown.slice(start, from));
  const marked = Math.max(displayWidth(shown.slice(from, Math.min(to, end))), 1);
  return [
    style.dim(gutter) + head + shown.slice(start, end) + tail,
    style.dim(`${" ".repeat(6)} │ `) +
      " ".repeat(before) +
      paint("^".repeat(Math.min(marked, Math.max(room - before, 1)))),
  ];
}
