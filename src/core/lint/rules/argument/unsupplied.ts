import { defineRule } from "../../rule.js";
import { suppliedAt } from "../../supplied.js";

export const argumentUnsupplied = defineRule({
  id: "argument/unsupplied",
  level: "error",
  summary: "Missing value for an argument in a lookup.",
  why: "Users see the braces, or the program throws an error. Nothing is reported where the code passes a variable or spreads an object, because its members are unknown, and for functions whose many calls never pass a value, where others do: they only mark keys.",
  messages: {
    unsupplied: {
      message: 'missing value for {arguments}, which the message "{key}" needs',
      remedy: "pass {names}",
    },
  },
  examples: {
    bad: [{ source: { hi: "Hello {name}" }, target: { hi: "Hallo {name}" }, code: 'f(() => t("hi"));' }],
    good: [
      {
        source: { hi: "Hello {name}" },
        target: { hi: "Hallo {name}" },
        code: 'f((name) => t("hi", { name }));',
      },
      { source: { hi: "Hello {name}" }, target: { hi: "Hallo {name}" }, code: 'f((all) => t("hi", all));' },
    ],
  },
  book(context) {
    for (const { source, lookup, key, needed, passed } of suppliedAt(context)) {
      if (needed.size === 0) continue;
      const missing = [...needed].filter((name) => !passed.includes(name));
      if (missing.length === 0) continue;
      const names = missing.join(", ");
      const data = { arguments: missing.map((name) => context.argument(name)).join(", "), key, names };
      context.reportCode(source, lookup.keySpan, "unsupplied", data, { key });
    }
  },
});
