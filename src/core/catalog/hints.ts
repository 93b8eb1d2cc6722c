import { lineStart as lineStartOf } from "../text/line-start.js";
import { commentsAbove } from "./comments.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import type { TextEncoding } from "../files/files.js";
import type { CatalogFormat, Entry } from "./model.js";

/** What translators find above an entry as long as there is something to do: the source text, and what its catalog says of it. */
export function hintLines(
  sourceText: string | undefined,
  description: string | undefined,
): readonly string[] {
  const oneLine = (text: string) =>
    text.replaceAll("\\", "\\\\").replaceAll("\r", "\\r").replaceAll("\n", "\\n");
  const said = (description?.split("\n") ?? []).filter(
    (line) => line.trim() !== "" && !/^\s*fond:/.test(line),
  );
  return [
    ...(sourceText === undefined ? [] : [`fond: source ${oneLine(sourceText)}`]),
    ...said.map((line) => `fond: note ${line.trim()}`),
  ];
}

/**
 * A catalog file's text with its entries' hints as they should be: `wanted` gives the lines for an entry, undefined where
 * nothing is known of it. They stand right above an entry that begins its line; other comments stay as they are.
 */
export function withHints(
  text: string,
  format: CatalogFormat,
  entries: Iterable<Entry>,
  wanted: (entry: Entry) => readonly string[] | undefined,
  encoding?: TextEncoding,
): string {
  const write = format.commentWriter?.(text, encoding) ?? ((line: string) => line);
  const lineEnd = /\r\n|\n/.exec(text)?.[0] ?? "\n";
  const edits: TextEdit[] = [];
  let end = 0;
  for (const entry of entries) {
    const least = end <= entry.keySpan.start ? end : 0;
    end = entry.valueSpan.end;
    if (entry.isInherited) continue;
    const lines = wanted(entry);
    if (!lines) continue;
    const own = lineStartOf(text, entry.keySpan.start);
    const indent = text.slice(own, entry.keySpan.start);
    if (indent.trim() !== "") continue;
    const above = format.comments ? commentsAbove(text, format.comments, entry.keySpan.start, least) : [];
    const there: string[] = [];
    let start = own;
    for (const line of above.toReversed()) {
      if (!/^fond: (?:source|note)\b/.test(line.text)) break;
      there.unshift(text.slice(line.start, line.end).trim());
      start = line.start;
    }
    // What a comment above says already is not said once more.
    const said = new Set(above.slice(0, above.length - there.length).map((line) => line.text));
    const written = lines.filter((line) => !said.has(line.replace(/^fond: note /, ""))).map(write);
    if (written.length === there.length && written.every((line, index) => line === there[index])) continue;
    edits.push({
      start,
      end: own,
      replacement: written.map((line) => `${indent}${line}${lineEnd}`).join(""),
    });
  }
  return applyEdits(text, edits);
}
