import { islandMarks } from "../../dialects/index.js";

/** How lines of a script begin or end, and lines of a text do not. */
const codeLine =
  /[;{]$|^[})\]]|^['"]?[\w$]{1,60}['"]?\s?:\s.{0,200},$|\($|^\/\/|^'[^']{0,200}',?$|^"[^"]{0,200}",?$|^(?:var|let|const|return)\b/;

/** How lines of settings begin, and sentences do not: `app.kind: boat`, `- name: boat`. */
const dataLine = /^(?:- )?["']?[a-z][\w./-]{0,80}["']?:(?:\s|$)|^- [^\s]{0,80}$|^#/;

/** Fewer lines than these say nothing. */
const fewestLines = 4;

const marks = new RegExp(`[${Object.values(islandMarks).join("")}]+`, "g");

/**
 * Whether what stands between tags, with its islands masked, is a script whose element is opened elsewhere: a part of one that a
 * function of a server puts out; or a file of settings that a template makes.
 */
export function isProgramText(masked: string): boolean {
  if (masked.length > 200_000 || !/[;{:]\s*\n|\n[ -]{0,40}[a-z][\w./-]{0,80}: /.test(masked)) return false;
  const lines = masked
    .replace(marks, "x")
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "" && line !== "x");
  return (
    lines.length >= fewestLines &&
    [codeLine, dataLine].some(
      (kind) => lines.filter((line) => kind.test(line)).length * 10 >= lines.length * 7,
    )
  );
}
