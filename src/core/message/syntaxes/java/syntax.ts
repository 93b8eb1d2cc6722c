import { readRanges, writeRanges } from "./ranges.js";
import type { Syntax } from "../syntax.js";
import { parseJava, printJava } from "./java.js";

/** The patterns of `java.text.MessageFormat`: `{0}`, `{1,number,integer}`. */
export const java: Syntax = {
  name: "java",
  signs: { single: "{}<'" },
  parse: (text, tags) => parseJava(text, tags),
  print: (nodes) => printJava(nodes),
  hasArguments: true,
  numberedFrom: 0,
  choices: undefined,
  ranges: { read: readRanges, write: writeRanges },
  countSign: undefined,
  hasSkeletons: false,
  argumentTypes: ["number", "date", "time", "choice"],
  placeholders: ["brace", "brace-number"],
  recognized: {
    pattern: /\{\d+(?:,\s*(?:number|date|time|choice)\b[^{}]*)?\}/,
    ignoring: /[%$]\{[^{}]*\}|\{\{[^{}]*\}\}/g,
  },
  writeBranch: (selector) => `${selector} {…}`,
};
