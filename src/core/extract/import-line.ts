import type { TextEdit } from "../text/edits.js";

/** Where lines that bring other code in stand in one language: those lines, and what comes before the first of them. */
interface ImportPlace {
  readonly lines: RegExp;
  /** What opens a file: the new line goes behind it. */
  readonly head: RegExp;
  /** What opens a file that has no such line. */
  readonly start?: RegExp;
  /** The first declaration: imports behind it belong to other places. */
  readonly body: RegExp;
}

const places: Readonly<Record<string, ImportPlace>> = {
  python: {
    lines: /^(?:from\s+\S+\s+import\s+(?:\([^)]*\)|[^\n]*)|import\s[^\n]*)$/gm,
    head: /^(?:#[^\n]*\n)*(?:\s*(?:"""[\s\S]*?"""|'''[\s\S]*?''')[ \t]*\n)?/,
    body: /^(?:def|class|async|@)/m,
  },
  ruby: {
    lines: /^require(?:_relative)?\b[^\n]*$/gm,
    head: /^(?:#[^\n]*\n)*/,
    body: /^(?:class|module|def)\b/m,
  },
  java: {
    lines: /^import\s[^;\n]*;[^\n]*$/gm,
    head: /^package\s[^;\n]*;[^\n]*\n/m,
    body: /^(?:public |final |abstract )*(?:class|interface|enum|record)\b/m,
  },
  php: {
    lines: /^use\s[^;\n]*;[^\n]*$/gm,
    head: /^namespace\s[^;\n]*;[^\n]*\n/m,
    start: /^<\?php[^\n]*\n(?:declare\s*\([^;\n]*;[^\n]*\n)?/,
    body: /^(?:abstract |final )*(?:class|interface|trait|enum|function)\b/m,
  },
  csharp: {
    lines: /^(?:global )?using\s[^;(\n]*;[^\n]*$/gm,
    head: /^(?:\/\/[^\n]*\n)*/,
    body: /^(?:namespace|public|internal|class|\[)/m,
  },
  go: {
    lines: /^import\s(?:[ \t]*\([^)]*\)|[^\n]*)$/gm,
    head: /^package\s[^\n]*\n/m,
    body: /^(?:func|type|var|const)\b/m,
  },
};

/** Whether files of a language have a place for lines that bring a lookup in; scripts bring theirs in by their own way. */
export function takesImportLine(language: string | undefined): boolean {
  return language !== undefined && language in places;
}

/** The edit that brings a lookup into a file of code; none where the line is there, or the language has no place for it. */
export function importLineEdit(language: string, text: string, line: string): TextEdit | undefined {
  const place = places[language];
  const wanted = line.trim();
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
  if (language === "php" && !/^<\?php[ \t]*(?:\r?\n)/.test(text)) return undefined;
  const isOpen = /^[ \t]*(?:\r?\n|$)/.test(text.slice(at));
  const before = at > 0 && language !== "ruby" ? lineEnd : "";
  return { start: at, end: at, replacement: before + wanted + lineEnd + (isOpen ? "" : lineEnd) };
}
