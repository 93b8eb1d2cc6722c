import { wordings, type DataOf, type Notice } from "../text/wording.js";
import type { ArgumentFormat } from "./model.js";
import { noticeOf } from "./notices.js";

/** What is said of a style that is not valid. */
export const styleWordings = wordings("style", {
  example: { message: '"{part}" is not valid in a {type} {kind}', remedy: "write {example}, for example" },
  misspelled: { message: '"{part}" is not valid in a {type} {kind}', remedy: 'did you mean "{meant}"?' },
  stem: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "write a stem of ICU's number skeletons, such as percent, .00 or currency/EUR",
  },
  repeated: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "keep one token that sets the {what}",
  },
  letter: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "remove it: a skeleton names fields, such as yMMMd",
  },
  literal: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "put literal text between apostrophes",
  },
  "repeated-field": {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "keep one of {first} and {part}",
  },
  quote: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "close the quoted text with an apostrophe",
  },
  parts: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "write two parts at most, for positive and for negative numbers",
  },
  pattern: {
    message: '"{part}" is not valid in a {type} {kind}',
    remedy: "write # before 0 in front of the point and after 0 behind it, such as #,##0.00",
  },
});

type Fault = {
  readonly [N in keyof typeof styleWordings]: {
    readonly name: N;
    readonly part: string;
    readonly data?: Omit<DataOf<(typeof styleWordings)[N]>, "part" | "type" | "kind">;
  };
}[keyof typeof styleWordings];

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
export function styleFault({ type, style }: ArgumentFormat): Notice | undefined {
  if (!style || style.kind === "named" || style.kind === "options") return undefined;
  const fault = faultIn(type, style.text, style.kind === "skeleton");
  if (!fault) return undefined;
  const kind = style.kind === "skeleton" ? "skeleton" : "style";
  const { name, part, data } = fault;
  return noticeOf(`style/${name}`, styleWordings[name], { ...data, part, type, kind });
}

function faultIn(type: string, text: string, isSkeleton: boolean): Fault | undefined {
  if (type === "number") return isSkeleton ? numberSkeletonFault(text) : numberPatternFault(text);
  return type === "date" || type === "time" ? dateFault(text, isSkeleton) : undefined;
}

function numberSkeletonFault(skeleton: string): Fault | undefined {
  const seen = new Set<string>();
  for (const token of skeleton.split(/\p{Pattern_White_Space}+/u)) {
    if (token === "") continue;
    const [stem = ""] = token.split("/");
    if (!wholeToken.test(token) && !numberStems.some((known) => known === token)) {
      const example = stemsWithOption[stem];
      const near = [...numberStems, ...Object.keys(stemsWithOption)].find(
        (known) => known.startsWith(stem) && stem.length > 3,
      );
      if (example) return { name: "example", part: token, data: { example } };
      return near
        ? { name: "misspelled", part: token, data: { meant: stemsWithOption[near] ?? near } }
        : { name: "stem", part: token };
    }
    const group = stemGroup(token);
    if (group !== "" && seen.has(group)) return { name: "repeated", part: token, data: { what: group } };
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

function dateFault(text: string, isSkeleton: boolean): Fault | undefined {
  let isQuoted = false;
  const fields = new Map<string, string>();
  for (const [run] of text.matchAll(/([A-Za-z'])\1*/g)) {
    const unit = run.charAt(0);
    if (unit === "'") {
      if (run.length % 2 === 1) isQuoted = !isQuoted;
    } else if (isQuoted) continue;
    else if (!dateLetters.test(unit) && !(isSkeleton && /[jJC]/.test(unit)))
      return { name: isSkeleton ? "letter" : "literal", part: unit };
    else if (isSkeleton) {
      const field = dateFields.find((letters) => letters.includes(unit)) ?? unit;
      if (fields.has(field))
        return { name: "repeated-field", part: run, data: { first: fields.get(field) ?? "" } };
      fields.set(field, run);
    }
  }
  return isQuoted ? { name: "quote", part: "'" } : undefined;
}

/** Decimal patterns (UTS #35 Part 3, "Number Format Patterns"), as far as their order goes: `#`, digits, point, digits, exponent. */
function numberPatternFault(pattern: string): Fault | undefined {
  const bare = pattern.replace(/'[^']*'/g, "");
  if (bare.includes("'")) return { name: "quote", part: "'" };
  const [positive = "", negative, ...more] = bare.split(";");
  if (more.length > 0) return { name: "parts", part: ";" };
  for (const part of negative === undefined ? [positive] : [positive, negative]) {
    const found = /[#0-9@,.][#0-9@,.]*(?:E\+?0*)?/.exec(part);
    if (!found) continue;
    const [number] = found;
    const rest = part.slice(found.index + number.length);
    const isOrdered = /^(?:[#,]*(?:[0-9][0-9,]*)?(?:\.[0-9]*#*)?|[#,]*@[@,]*(?:#[#,]*)?)(?:E\+?0+)?$/.test(
      number,
    );
    if (!isOrdered || /,(?![#0-9@])|,,/.test(number) || /[#0-9@,.]/.test(rest) || !/[#0-9@]/.test(number))
      return { name: "pattern", part: number };
  }
  return undefined;
}
