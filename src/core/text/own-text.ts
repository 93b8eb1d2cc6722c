/** A browser has no such buffers, and few keys. */
const scratch = typeof Buffer === "undefined" ? undefined : Buffer.alloc(1 << 12);

/**
 * A long text as one of its own, not as a part of a larger one: only such are compared quickly, and only such do not hold the
 * larger one in memory.
 */
export function ownText(text: string): string {
  const { length } = text;
  if (!scratch || length < 13) return text;
  if (length <= scratch.length) {
    scratch.write(text, 0, "latin1");
    const copy = scratch.toString("latin1", 0, length);
    if (copy === text) return copy;
  }
  return Buffer.from(text, "utf16le").toString("utf16le");
}
