import type { Entry } from "../../../catalog/model.js";
import { defineRule } from "../../rule.js";
import { keysAreTexts } from "../../text-keys.js";

export const keyCollision = defineRule({
  id: "key/collision",
  level: "error",
  summary: "Key that is both a text and a group, or keys that differ only in letter case.",
  why: "Code cannot look up both a text `menu.open` and a group `menu.open`. Keys of one group that merely start alike, such as `menu` and `menu.open`, are not reported. Keys that differ only in case are confused by people and by some file systems; that is an information.",
  messages: {
    inside: {
      message: 'key "{key}" is inside "{outer}", which is a text',
      remedy: 'rename one of them, for example to "{example}"',
    },
    case: {
      message: 'keys "{key}" and "{other}" differ only in letter case',
      remedy: "rename one of them",
    },
  },
  examples: {
    bad: [
      { source: { title: "Boats", Title: "All boats" }, target: { title: "Boote", Title: "Alle Boote" } },
    ],
    good: [
      {
        source: { "menu.title": "Menu", "menu.open": "Open" },
        target: { "menu.title": "Menü", "menu.open": "Öffnen" },
      },
    ],
  },
  file(context, catalog) {
    const separator = catalog.separator;
    if (catalog.locale !== context.book.sourceLocale) return;
    const byFold = new Map<string, Entry>();
    for (const entry of catalog.byKey.values()) {
      for (
        let at = entry.key.indexOf(separator);
        separator !== "" && catalog.format.nests && at > 0;
        at = entry.key.indexOf(separator, at + 1)
      ) {
        const outer = catalog.byKey.get(entry.key.slice(0, at));
        if (!outer || outer.key.endsWith(" ") || areSiblings(outer, entry)) continue;
        const example = `${outer.key}${separator}title`;
        context.report(
          catalog,
          entry,
          "inside",
          { key: entry.key, outer: outer.key, example },
          { on: "key" },
        );
        break;
      }
      const fold = entry.key.toLowerCase();
      const other = byFold.get(fold);
      // Where texts are their own keys, letter case is part of the text.
      const isText =
        other !== undefined &&
        (entry.text === entry.key || other.text === other.key || keysAreTexts(context.book));
      if (other && other.key !== entry.key && !isText)
        context.report(
          catalog,
          entry,
          "case",
          { key: entry.key, other: other.key },
          { on: "key", severity: "info" },
        );
      else byFold.set(fold, entry);
    }
  },
});

/** Whether two entries are names in one group: what their names have in common means nothing to the file. */
function areSiblings({ path: one }: Entry, { path: other }: Entry): boolean {
  return one.length === other.length && one.slice(0, -1).every((part, index) => part === other[index]);
}
