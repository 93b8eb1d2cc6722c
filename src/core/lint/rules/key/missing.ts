import { catalogEdits, haveSameKeys, isWhole } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { isVariantOf, parentsOf } from "../../../locale/fallback.js";
import { doubtTag, meantBy } from "../../../locale/mistaken-tag.js";
import { shortened } from "../../../text/shorten.js";
import { showForms } from "../../../message/forms.js";
import { defineRule } from "../../rule.js";

/** Of so many missing keys nobody reads a list. */
const fewestOfMost = 40;

export const keyMissing = defineRule({
  id: "key/missing",
  level: "error",
  summary: "Missing key in a locale.",
  why: "Users of that locale see the source language, the raw key or nothing, depending on the program. A regional locale can fall back to its language: `fr-CA` does not need what `fr` has, and `en-GB` nothing that it says as the source does. Where more than three quarters of a longer catalog are missing, one finding says how many.",
  messages: {
    most: {
      message: "{missing} of {keys} keys are missing in {locale}",
      remedy:
        "translate them (`fond reconcile --write` adds the keys), or take the locale out until somebody does",
    },
    all: {
      message: "{missing} of {keys} keys are missing in {locale}: the file {file} does not exist",
      remedy:
        "translate them (`fond reconcile --write` adds the keys), or take the locale out until somebody does",
    },
    missing: {
      message: 'missing key "{key}" in {locale}',
      remedy: 'translate "{source}"; `fond reconcile --write` adds the key',
    },
    "not-filled": {
      message: 'missing key "{key}" in {locale}',
      remedy: 'write it with a translation of "{source}"',
    },
    "in-code": {
      message: 'missing key "{key}" in {locale}, which the source works out in code',
      remedy: "write it by hand: what code works out is not copied",
    },
    "no-file": {
      message: 'missing key "{key}" in {locale}: the file {file} does not exist',
      remedy: 'translate "{source}"; `fond reconcile --write` adds the key',
    },
  },
  examples: {
    bad: [{ source: { save: "Save", open: "Open" }, target: { save: "Sichern" } }],
    good: [
      { source: { save: "Save", open: "Open" }, target: { save: "Sichern", open: "Öffnen" } },
      { locale: "en-GB", source: { lift: "Elevator", open: "Open" }, target: { lift: "Lift" } },
    ],
  },
  offer({ locale = "", namespace, key = "" }, book) {
    const source = book.catalog(book.sourceLocale, namespace);
    const catalog = book.catalog(locale, namespace);
    const entry = source?.byKey.get(key);
    if (!source || !catalog || !isWhole(catalog) || !entry || entry.kind === "code") return undefined;
    const edits = catalogEdits();
    const order = source.entries.map(({ path }) => path);
    edits.edit(catalog, { add: [{ path: entry.path, text: entry.text }], order });
    return { title: "Add the text of the source, to be translated", changes: edits.changes() };
  },
  book(context) {
    const { book } = context;
    for (const catalog of book.catalogs) {
      if (catalog.locale === book.sourceLocale || !isWhole(catalog)) continue;
      // A variant of the source holds what differs.
      if (catalog.exists && isVariantOf(catalog.locale, book.sourceLocale)) continue;
      const source = book.catalog(book.sourceLocale, catalog.namespace);
      if (!source || !isWhole(source) || haveSameKeys(catalog, source)) continue;
      // A catalog that only carries a wrong code is reported as that, and not as a catalog without keys.
      if (
        !catalog.exists &&
        book.strays.some(
          (stray) =>
            stray.namespace === catalog.namespace && meantBy(doubtTag(stray.locale, [])) === catalog.locale,
        )
      )
        continue;
      const leansOn = parentsOf(catalog.locale)
        .filter((parent) => parent !== book.sourceLocale && book.targetLocales.includes(parent))
        .flatMap((parent) => book.catalog(parent, catalog.namespace) ?? []);
      // A key that is not there is pointed to where it belongs: behind the one that precedes it in the source.
      let last: Entry | undefined;
      const missing: { readonly entry: Entry; readonly end: number }[] = [];
      for (const entry of source.byKey.values()) {
        const there = catalog.byKey.get(entry.key);
        if (there) last = there;
        else if (
          book.expects(catalog.locale, book.codeKey(catalog.namespace, entry.key)) &&
          !leansOn.some((parent) => parent.byKey.has(entry.key))
        )
          missing.push({ entry, end: last?.valueSpan.end ?? 0 });
      }
      const { locale, file } = catalog;
      const keys = source.byKey.size;
      if (missing.length >= fewestOfMost && missing.length * 4 > keys * 3) {
        const data = { missing: missing.length, keys, locale };
        const start = { start: 0, end: 0 };
        if (catalog.exists) context.reportRange(catalog, start, "most", data);
        else context.reportRange(catalog, start, "all", { ...data, file });
        continue;
      }
      for (const { entry, end } of missing) {
        const { key } = entry;
        const data = { key, locale, source: shortened(showForms(entry.text), 60) };
        const span = { start: end, end };
        if (entry.kind === "code") context.reportRange(catalog, span, "in-code", { key, locale }, { key });
        else if (book.config.fill === "absent")
          context.reportRange(catalog, span, "not-filled", data, { key });
        else if (catalog.exists) context.reportRange(catalog, span, "missing", data, { key });
        else context.reportRange(catalog, span, "no-file", { ...data, file }, { key });
      }
    }
  },
});
