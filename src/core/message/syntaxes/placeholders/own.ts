import type { Syntax } from "../syntax.js";
import { placeholderSyntax } from "./placeholders.js";

/** What stands for an argument in the pattern of a book's own placeholders: its name, or the number that the first one has. */
const argumentPart = /\{(?:name|([01]))\}/;

/**
 * Placeholders by a book's own pattern: `__{name}__` for `__count__`, `%{1}` for `%1`, `%2`, and `%{0}` where they start at 0. A
 * name is made of letters, digits, `_` and, inside it, periods and hyphens; one without a mark behind it, as in `${name}` for
 * `$count`, of ASCII letters, digits and `_`. A number has one or two digits.
 */
export function ownSyntax(argument: string): Syntax {
  const part = argumentPart.exec(argument);
  const before = part ? argument.slice(0, part.index) : argument;
  const after = part ? argument.slice(part.index + part[0].length) : "";
  const literally = (text: string) => text.replace(/[\\^$.*+?()[\]{}|/-]/g, "\\$&");
  return placeholderSyntax({
    name: "own",
    signs: { single: `${before.charAt(0)}<` },
    placeholders: [],
    ...(part?.[1] !== undefined && { numberedFrom: Number(part[1]) }),
    pattern: new RegExp(
      `${literally(before)}(${part?.[1] === undefined ? nameBefore(after) : "\\d{1,2}(?!\\d)"})${literally(after)}`,
      "gu",
    ),
    read: ([, found = ""]) => ({ name: found, nameAt: before.length }),
    write: (node) => before + node.name + after,
    escape: (text) => text,
  });
}

/**
 * What matches a name, which ends before what comes after it: underscores in both would run together. Where nothing does, it ends
 * at the letters of a language: `$rows개`.
 */
function nameBefore(after: string): string {
  if (after === "") return "[A-Za-z_][A-Za-z0-9_]*";
  return after.startsWith("_")
    ? "[\\p{L}\\p{N}]+(?:[_.-][\\p{L}\\p{N}]+)*"
    : "[\\p{L}\\p{N}_]+(?:[.-][\\p{L}\\p{N}_]+)*";
}
