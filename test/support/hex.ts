/** A text as its code units in hexadecimal, four digits each, as the oracles take and give it. */
export function toHex(text: string): string {
  return Array.from({ length: text.length }, (_, at) =>
    text.charCodeAt(at).toString(16).padStart(4, "0"),
  ).join("");
}

/** The text that `toHex` made such digits of. */
export function fromHex(hex: string): string {
  return String.fromCharCode(...(hex.match(/.{4}/g) ?? []).map((unit) => parseInt(unit, 16)));
}
