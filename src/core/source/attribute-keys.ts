import { decodeHTML } from "entities";
import type { LookupKey } from "./model.js";
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

/**
 * The key in an attribute's value that a template fills in, with marks in the place of its islands: put together with them, or the
 * key before a comma and its values. Undefined where nothing is filled in.
 */
export function keyFilledIn(masked: string): (Span & { readonly key: LookupKey }) | undefined {
  if (!/[\uE000\uE001]/.test(masked)) return undefined;
  const [, fixed] = /^\s*([\w.:/-]{1,200}),\s*\uE000/.exec(masked) ?? [];
  if (fixed !== undefined) {
    const start = masked.indexOf(fixed);
    return { start, end: start + fixed.length, key: { kind: "fixed", value: fixed } };
  }
  const parts = masked
    .trim()
    .split(/([\uE000-\uE002]+)/)
    .filter((part) => part !== "")
    .map((part) => (/^[\uE000-\uE002]/.test(part) ? null : part));
  return { start: 0, end: masked.length, key: { kind: "composed", parts } };
}
