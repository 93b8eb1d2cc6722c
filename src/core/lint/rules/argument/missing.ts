import { isCountOfForms, onlyChooses } from "../../form-count.js";
import { hasForms } from "../../../catalog/plural-keys.js";
import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const argumentMissing = defineRule({
  id: "argument/missing",
  level: "error",
  summary: "Missing argument in a translation.",
  why: "Users miss a name, a number or a price. A misspelled argument is reported as unknown, and one that an apostrophe quotes by syntax/apostrophe.",
  messages: {
    missing: { message: "missing argument {argument}", remedy: "write {written} where it belongs" },
    "missing-in-forms": {
      message: "missing argument {argument}",
      remedy: "write it as the source does: {source}",
    },
  },
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
  needs: ["parts"],
  pair(target, source, context) {
    const { message } = target;
    const { missing } = matchNames(source.message.facts.arguments, message.facts.arguments);
    for (const name of missing) {
      if (isQuotedAway(message, `{${name}`)) continue;
      if (isCountOfForms(name, target, source, context) || onlyChooses(name, source)) continue;
      const written = source.message.facts.arguments.get(name)?.[0];
      const sample = written?.span
        ? source.message.source.slice(written.span.start, written.span.end)
        : `{${name}}`;
      const argument = context.argument(name);
      if (hasForms(source.entry)) target.report("missing-in-forms", { argument, source: source.entry.text });
      else target.report("missing", { argument, written: sample.length > 60 ? `{${name}, …}` : sample });
    }
  },
});
