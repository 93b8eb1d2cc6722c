import type { Syntax } from "../syntax.js";
import { printMf2 } from "./mf2-print.js";
import { parseMf2 } from "./mf2.js";

/** Unicode MessageFormat 2 (UTS #35 Part 9): `{$name}`, `.match $n`. */
export const mf2: Syntax = {
  name: "mf2",
  signs: { single: "{}<\\." },
  parse: (text) => parseMf2(text),
  print: (nodes) => printMf2(nodes),
  hasArguments: true,
  choices: "flat",
  countSign: undefined,
  hasSkeletons: false,
  placeholders: ["brace", "brace-dollar"],
  recognized: {
    pattern:
      /^\s*\.(?:input\s*\{|local\s+\$|match\s)|\{\s*\$[\p{L}_][\w.-]*[\s}]|(?<!\{)\{\s*#[\p{L}][\w:-]*[\s}/]/u,
  },
  writeBranch: (selector) => `${selector === "other" ? "*" : selector} {{…}}`,
};
