import Table from "cli-table3";
import { throughPlainCodes } from "./style.js";
import { displayWidth } from "../../core/text/width.js";

/** A table without lines, its columns parted by space. */
const plainTable = {
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

/** So many rows are laid out at once: a table of thousands takes its layout longer than linear time. */
const portion = 200;

/** Rows below a head as a table without lines; each column is as wide as its widest cell. */
export function columnsOf(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  colAligns: ("left" | "right")[],
): string {
  const colWidths = head.map(
    (name, at) =>
      2 + rows.reduce((most, row) => Math.max(most, displayWidth(row[at] ?? "")), displayWidth(name)),
  );
  const parts: string[] = [];
  for (let at = 0; at === 0 || at < rows.length; at += portion) {
    const part = rows.slice(at, at + portion);
    parts.push(drawn(at === 0 ? head : undefined, part, { colAligns, colWidths }));
  }
  return withoutEndSpaces(parts.join("\n"));
}

/** A table's text; words wrap in columns of a given width where that is asked for. */
export function drawn(
  head: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  layout: Pick<Table.TableConstructorOptions, "colAligns" | "colWidths" | "wordWrap">,
): string {
  return throughPlainCodes([...(head ?? []), ...rows.flat()], (cells) => {
    const names = head ? cells.splice(0, head.length) : [];
    const table = new Table({ ...plainTable, ...layout, head: names });
    for (const row of rows) table.push(cells.splice(0, row.length));
    return table.toString();
  });
}
