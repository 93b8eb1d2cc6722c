import { elementsOfLook, htmlElements, lineBreaks } from "../../../text/html-elements.js";
import { matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagUnknown = defineRule({
  id: "tag/unknown",
  level: "error",
  summary: "Unknown rich-text tag in a translation.",
  why: "The program has nothing to render for it: it throws an error, or users see the tag. Elements of HTML that only change the look (`<b>`) are a warning, line breaks an information.",
  messages: {
    misspelled: { message: "unknown tag {tag}", remedy: "did you mean {meant}?" },
    unknown: {
      message: "unknown tag {tag}",
      remedy: "remove it, or add it to the source and to the code that renders it",
    },
  },
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
  needs: ["parts"],
  pair(target, source) {
    const { message } = target;
    const { unknown } = matchNames(source.message.facts.tags, message.facts.tags);
    for (const { name, meant } of unknown) {
      // What runs code is reported as that.
      if (/^(?:script|iframe|object|embed)$/i.test(name)) continue;
      const isLook = elementsOfLook.has(name.toLowerCase());
      for (const { openSpan: span } of message.facts.tags.get(name) ?? []) {
        // One element of HTML is not written for another by a slip.
        if (meant && !(isLook && htmlElements.has(meant.toLowerCase())))
          target.report("misspelled", { tag: `<${name}>`, meant: `<${meant}>` }, { span });
        // A line break changes nothing but the look.
        else
          target.report(
            "unknown",
            { tag: `<${name}>` },
            { span, severity: lineBreaks.has(name.toLowerCase()) ? "info" : isLook ? "warning" : undefined },
          );
      }
    }
  },
});
