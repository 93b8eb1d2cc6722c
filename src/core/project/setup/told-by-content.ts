import type { FormatName } from "../../config/names.js";

/** Fewer lines that set a key say nothing of a file. */
const leastLines = 5;

/** Lines that are neither empty nor comments as properties have them. */
function tellingLines(text: string): string[] {
  return text.split(/\r?\n/).filter((line) => !/^\s*(?:[#!]|$)/.test(line));
}

/**
 * The format of a catalog whose ending names none, told by what it holds: PHP that assigns texts, an object of JSON, or lines of
 * `key=value` as properties have them. Values in quotes, sections in brackets and comments after `;` are another format, which is
 * not read. Undefined where the content is none of these.
 */
export function formatByContent(text: string): FormatName | undefined {
  const start = text.replace(/^\uFEFF/, "").trimStart();
  if (/^<\?php\b/i.test(start)) return "php";
  if (start.startsWith("{")) return "json";
  const lines = tellingLines(text);
  const setting = lines.filter((line) => /^\s*[\w.:-]+\s*=\s*[^\s"'=]/.test(line)).length;
  return setting >= leastLines && setting * 20 >= lines.length * 19 ? "properties" : undefined;
}
