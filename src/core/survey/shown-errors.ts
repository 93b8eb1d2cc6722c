import { habitsOf, languageOf } from "../source/languages/index.js";
import type { Literal, SourceFile } from "../source/model.js";
import { isScript } from "../source/readers/script/endings.js";
import { isShowing, writesForDevelopers } from "./calls.js";

/**
 * Errors whose message the code shows where it catches them: `except LoanError as e: flash(str(e))`. Their messages are
 * texts, wherever they are thrown. Of errors that every library throws that cannot be said.
 */

/** Where a file catches errors of some types under a name: in braces, in Python's and in Ruby's way. */
const catches =
  /\bcatch\s{0,3}\(\s{0,3}(?:final\s)?([\w.\\|& ]{1,200}?)\s\$?(\w{1,40})\s?\)(?:\s?when\s?\([^()\n]{0,100}\))?\s{0,20}\{|\bexcept\s{0,3}\(?([\w., ]{1,200}?)\)?\sas\s(\w{1,40})\s?:|\brescue\s([\w:, ]{1,200}?)\s?=>\s?(\w{1,40})|\b(?:if\s?\(|&&\s?|\()(\w{1,40})\sinstanceof\s(\w{1,60})\b/g;

/** Errors that the language or any library throws. */
const general =
  /^(?:Base|Standard|Runtime|Value|Type|Key|Index|Argument|ArgumentNull|ArgumentOutOfRange|Illegal(?:Argument|State|Access)|Name|Attribute|IO|OS|EOF|Lookup|Arithmetic|Assertion|Import|ModuleNotFound|Memory|System|Null(?:Pointer|Reference)|Not(?:Implemented|Supported)|NoSuch(?:Element|Method|Field)|Invalid(?:Operation|Argument|Cast)|Unexpected(?:Value)?|Unsupported(?:Operation|Encoding)|Format|Parse|JSONDecode|Json|JSON|SQL|Sql|PDO|Db|Database|Http|HTTP|Web|Socket|Timeout|Connection|Interrupted|Security|Unicode(?:Encode|Decode)?|File(?:NotFound|Exists)|Number(?:Format)?|Class(?:Cast|NotFound)|ConcurrentModification|Domain|Logic|OutOf(?:Range|Bounds|Memory)|Range|Reference|Syntax|Eval|URI|Aggregate|Application)?(?:Error|Exception|Warning)$|^(?:Throwable|RecordInvalid|RecordNotFound|BaseException)$/;

/** Of how much code behind a catch what it does is read. */
const farthest = 1_500;

/** What a file shows of the errors that it catches: the names of their types. */
export function shownErrorsIn(file: string, text: string): readonly string[] {
  if (!/\b(?:catch|except|rescue)\b/.test(text)) return [];
  const language = languageOf(file) ?? (isScript(file) ? "script" : "markup");
  const found: string[] = [];
  for (const match of text.matchAll(catches)) {
    const [all, braced, bracedName, python, pythonName, ruby, rubyName, tested, testedType] = match;
    const name = bracedName ?? pythonName ?? rubyName ?? tested;
    const types = (braced ?? python ?? ruby ?? testedType ?? "")
      .split(/[|,&\s]+/)
      .map((type) => type.replace(/^.*[.\\:]/, ""))
      .filter((type) => type !== "" && !general.test(type));
    if (name === undefined || types.length === 0) continue;
    const block = blockBehind(text, match.index, match.index + all.length);
    if (showsMessage(block, name, language)) found.push(...types);
  }
  return found;
}

/** The code that a catch runs: to the end of its braces, or of what is indented deeper than it. */
function blockBehind(text: string, start: number, end: number): string {
  const rest = text.slice(end, end + farthest);
  if (text[end - 1] === "{") {
    let depth = 1;
    for (let at = 0; at < rest.length; at++) {
      if (rest[at] === "{") depth++;
      else if (rest[at] === "}" && --depth === 0) return rest.slice(0, at);
    }
    return rest;
  }
  const line = text.lastIndexOf("\n", start - 1) + 1;
  const indent = /^[ \t]*/.exec(text.slice(line, start))?.[0].length ?? 0;
  const lines = rest.split("\n");
  const last = lines.findIndex(
    (line, at) => at > 0 && line.trim() !== "" && (/^[ \t]*/.exec(line)?.[0].length ?? 0) <= indent,
  );
  return lines.slice(0, last < 0 ? lines.length : last).join("\n");
}

/** Whether code shows the message of an error, called by its name: gives it to what shows texts, or to a name that holds one. */
function showsMessage(code: string, name: string, language: keyof typeof habitsOf): boolean {
  const habits = habitsOf[language];
  const message = new RegExp(
    `(?<![\\w.])(?:(?:str|String)\\(${name}\\)|\\$?${name}(?:\\.(?:message|Message|getMessage\\(\\)|getLocalizedMessage\\(\\)|args\\[0\\]|full_message|to_s)|->getMessage\\(\\))|(?<=[(,{] ?)${name}(?=[),}]))`,
    "g",
  );
  return [...code.matchAll(message)].some(({ index }) => {
    const before = code.slice(Math.max(0, index - 200), index);
    const callee = callAround(before);
    if (callee !== undefined && writesForDevelopers(callee, habits)) return false;
    const given =
      /(?:^|[\s({[,])["':]?([\w$.>[\]"':-]{1,60}?)["']?\]?\s?(?:=>|=|:)\s?[\w"'({$`]{0,8}\s?$/.exec(
        before.slice(-90),
      )?.[1];
    const held = given
      ?.replace(/["'\]]/g, "")
      .split(/[.[>:]/)
      .at(-1);
    if (
      held !== undefined &&
      (habits.textName.test(held) || /^(?:error|alert|notice|flash|danger)$/i.test(held))
    )
      return true;
    // `request.setAttribute("error", e.getMessage())`
    const [, keyed = ""] = /\(\s{0,20}["']([\w.-]{1,40})["'],\s{0,20}$/.exec(before.slice(-90)) ?? [];
    if (habits.textName.test(keyed) || /^(?:error|alert|notice|flash|danger)$/i.test(keyed)) return true;
    const list = callee && /^(.*)\.(?:append|push|add)$/i.exec(callee)?.[1];
    if (list !== undefined && habits.textHolder.test(list)) return true;
    return callee !== undefined && isShowing(callee, habits);
  });
}

/** The innermost call that is still open at the end of code. */
function callAround(code: string): string | undefined {
  let depth = 0;
  for (let at = code.length - 1; at >= 0; at--) {
    const unit = code[at];
    if (unit === ")") depth++;
    else if (unit === "(" && depth-- === 0) {
      const callee = /[\w$.>:-]{1,80}$/.exec(code.slice(Math.max(0, at - 80), at))?.[0].replaceAll("->", ".");
      if (callee !== undefined && !/^(?:str|String|_|format|sprintf)$/.test(callee)) return callee;
      depth = 0;
    } else if (unit === ";" || unit === "\n") return undefined;
  }
  return undefined;
}

/** What throws an error by its type and message side by side: `raise LoanError, "…"`. */
const raised = /\b(?:raise|fail|throw)[\s(]{1,3}([A-Z][\w:.]{0,80})\s?,\s{0,20}$/;

/** Functions that check what people enter, by their name; and what files bring in that have such. */
const checking = /^(?:clean|validate)_\w/;
const checked = /^(?:from|import) [\w.]{0,60}(?:forms?|serializers|pydantic|marshmallow|schema)\b/m;

/** What Python's frameworks run to check what people enter: functions with a decorator that says so. */
const checkedBy =
  /@[\w.]{0,40}validat\w{0,20}[^\n]{0,200}\n(?:[ \t]{0,40}@[^\n]{0,200}\n){0,5}[ \t]{0,40}(?:async )?def (\w{1,80})/g;

/** The literals of a file, with those marked that are messages of errors which the program shows to people. */
export function withShownErrors(source: SourceFile, elsewhere: ReadonlySet<string> = none): SourceFile {
  const { literals, text, file } = source;
  const shown = new Set([...elsewhere, ...shownErrorsIn(file, text)]);
  const isPython = languageOf(file) === "python";
  const checks = isPython ? new Set([...text.matchAll(checkedBy)].map(([, name = ""]) => name)) : none;
  if (shown.size === 0 && !isPython) return source;
  const isShown = ({ context, span }: Literal) => {
    const { role, name = "", component = "" } = context;
    if (role !== "thrown" && role !== "argument") return false;
    const type =
      role === "argument"
        ? name.replace(/\.new$/, "")
        : raised.exec(text.slice(Math.max(0, span.start - 120), span.start))?.[1];
    const own = type?.replace(/^.*[.\\:]/, "") ?? "";
    if (isPython && role === "thrown" && type === undefined) return checks.has(component);
    if (isPython && /^(?:Value|Assertion)Error$/.test(own))
      return checks.has(component) || (checking.test(component) && checked.test(text));
    return shown.has(own);
  };
  if (!literals.some(isShown)) return source;
  return {
    ...source,
    literals: literals.map((literal) =>
      isShown(literal) ? { ...literal, context: { ...literal.context, isShown: true as const } } : literal,
    ),
  };
}

const none: ReadonlySet<string> = new Set();
