import { createRequire } from "node:module";
import type * as Fflate from "fflate";
import { directionOf } from "../../locale/script.js";
import { notices } from "../../message/notices.js";
import { lazily } from "../../text/lazy.js";
import { escapeXml, readXml } from "../xml.js";
import type { Carrier, ReadDocument } from "./carrier.js";
import { columns, headsOf, readRowsBack, rowsOf } from "./rows.js";

const require = createRequire(import.meta.url);
const fflate = lazily(() => require("fflate") as typeof Fflate);

const say = notices("exchange/xlsx", {
  "no-archive": { message: "not a spreadsheet: {detail}", remedy: "save it as .xlsx" },
  "no-sheet": { message: "the spreadsheet has no table", remedy: "save the table that came as .xlsx" },
  large: {
    message: "unpacked, the spreadsheet has more than {most} MB",
    remedy: "hand the work out in parts: fond handoff --split",
  },
});

/** More than this, unpacked, no table of texts has; in bytes. */
const mostUnpacked = 300_000_000;
const mostRows = 1_048_576;
const mostCells = 200;

/** A spreadsheet (Office Open XML, ECMA-376 Part 1): all cells are texts, so that none is a formula. */
export const xlsx: Carrier = {
  name: "xlsx",
  ending: ".xlsx",
  summary: "a spreadsheet",
  *write(handoff) {
    const { Zip, ZipDeflate, strToU8 } = fflate();
    const out: Uint8Array[] = [];
    const zip = new Zip((error, data) => {
      if (error) throw error;
      out.push(data);
    });
    const add = (name: string) => {
      const file = new ZipDeflate(name, { level: 6 });
      // The same work makes the same bytes.
      file.mtime = new Date(2000, 0, 1);
      zip.add(file);
      return (text: string, isLast = false) => {
        file.push(strToU8(text), isLast);
      };
    };
    for (const [name, text] of Object.entries(fixedParts)) add(name)(text, true);
    const sheet = add("xl/worksheets/sheet1.xml");
    const isRtl = directionOf(handoff.target) === "rtl";
    sheet(sheetStart);
    sheet(rowXml(1, headsOf(handoff), () => 1));
    let number = 1;
    for (const row of rowsOf(handoff)) {
      number++;
      const styleOf = (column: number) => (columns[column] === "translation" ? (isRtl ? 4 : 3) : 2);
      sheet(
        rowXml(
          number,
          columns.map((column) => row[column]),
          styleOf,
        ),
      );
      yield* out.splice(0);
    }
    sheet(`</sheetData><autoFilter ref="A1:I${number}"/></worksheet>`, true);
    zip.end();
    yield* out.splice(0);
  },
  recognizes: (file) => /\.xlsx$/i.test(file),
  read({ bytes }) {
    const { unzipSync, strFromU8 } = fflate();
    let size = 0;
    let parts: Readonly<Record<string, Uint8Array>>;
    try {
      parts = unzipSync(bytes(), {
        filter: ({ name, originalSize }) => {
          const isWanted =
            /^xl\/(?:workbook\.xml|sharedStrings\.xml|_rels\/workbook\.xml\.rels|worksheets\/[\w.-]+\.xml)$/.test(
              name,
            );
          if (isWanted) size += originalSize;
          return isWanted && size <= mostUnpacked;
        },
      });
    } catch (error) {
      return {
        ok: false,
        ...say("no-archive", { detail: error instanceof Error ? error.message : String(error) }),
      };
    }
    if (size > mostUnpacked) return { ok: false, ...say("large", { most: mostUnpacked / 1_000_000 }) };
    const text = (name: string) => {
      const part = parts[name];
      return part ? inChunks(strFromU8(part)) : undefined;
    };
    const shared = readShared(text("xl/sharedStrings.xml"));
    if ("ok" in shared) return shared;
    const sheet = text(firstSheet(text("xl/workbook.xml"), text("xl/_rels/workbook.xml.rels")));
    if (!sheet) return { ok: false, ...say("no-sheet", {}) };
    return readSheet(sheet, shared);
  },
};

const start = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
const relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const packages = "http://schemas.openxmlformats.org/package/2006";

/** Columns in characters, as wide as what is in them; the head stays in sight. */
const widths = [28, 16, 48, 48, 11, 24, 48, 18, 18];
const sheetStart = `${start}<worksheet xmlns="${main}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><cols>${widths
  .map((width, index) => `<col min="${index + 1}" max="${index + 1}" width="${width}" customWidth="1"/>`)
  .join("")}</cols><sheetData>`;

const font = (rest: string) => `<font>${rest}<sz val="11"/><name val="Calibri"/></font>`;
const fill = (color: string) =>
  `<fill><patternFill patternType="solid"><fgColor rgb="${color}"/></patternFill></fill>`;
const format = (fontId: number, fillId: number, alignment: string) =>
  `<xf numFmtId="49" fontId="${fontId}" fillId="${fillId}" borderId="0" xfId="0" applyNumberFormat="1" applyFont="1" applyFill="1" applyAlignment="1"><alignment vertical="top" wrapText="1"${alignment}/></xf>`;

const fixedParts = {
  "[Content_Types].xml": `${start}<Types xmlns="${packages}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`,
  "_rels/.rels": `${start}<Relationships xmlns="${packages}/relationships"><Relationship Id="rId1" Type="${relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
  "xl/workbook.xml": `${start}<workbook xmlns="${main}" xmlns:r="${relations}"><sheets><sheet name="Texts" sheetId="1" r:id="rId1"/></sheets></workbook>`,
  "xl/_rels/workbook.xml.rels": `${start}<Relationships xmlns="${packages}/relationships"><Relationship Id="rId1" Type="${relations}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${relations}/styles" Target="styles.xml"/></Relationships>`,
  "xl/styles.xml": `${start}<styleSheet xmlns="${main}"><fonts count="2">${font("")}${font("<b/>")}</fonts><fills count="4"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill>${fill("FFE8EEF4")}${fill("FFFFFBE6")}</fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="5"><xf/>${format(1, 2, "")}${format(0, 0, "")}${format(0, 3, "")}${format(0, 3, ' readingOrder="2" horizontal="right"')}</cellXfs></styleSheet>`,
} as const;

function rowXml(number: number, cells: readonly string[], styleOf: (column: number) => number): string {
  const written = cells.map((cell, index) =>
    cell === "" && index !== 3
      ? ""
      : `<c r="${String.fromCharCode(65 + index)}${number}" s="${styleOf(index)}" t="inlineStr"><is><t xml:space="preserve">${escapeXml(escapedPoints(cell))}</t></is></c>`,
  );
  return `<row r="${number}">${written.join("")}</row>`;
}

/** What XML cannot hold, as spreadsheets write it: `_x0001_` (ECMA-376 Part 1, section 22.9.2.19). */
function escapedPoints(text: string): string {
  return text
    .replace(/_(?=x[0-9A-Fa-f]{4}_)/g, "_x005F_")
    .replace(
      /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF\r]/g,
      (one) => `_x${one.charCodeAt(0).toString(16).toUpperCase().padStart(4, "0")}_`,
    );
}

function unescapedPoints(text: string): string {
  return text.includes("_x")
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))
    : text;
}

function* inChunks(text: string): Iterable<string> {
  for (let at = 0; at < text.length; at += 65_536) yield text.slice(at, at + 65_536);
}

/** The file of the first table of a workbook. */
function firstSheet(workbook: Iterable<string> | undefined, rels: Iterable<string> | undefined): string {
  let id: string | undefined;
  let file = "worksheets/sheet1.xml";
  if (workbook)
    readXml(workbook, {
      open: (name, attributes) => {
        if (/(?:^|:)sheet$/.test(name)) id ??= attributes["r:id"];
      },
      close: () => undefined,
      text: () => undefined,
    });
  if (rels)
    readXml(rels, {
      open: (_name, attributes) => {
        if (attributes["Id"] === id && attributes["Target"]) file = attributes["Target"];
      },
      close: () => undefined,
      text: () => undefined,
    });
  return `xl/${file.replace(/^\/?(?:xl\/)?/, "")}`;
}

/** The strings that cells refer to by number. */
function readShared(
  chunks: Iterable<string> | undefined,
): readonly string[] | Extract<ReadDocument, { ok: false }> {
  const strings: string[] = [];
  let text: string | undefined;
  let isText = false;
  const problem =
    chunks &&
    readXml(chunks, {
      open(prefixed) {
        const name = bare(prefixed);
        if (name === "si") text = "";
        else if (name === "t") isText = true;
        // How it is spoken is no part of a text.
        else if (name === "rPh") isText = false;
      },
      close(prefixed) {
        const name = bare(prefixed);
        if (name === "si") {
          strings.push(unescapedPoints(text ?? ""));
          text = undefined;
        } else if (name === "t") isText = false;
      },
      text(value) {
        if (isText && text !== undefined) text += value;
      },
    });
  return problem ? { ok: false, ...problem } : strings;
}

function readSheet(chunks: Iterable<string>, shared: readonly string[]): ReadDocument {
  const rows: { cells: string[]; line: number }[] = [];
  let row: { cells: string[]; line: number } | undefined;
  let cell: { readonly column: number; readonly type: string; value: string } | undefined;
  let isValue = false;
  const problem = readXml(chunks, {
    open(prefixed, attributes) {
      const name = bare(prefixed);
      if (name === "row") {
        row = { cells: [], line: Number(attributes["r"]) || rows.length + 1 };
        if (rows.length < mostRows) rows.push(row);
      } else if (name === "c" && row)
        cell = {
          column: columnOf(attributes["r"]) ?? row.cells.length,
          type: attributes["t"] ?? "n",
          value: "",
        };
      else if (name === "v" || name === "t") isValue = true;
    },
    close(prefixed) {
      const name = bare(prefixed);
      if (name === "v" || name === "t") isValue = false;
      else if (name === "c" && cell && row) {
        const { column, type, value } = cell;
        if (column < mostCells) {
          while (row.cells.length < column) row.cells.push("");
          row.cells[column] = type === "s" ? (shared[Number(value)] ?? "") : unescapedPoints(value);
        }
        cell = undefined;
      }
    },
    text(value) {
      if (isValue && cell) cell.value += value;
    },
  });
  return problem ? { ok: false, ...problem } : readRowsBack(rows);
}

/** An element's name without its prefix. */
function bare(name: string): string {
  return name.slice(name.indexOf(":") + 1);
}

/** The column of a cell's name, from 0: `C4` is 2. */
function columnOf(name: string | undefined): number | undefined {
  const letters = /^[A-Z]{1,3}/.exec(name ?? "")?.[0];
  return letters === undefined
    ? undefined
    : [...letters].reduce((sum, one) => sum * 26 + one.charCodeAt(0) - 64, 0) - 1;
}
