import type { ArgumentFormat } from "./model.js";

/** Why a style is not valid, with what to write. */
export interface StyleFault {
  /** The part of the style that is meant, for the reader. */
  readonly part: string;
  readonly remedy: string;
}

/** Stems of number skeletons that stand alone (ICU, "Number Skeletons"). */
const numberStems = [
  "compact-short",
  "compact-long",
  "notation-simple",
  "base-unit",
  "percent",
  "permille",
  "precision-integer",
  "precision-unlimited",
  "precision-currency-standard",
  "precision-currency-cash",
  "rounding-mode-ceiling",
  "rounding-mode-floor",
  "rounding-mode-down",
  "rounding-mode-up",
  "rounding-mode-half-even",
  "rounding-mode-half-odd",
  "rounding-mode-half-ceiling",
  "rounding-mode-half-floor",
  "rounding-mode-half-down",
  "rounding-mode-half-up",
  "rounding-mode-unnecessary",
  "integer-width-trunc",
  "group-off",
  "group-min2",
  "group-auto",
  "group-on-aligned",
  "group-thousands",
  "latin",
  "unit-width-narrow",
  "unit-width-short",
  "unit-width-full-name",
  "unit-width-iso-code",
  "unit-width-formal",
  "unit-width-variant",
  "unit-width-hidden",
  "sign-auto",
  "sign-always",
  "sign-never",
  "sign-accounting",
  "sign-accounting-always",
  "sign-except-zero",
  "sign-accounting-except-zero",
  "sign-negative",
  "sign-accounting-negative",
  "decimal-auto",
  "decimal-always",
  "scientific",
  "engineering",
] as const;

/** Stems that want something behind a slash: an example of it. */
const stemsWithOption: Readonly<Record<string, string>> = {
  currency: "currency/EUR",
  "measure-unit": "measure-unit/length-meter",
  "per-measure-unit": "per-measure-unit/duration-second",
  unit: "unit/kilometer-per-hour",
  "numbering-system": "numbering-system/latn",
  "precision-increment": "precision-increment/0.05",
  "integer-width": "integer-width/+00",
  scale: "scale/100",
};

const wholeToken = new RegExp(
  `^(?:${[
    "K",
    "KK",
    "%",
    "%x100",
    "[,](?:_|\\?|!)",
    "\\+(?:!|_|\\?|-)",
    "\\(\\)(?:[!?-])?",
    // Scientific and engineering notation in short, with a sign and digits of the exponent.
    "EE?(?:\\+[!?])?0+",
    // Fraction digits, perhaps with significant digits behind a slash.
    "\\.(?:0*#*|0*[+*])(?:/(?:@+#*[rs]?|@+[+*]|w))?",
    "@+(?:#*|[+*])(?:/w)?",
    "0+",
    "currency/[A-Za-z]{3}",
    "(?:per-)?measure-unit/[a-z]+(?:-[a-z0-9]+)+",
    "unit/[a-z0-9]+(?:-[a-z0-9]+)*",
    "numbering-system/[a-z0-9]{3,8}",
    "precision-increment/-?\\d+(?:\\.\\d+)?",
    "integer-width/(?:[+*]0*|#*0*)",
    "scale/-?\\d+(?:\\.\\d+)?(?:E[+-]?\\d+)?",
    "(?:scientific|engineering)(?:/(?:[+*]e+|sign-[a-z-]+))*",
    "precision-(?:integer|currency-standard|currency-cash)(?:/w)?",
  ].join("|")})$`,
);

/** Letters of date patterns and skeletons (UTS #35 Part 4, "Date Field Symbol Table"). */
const dateLetters = /[GyYuUrQqMLwWdDFgEecabBhHkKmsSAzZOvVXx]/;

/** Letters of one field: a skeleton names each field once. */
const dateFields = ["hHkKjJC", "zZOvVXx", "aBb", "ML", "Qq", "Eec", "yYuUr", "dDFg", "SA"];

/** What is wrong with how an argument is formatted in ICU's syntax, or undefined. */
export function styleFault({ type, style }: ArgumentFormat): StyleFault | undefined {
  if (!style || style.kind === "named" || style.kind === "options") return undefined;
  const { text, kind } = style;
  if (kind === "skeleton") {
    if (type === "number") return numberSkeletonFault(text);
    return type === "date" || type === "time" ? dateFault(text, true) : undefined;
  }
  if (type === "number") return numberPatternFault(text);
  return type === "date" || type === "time" ? dateFault(text, false) : undefined;
}

function numberSkeletonFault(skeleton: string): StyleFault | undefined {
  const seen = new Set<string>();
  for (const token of skeleton.split(/\p{Pattern_White_Space}+/u)) {
    if (token === "") continue;
    const [stem = ""] = token.split("/");
    if (!wholeToken.test(token) && !numberStems.some((known) => known === token)) {
      const example = stemsWithOption[stem];
      const near = [...numberStems, ...Object.keys(stemsWithOption)].find(
        (known) => known.startsWith(stem) && stem.length > 3,
      );
      return {
        part: token,
        remedy: example
          ? `write ${example}, for example`
          : near
            ? `did you mean “${stemsWithOption[near] ?? near}”?`
            : "write a stem of ICU's number skeletons, such as percent, .00 or currency/EUR",
      };
    }
    const group = stemGroup(token);
    if (group !== "" && seen.has(group))
      return { part: token, remedy: `keep one token that sets the ${group}` };
    seen.add(group);
  }
  return undefined;
}

/** What a token sets, of which there may be one. */
function stemGroup(token: string): string {
  if (/^(?:compact|scientific|engineering|notation|KK?$|EE?[+0])/.test(token)) return "notation";
  if (/^(?:precision|[.@])/.test(token)) return "precision";
  if (/^(?:currency|measure-unit|unit\/|percent|permille|base-unit|%)/.test(token)) return "unit";
  if (/^(?:group|,)/.test(token)) return "grouping";
  if (/^(?:sign|\+[!_?-]|\(\))/.test(token)) return "sign";
  if (token.startsWith("rounding-mode")) return "rounding mode";
  if (/^(?:integer-width|0+$)/.test(token)) return "integer width";
  return token.startsWith("unit-width") ? "unit width" : "";
}

function dateFault(text: string, isSkeleton: boolean): StyleFault | undefined {
  let isQuoted = false;
  const fields = new Map<string, string>();
  for (const [run] of text.matchAll(/([A-Za-z'])\1*/g)) {
    const unit = run.charAt(0);
    if (unit === "'") {
      if (run.length % 2 === 1) isQuoted = !isQuoted;
    } else if (isQuoted) continue;
    else if (!dateLetters.test(unit) && !(isSkeleton && /[jJC]/.test(unit)))
      return {
        part: unit,
        remedy: isSkeleton
          ? "leave it out: a skeleton names fields, such as yMMMd"
          : "put literal text between apostrophes",
      };
    else if (isSkeleton) {
      const field = dateFields.find((letters) => letters.includes(unit)) ?? unit;
      if (fields.has(field))
        return { part: run, remedy: `keep one of ${fields.get(field) ?? ""} and ${run}` };
      fields.set(field, run);
    }
  }
  return isQuoted ? { part: "'", remedy: "close the quoted text with an apostrophe" } : undefined;
}

/** Decimal patterns (UTS #35 Part 3, "Number Format Patterns"), as far as their order goes: `#`, digits, point, digits, exponent. */
function numberPatternFault(pattern: string): StyleFault | undefined {
  const bare = pattern.replace(/'[^']*'/g, "");
  if (bare.includes("'")) return { part: "'", remedy: "close the quoted text with an apostrophe" };
  const [positive = "", negative, ...more] = bare.split(";");
  if (more.length > 0)
    return { part: ";", remedy: "a pattern has two parts at most, for positive and for negative numbers" };
  const remedy = "write # before 0 in front of the point and behind 0 after it, such as #,##0.00";
  for (const part of negative === undefined ? [positive] : [positive, negative]) {
    const found = /[#0-9@,.][#0-9@,.]*(?:E\+?0*)?/.exec(part);
    if (!found) continue;
    const [number] = found;
    const rest = part.slice(found.index + number.length);
    const isOrdered = /^(?:[#,]*(?:[0-9][0-9,]*)?(?:\.[0-9]*#*)?|[#,]*@[@,]*(?:#[#,]*)?)(?:E\+?0+)?$/.test(
      number,
    );
    if (!isOrdered || /,(?![#0-9@])|,,/.test(number) || /[#0-9@,.]/.test(rest) || !/[#0-9@]/.test(number))
      return { part: number, remedy };
  }
  return undefined;
}
