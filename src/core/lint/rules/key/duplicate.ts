import type { Entry } from "../../../catalog/model.js";
import { defineRule } from "../../rule.js";

export const keyDuplicate = defineRule({
  id: "key/duplicate",
  level: "error",
  summary: "The same key twice in one file.",
  why: "Most readers keep the last and say nothing: a correction of the first never reaches a user.",
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
      const { line } = catalog.lines.position(earlier.keySpan.start);
      const same =
        earlier.text === entry.text
          ? "both have the same text"
          : `line ${line} has "${earlier.text}", this one "${entry.text}", and readers keep this one`;
      context.report(
        catalog,
        { at: "key", entry },
        {
          message: `duplicate key "${entry.key}", first defined on line ${line}`,
          remedy: `remove one of the two: ${same}`,
        },
      );
    }
  },
});
