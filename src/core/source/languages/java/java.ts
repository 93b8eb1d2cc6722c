import { comparisons, defineLanguage, parametersAndConstants, listed } from "../language.js";
import { javaHabits } from "./habits.js";

/** Types whose values `MessageFormat` writes in the manner of the locale. */
const ofLocale =
  /^(?:int|long|short|byte|float|double|Integer|Long|Short|Byte|Float|Double|Number|Big(?:Integer|Decimal)|Atomic(?:Integer|Long)|Date|Timestamp)$/;

/** Values that are numbers or dates whatever is declared. */
const numbers =
  /(?:\+\+|--)|^[\d\s+*/%()-]+$|\.(?:size|length|count|intValue|longValue|ordinal|hashCode|getTime|indexOf)\([^()]{0,80}\)$|\.length$|^new\s+Date\b|^(?:Math\.\w+|Integer\.parseInt|Long\.parseLong|System\.(?:currentTimeMillis|nanoTime))\(/;

/** Names of what is a number and is never counted with. */
const labelled = /(?:^|[a-z_.])(?:[Ii]d|ID|[Pp]ort|[Yy]ear|[Pp]id|PID|[Zz]ip)(?:\(\))?$/;

function isWrittenByLocale(code: string, before: string): boolean {
  if (numbers.test(code) || labelled.test(code)) return true;
  const name = /^(?:this\.)?([A-Za-z_]\w{0,80})$/.exec(code)?.[1];
  if (name === undefined) return false;
  const declared = new RegExp(`([A-Za-z]\\w{0,80})\\s+${name}\\s*[=;,)]`, "g");
  const type = [...before.matchAll(declared)]
    .map((match) => match[1] ?? "")
    .filter((word) => word !== "return")
    .at(-1);
  return type !== undefined && ofLocale.test(type);
}

/** Java. */
export const java = defineLanguage({
  name: "java",
  extensions: [".java"],
  grammar: {
    file: "java",
    strings: ["string_literal"],
    textBlocks: "least",
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
    throws: ["throw_statement", "assert_statement"],
    annotations: ["annotation"],
    imports: ["import_declaration", "package_declaration"],
    functions: ["method_declaration", "class_declaration", "constructor_declaration"],
    comments: ["line_comment", "block_comment"],
    formats: { "String.format": 0, "MessageFormat.format": 0, format: 0, formatted: -1 },
    printers: { printf: 0, "System.out.format": 0, "System.err.format": 0 },
  },
  declared: "values",
  classes: { above: /\bextends\s+([\w.]+)/, broughtIn: /^import\s+static\s+(?:\w+\.)*(\w+)\.(\w+|\*);/gm },
  spaces: {
    declared: /^\s{0,9}package\s+([\w.]+)\s*;/m,
    brought: /^\s{0,9}import\s+([\w.]+)\.(\w+|\*)\s*;/gm,
  },
  habits: javaHabits,
  patternStyle: (filler, pattern) =>
    /MessageFormat\.format$/.test(filler) ||
    (!/String\.format$|formatted$|printf$/.test(filler) && /\{\d/.test(pattern))
      ? "message"
      : "percent-dates",
  patternTexts: { "%n": "\n" },
  // `Map.of` takes no null, and a value may be null.
  passValues: (values) => {
    const [first] = values;
    if (first && values.length === 1)
      return `, java.util.Collections.singletonMap("${first[0]}", ${first[1]})`;
    return listed(
      "new java.util.HashMap<String, Object>() {{ ",
      (name, code) => `put("${name}", ${code});`,
      " }}",
      " ",
    )(values);
  },
  // A number or date of `MessageFormat` is written as the locale writes it: 8,080 for a port.
  asJoined: (code, before) => (isWrittenByLocale(code, before) ? `String.valueOf(${code})` : undefined),
  keyAlone: /(?:^|\.)getString$/,
  fillers: {
    java: "java.text.MessageFormat.format({call}, {values})",
    printf: "String.format({call}, {values})",
  },
  imports: {
    lines: /^import\s[^;\n]*;[^\n]*$/gm,
    head: /^package\s[^;\n]*;[^\n]*\n/m,
    body: /^(?:public |final |abstract )*(?:class|interface|enum|record)\b/m,
  },
  deferring:
    /^(?:method_declaration|constructor_declaration|compact_constructor_declaration|lambda_expression)$/,
  instanceFields: /^field_declaration$/,
  constantPlaces: /^annotation$/,
  labelsConstants: true,
  fixedPlaces: parametersAndConstants,
});
