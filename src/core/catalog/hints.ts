import { lineStart as lineStartOf } from "../text/line-start.js";
import { commentsAbove } from "./comments.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import type { TextEncoding } from "../files/files.js";
import type { CatalogFormat, Entry } from "./model.js";
import type { CommentLine } from "./comments.js";

/** What translators find above an entry as long as there is something to do: the source text, and what its catalog says of it. */
export function hintLines(
  sourceText: string | undefined,
  description: string | undefined,
): readonly string[] {
  const said = (description?.split("\n") ?? []).filter(
    (line) => line.trim() !== "" && !/^\s*fond:/.test(line),
  );
  return [
    ...(sourceText === undefined ? [] : [`fond: source ${oneLine(sourceText)}`]),
    ...said.map((line) => `fond: note ${line.trim()}`),
  ];
}

function oneLine(text: string): string {
  return text.replaceAll("\\", "\\\\").replaceAll("\r", "\\r").replaceAll("\n", "\\n");
}

/** The comments that a project itself keeps above entries; see the setting `hints`. */
export interface OwnHints {
  /** Above every entry. */
  readonly source?: string | undefined;
  /** Above an entry that is not translated, or stale. */
  readonly open?: string | undefined;
}

/** What an own hint is filled with. */
export interface HintedEntry {
  readonly key: string;
  readonly text: string;
  /** The entry as the source catalog writes it. */
  readonly entry: string;
}

/** A project's own comments for an entry. */
export function ownHintLines(own: OwnHints, source: HintedEntry, isOpen: boolean): readonly string[] {
  const patterns = [own.source, isOpen ? own.open : undefined];
  return patterns.flatMap((pattern) => (pattern === undefined ? [] : [filledHint(pattern, source)]));
}

/** One comment, filled: line ends are written as escapes. */
export function filledHint(pattern: string, { key, text, entry }: HintedEntry): string {
  const values: Readonly<Record<string, string>> = {
    key,
    text: oneLine(text),
    entry: entry
      .split("\n")
      .map((line) => line.trim())
      .join(" "),
  };
  return pattern.replace(/\{(text|key|entry)\}/g, (_, name: string) => values[name] ?? "").trim();
}

/** Whether a comment's text is such a hint, whatever it is filled with. */
export function hintTest(pattern: string | undefined): (said: string) => boolean {
  if (pattern === undefined) return () => false;
  const parts = pattern.trim().split(/\{(?:text|key|entry)\}/);
  const [first = "", ...rest] = parts;
  const last = rest.pop();
  if (last === undefined) return (said) => said === first;
  return (said) => {
    if (!said.startsWith(first)) return false;
    let at = first.length;
    for (const part of rest) {
      const found = said.indexOf(part, at);
      if (found < 0) return false;
      at = found + part.length;
    }
    return said.length >= at + last.length && said.endsWith(last);
  };
}

/** Whether a comment line was put there for a translator, by us or as the project has it. */
export function isHintLine(own: OwnHints | undefined): (line: CommentLine) => boolean {
  const tests = [hintTest(own?.source), hintTest(own?.open)];
  return ({ text }) => /^fond: (?:source|note)\b/.test(text) || tests.some((test) => test(text));
}

/**
 * A catalog file's text with its entries' hints as they should be: `wanted` gives the lines for an entry, undefined where
 * nothing is known of it. They stand right above an entry that begins its line; other comments stay as they are.
 */
export function withHints(
  text: string,
  format: CatalogFormat,
  entries: Iterable<Entry>,
  wanted: (entry: Entry) => readonly string[] | undefined,
  isHint: (line: CommentLine) => boolean,
  encoding?: TextEncoding,
): string {
  const write = format.commentWriter?.(text, encoding) ?? ((line: string) => line);
  // `//a` says what `// a` does.
  const bare = (line: string) => {
    const mark = format.comments?.line.find((one) => line.startsWith(one));
    return line.slice(mark?.length ?? 0).trim();
  };
  const lineEnd = /\r\n|\n/.exec(text)?.[0] ?? "\n";
  const edits: TextEdit[] = [];
  let end = 0;
  for (const entry of entries) {
    const least = end <= entry.keySpan.start ? end : 0;
    end = entry.valueSpan.end;
    if (entry.isInherited) continue;
    const lines = wanted(entry);
    if (!lines) continue;
    const own = lineStartOf(text, entry.keySpan.start);
    const indent = text.slice(own, entry.keySpan.start);
    if (indent.trim() !== "") continue;
    const above = format.comments ? commentsAbove(text, format.comments, entry.keySpan.start, least) : [];
    const there: string[] = [];
    let start = own;
    for (const line of above.toReversed()) {
      if (!isHint(line)) break;
      there.unshift(text.slice(line.start, line.end).trim());
      start = line.start;
    }
    // What a comment above says already is not said once more.
    const said = new Set(above.slice(0, above.length - there.length).map((line) => line.text));
    const written = lines.filter((line) => !said.has(line.replace(/^fond: note /, ""))).map(write);
    // Projects have them in whatever order.
    if (
      written.length === there.length &&
      written.every((line) => there.some((one) => bare(one) === bare(line)))
    )
      continue;
    edits.push({
      start,
      end: own,
      replacement: written.map((line) => `${indent}${line}${lineEnd}`).join(""),
    });
  }
  return applyEdits(text, edits);
}
