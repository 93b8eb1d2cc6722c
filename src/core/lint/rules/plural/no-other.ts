import { formToWrite } from "../../plural-words.js";
import { defineRule } from "../../rule.js";

export const pluralNoOther = defineRule({
  id: "plural/no-other",
  level: "error",
  summary: "A plural without the branch `other`.",
  why: "Every plural needs `other` for the numbers that nothing else takes: fractions in many languages, everything in Japanese. Without it the program throws an error.",
  examples: {
    bad: [{ source: "{n, plural, one {# bike} other {# bikes}}", target: "{n, plural, one {# Rad}}" }],
    good: [
      {
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {# Rad} other {# Räder}}",
      },
    ],
  },
  looksAt: ["unevenPlural"],
  entry(context, { catalog, entry, message }) {
    for (const plural of message.facts.plurals) {
      if (plural.branches.some(({ selector }) => selector === "other")) continue;
      context.report(
        catalog,
        { at: "message", entry, ...(plural.nameSpan && { span: plural.nameSpan }) },
        {
          message: `plural {${plural.name}} has no "other" variant`,
          remedy: `add ${formToWrite(catalog, entry, context.book.config.syntax, "other")} with the text for all other numbers`,
        },
      );
    }
  },
});
