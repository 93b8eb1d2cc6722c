import { fullEscapes, noEscapes } from "../../escapes.js";
import { comparisons, defineLanguage, parametersAndConstants, listed, withoutNested } from "../language.js";
import { csharpHabits } from "./habits.js";

/** C#. */
export const csharp = defineLanguage({
  name: "csharp",
  extensions: [".cs"],
  grammar: {
    file: "c-sharp",
    strings: [
      "string_literal",
      "verbatim_string_literal",
      "raw_string_literal",
      "interpolated_string_expression",
    ],
    textBlocks: "closing",
    contents: ["string_literal_content", "string_content", "raw_string_content"],
    interpolations: ["interpolation"],
    escapes: ["escape_sequence"],
    calls: ["invocation_expression", "object_creation_expression"],
    arguments: ["argument_list"],
    pairs: ["assignment_expression"],
    binaries: ["binary_expression"],
    concatenation: ["+"],
    comparisons,
    assignments: ["variable_declarator", "property_declaration"],
    cases: ["switch_section", "case_switch_label", "constant_pattern", "switch_expression_arm"],
    subscripts: ["element_access_expression", "bracketed_argument_list"],
    returns: ["return_statement"],
    throws: ["throw_statement", "throw_expression"],
    annotations: ["attribute"],
    imports: ["using_directive"],
    functions: ["method_declaration", "class_declaration", "constructor_declaration"],
    comments: ["comment"],
    formats: { "string.Format": 0, "String.Format": 0 },
    printers: { "Console.WriteLine": 0, "Console.Write": 0, "Console.Error.WriteLine": 0 },
  },
  declared: "values",
  patternStyle: () => "brace",
  classes: {
    above: /:\s*([\w.]+)/,
    broughtIn: /^[ \t]*(?:global\s+)?using\s+static\s+(?:\w+\.)*(\w+)(;)/gm,
    areApart: true,
  },
  spaces: {
    declared: /^\s{0,9}namespace\s+([\w.]+)/m,
    brought: /^[ \t]{0,40}(?:global\s+)?using\s+(?!static\b)([\w.]+)\s*;/gm,
    areNested: true,
  },
  habits: csharpHabits,
  hole: "{0}",
  escapesIn: (open) =>
    open.includes('"""')
      ? noEscapes
      : open.includes("@")
        ? { backslash: "nothing", keepsUnknown: true, doublesQuote: true }
        : fullEscapes,
  fillers: { "brace-index": "string.Format({call}, {values})" },
  passValues: listed("new { ", (name, code) => (name === code ? name : `${name} = ${code}`), " }"),
  imports: {
    lines: /^(?:global )?using\s[^;(\n]*;[^\n]*$/gm,
    head: /^(?:\/\/[^\n]*\n)*/,
    body: /^(?:namespace|public|internal|class|\[)/m,
  },
  rebinds:
    "(?:\\bvar|\\bout|\\bstring|\\bint|[A-Z]\\w*(?:<[^<>]*>)?\\??(?:\\[\\])?) NAME ?(?:[=;,)]|\\bin\\b)|NAME ?=>|\\([^()]*NAME[^()]*\\) ?=>",
  deferring:
    /^(?:method_declaration|constructor_declaration|local_function_statement|lambda_expression|anonymous_method_expression|accessor_declaration|arrow_expression_clause|operator_declaration|indexer_declaration)$/,
  instanceFields: /^(?:field_declaration|property_declaration)$/,
  constantPlaces: /^attribute$/,
  fixedPlaces: parametersAndConstants,
  formatsInPlace: (code) => {
    const bare = withoutNested(code);
    return !bare.includes("?") && /[:,]/.test(bare);
  },
});
