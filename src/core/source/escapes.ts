/** How the strings of a language write what cannot stand in them as it is. */
export interface EscapeRules {
  /** What a backslash means: nothing, only a quote or a backslash, or all that the language knows. */
  readonly backslash: "nothing" | "quotes" | "all";
  /** Whether a backslash before anything else stays. */
  readonly keepsUnknown: boolean;
  /** Whether a doubled quote is one: `@"say ""no"""`. */
  readonly doublesQuote?: true;
}

/** A unit of a string's value, and where the code writes it. */
export interface WrittenUnit {
  readonly value: string;
  readonly start: number;
  readonly end: number;
}

const named: Readonly<Record<string, string>> = {
  n: "\n",
  t: "\t",
  r: "\r",
  b: "\b",
  f: "\f",
  v: "\v",
  a: "\x07",
  e: "\x1B",
  "\n": "",
};

const escape =
  /\\(?:u\{([0-9a-fA-F]{1,6})\}|u([0-9a-fA-F]{4})|U([0-9a-fA-F]{8})|x([0-9a-fA-F]{2})|([0-7]{1,3})|([^]))/y;

/** The units of a part of a string, in order; `from` is where it starts in the code. */
export function* writtenUnits(
  raw: string,
  rules: EscapeRules,
  quote: string,
  from = 0,
): Generator<WrittenUnit> {
  for (let at = 0; at < raw.length;) {
    const unit = raw[at] ?? "";
    if (rules.doublesQuote && unit === quote && raw[at + 1] === quote) {
      yield { value: quote, start: from + at, end: from + at + 2 };
      at += 2;
      continue;
    }
    if (unit !== "\\" || rules.backslash === "nothing") {
      yield { value: unit, start: from + at, end: from + ++at };
      continue;
    }
    escape.lastIndex = at;
    const match = escape.exec(raw);
    const end = match ? escape.lastIndex : at + 1;
    const [, braced, four, eight, two, octal, plain] = match ?? [];
    const hex = braced ?? four ?? eight ?? two;
    let value: string;
    let length = end - at;
    if (rules.backslash === "quotes") {
      const next = raw[at + 1] ?? "";
      const isEscape = next === "\\" || next === quote;
      value = isEscape ? next : "\\";
      length = isEscape ? 2 : 1;
    } else if (hex !== undefined) value = codePoint(parseInt(hex, 16));
    else if (octal !== undefined) value = String.fromCharCode(parseInt(octal, 8) & 0xff);
    else {
      const one = plain ?? "";
      const known = named[one];
      value = known ?? (rules.keepsUnknown && !/[\\"'`$#{}/]/.test(one) ? `\\${one}` : one);
    }
    yield { value, start: from + at, end: from + at + length };
    at += length;
  }
}

function codePoint(code: number): string {
  return code <= 0x10ffff ? String.fromCodePoint(code) : "\uFFFD";
}

/** The value of a part of a string. */
export function unescaped(raw: string, rules: EscapeRules, quote: string): string {
  if (!raw.includes("\\") && !rules.doublesQuote) return raw;
  let value = "";
  for (const unit of writtenUnits(raw, rules, quote)) value += unit.value;
  return value;
}

/** Strings in which backslashes mean all that they can. */
export const fullEscapes: EscapeRules = { backslash: "all", keepsUnknown: false };
export const noEscapes: EscapeRules = { backslash: "nothing", keepsUnknown: true };
export const quoteEscapes: EscapeRules = { backslash: "quotes", keepsUnknown: true };
