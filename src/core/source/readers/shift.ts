import type { Span } from "../../text/span.js";
import type { Literal, Lookup, Piece } from "../model.js";

/** A literal found in part of a file, its spans moved to where that part stands. */
export function shiftLiteral(literal: Literal, by: number): Literal {
  return {
    ...literal,
    span: shiftSpan(literal.span, by),
    pieces: literal.pieces.map((piece) => shiftPiece(piece, by)),
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
        pieces: one.pieces.map((piece) => shiftPiece(piece, by)),
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

function shiftPiece(piece: Piece, by: number): Piece {
  if (piece.kind === "choice")
    return {
      ...piece,
      span: shiftSpan(piece.span, by),
      branches: piece.branches.map((branch) => ({
        ...branch,
        pieces: branch.pieces.map((inner) => shiftPiece(inner, by)),
      })),
    };
  if (piece.kind === "argument" && piece.formatted)
    return {
      ...piece,
      span: shiftSpan(piece.span, by),
      formatted: { ...piece.formatted, value: shiftSpan(piece.formatted.value, by) },
    };
  if (piece.kind !== "tag") return { ...piece, span: shiftSpan(piece.span, by) };
  return {
    ...piece,
    span: shiftSpan(piece.span, by),
    open: shiftSpan(piece.open, by),
    close: piece.close && shiftSpan(piece.close, by),
    pieces: piece.pieces.map((inner) => shiftPiece(inner, by)),
  };
}
