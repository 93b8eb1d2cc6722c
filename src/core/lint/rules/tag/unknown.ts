import { matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagUnknown = defineRule({
  id: "tag/unknown",
  level: "error",
  summary: "A rich-text tag that the source does not have.",
  why: "The program knows nothing to show for it: it throws an error, or users see the tag.",
  examples: {
    bad: [
      {
        source: "Read <terms>the terms</terms>",
        target: "<bedingungen>Bedingungen</bedingungen> lesen",
        note: "the name was translated",
      },
      { source: "Read the terms", target: "<b>Bedingungen</b> lesen" },
    ],
    good: [{ source: "Read <terms>the terms</terms>", target: "<terms>Bedingungen</terms> lesen" }],
  },
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
    const { unknown } = matchNames(source.message.facts.tags, message.facts.tags);
    for (const { name, meant } of unknown) {
      // What runs code is told of as that.
      if (/^(?:script|iframe|object|embed)$/i.test(name)) continue;
      for (const tag of message.facts.tags.get(name) ?? []) {
        context.report(
          catalog,
          { at: "message", entry, ...(tag.openSpan && { span: tag.openSpan }) },
          {
            message: `unknown tag <${name}>`,
            remedy: meant
              ? `did you mean <${meant}>?`
              : "remove it, or add it to the source and to the code that renders it",
          },
        );
      }
    }
  },
});
