import type { Fills } from "../../dialects/dialect.js";
import { literally } from "../../../text/key-pattern.js";
import type { Span } from "../../../text/span.js";
import { keyFilledIn, keysInAttribute } from "../../attribute-keys.js";
import { boundKeyIn } from "../../bound-key.js";
import type { Lookup, LookupKey, LookupShapes } from "../../model.js";
import type { MarkupAttribute, MarkupElement } from "./tree.js";

/** The attributes whose texts a lookup beside them gives: `data-text="home.lead.title"`, `data-text="[title]home.lead"`. */
export function attributesFilled(
  shapes: LookupShapes,
  { attributes }: MarkupElement,
  fills: Fills | undefined,
): ReadonlySet<string> {
  const filled = new Set<string>();
  for (const { name, raw = "" } of attributes) {
    const own = fills?.filledBy(name, raw);
    if (own !== undefined && own !== "content") for (const one of own) filled.add(one);
    if (!shapes.attributes.has(name)) continue;
    for (const [, written] of raw.matchAll(/\[([\w-]{1,40})\]/g)) filled.add(written ?? "");
    const last = raw.split(/[.:;]/).at(-1) ?? "";
    if (/^(?:title|value|placeholder|alt|label|aria-[\w-]{1,40})$/.test(last)) filled.add(last);
  }
  return filled;
}

/** The tags of lookups in an attribute's value, `value="<q:text key='title'/>"`, and whether it holds nothing else. */
export function tagLookups(
  { components }: LookupShapes,
  text: string,
  { valueStart, valueEnd }: MarkupAttribute,
): { readonly lookups: readonly Lookup[]; readonly isAll: boolean } {
  // Tags of the server are islands here.
  const raw = components.size === 0 ? "" : text.slice(valueStart, valueEnd);
  const lookups: Lookup[] = [];
  let rest = raw;
  for (const [name, shape] of components) {
    if (!raw.includes(`<${name}`)) continue;
    for (const match of raw.matchAll(/<([\w:.-]{1,80})\s[^<>]{0,500}>/g)) {
      const [whole, tag] = match;
      const [, before = "", , key] =
        tag === name
          ? (new RegExp(`^([^]*?\\s${literally(shape.key)}\\s*=\\s*(["']))([^"'<>]+)\\2`).exec(whole) ?? [])
          : [];
      if (key === undefined) continue;
      const start = valueStart + match.index;
      const keyStart = start + before.length;
      lookups.push({
        span: { start, end: start + whole.length },
        keySpan: { start: keyStart, end: keyStart + key.length },
        key: { kind: "fixed", value: key },
        argumentNames: undefined,
      });
      rest = rest.replace(whole, "");
    }
  }
  return { lookups, isAll: rest !== raw && rest.trim() === "" };
}

/** The lookups that an attribute is, by its name or by what is bound in it; undefined for one that is none. */
export function attributeLookups(
  shapes: LookupShapes,
  masked: string,
  element: MarkupElement,
  { name, raw = "", valueStart, valueEnd }: MarkupAttribute,
  component: { readonly key: string } | undefined,
): readonly Lookup[] | undefined {
  const lookup = (key: string | LookupKey, { start, end }: Span): Lookup => ({
    span: { start: element.start, end: element.openEnd },
    keySpan: { start: valueStart + start, end: valueStart + end },
    key: typeof key === "string" ? { kind: "fixed", value: key } : key,
    argumentNames: undefined,
  });
  const value = masked.slice(valueStart, valueEnd);
  if (/^[\uE000-\uE002]+$/.test(value)) return undefined;
  if (shapes.attributes.has(name) || component?.key === name) {
    const filled = keyFilledIn(value);
    return filled ? [lookup(filled.key, filled)] : keysInAttribute(raw).map((one) => lookup(one.key, one));
  }
  const bound = boundKeyIn(raw, shapes.bindings);
  return bound && [lookup(bound.key, { start: bound.start, end: bound.start + bound.key.length })];
}
