import type { Span } from "../../../text/span.js";
import type { Literal, Piece } from "../../model.js";

/** The literals without those that only say how a value of another is formatted: that message says it. */
export function withoutOptions(literals: readonly Literal[]): Literal[] {
  const formatted = literals.flatMap(({ pieces }) => formattedIn(pieces));
  if (formatted.length === 0) return [...literals];
  const within = (inner: Span, outer: Span) => outer.start <= inner.start && inner.end <= outer.end;
  return literals.filter(
    ({ span }) => !formatted.some((one) => within(span, one.span) && !within(span, one.value)),
  );
}

function formattedIn(pieces: readonly Piece[]): { readonly span: Span; readonly value: Span }[] {
  return pieces.flatMap((piece) => {
    switch (piece.kind) {
      case "argument":
        return piece.formatted ? [{ span: piece.span, value: piece.formatted.value }] : [];
      case "choice":
        return piece.branches.flatMap((branch) => formattedIn(branch.pieces));
      case "tag":
        return formattedIn(piece.pieces);
      case "text":
        return [];
    }
  });
}
