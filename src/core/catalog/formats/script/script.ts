import type { Span } from "../../../text/span.js";
import type { CatalogChanges, CatalogFormat, PathText } from "../../model.js";
import {
  editLiterals,
  styleOfLiterals,
  type LiteralMember,
  type LiteralNode,
  type LiteralStyle,
  type LiteralSyntax,
} from "../literal-edit.js";
import { literalFormat, type LiteralFile } from "../literal-catalog.js";
import {
  bracesOrBrackets,
  LiteralBreak,
  LiteralScanner,
  type LiteralLanguage,
  type WrittenText,
} from "../literal-scan.js";

/**
 * Catalogs that are modules of JavaScript or TypeScript (ECMA-262, "Object Initializer"): an object that is exported, given to
 * `define` or to the file's only call, or its only constant. Texts are strings and templates without values. Nothing is run.
 */
export const scriptFormat: CatalogFormat = {
  ...formatFor(moduleOf, 'export default { key: "text" }'),
  forBook: ({ constant }) =>
    constant === undefined
      ? scriptFormat
      : formatFor((text) => constantOf(text, constant), `const ${constant} = { key: "text" }`),
};

function formatFor(fileOf: (text: string) => LiteralFile | undefined, example: string): CatalogFormat {
  return literalFormat({
    name: "script",
    extensions: ["js", "mjs", "cjs", "ts", "mts", "cts"],
    example,
    empty: "export default {};\n",
    lineComments: ["//"],
    fileOf,
    emptyGroup: (text, root) => (root.kind === "object" && !isConstants(text, root) ? "{}" : undefined),
    edit: (text, changes) => editModule(text, changes, fileOf),
    writeKey: (name, written) =>
      /^["']/.test(written) || !isName(name) ? quoted(name, /^["']/.exec(written)?.[0] ?? '"') : name,
    escape: () => /\\(?:u\{[\da-fA-F]{1,6}\}|u[\da-fA-F]{4}|x[\da-fA-F]{2}|[^])/y,
  });
}

function isName(name: string): boolean {
  return /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name);
}

const language: LiteralLanguage = {
  space: /(?:\/\/[^\r\n]*|\/\*[^]*?\*\/|[\s\ufeff])+/y,
  text: readText,
  opens: bracesOrBrackets,
  name(source, at) {
    const accessor = /(?:get|set|async)\s+(?=[\p{L}_$"'])/uy;
    accessor.lastIndex = at;
    const start = at + (accessor.exec(source)?.[0].length ?? 0);
    const text = readText(source, start);
    if (text) return { name: text.value, end: text.end };
    const bare = /[\p{L}\p{N}_$]+/uy;
    bare.lastIndex = start;
    const name = bare.exec(source)?.[0];
    if (name !== undefined) return { name, end: start + name.length };
    const computed = /\[[^[\]]{1,200}\]/y;
    computed.lastIndex = start;
    return computed.test(source) ? { name: undefined, end: computed.lastIndex } : undefined;
  },
  between: ":",
  join: "+",
  word: /(?:[-+]?(?:\d[\w.]*|Infinity|NaN)|true|false|null|undefined)(?![\w$.(])/y,
  behind: /(?:as\s+const\b|as\s+[\w.<>[\]| ]{1,100}|satisfies\s+[\w.<>[\], ]{1,100})/y,
  hasPatterns: true,
};

/** A string or template (ECMA-262, "String Literals"). */
function readText(source: string, start: number): WrittenText | undefined {
  const quote = source[start];
  if (quote === "`") {
    const end = nestedEnd(source, start);
    if (end === undefined) return undefined;
    const written = source.slice(start + 1, end - 1);
    const hasValues = written.replace(/\\[^]/g, "").includes("${");
    return { end, value: hasValues ? undefined : decoded(written) };
  }
  if (quote !== '"' && quote !== "'") return undefined;
  const string = quote === '"' ? /"(?:[^"\\\r\n]|\\(?:\r\n|[^]))*"/y : /'(?:[^'\\\r\n]|\\(?:\r\n|[^]))*'/y;
  string.lastIndex = start;
  const found = string.exec(source)?.[0];
  return found === undefined ? undefined : { end: string.lastIndex, value: decoded(found.slice(1, -1)) };
}

/** Behind the template, or the braces, that open at a place: either may hold the other. Undefined where it does not end. */
function nestedEnd(source: string, start: number): number | undefined {
  const open: string[] = [];
  const string = /"(?:[^"\\\r\n]|\\[^])*"|'(?:[^'\\\r\n]|\\[^])*'|\/\/[^\r\n]*|\/\*[^]*?\*\//y;
  for (let at = start; at < source.length;) {
    const unit = source[at] ?? "";
    if (open.at(-1) === "`") {
      if (unit === "\\") at++;
      else if (unit === "`") open.pop();
      else if (unit === "$" && source[at + 1] === "{") {
        open.push("{");
        at++;
      }
      at++;
    } else {
      string.lastIndex = at;
      const found = /["'/]/.test(unit) ? string.exec(source)?.[0] : undefined;
      if (unit === "`" || unit === "{") open.push(unit);
      else if (unit === "}") open.pop();
      at += found?.length ?? 1;
    }
    if (open.length === 0) return at;
  }
  return undefined;
}

const escapes: Readonly<Record<string, string>> = {
  n: "\n",
  r: "\r",
  t: "\t",
  b: "\b",
  f: "\f",
  v: "\v",
  "0": "\0",
};

function decoded(written: string): string {
  if (!written.includes("\\") && !written.includes("\r")) return written;
  return written
    .replace(/\r\n?/g, "\n")
    .replace(
      /\\(?:u\{([\da-fA-F]{1,6})\}|u([\da-fA-F]{4})|x([\da-fA-F]{2})|(\n)|([^]))/g,
      (_, point?: string, unit?: string, byte?: string, line?: string, plain?: string) => {
        const code = point ?? unit ?? byte;
        if (code !== undefined) return String.fromCodePoint(Math.min(parseInt(code, 16), 0x10ffff));
        return line !== undefined ? "" : (escapes[plain ?? ""] ?? plain ?? "");
      },
    );
}

/** The group of texts of a module: what it exports, or its constants by their names where it exports several. */
function moduleOf(text: string): LiteralFile | undefined {
  const scanner = new LiteralScanner(text, language);
  const constants = new Map<string, { readonly member: LiteralMember; readonly isExported: boolean }>();
  const given: LiteralNode[] = [];
  let exported: LiteralNode | undefined;
  const step = (at: number): number => {
    const head = (pattern: RegExp) => {
      pattern.lastIndex = at;
      return pattern.exec(text);
    };
    const whole = head(
      /(?:export\s+default|(?:module\.)?exports(?:\.default)?\s*=(?!=)(?:\s*module\.exports\s*=)?|export\s*=|define(?=\s*\())\s*/y,
    );
    if (whole) {
      const from = scanner.space(at + whole[0].length);
      const name = /[\p{L}_$][\p{L}\p{N}_$]*(?=\s*(?:;|$|\r?\n|as\b|satisfies\b))/uy;
      name.lastIndex = from;
      const named = name.exec(text)?.[0];
      const found = named === undefined ? groupFrom(scanner, from) : constants.get(named)?.member.value;
      exported ??= found;
      return scanner.codeEnd(Math.max(found && named === undefined ? found.end : from, from), true);
    }
    const declared = head(
      /(export\s+)?(?:const|let|var)\s+([\p{L}_$][\p{L}\p{N}_$]*)\s*(?::[^=;{}]{1,200}|:\s*\{[^{}=;]{0,2000}\}\s*)?=(?!=|>)\s*/uy,
    );
    if (declared) {
      const [written, isExported, name = ""] = declared;
      const from = scanner.space(at + written.length);
      const value = scanner.value(from);
      const node = value.kind === "code" ? (groupFrom(scanner, from) ?? value) : value;
      const start = at + written.indexOf(name, (isExported ?? "").length + 3);
      constants.set(name, { member: { name, start, value: node }, isExported: isExported !== undefined });
      return scanner.codeEnd(value.end, true);
    }
    const end = scanner.codeEnd(at, true);
    if (head(/[\p{L}_$][\p{L}\p{N}_$.]*\(/uy)) {
      const group = groupFrom(scanner, at);
      // What a call hands on is its last argument.
      if (group && /^[\s,]*\)/.test(text.slice(group.end, end))) given.push(group);
    }
    return end;
  };
  for (let at = scanner.space(0); at < text.length;) {
    const next = scanner.space(step(at));
    // A bracket too many, or a mark that starts nothing: past it.
    at = next > at ? next : at + 1;
  }
  const root =
    exported ?? rootOf([...constants.values()], text.length) ?? (given.length === 1 ? given[0] : undefined);
  return root && (root.kind === "object" || root.kind === "list")
    ? { root, texts: scanner.texts }
    : undefined;
}

/** Where a constant's value starts, by its name; undefined where there is none. */
function valueOfConstant(text: string, name: string): number | undefined {
  const declared = new RegExp(
    String.raw`^[ \t]{0,40}(?:export\s{1,20})?(?:const|let|var)\s{1,20}${name.replaceAll("$", "\\$")}(?![\w$])`,
    "m",
  ).exec(text);
  if (!declared) return undefined;
  const from = declared.index + declared[0].length;
  const sign = /=(?![=>])/g;
  sign.lastIndex = from;
  const found = sign.exec(text);
  return found && found.index - from < 300 ? found.index + 1 : undefined;
}

/** The group of texts that is the value of one constant, whatever else is in the file. */
function constantOf(text: string, name: string): LiteralFile | undefined {
  const at = valueOfConstant(text, name);
  if (at === undefined) return undefined;
  const scanner = new LiteralScanner(text, language);
  const root = groupFrom(scanner, scanner.space(at));
  return root?.kind === "object" ? { root, texts: scanner.texts } : undefined;
}

/** From where to where a constant's texts stand in a file of code; undefined where it has none, or breaks off. */
export function spanOfConstant(text: string, name: string): Span | undefined {
  try {
    return constantOf(text, name)?.root;
  } catch (error) {
    if (error instanceof LiteralBreak) return undefined;
    throw error;
  }
}

function rootOf(
  constants: readonly { readonly member: LiteralMember; readonly isExported: boolean }[],
  end: number,
): LiteralNode | undefined {
  const groups = constants.filter(({ member }) => member.value.kind === "object");
  const named = constants.filter(({ isExported }) => isExported);
  const [only] = groups;
  if (groups.length === 1 && only && named.every((one) => one === only)) return only.member.value;
  if (!named.some(({ member }) => /^(?:object|text)$/.test(member.value.kind))) return undefined;
  return { kind: "object", start: 0, end, members: named.map(({ member }) => member) };
}

/** Whether a group is the file itself, its members being constants. */
function isConstants(text: string, root: LiteralNode): boolean {
  return root.start === 0 && root.end === text.length && text[0] !== "{";
}

/** The first group in an expression: itself, what a call is given, or what a function returns. */
function groupFrom(scanner: LiteralScanner, start: number): LiteralNode | undefined {
  const { source } = scanner;
  const end = scanner.codeEnd(start, true);
  for (let at = start; at < end;) {
    at = scanner.space(at);
    const text = readText(source, at);
    if (text) {
      at = text.end;
      continue;
    }
    if (source[at] === "{") {
      const before = source.slice(Math.max(at - 40, start), at).trimEnd();
      if (!/\)$|=>$|\)\s*:\s*\w+$/.test(before)) {
        const found = scanner.value(at);
        return found.kind === "code" ? groupOnly(scanner, at) : found;
      }
      const returned = /\breturn\s{0,40}\(?\s{0,40}(?=\{)/g;
      returned.lastIndex = at;
      const match = returned.exec(source);
      if (!match || match.index >= end) return undefined;
      at = match.index + match[0].length;
      return groupOnly(scanner, at);
    }
    if (source[at] === "[") {
      at = scanner.value(at).end;
      continue;
    }
    at++;
  }
  return undefined;
}

/** The group at a place, whatever is done with it. */
function groupOnly(scanner: LiteralScanner, at: number): LiteralNode | undefined {
  const inner = new LiteralScanner(
    `${" ".repeat(at)}${scanner.source.slice(at, nestedEnd(scanner.source, at) ?? scanner.source.length)}`,
    language,
  );
  const found = inner.value(at);
  for (const [start, text] of inner.texts) scanner.texts.set(start, text);
  return found.kind === "object" ? found : undefined;
}

function editModule(
  text: string,
  changes: CatalogChanges,
  fileOf: (text: string) => LiteralFile | undefined,
): string {
  const file = fileOf(text);
  if (!file) throw new Error("a module that cannot be read cannot be edited");
  const { root } = file;
  const style = styleOf(text, root);
  if (!isConstants(text, root)) return editLiterals(text, root, changes, style, syntax);
  // A constant of its own for each new name at the root.
  const there = new Set(root.members.map(({ name }) => String(name)));
  const isOwn = ({ path }: PathText) => there.has(String(path[0]));
  const add = changes.add ?? [];
  const edited = editLiterals(text, root, { ...changes, add: add.filter(isOwn) }, style, syntax);
  const names = [...new Set(add.filter((one) => !isOwn(one)).map(({ path }) => String(path[0])))];
  const empty: LiteralNode = { kind: "object", start: 0, end: 2, members: [] };
  return names.reduce((result, name) => {
    const own = add.filter(({ path }) => path[0] === name);
    const below = own.map((one) => ({ ...one, path: one.path.slice(1) }));
    const value =
      own[0]?.path.length === 1
        ? writeText(own[0].text, style)
        : editLiterals("{}", empty, { add: below }, { ...style, bareNames: true }, syntax);
    const lineEnd = style.lineEnd;
    return `${result.trimEnd()}${lineEnd}${lineEnd}export const ${name} = ${value};${lineEnd}`;
  }, edited);
}

function styleOf(text: string, root: LiteralNode): LiteralStyle {
  const inner = isConstants(text, root)
    ? (root.members.find(({ value }) => value.members.length > 0)?.value ?? root)
    : root;
  const style = styleOfLiterals(text, inner, true);
  const quotedNames = inner.members.filter(({ start }) => /["']/.test(text[start] ?? "")).length;
  return {
    ...style,
    quote: style.quote === "'" ? "'" : '"',
    nameQuote: style.nameQuote === '"' && style.quote === "'" && quotedNames === 0 ? "'" : style.nameQuote,
    // Modules of today end their lists in commas; what old loaders read may not.
    endsInComma: inner.members.length > 0 ? style.endsInComma : !/\bdefine\s*\(|\bexports\b/.test(text),
    bareNames: quotedNames * 2 <= inner.members.length,
  };
}

const syntax: LiteralSyntax = {
  comment: "//",
  group: ["{", "}"],
  list: ["[", "]"],
  between: ": ",
  betweenPattern: /(?<!\s)\s*:[ \t]*$/,
  separator: ",",
  lastComma: (style, multiline) => (style.endsInComma && multiline ? "," : ""),
  writeName: (name, style) => (style.bareNames && isName(name) ? name : quoted(name, style.nameQuote)),
  writeText,
};

function writeText(text: string, style: LiteralStyle, quote?: string): string {
  const written = quoted(text, quote !== undefined && /["'`]/.test(quote) ? quote : style.quote);
  return style.asciiOnly
    ? written.replace(/[\u007f-\uffff]/g, (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`)
    : written;
}

function quoted(text: string, quote: string): string {
  const body = text.replace(/[\\\0-\x1f\u2028\u2029]/g, (unit) => {
    if (unit === "\\") return "\\\\";
    if (unit === "\n") return quote === "`" ? "\n" : "\\n";
    if (unit === "\r") return "\\r";
    if (unit === "\t") return "\\t";
    return `\\u${unit.charCodeAt(0).toString(16).padStart(4, "0")}`;
  });
  const inside = quote === "`" ? body.replace(/`|\$(?=\{)/g, "\\$&") : body.replaceAll(quote, `\\${quote}`);
  return quote + inside + quote;
}
