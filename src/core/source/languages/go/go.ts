import { fullEscapes, noEscapes } from "../../escapes.js";
import { comparisons, defineLanguage, parametersAndConstants, listed } from "../language.js";
import { goHabits } from "./habits.js";

/** Go. */
export const go = defineLanguage({
  name: "go",
  extensions: [".go"],
  grammar: {
    file: "go",
    strings: ["interpreted_string_literal", "raw_string_literal"],
    contents: ["interpreted_string_literal_content", "raw_string_literal_content"],
    interpolations: [],
    escapes: ["escape_sequence"],
    calls: ["call_expression"],
    arguments: ["argument_list"],
    pairs: ["keyed_element"],
    binaries: ["binary_expression"],
    concatenation: ["+"],
    comparisons,
    assignments: ["short_var_declaration", "assignment_statement", "var_spec", "const_spec"],
    cases: ["expression_case"],
    subscripts: ["index_expression"],
    returns: ["return_statement"],
    throws: [],
    annotations: ["field_declaration"],
    imports: ["import_declaration"],
    functions: ["function_declaration", "method_declaration"],
    comments: ["comment"],
    formats: { "fmt.Sprintf": 0 },
    printers: { "fmt.Printf": 0, "fmt.Fprintf": 1, "fmt.Errorf": 0 },
  },
  declared: "all",
  makesOutside: /^(?:import|var|const|func|type)\b|^\s*(?:[\w.]+\s+)?"|=(?!=)/,
  spaces: {
    declared: /^package\s+(\w+)/m,
    brought: /^\s{0,9}(?:import\s+)?\.\s+"(?:[^"\n]{0,200}\/)?(\w+)"/gm,
    functions: "^func\\s+NAME\\s*[(\\[]",
  },
  habits: goHabits,
  escapesIn: (open) => (open === "`" ? noEscapes : fullEscapes),
  passValues: listed("map[string]any{", (name, code) => `"${name}": ${code}`, "}"),
  imports: {
    lines: /^import\s(?:[ \t]*\([^)]*\)|[^\n]*)$/gm,
    head: /^package\s[^\n]*\n/m,
    body: /^(?:func|type|var|const)\b/m,
  },
  rebinds:
    "NAME ?(?:, ?\\w+ ?)*:=|\\bvar NAME|^func [^{\\n]*?[(,] ?NAME(?:, ?\\w+)* [\\w*.[\\]]+ ?[,)]|\\bfunc\\([^(){}\\n]*?NAME",
  deferring: /^(?:function_declaration|method_declaration|func_literal)$/,
  constantPlaces: /^field_declaration$/,
  fixedPlaces: parametersAndConstants,
});
