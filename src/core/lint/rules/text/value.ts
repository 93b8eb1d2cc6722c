import { defineRule } from "../../rule.js";

export const textValue = defineRule({
  id: "text/value",
  level: "warning",
  summary: "A number or truth value where a text is expected.",
  why: "Programs show it in their own writing (`1.5`, `true`), drop it, or stop. In YAML an unquoted `yes`, `no`, `on` or `off` is a text to some programs and a truth value to others: it has to stand in quotes.",
  examples: {
    bad: [
      { source: { rate: "1.50" }, target: '{ "rate": 1.5 }', raw: true },
      { source: { answer: "Yes" }, target: '{ "answer": true }', raw: true },
    ],
    good: [{ source: { rate: "1.50" }, target: { rate: "1,50" } }],
  },
  looksAt: ["value"],
  entry(context, { catalog, entry }) {
    if (entry.kind !== "number" && entry.kind !== "boolean") return;
    const what = entry.kind === "number" ? "a number" : "true or false";
    context.report(
      catalog,
      { at: "message", entry },
      {
        message: `value of "${entry.key}" is ${what} (${entry.text}), not a text`,
        remedy: `put it in quotes: "${entry.text}"`,
      },
    );
  },
});
