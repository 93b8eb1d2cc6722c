/** The endings of files that the reader of scripts reads. */
export const scriptEndings = [".js", ".jsx", ".mjs", ".cjs", ".ts", ".tsx", ".mts", ".cts"] as const;

/** Whether a file is a script, by its name. */
export function isScript(file: string): boolean {
  return scriptEndings.some((ending) => file.endsWith(ending));
}
