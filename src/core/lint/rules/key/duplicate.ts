import type { Entry } from "../../../catalog/model.js";
import { hasForms } from "../../../catalog/plural-keys.js";
import { defineRule } from "../../rule.js";

export const keyDuplicate = defineRule({
  id: "key/duplicate",
  level: "error",
  summary: "Duplicate key in one file.",
  why: "Most readers silently keep the last one: a correction of the first never reaches users.",
  messages: {
    same: {
      message: 'duplicate key "{key}", first defined on line {line}',
      remedy: "remove one of the two: both have the same text",
    },
    different: {
      message: 'duplicate key "{key}", first defined on line {line}',
      remedy:
        'remove one of the two: line {line} has "{first}", this one "{text}", and readers keep this one',
    },
  },
  examples: {
    bad: [{ raw: true, target: '{ "key": "eins", "key": "zwei" }' }],
    good: [
      {
        raw: true,
        target: '{ "key": { "a": "eins" }, "other": { "a": "zwei" } }',
        note: "the same name in different groups",
      },
    ],
  },
  file(context, catalog) {
    if (catalog.table.isUnique) return;
    const first = new Map<string, Entry>();
    for (const entry of catalog.entries) {
      const earlier = first.get(entry.key);
      if (!earlier) {
        first.set(entry.key, entry);
        continue;
      }
      // A text may stand beside the forms that a number chooses: code asks for either.
      if (hasForms(entry) !== hasForms(earlier)) continue;
      const { key, text } = entry;
      const line = String(catalog.lines.position(earlier.keySpan.start).line);
      if (earlier.text === text) context.report(catalog, entry, "same", { key, line }, { on: "key" });
      else
        context.report(catalog, entry, "different", { key, line, first: earlier.text, text }, { on: "key" });
    }
  },
});
