import { decodeHTML } from "entities";
import type { Span } from "../text/span.js";

/** A key in an attribute's value, and where it is written there. */
export interface AttributeKey extends Span {
  readonly key: string;
}

/**
 * The keys in an attribute's value as it is written, references decoded: one, or several, each for an attribute in brackets,
 * `[title]home.lead;home.title`.
 */
export function keysInAttribute(value: string): readonly AttributeKey[] {
  let at = 0;
  // A reference ends in the same sign as a key: `home &amp; away`.
  return value.split(/(?<!&#?[a-zA-Z0-9]{1,12});/).flatMap((part): AttributeKey[] => {
    const before = /^\s*(?:\[[\w-]{1,40}\])?\s*/.exec(part)?.[0].length ?? 0;
    const key = part.slice(before).trimEnd();
    const start = at + before;
    at += part.length + 1;
    return key === "" ? [] : [{ key: decodeHTML(key), start, end: start + key.length }];
  });
}
