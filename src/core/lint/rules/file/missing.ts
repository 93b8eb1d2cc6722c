import { defineRule } from "../../rule.js";

export const fileMissing = defineRule({
  id: "file/missing",
  level: "error",
  summary: "Missing source catalog, or code patterns that match no file.",
  why: "Without anything to compare, nothing is wrong: a mistyped path in the configuration would pass every check.",
  messages: {
    "no-source": {
      message: "no source catalog, so no translation can be compared with it",
      remedy: 'check "source" and "files" in the configuration',
    },
    "no-catalog": {
      message: 'no catalog matches "{files}"',
      remedy: 'check "source" and "files" in the configuration',
    },
    "no-code": {
      message: "no readable file matches the book's code patterns: {code}",
      remedy: 'check "code" in the configuration; use [] for a book without code',
    },
  },
  examples: {
    bad: [{ hasSource: false, target: "Abfahrten", note: "without a catalog of the source locale" }],
    good: [{ source: "Sailings", target: "Abfahrten" }],
  },
  book(context) {
    const { book, code } = context;
    const file = book.layout.path(book.sourceLocale, book.namespaces[0]);
    if (!book.catalogsOf(book.sourceLocale).some(({ exists }) => exists)) {
      const isAny = book.catalogs.some(({ exists }) => exists) || book.strays.length > 0;
      if (isAny) context.reportFile(file, "no-source", {});
      else context.reportFile(file, "no-catalog", { files: book.config.files });
    }
    if (code && code.files.length === 0 && code.unread.length === 0)
      context.reportFile(file, "no-code", { code: book.config.code.join(", ") }, { severity: "warning" });
  },
});
