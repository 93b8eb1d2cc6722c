import { haveSameKeys, isWhole, type Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { NearestKeys } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const keyExtra = defineRule({
  id: "key/extra",
  level: "warning",
  summary: "Extra key that the source catalog does not have.",
  why: "Nothing looks it up, or it is misspelled and the real key is missing. Translators maintain it for nothing. A key that several locales have is one finding, in the first of them.",
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
    const extra = new Map<string, { readonly catalog: Catalog; readonly entry: Entry }[]>();
    for (const catalog of book.catalogs) {
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (catalog.locale === book.sourceLocale || !isWhole(catalog) || (source && !isWhole(source))) continue;
      if (source && haveSameKeys(catalog, source)) continue;
      let missing: NearestKeys | undefined;
      for (const entry of catalog.byKey.values()) {
        if (source?.byKey.has(entry.key)) continue;
        // `@metadata`, `@@locale`: what a file says of itself.
        if (entry.key.startsWith("@")) continue;
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
    for (const all of extra.values()) {
      const [first] = all;
      if (!first) continue;
      const { key } = first.entry;
      if (all.length === 1) context.report(first.catalog, first.entry, "extra", { key }, { on: "key" });
      else context.report(first.catalog, first.entry, "removed", { key, count: all.length }, { on: "key" });
    }
  },
});
