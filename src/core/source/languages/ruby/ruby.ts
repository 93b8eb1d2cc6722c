import { comparisons, defineLanguage, listed } from "../language.js";
import { rubyHabits } from "./habits.js";

/** Ruby. */
export const ruby = defineLanguage({
  name: "ruby",
  extensions: [".rb", ".rake", ".ru"],
  grammar: {
    file: "ruby",
    strings: ["string", "heredoc_body", "bare_string"],
    contents: ["string_content", "heredoc_content"],
    interpolations: ["interpolation"],
    escapes: ["escape_sequence"],
    calls: ["call", "command_call", "yield"],
    arguments: ["argument_list"],
    pairs: ["pair"],
    binaries: ["binary"],
    concatenation: ["+", "<<"],
    comparisons,
    assignments: ["assignment", "operator_assignment"],
    cases: ["when", "case", "in_clause"],
    subscripts: ["element_reference"],
    returns: ["return"],
    throws: [],
    annotations: [],
    imports: [],
    functions: ["method", "singleton_method", "class", "module"],
    comments: ["comment"],
    formats: { format: 0, sprintf: 0 },
  },
  habits: rubyHabits,
  passValues: listed("", (name, code) => `${name}: ${code}`, ""),
  imports: {
    lines: /^require(?:_relative)?\b[^\n]*$/gm,
    head: /^(?:#[^\n]*\n)*/,
    body: /^(?:class|module|def)\b/m,
    isTight: true,
  },
  // Values of parameters are made for each call.
  fixedPlaces: undefined,
});
