import { parseIcu } from "../../../message/syntaxes/icu/icu.js";
import { insideOf } from "../../model.js";
import type { Piece } from "../../model.js";

/** Text that is a message in ICU's syntax already, as templates hold plurals and selects; undefined for plain text. */
export function writtenMessage(pieces: readonly Piece[]): string | undefined {
  const write = (all: readonly Piece[]): string =>
    all
      .map((piece) =>
        piece.kind === "text"
          ? piece.value
          : piece.kind === "argument"
            ? `{${piece.name}}`
            : `<${piece.name}>${write(insideOf(piece))}</${piece.name}>`,
      )
      .join("");
  const written = write(pieces);
  if (!/\{\s*[\w$.]+\s*,\s*(?:plural|select|selectordinal)\s*,/.test(written)) return undefined;
  return parseIcu(written).problems.length === 0 ? written : undefined;
}

/** What the value of a mark holds, by a pattern such as `{meaning}|{note}@{key}`: whatever is left over is the note. */
export function heldInMark(
  value: string,
  pattern: string,
): {
  readonly meaning?: string | undefined;
  readonly note?: string | undefined;
  readonly key?: string | undefined;
} {
  let rest = value;
  const take = (name: string): string | undefined => {
    const at = pattern.indexOf(`{${name}}`);
    if (at < 0) return undefined;
    const before = pattern.slice(pattern.lastIndexOf("}", at - 1) + 1, at);
    const after = /^[^{]*/.exec(pattern.slice(at + name.length + 2))?.[0] ?? "";
    // The separator that stands before it, or for the first part the one behind it.
    const found = before === "" ? rest.indexOf(after) : rest.lastIndexOf(before);
    if (before === "" && after === "") {
      const whole = rest.trim();
      rest = "";
      return whole === "" ? undefined : whole;
    }
    if (found < 0) return undefined;
    const taken = before === "" ? rest.slice(0, found) : rest.slice(found + before.length);
    rest = before === "" ? rest.slice(found + after.length) : rest.slice(0, found);
    return taken.trim() === "" ? undefined : taken.trim();
  };
  const key = take("key");
  const meaning = take("meaning");
  const note = rest.trim();
  return { meaning, ...(note !== "" && { note }), key };
}
