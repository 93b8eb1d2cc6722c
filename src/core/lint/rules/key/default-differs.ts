import { defineRule } from "../../rule.js";

export const keyDefaultDiffers = defineRule({
  id: "key/default-differs",
  level: "warning",
  summary: "Default text in code that differs from the source catalog.",
  why: "Someone changes one of the two, and users read whichever the program uses. Checked for lookups whose default text the configuration defines.",
  messages: {
    differs: {
      message: 'default text "{default}" differs from the catalog, which has "{text}"',
      remedy: "make the two the same, or remove the default text from the code",
    },
  },
  examples: {
    bad: [{ source: { hi: "Hello there" }, target: { hi: "Hallo" }, code: 'f(() => say("hi", "Hello"));' }],
    good: [
      { source: { hi: "Hello there" }, target: { hi: "Hallo" }, code: 'f(() => say("hi", "Hello there"));' },
    ],
  },
  book(context) {
    for (const source of context.code?.files ?? [])
      for (const { key, keySpan, defaultText } of source.lookups) {
        if (key.kind !== "fixed" || defaultText === undefined) continue;
        const found = context.book.resolve(key.value);
        const plain = (text: string) => text.replace(/\s+/g, " ").trim();
        if (!found || plain(found.entry.text) === plain(defaultText)) continue;
        context.reportCode(
          source,
          keySpan,
          "differs",
          { default: defaultText, text: found.entry.text },
          { key: key.value },
        );
      }
  },
});
