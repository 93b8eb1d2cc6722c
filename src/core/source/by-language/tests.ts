import { isKnownLanguage } from "../../locale/mistaken-tag.js";
import type { Dialect } from "../dialects/dialect.js";
import type { Literal, SourceFile } from "../model.js";

/** A place where code compares a language. */
export interface LanguageTest {
  readonly start: number;
  readonly end: number;
  readonly locale: string;
  readonly isEqual: boolean;
}

const comparison =
  /(?:lang|Lang|locale|Locale)\w{0,20}(?:\(\)|\[[^[\]\n]{1,40}\])?["')\]]{0,2}\s{0,4}(?:(===?|!==?)\s{0,4}|\.equals\(\s{0,4}|\s(?:eq|is)\s{1,4})[:"'`]([a-z]{2,3}(?:[-_][A-Za-z]{2,4})?)(?![\w-])["'`]?/g;

/** The places of a file where a language is compared. */
export function languageTests(text: string): readonly LanguageTest[] {
  if (!/lang|locale/i.test(text)) return [];
  return [...text.matchAll(comparison)].flatMap((match): LanguageTest[] => {
    const [whole, operator = "==", locale = ""] = match;
    const end = match.index + whole.length;
    const closes = whole.includes(".equals(") && text[end] === ")" ? 1 : 0;
    return isKnownLanguage(languageOfTag(locale))
      ? [
          {
            start: startOfName(text, match.index),
            end: end + closes,
            locale,
            isEqual: !operator.startsWith("!"),
          },
        ]
      : [];
  });
}

/** Where a name starts that a place is in, with the objects before it: `request.locale`, `request()->getLocale`. */
function startOfName(text: string, at: number): number {
  let start = at;
  while (start > 0 && at - start < 60) {
    const joint = /^(?:\(\)|->|::)$/.test(text.slice(Math.max(start - 2, 0), start));
    if (!joint && !/[\w$.@]/.test(text[start - 1] ?? "")) break;
    start -= joint ? 2 : 1;
  }
  return start;
}

/** So far behind a test its branch is looked for, in code units. */
export const farthest = 400;

/** Where the branch ends that a test opens, by what stands behind the test. */
function branchEnd(text: string, end: number, dialect: Dialect | undefined): number {
  const rest = text.slice(end, end + farthest);
  const tail = dialect?.branches?.tail.exec(rest)?.[0];
  const lead = /^["'`\s)\]]{0,20}/.exec(rest)?.[0] ?? "";
  const from = end + (tail ?? lead).length;
  const after = text.slice(from, from + 20);
  const until = (pattern: RegExp) =>
    from + (pattern.exec(text.slice(from, from + farthest))?.index ?? farthest);
  if (tail !== undefined && dialect?.branches) return until(dialect.branches.next);
  if (lead.includes(")") && after.startsWith("{")) return closingAt(text, from + 1, /(?!)/);
  if (after.startsWith("?")) return closingAt(text, from + 1, /^:(?!:)/);
  if (/^(?:&&|and\b)/.test(after)) return closingAt(text, from + 2, /^(?:\|\||[,;])/);
  // An element that is shown on a condition, up to where it ends.
  if (dialect && lead.includes('"') && /^[^<>]{0,19}>/.test(after)) return until(/<\//);
  if (/^:\s*\n/.test(after) || /\n/.test(lead) || after.startsWith("then"))
    return until(/\n[ \t]{0,80}(?:else|elsif|elif|end|when)\b/);
  if (lead.includes(")") && /^[\p{L}_$<"'`@]/u.test(after)) return until(/;|\n|\belse\b/);
  return end;
}

/** Where a bracket closes that is not open, or, at the same depth, something else stands. */
function closingAt(text: string, start: number, stop: RegExp): number {
  let depth = 0;
  for (let at = start; at < Math.min(start + farthest, text.length); at++) {
    const unit = text[at] ?? "";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit)) {
      if (depth-- === 0) return at;
    } else if (depth === 0 && stop.test(text.slice(at, at + 2))) return at;
  }
  return start + farthest;
}

/** The language for which alone a literal is shown, by the test in front of it (or behind it, as Python has it). */
export function localeAt(
  { text, dialect }: Pick<SourceFile, "text" | "dialect">,
  tests: readonly LanguageTest[],
  { span }: Literal,
): string | undefined {
  for (const { start, end, locale, isEqual } of tests) {
    if (!isEqual) continue;
    if (end <= span.start && span.start - end < farthest && span.end <= branchEnd(text, end, dialect))
      return locale;
    if (
      start >= span.end &&
      start - span.end < 20 &&
      /^\s{1,4}if\s+(?:\w+\.)*$/.test(text.slice(span.end, start))
    )
      return locale;
  }
  return undefined;
}

/** The language of a tag, in lower case: `de` of `de_AT`. */
export function languageOfTag(tag: string): string {
  return (tag.split(/[-_]/, 1)[0] ?? tag).toLowerCase();
}
