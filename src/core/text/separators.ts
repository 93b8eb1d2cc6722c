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
