import { noEscapes } from "../../escapes.js";
import { namedChildren } from "../../readers/code/tree.js";
import { comparisons, defineLanguage, parametersAndConstants, listed, withoutNested } from "../language.js";
import { pythonHabits } from "./habits.js";

/** Python. */
export const python = defineLanguage({
  name: "python",
  extensions: [".py"],
  grammar: {
    file: "python",
    strings: ["string", "concatenated_string"],
    contents: ["string_content"],
    interpolations: ["interpolation"],
    escapes: ["escape_sequence"],
    calls: ["call"],
    arguments: ["argument_list"],
    pairs: ["pair", "keyword_argument"],
    binaries: ["binary_operator", "comparison_operator"],
    concatenation: ["+"],
    comparisons,
    assignments: ["assignment", "augmented_assignment"],
    cases: ["case_clause", "case_pattern"],
    subscripts: ["subscript"],
    returns: ["return_statement"],
    throws: ["raise_statement", "assert_statement"],
    annotations: ["decorator"],
    imports: ["import_statement", "import_from_statement"],
    functions: ["function_definition", "class_definition"],
    comments: ["comment"],
    formats: { format: -1 },
    printers: {},
  },
  declared: "all",
  makesOutside: /^(?:import|from)\b|=(?!=)|^\s*(?:def|class|for|with)\b/,
  receiver: "self",
  ownFunctions: String.raw`^(?:[ \t]*(?:from\s[^\n]{1,200}\simport\s(?:\([^)]{0,2000}?|[^\n(]{0,500}?)(?<!\w)NAME(?=[\s,)#]|$)(?![ \t]+as\b)|import\s+(?:[\w.]+\s+as\s+)?NAME\b|(?:async\s+)?def\s+NAME\s*\()|NAME\s*=(?!=))|(?<![\w.])NAME\(`,
  habits: pythonHabits,
  escapesIn: (open) => (/^[bBuUfF]*[rR]/.test(open) ? noEscapes : { backslash: "all", keepsUnknown: true }),
  passValues: listed("", (name, code) => `${name}=${code}`, ""),
  fillers: {
    printf: "{call} % ({values},)",
    "percent-paren": "{call} % dict({values})",
    "brace-field": "{call}.format({values})",
  },
  patternStyle: (filler) => (filler === "%" ? "percent" : "brace"),
  ofBytes: /^(?:[bB][rR]?|[rR][bB])["']/,
  asString: (call) => `str(${call})`,
  imports: {
    lines: /^(?:from\s+\S+\s+import\s+(?:\([^)]*\)|[^\n]*)|import\s[^\n]*)$/gm,
    head: /^(?:#[^\n]*\n)*(?:\s*(?:"""[\s\S]*?"""|'''[\s\S]*?''')[ \t]*\n)?/,
    body: /^(?:def|class|async|@)/m,
    namesIn: importedNames,
  },
  runsBeforeSetup: (callee, text, line) =>
    /(?:^|\.)(?:ArgumentParser|OptionParser|add_(?:argument|parser|option|subparsers)(?:_group)?)$/.test(
      callee,
    ) &&
    /\b(?:ArgumentParser|OptionParser)\(/.test(text) &&
    // The language's own needs no setting up.
    !/^\s*(?:from|import) gettext\b/.test(line),
  rebinds:
    "^[ \\t]*(?:async )?for [^:\\n]*?NAME[^:\\n]*? in |^[ \\t]*(?:[\\w.]+ ?, ?)*\\(?NAME ?(?:, ?[\\w.*]+ ?)*\\)? ?=(?!=)|NAME ?:=|\\bas NAME|\\bdef \\w+\\([^()]*NAME|\\blambda[^:\\n]*?NAME",
  deferring: /^(?:function_definition|lambda)$/,
  fixedPlaces: parametersAndConstants,
  isDocumentation: ({ type, children: [only, ...more] }) =>
    type === "expression_statement" &&
    more.length === 0 &&
    (only?.type === "string" || only?.type === "concatenated_string"),
  shownDocumentation: (node, around, text) => {
    const [definition, body] = around.slice(-2);
    const holder = around.at(-3);
    const [module] = around;
    if (module && around.length === 1)
      return (
        namedChildren(module).find(({ type }) => type !== "comment") === node &&
        /(?:description\s?=\s?|docopt\(|print\()__doc__/.test(text)
      );
    return (
      definition?.type === "function_definition" &&
      holder?.type === "decorated_definition" &&
      namedChildren(body ?? definition)[0] === node &&
      /^@(?:[\w.]{1,60}\.)?(?:command|group|callback)\b/m.test(text.slice(holder.start, definition.start)) &&
      !/\bhelp\s?=/.test(
        text
          .slice(holder.start, definition.start)
          .replace(/^@(?![\w.]{0,60}(?:command|group|callback))[^\n]*/gm, ""),
      )
    );
  },
  conditional: (node) => {
    const [first, test, second] = namedChildren(node);
    return [test, first, second];
  },
  chooseYes: (test) => `"yes" if ${test} else "no"`,
  joins: /^_\.join$/,
  formatsInPlace: (code) => /![rsa]\b|:(?!=)/.test(withoutNested(code)),
});

/** The statements of a module that bring names in (The Python Language Reference, 7.11). */
const importStatement =
  /^(?:from[ \t]{1,9}[\w.]{1,200}[ \t]{1,9}import[ \t]{1,9}(?:\(([^()]{0,2000})\)|([^\n\\#(]{1,500}))|import[ \t]{1,9}([^\n\\#]{1,300}))/gm;

/** The names that a module imports at its outermost level. */
function importedNames(text: string): readonly string[] {
  return [...text.matchAll(importStatement)].flatMap(([, inParentheses, inLine, modules = ""]) =>
    (inParentheses ?? inLine ?? modules).split(",").flatMap((one) => {
      const [name = "", as, renamed] = one.trim().split(/\s+/);
      if (as === "as" && renamed !== undefined) return [renamed];
      // Of a module in a package the outermost package is named.
      return name.split(".", 1)[0] || [];
    }),
  );
}
