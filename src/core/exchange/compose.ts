import type { MessageNode } from "../message/model.js";
import { notices } from "../message/notices.js";
import type { MessageReader } from "../message/parse.js";
import { shortened } from "../text/shorten.js";
import type { Notice } from "../text/wording.js";
import type { HandoffUnit } from "./handoff.js";
import { codesIn, inlineText, sameInlines, type Inline, type ShownCode } from "./inline.js";
import { messageUnits } from "./units.js";

const say = notices("exchange/compose", {
  "unknown-code": {
    message: '"{key}" has a code that its source does not have: {code}',
    remedy: "use the codes of the source: {known}",
  },
  "lost-code": {
    message: '"{key}" has lost {code}: {text}',
    remedy: "put it where it belongs in the translation",
  },
  misplaced: {
    message: 'a code in "{key}" cannot stand where it does: {text}',
    remedy: "keep elements around words, and values alone",
  },
  unwritable: {
    message: 'the translation of "{key}" cannot be written in this file: {text}',
    remedy: "leave out signs that the message syntax takes for its own",
  },
});

/** A message whose texts are to be put together. */
export interface EntryToCompose {
  /** As people know it. */
  readonly key: string;
  /** As its catalog has it. */
  readonly entryKey: string;
  readonly units: readonly Pick<HandoffUnit, "source" | "choices">[];
  readonly codes: ReadonlyMap<string, ShownCode>;
  readonly source: readonly MessageNode[];
  /** The translation that is there; undefined for none, or a copy of the source. */
  readonly target: readonly MessageNode[] | undefined;
  readonly locale: string;
  readonly reader: MessageReader;
}

export type Composed =
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly notice: Notice };

/**
 * The text of a catalog that translations of all units make. Refused where a code was lost or invented, where one stands
 * where it cannot, and where the syntax would read anything else than what was written.
 */
export function composeEntry(entry: EntryToCompose, texts: readonly (readonly Inline[])[]): Composed {
  const { key, entryKey, units, codes, source, target, locale, reader } = entry;
  const no = (notice: Notice): Composed => ({ ok: false, notice });
  for (const text of texts) {
    const invented = codesIn(text).find((code) => !codes.has(code));
    if (invented !== undefined)
      return no(say("unknown-code", { key, code: invented, known: [...codes.keys()].join(", ") || "none" }));
  }
  for (const [index, unit] of units.entries()) {
    const text = texts[index] ?? [];
    const there = new Set(codesIn(text));
    // A number need not be shown where the form says it.
    const counted = unit.choices.filter(({ kind }) => kind !== "case").map(({ name }) => name);
    const lost = codesIn(unit.source).find((code) => !there.has(code) && !counted.includes(code));
    if (lost !== undefined)
      return no(
        say("lost-code", { key, code: codes.get(lost)?.open ?? lost, text: shortened(inlineText(text)) }),
      );
  }
  const shown = () => shortened(texts.map(inlineText).join(" · "));
  const nodes = messageUnits(source, target, locale, reader)?.compose(texts);
  if (!nodes) return no(say("misplaced", { key, text: shown() }));
  const text = reader.print(nodes);
  const again = messageUnits(source, reader.read(text, locale, entryKey).nodes, locale, reader);
  const isSame = again?.units.every(({ target: own = [] }, index) => sameInlines(own, texts[index] ?? []));
  return isSame === true ? { ok: true, text } : no(say("unwritable", { key, text: shown() }));
}
