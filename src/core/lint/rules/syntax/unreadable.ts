import { defineRule } from "../../rule.js";

export const syntaxUnreadable = defineRule({
  id: "syntax/unreadable",
  level: "error",
  summary: "A message that its syntax cannot parse.",
  why: "The program throws an error or shows the message with its braces. Such a message gets no other finding: what it seems to lack may be in the part that could not be read. What only some programs refuse, such as a lone closing brace, is a warning.",
  examples: {
    bad: [
      { source: "{count} bikes", target: "{count Fahrräder" },
      {
        source: "{count, plural, one {bike} other {bikes}}",
        target: "{count, plural, one {Rad} other {Räder}",
        note: "a brace too few",
      },
    ],
    good: [
      { source: "{count} bikes", target: "{count} Fahrräder" },
      { source: "5 < 6", target: "5 < 6" },
    ],
  },
  readsBroken: true,
  entry(context, { catalog, entry, message, locale }) {
    if (message.problems.length === 0) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    for (const { severity, code, message: what, remedy, span } of message.problems) {
      if (code === "tag-unclosed" || code === "tag-unopened") continue;
      // What the source has wrong in the same way is told of there.
      const slice = message.source.slice(span.start, span.end);
      if (
        source?.message.problems.some(
          (one) => one.code === code && source.message.source.slice(one.span.start, one.span.end) === slice,
        )
      )
        continue;
      const words = { message: what, remedy, ...(severity === "warning" && { severity }) };
      context.report(catalog, { at: "message", entry, span }, words);
    }
  },
});
