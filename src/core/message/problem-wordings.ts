import { wordings, type DataOf, type Notice } from "../text/wording.js";
import type { MessageProblem } from "./model.js";
import { noticeOf } from "./notices.js";

/** What the parsers of messages say, by name. */
export const problemWordings = wordings("message", {
  "bad-name": {
    message: '"{name}" is not an argument name',
    remedy:
      "use letters, digits and _, or a number without leading zeros; to show braces, write '''{''' and '''}'''",
  },
  "place-zero": {
    message: "argument number 0: places count from 1, and programs throw an error or show nothing",
    remedy: "number the first argument 1",
  },
  "bare-percent": {
    message: "percent sign that starts no placeholder",
    remedy: "write %% to show a percent sign",
  },
  "single-brace": {
    message: "{brace} by itself in a text with arguments: programs throw an error",
    remedy: "write it twice to show a brace",
  },
  "mixed-numbers": {
    message: "a numbered value beside one that is counted: programs throw an error",
    remedy: "number all of them from 0, or none",
  },
  "crossed-tag": { message: "tag {tag} is still open at {other}", remedy: "write {end} before {other}" },
  "duplicate-branch": { message: 'duplicate branch "{branch}"', remedy: "keep one of the two" },
  "empty-braces": {
    message: "empty braces",
    remedy: "name the argument, or write '''{''' and '''}''' to show braces",
  },
  "incomplete-percent-brace": {
    message: "incomplete placeholder",
    remedy: "write {placeholder}, or {escaped} to show %'{'",
  },
  "incomplete-placeholder": {
    message: "incomplete placeholder",
    remedy: "write {placeholder}, with a name of letters and digits",
  },
  "java-name": {
    message: '"{name}" is not a number, and arguments are numbered in this syntax',
    remedy: "write {first}, {second} …, or '''{''' to show a brace",
  },
  "java-no-number": {
    message: "argument without a number",
    remedy: "write {first}, {second} …, or '''{''' to show a brace",
  },
  "java-space": {
    message: "blank before or behind the number of an argument: Java throws an error",
    remedy: "write {written}…",
  },
  "java-number-pattern": {
    message: '"{style}" is no pattern of numbers: Java throws an error',
    remedy: "write # before 0 in front of the point and 0 before # behind it, such as #,##0.0#",
  },
  "java-date-pattern": {
    message: '"{style}" has a letter that no date has: Java throws an error',
    remedy: "use the letters of dates, such as dd.MM.yyyy, and put other text between apostrophes",
  },
  "java-date-quote": {
    message: 'quoted text in "{style}" is not closed: Java throws an error',
    remedy: "close it with an apostrophe",
  },
  "java-choice-limit": {
    message: 'a text of "{style}" has no number before it: Java throws an error',
    remedy: "write a number and # or < before each text, such as 0#none|1#one|1<many",
  },
  "java-choice-order": {
    message: 'the numbers of "{style}" do not rise: Java throws an error',
    remedy: "put the smallest number first",
  },
  "java-type": { message: 'unknown type "{type}"', remedy: "use number, date, time or choice" },
  "mf2-after": { message: "text after the closing {end}", remedy: "move it before {end}" },
  "mf2-attribute": { message: "missing attribute name", remedy: "write @name or @name=value" },
  "mf2-attribute-value": { message: "attribute {name} has no value", remedy: "write {name} or {written}" },
  "mf2-backslash": { message: "backslash that escapes nothing", remedy: "write {written} for a backslash" },
  "mf2-bar": { message: "unclosed text between bars", remedy: "close it with |" },
  "mf2-brace": {
    message: 'unexpected "{found}"',
    remedy: "close the expression with '}', or write {brace} to show a brace",
  },
  "mf2-character": {
    message: 'unexpected "{found}"',
    remedy: "write a variable with its $, or |text between bars|",
  },
  "mf2-combinations": { message: "too many combinations of keys", remedy: "split the message" },
  "mf2-declared": {
    message: "duplicate declaration of {variable}",
    remedy: "declare it once, or choose another name",
  },
  "mf2-duplicate": { message: 'duplicate variant "{keys}"', remedy: "keep one of the two" },
  "mf2-duplicate-option": { message: 'duplicate option "{name}"', remedy: "keep one of the two" },
  "mf2-empty-braces": { message: "empty braces", remedy: "write {variable}; {brace} shows a brace" },
  "mf2-equals": { message: 'missing "="', remedy: "write {written}" },
  "mf2-expression": { message: "expected an expression in braces", remedy: "write {variable} or {typed}" },
  "mf2-function": { message: "missing function name", remedy: "write a function, for example :number" },
  "mf2-input": { message: ".input without a variable", remedy: "write a variable, for example {written}" },
  "mf2-key": {
    message: 'expected a key or {text}, found "{found}"',
    remedy: "write the keys, then the text in {text}",
  },
  "mf2-keys": {
    message:
      "variant has {keys, plural, one {# key} other {# keys}} for {variables, plural, one {# variable} other {# variables}}",
    remedy: "write one key, or *, for each variable after .match",
  },
  "mf2-markup": { message: "markup without a name", remedy: "write {written}" },
  "mf2-match": { message: ".match without a variable", remedy: "write .match $name after its declaration" },
  "mf2-no-name": { message: "$ without a name", remedy: "write $name" },
  "mf2-no-pattern": {
    message: "message without a text",
    remedy: "write the text in {text} after the declarations",
  },
  "mf2-no-variants": {
    message: ".match without variants",
    remedy: "write at least a variant with the key *",
  },
  "mf2-option": { message: 'option "{name}" has no value', remedy: "write {written}" },
  "mf2-start": {
    message: 'expected .input, .local, .match or {text}, found "{found}"',
    remedy:
      "write the text in {text} after the declarations; a message that starts with a period needs {text} around it",
  },
  "mf2-unclosed": {
    message: "unclosed markup {tag}",
    remedy: "write {end}, or {alone} for markup without content",
  },
  "mf2-unclosed-brace": {
    message: "unclosed brace",
    remedy: "close it with '}', or write {brace} to show a brace",
  },
  "mf2-unclosed-text": { message: "unclosed text", remedy: "close it with {end}" },
  "mf2-undeclared": {
    message: ".match uses {variable}, which is not declared",
    remedy: "declare it before: {written}, or :string",
  },
  "mf2-unknown-function": { message: "unknown function {name}", remedy: "did you mean {meant}?" },
  "mf2-unmatched-brace": {
    message: "unmatched closing brace",
    remedy: "remove it, or write {written} to show a brace",
  },
  "mf2-unopened": {
    message: "closing markup {end} has no opening one",
    remedy: "remove it, or write {tag} before it",
  },
  "mf2-value": {
    message: 'expected a variable or a literal, found "{found}"',
    remedy: "write {variable}; {brace} shows a brace",
  },
  "mf2-variable": { message: "missing variable", remedy: "write $name" },
  "mf2-variant": { message: "variant without a text", remedy: "write its text in {text}" },
  "no-branch": {
    message: 'expected a branch, found "{found}"',
    remedy: "write a selector and its text in braces, for example {branch}",
  },
  "no-branches": { message: "{type} has no branches", remedy: "add at least {branch}" },
  "no-branches-with": { message: "{type} has no branches", remedy: "write {written}" },
  "no-comma": { message: 'missing comma in "{argument}"', remedy: "write {written}" },
  "no-conversion": {
    message: "placeholder without a conversion",
    remedy: "write a letter after it, for example {text} or {number}; %% shows a percent sign",
  },
  "no-offset": { message: "missing number after offset:", remedy: "write a number, for example offset:1" },
  "no-selector": {
    message: "branch without a selector",
    remedy: "write a category or case before its brace, for example {branch}",
  },
  "no-type": {
    message: "missing argument type",
    remedy: "write number, date, time, plural, selectordinal or select, then a comma or '}'",
  },
  "too-deep": { message: "nested deeper than {levels} levels", remedy: "split the message" },
  "unclosed-argument": { message: "unclosed {type} of {argument}", remedy: "add the missing closing brace" },
  "unclosed-brace": {
    message: "unclosed brace",
    remedy: "write '}' where the argument ends, or '''{''' to show a brace",
  },
  "unclosed-branch": { message: 'unclosed branch "{branch}"', remedy: "add the missing closing brace" },
  "unclosed-name": { message: "unclosed argument {name}", remedy: "write {argument}" },
  "unclosed-style": {
    message: "unclosed argument style",
    remedy: "close it with '}', and close quoted text in it with an apostrophe",
  },
  "unclosed-tag": { message: "unclosed tag {tag}", remedy: "write {end} where it ends" },
  "unfinished-tag": { message: "unfinished tag {tag}", remedy: "end it with >" },
  "unmatched-brace": {
    message: "unmatched closing brace",
    remedy: "remove it, or write '''}''' to show a brace",
  },
  "unopened-tag": {
    message: "closing tag {end} has no opening tag",
    remedy: "remove it, or write {tag} before it",
  },
});

/** The name of something that a parser says. */
export type ProblemName = keyof typeof problemWordings;

/** The values that it needs. */
export type ProblemData<N extends ProblemName> = DataOf<(typeof problemWordings)[N]>;

/** A parser's problem in words. */
export function explainProblem({ name, data }: MessageProblem): Notice {
  return noticeOf(`message/${name}`, problemWordings[name], data);
}
