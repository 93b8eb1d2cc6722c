import type { ChoicePiece, Literal, Piece } from "../../model.js";
import { mapPieces } from "../../pieces.js";

/**
 * Words that an island chooses by a number are part of the sentence that it stands in: takes such literals into those
 * that have the island as a value.
 */
export function joinChoices(literals: readonly Literal[], text: string): Literal[] {
  const chosen = literals.flatMap((literal) => {
    const [piece] = literal.pieces;
    return literal.pieces.length === 1 && piece?.kind === "choice" ? [{ literal, piece }] : [];
  });
  if (chosen.length === 0) return [...literals];
  const gone = new Set<Literal>();
  const result = literals.map((literal): Literal => {
    const named = argumentsIn(literal.pieces);
    const joined: Literal[] = [];
    const join = (pieces: readonly Piece[]): readonly Piece[] =>
      pieces.map((piece): Piece => {
        if (piece.kind === "tag") return { ...piece, pieces: join(piece.pieces) };
        if (piece.kind !== "argument") return piece;
        const found = chosen.find(
          ({ literal: { span } }) =>
            piece.span.start < span.start &&
            span.end < piece.span.end &&
            text.slice(span.start, span.end) === piece.code,
        );
        const others = new Map(named.filter(([name]) => name !== piece.name));
        // A name can stand for one value only.
        if (!found || argumentsIn([found.piece]).some(([name, code]) => (others.get(name) ?? code) !== code))
          return piece;
        joined.push(found.literal);
        // The number that chooses may be shown beside it, under a name of the sentence's own.
        const own = named.find(([name, code]) => name !== piece.name && code === found.piece.code)?.[0];
        return { ...(own === undefined ? found.piece : withName(found.piece, own)), span: piece.span };
      });
    const pieces = join(literal.pieces);
    if (joined.length === 0) return literal;
    for (const one of joined) gone.add(one);
    const remarks = [literal, ...joined].flatMap((one) => one.remarks ?? []);
    return { ...literal, pieces, ...(remarks.length > 0 && { remarks }) };
  });
  return result.filter((literal, index) => !gone.has(literals[index] ?? literal));
}

/** Words chosen by a value under another name, in their own texts too. */
function withName(piece: ChoicePiece, name: string): Piece {
  const [renamed = piece] = mapPieces([piece], (one) =>
    (one.kind === "argument" || one.kind === "choice") && one.code === piece.code ? { ...one, name } : one,
  );
  return renamed;
}

/** The names of all arguments in pieces, with the code of their values. */
function argumentsIn(pieces: readonly Piece[]): (readonly [name: string, code: string])[] {
  return pieces.flatMap((piece) => {
    switch (piece.kind) {
      case "argument":
        return [[piece.name, piece.code] as const];
      case "choice":
        return [
          [piece.name, piece.code] as const,
          ...piece.branches.flatMap((one) => argumentsIn(one.pieces)),
        ];
      case "tag":
        return argumentsIn(piece.pieces);
      case "text":
        return [];
    }
  });
}
