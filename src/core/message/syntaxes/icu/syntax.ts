import type { Syntax } from "../syntax.js";
import { printIcu } from "./icu-print.js";
import { readIcuParts } from "./icu-reader.js";

/** ICU MessageFormat 1: `{name}`, `{n, plural, one {…} other {…}}`. */
export const icu: Syntax = {
  name: "icu",
  signs: { single: "{}<", doubled: "'" },
  parse: (text, tags) => readIcuParts(text, tags),
  print: (nodes, tags) => printIcu(nodes, { tags }),
  hasArguments: true,
  choices: "nested",
  countSign: "#",
  hasSkeletons: true,
  argumentTypes: [
    ...["number", "date", "time", "spellout", "ordinal", "duration"],
    ...["plural", "select", "selectordinal", "choice"],
  ],
  placeholders: ["brace", "brace-number"],
  recognized: {
    pattern: /\{\s*[\p{L}_][\w]*\s*(?:\}(?!\})|,\s*(?:plural|select|selectordinal|number|date|time)\b)/u,
    ignoring: /[%$]\{[^{}]*\}|\{\{[^{}]*\}\}/g,
  },
  writeBranch: (selector) => `${selector} {…}`,
};
