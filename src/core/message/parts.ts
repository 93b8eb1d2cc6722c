import type { Branch, Message, MessageProblem } from "./model.js";

/** The argument that chooses among forms which are kept apart: their texts do not name it. */
const formsCount = "count";

/** A message whose forms were read one by one. */
export function pluralOf(
  source: string,
  branches: readonly Branch[],
  problems: readonly MessageProblem[],
): Message {
  const span = { start: 0, end: source.length };
  return {
    source,
    nodes: [{ kind: "plural", pluralKind: "cardinal", name: formsCount, offset: 0, branches, span }],
    problems,
    quoted: [],
  };
}

/** A message that was read from part of another, with its places in the whole, and its texts as `textOf` gives them. */
export function shiftMessage(
  message: Message,
  by: number,
  textOf: (text: string) => string = (text) => text,
): Message {
  const shift = <Spanned extends object>(node: Spanned): Spanned => {
    const moved = { ...node } as Record<string, unknown>;
    if (moved["kind"] === "text") moved["value"] = textOf(String(moved["value"]));
    for (const [key, value] of Object.entries(moved)) {
      if (/span$/i.test(key) && value !== undefined) {
        const { start, end } = value as { start: number; end: number };
        moved[key] = { start: start + by, end: end + by };
      } else if (Array.isArray(value)) moved[key] = value.map((inner: object) => shift(inner));
      else if (value !== null && typeof value === "object") moved[key] = shift(value);
    }
    return moved as Spanned;
  };
  return {
    ...message,
    nodes: message.nodes.map(shift),
    problems: message.problems.map(shift),
    quoted: message.quoted.map(({ start, end }) => ({ start: start + by, end: end + by })),
  };
}
