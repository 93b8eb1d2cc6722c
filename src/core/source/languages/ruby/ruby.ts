import { fullEscapes, quoteEscapes } from "../../escapes.js";
import { comparisons, defineLanguage, listed, withoutNested } from "../language.js";
import { rubyHabits } from "./habits.js";

/** Calls without brackets (`link_to name, path`) and conditions behind a value stand in brackets among arguments. */
function passable(code: string): string {
  return /\s/.test(withoutNested(code).trim()) ? `(${code})` : code;
}

/** Ruby. */
export const ruby = defineLanguage({
  name: "ruby",
  extensions: [".rb", ".rake", ".ru"],
  grammar: {
    file: "ruby",
    strings: ["string", "heredoc_body", "bare_string", "chained_string"],
    blockStrings: {
      whole: ["heredoc_body"],
      body: /^heredoc_body$/,
      end: "heredoc_end",
      opening: "heredoc_beginning",
      marks: ["#{", "}"],
    },
    contents: ["string_content", "heredoc_content"],
    interpolations: ["interpolation"],
    escapes: ["escape_sequence"],
    calls: ["call", "command_call", "yield"],
    arguments: ["argument_list"],
    pairs: ["pair"],
    binaries: ["binary"],
    concatenation: ["+", "<<"],
    appending: ["<<"],
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
    printers: { printf: 0 },
  },
  keyScope(given) {
    // `t(:title, scope: [:boats, :index])`, `t(:title, scope: %i[boats index])`
    const [, words, list, one] =
      /(?:\bscope:|:scope\s{0,9}=>)\s{0,9}(?:%[iw][[({]([\w\s.]{0,300})[\])}]|\[([^[\]]{0,300})\]|([^\s,)]{1,100}))/.exec(
        given,
      ) ?? [];
    if (words !== undefined) return words.trim().split(/\s+/);
    const parts = list === undefined ? (one === undefined ? [] : [one]) : list.split(",");
    return parts.map(
      (part) =>
        /^\s*(?::"?([\w.]+)"?|"([\w.]+)"|'([\w.]+)')\s*$/
          .exec(part)
          ?.slice(1)
          .find((name) => name !== undefined) ?? null,
    );
  },
  frameworkKeys: /^(?:activerecord|activemodel|errors|helpers|date|time|datetime|number|support)$/,
  habits: rubyHabits,
  callsBare: true,
  patternStyle: () => "percent-names",
  lookupOptions: /^(?:default|locale|scope|raise|throw|fallback)$/,
  takesVariablesIn: true,
  mixins: {
    opened: /^[ \t]*(?:class|module)[ \t]+([A-Z][\w:]{0,120})(?:[ \t]*<[ \t]*([A-Z][\w:]{0,120}))?/gm,
    taken: /^[ \t]*(?:include|extend|prepend|helper)[ \t(]+([A-Z][\w:]{0,120})/gm,
    ofClass: /^singleton_(?:method|class)$/,
    holder: /^(?:class|module)$/,
    made: "\\bdef[ \\t]+(?:self\\.)?NAME(?!\\w)",
    given: {
      names: /^(?:t|translate|l|localize)$/,
      to: /(?:Controller|Mailer|Helper)$|^(?:ActionController|ActionMailer|ViewComponent)::\w+$/,
    },
  },
  escapesIn: (open) => (/^'|^%[qw]/.test(open) ? quoteEscapes : fullEscapes),
  passValues: listed("", (name, code) => `${name}: ${passable(code)}`, ""),
  passable,
  counts: /^(?:\w{1,40}\.)?pluralize$/,
  asString: (call) => `${call}.to_s`,
  imports: {
    lines: /^require(?:_relative)?\b[^\n]*$/gm,
    head: /^(?:#[^\n]*\n)*/,
    body: /^(?:class|module|def)\b/m,
    isTight: true,
  },
  // Values of parameters are made for each call.
  givesByBlock: /(?:^|\.)logger\.\w+$/,
  task: /^(?:task|multitask)$/,
  makesOutside: /=(?!=)|^\s*(?:def|attr_\w+|module|class|delegate|helper_method|let)\b|require/,
  deferring: /^(?:method|singleton_method|block|do_block|lambda)$/,
  fixedPlaces: undefined,
});
