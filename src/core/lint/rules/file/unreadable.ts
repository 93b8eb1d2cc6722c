import { leftOutByName } from "../../../survey/left-out.js";
import { defineRule } from "../../rule.js";

export const fileUnreadable = defineRule({
  id: "file/unreadable",
  level: "error",
  summary: "Catalog or source file that cannot be read completely.",
  why: "If a catalog does not parse, all of its texts are missing: users see raw keys, or the program does not start. Nothing else is reported about such a file, because what seems to be missing may be in the part that could not be read. Of source files, the part that could be read is still checked; those of libraries and tests are passed over.",
  messages: {
    file: { message: "the file cannot be read: {detail}", remedy: "make it readable, as text in UTF-8" },
    code: { message: "the code does not parse: {problem}", remedy: "{fix}" },
  },
  examples: {
    bad: [
      {
        raw: true,
        target: '{ "greeting": "Er sagte "hallo" zu mir" }',
        note: "a quote inside a text ends it",
      },
      { raw: true, target: '{ "a": "eins"\n  "b": "zwei" }', note: "a comma is missing" },
    ],
    good: [{ raw: true, target: '{ "greeting": "Er sagte \\"hallo\\" zu mir" }' }],
  },
  file(context, catalog) {
    for (const problem of catalog.problems) {
      if (problem.code !== "merge-marker") context.reportNotice(catalog, problem.span, problem);
    }
  },
  book(context) {
    // Nobody mends the libraries of others, or what tests break on purpose.
    for (const { file, detail } of context.code?.unread ?? [])
      if (leftOutByName(file) === undefined) context.reportFile(file, "file", { detail });
    for (const source of context.code?.files ?? []) {
      const problem = leftOutByName(source.file) === undefined ? source.problems[0] : undefined;
      if (problem)
        context.reportCode(source, problem.span, "code", {
          problem: problem.message,
          fix: problem.remedy,
        });
    }
  },
});
