import {
  elementsOfLook,
  htmlElements,
  lineBreaks,
  voidElements,
  voidElementsInMessages,
} from "../../../text/html-elements.js";
import { matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const tagUnknown = defineRule({
  id: "tag/unknown",
  level: "error",
  summary: "Unknown rich-text tag in a translation.",
  why: "The program has nothing to render for it: it throws an error, or users see the tag. Elements of HTML that only change the look (`<b>`) are a warning, line breaks an information; where the source has elements of HTML itself, any other is a warning and those of the look an information.",
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
  pair(target, source, context) {
    const { message } = target;
    const { unknown } = matchNames(source.message.facts.tags, message.facts.tags);
    // Where the source has elements of HTML, others are shown as what they are; tags of nested messages are given by the program.
    const isMarkup =
      context.syntax.choices !== "nested" &&
      [...source.message.facts.tags.keys()].some(
        (name) => htmlElements.has(name) && (voidElementsInMessages.has(name) || !voidElements.has(name)),
      );
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
            { span, severity: severityOf(name.toLowerCase(), isMarkup) },
          );
      }
    }
  },
});

/** How grave an element that only the translation has is: line breaks and looks change nothing else. */
function severityOf(name: string, isMarkup: boolean): "warning" | "info" | undefined {
  const isLook = elementsOfLook.has(name);
  if (lineBreaks.has(name) || (isMarkup && isLook)) return "info";
  return isLook || (isMarkup && htmlElements.has(name)) ? "warning" : undefined;
}
