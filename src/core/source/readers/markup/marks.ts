import { decodeHTML } from "entities";
import type { ClassMark, Literal, LookupShapes } from "../../model.js";
import { heldInMark } from "./in-mark.js";
import type { MarkupElement } from "./tree.js";

/** What marks say of a text: meaning and note for translators, and its key. */
export type Marking = Pick<Literal, "note" | "key" | "isMarked" | "isBesideKey">;

/** Whether an attribute marks text or says more of it, and so is none itself. */
export function isMark({ marked }: LookupShapes, name: string): boolean {
  for (const [mark, { meaning, note, key }] of marked)
    if (name === mark || name === meaning || name === note || name === key) return true;
  return false;
}

/** Whether an attribute marks another one of its element: `say-title` beside `title`. */
export function isMarkOf({ marked }: LookupShapes, element: MarkupElement, name: string): boolean {
  return [...marked.keys()].some(
    (mark) =>
      name.startsWith(`${mark}-`) &&
      element.attributes.some((other) => other.name === name.slice(mark.length + 1)),
  );
}

/** What the marks of an element say of its content, or of the attribute `of`. */
export function markingOf(shapes: LookupShapes, element: MarkupElement, of?: string): Marking {
  const valueOf = (wanted: string | undefined) => {
    const found = element.attributes.find(({ name }) => name === wanted)?.raw?.trim();
    return wanted !== undefined && found ? decodeHTML(found) : undefined;
  };
  for (const [name, { pattern, ...beside }] of shapes.marked) {
    const mark = of === undefined ? name : `${name}-${of}`;
    const companions = of === undefined ? beside : {};
    if (!element.attributes.some((one) => one.name === mark)) continue;
    const value = valueOf(mark);
    const held = pattern === undefined || value === undefined ? { note: value } : heldInMark(value, pattern);
    const notes = [valueOf(companions.meaning) ?? held.meaning, valueOf(companions.note) ?? held.note];
    const note = notes.filter((one) => one !== undefined).join(": ");
    const key = valueOf(companions.key) ?? held.key;
    return {
      isMarked: true,
      ...(note !== "" && { note }),
      ...(key !== undefined && { key }),
      ...(beside.isOwnKey && key === undefined && { isBesideKey: true }),
    };
  }
  const byClass = classMarksOf(shapes, element).find(({ attributes }) =>
    of === undefined ? attributes === undefined : attributes?.includes(of),
  );
  return byClass ? { isMarked: true, ...(byClass.isOwnKey && { isBesideKey: true }) } : {};
}

/** What the classes of an element mark. */
export function classMarksOf({ classMarks }: LookupShapes, element: MarkupElement): readonly ClassMark[] {
  if (classMarks.size === 0) return [];
  const classes = element.attributes.find(({ name }) => name === "class")?.raw?.split(/\s+/) ?? [];
  return classes.flatMap((name) => classMarks.get(name) ?? []);
}
