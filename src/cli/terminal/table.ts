/** A table without lines, its columns parted by space. */
export const plainTable = {
  style: { head: [] as string[], border: [] as string[], "padding-left": 0, "padding-right": 2 },
  chars: Object.fromEntries(
    "top top-mid top-left top-right bottom bottom-mid bottom-left bottom-right left left-mid mid mid-mid right right-mid middle"
      .split(" ")
      .map((name) => [name, ""]),
  ),
};

/** A table's text without the spaces that fill its last column. */
export function withoutEndSpaces(table: string): string {
  return table
    .split("\n")
    .map((line) => line.trimEnd())
    .join("\n");
}
