import { defineRule } from "../../rule.js";

export const fileMergeMarker = defineRule({
  id: "file/merge-marker",
  level: "error",
  summary: "Conflict marker of version control in a catalog.",
  why: "The file does not parse, so all of its texts are missing, and the conflict is still unresolved.",
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
