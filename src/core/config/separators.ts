import type { BookConfig } from "./schema.js";

/** The key separators of a book: between parts, and between namespace and key. */
export function separatorsOf({ naming }: Pick<BookConfig, "naming">): {
  readonly parts: string;
  readonly namespace: string;
} {
  const parts = naming.separator ?? ".";
  return { parts, namespace: naming.namespace ?? parts };
}

/** The texts that end a part of a key of a book, for key patterns. */
export function partEnds(book: Pick<BookConfig, "naming">): readonly string[] {
  const { parts, namespace } = separatorsOf(book);
  return parts === namespace ? [parts] : [parts, namespace];
}
