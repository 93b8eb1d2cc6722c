import * as v from "valibot";
import { entryStates } from "../../ledger/ledger.js";
import { notices } from "../../message/notices.js";
import { readInlineText } from "../inline.js";
import type { Carrier } from "./carrier.js";

const say = notices("exchange/work", {
  broken: {
    message: "not a file that the translators' page saved: {detail}",
    remedy: "save it on the page again",
  },
});

const schema = v.object({
  "fond-ledger": v.literal("work 1"),
  source: v.string(),
  target: v.string(),
  units: v.array(
    v.object({
      id: v.string(),
      text: v.optional(v.string()),
      state: v.optional(v.picklist(entryStates)),
      note: v.optional(v.string()),
      given: v.optional(v.string()),
      made: v.object({ source: v.string(), text: v.string() }),
    }),
  ),
});

/** What the translators' page saves: JSON with the texts that were filled in. */
export const work: Carrier = {
  name: "work",
  ending: ".json",
  summary: "what the translators' page saves",
  recognizes: (_file, head) => /^\s*\{\s*"fond-ledger"\s*:\s*"work 1"/.test(head),
  read({ chunks }) {
    let data: unknown;
    try {
      data = JSON.parse([...chunks()].join(""));
    } catch (error) {
      return { ok: false, ...say("broken", { detail: (error as Error).message }) };
    }
    const checked = v.safeParse(schema, data);
    if (!checked.success) return { ok: false, ...say("broken", { detail: checked.issues[0].message }) };
    const { source, target, units } = checked.output;
    return {
      ok: true,
      document: {
        source,
        target,
        units: units.map(({ id, text, state, note, given, made }, index) => {
          const inlines = text === undefined ? undefined : readInlineText(text);
          return {
            id,
            made,
            line: index + 1,
            ...(text !== undefined && text !== "" && (inlines ? { text: inlines } : { torn: text })),
            ...(state !== undefined && { state }),
            ...(note !== undefined && note !== "" && { note }),
            ...(given !== undefined && { given }),
          };
        }),
      },
    };
  },
};
