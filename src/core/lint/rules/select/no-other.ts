import { branchToWrite } from "../../plural-words.js";
import { defineRule } from "../../rule.js";

export const selectNoOther = defineRule({
  id: "select/no-other",
  level: "error",
  summary: "A select without the case `other`.",
  why: "`other` takes every value that no case names, now or later. Without it the program throws an error.",
  examples: {
    bad: [{ source: "{deck, select, upper {Upper} other {Main}}", target: "{deck, select, upper {Oben}}" }],
    good: [
      {
        source: "{deck, select, upper {Upper} other {Main}}",
        target: "{deck, select, upper {Oben} other {Haupt}}",
      },
    ],
  },
  looksAt: ["selects"],
  entry(context, { catalog, entry, message }) {
    for (const select of message.facts.selects) {
      if (select.branches.some(({ selector }) => selector === "other")) continue;
      context.report(
        catalog,
        { at: "message", entry, ...(select.nameSpan && { span: select.nameSpan }) },
        {
          message: `select {${select.name}} has no "other" case`,
          remedy: `add ${branchToWrite(context.book.config.syntax, "other")} with the text for all other values`,
        },
      );
    }
  },
});
