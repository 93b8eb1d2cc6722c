import { fixedText, type SourceFile } from "../../source/model.js";
import type { KeyIndex } from "./key-index.js";

/** How often the annotations of code name a key of a book in braces: `message = "{order.customer}"`. */
export function countAnnotationKeys(code: readonly SourceFile[], keys: KeyIndex): number {
  let count = 0;
  for (const { literals } of code)
    for (const { context, pieces } of literals) {
      if (!context.isAnnotation || pieces.length !== 1) continue;
      const key = /^\{([\w.-]{1,200})\}$/.exec(fixedText(pieces))?.[1];
      if (key !== undefined && keys.match(key)) count++;
    }
  return count;
}
