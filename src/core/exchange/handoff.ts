import type { TextChange } from "../plan/words.js";
import type { EntryState } from "../ledger/ledger.js";
import type { Inline, ShownCode } from "./inline.js";
import type { UnitChoice } from "./units.js";

/** The work of one locale's translators, as every carrier has it. */
export interface Handoff {
  readonly source: string;
  readonly target: string;
  readonly entries: readonly HandoffEntry[];
}

/** One message to translate, with all that a translator is shown of it. */
export interface HandoffEntry {
  /** Names book and key, in characters that XML's names and cells can have. */
  readonly id: string;
  readonly book: string;
  /** As code writes it. */
  readonly key: string;
  /** Why it is handed out: `incomplete` lacks a plural form or case; `done` is handed out all the same. */
  readonly what: "missing" | "initial" | "stale" | "incomplete" | "done";
  readonly state: EntryState;
  /** The digest of the source text, and that of the translation; `-` where there is none. */
  readonly source: string;
  readonly text: string;
  /** The key as its catalog has it, and the texts there: joined where forms have keys of their own. */
  readonly entryKey: string;
  readonly texts: { readonly source: string; readonly target?: string };
  readonly codes: ReadonlyMap<string, ShownCode>;
  readonly units: readonly HandoffUnit[];
  /** Set where the message could not be taken apart, and its one unit is the message as the catalog writes it. */
  readonly isRaw?: true;
  readonly about: AboutEntry;
}

export interface HandoffUnit {
  /** The entry's id with the choices that the text is for. */
  readonly id: string;
  readonly choices: readonly UnitChoice[];
  readonly source: readonly Inline[];
  /** The translation that is there; none for a copy of the source. */
  readonly target?: readonly Inline[];
}

/** What a translator may want to know of a message. */
export interface AboutEntry {
  /** The comment above the entry in the source catalog. */
  readonly description?: string;
  /** For a stale translation, the source text that it was made from, against that of today. */
  readonly change?: readonly TextChange[];
  /** Where code asks for it: a few places. */
  readonly uses: readonly CodeUse[];
  readonly limit?: { readonly most: number; readonly unit: "characters" | "columns" };
  readonly terms: readonly HandoffTerm[];
}

export interface CodeUse {
  readonly file: string;
  readonly line: number;
  /** The line of code, trimmed. */
  readonly code: string;
}

/** A term of the glossary that a source text has. */
export interface HandoffTerm {
  readonly source: string;
  readonly target: readonly string[];
  readonly avoided: readonly string[];
}

/** A document that came back from a translator, as its carrier read it. */
export interface ReturnedDocument {
  readonly source?: string;
  readonly target?: string;
  readonly units: readonly ReturnedUnit[];
}

export interface ReturnedUnit {
  readonly id: string;
  /** Undefined where nothing was filled in, or where codes are torn. */
  readonly text?: readonly Inline[];
  /** Set where what was filled in has a code that is not whole; as it is written. */
  readonly torn?: string;
  readonly state?: EntryState;
  /** What the translator says of it. */
  readonly note?: string;
  /** The digests that went out with it, where the document still has them. */
  readonly made?: { readonly source: string; readonly text: string };
  /** The source text as the document has it. */
  readonly given?: string;
  /** The line in the document, or the row, from 1. */
  readonly line: number;
}

/** The id of an entry: book and full key where both can stand in a name of XML, else with what cannot written by its code. */
export function entryId(book: string, fullKey: string, digest: (text: string) => string): string {
  const written = `${book}:${fullKey}`.replace(
    /[^A-Za-z0-9_.:-]|_(?=x[0-9a-f]+_)|^(?![A-Za-z_])|-{2,}/gu,
    (part) => [...part].map((one) => `_x${(one.codePointAt(0) ?? 0).toString(16)}_`).join(""),
  );
  return written.length <= 200 ? written : `${written.slice(0, 120)}..${digest(fullKey)}`;
}

/** The id of a unit: its entry's, and behind two hyphens what it is for. */
export function unitId(entry: string, choices: readonly UnitChoice[]): string {
  return [
    entry,
    ...choices.map(({ selector }) =>
      selector
        .replace(/^=/, "is-")
        .replace(/</g, "over")
        .replace(/[^A-Za-z0-9_.]/g, (one) =>
          one === "-" ? "-" : `_x${(one.codePointAt(0) ?? 0).toString(16)}_`,
        ),
    ),
  ].join("--");
}

/** What a unit is for, in words: `few (2, 3, 4, 22 …)`; empty for a message without choices. */
export function formOf(choices: readonly UnitChoice[]): string {
  return choices
    .map(({ name, kind, selector, numbers }) => {
      if (kind === "case") return `${name}: ${selector}`;
      if (kind === "range")
        return selector.endsWith("<") ? `over ${selector.slice(0, -1)}` : `from ${selector}`;
      if (selector.startsWith("=")) return `exactly ${selector.slice(1)}`;
      return `${selector}${numbers === undefined ? "" : ` (${numbers})`}`;
    })
    .join(", ");
}

/** What the source text was, with what is gone in `[-…-]` and what is new in `[+…+]`. */
export function changeText(change: readonly TextChange[]): string {
  return change
    .map(({ text, kind }) => (kind === "same" ? text : kind === "removed" ? `[-${text}-]` : `[+${text}+]`))
    .join("");
}

/** What a translator is shown of an entry, a line for each thing. */
export function aboutLines({
  about,
  isRaw,
}: HandoffEntry): readonly { readonly kind: string; readonly text: string }[] {
  const { description, change, uses, limit, terms } = about;
  return [
    ...(description === undefined ? [] : [{ kind: "description", text: description }]),
    ...(change === undefined
      ? []
      : [{ kind: "changed", text: `The source text has changed: ${changeText(change)}` }]),
    ...(limit === undefined ? [] : [{ kind: "limit", text: `At most ${limit.most} ${limit.unit}.` }]),
    ...terms.map(({ source, target, avoided }) => ({
      kind: "term",
      text: `${source}: ${target.join(", ") || "?"}${avoided.length > 0 ? ` (not ${avoided.join(", ")})` : ""}`,
    })),
    ...(isRaw
      ? [{ kind: "raw", text: "This is the message as the program has it: keep everything in braces." }]
      : []),
    ...uses.map(({ file, line, code }) => ({ kind: "used", text: `${file}:${line}  ${code}` })),
  ];
}
