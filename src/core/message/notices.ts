import type { DataOf, Notice, Wording, WordingData, Wordings } from "../text/wording.js";
import { lazily } from "../text/lazy.js";
import { fillMessage } from "./fill.js";
import { showForms } from "./forms.js";
import { messageReader } from "./parse.js";

const patterns = lazily(() => messageReader({ syntax: "icu", tags: false }));

/** The text of an ICU pattern with its arguments filled in, in English. */
export function fillPattern(pattern: string, data: WordingData): string {
  return pattern.includes("{") ? fillMessage(patterns().read(pattern).nodes, "en", data).text : pattern;
}

/** A message in one case, by its whole id. Plural forms that are kept in several keys are shown one after the other. */
export function noticeOf(messageId: string, { message, remedy }: Wording, values: WordingData): Notice {
  const data = Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      typeof value === "string" ? showForms(value) : value,
    ]),
  );
  return { messageId, data, message: fillPattern(message, data), remedy: fillPattern(remedy, data) };
}

/**
 * Declares messages: gives back the function that fills one in, by its name and its values. Whole ids are the area and
 * the name, as in `extract/at-load`.
 */
export function notices<const W extends Wordings>(
  area: string,
  wordings: W,
): <K extends keyof W & string>(name: K, data: DataOf<W[K]>) => Notice {
  return (name, data) => noticeOf(`${area}/${name}`, wordings[name] ?? { message: name, remedy: "" }, data);
}
