/**
 * What the formats of `java.text` make of a pattern inside an argument. Each follows the class's own reading, sign by sign,
 * since what that refuses throws when the message is shown.
 */

/** What is wrong with a pattern, by the name of a problem's words. */
export type JavaFormatFault =
  "java-number-pattern" | "java-date-pattern" | "java-date-quote" | JavaChoiceFault;

/** What is wrong with limits of `ChoiceFormat`. */
export type JavaChoiceFault = "java-choice-limit" | "java-choice-order";

/** The styles of each type that have names; the pattern of one that is not among them is read. */
const namedStyles: Readonly<Record<string, readonly string[]>> = {
  number: ["", "currency", "percent", "integer"],
  date: ["", "short", "medium", "long", "full"],
  time: ["", "short", "medium", "long", "full"],
};

/** What `MessageFormat` finds wrong with the style of a type; undefined where it takes it. */
export function javaFormatFault(type: string, style: string): JavaFormatFault | undefined {
  const name = style.trim().toLowerCase();
  if (namedStyles[type]?.includes(name)) return undefined;
  if (type === "number") return decimalFault(style) ? "java-number-pattern" : undefined;
  if (type === "choice") return choiceFault(style);
  return dateFault(style);
}

/** `java.text.DecimalFormat.applyPattern`: whether it refuses a pattern. */
function decimalFault(pattern: string): boolean {
  let start = 0;
  for (const isPositive of [true, false]) {
    if (start >= pattern.length) break;
    let phase = 0;
    let isQuoted = false;
    let multipliers = 0;
    let left = 0;
    let zeros = 0;
    let right = 0;
    let point = -1;
    let group = -1;
    let isExponential = false;
    let at = start;
    for (; at < pattern.length; at++) {
      const unit = pattern[at] ?? "";
      if (phase !== 1) {
        if (isQuoted) {
          if (unit !== "'") continue;
          if (pattern[at + 1] === "'") at++;
          else isQuoted = false;
        } else if (/[#0,.]/.test(unit)) {
          phase = 1;
          at--;
        } else if (unit === "'") {
          if (pattern[at + 1] === "'") at++;
          else isQuoted = true;
        } else if (unit === ";") {
          if (phase === 0 || !isPositive) return true;
          break;
        } else if (unit === "%" || unit === "\u2030") {
          if (++multipliers > 1) return true;
        }
        continue;
      }
      if (!isPositive) {
        if (/[#0,.E]/.test(unit)) continue;
        phase = 2;
        at--;
      } else if (unit === "#") {
        if (zeros > 0) right++;
        else left++;
        if (group >= 0 && point < 0) group++;
      } else if (unit === "0") {
        if (right > 0) return true;
        zeros++;
        if (group >= 0 && point < 0) group++;
      } else if (unit === ",") group = 0;
      else if (unit === ".") {
        if (point >= 0) return true;
        point = left + zeros + right;
      } else if (unit === "E") {
        if (isExponential) return true;
        isExponential = true;
        const digits = /^0*/.exec(pattern.slice(at + 1))?.[0].length ?? 0;
        if (left + zeros < 1 || digits < 1) return true;
        at += digits;
        phase = 2;
      } else {
        phase = 2;
        at--;
      }
    }
    start = at + 1;
    if (!isPositive) return isQuoted;
    if (zeros === 0 && left > 0 && point >= 0) {
      const before = point === 0 ? 1 : point;
      left = before - 1;
      zeros = 1;
    }
    const isMisplaced = point < 0 ? right > 0 : point < left || point > left + zeros;
    if (isMisplaced || group === 0 || isQuoted) return true;
  }
  return false;
}

/** `java.text.SimpleDateFormat`: letters that it does not know, and quotes that nothing closes. */
function dateFault(pattern: string): JavaFormatFault | undefined {
  let isQuoted = false;
  for (let at = 0; at < pattern.length; at++) {
    const unit = pattern[at] ?? "";
    if (unit === "'") {
      if (pattern[at + 1] === "'") at++;
      else isQuoted = !isQuoted;
    } else if (!isQuoted && /[A-Za-z]/.test(unit)) {
      if (!/[GyMdkHmsSEDFwWahKzZYuXL]/.test(unit)) return "java-date-pattern";
      const run = /^X+/.exec(pattern.slice(at))?.[0].length ?? 0;
      if (run > 3) return "java-date-pattern";
      if (run > 1) at += run - 1;
    }
  }
  return isQuoted ? "java-date-quote" : undefined;
}

/** `java.text.ChoiceFormat.applyPattern`: each text has a number before it, and the numbers rise. */
function choiceFault(pattern: string): JavaChoiceFault | undefined {
  let limit = "";
  let isText = false;
  let isQuoted = false;
  let value = 0;
  let before = NaN;
  for (let at = 0; at < pattern.length; at++) {
    const unit = pattern[at] ?? "";
    if (unit === "'") {
      if (pattern[at + 1] === "'") {
        if (!isText) limit += unit;
        at++;
      } else isQuoted = !isQuoted;
    } else if (isQuoted) {
      if (!isText) limit += unit;
    } else if (unit === "<" || unit === "#" || unit === "\u2264") {
      if (limit === "") return "java-choice-limit";
      const read = limitOf(limit);
      if (read === undefined) return "java-choice-limit";
      // `1<` begins right behind 1.
      value = unit === "<" && Number.isFinite(read) ? nextAbove(read) : read;
      if (value <= before) return "java-choice-order";
      limit = "";
      isText = true;
    } else if (unit === "|") {
      before = value;
      isText = false;
    } else if (!isText) limit += unit;
  }
  return undefined;
}

/** `Double.parseDouble`, and the signs for what has no end. */
function limitOf(written: string): number | undefined {
  if (written === "\u221e") return Infinity;
  if (written === "-\u221e") return -Infinity;
  const text = written.replace(/^[\u0000-\u0020]+/, "").trimEnd();
  const match =
    /^([+-]?)(?:(NaN)|(Infinity)|((?:\d{1,400}(?:\.\d{0,400})?|\.\d{1,400})(?:[eE][+-]?\d{1,9})?)[fFdD]?)$/.exec(
      text,
    );
  if (!match) return undefined;
  const [, sign, nan, endless, digits] = match;
  const size = nan !== undefined ? NaN : endless !== undefined ? Infinity : Number(digits);
  return sign === "-" ? -size : size;
}

/** The next number that a double can hold. */
function nextAbove(value: number): number {
  if (value === 0) return Number.MIN_VALUE;
  const view = new DataView(new ArrayBuffer(8));
  view.setFloat64(0, value);
  const bits = view.getBigInt64(0);
  view.setBigInt64(0, value > 0 ? bits + 1n : bits - 1n);
  return view.getFloat64(0);
}
