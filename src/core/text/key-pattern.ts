/** A test for keys by pattern: `*` stands for one part of a key (or of a part), `**` for any number of them. */
export function keyTest(pattern: string, separator = "."): (key: string) => boolean {
  const part = `[^${separator.replace(/[\\\]^-]/g, "\\$&")}]+`;
  const pieces = pattern
    .split(/(\*\*|\*)/)
    .map((piece) => (piece === "**" ? ".+" : piece === "*" ? part : literally(piece)));
  const expression = new RegExp(`^${pieces.join("")}$`, "s");
  return (key) => expression.test(key);
}

/** A test for the keys that a key put together in code may become; null stands for any part of a key. */
export function composedKeyTest(parts: readonly (string | null)[]): (key: string) => boolean {
  const expression = new RegExp(
    `^${parts.map((part) => (part === null ? ".+" : literally(part))).join("")}$`,
    "s",
  );
  return (key) => expression.test(key);
}

/** A text as a regular expression that matches it alone. */
export function literally(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
}
