/** The message syntaxes that a book can name. */
export const messageSyntaxNames = [
  "icu",
  "java",
  "mf2",
  "double-brace",
  "percent-brace",
  "percent-paren",
  "brace-field",
  "brace-index",
  "colon",
  "printf",
  "plain",
] as const;
export type MessageSyntax = (typeof messageSyntaxNames)[number];

/** How a book says its syntax: a name, or its own placeholders by a pattern with `{name}` in it. */
export type SyntaxSetting = MessageSyntax | { readonly argument: string };

/** Where a book keeps plurals, as it can name it. */
export const pluralFormNames = ["inline", "branches", "suffix", "bar"] as const;
export type PluralForms = (typeof pluralFormNames)[number];
