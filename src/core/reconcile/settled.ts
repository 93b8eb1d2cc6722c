import type { LatestText } from "../ledger/source-texts.js";
import { formerPlaces } from "../text/former-places.js";

/** Which rows of a source catalog were found in order, and what they were held against. */
export interface Settled {
  /** The ledger or the kept source texts. */
  readonly against: object;
  /** The full keys of the rows, and the digests of their source texts. */
  readonly keys: readonly string[];
  readonly sources: readonly string[];
  /** The digests of a locale's texts for them; none where only the source counts. */
  readonly digests: readonly (string | undefined)[];
  /** 1 for each row that is in order; set by whoever looks at one. */
  readonly isInOrder: Uint8Array;
}

/** What is still known of rows when they are looked at again: nothing of those whose source or text is another. */
export function stillSettled(
  before: Settled | undefined,
  against: object,
  rows: readonly LatestText[],
  digests: readonly (string | undefined)[] = [],
): Settled {
  const keys = rows.map(({ full }) => full);
  const sources = rows.map(({ digest }) => digest);
  const isInOrder = new Uint8Array(rows.length);
  const settled = { against, keys, sources, digests, isInOrder };
  if (before?.against !== against) return settled;
  for (const [at, place] of formerPlaces(keys, before.keys).entries()) {
    if (before.isInOrder[place] !== 1) continue;
    if (before.sources[place] === sources[at] && before.digests[place] === digests[at]) isInOrder[at] = 1;
  }
  return settled;
}
