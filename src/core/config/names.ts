/** The message syntaxes that a book can name. */
export const messageSyntaxNames = ["icu"] as const;
export type MessageSyntax = (typeof messageSyntaxNames)[number];
