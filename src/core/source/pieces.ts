import type { Piece } from "./model.js";

/** Pieces with each changed, at any depth: what is inside of one first, then the one itself. */
export function mapPieces(pieces: readonly Piece[], change: (piece: Piece) => Piece): readonly Piece[] {
  return pieces.map((piece) => {
    if (piece.kind === "tag") return change({ ...piece, pieces: mapPieces(piece.pieces, change) });
    if (piece.kind !== "choice") return change(piece);
    const branches = piece.branches.map((branch) => ({
      ...branch,
      pieces: mapPieces(branch.pieces, change),
    }));
    return change({ ...piece, branches });
  });
}

/** All pieces at any depth: each before what is inside of it. */
export function* eachPiece(pieces: readonly Piece[]): Generator<Piece, undefined> {
  for (const piece of pieces) {
    yield piece;
    if (piece.kind === "tag") yield* eachPiece(piece.pieces);
    else if (piece.kind === "choice") for (const branch of piece.branches) yield* eachPiece(branch.pieces);
  }
  return undefined;
}

/** Whether pieces hold words: letters in their fixed text, at any depth. */
export function hasLetters(pieces: readonly Piece[]): boolean {
  return pieces.some((piece) => {
    if (piece.kind === "text") return /\p{L}/u.test(piece.value);
    if (piece.kind === "choice") return piece.branches.some((branch) => hasLetters(branch.pieces));
    return piece.kind === "tag" && hasLetters(piece.pieces);
  });
}

/** The pieces without the white space at their ends, which stays outside in the code; other spaces (U+00A0 …) are text. */
export function trimEnds(pieces: readonly Piece[]): Piece[] {
  const trimmed = pieces.map((piece, index) => {
    if (piece.kind !== "text") return piece;
    let { value } = piece;
    if (index === 0) value = value.replace(/^[ \t\r\n\f]+/, "");
    if (index === pieces.length - 1) value = value.replace(/(?<![ \t\r\n\f])[ \t\r\n\f]+$/, "");
    return { ...piece, value };
  });
  return trimmed.filter((piece) => piece.kind !== "text" || piece.value !== "");
}

/** Neighbouring texts made one. */
export function joinTexts(pieces: readonly Piece[]): Piece[] {
  const joined: Piece[] = [];
  for (const piece of pieces) {
    const last = joined[joined.length - 1];
    if (piece.kind === "text" && last?.kind === "text")
      joined[joined.length - 1] = {
        kind: "text",
        value: last.value + piece.value,
        span: { start: last.span.start, end: piece.span.end },
      };
    else joined.push(piece);
  }
  return joined;
}

/** Whether not all that pieces say may be one text: there is markup in it, or blanks around it. */
export function mayHaveParts(pieces: readonly Piece[]): boolean {
  const [first] = pieces;
  const last = pieces.at(-1);
  return (
    (first?.kind === "text" && /^\s/.test(first.value)) ||
    (last?.kind === "text" && /\s$/.test(last.value)) ||
    first?.kind === "argument" ||
    last?.kind === "argument" ||
    pieces.some((piece) => piece.kind === "text" && piece.value.includes("<"))
  );
}
