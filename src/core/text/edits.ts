import type { Span } from "./span.js";

/** One replacement in a text; an empty span inserts. */
export interface TextEdit extends Span {
  readonly replacement: string;
}

/**
 * Applies edits to a text. Edits may come in any order but must not overlap; insertions at one
 * offset keep the order in which they are given. Throws on overlap: that is a mistake of the caller.
 */
export function applyEdits(text: string, edits: readonly TextEdit[]): string {
  const result = applyIfApart(text, edits);
  if (result === undefined) throw new RangeError("edits that overlap or leave the text");
  return result;
}

/** The same; undefined where edits overlap. */
export function applyIfApart(text: string, edits: readonly TextEdit[]): string | undefined {
  if (edits.length === 0) return text;
  const sorted = edits.map((edit, order) => ({ edit, order }));
  sorted.sort((a, b) => a.edit.start - b.edit.start || a.edit.end - b.edit.end || a.order - b.order);
  let result = "";
  let at = 0;
  for (const { edit } of sorted) {
    if (edit.start < at || edit.end < edit.start || edit.end > text.length) return undefined;
    result += text.slice(at, edit.start) + edit.replacement;
    at = edit.end;
  }
  return result + text.slice(at);
}
