import { partEnds } from "../../../text/separators.js";
import type { BookConfig } from "../../../config/schema.js";
import { keyTest } from "../../../text/key-pattern.js";
import { displayWidth } from "../../../text/width.js";
import { defineRule } from "../../rule.js";
import { widestText } from "../../widest.js";

export const textLength = defineRule({
  id: "text/length",
  level: "warning",
  summary: "Text that is longer than the book allows.",
  why: 'A button has limited space: text that does not fit is cut off or breaks the layout. Limits are set by key: `"limits": { "**.button": 20 }`, in characters, or in columns where letters differ in width. The longest variant of a plural counts, and each value counts as three.',
  messages: {
    characters: {
      message:
        '{length, plural, one {# character} other {# characters}} long; the limit of "{key}" is {limit}',
      remedy: "shorten it, or raise the limit in the configuration",
    },
    columns: {
      message: '{length, plural, one {# column} other {# columns}} wide; the limit of "{key}" is {limit}',
      remedy: "shorten it, or raise the limit in the configuration",
    },
  },
  examples: {
    bad: [
      {
        source: { "form.button": "Book" },
        target: { "form.button": "Jetzt verbindlich buchen" },
        limits: { "**.button": 12 },
      },
    ],
    good: [
      { source: { "form.button": "Book" }, target: { "form.button": "Buchen" }, limits: { "**.button": 12 } },
      {
        source: { "form.label": "Book" },
        target: { "form.label": "Jetzt verbindlich buchen" },
        limits: { "**.button": 12 },
      },
    ],
  },
  applies: ({ book }) => book.config.limits !== undefined,
  entry(view, context) {
    const { entry, message } = view;
    const { limits } = context.book.config;
    if (limits === undefined) return;
    for (const [pattern, limit] of Object.entries(limits)) {
      if (!limitTest(pattern, context.book.config)(entry.key)) continue;
      const most = typeof limit === "number" ? limit : (limit.characters ?? limit.columns ?? Infinity);
      const inColumns = typeof limit !== "number" && limit.columns !== undefined;
      const length = widestText(message.nodes, inColumns ? displayWidth : (one) => [...one].length);
      if (length <= most) continue;
      view.report(inColumns ? "columns" : "characters", { length, key: entry.key, limit: most });
      return;
    }
  },
});

/** Tests are made once: limits hold for many keys. */
const limitTests = new WeakMap<BookConfig, Map<string, (key: string) => boolean>>();

function limitTest(pattern: string, config: BookConfig): (key: string) => boolean {
  const known = limitTests.get(config) ?? new Map<string, (key: string) => boolean>();
  limitTests.set(config, known);
  const test = known.get(pattern) ?? keyTest(pattern, partEnds(config));
  known.set(pattern, test);
  return test;
}
