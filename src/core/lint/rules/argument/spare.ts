import { nearest } from "../../../text/nearest.js";
import { sourceKeysOf } from "../../code-use.js";
import { defineRule } from "../../rule.js";
import { suppliedAt } from "../../supplied.js";

export const argumentSpare = defineRule({
  id: "argument/spare",
  level: "warning",
  summary: "Unused argument of a lookup.",
  why: "Someone meant users to read it: the placeholder is misspelled or was removed from the message. A value that the translation of any locale uses is not reported.",
  messages: {
    unused: {
      message: 'unused argument "{name}": the message "{key}" does not have it',
      remedy: "add {argument} to the message, or stop passing it",
    },
  },
  examples: {
    bad: [
      {
        source: { hi: "Hello {name}" },
        target: { hi: "Hallo {name}" },
        code: 'f((name, age) => t("hi", { name, age }));',
      },
    ],
    good: [
      {
        source: { hi: "Hello {name}" },
        target: { hi: "Hallo {name}" },
        code: 'f((name) => t("hi", { name }));',
      },
    ],
  },
  book(context) {
    for (const { source, lookup, key, needed, known, passed } of suppliedAt(context)) {
      // A value that chooses among the forms of a text is in none of them.
      if (sourceKeysOf(context.book).formsOf(lookup).length > 0) continue;
      for (const name of passed) {
        if (known.has(name)) continue;
        const near = nearest(
          name,
          [...needed].filter((one) => !passed.includes(one)),
        );
        // One that is passed under a wrong name is reported as not passed.
        if (near !== undefined) continue;
        const data = { name, key, argument: context.argument(name) };
        context.reportCode(source, lookup.keySpan, "unused", data, { key });
      }
    }
  },
});
