import { isQuotedAway, matchNames } from "../../name-match.js";
import { defineRule } from "../../rule.js";

export const argumentUnknown = defineRule({
  id: "argument/unknown",
  level: "error",
  summary: "An argument that the source does not have.",
  why: "The program passes no such value: it throws an error, or users see the braces. Translated and misspelt names are the usual cause.",
  examples: {
    bad: [
      { source: "Hello {name}", target: "Hallo {nmae}", fixed: "Hallo {name}" },
      { source: "{count} bikes", target: "{anzahl} Räder", note: "the name was translated" },
    ],
    good: [{ source: "Hello {name}", target: "Hallo {name}" }],
  },
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
    const { unknown } = matchNames(source.message.facts.arguments, message.facts.arguments);
    for (const { name, meant } of unknown) {
      // Where the source quotes it away, the source is told of.
      if (isQuotedAway(source.message, `{${name}`)) continue;
      for (const node of message.facts.arguments.get(name) ?? []) {
        const known = [...source.message.facts.arguments.keys()];
        context.report(
          catalog,
          { at: "message", entry, ...(node.nameSpan && { span: node.nameSpan }) },
          {
            message: `unknown argument {${name}}`,
            remedy: meant
              ? `did you mean {${meant}}?`
              : known.length > 0
                ? `the source's arguments are ${known.map((one) => `{${one}}`).join(", ")}`
                : "remove it: the source has no arguments",
            // Only a slip of the pen is mended: another name may be another value.
            ...(meant !== undefined &&
              node.nameSpan &&
              entry.text.slice(node.nameSpan.start, node.nameSpan.end) === name && {
                fix: {
                  text:
                    entry.text.slice(0, node.nameSpan.start) + meant + entry.text.slice(node.nameSpan.end),
                },
              }),
          },
        );
      }
    }
  },
});
