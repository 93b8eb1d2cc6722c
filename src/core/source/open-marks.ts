import { literally } from "../text/key-pattern.js";
import type { Lookup, LookupKey } from "./model.js";

/** The characters that a key in a mark may have. */
export const keyCharacters = "\\p{L}\\p{N}_.:/-";
const letters = `[${keyCharacters}]`;

/** What opens a mark whose key the code goes on to put together: `'[[tours:' + kind`, `` `[[tours:${kind}` ``. */
export function openMarkPattern(mark: string): RegExp {
  const [before = ""] = mark.split("KEY");
  return new RegExp(`${literally(before)}(${letters}{0,200})(?:["'\`](?=\\s{0,20}\\+)|(?=\\$\\{))`, "gu");
}

/** A value between two strings, and how the second goes on. */
const joined = new RegExp(`^\\s{0,20}\\+[^'"\`\\n;]{1,160}\\+\\s{0,20}["'\`](${letters}{0,200})`, "u");
const filled = new RegExp(`^\\$\\{[^{}\\n]{1,160}\\}(${letters}{0,200})`, "u");

/** So many values are part of one key at most. */
const mostValues = 4;

/** The lookups of marks whose keys code puts together, of which parts are known. */
export function openMarksIn(text: string, patterns: readonly RegExp[]): readonly Lookup[] {
  return patterns.flatMap((pattern) =>
    [...text.matchAll(pattern)].map((match): Lookup => {
      const [whole, start = ""] = match;
      const parts: (string | null)[] = start === "" ? [] : [start];
      let at = match.index + whole.length;
      for (let count = 0; count < mostValues; count++) {
        const rest = text.slice(at, at + 420);
        const next = joined.exec(rest) ?? filled.exec(rest);
        parts.push(null);
        if (!next) break;
        if (next[1] !== undefined && next[1] !== "") parts.push(next[1]);
        at += next[0].length;
        // The string ends here, or the next value begins.
        if (/^["'`]\s{0,20}\+/.test(text.slice(at, at + 22))) at++;
        else if (!text.startsWith("${", at)) break;
      }
      const key: LookupKey = parts.some((part) => part !== null)
        ? { kind: "composed", parts }
        : { kind: "unknown" };
      const from = match.index + whole.indexOf(start === "" ? whole.slice(-1) : start);
      return {
        span: { start: match.index, end: at },
        keySpan: { start: from, end: from + start.length },
        key,
        argumentNames: undefined,
      };
    }),
  );
}
