import type { MessageSyntax, SyntaxSetting } from "../names.js";
import { icu } from "./icu/syntax.js";
import { java } from "./java/syntax.js";
import { mf2 } from "./mf2/syntax.js";
import { braceField, braceIndex } from "./placeholders/brace-fields.js";
import { colon } from "./placeholders/colon.js";
import { doubleBrace } from "./placeholders/double-brace.js";
import { ownSyntax } from "./placeholders/own.js";
import { percentBrace } from "./placeholders/percent-brace.js";
import { percentParen } from "./placeholders/percent-paren.js";
import { plain } from "./placeholders/plain.js";
import { printf } from "./placeholders/printf.js";
import type { Syntax } from "./syntax.js";

/** Every syntax, by the name that a book can give it; in the order in which texts are held against them. */
export const syntaxes: Readonly<Record<MessageSyntax, Syntax>> = {
  icu,
  mf2,
  "double-brace": doubleBrace,
  "percent-brace": percentBrace,
  "percent-paren": percentParen,
  java,
  "brace-field": braceField,
  "brace-index": braceIndex,
  printf,
  colon,
  plain,
};

const own = new Map<string, Syntax>();

/** The syntax that a book's setting means. */
export function syntaxOf(setting: SyntaxSetting): Syntax {
  if (typeof setting === "string") return syntaxes[setting];
  const known = own.get(setting.argument) ?? ownSyntax(setting.argument);
  own.set(setting.argument, known);
  return known;
}
