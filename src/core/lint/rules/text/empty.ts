import { defineRule } from "../../rule.js";

export const textEmpty = defineRule({
  id: "text/empty",
  level: "error",
  summary: "Empty text, or only spaces.",
  why: "Users see an empty button or a gap. If source and translation are both empty, only the source is reported.",
  messages: {
    null: { message: 'value of "{key}" is null, not a text', remedy: "write the text, or remove the key" },
    "null-translation": {
      message: 'value of "{key}" is null, not a text',
      remedy: 'translate "{source}"',
    },
    empty: { message: 'empty text for "{key}"', remedy: "write the text, or remove the key" },
    "empty-translation": { message: 'empty text for "{key}"', remedy: 'translate "{source}"' },
  },
  examples: {
    bad: [
      { source: "Search", target: "" },
      { source: "Search", target: "  " },
    ],
    good: [{ source: "Search", target: "Suche" }],
  },
  needs: ["blank", "value"],
  entry(view, context) {
    const { catalog, entry, locale } = view;
    const { key } = entry;
    if (entry.kind !== "null" && (entry.kind !== "text" || entry.text.trim() !== "")) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, key);
    if (source?.entry.text.trim() === "") return;
    const name = entry.kind === "null" ? "null" : "empty";
    if (source) view.report(`${name}-translation`, { key, source: source.entry.text });
    else view.report(name, { key });
  },
});
