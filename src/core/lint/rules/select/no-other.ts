import { defineRule } from "../../rule.js";

export const selectNoOther = defineRule({
  id: "select/no-other",
  level: "error",
  summary: "Select without the case `other`.",
  why: "`other` takes every value that no case names, now or later. Without it the program throws an error.",
  messages: {
    "no-other": {
      message: 'select {argument} has no "other" case',
      remedy: "add {written} with the text for all other values",
    },
  },
  examples: {
    bad: [{ source: "{deck, select, upper {Upper} other {Main}}", target: "{deck, select, upper {Oben}}" }],
    good: [
      {
        source: "{deck, select, upper {Upper} other {Main}}",
        target: "{deck, select, upper {Oben} other {Haupt}}",
      },
    ],
  },
  needs: ["selects"],
  entry(entry, context) {
    for (const select of entry.message.facts.selects) {
      if (select.branches.some(({ selector }) => selector === "other")) continue;
      const written = context.syntax.writeBranch("other");
      const data = { argument: context.argument(select.name), written };
      entry.report("no-other", data, { span: select.nameSpan });
    }
  },
});
