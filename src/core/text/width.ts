import type stringWidth from "string-width";

let measure: typeof stringWidth | undefined;

/** Loads what tells the widths of all texts; before the first call of `displayWidth`. */
export async function prepareWidths(): Promise<void> {
  measure ??= (await import("string-width")).default;
}

/** Thrown where a text's width is asked for before what tells it is loaded. */
class WidthsNotLoaded extends Error {
  constructor() {
    super("what tells widths is not loaded");
  }
}

/** What `make` makes, which may ask for widths: what tells those of all texts is loaded only if some text needs it. */
export async function withWidths<Made>(make: () => Made): Promise<Made> {
  try {
    return make();
  } catch (error) {
    if (!(error instanceof WidthsNotLoaded)) throw error;
    await prepareWidths();
    return make();
  }
}

/** Letters and signs that all take one column: Latin, Greek and Cyrillic ones, and the usual punctuation. */
const narrow = /^[ -~¡-¨ª-¬¯-˿Ͱ-ҁҊ-ԯ–-‧]*$/;

/** How many columns of a terminal a text takes: two for each wide letter, none for a mark on another. */
export function displayWidth(text: string): number {
  if (narrow.test(text)) return text.length;
  if (!measure) throw new WidthsNotLoaded();
  let width = 0;
  for (let start = 0; start < text.length;) {
    const end = portionEnd(text, start);
    width += measure(text.slice(start, end));
    start = end;
  }
  return width;
}

/** So many code units are measured at once: to part a text into characters takes the engine longer than linear time. */
const portion = 256;
/** A character that begins a new one on the screen, whatever stands before it. */
const startsCharacter = /[ -~\n\u3041-\u9fff]/;

/** Where to stop measuring, so that no character on the screen is cut in two. */
function portionEnd(text: string, start: number): number {
  const least = start + portion;
  for (let end = least; end < least + portion && end < text.length; end++)
    if (startsCharacter.test(text[end] ?? "")) return end;
  const end = Math.min(least + portion, text.length);
  return /[\ud800-\udbff]/.test(text[end - 1] ?? "") ? end + 1 : end;
}
