import { noEscapes, quoteEscapes } from "../../escapes.js";
import { comparisons, defineLanguage, listed } from "../language.js";
import { sharedPhpEndings } from "./endings.js";
import { phpHabits } from "./habits.js";

const takesIn = /(?<![\w$>])(?:include|require)(?:_once)?\b/g;
const ends = /(?<![\w$>])(?:exit|die)\b/;

/**
 * Whether a text tells why a script ends: where a file could not be taken in, or before the first that is taken in at all, so that
 * nothing has declared functions yet.
 */
function endsBeforeLoading(callee: string, text: string, at: number): boolean {
  if (!/^(?:echo|print|die|exit)$/.test(callee)) return false;
  const before = text.slice(Math.max(at - 500, 0), at);
  const failed = /!\s{0,9}\(?\s{0,9}@?(?:include|require)(?:_once)?\b[^{}]{0,300}\{[^{}]{0,300}$/.test(
    before,
  );
  const isEnd = ends.test(callee) || ends.test(/^[^}]{0,300}/.exec(text.slice(at))?.[0] ?? "");
  if (failed) return true;
  if (!isEnd || /\b(?:function|class)\s/.test(text.slice(0, at))) return false;
  const [first] = text.matchAll(takesIn);
  return first !== undefined && first.index > at;
}

/** PHP. */
export const php = defineLanguage({
  name: "php",
  extensions: [".php", ".phtml", ...sharedPhpEndings],
  grammar: {
    file: "php",
    strings: ["string", "encapsed_string", "heredoc", "nowdoc"],
    blockStrings: { whole: ["heredoc", "nowdoc"], body: /^(?:heredoc|nowdoc)_body$/, end: "heredoc_end" },
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
    formats: { sprintf: 0, vsprintf: 0 },
    printers: { printf: 0, fprintf: 1 },
  },
  habits: phpHabits,
  takesVariablesIn: true,
  endsBeforeLoading,
  escapesIn: (open) =>
    open === "'"
      ? quoteEscapes
      : /^<<<\s*'/.test(open)
        ? noEscapes
        : { backslash: "all", keepsUnknown: true },
  passValues: listed("[", (name, code) => `'${name}' => ${code}`, "]"),
  spaces: {
    declared: /^\s{0,9}namespace\s+([\w\\]+)\s*[;{]/m,
    brought:
      /(?:^\s{0,9}use\s+(?:function\s+)?|,\s*|\{\s*)(?:([\w\\]+)\\)?(?:\w+\s+as\s+)?(\w+)(?=\s*[;,}])/gm,
    functions: "^function\\s+NAME\\s*\\(",
  },
  escapesMarkup: (call) => `htmlspecialchars(${call}, ENT_QUOTES)`,
  fillers: { printf: "sprintf({call}, {values})" },
  imports: {
    lines: /^use\s[^;\n]*;[^\n]*$/gm,
    head: /^namespace\s[^;\n]*;[^\n]*\n/m,
    start: /^<\?php[^\n]*\n(?:declare\s*\([^;\n]*;[^\n]*\n)?/,
    body: /^(?:abstract |final )*(?:class|interface|trait|enum|function)\b/m,
    opens: /^<\?php[ \t]*(?:\r?\n)/,
  },
  deferring: /^(?:function_definition|method_declaration|anonymous_function\w*|arrow_function)$/,
  fixedPlaces: undefined,
  constantPlaces:
    /^(?:simple_parameter|property_promotion_parameter|property_declaration|const_declaration|static_variable_declaration|function_static_declaration|enum_case|attribute_list)$/,
  runsPerRequest: true,
  bracesInterpolation: true,
  // In a string `${name}` is `$name`, and the key of `$row[name]` stands without quotes (PHP manual, "Strings", "Variable parsing").
  outsideString: (code) =>
    code
      .replace(/^\$\{([A-Za-z_]\w*)((?:\[[^]*\])?)\}$/, "$$$1$2")
      .replace(/^(\$\w+)\[([A-Za-z_]\w*)\]$/, "$1['$2']"),
});
