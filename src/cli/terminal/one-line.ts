import { onOneLine } from "../../output/safe-text.js";
import { isolated } from "./style.js";

/** A text on one line; right-to-left text keeps its own direction, so that what is around it keeps its place. */
export function isolate(text: string): string {
  const line = onOneLine(text);
  return /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/.test(line) ? isolated(line) : line;
}
