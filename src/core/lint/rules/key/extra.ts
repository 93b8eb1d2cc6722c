import { haveSameKeys, isWhole } from "../../../catalog/book.js";
import { NearestKeys } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const keyExtra = defineRule({
  id: "key/extra",
  level: "warning",
  summary: "Extra key that the source catalog does not have.",
  why: "Nothing looks it up, or it is misspelled and the real key is missing. Translators maintain it for nothing.",
  messages: {
    misspelled: {
      message: 'key "{key}" is not in the source catalog',
      remedy: 'rename it to "{meant}", which is missing here',
    },
    extra: {
      message: 'key "{key}" is not in the source catalog',
      remedy: "`fond reconcile --write` moves it to the attic, and restores it if the key returns",
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
        else context.report(catalog, entry, "extra", { key }, { on: "key" });
      }
    }
  },
});
