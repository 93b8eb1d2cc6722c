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
] as const;
export type FormatName = (typeof formatNames)[number];
