/** A test for the keys that a key put together in code may become; null stands for any part of a key. */
export function composedKeyTest(parts: readonly (string | null)[]): (key: string) => boolean {
  const pattern = parts
    .map((part) => (part === null ? ".+" : part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")))
    .join("");
  const expression = new RegExp(`^${pattern}$`, "s");
  return (key) => expression.test(key);
}
