import { notices } from "../message/notices.js";
import { fixedText, type Literal, type Obstacle, type SourceFile } from "../source/model.js";
import { mayBeReadBack } from "../source/read-back.js";
import { bracketsAround, closeOf } from "../text/brackets.js";
import { withoutQuoted } from "../text/delimited.js";
import { literally } from "../text/key-pattern.js";
import type { Span } from "../text/span.js";

const say = notices("extract", {
  "option-sent": {
    message: "its option has no value, so that a form sends this text and a program may store it",
    remedy: "give the option the attribute {attribute}, then extract again",
  },
  "button-sent": {
    message: "a form sends this text with its button's name, and code compares with it",
    remedy: "ask whether the name was sent at all, then extract again",
  },
  "choice-sent": {
    message: "its list gives it as the value to choose as well, which a program may store",
    remedy: "write a pair for it, of the text and a value of its own, then extract again",
  },
  "used-too": {
    message: "code uses what this list holds for more than to show it",
    remedy: "make a list of values, and choose the text by the value where it is shown",
  },
  "in-parts": {
    message: "a list or call joins it to values, as a part of a sentence",
    remedy: "put the whole sentence into one text, with its values",
  },
  "looked-up-later": {
    message: 'code looks "{name}" up by its text where it shows it',
    remedy:
      "mark the text for collecting in the way that your program has, since a lookup here would be one too many",
  },
  "compared-elsewhere": {
    message: "code in another place compares with the same text, and would not find it any more",
    remedy: "compare with a value of its own, such as an identifier, and choose the text by that",
  },
});

/** What a book's code does elsewhere: the strings that it compares with, and the members that it looks up by their text. */
export interface SetsOfUses {
  readonly compared: ReadonlySet<string>;
  readonly lookedUp: ReadonlySet<string>;
}

/** The member that a method sets, `label` of `field.setLabel`. */
function setterOf(callee: string): string | undefined {
  const name = /(?:->|\.)set([A-Z]\w{0,60})$/.exec(callee)?.[1];
  return name && name.charAt(0).toLowerCase() + name.slice(1);
}

/** So far before a text its tag begins at most, in code units. */
const longestTag = 2_000;

/**
 * Why a text stays that a program reads back: the text of an option without a value (HTML, "The option element"); the value of a
 * submit button that has a name (HTML, "Constructing the entry list") where code compares with it; what a list to choose from
 * gives as the value; and what goes on into the program, where code compares with it. `uses` are what the book's
 * code does elsewhere, asked for where that matters. Undefined for others.
 */
export function sentRefusal(
  literal: Literal,
  source: SourceFile,
  uses: () => SetsOfUses,
): Obstacle | undefined {
  const { text } = source;
  const { form, context, pieces, span } = literal;
  const element = context.element ?? "";
  if (form === "content") {
    if (!/^option$/i.test(element)) return undefined;
    const tag = tagBefore(text, span.start, "option");
    // No form sends what is disabled. What code gives the tag may be its value as well: a spread, an object of attributes, a mark of a template.
    if (tag === undefined || /\sdisabled\b|value|\{\s{0,9}\.\.\.|v-bind\b|<[%?]|\{[{%]/i.test(tag))
      return undefined;
    return say("option-sent", { attribute: `value="${fixedText(pieces).trim()}"` });
  }
  const isCompared = () => pieces.length === 1 && uses().compared.has(fixedText(pieces));
  if (form === "attribute")
    return /^(?:input|button)$/i.test(element) && isSubmitValue(text, span, element) && isCompared()
      ? say("button-sent", {})
      : undefined;
  const setter =
    context.role === "argument" && context.index === 0 ? setterOf(context.name ?? "") : undefined;
  if (setter !== undefined && uses().lookedUp.has(setter)) return say("looked-up-later", { name: setter });
  if (isJoinedToValues(literal, text) || isPutOutInParts(literal, source)) return say("in-parts", {});
  if (isChoiceAlone(literal, text)) return say("choice-sent", {});
  if (isUsedToo(literal, text)) return say("used-too", {});
  if (
    context.role === "argument" &&
    /(?:^|[._>])submit(?:_tag|_button|Button|Tag)?$/.test(context.name ?? "")
  )
    return isCompared() ? say("button-sent", {}) : undefined;
  // What is named for what people are shown is no more than that.
  const goesOn = context.role !== "property" && context.role !== "other" && mayBeReadBack(literal);
  return goesOn && isCompared() ? say("compared-elsewhere", {}) : undefined;
}

/** Whether a text is the value of a submit button with a name. */
function isSubmitValue(text: string, { start, end }: Span, element: string): boolean {
  const isValue = /\svalue\s{0,9}=\s{0,9}["'{]{0,2}$|^value\s{0,9}=/i;
  if (
    !isValue.test(text.slice(Math.max(start - 40, 0), start)) &&
    !isValue.test(text.slice(start, start + 20))
  )
    return false;
  const rest = text.slice(end, end + longestTag);
  const whole = `${tagBefore(text, start, element) ?? ""} ${rest.slice(0, Math.max(rest.indexOf(">"), 0))}`;
  return /\sname\s{0,9}=/i.test(whole) && /\stype\s{0,9}=\s{0,9}["']?submit\b|^<button\b/i.test(whole);
}

/** Calls that make a list to choose from of the members of a list: a member that is no pair is text and value in one. */
const chooser = /(?:^|\.)(?:select|select_tag|(?:grouped_)?options_for_select|collection_select)$/;

/** Whether a text is a member by itself of a list to choose from. */
function isChoiceAlone({ context: { role, name = "" }, span }: Literal, text: string): boolean {
  if (role !== "argument" || !chooser.test(name)) return false;
  const [inner, outer] = bracketsAround(text, span.start, 2);
  return inner?.sign === "[" && outer?.sign !== "[" && outer?.sign !== "{";
}

/** What shows a list's member in an attribute, or tells members apart. */
const shows =
  "(?<!\\b(?:key|title|label|alt|placeholder|header|text|tooltip|caption|description|aria-label))";

/** So much of a function that goes through a list is looked at, in code units. */
const longestBody = 4_000;

/** Whether a list's members, each gone through by a function, are more to it than a text to show: `onClick={() => choose(kind)}`. */
function isUsedToo({ context: { language, properties = [] }, span }: Literal, text: string): boolean {
  if (language !== "script" || properties.length > 0) return false;
  const [around] = bracketsAround(text, span.start, 2);
  if (around?.sign !== "[") return false;
  const close = closeOf(text, span.end);
  const [head, member] =
    /^\]\s{0,40}\.(?:map|flatMap|forEach)\(\s{0,9}(?:\(\s{0,9})?([\w$]{1,60})[^=]{0,60}=>/.exec(
      text.slice(close, close + 200),
    ) ?? [];
  if (head === undefined || member === undefined) return false;
  const ahead = text.slice(close + head.length, close + head.length + longestBody);
  const body = ahead.slice(0, closeOf(ahead, 0));
  const x = literally(member);
  const used = new RegExp(
    `${shows}=\\{\\s{0,9}${x}\\s{0,9}\\}|[(,]\\s{0,9}${x}\\s{0,9}[,)]|[=!]==?\\s{0,9}${x}(?![\\w$.])|(?<![\\w$.])${x}\\s{0,9}[=!]==?`,
  );
  return used.test(body) || (/<option(?![\w-])/.test(body) && !/<option\s[^<>]{0,300}\bvalue=/.test(body));
}

/** Whether a text is a member of what is joined without a sign between, with values beside it: `["Sold", n, "boats"].join(" ")`. */
function isJoinedToValues({ context: { role, name = "" }, span }: Literal, text: string): boolean {
  const [inner] = bracketsAround(text, span.start, 2);
  if (inner === undefined || inner.sign === "{") return false;
  const close = closeOf(text, span.end);
  const isCall = role === "argument" && /(?:^|\.)[cC]oncat$/.test(name) && inner.sign === "(";
  const isList =
    inner.sign === "[" &&
    (/^\]\s{0,40}\.join\(?\s{0,9}(?:(["'`])\s?\1|\))/.test(text.slice(close, close + 60)) ||
      /(["'])\s?\1\.join\(\s{0,40}$/.test(text.slice(Math.max(inner.at - 60, 0), inner.at)));
  if (!isCall && !isList) return false;
  const members = text.slice(inner.at + 1, close);
  return /[\p{L}_$]/u.test(withoutQuoted(members, "\"'`", () => ""));
}

/** Calls that put out what they are given one behind the other. */
const putsOut = /(?:^|\.)(?:echo|print|write)$/;

/** Whether a call puts out a sentence in parts, with values between them: `echo "At line ", $line, " of ", $file`. */
function isPutOutInParts(literal: Literal, { literals, text }: SourceFile): boolean {
  const { context, span } = literal;
  const { role, name = "" } = context;
  if (role !== "argument" || !putsOut.test(name)) return false;
  return literals.some((other) => {
    if (other === literal || other.context.role !== "argument" || other.context.name !== name) return false;
    if (Math.abs(other.span.start - span.start) > 300) return false;
    if (!/\p{L}/u.test(fixedText(other.pieces).replace(/<[^<>]{0,200}>/g, ""))) return false;
    const [first, second] = other.span.start < span.start ? [other.span, span] : [span, other.span];
    const between = text.slice(first.end, second.start);
    return !between.includes(";") && /^[\s"']{0,9},(?=[^"']{0,300}\w)[^"']{0,300},[\s"']{0,9}$/.test(between);
  });
}

/** The tag of an element up to a place in it or behind it; undefined where it does not stand close before. */
function tagBefore(text: string, at: number, element: string): string | undefined {
  const before = text.slice(Math.max(at - longestTag, 0), at);
  const open = before.toLowerCase().lastIndexOf(`<${element.toLowerCase()}`);
  return open < 0 ? undefined : before.slice(open);
}
