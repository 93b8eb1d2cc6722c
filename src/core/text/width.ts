import type stringWidth from "string-width";

let measure: typeof stringWidth | undefined;

/** Loads what tells the widths of all texts; before the first call of `displayWidth`. */
export async function prepareWidths(): Promise<void> {
  measure ??= (await import("string-width")).default;
}

/** Letters and signs that all take one column: Latin, Greek and Cyrillic ones, and the usual punctuation. */
const narrow = /^[ -~¡-¨ª-¬¯-˿Ͱ-ҁҊ-ԯ–-‧]*$/;

/** How many columns of a terminal a text takes: two for each wide letter, none for a mark on another. */
export function displayWidth(text: string): number {
  if (narrow.test(text)) return text.length;
  if (!measure) throw new Error("what tells widths is not loaded");
  return measure(text);
}
