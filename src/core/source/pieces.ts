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

/** How many code units of blanks a text of markup begins with, those that are entities and marks that show nothing included. */
export function blanksAhead(text: string): number {
  return /^(?:[\s\uE002]|&(?:nbsp|ensp|emsp|thinsp|#160|#xa0);)*/i.exec(text)?.[0].length ?? 0;
}

/** How many code units of such blanks a text of markup ends with. */
export function blanksBehind(text: string): number {
  for (let end = text.length; ;) {
    while (/[\s\uE002]/.test(text[end - 1] ?? "x")) end--;
    const entity =
      text[end - 1] === ";"
        ? /&(?:nbsp|ensp|emsp|thinsp|#160|#xa0);$/i.exec(text.slice(Math.max(end - 8, 0), end))
        : null;
    if (!entity) return text.length - end;
    end -= entity[0].length;
  }
}

/** The pieces without the blanks at their ends, which stay outside in the code. */
export function trimEnds(pieces: readonly Piece[]): Piece[] {
  const trimmed = pieces.map((piece, index) => {
    if (piece.kind !== "text") return piece;
    const { value } = piece;
    let start = 0;
    let end = value.length;
    if (index === 0) while (start < end && /\s/.test(value[start] ?? "")) start++;
    if (index === pieces.length - 1) while (end > start && /\s/.test(value[end - 1] ?? "")) end--;
    return { ...piece, value: value.slice(start, end) };
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
