import type { Span } from "../../text/span.js";
import type { Literal, Lookup, Piece } from "../model.js";
import { mapPieces } from "../pieces.js";

/** A literal found in part of a file, its spans moved to where that part stands. */
export function shiftLiteral(literal: Literal, by: number): Literal {
  return {
    ...literal,
    span: shiftSpan(literal.span, by),
    pieces: shiftPieces(literal.pieces, by),
    ...(literal.strings && {
      strings: literal.strings.map((one) => ({
        ...one,
        ...shiftSpan(one, by),
        innerStart: one.innerStart + by,
        innerEnd: one.innerEnd + by,
      })),
    }),
    ...(literal.translations && {
      translations: literal.translations.map((one) => ({
        ...one,
        pieces: shiftPieces(one.pieces, by),
      })),
    }),
  };
}

export function shiftLookup(lookup: Lookup, by: number): Lookup {
  return { ...lookup, span: shiftSpan(lookup.span, by), keySpan: shiftSpan(lookup.keySpan, by) };
}

export function shiftSpan(span: Span, by: number): Span {
  return { start: span.start + by, end: span.end + by };
}

function shiftPieces(pieces: readonly Piece[], by: number): readonly Piece[] {
  return mapPieces(pieces, (piece) => {
    const span = shiftSpan(piece.span, by);
    if (piece.kind === "tag")
      return {
        ...piece,
        span,
        open: shiftSpan(piece.open, by),
        close: piece.close && shiftSpan(piece.close, by),
      };
    if (piece.kind !== "argument" || !piece.formatted) return { ...piece, span };
    return { ...piece, span, formatted: { ...piece.formatted, value: shiftSpan(piece.formatted.value, by) } };
  });
}
