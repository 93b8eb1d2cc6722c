import { defineRule } from "../../rule.js";

export const pluralChoice = defineRule({
  id: "plural/choice",
  level: "warning",
  summary: "Choice format in an ICU message instead of a plural.",
  why: "`choice` compares with fixed numbers and ignores plural rules: Polish and Arabic cannot be written with it. ICU keeps it only for old messages.",
  messages: {
    choice: {
      message: '"choice" ignores the plural rules of the language',
      remedy: "write {written}",
    },
  },
  examples: {
    bad: [
      {
        source: "{n, choice, 0#no boats|1#one boat|1<{n} boats}",
        target: "{n, choice, 0#keine Boote|1#ein Boot|1<{n} Boote}",
      },
    ],
    good: [
      {
        source: "{n, plural, =0 {no boats} one {# boat} other {# boats}}",
        target: "{n, plural, =0 {keine Boote} one {# Boot} other {# Boote}}",
      },
    ],
  },
  needs: ["formats"],
  entry(entry, context) {
    const { message } = entry;
    // java.text.MessageFormat has nothing else.
    if (message.facts.arguments.size === 0 || context.syntax.choices !== "nested") return;
    for (const uses of message.facts.arguments.values())
      for (const use of uses) {
        if (use.kind !== "argument" || use.format?.type !== "choice") continue;
        const written = `{${use.name}, plural, =0 {…} one {…} other {…}}`;
        entry.report("choice", { written }, { span: use.format.typeSpan });
      }
  },
});
