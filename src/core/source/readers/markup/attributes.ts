import type { Piece } from "../../model.js";
import { holdsMarkup, lookupElement } from "../../../text/html-elements.js";
import { notices } from "../../../message/notices.js";
import { hasLetters } from "../../pieces.js";
import { uniqueNames } from "../expression-names.js";
import { readScript } from "../script/script.js";
import { attributeLookups, attributesFilled, tagLookups } from "./element-lookups.js";
import { attributeContext, contentContext } from "./element-places.js";
import { readScriptExpression } from "./expressions.js";
import { writtenMessage } from "./in-mark.js";
import { classMarksOf, isMark, isMarkOf } from "./marks.js";
import type { Page } from "./page.js";
import { textPieces } from "./page-pieces.js";
import { boundName } from "./parts.js";
import type { MarkupAttribute, MarkupElement } from "./tree.js";

const say = notices("extract", {
  "in-filling": {
    message: "it is a string of an expression that fills in a page",
    remedy: "write a message with its values, and look that up in the expression by hand",
  },
  "attribute-markup": {
    message: "it is markup in an attribute's value",
    remedy: "move the markup out of it, or the text by hand",
  },
});

/** Reads what the attributes of an element hold: texts, lookups, code. */
export function readAttributes(page: Page, element: MarkupElement): void {
  const component = page.shapes.components.get(element.name);
  const marks = new Set<string>();
  for (const { name } of element.attributes) {
    for (const mark of page.shapes.marked.keys())
      if (name.startsWith(`${mark}-`)) marks.add(name.slice(mark.length + 1));
  }
  for (const { attributes = [] } of classMarksOf(page.shapes, element))
    for (const name of attributes) marks.add(name);
  const filled = attributesFilled(page.shapes, element, page.dialect.fills);
  for (const attribute of element.attributes) {
    const { raw, name } = attribute;
    if (filled.has(name)) continue;
    if (page.dialect.fills?.isOwn(name)) {
      readFilling(page, element, attribute);
      continue;
    }
    if (raw === undefined || raw === "" || isMark(page.shapes, name)) continue;
    if (isMarkOf(page.shapes, element, name)) {
      page.mentions.add(raw);
      continue;
    }
    const asked = attributeLookups(page.shapes, page.masked, element, attribute, component);
    if (asked) page.lookups.push(...asked);
    if (asked) continue;
    const tags = tagLookups(page.shapes, page.text, attribute);
    page.lookups.push(...tags.lookups);
    if (tags.isAll) continue;
    const isGiven = page.dialect.givesByAt && name.startsWith("@");
    const bound = page.dialect.bindsAttributes && !isGiven ? boundName(name) : undefined;
    if (bound !== undefined) {
      const isEvent = bound.kind === "event";
      const context = attributeContext(page.dialect, element, bound.name);
      if (page.dialect.language === "php" && /^:[\w-]+$/.test(name)) {
        const { valueStart: start, valueEnd: end } = attribute;
        if (!/[\uE000-\uE002]/.test(page.masked.slice(start, end)))
          page.boundCode.push({ start, end, place: context });
        continue;
      }
      const inner = page.dialect.bindsInBraces
        ? undefined
        : readScriptExpression(
            page.text,
            attribute.valueStart,
            attribute.valueEnd,
            page.shapes,
            isEvent ? undefined : bound.kind === "content" ? contentContext(element) : context,
          );
      if (inner) page.take(inner);
      continue;
    }
    if (
      /^on[a-z]+$/i.test(name) &&
      /["'`]/.test(raw) &&
      !raw.includes("&") &&
      !/[\uE000-\uE002]/.test(page.masked.slice(attribute.valueStart, attribute.valueEnd))
    ) {
      page.take(
        page.shifted(
          readScript("handler.js", `(()=>{${raw}\n})`, false, page.shapes),
          attribute.valueStart - "(()=>{".length,
        ),
      );
      continue;
    }
    page.mentions.add(raw);
    addAttribute(page, element, attribute, marks.has(name));
  }
}

/** The strings of an expression that fills something in: texts, but for names and classes that programs go by. */
const filling = /'((?:[^'\\\n]|\\.){1,300})'|\|([^|'"\n]{1,300})\|/g;

/** Reads the strings of an attribute that fills in its element or another attribute; their places take no lookup by themselves. */
function readFilling(page: Page, element: MarkupElement, attribute: MarkupAttribute): void {
  const { name, raw = "", valueStart } = attribute;
  page.mentions.add(raw);
  const fills = page.dialect.fills?.filledBy(name, raw);
  if (fills === undefined || raw.includes("&")) return;
  const context =
    fills === "content" ? contentContext(element) : attributeContext(page.dialect, element, fills[0] ?? name);
  for (const { 0: whole, 1: single, 2: bars = "", index } of raw.matchAll(filling)) {
    const value = single ?? bars.replace(/[$*#@~]\{[^{}]{0,200}\}/g, "");
    if (!/\p{L}{2}/u.test(value)) continue;
    const start = valueStart + index;
    const span = { start, end: start + whole.length };
    page.add({
      form: "string",
      span,
      pieces: [{ kind: "text", value: single ?? bars, span: { start: start + 1, end: span.end - 1 } }],
      context,
      obstacle: say("in-filling", {}),
    });
  }
}

/** An attribute's value with what is filled in, as a literal. */
function addAttribute(
  page: Page,
  element: MarkupElement,
  attribute: MarkupAttribute,
  isMarked: boolean,
): void {
  const { valueStart, valueEnd, start, end, quoted, name } = attribute;
  // Of a value that a block looks up as a whole nothing is left: `title="{% trans %}Boats{% endtrans %}"`.
  const value = page.masked.slice(valueStart, valueEnd);
  if (/^[\s\uE001\uE002]*$/.test(value)) return;
  // Nor is what stands in such a block beside other values.
  const holdsBlock = page.ownBlocks.some(({ start, end }) => start < valueEnd && valueStart < end);
  if (holdsBlock && !/\p{L}/u.test(value.replace(/[\uE000-\uE002]/g, ""))) return;
  const around = /^\s{0,40}<([a-z]\w{0,20})>[^<>]{0,1000}<\/([a-z]\w{0,20})>\s{0,40}$/i.exec(value);
  if (around !== null && around[1] === around[2] && lookupElement.test(around[1] ?? "")) return;
  const unique = uniqueNames();
  const pieces: Piece[] = [];
  textPieces(page, valueStart, valueEnd, pieces, unique, false);
  if (!hasLetters(pieces)) return;
  const base = attributeContext(page.dialect, element, name);
  const written = writtenMessage(pieces);
  const hasMarkup = pieces.some((piece) => piece.kind === "text" && holdsMarkup(piece.value));
  page.add({
    form: "attribute",
    span: quoted ? { start: valueStart - 1, end: valueEnd + 1 } : { start: Math.max(valueStart, start), end },
    pieces,
    context: isMarked ? { ...base, name: "title" } : base,
    ...((hasMarkup || holdsBlock) && { obstacle: say("attribute-markup", {}) }),
    ...(isMarked && page.marking(element, name)),
    ...(written !== undefined && { written }),
  });
}
