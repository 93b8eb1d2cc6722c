import { isTagProblem, reportProblems } from "../../problems.js";
import { defineRule } from "../../rule.js";

export const syntaxUnreadable = defineRule({
  id: "syntax/unreadable",
  level: "error",
  summary: "Message that does not parse.",
  why: "The program throws an error or shows the message with its braces. Nothing else is reported about such a message, because what seems to be missing may be in the part that could not be read. What only some programs reject, such as an unmatched closing brace, is a warning.",
  messages: {},
  looks: "around",
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
  needs: ["problems"],
  readsBroken: true,
  entry: (entry, context) => reportProblems(entry, context, (code) => !isTagProblem(code)),
});
