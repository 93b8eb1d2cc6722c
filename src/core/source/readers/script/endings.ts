/** The endings of files that the reader of scripts reads. */
export const scriptEndings = [".js", ".jsx", ".mjs", ".cjs", ".ts", ".tsx", ".mts", ".cts"] as const;

/** Whether a file is a script, by its name. */
export function isScript(file: string): boolean {
  return scriptEndings.some((ending) => file.endsWith(ending));
}

/** Whether a file is written in XML, whatever its ending is: catalogs of desktop programs end as scripts do. */
export function startsAsXml(text: string): boolean {
  return /^\s{0,99}<(?:\?xml|!DOCTYPE)\s/.test(text);
}
