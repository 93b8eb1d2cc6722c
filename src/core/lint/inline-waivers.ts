import { commentLines } from "../catalog/comments.js";
import type { Catalog } from "../catalog/book.js";

/** A mark in a catalog's comments that accepts findings on the entry below it: `# fond: waive text/ending the label stands alone`. */
export interface InlineWaiver {
  /** A rule, or a family such as `text/*`. */
  readonly rule: string;
  readonly reason: string;
  /** The key of the entry below; undefined where there is none. */
  readonly key: string | undefined;
  /** Where the mark stands in the file. */
  readonly start: number;
  readonly end: number;
}

const none: readonly InlineWaiver[] = [];
const known = new WeakMap<Catalog, readonly InlineWaiver[]>();

/** The marks in a catalog's comments, in formats that have comments. */
export function inlineWaivers(catalog: Catalog): readonly InlineWaiver[] {
  const { comments } = catalog.format;
  if (!comments) return none;
  const made = known.get(catalog);
  if (made) return made;
  if (!catalog.content.includes("fond:")) {
    known.set(catalog, none);
    return none;
  }
  const entries = [...catalog.byKey.values()].sort((a, b) => a.keySpan.start - b.keySpan.start);
  const found = commentLines(catalog.content, comments).flatMap(({ text, start, end }): InlineWaiver[] => {
    const [, rule, reason = ""] = /^fond:[ \t]*waive[ \t]+(\S+)(?:[ \t]+(\S.*))?$/.exec(text) ?? [];
    if (rule === undefined) return [];
    const key = entries.find(({ keySpan }) => keySpan.start > end)?.key;
    return [{ rule, reason, key, start, end }];
  });
  known.set(catalog, found);
  return found;
}

/** The waivers in a catalog's comments that accept a finding of a rule on an entry; one without a reason accepts nothing. */
export function inlineWaiversOf(
  catalog: Catalog,
  key: string | undefined,
  rule: string,
): readonly InlineWaiver[] {
  if (key === undefined) return none;
  const all = inlineWaivers(catalog);
  if (all.length === 0) return none;
  return all.filter(
    (waiver) =>
      waiver.key === key &&
      waiver.reason !== "" &&
      (waiver.rule === rule || (waiver.rule.endsWith("/*") && rule.startsWith(waiver.rule.slice(0, -1)))),
  );
}
