import { partEnds } from "../../../text/separators.js";
import { keyTest } from "../../../text/key-pattern.js";
import type { Book, Catalog } from "../../../catalog/book.js";
import { codeKeysOf, sourceKeysOf } from "../../code-use.js";
import { defineRule } from "../../rule.js";

/** Of fewer keys, most may well be left behind. */
const fewestOfMost = 25;

/** A group of so many keys, of which this part is not looked up, is asked for in another way, or is left behind as a whole. */
const fewestOfGroup = 8;
const partOfGroup = 0.8;

export const keyUnused = defineRule({
  id: "key/unused",
  level: "warning",
  summary: "Unused key in the source catalog.",
  why: "Deleted components leave their keys behind, and every locale keeps translating them. A key is used if code looks it up, if a composed key may match it, or if it appears as a string anywhere in the code, whole or put together from its beginning and values, or as a program makes it of those that several lookups are given, with an ending that stands in the code by itself (`.label`); keys in languages that are not read count as used. If a source file cannot be read, or no lookup in the code finds a key, none is reported. Where more than three quarters of all keys seem unused, one finding says so: the book hardly names all lookups then. So does one for a group of keys, where some lookups take their keys from variables. `fond lint --fix --rule key/unused` removes them from the source catalog; without naming the rule, nothing is removed.",
  messages: {
    most: {
      message: "{unused} of {keys} keys are not looked up by any lookup of the book",
      remedy:
        'add the other lookups to "lookups", or the code that has them to "code"; what is named in "assumed" counts as used',
    },
    unused: {
      message: 'unused key "{key}"',
      remedy:
        "remove it (`fond lint --fix --rule key/unused --write` does); `fond reconcile --write` then moves its translations to the attic",
    },
    group: {
      message: '{unused} of {keys} keys of "{group}" are not looked up',
      remedy:
        'remove them if nothing asks for them (first check {lookups, plural, one {the # lookup whose key comes from a variable} other {the # lookups whose keys come from variables}}); what is named in "assumed" counts as used',
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
    const known = sourceKeysOf(book);
    const uses = code.files.map((file) => known.usedBy(file));
    // Where no lookup finds a key, it is not known how this code asks for them, or it is not the code that does.
    if (!uses.some(({ finds }) => finds)) return;
    const tests = book.config.assumed.map((pattern) => keyTest(pattern, partEnds(book.config)));
    const asked = new Set<string>();
    for (const { keys } of uses) for (const key of keys) asked.add(key);
    const indirect = uses.reduce((sum, one) => sum + one.indirect, 0);
    const sources = book.catalogs.filter(({ locale }) => locale === book.sourceLocale);
    const made = known.madeIn(code);
    const unused: Unused[] = [];
    for (const catalog of sources)
      for (const [index, full] of codeKeysOf(book, catalog).entries()) {
        if (asked.has(full) || tests.some((test) => test(full)) || context.unreadCode.mentions(full))
          continue;
        if (made.isAskedFor(full)) continue;
        // Of a duplicate key the last counts.
        const { table } = catalog;
        if (table.isUnique || table.find(table.keyAt(index)) === index) unused.push({ catalog, index, full });
      }
    const keys = sources.reduce((sum, { byKey }) => sum + byKey.size, 0);
    const [first] = sources;
    if (first && keys >= fewestOfMost && unused.length * 4 > keys * 3) {
      context.reportFile(first.file, "most", { unused: unused.length, keys });
      return;
    }
    const ends = partEnds(book.config);
    const groups = indirect === 0 ? new Map<string, Group>() : groupsOf(sources, book, unused, ends);
    for (const { catalog, index, full } of unused) {
      const entry = catalog.table.entryAt(index);
      const group = groups.get(groupOf(full, ends));
      if (group) {
        if (group.isSaid) continue;
        group.isSaid = true;
        const { name, keys, unused } = group;
        context.report(
          catalog,
          entry,
          "group",
          { group: name, keys, unused, lookups: indirect },
          { on: "key" },
        );
      } else if (indirect === 0)
        context.report(catalog, entry, "unused", { key: full }, { on: "key", remove: true });
      // With lookups whose keys come from variables it is not sure enough to be removed.
      else context.report(catalog, entry, "maybe-unused", { key: full, lookups: indirect }, { on: "key" });
    }
  },
});

interface Unused {
  readonly catalog: Catalog;
  readonly index: number;
  readonly full: string;
}

interface Group {
  readonly name: string;
  readonly keys: number;
  readonly unused: number;
  isSaid: boolean;
}

/** The namespace of a key, or its first part; empty where it has one part alone. */
function groupOf(key: string, ends: readonly string[]): string {
  const at = Math.min(...ends.map((end) => key.indexOf(end)).map((place) => (place < 0 ? Infinity : place)));
  return Number.isFinite(at) ? key.slice(0, at) : "";
}

/** The groups of keys that are hardly looked up, by their names. */
function groupsOf(
  sources: readonly Catalog[],
  book: Book,
  unused: readonly Unused[],
  ends: readonly string[],
): Map<string, Group> {
  const count = (names: Iterable<string>) => {
    const counts = new Map<string, number>();
    for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
    return counts;
  };
  const all = count(sources.flatMap((catalog) => codeKeysOf(book, catalog).map((key) => groupOf(key, ends))));
  const left = count(unused.map(({ full }) => groupOf(full, ends)));
  const found = new Map<string, Group>();
  for (const [name, keys] of all) {
    const lacking = left.get(name) ?? 0;
    if (name !== "" && keys >= fewestOfGroup && lacking >= keys * partOfGroup)
      found.set(name, { name, keys, unused: lacking, isSaid: false });
  }
  return found;
}
