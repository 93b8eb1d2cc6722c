import { defineRule } from "../../rule.js";

export const textValue = defineRule({
  id: "text/value",
  level: "warning",
  summary: "Number or boolean where a text is expected.",
  why: "Programs show it in their own way (`1.5`, `true`), drop it, or stop. In YAML, an unquoted `yes`, `no`, `on` or `off` is a text to some programs and a boolean to others: put it in quotes.",
  messages: {
    number: {
      message: 'value of "{key}" is a number ({text}), not a text',
      remedy: 'put it in quotes: "{text}"',
    },
    boolean: {
      message: 'value of "{key}" is true or false ({text}), not a text',
      remedy: 'put it in quotes: "{text}"',
    },
  },
  examples: {
    bad: [
      { source: { rate: "1.50" }, target: '{ "rate": 1.5 }', raw: true },
      { source: { answer: "Yes" }, target: '{ "answer": true }', raw: true },
    ],
    good: [{ source: { rate: "1.50" }, target: { rate: "1,50" } }],
  },
  needs: ["value"],
  entry(view, context) {
    const { catalog, entry, locale } = view;
    const { kind, key, text } = entry;
    if (kind !== "number" && kind !== "boolean") return;
    const isSource = locale === context.book.sourceLocale;
    // In the source it is a setting, unless it is one of the words that only some programs take for a boolean.
    if (isSource && !/^(?:yes|no|on|off|y|n)$/i.test(text)) return;
    const source = isSource ? undefined : context.sourceOf(catalog, key);
    if (!isSource && source?.entry.kind !== "text") return;
    view.report(kind, { key, text });
  },
});
