import { partEnds } from "../../../text/separators.js";
import { keyTest } from "../../../text/key-pattern.js";
import { SourceKeys } from "../../code-use.js";
import { NearestKeys } from "../../../text/nearest.js";
import { defineRule } from "../../rule.js";

export const keyUnused = defineRule({
  id: "key/unused",
  level: "warning",
  summary: "Unused key in the source catalog.",
  why: "Deleted components leave their keys behind, and every locale keeps translating them. A key is used if code looks it up, if a composed key may match it, or if it appears as a string anywhere in the code. If a source file cannot be read, or no lookup in the code finds a key, none is reported. `fond lint --fix --rule key/unused` removes them from the source catalog; without naming the rule, nothing is removed.",
  messages: {
    unused: {
      message: 'unused key "{key}"',
      remedy:
        "remove it (`fond lint --fix --rule key/unused --write` does); `fond reconcile --write` then moves its translations to the attic",
    },
    "maybe-unused": {
      message: 'unused key "{key}"',
      remedy:
        "remove it from the source catalog (first check {lookups, plural, one {the # lookup whose key comes from a variable} other {the # lookups whose keys come from variables}}); `fond reconcile --write` then moves its translations to the attic",
    },
  },
  examples: {
    bad: [
      {
        source: { title: "Sailings", old: "Timetable" },
        target: { title: "Abfahrten", old: "Fahrplan" },
        code: 'export const title = () => t("title");',
      },
    ],
    good: [
      {
        source: { title: "Sailings" },
        target: { title: "Abfahrten" },
        code: 'export const title = () => t("title");',
      },
      {
        source: { "status.open": "Open" },
        target: { "status.open": "Offen" },
        code: "export const label = (s) => t(`status.${s}`);",
      },
      {
        source: { title: "Sailings" },
        target: { title: "Abfahrten" },
        code: 'const tab = { label: "title" };\nexport const label = () => t(tab.label);',
      },
    ],
  },
  book(context) {
    const { book, code } = context;
    if (!code || code.unread.length > 0 || code.files.some((file) => file.problems.length > 0)) return;
    const asked = new Set<string>();
    const tests = book.config.assumed.map((pattern) => keyTest(pattern, partEnds(book.config)));
    const known = new SourceKeys(book);
    const alike = new NearestKeys(known);
    let indirect = 0;
    for (const file of code.files) {
      for (const mention of file.mentions) asked.add(mention);
      for (const { key, isMember } of file.lookups) {
        if (isMember && key.kind === "fixed" && !known.has(key.value))
          for (const other of known.inGroup(key.value)) asked.add(other);
        // A misspelled key is reported where it is asked for; the one that was meant is not unused as well.
        if (key.kind === "fixed")
          asked.add(known.has(key.value) ? key.value : (alike.of(key.value) ?? key.value));
        else if (key.kind === "composed") for (const other of known.matching(key.parts)) asked.add(other);
        else indirect++;
      }
    }
    // Where no lookup finds a key, it is not known how this code asks for them, or it is not the code that does.
    const finds = code.files.some(({ lookups }) =>
      lookups.some(({ key }) => key.kind !== "fixed" || known.has(key.value)),
    );
    if (!finds) return;
    for (const catalog of book.catalogs) {
      if (catalog.locale !== book.sourceLocale) continue;
      for (const entry of catalog.byKey.values()) {
        const full = book.codeKey(catalog.namespace, entry.key);
        if (asked.has(full) || tests.some((test) => test(full))) continue;
        if (indirect === 0)
          context.report(catalog, entry, "unused", { key: full }, { on: "key", remove: true });
        // With lookups whose keys come from variables it is not sure enough to be removed.
        else context.report(catalog, entry, "maybe-unused", { key: full, lookups: indirect }, { on: "key" });
      }
    }
  },
});
