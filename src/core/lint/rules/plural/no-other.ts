import { formToWrite } from "../../plural-words.js";
import { defineRule } from "../../rule.js";

export const pluralNoOther = defineRule({
  id: "plural/no-other",
  level: "error",
  summary: "Plural without the variant `other`.",
  why: "Every plural needs `other` for the numbers that no other variant takes: fractions in many languages, everything in Japanese. Without it the program throws an error.",
  messages: {
    "no-other": {
      message: 'plural {argument} has no "other" variant',
      remedy: "add {written} with the text for all other numbers",
    },
  },
  examples: {
    bad: [{ source: "{n, plural, one {# bike} other {# bikes}}", target: "{n, plural, one {# Rad}}" }],
    good: [
      {
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {# Rad} other {# Räder}}",
      },
    ],
  },
  needs: ["unevenPlural"],
  entry(view, context) {
    const { catalog, entry, message } = view;
    for (const plural of message.facts.plurals) {
      if (plural.branches.some(({ selector }) => selector === "other")) continue;
      const written = formToWrite(catalog, entry, context.syntax, "other");
      const data = { argument: context.argument(plural.name), written };
      view.report("no-other", data, { span: plural.nameSpan });
    }
  },
});
