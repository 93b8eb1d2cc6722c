import { languageNamed } from "../source/languages/index.js";
import type { Dialect } from "../source/dialects/dialect.js";
import type { TextEdit } from "../text/edits.js";

/** Whether files of a language have a place for lines that bring a lookup in; scripts bring theirs in by their own way. */
export function takesImportLine(language: string | undefined): boolean {
  return languageNamed(language) !== undefined;
}

/** Whether a file has no place for a line that brings a lookup in, and not the line itself. */
export function lacksImportPlace(
  language: string,
  dialect: Dialect | undefined,
  text: string,
  line: string,
): boolean {
  const { opens } = dialect?.imports ?? languageNamed(language)?.imports ?? {};
  return (
    opens !== undefined && !opens.test(text) && !text.split(/\r?\n/).some((one) => one.trim() === line.trim())
  );
}

/** The edit that brings lookups into a file of code, by the lines that are not there yet. */
export function importLinesEdit(
  language: string,
  dialect: Dialect | undefined,
  text: string,
  lines: readonly string[],
): TextEdit | undefined {
  const lacking = lines.filter((line) => importLineEdit(language, dialect, text, line) !== undefined);
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  return lacking.length === 0 ? undefined : importLineEdit(language, dialect, text, lacking.join(lineEnd));
}

/** The edit that brings a lookup into a file of code; none where the line is there, or the language has no place for it. */
export function importLineEdit(
  language: string,
  dialect: Dialect | undefined,
  text: string,
  line: string,
): TextEdit | undefined {
  const place = dialect?.imports ?? languageNamed(language)?.imports;
  const wanted = line.trim();
  if (place?.namesIn) {
    const there = new Set(place.namesIn(text));
    const names = place.namesIn(wanted);
    if (names.length > 0 && names.every((name) => there.has(name))) return undefined;
  }
  if (!place || text.split(/\r?\n/).some((one) => one.trim() === wanted)) return undefined;
  const lineEnd = text.includes("\r\n") ? "\r\n" : "\n";
  const plain = text.replace(/\r\n/g, " \n");
  const body = place.body.exec(plain)?.index ?? plain.length;
  const last = [...plain.matchAll(place.lines)].findLast(({ index }) => index < body);
  if (last) {
    const at = last.index + last[0].trimEnd().length;
    return { start: at, end: at, replacement: lineEnd + wanted };
  }
  const head = place.head.exec(plain) ?? place.start?.exec(plain);
  const at = head ? head.index + head[0].length : 0;
  if (lacksImportPlace(language, dialect, text, line)) return undefined;
  // A page would show the empty line.
  const isOpen = dialect?.imports !== undefined || /^[ \t]*(?:\r?\n|$)/.test(text.slice(at));
  const before = at > 0 && !place.isTight ? lineEnd : "";
  return { start: at, end: at, replacement: before + wanted + lineEnd + (isOpen ? "" : lineEnd) };
}
