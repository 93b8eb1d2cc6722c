import { haveSameKeys, isWhole } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { parentsOf } from "../../../locale/fallback.js";
import { doubtTag } from "../../../locale/mistaken-tag.js";
import { showForms } from "../../../message/forms.js";
import { defineRule } from "../../rule.js";

export const keyMissing = defineRule({
  id: "key/missing",
  level: "error",
  summary: "A source key that a locale lacks.",
  why: "Users of that locale see the source language, the raw key, or nothing, depending on the program. A regional variant may lean on its language: `fr-CA` lacks nothing that `fr` has.",
  examples: {
    bad: [{ source: { save: "Save", open: "Open" }, target: { save: "Sichern" } }],
    good: [{ source: { save: "Save", open: "Open" }, target: { save: "Sichern", open: "Öffnen" } }],
  },
  book(context) {
    const { book } = context;
    for (const catalog of book.catalogs) {
      if (catalog.locale === book.sourceLocale || !isWhole(catalog)) continue;
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (!source || !isWhole(source) || haveSameKeys(catalog, source)) continue;
      // A catalog that only carries a wrong code is reported as that, and not as a catalog without keys.
      if (
        !catalog.exists &&
        book.strays.some(
          (stray) =>
            stray.namespace === catalog.namespace &&
            doubtTag(stray.locale, [])?.suggestion === catalog.locale,
        )
      )
        continue;
      const leansOn = parentsOf(catalog.locale)
        .filter((parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent))
        .flatMap((parent) => book.catalog(parent, catalog.namespace) ?? []);
      // A key that is not there is pointed to where it belongs: behind the one that precedes it in the source.
      let last: Entry | undefined;
      for (const entry of source.byKey.values()) {
        const there = catalog.byKey.get(entry.key);
        if (there) last = there;
        else if (
          book.expects(catalog.locale, book.codeKey(catalog.namespace, entry.key)) &&
          !leansOn.some((parent) => parent.byKey.has(entry.key))
        ) {
          const end = last?.valueSpan.end ?? 0;
          const where = catalog.exists ? "" : `: the file ${catalog.file} does not exist`;
          context.report(
            catalog,
            { at: "file", span: { start: end, end }, key: entry.key },
            {
              message: `missing key "${entry.key}" in ${catalog.locale}${where}`,
              remedy: `translate "${shorten(showForms(entry.text))}"; \`fond reconcile --write\` adds the key`,
            },
          );
        }
      }
    }
  },
});

function shorten(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
