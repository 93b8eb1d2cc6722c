import type { EntryState } from "../../ledger/ledger.js";
import { aboutLines, formOf, type HandoffEntry, type ReturnedUnit } from "../handoff.js";
import type { Inline } from "../inline.js";
import { escapeXml, notInXml, readXml, xmlAttributes } from "../xml.js";
import type { Carrier } from "./carrier.js";
import { codeOfPlace, InlineReader, placeIds } from "./xliff-inlines.js";

/** The states of XLIFF 1.2 (section 2.3, "state") for ours, and back. */
const written: Readonly<Record<EntryState, string>> = {
  initial: "needs-translation",
  translated: "translated",
  reviewed: "signed-off",
  final: "final",
};
const read: Readonly<Record<string, EntryState>> = {
  new: "initial",
  "needs-translation": "initial",
  "needs-adaptation": "initial",
  "needs-l10n": "initial",
  translated: "translated",
  "needs-review-translation": "translated",
  "needs-review-adaptation": "translated",
  "needs-review-l10n": "translated",
  "signed-off": "reviewed",
  final: "final",
};

/** A code point that XML cannot hold, as a code of its own. */
const pointCode = /^u-([0-9A-F]{4,6})$/;

/** XLIFF 1.2 (OASIS Standard, 2008), for editors that read nothing newer. */
export const xliff12: Carrier = {
  name: "xliff-1.2",
  ending: ".xlf",
  summary: "XLIFF 1.2, for older translation editors",
  *write({ source, target, entries }) {
    yield '<?xml version="1.0" encoding="UTF-8"?>\n<xliff version="1.2" xmlns="urn:oasis:names:tc:xliff:document:1.2">\n';
    const books = new Map<string, HandoffEntry[]>();
    for (const entry of entries) {
      const all = books.get(entry.book) ?? [];
      books.set(entry.book, all);
      all.push(entry);
    }
    for (const [book, all] of books) {
      yield `  <file${xmlAttributes({ original: book, "source-language": source, "target-language": target, datatype: "plaintext" })}>\n    <body>\n`;
      for (const entry of all) yield* writeEntry(entry);
      yield "    </body>\n  </file>\n";
    }
    yield "</xliff>\n";
  },
  recognizes: (_file, head) =>
    /<(?:\w{1,20}:)?xliff\s[^<>]{0,1000}?\bversion\s{0,9}=\s{0,9}["']1\.[0-9]["']/.test(head),
  read({ chunks }) {
    const units: ReturnedUnit[] = [];
    const languages: { source?: string; target?: string } = {};
    let unit: OpenUnit | undefined;
    let part: { readonly of: string; readonly inlines: InlineReader } | undefined;
    /** Elements inside of an inline one hold native code, which is ours already. */
    let native = 0;
    let isAlternative = false;
    const problem = readXml(chunks(), {
      open(prefixed, attributes, line) {
        const name = prefixed.replace(/^\w+:/, "");
        const { id = "", rid } = attributes;
        if (part && part.of !== "note") {
          const code = codeOfPlace(id);
          const point = pointCode.exec(code)?.[1];
          if (native > 0 || /^(?:ph|it|bpt|ept)$/.test(name)) native++;
          if (native > 1) return;
          if (point !== undefined) part.inlines.text(String.fromCodePoint(Number.parseInt(point, 16)));
          else if (name === "g") part.inlines.open(code, "g");
          else if (name === "ph" || name === "x" || name === "it") part.inlines.code(code);
          else if (name === "bpt" || name === "bx") part.inlines.open(code, rid ?? id);
          else if (name === "ept" || name === "ex") part.inlines.close(rid ?? id);
          return;
        }
        if (name === "file") {
          languages.source = attributes["source-language"] ?? "";
          languages.target = attributes["target-language"] ?? "";
        } else if (name === "alt-trans") isAlternative = true;
        else if (name === "trans-unit")
          unit = {
            id: id,
            line,
            made: attributes["extradata"],
            state: undefined,
            target: undefined,
            given: new InlineReader(),
            notes: [],
          };
        else if (unit && !isAlternative && name === "source") part = { of: name, inlines: unit.given };
        else if (unit && !isAlternative && name === "target") {
          unit.state = read[attributes["state"] ?? ""];
          unit.target = new InlineReader();
          part = { of: name, inlines: unit.target };
        } else if (unit && name === "note")
          part = { of: attributes["from"] === "fond" ? "skipped" : "note", inlines: new InlineReader() };
      },
      close(prefixed) {
        const name = prefixed.replace(/^\w+:/, "");
        if (native > 0) {
          native--;
          return;
        }
        if (part && (name === "note" || name === part.of)) {
          if (part.of === "note") unit?.notes.push(part.inlines.written.trim());
          part = undefined;
        } else if (part && name === "g") part.inlines.close("g");
        else if (name === "alt-trans") isAlternative = false;
        else if (name === "trans-unit" && unit) {
          units.push(returned(unit));
          unit = undefined;
        }
      },
      text(value) {
        if (native === 0) part?.inlines.text(value);
      },
    });
    return problem ? { ok: false, ...problem } : { ok: true, document: { ...languages, units } };
  },
};

interface OpenUnit {
  readonly id: string;
  readonly line: number;
  readonly made: string | undefined;
  state: EntryState | undefined;
  target: InlineReader | undefined;
  readonly given: InlineReader;
  readonly notes: string[];
}

function returned({ id, line, made, state, target, given, notes }: OpenUnit): ReturnedUnit {
  const [source, text] = made?.split(" ") ?? [];
  const inlines = target?.inlines;
  return {
    id,
    line,
    ...(source !== undefined && { made: { source, text: text ?? "-" } }),
    ...(target && target.written !== "" && (inlines ? { text: inlines } : { torn: target.written })),
    ...(state !== undefined && { state }),
    ...(given.written !== "" && { given: given.written }),
    ...(notes.length > 0 && { note: notes.join("\n") }),
  };
}

function* writeEntry(entry: HandoffEntry): Iterable<string> {
  const isGroup = entry.units.length > 1;
  const indent = isGroup ? "        " : "      ";
  if (isGroup) yield `      <group${xmlAttributes({ id: entry.id, resname: entry.key })}>\n`;
  for (const unit of entry.units) {
    const form = formOf(unit.choices);
    const state =
      unit.target && entry.what !== "stale" && entry.state !== "initial" ? entry.state : "initial";
    yield `${indent}<trans-unit${xmlAttributes({
      id: unit.id,
      resname: form === "" ? entry.key : `${entry.key} · ${form}`,
      extradata: `${entry.source} ${entry.text}`,
      "xml:space": "preserve",
    })}>\n`;
    yield `${indent}  <source>${writeInlines(unit.source, entry)}</source>\n`;
    if (unit.target)
      yield `${indent}  <target${xmlAttributes({ state: written[state] })}>${writeInlines(unit.target, entry)}</target>\n`;
    const about = aboutLines(entry);
    for (const { text } of form === "" ? about : [{ text: form }, ...about])
      yield `${indent}  <note from="fond" annotates="source">${escapeXml(text)}</note>\n`;
    yield `${indent}</trans-unit>\n`;
  }
  if (isGroup) yield "      </group>\n";
}

function writeInlines(inlines: readonly Inline[], entry: HandoffEntry, idOf = placeIds()): string {
  return inlines
    .map((one) => {
      if (one.kind === "text") return writeText(one.value, idOf);
      const { open = "" } = entry.codes.get(one.id) ?? {};
      const attributes = xmlAttributes({ id: idOf(one.id), "equiv-text": open });
      return one.kind === "code"
        ? `<x${attributes}/>`
        : `<g${attributes}>${writeInlines(one.children, entry, idOf)}</g>`;
    })
    .join("");
}

function writeText(text: string, idOf: (code: string) => string): string {
  if (!notInXml.test(text)) return escapeXml(text);
  return [...text]
    .map((one) => {
      if (!notInXml.test(one)) return escapeXml(one);
      const hex = (one.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0");
      return `<x id="${idOf(`u-${hex}`)}"/>`;
    })
    .join("");
}
