import { between, foreignPercents, hasNoFilter, type Dialect, type Island } from "../dialect.js";

/** What begins, divides and ends a block, and what puts nothing out. */
const blockWord =
  /^\s{0,9}(?:if|else|end|range|with|define|template|block|break|continue)(?!\w)|^\s{0,9}\$\w{1,60}\s{0,9}:?=/;

/** Actions in double braces (Go, package text/template, "Actions"): a minus inside of a mark takes blanks away outside of it. */
function actions(text: string): Island[] {
  return [
    ...between(text, /\{\{(?:- )?\/\*/, /\*\/(?: -)?\}\}/, () => "comment"),
    ...between(text, /\{\{(?:-\s)?/, /(?:\s-)?\}\}/, ({ innerStart, innerEnd }) =>
      blockWord.test(text.slice(innerStart, Math.min(innerEnd, innerStart + 80))) ? "code" : "output",
    ),
  ];
}

/** Templates of Go's standard library. */
export const go: Dialect = {
  name: "go",
  language: "expression",
  extensions: [".gohtml", ".gotmpl"],
  // What ends a block may be a name in other templates, and what begins one is not.
  sign: /\{\{-?\s{0,9}(?:\/\*|(?:if|range|with|define|template|block)\s{1,9}[(".$a-z]|\.[A-Z]\w)/g,
  islands: actions,
  codeInScripts: true,
  foreign: foreignPercents,
  bindsAttributes: false,
  takesHelpers: () => true,
  branches: {
    head: /\{\{(?:- )?\s{0,9}if\s{1,9}$/,
    tail: /^\s{0,9}-?\}\}/,
    otherwise: /\{\{(?:- )?\s{0,9}else\s{0,9}-?\}\}/,
    end: /\{\{(?:- )?\s{0,9}end\s{0,9}-?\}\}/,
    next: /\{\{(?:- )?\s{0,9}(?:else|end)/,
  },
  passesIsland: hasNoFilter,
  valuesInOrder: true,
};
