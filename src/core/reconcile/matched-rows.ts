import type { Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import { digestOf } from "../text/digest.js";
import { formerPlaces } from "../text/former-places.js";
import { makeAnew, type Keep } from "../text/kept.js";
import type { SourceRow } from "./job.js";

/** What a catalog has for each row of its source. */
export interface MatchedRows {
  /** The entry of a row; undefined for one that is not there. */
  readonly entries: readonly (Entry | undefined)[];
  /** The digests of their texts. */
  readonly digests: readonly (string | undefined)[];
}

/** Finds the entries of a catalog for the rows of its source. */
export function matchedRows(
  catalog: Catalog,
  rows: readonly SourceRow[],
  keep: Keep = makeAnew,
): MatchedRows {
  const { table, byKey, entries } = catalog;
  return keep<MatchedRows>(`matched ${nameOf(catalog)}`, [rows, entries], () => {
    const digests = digestsIn(catalog, keep);
    if (!table.isUnique) {
      const there = rows.map(({ entry }) => byKey.get(entry.key));
      return { entries: there, digests: there.map((entry) => entry && digestOf(entry.text)) };
    }
    let likely = 0;
    const places = rows.map(({ entry: { key } }) => {
      const place = table.findNear(likely, key);
      if (place >= 0) likely = place + 1;
      return place;
    });
    return { entries: places.map((place) => entries[place]), digests: places.map((place) => digests[place]) };
  });
}

/** The digests of a catalog's texts in order; of those that are as they were in the run before, the ones from there. */
function digestsIn(catalog: Catalog, keep: Keep): readonly string[] {
  interface Digested {
    readonly keys: readonly string[];
    readonly texts: readonly string[];
    readonly digests: readonly string[];
  }
  const { entries } = catalog;
  return keep<Digested>(`digests ${nameOf(catalog)}`, [entries], (before) => {
    const keys = entries.map(({ key }) => key);
    const texts = entries.map(({ text }) => text);
    const places = formerPlaces(keys, before?.keys ?? []);
    const digests = texts.map((text, at) => {
      const known = before?.digests[places[at] ?? -1];
      return known !== undefined && before?.texts[places[at] ?? -1] === text ? known : digestOf(text);
    });
    return { keys, texts, digests };
  }).digests;
}

/** What tells a catalog from others in a kept project. */
export function nameOf({ file, locale, namespace = "" }: Catalog): string {
  return `${file} ${locale} ${namespace}`;
}
