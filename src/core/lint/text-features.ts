import { features } from "./features.js";

/** What of literal text may be another syntax's sign, or part of an address that runs code. */
export function literalFeatures(text: string): number {
  return (text.includes("{") ? features.braces : 0) | (/[<=]|script\s*:/i.test(text) ? features.markup : 0);
}

/** Whether a tag's name is one to which HTML gives code or another document. */
export function runsCode(name: string): boolean {
  return name.length > 4 && /^(?:script|iframe|object|embed)\b/i.test(name);
}

/** Whether a letter, or a mark on one, stands before a place in a text. */
export function endsInLetter(text: string, end: number): boolean {
  const code = text.charCodeAt(end - 1);
  if (code < 0x80) return (code | 0x20) >= 0x61 && (code | 0x20) <= 0x7a;
  return /[\p{L}\p{M}]$/u.test(text.slice(Math.max(0, end - 2), end));
}
