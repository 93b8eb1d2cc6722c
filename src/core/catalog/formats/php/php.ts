import type { CatalogChanges } from "../../model.js";
import { lineStart } from "../../../text/line-start.js";
import {
  editLiterals,
  styleOfLiterals,
  type LiteralMember,
  type LiteralNode,
  type LiteralStyle,
  type LiteralSyntax,
} from "../literal-edit.js";
import { literalFormat, type LiteralFile } from "../literal-catalog.js";
import { LiteralScanner, type LiteralLanguage, type WrittenText } from "../literal-scan.js";

/**
 * Catalogs that are PHP files which return one array (PHP manual, "Arrays"): `return [ … ]` or `array( … )`, nested, in single
 * or double quotes. Nothing is run.
 */
export const phpFormat = literalFormat({
  name: "php",
  extensions: ["php", "inc"],
  example: "<?php return ['key' => 'text'];",
  empty: "<?php\n\nreturn [\n];\n",
  lineComments: ["//", "#"],
  keysNameFile: true,
  fileOf: arrayOf,
  emptyGroup: (text, root) => (text[root.start] === "[" ? "[]" : "array()"),
  edit: editArray,
  writeKey: (name, written) => quoted(name, written.startsWith('"') ? '"' : "'"),
  escape: (quote) =>
    quote === "'" ? /\\['\\]/y : /\\(?:u\{[\da-fA-F]{1,6}\}|x[\da-fA-F]{1,2}|[0-7]{1,3}|[nrtvef\\"$])/y,
});

const language: LiteralLanguage = {
  space: /(?:\/\/[^\r\n]*|#(?!\[)[^\r\n]*|\/\*[^]*?\*\/|\s)+/y,
  text: readText,
  opens(source, at) {
    if (source[at] === "[") return { length: 1, close: "]" };
    const array = /array\s*\(/iy;
    array.lastIndex = at;
    const found = array.exec(source)?.[0];
    return found === undefined ? undefined : { length: found.length, close: ")" };
  },
  name(source, at) {
    const text = readText(source, at);
    if (text) return { name: text.value, end: text.end };
    const other = /(-?\d+)(?![\w.])|[\w\\]+(?:::\w+)?/y;
    other.lastIndex = at;
    const found = other.exec(source);
    return found ? { name: found[1], end: at + found[0].length } : undefined;
  },
  between: "=>",
  join: ".",
  word: /(?:[-+]?\d[\w.]*|true|false|null)(?![\w(:\\])/iy,
};

/** A string in single or double quotes, or a heredoc (PHP manual, "Strings"). */
function readText(source: string, start: number): WrittenText | undefined {
  const quote = source[start];
  if (quote === "<") {
    const heredoc = /<<<[ \t]*["']?(\w{1,80})["']?[ \t]*\r?\n/y;
    heredoc.lastIndex = start;
    const label = heredoc.exec(source)?.[1];
    if (label === undefined) return undefined;
    const close = new RegExp(`^[ \\t]*${label}\\b`, "gm");
    close.lastIndex = heredoc.lastIndex;
    return close.exec(source) ? { end: close.lastIndex, value: undefined } : undefined;
  }
  if (quote !== '"' && quote !== "'") return undefined;
  let at = start + 1;
  while (at < source.length && source[at] !== quote) at += source[at] === "\\" ? 2 : 1;
  if (at >= source.length) return undefined;
  const written = source.slice(start + 1, at);
  if (quote === "'") return { end: at + 1, value: written.replace(/\\(['\\])/g, "$1") };
  const hasValues = /\$[A-Za-z_{]|\{\$/.test(written.replace(/\\[^]/g, ""));
  return { end: at + 1, value: hasValues ? undefined : decoded(written) };
}

const escapes: Readonly<Record<string, string>> = {
  n: "\n",
  t: "\t",
  r: "\r",
  v: "\v",
  e: "\x1b",
  f: "\f",
  '"': '"',
  "\\": "\\",
  $: "$",
};

function decoded(written: string): string {
  return written.replace(
    /\\(?:u\{([\da-fA-F]{1,6})\}|x([\da-fA-F]{1,2})|([0-7]{1,3})|([^]))/g,
    (whole, point?: string, byte?: string, octal?: string, unit?: string) => {
      if (point !== undefined) return String.fromCodePoint(Math.min(parseInt(point, 16), 0x10ffff));
      if (byte !== undefined) return String.fromCharCode(parseInt(byte, 16));
      if (octal !== undefined) return String.fromCharCode(parseInt(octal, 8) & 0xff);
      return escapes[unit ?? ""] ?? whole;
    },
  );
}

/** The array that a file returns, its only one, or that with nearly all of its texts; else what it assigns to the members of one variable. */
function arrayOf(text: string): PhpFile | undefined {
  const open = /<\?(?:php\b|=)?/.exec(text);
  if (!open) return undefined;
  const scanner = new LiteralScanner(text, language);
  const arrays = new Map<string, LiteralNode>();
  const assigned: Assigned[] = [];
  const isGroup = (node: LiteralNode | undefined) => node?.kind === "object" || node?.kind === "list";
  for (let at = scanner.space(open.index + open[0].length); at < text.length && !text.startsWith("?>", at);) {
    const head = (pattern: RegExp) => {
      pattern.lastIndex = at;
      return pattern.exec(text);
    };
    let end = at;
    const returns = head(/return\b\s*(?:\$(\w+)\s*;)?/y);
    const sets = returns ? null : head(/\$(\w+)\s*(?:\[\s*("[^"\\$]*"|'[^'\\]*'|\d+)\s*\]\s*)?=(?![=>])\s*/y);
    if (returns) {
      const named = returns[1];
      const root =
        named === undefined ? scanner.value(scanner.space(at + returns[0].length)) : arrays.get(named);
      if (root && isGroup(root)) return { root, texts: scanner.texts };
    } else if (sets) {
      const [written, variable = "", member] = sets;
      const value = scanner.value(scanner.space(at + written.length));
      end = value.end;
      if (member === undefined && isGroup(value)) arrays.set(variable, value);
      if (member !== undefined && text[scanner.space(end)] === ";")
        assigned.push({
          variable,
          member: {
            name: member.replace(/^["']|["']$/g, ""),
            start: at,
            value,
            commaEnd: scanner.space(end) + 1,
          },
        });
    }
    const next = scanner.space(scanner.codeEnd(end, true));
    at = next > at ? next : at + 1;
  }
  const [only] = arrays.values();
  const [first] = assigned;
  if (first && (!only || only.members.length === 0)) {
    const own = assigned.filter(({ variable }) => variable === first.variable);
    const last = own.at(-1);
    const start = Math.max(lineStart(text, first.member.start) - 2, open.index);
    const root: LiteralNode = {
      kind: "object",
      start,
      end: last?.member.commaEnd ?? text.length,
      members: own.map(({ member }) => member),
    };
    return { root, texts: scanner.texts, variable: first.variable };
  }
  const main = mainOf([...arrays.values()]);
  return main && { root: main, texts: scanner.texts };
}

/** The array of a file that is the only one, or has nearly all of what there is: others hold what texts need beside. */
function mainOf(arrays: readonly LiteralNode[]): LiteralNode | undefined {
  const [first] = [...arrays].sort((one, other) => other.members.length - one.members.length);
  const all = arrays.reduce((sum, { members }) => sum + members.length, 0);
  const isMain = arrays.length === 1 || (first && first.members.length >= leastOfMain);
  return first && isMain && first.members.length * 10 >= all * 8 ? first : undefined;
}

/** So many texts at least make one of several arrays a catalog. */
const leastOfMain = 20;

interface PhpFile extends LiteralFile {
  /** The variable whose members the file assigns, one by one. */
  readonly variable?: string;
}

interface Assigned {
  readonly variable: string;
  readonly member: LiteralMember;
}

function editArray(text: string, changes: CatalogChanges): string {
  const file = arrayOf(text);
  if (!file) throw new Error("a file that returns no array cannot be edited");
  const style = styleOf(text, file.root);
  const { variable } = file;
  if (variable !== undefined)
    return editLiterals(text, file.root, changes, style, {
      ...syntax,
      between: " = ",
      betweenPattern: /(?<!\s)\s*=[ \t]*$/,
      separator: ";",
      writeName: (name) => `$${variable}[${quoted(name, nameQuoteOf(text, file.root))}]`,
    });
  const group = text[file.root.start] === "[" ? (["[", "]"] as const) : (["array(", ")"] as const);
  return editLiterals(text, file.root, changes, style, { ...syntax, group, list: group });
}

/** The quote of the names in brackets. */
function nameQuoteOf(text: string, { members }: LiteralNode): string {
  const [first] = members;
  return first && text.slice(first.start, first.value.start).includes('"') ? '"' : "'";
}

function styleOf(text: string, root: LiteralNode): LiteralStyle {
  const style = styleOfLiterals(text, root, false);
  const isEmpty = root.members.length === 0;
  return {
    ...style,
    asciiOnly: false,
    quote: isEmpty ? "'" : style.quote,
    nameQuote: isEmpty ? "'" : style.nameQuote,
    indent: isEmpty ? "    " : style.indent,
    endsInComma: isEmpty || style.endsInComma,
  };
}

const syntax: LiteralSyntax = {
  comment: "//",
  group: ["[", "]"],
  list: ["[", "]"],
  between: " => ",
  betweenPattern: /(?<!\s)\s*=>[ \t]*$/,
  separator: ",",
  lastComma: (style, multiline) => (style.endsInComma && multiline ? "," : ""),
  writeName: (name, style) => (/^(?:0|[1-9]\d*)$/.test(name) ? name : quoted(name, style.nameQuote)),
  writeText: (text, style, quote) => quoted(text, quote === '"' || quote === "'" ? quote : style.quote),
};

function quoted(text: string, quote: string): string {
  // Line ends as signs need double quotes.
  if (quote === "'" && !/[\0-\x1f]/.test(text)) return `'${text.replace(/['\\]/g, "\\$&")}'`;
  const body = text.replace(/["\\$]/g, "\\$&").replace(/[\0-\x1f]/g, (unit) => {
    const named = { "\n": "\\n", "\r": "\\r", "\t": "\\t" }[unit];
    return named ?? `\\x${unit.charCodeAt(0).toString(16).padStart(2, "0")}`;
  });
  return `"${body}"`;
}
