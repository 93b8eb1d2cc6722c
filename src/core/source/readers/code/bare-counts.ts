import type { Piece } from "../../model.js";
import { eachPiece, mapPieces } from "../../pieces.js";

/** What a number is turned into text with: a message does that by itself. */
const asText =
  /^(?:str|String|strval|String\.valueOf|Integer\.toString|Convert\.ToString)\(([^()]+)\)$|^\(string\)\s*(\S+)$|^([^()\s]+)\.(?:to_s|ToString\(\)|toString\(\))$/;

/** Pieces in which the number that a choice counts is passed as it is where the text shows it: `str(n)` is `n` then. */
export function withBareCounts(pieces: readonly Piece[]): readonly Piece[] {
  const counted = new Set<string>();
  const names = new Map<string, string>();
  const bareOf = (code: string) => {
    const [, one, two, three] = asText.exec(code) ?? [];
    return (one ?? two ?? three)?.trim();
  };
  for (const piece of eachPiece(pieces))
    if (piece.kind === "choice" && piece.choice === "plural") counted.add(piece.code);
  let isWrapped = false;
  for (const piece of eachPiece(pieces)) {
    if (piece.kind !== "argument" && piece.kind !== "choice") continue;
    const bare = piece.kind === "argument" ? bareOf(piece.code) : undefined;
    const code = bare ?? piece.code;
    if (!counted.has(code)) continue;
    isWrapped ||= bare !== undefined;
    // Of the names that one value has by now the shortest is the one without a number behind it.
    const known = names.get(code);
    if (known === undefined || piece.name.length < known.length) names.set(code, piece.name);
  }
  if (!isWrapped) return pieces;
  return mapPieces(pieces, (piece) => {
    if (piece.kind !== "argument" && piece.kind !== "choice") return piece;
    const code = (piece.kind === "argument" ? bareOf(piece.code) : undefined) ?? piece.code;
    const name = names.get(code);
    return name === undefined ? piece : { ...piece, code, name };
  });
}
