/** The formats of catalogs, as a book can name them. */
export const formatNames = [
  "json",
  "jsonc",
  "json5",
  "yaml",
  "properties",
  "csv",
  "script",
  "php",
  "toml",
  "python",
  "ruby",
] as const;
export type FormatName = (typeof formatNames)[number];

/** How the words of a key are joined: `cartTitle`, `cart-title`, `cart_title`, `CartTitle`, `CART_TITLE`. */
export const letterCases = ["camel", "kebab", "snake", "pascal", "upper"] as const;
export type LetterCase = (typeof letterCases)[number];
