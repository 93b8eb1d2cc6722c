import { isTagProblem, reportProblems } from "../../problems.js";
import { defineRule } from "../../rule.js";

export const tagUnbalanced = defineRule({
  id: "tag/unbalanced",
  level: "error",
  summary: "Unclosed, unopened or crossed rich-text tag.",
  why: "The program throws an error, shows the tag as text, or makes the rest of the page bold.",
  messages: {},
  looks: "around",
  examples: {
    bad: [
      { source: "Read <b>this</b>", target: "Lies <b>das" },
      { source: "Read <b>this</b>", target: "Lies das</b>" },
    ],
    good: [
      {
        source: "Rules for the <iframe> of the page",
        target: "Regeln für das <iframe> der Seite",
        note: "an element that the text speaks of",
      },
      { source: "Read <b>this</b>", target: "Lies <b>das</b>" },
      { source: "First<br>Second", target: "Erstens<br>Zweitens", note: "an element that HTML never closes" },
    ],
  },
  needs: ["problems"],
  readsBroken: true,
  entry: (entry, context) => reportProblems(entry, context, isTagProblem),
});
