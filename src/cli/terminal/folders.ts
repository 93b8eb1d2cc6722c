import { groupBy } from "../../core/text/group-by.js";
import { onOneLine } from "../../output/safe-text.js";
import { counted, type Style } from "./style.js";

/** No more folders are listed in a summary. */
const mostFolders = 12;
/** How wide the column of folders is at most. */
const widest = 50;

/** A column of a table by folder: its head, and what of a folder's items it counts. */
export interface FolderColumn<Item> {
  readonly head: string;
  counts(item: Item): boolean;
}

/** Where items are, as lines: a row for each folder, the fullest first. */
export function foldersTable<Item extends { readonly file: string }>(
  items: readonly Item[],
  columns: readonly FolderColumn<Item>[],
  style: Style,
): string[] {
  const rows = [...groupBy(items, ({ file }) => folderOf(file))]
    .map(([folder, own]) => ({ folder, own }))
    .sort((a, b) => b.own.length - a.own.length || (a.folder < b.folder ? -1 : 1));
  const top = rows.slice(0, mostFolders);
  const wide = Math.min(Math.max(...top.map(({ folder }) => onOneLine(folder).length), 6), widest);
  const widths = columns.map(({ head }) => Math.max(head.length, 6));
  const cell = (text: string, at: number) => text.padStart(widths[at] ?? 6);
  return [
    style.bold(["Folder".padEnd(wide), ...columns.map(({ head }, at) => cell(head, at))].join("  ")),
    ...top.map(({ folder, own }) => {
      const name = onOneLine(folder);
      const cut = name.length > wide ? `…${name.slice(name.length - wide + 1)}` : name.padEnd(wide);
      return [cut, ...columns.map(({ counts }, at) => cell(String(own.filter(counts).length), at))].join(
        "  ",
      );
    }),
    ...(rows.length > top.length
      ? [style.dim(`… and ${counted(rows.length - top.length, "more folder", "more folders")}`)]
      : []),
  ];
}

/** What a literal stands in, in words, by its role. */
export function kindOfRole(role: string): string {
  return role === "content" ? "between tags" : role === "attribute" ? "in attributes" : "in strings";
}

function folderOf(file: string): string {
  const at = file.lastIndexOf("/");
  return at < 0 ? "." : file.slice(0, at);
}
