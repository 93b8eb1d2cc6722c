/**
 * A test for keys by pattern: `*` stands for one part of a key (or of a part), `**` for any number of them. `separators`
 * are what stands between parts; matching takes time in proportion to the key's length.
 */
export function keyTest(pattern: string, separators: readonly string[] = ["."]): (key: string) => boolean {
  const pieces = pattern.split(/(\*\*|\*)/).filter((piece) => piece !== "");
  if (pieces.every((piece) => piece !== "*" && piece !== "**")) return (key) => key === pattern;
  const first = pieces[0] ?? "";
  return (key) => (first.startsWith("*") || key.startsWith(first)) && matches(pieces, key, separators);
}

/** A test for the keys that a key put together in code may become; null stands for any part of a key. */
export function composedKeyTest(parts: readonly (string | null)[]): (key: string) => boolean {
  const pieces = parts.map((part) => part ?? "**").filter((piece) => piece !== "");
  const wild = new Set(parts.flatMap((part, index) => (part === null ? [index] : [])));
  const isWild = parts
    .map((part, index) => ({ part, index }))
    .filter(({ part }) => part !== "")
    .map(({ index }) => wild.has(index));
  return (key) => matches(pieces, key, [], isWild);
}

/**
 * Whether a key is made of pieces. All places where a piece may end are followed at once: a pattern with many stars would
 * make a regular expression try each way to share the key among them.
 */
function matches(
  pieces: readonly string[],
  key: string,
  separators: readonly string[],
  isWild: readonly boolean[] = pieces.map((piece) => piece === "*" || piece === "**"),
): boolean {
  let ends = new Set([0]);
  for (const [index, piece] of pieces.entries()) {
    const next = new Set<number>();
    if (!isWild[index]) {
      for (const at of ends) if (key.startsWith(piece, at)) next.add(at + piece.length);
    } else if (piece === "**") {
      let first = key.length;
      for (const at of ends) first = Math.min(first, at);
      for (let at = first + 1; at <= key.length; at++) next.add(at);
    } else {
      let open = -1;
      for (let at = 0; at < key.length; at++) {
        if (separators.some((separator) => key.startsWith(separator, at))) open = -1;
        else {
          if (open < 0 && ends.has(at)) open = at;
          if (open >= 0) next.add(at + 1);
        }
      }
    }
    if (next.size === 0) return false;
    ends = next;
  }
  return ends.has(key.length);
}

/** A text as a regular expression that matches it alone. */
export function literally(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}
