import { hasForms } from "../../../catalog/plural-keys.js";
import { showForms } from "../../../message/forms.js";
import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const argumentMissing = defineRule({
  id: "argument/missing",
  level: "error",
  summary: "An argument of the source that the translation lost.",
  why: "Users miss a name, a number or a price. An argument that is only misspelt is reported as unknown, one that an apostrophe quotes away as that.",
  examples: {
    bad: [{ source: "Deck {deck}, seat {seat}", target: "Deck {deck}, Platz" }],
    good: [
      { source: "Deck {deck}, seat {seat}", target: "Platz {seat}, Deck {deck}" },
      {
        source: "{n, plural, one {1 bike} other {# bikes}}",
        target: "{n, plural, one {ein Rad} other {# Räder}}",
      },
    ],
  },
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
    const { missing } = matchNames(source.message.facts.arguments, message.facts.arguments);
    for (const name of missing) {
      if (isQuotedAway(message, `{${name}`)) continue;
      const written = source.message.facts.arguments.get(name)?.[0];
      const sample = written?.span
        ? source.message.source.slice(written.span.start, written.span.end)
        : `{${name}}`;
      context.report(
        catalog,
        { at: "message", entry },
        {
          message: `missing argument {${name}}`,
          remedy: hasForms(source.entry)
            ? `write it as the source does: ${showForms(source.entry.text)}`
            : `write ${sample.length > 60 ? `{${name}, …}` : sample} where it belongs`,
        },
      );
    }
  },
});
