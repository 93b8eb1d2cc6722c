import { languageOf } from "../../source/languages/index.js";
import type { SourceFile } from "../../source/model.js";
import type { FillingSyntax } from "./message-guess.js";
import { nameOf, type LookupSample, type LookupUse } from "./lookup-use.js";

/** So many of ten lookups in a language show that its own formats fill the texts, where no call of them is seen. */
const mostOfTen = 9;

/**
 * By which syntax code fills the texts that it looks up, as what stands around its lookups or makes them shows; undefined where
 * nothing does.
 */
export function fillingOf(
  uses: readonly LookupUse[],
  code: readonly SourceFile[],
): FillingSyntax | undefined {
  const samples = uses.flatMap((use) => use.samples);
  if (samples.some(isFormattedBehind)) return "brace-field";
  const inCSharp = samples.filter(
    ({ source: { file } }) => languageOf(file) === "csharp" || /\.(?:cshtml|razor)$/.test(file),
  );
  if (inCSharp.some(isFormattedAround) || areMost(inCSharp, samples)) return "brace-index";
  const byOwn = uses.map((use) => filledWhereMade(use, code)).find((filling) => filling !== undefined);
  if (byOwn !== undefined) return byOwn;
  const inPrograms = samples.filter(({ source: { file } }) => languageOf(file) !== undefined);
  const inPython = inPrograms.filter(({ source: { file } }) => languageOf(file) === "python");
  return areMost(inPython, inPrograms) ? "brace-field" : undefined;
}

function areMost(some: readonly LookupSample[], all: readonly LookupSample[]): boolean {
  return some.length > 0 && some.length * 10 >= all.length * mostOfTen;
}

/** So far behind its head a short function is read. */
const lengthOfFunction = 1500;

/** What fills values between braces in the body of a function: a format of Python, or a text put in place of another. */
const fillsFormats = /\.format(?:_map)?\(/;
const replacesBraces =
  /(?:replace(?:All)?|gsub|sub|strtr|str_replace|preg_replace(?:_callback)?)!?\(?\s{0,9}(?:\w{1,40}\s{0,9}[,(]\s{0,9}){0,3}(?:new RegExp\()?\[?\s{0,9}(?:["'`]\/?|\/)\\{0,2}\{(?!\{|\\{1,2}\{)/;

/** By which syntax a lookup of the project's own fills its texts, as the function of its name does. */
function filledWhereMade(use: LookupUse, code: readonly SourceFile[]): FillingSyntax | undefined {
  const { lookup } = use;
  const name = "maker" in lookup ? (lookup.gives ?? lookup.maker) : nameOf(use);
  if (name === undefined || !/^[\w$]{1,60}$/.test(name)) return undefined;
  const plain = name.replaceAll("$", "\\$");
  // A method is told from a call by the body behind it.
  const head = new RegExp(
    `(?:\\b(?:def|function)\\s{1,9}(?:self\\.)?|\\b(?:const|let|var)\\s{1,9})${plain}\\s{0,9}(?:[(=:<]|$)|^[ \\t]{0,20}(?:(?:public|private|static|async)\\s{1,9}){0,4}${plain}\\([^()]{0,200}\\)[^;(){}]{0,80}\\{|\\.${plain}\\s{0,9}=\\s{0,9}(?:async\\s)?(?:function\\b|\\(|[\\w$]{1,40}\\s{0,9}=>)|(?<![\\w$.])${plain}\\s{0,9}:\\s{0,9}(?:async\\s)?(?:function\\b|\\([^()]{0,200}\\)\\s{0,9}=>)`,
    "m",
  );
  for (const { file, text } of code) {
    const made = head.exec(text);
    if (!made) continue;
    const rest = text.slice(made.index, made.index + lengthOfFunction);
    const end = /\n(?:\}|(?:async )?def |class |(?:export )?(?:async )?function )/.exec(rest.slice(1));
    const body = end ? rest.slice(0, end.index + 1) : rest;
    if (languageOf(file) === "python" && fillsFormats.test(body)) return "brace-field";
    if (replacesBraces.test(body)) return "replaced";
  }
  return undefined;
}

/** Whether all lookups are in Ruby, whose libraries fill `%{name}` as its own formats do, and name keys as it names methods. */
export function isOfRuby(uses: readonly LookupUse[]): boolean {
  const samples = uses.flatMap((use) => use.samples);
  return (
    samples.length > 0 &&
    samples.every(
      ({ source: { file, dialect } }) => languageOf(file) === "ruby" || dialect?.language === "ruby",
    )
  );
}

/** Whether a method of what a lookup gives fills it, as in Python: `say("cart.total").format(total)`. */
export function isFormattedBehind({ source: { file, text }, literal }: LookupSample): boolean {
  if (languageOf(file) !== "python") return false;
  return /^\s{0,9}\)\s{0,99}\.format\(/.test(text.slice(literal.span.end, literal.span.end + 160));
}

/** Whether a lookup stands in a call that fills texts, as in C#: `string.Format(Texts.Get("cart.total"), total)`. */
function isFormattedAround({ source: { text }, literal }: LookupSample): boolean {
  const before = text.slice(Math.max(literal.span.start - 160, 0), literal.span.start);
  return /(?<!\w)(?:[sS]tring\.Format|AppendFormat)\(\s{0,99}[\w.]{1,80}[([]\s{0,9}$/.test(before);
}
