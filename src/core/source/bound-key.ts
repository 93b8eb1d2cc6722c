/** The key in a value that a pattern for bindings fits, and where in the value it starts. */
export interface BoundKey {
  readonly key: string;
  readonly start: number;
}

/** What the first of some patterns for bindings that fits finds in a value, as the code has it; `isWhole` for a value that is nothing else. */
export function boundKeyIn(
  value: string,
  bindings: readonly RegExp[],
  isWhole = false,
): BoundKey | undefined {
  for (const pattern of bindings) {
    const match = pattern.exec(value);
    const key = match?.[1];
    if (match && key !== undefined && (!isWhole || match[0] === value))
      return { key, start: match.index + match[0].indexOf(key) };
  }
  return undefined;
}

/** What the property of an object that asks for a key is called, as the source of a pattern: `id`, `messageId`, `titleKey`. */
export const keyName = "(?:id|key|[a-z]\\w{0,40}(?:Id|Key))";
