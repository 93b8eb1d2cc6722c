import { defineRule } from "../../rule.js";

export const fileMergeMarker = defineRule({
  id: "file/merge-marker",
  level: "error",
  summary: "A catalog with version control's conflict markers left in it.",
  why: "The file does not parse, so every text in it is gone for users; and both sides of the conflict still wait for somebody to choose.",
  messages: {},
  examples: {
    bad: [{ raw: true, target: '{\n<<<<<<< ours\n  "a": "eins"\n=======\n  "a": "ein"\n>>>>>>> theirs\n}' }],
    good: [
      {
        source: { a: "equal: =======" },
        target: { a: "gleich: =======" },
        note: "the same signs inside a text",
      },
    ],
  },
  file(context, catalog) {
    for (const problem of catalog.problems) {
      if (problem.code === "merge-marker") context.reportNotice(catalog, problem.span, problem);
    }
  },
});
