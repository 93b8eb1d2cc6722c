import type { Syntax } from "../syntax.js";
import { placeholderSyntax } from "./placeholders.js";

/** What stands for an argument's name in the pattern of a book's own placeholders. */
export const namePart = "{name}";

/**
 * Placeholders by a book's own pattern: `__{name}__` for `__count__`. A name is made of letters, digits, `_` and, inside it,
 * periods and hyphens.
 */
export function ownSyntax(argument: string): Syntax {
  const at = argument.indexOf(namePart);
  const before = at < 0 ? argument : argument.slice(0, at);
  const after = at < 0 ? "" : argument.slice(at + namePart.length);
  const literally = (text: string) => text.replace(/[\\^$.*+?()[\]{}|/-]/g, "\\$&");
  // A name ends before what comes after it: underscores in both would run together.
  const name = after.startsWith("_")
    ? "[\\p{L}\\p{N}]+(?:[_.-][\\p{L}\\p{N}]+)*"
    : "[\\p{L}\\p{N}_]+(?:[.-][\\p{L}\\p{N}_]+)*";
  return placeholderSyntax({
    name: "own",
    signs: { single: `${before.charAt(0)}<` },
    placeholders: [],
    pattern: new RegExp(`${literally(before)}(${name})${literally(after)}`, "gu"),
    read: ([, found = ""]) => ({ name: found, nameAt: before.length }),
    write: (node) => before + node.name + after,
    escape: (text) => text,
  });
}
