import type { MessageNode } from "../message/model.js";
import type { Piece } from "./model.js";

/** The message that a literal's pieces make: what is filled in becomes arguments, elements become tags. */
export function literalNodes(pieces: readonly Piece[]): MessageNode[] {
  return pieces.map((piece): MessageNode => {
    switch (piece.kind) {
      case "text":
        return { kind: "text", value: piece.value };
      case "argument":
        return { kind: "argument", name: piece.name };
      case "tag":
        return {
          kind: "tag",
          name: piece.name,
          attributes: [],
          children: literalNodes(piece.pieces),
          selfClosing: piece.close === undefined || piece.pieces.length === 0,
        };
    }
  });
}
