import { displayWidth } from "../../../text/width.js";
import { limitsOf } from "../../limits.js";
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
    // Each pattern is a limit of its own: the first that a text exceeds is reported.
    for (const { most, unit } of limitsOf(context.book.config, entry.key)) {
      const inColumns = unit === "columns";
      const length = widestText(message.nodes, inColumns ? displayWidth : (one) => [...one].length);
      if (length <= most) continue;
      view.report(inColumns ? "columns" : "characters", { length, key: entry.key, limit: most });
      return;
    }
  },
});
