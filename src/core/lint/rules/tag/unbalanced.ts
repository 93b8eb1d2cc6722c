import { defineRule } from "../../rule.js";

export const tagUnbalanced = defineRule({
  id: "tag/unbalanced",
  level: "error",
  summary: "A rich-text tag that is opened and not closed, closed and not opened, or crossed with another.",
  why: "The program throws an error, shows the tag as characters, or makes the rest of the page bold.",
  examples: {
    bad: [
      { source: "Read <b>this</b>", target: "Lies <b>das" },
      { source: "Read <b>this</b>", target: "Lies das</b>" },
    ],
    good: [
      { source: "Read <b>this</b>", target: "Lies <b>das</b>" },
      { source: "First<br>Second", target: "Erstens<br>Zweitens", note: "an element that HTML never closes" },
    ],
  },
  readsBroken: true,
  entry(context, { catalog, entry, message, locale }) {
    if (message.problems.length === 0) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    for (const { severity, code, message: what, remedy, span } of message.problems) {
      if (code !== "tag-unclosed" && code !== "tag-unopened") continue;
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
