import { nearest } from "../text/nearest.js";
import type { ReadMessage } from "../message/read-message.js";

/** How the names in a translation stand to those of its source. */
export interface NameMatch {
  /** Names of the source that the translation lost, without those that it only misspells. */
  readonly missing: readonly string[];
  /** Names that the source does not have, with the one that was likely meant. */
  readonly unknown: readonly { readonly name: string; readonly meant: string | undefined }[];
}

/**
 * Matches names (of arguments or tags). An unknown name stands for the missing one that it is most like, or for
 * the only one that is missing, so that a renamed name is one finding and not two.
 */
export function matchNames(
  source: ReadonlyMap<string, unknown>,
  target: ReadonlyMap<string, unknown>,
): NameMatch {
  if (source.size === 0 && target.size === 0) return nothingToMatch;
  const missing = [...source.keys()].filter((name) => !target.has(name));
  const strange = [...target.keys()].filter((name) => !source.has(name));
  const open = new Set(missing);
  const unknown = strange.map((name) => {
    const meant = nearest(name, open) ?? (strange.length === 1 && open.size === 1 ? [...open][0] : undefined);
    if (meant !== undefined) open.delete(meant);
    return { name, meant };
  });
  return { missing: missing.filter((name) => open.has(name)), unknown };
}

const nothingToMatch: NameMatch = { missing: [], unknown: [] };

/** Whether a name stands in quoted text, where an apostrophe hides it: that is reported as such. */
export function isQuotedAway(message: ReadMessage, opening: string): boolean {
  return message.quoted.some((span) => message.source.slice(span.start, span.end).includes(opening));
}
