import type { CatalogChanges, CatalogFormat } from "../model.js";
import { literalFormat, type LiteralCatalog, type LiteralFile } from "./literal-catalog.js";
import { editLiterals, styleOfLiterals, type LiteralSyntax } from "./literal-edit.js";
import { LiteralScanner, type LiteralLanguage } from "./literal-scan.js";

/** A language whose catalogs are one group of a file, such as that of a constant. */
export interface NamedLiterals extends Pick<
  LiteralCatalog,
  "name" | "extensions" | "example" | "empty" | "lineComments" | "escape"
> {
  /** How the literals of a file are written. */
  language(text: string): LiteralLanguage;
  /** Where the group starts that is the catalog; undefined where there is none. */
  rootOf(text: string): number | undefined;
  /** What stands between a name and its value. */
  between(text: string): { readonly written: string; readonly pattern: RegExp };
  writeName(name: string, quote: string, text: string): string;
  quoted(text: string, quote: string): string;
}

/** The format of catalogs that are one group of a file of code. */
export function namedLiteralFormat(of: NamedLiterals): CatalogFormat {
  const fileOf = (text: string): LiteralFile | undefined => {
    const start = of.rootOf(text);
    if (start === undefined) return undefined;
    const language = of.language(text);
    const end = new LiteralScanner(text, language).codeEnd(start, true);
    // What follows in the file is not read.
    const scanner = new LiteralScanner(text.slice(0, end), language);
    const root = scanner.value(start);
    return root.kind === "object" ? { root, texts: scanner.texts } : undefined;
  };
  return literalFormat({
    ...of,
    fileOf,
    emptyGroup: () => "{}",
    edit: (text, changes) => editNamed(text, changes, of, fileOf(text)),
    writeKey: (name, written) => {
      const quote = /["']/.exec(written)?.[0];
      if (quote !== undefined) return written.slice(0, written.indexOf(quote)) + of.quoted(name, quote);
      return /^[\p{L}_][\p{L}\p{N}_]*$/u.test(name) ? name : of.quoted(name, '"');
    },
  });
}

function editNamed(
  text: string,
  changes: CatalogChanges,
  of: NamedLiterals,
  file: LiteralFile | undefined,
): string {
  if (!file) throw new Error("a file without a group of texts cannot be edited");
  const { root } = file;
  const style = styleOfLiterals(text, root, false);
  const isEmpty = root.members.length === 0;
  const between = of.between(text);
  const syntax: LiteralSyntax = {
    comment: "#",
    group: ["{", "}"],
    list: ["[", "]"],
    between: between.written,
    betweenPattern: between.pattern,
    separator: ",",
    lastComma: ({ endsInComma }, multiline) => (endsInComma && multiline ? "," : ""),
    writeName: (name, { nameQuote }) => of.writeName(name, nameQuote, text),
    writeText: (said, { quote }, like) =>
      of.quoted(said, like === '"' || like === "'" ? like : quote === "'" ? "'" : '"'),
  };
  return editLiterals(
    text,
    root,
    changes,
    {
      ...style,
      asciiOnly: false,
      nameQuote: style.nameQuote === "'" ? "'" : '"',
      indent: isEmpty ? "    " : style.indent,
      endsInComma: isEmpty || style.endsInComma,
    },
    syntax,
  );
}

/** Where the group of a file's only constant starts, or that of the one whose name says that it holds texts. */
export function namedLiteral(text: string, declaration: RegExp): number | undefined {
  const found = [...text.matchAll(declaration)];
  const named = found.filter(([, name = ""]) =>
    /(?:text|string|message|translation|label|word|phrase|locale|lang)s?$/i.test(name),
  );
  const [only] = named.length === 1 ? named : found;
  return only && (found.length === 1 || named.length === 1) ? only.index + only[0].length : undefined;
}
