import type { Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";

/** What tells the pieces of one sentence apart, at the end of their keys: `late_1`, `late_2`, `open_before`, `open_after`. */
const place = /(?:(?<!\d)_?\d{1,2}|[_-]?(?:before|after|first|second|start|end))$/i;

/** The entries of a catalog whose keys differ from one in what names a piece of a sentence, in its order, that one among them; none where its key names no piece. */
export function piecesOf({ byKey }: Pick<Catalog, "byKey">, key: string): readonly Entry[] {
  const stem = key.replace(place, "");
  if (stem === key || stem === "") return [];
  return [...byKey.values()].filter(
    (other) => other.key !== stem && other.key.startsWith(stem) && other.key.replace(place, "") === stem,
  );
}
