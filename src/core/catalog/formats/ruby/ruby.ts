import { escapedText, type StringEscapes } from "../literal-escapes.js";
import { namedLiteral, namedLiteralFormat } from "../named-literal.js";
import { bracesOrBrackets, type LiteralLanguage, type WrittenText } from "../literal-scan.js";

/**
 * Catalogs that are files of Ruby with a hash (Ruby's documentation, "Hash literals"): one that is the whole file, as locale files
 * are, or that of a constant. Names are `title:`, `"title":` or `:title =>`. Nothing is run.
 */
export const rubyFormat = namedLiteralFormat({
  name: "ruby",
  extensions: ["rb"],
  example: '{ key: "text" }',
  empty: "{\n}\n",
  lineComments: ["#"],
  language: (text) => (hasArrows(text) ? withArrows : withColons),
  rootOf(text) {
    const whole = /^\ufeff?(?:[ \t]{0,200}(?:#[^\n]{0,2000})?\r?\n){0,200}[ \t]{0,80}(?=\{)/.exec(text);
    return whole
      ? whole[0].length
      : namedLiteral(text, /^[ \t]{0,40}([A-Z]\w{0,80})[ \t]{0,20}=[ \t]{0,20}(?=\{)/gm);
  },
  between: (text) =>
    hasArrows(text)
      ? { written: " => ", pattern: /(?<!\s)\s*=>[ \t]*$/ }
      : { written: ": ", pattern: /(?<![\s:]):[ \t]*$/ },
  writeName(name, quote, text) {
    const isPlain = /^[\p{L}_][\p{L}\p{N}_]*$/u.test(name);
    if (!hasArrows(text)) return isPlain ? name : quoted(name, quote);
    const isQuoted = /["'][^"'\n]{0,80}["']\s{0,20}=>/.test(text);
    return isQuoted ? quoted(name, quote) : isPlain ? `:${name}` : `:${quoted(name, quote)}`;
  },
  quoted,
  escape: (quote) =>
    quote === "'"
      ? /\\['\\]/y
      : /\\(?:u\{[\da-fA-F ]{1,40}\}|u[\da-fA-F]{4}|x[\da-fA-F]{1,2}|[0-7]{1,3}|\r?\n|[^])/y,
});

/** Whether names stand before arrows: `:title => "…"`. */
function hasArrows(text: string): boolean {
  return /(?:^|[{,])[ \t]{0,80}(?::\w{1,80}|:?["'][^"'\n]{0,80}["'])[ \t]{0,20}=>/m.test(text);
}

const common: Omit<LiteralLanguage, "between" | "name"> = {
  space: /(?:#[^\r\n]*|[\s\ufeff])+/y,
  text: readText,
  opens: bracesOrBrackets,
  join: "+",
  word: /(?:[-+]?\d[\w.]*|true|false|nil)(?![\w(.?!])/y,
  behind: /\.freeze\b/y,
};

const withColons: LiteralLanguage = {
  ...common,
  between: ":",
  name(source, at) {
    const text = readText(source, at);
    if (text) return { name: text.value, end: text.end };
    const bare = /[\p{L}_][\p{L}\p{N}_]*[?!]?(?=:(?!:))/uy;
    bare.lastIndex = at;
    const name = bare.exec(source)?.[0];
    return name === undefined ? undefined : { name, end: at + name.length };
  },
};

const withArrows: LiteralLanguage = {
  ...common,
  between: "=>",
  name(source, at) {
    const from = source[at] === ":" ? at + 1 : at;
    const text = readText(source, from);
    if (text) return { name: text.value, end: text.end };
    const bare = /[\p{L}_][\p{L}\p{N}_]*[?!]?|\d+/uy;
    bare.lastIndex = from;
    const name = bare.exec(source)?.[0];
    return name === undefined ? undefined : { name, end: from + name.length };
  },
};

/** A string in single or double quotes (Ruby's documentation, "String Literals"); one with values in it says nothing. */
function readText(source: string, start: number): WrittenText | undefined {
  const quote = source[start];
  if (quote !== '"' && quote !== "'") return undefined;
  let at = start + 1;
  while (at < source.length && source[at] !== quote) at += source[at] === "\\" ? 2 : 1;
  if (at >= source.length) return undefined;
  const written = source.slice(start + 1, at).replace(/\r\n/g, "\n");
  if (quote === "'") return { end: at + 1, value: written.replace(/\\(['\\])/g, "$1") };
  const hasValues = /#[{$@]/.test(written.replace(/\\[^]/g, ""));
  return { end: at + 1, value: hasValues ? undefined : escapedText(written, escapes) };
}

const escapes: StringEscapes = {
  pattern: /\\(?:(\n)|u\{([\da-fA-F]{1,6})\}|u([\da-fA-F]{4})|x([\da-fA-F]{1,2})|([0-7]{1,3})|([^]))/g,
  plain: { n: "\n", t: "\t", r: "\r", a: "\x07", b: "\b", e: "\x1b", f: "\f", s: " ", v: "\v" },
  drops: true,
};

function quoted(text: string, quote: string): string {
  // Control characters as signs need double quotes.
  if (quote === "'" && !/[\0-\x1f\x7f]/.test(text)) return `'${text.replace(/['\\]/g, "\\$&")}'`;
  const body = text.replace(/["\\]|#(?=[{$@])/g, "\\$&").replace(/[\0-\x1f\x7f]/g, (unit) => {
    const named = { "\n": "\\n", "\r": "\\r", "\t": "\\t" }[unit];
    return named ?? `\\x${unit.charCodeAt(0).toString(16).padStart(2, "0")}`;
  });
  return `"${body}"`;
}
