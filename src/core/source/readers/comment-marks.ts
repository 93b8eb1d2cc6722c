import type { LineIndex } from "../../text/line-index.js";
import type { Literal } from "../model.js";

/** What comments say of lines: `fond: skip REASON` that their literals are no text, `fond: note …` something for translators. */
export type CommentMarks = Map<number, { readonly kind: "skip" | "note"; readonly text: string }>;

/** Takes note of a comment, if it is a mark: it speaks for the line that it ends on and for the next. */
export function markComment(marks: CommentMarks, comment: string, lastLine: number): void {
  const match = /^\W*fond:\s*(skip|note)\b[\s:]*([\s\S]*?)\s*(?:\*\/|-->|--%?>|--\}\}|#\}|-?%>)?$/.exec(
    comment,
  );
  if (!match) return;
  const mark = { kind: match[1] === "note" ? ("note" as const) : ("skip" as const), text: match[2] ?? "" };
  marks.set(lastLine, mark);
  marks.set(lastLine + 1, mark);
}

/** The literals with what the marks say of their lines. */
export function applyMarks(literals: readonly Literal[], marks: CommentMarks, lines: LineIndex): Literal[] {
  if (marks.size === 0) return [...literals];
  return literals.map((literal) => {
    const mark = marks.get(lines.position(literal.span.start).line);
    if (!mark) return literal;
    return mark.kind === "skip" ? { ...literal, skipped: mark.text } : { ...literal, note: mark.text };
  });
}
