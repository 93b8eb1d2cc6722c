import type { BoundKey } from "./bound-key.js";

/** The keys in an attribute's value: one, or several, each for an attribute in brackets, `[title]home.lead;home.title`. */
export function keysInAttribute(value: string): readonly BoundKey[] {
  let at = 0;
  return value.split(";").flatMap((part): BoundKey[] => {
    const before = /^\s*(?:\[[\w-]{1,40}\])?\s*/.exec(part)?.[0].length ?? 0;
    const key = part.slice(before).trimEnd();
    const start = at + before;
    at += part.length + 1;
    return key === "" ? [] : [{ key, start }];
  });
}
