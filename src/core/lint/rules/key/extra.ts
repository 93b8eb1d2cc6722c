import { haveSameKeys, isWhole, type Book, type Catalog } from "../../../catalog/book.js";
import { isSetting, type Entry } from "../../../catalog/model.js";
import { NearestKeys } from "../../../text/nearest.js";
import { groupBy } from "../../../text/group-by.js";
import { partEnds, splitAtLast } from "../../../text/separators.js";
import { codeKeysOf } from "../../code-use.js";
import { defineRule } from "../../rule.js";

export const keyExtra = defineRule({
  id: "key/extra",
  level: "warning",
  summary: "Extra key that the source catalog does not have.",
  why: "Nothing looks it up, or it is misspelled and the real key is missing. Translators maintain it for nothing. A key that several locales have is one finding, in the first of them; so is a group of keys of which the source has none.",
  messages: {
    misspelled: {
      message: 'key "{key}" is not in the source catalog',
      remedy: 'rename it to "{meant}", which is missing here',
    },
    extra: {
      message: 'key "{key}" is not in the source catalog',
      remedy: "`fond reconcile --write` moves it to the attic, and restores it if the key returns",
    },
    removed: {
      message:
        'key "{key}" of {count, plural, one {# locale} other {# locales}} is not in the source catalog',
      remedy:
        "`fond reconcile --write` moves it to the attic in all of them, and restores it if the key returns",
    },
    group: {
      message:
        '{count} keys of "{group}" in {locales, plural, one {# locale} other {# locales}} are not in the source catalog, which has no such group',
      remedy:
        "`fond reconcile --write` moves them to the attic, and restores them if the keys return; if code asks for them, the source lacks their texts",
    },
  },
  examples: {
    bad: [
      { source: { save: "Save" }, target: { save: "Sichern", quit: "Beenden" } },
      {
        source: { search: "Search" },
        target: { serach: "Suchen" },
        note: "misspelled, so the real key is missing too",
      },
    ],
    good: [{ source: { save: "Save" }, target: { save: "Sichern" } }],
  },
  book(context) {
    const { book } = context;
    // With no source catalog at all nothing is extra: that is reported once, as a file that is not there.
    if (!book.catalogsOf(book.sourceLocale).some(({ exists }) => exists)) return;
    const extra = new Map<string, Extra[]>();
    for (const catalog of book.catalogs) {
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (catalog.locale === book.sourceLocale || !isWhole(catalog) || (source && !isWhole(source))) continue;
      if (source && haveSameKeys(catalog, source)) continue;
      let missing: NearestKeys | undefined;
      for (const entry of catalog.byKey.values()) {
        if (source?.byKey.has(entry.key)) continue;
        // What a locale alone sets, as the direction of its script: no text that somebody translates.
        if (isSetting(entry)) continue;
        // `@metadata`, `@@locale`: what a file says of itself.
        if (entry.key.startsWith("@")) continue;
        // A key that a sign before it marks as one that nobody has translated yet: `*save`. It is missing.
        const plain = /^[*#!?~+]{1,2}(?=[\p{L}\d])(.+)$/u.exec(entry.key)?.[1];
        if (plain !== undefined && source?.byKey.has(plain) && !catalog.byKey.has(plain)) continue;
        const written = book.codeKey(catalog.namespace, entry.key);
        if (book.allows(catalog.locale, written) || book.assumes(written)) continue;
        missing ??= new NearestKeys(
          [...(source?.byKey.keys() ?? [])].filter((key) => !catalog.byKey.has(key)),
        );
        const meant = missing.of(entry.key);
        const { key } = entry;
        if (meant) context.report(catalog, entry, "misspelled", { key, meant }, { on: "key" });
        else {
          const named = extra.get(written);
          if (named) named.push({ catalog, entry });
          else extra.set(written, [{ catalog, entry }]);
        }
      }
    }
    // What the source gave up is one thing to know, in however many locales it is left.
    const ends = partEnds(book.config);
    const groupOf = (key: string) => splitAtLast(key, ends)[0];
    const groups = groupsOf(extra, book, groupOf);
    const said = new Set<string>();
    for (const [written, all] of extra) {
      const [first] = all;
      if (!first) continue;
      const group = groupOf(written);
      const members = groups.get(group);
      if (members) {
        if (said.has(group)) continue;
        said.add(group);
        const locales = new Set(members.flatMap((one) => one.map(({ catalog }) => catalog.locale))).size;
        context.report(
          first.catalog,
          first.entry,
          "group",
          { group, count: members.length, locales },
          { on: "key" },
        );
        continue;
      }
      const { key } = first.entry;
      if (all.length === 1) context.report(first.catalog, first.entry, "extra", { key }, { on: "key" });
      else context.report(first.catalog, first.entry, "removed", { key, count: all.length }, { on: "key" });
    }
  },
});

/** So many keys whose group the source does not have are said together. */
const fewestOfGroup = 8;

interface Extra {
  readonly catalog: Catalog;
  readonly entry: Entry;
}

/** The groups of extra keys of which the source has not one key, with where each key is. */
function groupsOf(
  extra: ReadonlyMap<string, readonly Extra[]>,
  book: Book,
  groupOf: (key: string) => string,
): ReadonlyMap<string, readonly (readonly Extra[])[]> {
  const found = new Map<string, (readonly Extra[])[]>();
  for (const [group, keys] of groupBy(extra, ([key]) => groupOf(key)))
    if (group !== "" && keys.length >= fewestOfGroup)
      found.set(
        group,
        keys.map(([, places]) => places),
      );
  if (found.size === 0) return found;
  for (const catalog of book.catalogsOf(book.sourceLocale))
    for (const key of codeKeysOf(book, catalog)) found.delete(groupOf(key));
  return found;
}
