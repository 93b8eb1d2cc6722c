import { decodeHTML } from "entities";
import { inlineElements, lineBreaks } from "../../../text/html-elements.js";
import type { Piece } from "../../model.js";
import { islandMarks } from "../../dialects/index.js";
import { blanksAhead, blanksBehind, hasLetters, trimEnds } from "../../pieces.js";
import { uniqueNames } from "../expression-names.js";
import { contentContext } from "./element-places.js";
import { writtenMessage } from "./in-mark.js";
import type { Page } from "./page.js";
import { nodePieces } from "./page-pieces.js";
import { endOf, splitText } from "./parts.js";
import type { MarkupElement, MarkupNode, MarkupText } from "./tree.js";
import { isOneElement, withoutWidgets } from "./widgets.js";

const emptyElements = new Set("br wbr img input hr svg".split(" "));

/** Neighbouring children that a user reads as one text. */
export function readSentences(page: Page, parent: MarkupElement): void {
  let run: MarkupNode[] = [];
  const finish = () => {
    addSentence(page, parent, run);
    run = [];
  };
  for (const child of parent.children) {
    if (child.kind === "element") {
      if (isInline(page, child)) run.push(child);
      else finish();
      continue;
    }
    // Code between texts parts them: what follows may not be shown with what precedes.
    for (const part of splitText(page.masked, child, islandMarks.code)) {
      if (part === "break") finish();
      else run.push(part);
    }
  }
  finish();
}

function addSentence(page: Page, parent: MarkupElement, nodes: readonly MarkupNode[]): void {
  let from = 0;
  let to = nodes.length;
  const isOutside = (node: MarkupNode | undefined) =>
    node !== undefined && (node.kind === "text" ? isBlank(page, node) : isEmpty(page, node));
  while (from < to && isOutside(nodes[from])) from++;
  while (to > from && isOutside(nodes[to - 1])) to--;
  const inside = nodes.slice(from, to);
  const [first] = inside;
  const last = inside[inside.length - 1];
  if (!first || !last || !inside.some((node) => node.kind === "text" && /\p{L}/u.test(plain(page, node))))
    return;
  // An element of a sentence is part of it, and no text once more.
  const whole = { start: first.start, end: last.kind === "text" ? last.end : endOf(last) };
  if (page.inRun.some((span) => span.start <= whole.start && whole.end <= span.end)) return;
  if (parent.name === "" && page.isInProgram(whole)) return;
  const unique = uniqueNames();
  const pieces: Piece[] = [];
  for (const node of inside) nodePieces(page, node, pieces, unique);
  const edges = withoutWidgets(pieces);
  const trimmed = trimEnds(edges.pieces);
  if (!hasLetters(trimmed) || isOneElement(trimmed)) return;
  const start =
    edges.start !== undefined
      ? pastBlanks(page, edges.start, 1)
      : first.kind === "text"
        ? first.start + blanksAhead(page.masked.slice(first.start, first.end))
        : first.start;
  const end =
    edges.end !== undefined
      ? pastBlanks(page, edges.end, -1)
      : last.kind === "text"
        ? last.end - blanksBehind(page.masked.slice(last.start, last.end))
        : endOf(last);
  const form = inside.length === 1 && trimmed.length === 1 ? "content" : "phrase";
  page.inRun.push({ start, end });
  const marking = page.marking(parent);
  // A text that is its own key asks for that, with one blank for several.
  if (marking.isBesideKey) page.mentions.add(decodeHTML(page.text.slice(start, end)).replace(/\s+/g, " "));
  const written = writtenMessage(trimmed);
  page.add({
    form,
    span: { start, end },
    pieces: trimmed,
    context: contentContext(parent),
    ...marking,
    ...(written !== undefined && { written }),
  });
}

/** The nearest place, forward or backward, that is no blank. */
function pastBlanks(page: Page, from: number, step: 1 | -1): number {
  let at = from;
  while (/[\s\uE002]/.test(page.masked[step === 1 ? at : at - 1] ?? "x")) at += step;
  return at;
}

function isInline(page: Page, element: MarkupElement): boolean {
  const known = page.inline.get(element);
  if (known !== undefined) return known;
  const found = isInlineNow(page, element);
  page.inline.set(element, found);
  return found;
}

/** Elements of tag libraries that put a value out: `<c:out value="${count}"/>`. */
const putsOut =
  /^[a-z]\w{0,40}:(?:out\w{0,20}|write|print|property|get\w{1,30}|format\w{1,30}|text|value\w{0,20})$/i;

function isInlineNow(page: Page, element: MarkupElement): boolean {
  if (page.isLookupElement(element)) return false;
  const name = element.name.toLowerCase();
  const isCustom =
    /[A-Z]/.test(element.name) ||
    element.name.includes("-") ||
    (element.children.length === 0 && putsOut.test(name));
  if (emptyElements.has(name)) return true;
  if (!isCustom && !inlineElements.has(name) && !lineBreaks.has(name)) return false;
  if (isCustom && element.children.length === 0) return true;
  return element.children.every((child) =>
    child.kind === "text"
      ? !page.masked.slice(child.start, child.end).includes(islandMarks.code)
      : isInline(page, child),
  );
}

function isEmpty(page: Page, element: MarkupElement): boolean {
  const known = page.empty.get(element);
  if (known !== undefined) return known;
  const found = element.children.every((child) =>
    child.kind === "text" ? isBlank(page, child) : isEmpty(page, child),
  );
  page.empty.set(element, found);
  return found;
}

function isBlank(page: Page, node: MarkupText): boolean {
  const text = page.masked.slice(node.start, node.end);
  return blanksAhead(text) === text.length;
}

/** The text of a node without islands, decoded. */
function plain(page: Page, node: MarkupText): string {
  return decodeHTML(page.masked.slice(node.start, node.end).replace(/[\uE000-\uE002]/g, ""));
}
