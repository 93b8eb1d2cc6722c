import { notices } from "../../../message/notices.js";
import { catalogContent, entryTable } from "../../entry-table.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import type {
  CatalogChanges,
  CatalogContent,
  CatalogFormat,
  CatalogProblem,
  Entry,
  PathPart,
} from "../../model.js";
import { insertionIndex, orderTree, pathId, pathSet } from "../edit-tree.js";

/** Which columns of a table hold what. */
export interface TableColumns {
  /** The columns that together name a row's thing. */
  readonly id: readonly string[];
  /** The column that names the row's locale. */
  readonly locale: string;
  /** The columns with texts; all others are left alone. */
  readonly text: readonly string[];
}

/**
 * Tables of comma-separated values (RFC 4180) with a row for each thing and locale. An entry's path is the row's id,
 * the column where there are several, and the locale as the row writes it.
 */
export function tableFormat(columns: TableColumns): CatalogFormat {
  return {
    name: "csv",
    extensions: ["csv"],
    holds: "all-locales",
    read: (text, separator) => readTable(text, columns, separator),
    edit: (text, changes) => editTable(text, columns, changes),
    empty: `${[...columns.id, columns.locale, ...columns.text].join(",")}\n`,
    comments: undefined,
    nests: true,
    canReorder: false,
    forBook: ({ table }) => {
      const { id = "key", locale = "locale", text = "text" } = table ?? {};
      const list = (value: string | readonly string[]) => (typeof value === "string" ? [value] : value);
      return tableFormat({ id: list(id), locale, text: list(text) });
    },
    offsetInFile: (text, { valueSpan: { start, end } }, offset) => {
      if (text[start] !== '"') return Math.min(start + offset, end);
      let at = start + 1;
      for (let unit = 0; unit < offset && at < end; unit++) at += text.startsWith('""', at) ? 2 : 1;
      return at;
    },
  };
}

interface Cell {
  readonly value: string;
  readonly start: number;
  readonly end: number;
}

interface Row {
  readonly cells: readonly Cell[];
  readonly start: number;
  /** Behind the row's line end. */
  readonly end: number;
}

interface Table {
  readonly delimiter: string;
  readonly rows: readonly Row[];
  readonly problem?: CatalogProblem;
}

const say = notices("table", {
  unclosed: { message: "unclosed quote", remedy: 'close it with ", and write "" for a quote inside a text' },
  "no-column": {
    message: 'missing column "{column}"',
    remedy: 'set the book\'s "table" to columns of the file: {columns}',
  },
});

/** Reads rows of cells; a quote that is never closed is a problem. */
export function readRows(text: string): Table {
  const head = /^[^\r\n]*/.exec(text)?.[0] ?? "";
  const count = (unit: string) => head.split(unit).length;
  const delimiter = [",", ";", "\t"].reduce((best, unit) => (count(unit) > count(best) ? unit : best));
  const rows: Row[] = [];
  let at = 0;
  while (at < text.length) {
    const start = at;
    const cells: Cell[] = [];
    for (;;) {
      const from = at;
      let value: string;
      if (text[at] === '"') {
        value = "";
        for (at++; ; at++) {
          const quote = text.indexOf('"', at);
          if (quote < 0)
            return {
              delimiter,
              rows,
              problem: {
                code: "syntax",
                ...say("unclosed", {}),
                span: { start: from, end: from + 1 },
              },
            };
          value += text.slice(at, quote);
          at = quote + 1;
          if (text[at] !== '"') break;
          value += '"';
        }
        while (at < text.length && text[at] !== delimiter && text[at] !== "\n" && text[at] !== "\r") at++;
      } else {
        while (at < text.length && text[at] !== delimiter && text[at] !== "\n" && text[at] !== "\r") at++;
        value = text.slice(from, at);
      }
      cells.push({ value, start: from, end: at });
      if (text[at] !== delimiter) break;
      at++;
    }
    if (text.startsWith("\r\n", at)) at += 2;
    else if (at < text.length) at++;
    if (cells.length > 1 || cells[0]?.value !== "") rows.push({ cells, start, end: at });
  }
  return { delimiter, rows };
}

interface Places {
  readonly id: readonly number[];
  readonly locale: number;
  readonly text: readonly (readonly [name: string, place: number])[];
}

function placesIn(header: Row | undefined, columns: TableColumns): Places | CatalogProblem {
  const names = header?.cells.map(({ value }) => value.trim()) ?? [];
  const missing = [...columns.id, columns.locale, ...columns.text].find((name) => !names.includes(name));
  if (missing !== undefined)
    return {
      code: "shape",
      ...say("no-column", { column: missing, columns: names.join(", ") || "no columns" }),
      span: { start: 0, end: header?.end ?? 0 },
    };
  return {
    id: columns.id.map((name) => names.indexOf(name)),
    locale: names.indexOf(columns.locale),
    text: columns.text.map((name) => [name, names.indexOf(name)]),
  };
}

function rowPath(row: Row, places: Places): readonly PathPart[] {
  return places.id.map((place) => row.cells[place]?.value ?? "");
}

function readTable(text: string, columns: TableColumns, separator: string): CatalogContent {
  const { rows, problem } = readRows(text);
  const [header, ...data] = rows;
  const places = placesIn(header, columns);
  if ("code" in places) return catalogContent(entryTable([]), { problems: [problem ?? places] });
  const entries: Entry[] = [];
  for (const row of data) {
    const locale = row.cells[places.locale]?.value ?? "";
    const id = rowPath(row, places);
    const idCell = row.cells[places.id[0] ?? 0];
    for (const [name, place] of places.text) {
      const cell = row.cells[place];
      if (!cell || !idCell) continue;
      const path = [...id, ...(places.text.length > 1 ? [name] : []), locale];
      entries.push({
        key: path.join(separator),
        path,
        text: cell.value,
        kind: "text",
        keySpan: { start: idCell.start, end: idCell.end },
        valueSpan: { start: cell.start, end: cell.end },
      });
    }
  }
  return catalogContent(entryTable(entries), { problems: problem ? [problem] : [] });
}

function editTable(text: string, columns: TableColumns, changes: CatalogChanges): string {
  const { rows, delimiter } = readRows(text);
  const [header, ...data] = rows;
  const places = placesIn(header, columns);
  if ("code" in places || !header) throw new Error("a table that cannot be read cannot be edited");
  const lineEnd = /\r\n|\n|\r/.exec(text)?.[0] ?? "\n";
  const quotesAll = data.some(
    ({ cells }) => cells.length > 0 && cells.every(({ start }) => text[start] === '"'),
  );
  const encode = (value: string) =>
    quotesAll || value.includes(delimiter) || /["\r\n]|^\s|\s$/.test(value)
      ? `"${value.replaceAll('"', '""')}"`
      : value;
  const several = places.text.length > 1;
  const split = (path: readonly PathPart[]) => ({
    row: pathId([...path.slice(0, places.id.length), path.at(-1) ?? ""]),
    column: several ? String(path[places.id.length]) : (places.text[0]?.[0] ?? ""),
  });
  const idOf = (row: Row) => pathId([...rowPath(row, places), row.cells[places.locale]?.value ?? ""]);
  const byId = new Map<PathPart, number>(data.map((row, index) => [idOf(row), index]));
  const edits: TextEdit[] = [];
  const write = (row: Row, column: string, value: string) => {
    const cell = row.cells[places.text.find(([name]) => name === column)?.[1] ?? -1];
    if (!cell) throw new Error(`no column ${column} in a row`);
    edits.push({ start: cell.start, end: cell.end, replacement: encode(value) });
  };
  for (const { path, text: value } of changes.set ?? []) {
    const { row, column } = split(path);
    const there = data[byId.get(row) ?? -1];
    if (!there) throw new Error(`no row for ${path.join(".")}`);
    write(there, column, value);
  }
  const removals = pathSet(changes.remove ?? []);
  const removed = new Set<number>();
  for (const [index, row] of data.entries()) {
    const locale = row.cells[places.locale]?.value ?? "";
    const gone = places.text.filter(([name]) =>
      removals.has(pathId([...rowPath(row, places), ...(several ? [name] : []), locale])),
    );
    if (gone.length === 0) continue;
    if (gone.length === places.text.length) {
      removed.add(index);
      edits.push({ start: row.start, end: row.end, replacement: "" });
    } else for (const [name] of gone) write(row, name, "");
  }
  const order = orderTree((changes.order ?? []).map((path) => [split(path).row])).at([]);
  const fresh = new Map<string, { path: readonly PathPart[]; texts: Map<string, string> }>();
  for (const { path, text: value } of changes.add ?? []) {
    const { row, column } = split(path);
    const there = byId.get(row);
    const known = there === undefined || removed.has(there) ? undefined : data[there];
    if (known) write(known, column, value);
    else {
      const made = fresh.get(row) ?? { path, texts: new Map<string, string>() };
      made.texts.set(column, value);
      fresh.set(row, made);
    }
  }
  const inserted = new Map<number, { id: string; line: string }[]>();
  for (const [id, { path, texts }] of fresh) {
    // A row for another locale goes below those of the same thing, and else where the source has it.
    const same = data.findLastIndex(
      (row, index) =>
        !removed.has(index) && idOf(row).startsWith(`${id.slice(0, id.lastIndexOf("\u0000"))}\u0000`),
    );
    let after =
      same >= 0 ? same : insertionIndex(data.length, byId, (index) => !removed.has(index), order, id);
    // Not among the rows of another thing.
    const thing = (index: number) => {
      const row = data[index];
      return row && pathId(rowPath(row, places));
    };
    while (same < 0 && after >= 0 && thing(after) === thing(after + 1)) after++;
    const cells = header.cells.map((_, place) => {
      const idPlace = places.id.indexOf(place);
      if (idPlace >= 0) return encode(String(path[idPlace]));
      if (place === places.locale) return encode(String(path.at(-1)));
      const column = places.text.find((one) => one[1] === place)?.[0];
      return column === undefined ? (quotesAll ? '""' : "") : encode(texts.get(column) ?? "");
    });
    inserted.set(after, [...(inserted.get(after) ?? []), { id, line: cells.join(delimiter) }]);
  }
  for (const [index, list] of inserted) {
    list.sort((a, b) => order.rank(a.id) - order.rank(b.id));
    const at = data[index]?.end ?? header.end;
    const isOpen = !/[\r\n]$/.test(text.slice(0, at));
    const lines = list.map(({ line }) => line).join(lineEnd);
    edits.push({ start: at, end: at, replacement: isOpen ? lineEnd + lines : lines + lineEnd });
  }
  return applyEdits(text, edits);
}
