import type { Piece } from "../../model.js";
import { hasLetters } from "../../pieces.js";

/** Code whose value is an element of the page, such as a field or an icon, and no word of a sentence. */
const widget =
  /^(?:\w+\.)?(?:\w+_)?(?:field|select|check_?box|radio(?:_button)?|text_?area|submit|button|icon|image|img|avatar|input|render|partial|include|yield|csrf\w*|widget|link_to|button_to|mail_to|hidden|tag|errors|collection_select|options|pagination|paginate|svg|spinner|badge)(?:_tag|_field|_html|_markup|_icon|_options)?(?![\w.])/i;

/** Pieces without the elements that code puts at either end, and where the rest starts and ends if some were left out. */
export function withoutWidgets(pieces: readonly Piece[]): {
  readonly pieces: readonly Piece[];
  readonly start?: number;
  readonly end?: number;
} {
  const isBlank = (piece: Piece | undefined) => piece?.kind === "text" && piece.value.trim() === "";
  const isWidget = (piece: Piece | undefined) => piece?.kind === "argument" && widget.test(piece.code);
  /** How many pieces go, of those in a row. */
  const counted = (row: readonly Piece[]) => {
    let count = 0;
    for (let at = 0; isBlank(row[at]) || isWidget(row[at]); at++) if (isWidget(row[at])) count = at + 1;
    return count;
  };
  const from = counted(pieces);
  const to = pieces.length - counted([...pieces].reverse());
  const kept = pieces.slice(from, Math.max(to, from));
  return {
    pieces: kept,
    ...(from > 0 && { start: kept[0]?.span.start ?? 0 }),
    ...(to < pieces.length && { end: kept.at(-1)?.span.end ?? 0 }),
  };
}

/** Whether all words stand in one element, as a label before its value does: its text is one by itself. */
export function isOneElement(pieces: readonly Piece[]): boolean {
  const withWords = pieces.filter((piece) => hasLetters([piece]));
  return withWords.length === 1 && withWords[0]?.kind === "tag";
}
