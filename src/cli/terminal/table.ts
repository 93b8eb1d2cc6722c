import Table from "cli-table3";
import { stripVTControlCharacters } from "node:util";
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

/**
 * Rows below a head as a table without lines; each column is as wide as its widest cell. A table that is wider than the window
 * leaves out the columns that say nothing, and becomes a list where that is not enough.
 */
export function columnsOf(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  colAligns: ("left" | "right")[],
  width = Infinity,
): string {
  const widths = head.map(
    (name, at) =>
      2 + rows.reduce((most, row) => Math.max(most, displayWidth(row[at] ?? "")), displayWidth(name)),
  );
  const sum = (kept: readonly number[]) => kept.reduce((all, at) => all + (widths[at] ?? 0), -2);
  const all = [...head.keys()];
  const telling = all.filter(
    (at) => at === 0 || rows.some((row) => !/^0?$/.test(stripVTControlCharacters(row[at] ?? ""))),
  );
  const kept = sum(all) <= width ? all : telling;
  if (sum(kept) > width) return listOf(head, rows, kept, colAligns, width);
  const only = (cells: readonly string[]) => kept.map((at) => cells[at] ?? "");
  const layout = {
    colAligns: kept.map((at) => colAligns[at] ?? "left"),
    colWidths: kept.map((at) => widths[at] ?? 0),
  };
  const parts: string[] = [];
  for (let at = 0; at === 0 || at < rows.length; at += portion) {
    const part = rows.slice(at, at + portion);
    parts.push(drawn(at === 0 ? only(head) : undefined, part.map(only), layout));
  }
  return withoutEndSpaces(parts.join("\n"));
}

/** The rows one below the other: words on a line, then numbers, each with what it counts. */
function listOf(
  head: readonly string[],
  rows: readonly (readonly string[])[],
  kept: readonly number[],
  colAligns: readonly ("left" | "right")[],
  width: number,
): string {
  return rows
    .map((row) => {
      const lines = [""];
      const put = (words: string, between: string) => {
        const last = lines.at(-1) ?? "";
        const joined = last.trim() === "" ? last + words : last + between + words;
        if (displayWidth(joined) <= width || last.trim() === "") lines[lines.length - 1] = joined;
        else lines.push(`  ${words}`);
      };
      const isNamed = (at: number) =>
        colAligns[at] === "right" && stripVTControlCharacters(head[at] ?? "") !== "";
      for (const at of kept) if (!isNamed(at)) put(row[at] ?? "", " ");
      lines.push("  ");
      for (const at of kept) {
        const cell = row[at] ?? "";
        if (isNamed(at) && !/^0?$/.test(stripVTControlCharacters(cell)))
          put(`${cell} ${head[at] ?? ""}`, ", ");
      }
      return lines.filter((line) => line.trim() !== "").join("\n");
    })
    .join("\n");
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
