import type { HostLanguage } from "../../model.js";

/** The languages that are read by a grammar of their own. */
export type CodeLanguage = Exclude<HostLanguage, "script" | "markup">;

/** What the nodes of a language's grammar are for this job. */
export interface LanguageSpec {
  readonly endings: readonly string[];
  /** The name of the grammar's file. */
  readonly grammar: string;
  readonly strings: readonly string[];
  /** The inside of a string, where the grammar has nodes for it. */
  readonly contents: readonly string[];
  readonly interpolations: readonly string[];
  readonly escapes: readonly string[];
  readonly calls: readonly string[];
  readonly arguments: readonly string[];
  readonly pairs: readonly string[];
  readonly binaries: readonly string[];
  readonly concatenation: readonly string[];
  readonly comparisons: readonly string[];
  readonly assignments: readonly string[];
  readonly cases: readonly string[];
  readonly subscripts: readonly string[];
  readonly returns: readonly string[];
  readonly throws: readonly string[];
  readonly annotations: readonly string[];
  readonly imports: readonly string[];
  readonly functions: readonly string[];
  readonly comments: readonly string[];
  /** Calls that fill a pattern with values: the pattern's place among the arguments. */
  readonly formats: Readonly<Record<string, number>>;
}

const comparisons = ["==", "!=", "===", "!==", "<", ">", "<=", ">=", "=~", "<=>", "in", "not in", "is"];

export const languages: Readonly<Record<CodeLanguage, LanguageSpec>> = {
  ruby: {
    endings: [".rb", ".rake", ".ru"],
    grammar: "ruby",
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
  php: {
    endings: [".php", ".phtml"],
    grammar: "php",
    strings: ["string", "encapsed_string", "heredoc", "nowdoc"],
    contents: ["string_content", "string_value", "nowdoc_string"],
    interpolations: [
      "variable_name",
      "member_access_expression",
      "subscript_expression",
      "dynamic_variable_name",
      "interpolation",
    ],
    escapes: ["escape_sequence"],
    calls: [
      "function_call_expression",
      "member_call_expression",
      "nullsafe_member_call_expression",
      "scoped_call_expression",
      "object_creation_expression",
    ],
    arguments: ["arguments"],
    pairs: ["array_element_initializer"],
    binaries: ["binary_expression"],
    concatenation: ["."],
    comparisons,
    assignments: [
      "assignment_expression",
      "augmented_assignment_expression",
      "property_element",
      "const_element",
    ],
    cases: ["case_statement", "match_condition_list"],
    subscripts: ["subscript_expression"],
    returns: ["return_statement"],
    throws: ["throw_expression", "throw_statement"],
    annotations: ["attribute"],
    imports: [
      "require_expression",
      "require_once_expression",
      "include_expression",
      "include_once_expression",
      "namespace_use_declaration",
    ],
    functions: ["function_definition", "method_declaration", "class_declaration"],
    comments: ["comment"],
    formats: { sprintf: 0, printf: 0, vsprintf: 0 },
  },
  java: {
    endings: [".java"],
    grammar: "java",
    strings: ["string_literal"],
    contents: ["string_fragment", "multiline_string_fragment"],
    interpolations: ["string_interpolation"],
    escapes: ["escape_sequence"],
    calls: ["method_invocation", "object_creation_expression"],
    arguments: ["argument_list"],
    pairs: ["element_value_pair"],
    binaries: ["binary_expression"],
    concatenation: ["+"],
    comparisons,
    assignments: ["variable_declarator", "assignment_expression"],
    cases: ["switch_label"],
    subscripts: ["array_access"],
    returns: ["return_statement"],
    throws: ["throw_statement"],
    annotations: ["annotation"],
    imports: ["import_declaration", "package_declaration"],
    functions: ["method_declaration", "class_declaration", "constructor_declaration"],
    comments: ["line_comment", "block_comment"],
    formats: { "String.format": 0, "MessageFormat.format": 0, format: 0, formatted: -1, printf: 0 },
  },
  python: {
    endings: [".py"],
    grammar: "python",
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
    throws: ["raise_statement"],
    annotations: ["decorator"],
    imports: ["import_statement", "import_from_statement"],
    functions: ["function_definition", "class_definition"],
    comments: ["comment"],
    formats: { format: -1 },
  },
  go: {
    endings: [".go"],
    grammar: "go",
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
    formats: { "fmt.Sprintf": 0, "fmt.Printf": 0, "fmt.Fprintf": 1, "fmt.Errorf": 0 },
  },
  csharp: {
    endings: [".cs"],
    grammar: "c-sharp",
    strings: [
      "string_literal",
      "verbatim_string_literal",
      "raw_string_literal",
      "interpolated_string_expression",
    ],
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
  },
};

/** The language of a file, by its ending. */
export function languageOf(file: string): CodeLanguage | undefined {
  for (const [name, { endings }] of Object.entries(languages))
    if (endings.some((ending) => file.endsWith(ending))) return name as CodeLanguage;
  return undefined;
}
