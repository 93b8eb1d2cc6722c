import { escapedText, type StringEscapes } from "../literal-escapes.js";
import { namedLiteral, namedLiteralFormat } from "../named-literal.js";
import { bracesOrBrackets, type LiteralLanguage, type WrittenText } from "../literal-scan.js";

/**
 * Catalogs that are modules of Python with a dictionary (Python's reference, "Dictionary displays"): `TEXTS = { … }`. Texts are
 * strings without values, also several beside each other. Nothing is run.
 */
export const pythonFormat = namedLiteralFormat({
  name: "python",
  extensions: ["py"],
  example: 'TEXTS = {"key": "text"}',
  empty: "TEXTS = {\n}\n",
  lineComments: ["#"],
  language: () => pythonLiterals,
  rootOf: (text) =>
    namedLiteral(text, /^([A-Za-z_]\w{0,80})[ \t]{0,20}(?::[^=\n]{1,80})?=[ \t]{0,20}(?=\{)/gm),
  between: () => ({ written: ": ", pattern: /(?<!\s)\s*:[ \t]*$/ }),
  writeName: (name, quote) => quoted(name, quote),
  quoted,
  escape: () => /\\(?:\r?\n|N\{[^}]{1,80}\}|U[\da-fA-F]{8}|u[\da-fA-F]{4}|x[\da-fA-F]{2}|[0-7]{1,3}|[^])/y,
});

const pythonLiterals: LiteralLanguage = {
  space: /(?:#[^\r\n]*|\\\r?\n|[\s\ufeff])+/y,
  text: readText,
  opens: bracesOrBrackets,
  name(source, at) {
    const text = readText(source, at);
    if (text) return { name: text.value, end: text.end };
    const other = /(\d+)(?![\w.])|[\w.]+/y;
    other.lastIndex = at;
    const found = other.exec(source);
    return found ? { name: found[1], end: at + found[0].length } : undefined;
  },
  between: ":",
  // Strings beside each other are one.
  join: "",
  word: /(?:[-+]?\d[\w.]*|True|False|None)(?![\w(.])/y,
};

/** A string (Python's reference, "String and Bytes literals"); one with values in it, or of bytes, says nothing. */
function readText(source: string, start: number): WrittenText | undefined {
  const head = /([rRuUbBfFtT]{0,2})("""|'''|"|')/y;
  head.lastIndex = start;
  const [, prefix = "", quote = ""] = head.exec(source) ?? [];
  if (quote === "") return undefined;
  const from = head.lastIndex;
  let at = from;
  while (at < source.length && !source.startsWith(quote, at)) {
    if (quote.length === 1 && /[\r\n]/.test(source[at] ?? "")) return undefined;
    at += source[at] === "\\" ? 2 : 1;
  }
  if (at >= source.length) return undefined;
  const written = source.slice(from, at).replace(/\r\n?/g, "\n");
  const end = at + quote.length;
  if (/[bBtT]/.test(prefix) || (/[fF]/.test(prefix) && written.includes("{")))
    return { end, value: undefined };
  return { end, value: /[rR]/.test(prefix) ? written : escapedText(written, escapes) };
}

const escapes: StringEscapes = {
  pattern:
    /\\(?:(\n)|N\{[^}]{1,80}\}|U([\da-fA-F]{8})|u([\da-fA-F]{4})|x([\da-fA-F]{2})|([0-7]{1,3})|([^]))/g,
  plain: { n: "\n", t: "\t", r: "\r", a: "\x07", b: "\b", f: "\f", v: "\v", "\\": "\\", "'": "'", '"': '"' },
};

function quoted(text: string, quote: string): string {
  const body = text.replace(/[\\\0-\x1f\x7f]/g, (unit) => {
    const named = { "\\": "\\\\", "\n": "\\n", "\r": "\\r", "\t": "\\t" }[unit];
    return named ?? `\\x${unit.charCodeAt(0).toString(16).padStart(2, "0")}`;
  });
  return quote + body.replaceAll(quote, `\\${quote}`) + quote;
}
