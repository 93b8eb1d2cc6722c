import { notices } from "../message/notices.js";
import { haveSameKeys, isWhole, type Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import { placementIn, type Placement } from "../catalog/placement.js";
import type { LedgerRecord } from "../ledger/ledger.js";
import { sourceTextOf } from "../ledger/source-texts.js";
import { digestOf } from "../text/digest.js";
import { nearest } from "../text/nearest.js";
import { separatorsOf } from "../text/separators.js";
import { shellWord } from "../text/shell-word.js";
import { extraIn, hasSource, sourceOf, type LocaleJob } from "./job.js";

const say = notices("reconcile", {
  "too-many": {
    message:
      "{added, plural, one {# key was} other {# keys were}} added and {removed, plural, one {# was} other {# were}} removed: too many to detect renamed keys",
    remedy: "before reconciling, run `fond rekey` for those that were renamed, to keep their translations",
  },
  renamed: {
    message: '"{key}" looks like "{old}" renamed, whose text was "{text}"',
    remedy: "before reconciling, run `{command}` to keep its translations",
  },
});

/** A translation whose key left the source. */
interface LeftEntry {
  readonly entry: Entry;
  readonly full: string;
  readonly record: LedgerRecord;
}

/** A source key that a locale lacks and has room for. */
interface NewKey {
  readonly full: string;
  readonly source: Entry;
  readonly catalog: Catalog;
}

/** Keys that were renamed in the source or moved there, with their very text. */
export interface Renames {
  /** Full keys that are new, to the entries that have their translations. */
  readonly byNewKey: ReadonlyMap<string, LeftEntry>;
  /** The entries that move. */
  readonly moved: ReadonlySet<Entry>;
  /** How entries are placed in the catalogs that were looked through. */
  readonly placements: ReadonlyMap<Catalog, Placement>;
}

/** So many texts are compared with each other at most, to tell which key may be which under another name. */
const mostComparedTexts = 100_000;

/** Keys that left the source and keys that are new there with the very text: the key was renamed or moved. */
export function findRenames(job: LocaleJob, attic: ReadonlyMap<string, unknown>): Renames {
  const gone = leftEntries(job);
  const placements = new Map<Catalog, Placement>();
  const byNewKey = new Map<string, LeftEntry>();
  const moved = new Set<Entry>();
  if (gone.size === 0 || job.options.keepExtra) return { byNewKey, moved, placements };
  const unmatched = newKeys(job, placements).filter(({ full, source }) => {
    if (attic.has(full)) return false;
    const same = (gone.get(digestOf(source.text)) ?? []).filter(({ entry }) => !moved.has(entry));
    const near = nearest(
      full,
      same.map((one) => one.full),
    );
    const found = same.length === 1 ? same[0] : same.find((one) => one.full === near);
    if (!found) return true;
    byNewKey.set(full, found);
    moved.add(found.entry);
    return false;
  });
  const left = [...gone.values()].flat().filter(({ entry }) => !moved.has(entry));
  proposeRenames(job, left, unmatched);
  return { byNewKey, moved, placements };
}

/** What left the source, by the digests of its source texts. */
function leftEntries(job: LocaleJob): ReadonlyMap<string, LeftEntry[]> {
  const { book, locale, ledger } = job;
  const gone = new Map<string, LeftEntry[]>();
  for (const catalog of book.catalogsOf(locale)) {
    if (!isWhole(catalog)) continue;
    const source = sourceOf(job, catalog);
    if (!source || !isWhole(source) || !hasSource(job, source) || haveSameKeys(catalog, source)) continue;
    for (const entry of catalog.byKey.values()) {
      if (source.byKey.has(entry.key)) continue;
      const full = book.fullKey(catalog.namespace, entry.key);
      const record = ledger.records.get(full);
      if (!record || book.allows(locale, book.codeKey(catalog.namespace, entry.key))) continue;
      gone.set(record.source, [...(gone.get(record.source) ?? []), { entry, full, record }]);
    }
  }
  return gone;
}

/** The source keys that a locale lacks, as far as there is room for them: a translation moves only there. */
function newKeys(job: LocaleJob, placements: Map<Catalog, Placement>): NewKey[] {
  const { book, locale } = job;
  return book.catalogsOf(locale).flatMap((catalog) => {
    const source = sourceOf(job, catalog);
    if (!isWhole(catalog) || !source || !isWhole(source)) return [];
    const placement = placementIn(catalog, separatorsOf(book.config).parts, extraIn(job, catalog, source));
    placements.set(catalog, placement);
    return [...source.byKey.values()].flatMap((entry): NewKey[] =>
      catalog.byKey.has(entry.key) || placement.blocker(placement.pathOf(entry))
        ? []
        : [{ full: book.fullKey(catalog.namespace, entry.key), source: entry, catalog }],
    );
  });
}

/** New keys whose texts are nearly those of keys which left: said, since the translations may not fit any more. */
function proposeRenames(
  { sources, notes }: LocaleJob,
  left: readonly LeftEntry[],
  unmatched: readonly NewKey[],
): void {
  const keyOf = new Map<string, string>();
  for (const { full, record } of left) {
    const text = sourceTextOf(sources, full, record.source);
    if (text !== undefined && text.length > 8) keyOf.set(text, full);
  }
  const [first] = unmatched;
  if (first && unmatched.length * keyOf.size > mostComparedTexts) {
    const counts = { added: unmatched.length, removed: keyOf.size };
    notes.push({ file: first.catalog.file, ...say("too-many", counts) });
    return;
  }
  for (const { full, source, catalog } of unmatched) {
    const alike = nearest(source.text, keyOf.keys());
    const old = alike === undefined ? undefined : keyOf.get(alike);
    if (alike === undefined || old === undefined || !isAlike(alike, source.text)) continue;
    const command = `fond rekey ${shellWord(old)} ${shellWord(full)} --write`;
    notes.push({ file: catalog.file, ...say("renamed", { key: full, old, text: alike, command }) });
  }
}

/** Whether of two texts at most a fifth differs. */
function isAlike(a: string, b: string): boolean {
  const words = (text: string) => new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
  const [one, two] = [words(a), words(b)];
  const shared = [...one].filter((word) => two.has(word)).length;
  return shared * 5 >= Math.max(one.size, two.size) * 4 - 1 && shared > 0;
}
