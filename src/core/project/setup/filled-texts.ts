import { languageOf } from "../../source/languages/index.js";
import type { FillingSyntax } from "./message-guess.js";
import type { LookupSample, LookupUse } from "./lookup-use.js";

/** So many of ten lookups in C# show that its formats fill the texts, where no call of them is seen. */
const mostOfTen = 9;

/** By which syntax code fills the texts that it looks up, as what stands around its lookups shows; undefined where nothing does. */
export function fillingOf(uses: readonly LookupUse[]): FillingSyntax | undefined {
  const samples = uses.flatMap((use) => use.samples);
  if (samples.some(isFormattedBehind)) return "brace-field";
  const inCSharp = samples.filter(
    ({ source: { file } }) => languageOf(file) === "csharp" || /\.(?:cshtml|razor)$/.test(file),
  );
  return inCSharp.some(isFormattedAround) ||
    (inCSharp.length > 0 && inCSharp.length * 10 >= samples.length * mostOfTen)
    ? "brace-index"
    : undefined;
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
