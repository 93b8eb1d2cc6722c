import { readRows } from "../../catalog/formats/table/table.js";
import { lineIndex } from "../../text/line-index.js";
import type { Carrier } from "./carrier.js";
import { columns, headsOf, readRowsBack, rowsOf } from "./rows.js";

/** What programs for tables take for the beginning of a formula. */
const formula = /^'*[=+\-@\t\r]/;

/** Comma-separated values (RFC 4180) with a byte order mark, so that tables show every script. */
export const csv: Carrier = {
  name: "csv",
  ending: ".csv",
  summary: "a table, for anything that opens tables",
  *write(handoff) {
    yield `\uFEFF${headsOf(handoff).map(cellOf).join(",")}\r\n`;
    for (const row of rowsOf(handoff)) yield `${columns.map((column) => cellOf(row[column])).join(",")}\r\n`;
  },
  recognizes: (file, head) => /\.(?:csv|tsv|txt)$/i.test(file) && /^\uFEFF?[^\n]*\btranslation\b/.test(head),
  read({ chunks }) {
    const text = [...chunks()].join("").replace(/^\uFEFF/, "");
    const { rows, problem } = readRows(text);
    const lines = lineIndex(text);
    if (problem) {
      const { messageId, data, message, remedy, span } = problem;
      return { ok: false, messageId, data, message, remedy, line: lines.position(span.start).line };
    }
    return readRowsBack(
      rows.map(({ cells, start }) => ({
        cells: cells.map(({ value }) => (/^'+[=+\-@\t\r]/.test(value) ? value.slice(1) : value)),
        line: lines.position(start).line,
      })),
    );
  },
};

/** A cell: quoted, and behind an apostrophe where a program would run it. */
function cellOf(value: string): string {
  const safe = formula.test(value) ? `'${value}` : value;
  return /[",\r\n;\t]|^\s|\s$/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
