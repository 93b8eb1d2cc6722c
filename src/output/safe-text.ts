/** Control characters (C0, DEL, C1) but for the line feed and the tab. */
const controls = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/g;
/** Line and paragraph separators, and what has the property Bidi_Control (UAX #9): they reorder what stands around them. */
const reorders = /[\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069]/g;

/**
 * Text that cannot act on what shows it: control characters and bidirectional controls become visible stand-ins (`␛`,
 * `<U+202E>`). Line feeds and tabs stay; a carriage return before a line feed is dropped.
 */
export function safeText(text: string): string {
  return text.replace(/\r\n/g, "\n").replace(controls, standIn).replace(reorders, standIn);
}

/** Text on one line: each line break becomes `⏎`. */
export function onOneLine(text: string): string {
  return text.replace(/\r\n|[\n\r\u0085\u2028\u2029]/g, "⏎");
}

/** JSON text (RFC 8259) in which everything that could act on a terminal is written as an escape; its value is the same. */
export function safeJson(json: string): string {
  const escape = (character: string) =>
    character === "\r" ? character : `\\u${character.charCodeAt(0).toString(16).padStart(4, "0")}`;
  return json.replace(controls, escape).replace(reorders, escape);
}

function standIn(character: string): string {
  const code = character.charCodeAt(0);
  // Unicode has pictures of the C0 controls and DEL (U+2400 to U+2421) alone.
  if (code < 0x20) return String.fromCharCode(0x2400 + code);
  if (code === 0x7f) return "␡";
  return `<U+${code.toString(16).toUpperCase().padStart(4, "0")}>`;
}
