import type { Piece } from "../source/model.js";
import { eachPiece } from "../source/pieces.js";
import type { ValueWriter } from "../source/languages/language.js";

/** A value that a lookup gets: its name in the message, the code that gives it, and the piece that it comes from. */
export interface LookupValue {
  readonly name: string;
  readonly code: string;
  readonly piece: Exclude<Piece, { readonly kind: "text" }>;
}

/** How the pieces of a text become the code of values; undefined for those that are no values in a language. */
export type ValueCode = (piece: LookupValue["piece"]) => string | undefined;

/** The values that a text's message asks for, each name once, in the order in which they stand. */
export function lookupValues(pieces: readonly Piece[], codeOf: ValueCode): readonly LookupValue[] {
  const found = new Map<string, LookupValue>();
  for (const piece of eachPiece(pieces)) {
    if (piece.kind === "text" || found.has(piece.name)) continue;
    const code = codeOf(piece);
    if (code !== undefined) found.set(piece.name, { name: piece.name, code, piece });
  }
  return [...found.values()];
}

/** The value by which a text's plural is chosen; undefined for texts without one. */
export function countOf(pieces: readonly Piece[]): (Piece & { readonly kind: "choice" }) | undefined {
  for (const piece of eachPiece(pieces))
    if (piece.kind === "choice" && piece.choice === "plural") return piece;
  return undefined;
}

/** What a book may say of the lookup that chooses forms, in remedies. */
export const pluralExample = JSON.stringify("lookUpForm('{key}', {count}{args})");

/** Whether a template has a place for all values, where `count` is the name of the one by which a plural is chosen. */
export function takesAll(template: string, values: readonly LookupValue[], count?: string): boolean {
  const others = template.includes("{count}") ? values.filter(({ name }) => name !== count) : values;
  return others.length === 0 || takesValues(template);
}

/**
 * Fills a template of a book in: `{key}` is the key, its own quotes those given, and none where a symbol of Ruby needs none;
 * `{args}` are the values as the language passes them behind a key, `{values}` the same without the comma before them, `{count}` is the number that chooses a plural, and
 * `{text}` in quotes is the text.
 */
export function fillTemplate(
  template: string,
  {
    key,
    text,
    quote,
    values,
    count = "",
    pass,
    keepsLines = false,
  }: {
    readonly key: string;
    readonly text: string;
    readonly quote: '"' | "'";
    readonly values: readonly LookupValue[];
    /** The name of the value that chooses a plural. */
    readonly count?: string | undefined;
    readonly pass: ValueWriter;
    /** Whether line breaks stand in a string as they are, where no escape means one. */
    readonly keepsLines?: boolean;
  },
): string {
  const write =
    pass === passAlone ? pass : isHelper(template) ? passToHelper : isFilter(template) ? passToFilter : pass;
  const args = write(values.map(({ name, code }) => [name, code] as const));
  // A text that is its own key may have quotes; nearly all languages escape them alike.
  const escape = (words: string) =>
    words.replace(keepsLines ? /["'\\]/g : /["'\\\n\r]/g, (sign) =>
      sign === "\n" ? "\\n" : sign === "\r" ? "\\r" : sign === quote || sign === "\\" ? `\\${sign}` : sign,
    );
  const escaped = escape(key);
  const filled: Readonly<Record<string, () => string>> = {
    key: () => escaped,
    count: () => values.find(({ name }) => name === count)?.code ?? "",
    args: () => args,
    values: () => (args === "" ? noValues(write) : args.replace(/^,?\s*/, "")),
  };
  // In one go, since a text that is its own key may have such marks itself.
  return template.replace(
    /((?<=[(,\s]):)?(["'])\{(key|text)\}\2|\{(key|count|args|values)\}/g,
    (_, colon: string | undefined, __: string, quoted: string | undefined, mark = "") => {
      if (quoted === "text") return `${colon ?? ""}${quote}${escape(text)}${quote}`;
      if (quoted === undefined) return filled[mark]?.() ?? "";
      return colon && isPlainSymbol.test(key) ? `:${escaped}` : `${colon ?? ""}${quote}${escaped}${quote}`;
    },
  );
}

/** A name that stands as a symbol without quotes. */
const isPlainSymbol = /^[A-Za-z_]\w*$/;

/**
 * Whether a lookup is a helper or tag with its values behind it and no brackets: `{{text "{key}"{args}}}`, `(text "{key}"{args})`,
 * `{% text "{key}"{args} %}`.
 */
function isHelper(template: string): boolean {
  return /^(?:\{\{\{?\s{0,9}|\{%-?\s{0,9}|\()[\w./-]{1,60}\s{1,9}["']\{key\}["']\s{0,9}\{(?:args|values)\}\s{0,9}(?:\}\}|-?%\}|\))/.test(
    template,
  );
}

/** Whether a template's filter takes an object of values: `{{ "{key}" | text:{values} }}`. */
function isFilter(template: string): boolean {
  return /["']\{key\}["']\s{0,9}\|\s{0,9}[\w$]{1,60}\s{0,9}:\s{0,9}\{(?:args|values)\}/.test(template);
}

/** An object with all names written out: the expressions of templates have no short form of it. */
const passToFilter: ValueWriter = (values) =>
  values.length === 0 ? "" : `{ ${values.map(([name, code]) => `${name}: ${code}`).join(", ")} }`;

/** Values behind a helper: no sign parts them but a blank, and what is called with blanks itself stands in brackets. */
const passToHelper: ValueWriter = (values) =>
  values
    .map(([name, code]) => ` ${name}=${/^[^"'\s(]+\s/.test(code.trim()) ? `(${code.trim()})` : code}`)
    .join("");

/** Values alone, one after the other, each call among them in brackets: ` .Name (len .Boats)`. */
export const passAlone: ValueWriter = (values) =>
  values.map(([, code]) => (/\s/.test(code.trim()) ? ` (${code.trim()})` : ` ${code.trim()}`)).join("");

/** No values, as a language writes them that puts values into brackets of their own. */
function noValues(pass: ValueWriter): string {
  const written = pass([["value", "value"]]).replace(/^,\s{0,9}/, "");
  return written.startsWith("{") ? "{}" : written.startsWith("[") ? "[]" : "";
}

/** Whether a template has a place for values. */
export function takesValues(template: string): boolean {
  return /\{(?:args|values)\}/.test(template);
}
