import { displayWidth } from "../../core/text/width.js";
import { onOneLine } from "../../output/safe-text.js";

/** What quotes a whole page is cut after so many code units. */
const longestWords = 1_000;

/** Words on as many lines as the width needs, the later ones indented. */
export function wrapped(text: string, width: number, indent: number): string {
  const room = Math.max(width - indent, 30);
  const lines: string[] = [];
  const shown = text.length > longestWords ? `${text.slice(0, longestWords)}…` : text;
  for (const word of onOneLine(shown).split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && displayWidth(`${last} ${word}`) <= room)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.join(`\n${" ".repeat(indent)}`);
}
