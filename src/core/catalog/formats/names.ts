/** The names of the formats, as a configuration writes them. */
export const formatNames = ["json", "jsonc", "json5", "yaml", "properties", "csv"] as const;
export type FormatName = (typeof formatNames)[number];
