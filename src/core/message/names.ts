/** The message syntaxes that a book can name. */
export const messageSyntaxNames = [
  "icu",
  "java",
  "mf2",
  "double-brace",
  "percent-brace",
  "percent-paren",
  "colon",
  "printf",
  "plain",
] as const;
export type MessageSyntax = (typeof messageSyntaxNames)[number];

/** Where a book keeps plurals, as it can name it. */
export const pluralFormNames = ["inline", "branches", "suffix", "bar"] as const;
export type PluralForms = (typeof pluralFormNames)[number];
