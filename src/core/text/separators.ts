/** What of a book's naming says how keys are put together. */
export interface KeyNaming {
  readonly separator?: string | undefined;
  readonly namespace?: string | undefined;
}

/** The key separators of a book: between parts, and between namespace and key. */
export function separatorsOf({ naming }: { readonly naming: KeyNaming }): {
  readonly parts: string;
  readonly namespace: string;
} {
  const parts = naming.separator ?? ".";
  return { parts, namespace: naming.namespace ?? parts };
}

/** The texts that end a part of a key of a book, for key patterns. */
export function partEnds(book: { readonly naming: KeyNaming }): readonly string[] {
  const { parts, namespace } = separatorsOf(book);
  return parts === namespace ? [parts] : [parts, namespace];
}

/** A key in two: what stands before its last part, empty where that is all, and the last part. */
export function splitAtLast(key: string, ends: readonly string[]): readonly [before: string, last: string] {
  let before = 0;
  let last = 0;
  for (const end of ends) {
    const at = end === "" ? -1 : key.lastIndexOf(end);
    if (at >= 0 && at + end.length > last) [before, last] = [at, at + end.length];
  }
  return [key.slice(0, before), key.slice(last)];
}
