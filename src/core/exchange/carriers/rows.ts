import { entryStates, type EntryState } from "../../ledger/ledger.js";
import { notices } from "../../message/notices.js";
import { aboutLines, formOf, type Handoff, type ReturnedUnit } from "../handoff.js";
import { inlineText, readInlineText } from "../inline.js";
import type { ReadDocument } from "./carrier.js";

/** The columns of a table for translators, in their order. */
export const columns = [
  "key",
  "form",
  "source",
  "translation",
  "state",
  "note",
  "about",
  "id",
  "made",
] as const;

type Column = (typeof columns)[number];

const say = notices("exchange/table", {
  "no-column": {
    message: 'missing column "{column}" in the first row',
    remedy: "keep the first row as it came; the order of columns does not matter",
  },
});

/** The heads of the columns: those of the texts name their locales. */
export function headsOf({ source, target }: Pick<Handoff, "source" | "target">): readonly string[] {
  return columns.map((column) =>
    column === "source" ? `source ${source}` : column === "translation" ? `translation ${target}` : column,
  );
}

/** A row for each unit. */
export function* rowsOf({ entries }: Handoff): Generator<Readonly<Record<Column, string>>> {
  for (const entry of entries) {
    const about = aboutLines(entry)
      .map(({ text }) => text)
      .join("\n");
    for (const unit of entry.units)
      yield {
        key: entry.key,
        form: formOf(unit.choices),
        source: inlineText(unit.source),
        translation: unit.target ? inlineText(unit.target) : "",
        state: unit.target && entry.what !== "stale" && entry.state !== "initial" ? entry.state : "initial",
        note: "",
        about,
        id: unit.id,
        made: `${entry.source} ${entry.text}`,
      };
  }
}

/** Units from rows of cells, the first with the heads. A note is what the translator wrote in its column. */
export function readRowsBack(
  rows: Iterable<{ readonly cells: readonly string[]; readonly line: number }>,
): ReadDocument {
  const units: ReturnedUnit[] = [];
  const places = new Map<string, number>();
  const languages: { source?: string; target?: string } = {};
  let isHead = true;
  for (const { cells, line } of rows) {
    if (isHead) {
      isHead = false;
      for (const [index, cell] of cells.entries()) {
        const [name = "", locale] = cell.trim().split(/\s+/);
        places.set(name, index);
        if (name === "source" && locale !== undefined) languages.source = locale;
        if (name === "translation" && locale !== undefined) languages.target = locale;
      }
      const lacking = ["id", "translation"].find((name) => !places.has(name));
      if (lacking !== undefined) return { ok: false, line, ...say("no-column", { column: lacking }) };
      continue;
    }
    const cell = (name: Column) => cells[places.get(name) ?? -1] ?? "";
    if (cell("id").trim() === "") continue;
    const [source, text = "-"] = cell("made").split(" ");
    const translation = cell("translation");
    const inlines = readInlineText(translation);
    const state: EntryState | undefined = entryStates.find(
      (one) => one === cell("state").trim().toLowerCase(),
    );
    units.push({
      id: cell("id").trim(),
      line,
      ...(source && { made: { source, text } }),
      ...(translation !== "" && (inlines ? { text: inlines } : { torn: translation })),
      ...(state !== undefined && { state }),
      ...(cell("source") !== "" && { given: cell("source") }),
      ...(cell("note").trim() !== "" && { note: cell("note").trim() }),
    });
  }
  return { ok: true, document: { ...languages, units } };
}
