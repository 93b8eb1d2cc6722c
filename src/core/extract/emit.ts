import type { BookConfig } from "../config/schema.js";
import { defaultCall } from "../source/book-code.js";
import type { Literal, Piece } from "../source/model.js";

/** Writes what stands in a literal's place. */
export interface Emission {
  readonly replacement: string;
  /** The function that the replacement calls: what must be in scope. */
  readonly template: string;
}

/**
 * The lookup that takes a literal's place. `codeOf` gives the code of a part of the file, with what was
 * rewritten inside it. Undefined where the book has no template for text with elements.
 */
export function emitLookup(
  book: BookConfig,
  literal: Literal,
  key: string,
  quote: '"' | "'",
  codeOf: (span: { start: number; end: number }) => string,
): Emission | undefined {
  const hasTags = literal.pieces.some((piece) => piece.kind === "tag");
  const template = hasTags ? book.emit.rich : (book.emit.call ?? defaultCall);
  if (template === undefined) return undefined;
  const all = [...literal.pieces, ...(literal.translations ?? []).flatMap(({ pieces }) => pieces)];
  const args = argumentsCode(all, codeOf);
  const quoted = quote === "'" ? template.replace('"{key}"', "'{key}'") : template;
  const call = quoted
    .replace("{key}", () => key)
    .replace("{args}", () => (args === "" ? "" : `, { ${args} }`));
  const inMarkup = literal.form === "content" || literal.form === "phrase" || literal.form === "attribute";
  return { replacement: inMarkup ? `{${call}}` : call, template };
}

function argumentsCode(
  pieces: readonly Piece[],
  codeOf: (span: { start: number; end: number }) => string,
): string {
  const members = new Map<string, string>();
  const put = (name: string, value: string) => {
    if (!members.has(name)) members.set(name, value === name ? name : `${name}: ${value}`);
  };
  const collect = (list: readonly Piece[]) => {
    for (const piece of list) {
      if (piece.kind === "argument") {
        const code = codeOf(piece.formatted?.value ?? piece.span);
        put(piece.name, piece.mayBeAbsent ? `${code} ?? ""` : code);
      } else if (piece.kind === "choice") {
        put(piece.name, piece.value);
        for (const branch of piece.branches) collect(branch.pieces);
      } else if (piece.kind === "tag") {
        if (!members.has(piece.name)) {
          const isEmpty = piece.close === undefined || piece.pieces.length === 0;
          const element = isEmpty
            ? codeOf(piece.span)
            : `${codeOf(piece.open)}{children}${piece.close ? codeOf(piece.close) : ""}`;
          put(piece.name, `${isEmpty ? "()" : "(children)"} => ${element}`);
        }
        collect(piece.pieces);
      }
    }
  };
  collect(pieces);
  return [...members.values()].join(", ");
}
