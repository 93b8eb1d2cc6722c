import { languageOf } from "../../../source/languages/index.js";
import { isScript } from "../../../source/readers/script/endings.js";
import { leftOutByContent, leftOutByName } from "../../../survey/left-out.js";
import { defineRule } from "../../rule.js";

export const fileUnreadable = defineRule({
  id: "file/unreadable",
  level: "error",
  summary: "Catalog or source file that cannot be read completely.",
  why: "If a catalog does not parse, all of its texts are missing: users see raw keys, or the program does not start. Nothing else is reported about such a file, because what seems to be missing may be in the part that could not be read. Of source files, the part that could be read is still checked; those of libraries and tests are passed over. In languages that are read for texts and lookups alone, code that could not be read is a warning.",
  messages: {
    file: { message: "the file cannot be read: {detail}", remedy: "make it readable, as text in UTF-8" },
    code: { message: "the code does not parse: {problem}", remedy: "{fix}" },
    part: {
      message: "code that could not be read from here on: lookups in it are not seen",
      remedy:
        "check the syntax; where the language takes it as it is, write it in a more common way or waive the finding",
    },
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
      if (!problem || leftOutByContent(source.file, source.text) !== undefined) continue;
      // Of other languages only the parts that matter here are read, and not each by all of its grammar.
      if (isScript(source.file) || languageOf(source.file) === undefined)
        context.reportCode(source, problem.span, "code", {
          problem: problem.message,
          fix: problem.remedy,
        });
      else context.reportCode(source, problem.span, "part", {}, { severity: "warning" });
    }
  },
});
