import { defineRule } from "../../rule.js";

const shapes = {
  camel: { test: /^[a-z][\p{L}\p{N}]*$/u, example: "bookNow" },
  kebab: { test: /^[\p{Ll}\p{Lo}\p{N}]+(?:-[\p{Ll}\p{Lo}\p{N}]+)*$/u, example: "book-now" },
  pascal: { test: /^\p{N}*\p{Lu}[\p{L}\p{N}]*$/u, example: "BookNow" },
  upper: { test: /^[\p{Lu}\p{Lo}\p{N}]+(?:_[\p{Lu}\p{Lo}\p{N}]+)*$/u, example: "BOOK_NOW" },
  snake: { test: /^[\p{Ll}\p{Lo}\p{N}]+(?:_{1,3}[\p{Ll}\p{Lo}\p{N}]+)*$/u, example: "book_now" },
} as const;

export const keyShape = defineRule({
  id: "key/shape",
  level: "info",
  summary: "Key that does not follow the book's naming convention.",
  why: "People find keys by guessing how they are named. Only checked if the book sets `naming.case` and most keys of the catalog follow it; each part of a key is checked separately, and numbers are allowed.",
  messages: {
    shape: {
      message: '"{part}" is not in {case} case ({example})',
      remedy: "rename it everywhere with `fond rekey`",
    },
  },
  examples: {
    bad: [{ source: { "book-now": "Book now" }, target: { "book-now": "Jetzt buchen" }, naming: "camel" }],
    good: [{ source: { bookNow: "Book now" }, target: { bookNow: "Jetzt buchen" }, naming: "camel" }],
  },
  file(context, catalog) {
    const { case: wanted } = context.book.config.naming;
    if (!wanted || catalog.locale !== context.book.sourceLocale) return;
    const { test, example } = shapes[wanted];
    const odd = [...catalog.byKey.values()].flatMap((entry) => {
      const parts = catalog.separator === "" ? [entry.key] : entry.key.split(catalog.separator);
      // A key by itself may part its words by other marks: `zone:asia:amman`.
      const part = parts.find((one) =>
        one.split(/[.:/]+/).some((name) => name !== "" && !test.test(name) && !/^\d+$/.test(name)),
      );
      return part === undefined ? [] : [{ entry, part }];
    });
    // What much of a catalog does not follow is no convention of it.
    if (odd.length > 1 && odd.length * 4 > catalog.byKey.size) return;
    for (const { entry, part } of odd)
      context.report(catalog, entry, "shape", { part, case: wanted, example }, { on: "key" });
  },
});
