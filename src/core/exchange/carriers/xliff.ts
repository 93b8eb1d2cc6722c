import { entryStates, type EntryState } from "../../ledger/ledger.js";
import { directionOf } from "../../locale/script.js";
import {
  aboutLines,
  formOf,
  type Handoff,
  type HandoffEntry,
  type HandoffUnit,
  type ReturnedUnit,
} from "../handoff.js";
import type { Inline } from "../inline.js";
import { escapeXml, notInXml, readXml, xmlAttributes } from "../xml.js";
import type { Carrier } from "./carrier.js";
import { codeOfPlace, InlineReader, placeIds } from "./xliff-inlines.js";

/** Attributes of our own, which editors keep: the digests of what a unit was made of. */
const ownNamespace = "urn:fond-ledger:handoff:1";

/** XLIFF 2.1 (OASIS Standard, 2018): a unit for each text, those of one message in a group. */
export const xliff: Carrier = {
  name: "xliff",
  ending: ".xlf",
  summary: "XLIFF 2.1, for translation editors",
  *write(handoff) {
    yield '<?xml version="1.0" encoding="UTF-8"?>\n';
    yield `<xliff${xmlAttributes({
      xmlns: "urn:oasis:names:tc:xliff:document:2.0",
      "xmlns:fl": ownNamespace,
      version: "2.1",
      srcLang: handoff.source,
      trgLang: handoff.target,
    })}>\n`;
    const direction = { trgDir: directionOf(handoff.target) === "rtl" ? "rtl" : undefined };
    for (const [index, [book, entries]] of byBook(handoff).entries()) {
      yield `  <file${xmlAttributes({ id: `f${index + 1}`, original: book, ...direction })}>\n`;
      for (const entry of entries) yield* writeEntry(entry);
      yield "  </file>\n";
    }
    yield "</xliff>\n";
  },
  recognizes: (_file, head) =>
    /<(?:\w{1,20}:)?xliff\s[^<>]{0,1000}?\bversion\s{0,9}=\s{0,9}["']2\.[0-9]["']/.test(head),
  read({ chunks }) {
    const units: ReturnedUnit[] = [];
    let source: string | undefined;
    let target: string | undefined;
    let unit: OpenUnit | undefined;
    let part:
      { readonly of: "source" | "target" | "note" | "skipped"; readonly inlines: InlineReader } | undefined;
    let ignorable: { readonly from: InlineReader; hasTarget: boolean } | undefined;
    const problem = readXml(chunks(), {
      open(prefixed, attributes, line) {
        const name = prefixed.replace(/^\w+:/, "");
        if (part && part.of !== "note") {
          openInline(part.inlines, name, attributes);
          return;
        }
        switch (name) {
          case "xliff":
            source = attributes["srcLang"];
            target = attributes["trgLang"];
            break;
          case "unit":
            unit = {
              id: attributes["id"] ?? "",
              line,
              made: madeOf(attributes),
              segments: 0,
              filled: 0,
              before: "",
              state: undefined,
              inlines: new InlineReader(),
              given: new InlineReader(),
              notes: [],
            };
            break;
          case "segment":
            if (unit) {
              unit.segments++;
              unit.state = lowest(unit.state, stateOf(attributes["state"]));
            }
            break;
          case "ignorable":
            ignorable = { from: new InlineReader(), hasTarget: false };
            break;
          case "source":
            if (unit) part = { of: "source", inlines: ignorable ? ignorable.from : unit.given };
            break;
          case "target":
            if (ignorable) ignorable.hasTarget = true;
            if (unit) part = { of: "target", inlines: unit.inlines };
            break;
          case "note":
            // Notes that went out have a kind of ours; any other is the translator's.
            part = {
              of: unit && !(attributes["category"] ?? "").startsWith("fl-") ? "note" : "skipped",
              inlines: new InlineReader(),
            };
            break;
          default:
        }
      },
      close(prefixed) {
        const name = prefixed.replace(/^\w+:/, "");
        if (part && name === "note") {
          if (part.of === "note") unit?.notes.push(part.inlines.written.trim());
          part = undefined;
        } else if (part && (name === "source" || name === "target")) {
          if (name === "target" && unit && !ignorable && part.inlines.written !== unit.before) unit.filled++;
          if (unit) unit.before = unit.inlines.written;
          part = undefined;
        } else if (!part && name === "ignorable" && ignorable) {
          // Space between two segments stays where nobody said otherwise.
          if (unit && !ignorable.hasTarget) {
            unit.inlines.text(ignorable.from.written);
            unit.before = unit.inlines.written;
          }
          ignorable = undefined;
        } else if (part && part.of !== "note") closeInline(part.inlines, name);
        else if (name === "unit" && unit) {
          units.push(returned(unit));
          unit = undefined;
        }
      },
      text(value) {
        part?.inlines.text(value);
      },
    });
    if (problem) return { ok: false, ...problem };
    return {
      ok: true,
      document: { ...(source !== undefined && { source }), ...(target !== undefined && { target }), units },
    };
  },
};

interface OpenUnit {
  readonly id: string;
  readonly line: number;
  readonly made: ReturnedUnit["made"];
  segments: number;
  filled: number;
  /** What its translation was before the segment at hand. */
  before: string;
  state: EntryState | undefined;
  readonly inlines: InlineReader;
  readonly given: InlineReader;
  readonly notes: string[];
}

function returned({
  id,
  line,
  made,
  segments,
  filled,
  state,
  inlines,
  given,
  notes,
}: OpenUnit): ReturnedUnit {
  const text = inlines.inlines;
  return {
    id,
    line,
    ...(made && { made }),
    ...(filled > 0 && filled === segments && (text ? { text } : { torn: inlines.written })),
    ...(state !== undefined && { state }),
    ...(given.written !== "" && { given: given.written }),
    ...(notes.length > 0 && { note: notes.join("\n") }),
  };
}

function madeOf(attributes: Readonly<Record<string, string>>): ReturnedUnit["made"] {
  const source = Object.entries(attributes).find(([name]) => /(?:^|:)madeFrom$/.test(name))?.[1];
  const text = Object.entries(attributes).find(([name]) => /(?:^|:)hadText$/.test(name))?.[1];
  return source === undefined ? undefined : { source, text: text ?? "-" };
}

function stateOf(written: string | undefined): EntryState | undefined {
  return entryStates.find((state) => state === written);
}

function lowest(one: EntryState | undefined, other: EntryState | undefined): EntryState | undefined {
  if (one === undefined || other === undefined) return one ?? other;
  return entryStates.indexOf(one) < entryStates.indexOf(other) ? one : other;
}

function openInline(inlines: InlineReader, name: string, attributes: Readonly<Record<string, string>>): void {
  const { id = "", dataRef, dataRefStart, copyOf, startRef, hex } = attributes;
  const code = codeOfPlace(dataRef ?? dataRefStart ?? copyOf ?? id);
  if (name === "ph") inlines.code(code);
  else if (name === "pc") inlines.open(code, "pc");
  else if (name === "sc") inlines.open(code, id);
  else if (name === "ec") inlines.close(startRef ?? id);
  else if (name === "cp") inlines.text(String.fromCodePoint(Number.parseInt(hex ?? "fffd", 16) || 0xfffd));
}

function closeInline(inlines: InlineReader, name: string): void {
  if (name === "pc") inlines.close("pc");
}

function byBook({ entries }: Handoff): readonly (readonly [string, readonly HandoffEntry[]])[] {
  const books = new Map<string, HandoffEntry[]>();
  for (const entry of entries) {
    const all = books.get(entry.book) ?? [];
    books.set(entry.book, all);
    all.push(entry);
  }
  return [...books];
}

function* writeEntry(entry: HandoffEntry): Iterable<string> {
  const isGroup = entry.units.length > 1;
  const indent = isGroup ? "      " : "    ";
  const notes = aboutLines(entry);
  if (isGroup) {
    yield `    <group${xmlAttributes({ id: entry.id, name: entry.key })}>\n`;
    yield* writeNotes(notes, "      ");
  }
  for (const unit of entry.units) yield* writeUnit(entry, unit, isGroup ? [] : notes, indent);
  if (isGroup) yield "    </group>\n";
}

function* writeNotes(
  notes: readonly { readonly kind: string; readonly text: string }[],
  indent: string,
): Iterable<string> {
  if (notes.length === 0) return;
  yield `${indent}<notes>\n`;
  for (const { kind, text } of notes)
    yield `${indent}  <note${xmlAttributes({ category: `fl-${kind}`, appliesTo: "source" })}>${escapeXml(text)}</note>\n`;
  yield `${indent}</notes>\n`;
}

function* writeUnit(
  entry: HandoffEntry,
  unit: HandoffUnit,
  about: readonly { readonly kind: string; readonly text: string }[],
  indent: string,
): Iterable<string> {
  const form = formOf(unit.choices);
  const name = form === "" ? entry.key : `${entry.key} · ${form}`;
  yield `${indent}<unit${xmlAttributes({
    id: unit.id,
    name,
    "fl:madeFrom": entry.source,
    "fl:hadText": entry.text,
  })}>\n`;
  yield* writeNotes(form === "" ? about : [{ kind: "form", text: form }, ...about], `${indent}  `);
  if (entry.codes.size > 0) {
    yield `${indent}  <originalData>\n`;
    for (const [id, { open, close }] of entry.codes) {
      yield `${indent}    <data id="${escapeXml(id)}">${dataText(open)}</data>\n`;
      if (close !== undefined)
        yield `${indent}    <data id="${escapeXml(id)}--end">${dataText(close)}</data>\n`;
    }
    yield `${indent}  </originalData>\n`;
  }
  const state = unit.target ? (entry.state === "initial" ? "translated" : entry.state) : "initial";
  yield `${indent}  <segment${xmlAttributes({ state: entry.what === "stale" && unit.target ? "initial" : state })}>\n`;
  yield `${indent}    <source xml:space="preserve">${writeInlines(unit.source, entry)}</source>\n`;
  if (unit.target)
    yield `${indent}    <target xml:space="preserve">${writeInlines(unit.target, entry)}</target>\n`;
  yield `${indent}  </segment>\n${indent}</unit>\n`;
}

function writeInlines(inlines: readonly Inline[], { codes }: HandoffEntry, idOf = placeIds()): string {
  return inlines
    .map((one) => {
      if (one.kind === "text") return writeText(one.value);
      const { open = "", close = "" } = codes.get(one.id) ?? {};
      const id = idOf(one.id);
      if (one.kind === "code")
        return `<ph${xmlAttributes({ id, dataRef: one.id, disp: open, equiv: one.id, canDelete: "no" })}/>`;
      const attributes = xmlAttributes({
        id,
        dataRefStart: one.id,
        dataRefEnd: `${one.id}--end`,
        dispStart: open,
        dispEnd: close,
        canDelete: "no",
      });
      return `<pc${attributes}>${writeInlines(one.children, { codes } as HandoffEntry, idOf)}</pc>`;
    })
    .join("");
}

/** Text in a segment; what XML cannot hold as a code point of its own (section 4.2.3.1, "cp"). */
function writeText(text: string): string {
  return withCodePoints(text, (hex) => `<cp hex="${hex}"/>`);
}

function dataText(text: string): string {
  return withCodePoints(text, (hex) => `<cp hex="${hex}"/>`);
}

function withCodePoints(text: string, write: (hex: string) => string): string {
  if (!notInXml.test(text)) return escapeXml(text);
  return [...text]
    .map((one) =>
      notInXml.test(one)
        ? write((one.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0"))
        : escapeXml(one),
    )
    .join("");
}
