import { defineRule } from "../../rule.js";
import { asciiDigits, isExample } from "../../text-parts.js";

export const textNumbers = defineRule({
  id: "text/numbers",
  level: "warning",
  summary: "Number that differs from the source.",
  why: "A price or limit must not differ between languages. Digits of every script and the separators of every locale are known. Numbers up to twelve may be written as words, and times of day in another clock.",
  messages: {
    missing: {
      message: "missing number {missing}, which the source has",
      remedy: "write the source's number the way the language writes numbers",
    },
    changed: {
      message: "missing number {missing}, which the source has; the translation has {others}",
      remedy: "write the source's number the way the language writes numbers",
    },
  },
  examples: {
    bad: [{ source: "Free for 30 days", target: "20 Tage kostenlos" }],
    good: [
      { source: "Free for 30 days", target: "30 Tage kostenlos" },
      { source: "1,500 boats", target: "1.500 Boote" },
      { locale: "ar", source: "Free for 30 days", target: "مجانًا لمدة ٣٠ يومًا" },
      { source: "2 boats", target: "zwei Boote" },
      { source: "Allow unsigned OAuth 2.0 requests", target: "Unsignierte Anfragen erlauben" },
      { source: "As in version 3.0 of it", target: "Wie in Version 3" },
      { source: "e.g. 12345678", target: "z. B. 87654321" },
      { locale: "ja", source: "Up to 200k rows", target: "20万行まで" },
      { locale: "es", source: "It leaves in 30 seconds", target: "Sale en 30 segundos" },
    ],
  },
  needs: ["digits"],
  pair(target, source) {
    const { message } = target;
    const from = source.message.facts.text;
    const to = message.facts.text;
    if (!/\p{Nd}/u.test(from) && !/\p{Nd}/u.test(to)) return;
    if (isExample(from)) return;
    // A number alone is a setting of the locale, such as its first day of the week.
    if (!/\p{L}/u.test(from)) return;
    // The forms of a plural hold the numbers that their language needs.
    if (source.message.facts.plurals.length > 0 || message.facts.plurals.length > 0) return;
    if (/\d\s*(?:am|pm|a\.m\.|p\.m\.)\b/i.test(from)) return;
    const wanted = numbersIn(from);
    const own = numbersIn(to);
    const lacking = [...wanted.keys()].filter((one) => !own.has(one));
    const extra = [...own.keys()].filter((one) => !wanted.has(one));
    // A small number may be a word in one language; where another stands in its place it is none.
    const isExchanged = lacking.length > 0 && lacking.length === extra.length && own.size === wanted.size;
    const missing = isExchanged ? lacking : lacking.filter((one) => !(Number(one) <= 12));
    const added = isExchanged ? extra : extra.filter((one) => !(Number(one) <= 12));
    if (missing.length === 0) return;
    const data = { missing: missing.map((one) => wanted.get(one) ?? one).join(", ") };
    if (added.length > 0)
      target.report("changed", { ...data, others: added.map((one) => own.get(one) ?? one).join(", ") });
    else target.report("missing", data);
  },
});

/** The numbers of a text as it writes them, by their digits alone; those that are part of a name (`ISO-8859-1`, `top-100`) are none. */
function numbersIn(text: string): ReadonlyMap<string, string> {
  // Standards and encodings are names with numbers in them: `ISO 8601`, `UTF-8`, `ISO-8859-15`.
  const plain = inFull(asciiDigits(text))
    .replace(
      /\b(?:[Ii][Ss][Oo]|[Rr][Ff][Cc]|[Uu][Tt][Ff]|EN|DIN|IEEE|IEC|[Bb]ase)[-\u2010\u2011 ]?\d{1,9}(?:[-:.]\d{1,9}){0,4}/g,
      " ",
    )
    // So do versions of what is called by capitals: `OAuth 2.0`, `TLS 1.3`.
    .replace(/(?<![\p{L}\d])[A-Za-z]{0,20}[A-Z]{2}[A-Za-z]{0,20} \d{1,3}(?:\.\d{1,4}){1,3}(?![.,]?\d)/gu, " ")
    // What follows a name is a version of it (`pre-3.6`), and `16th` is a word in many languages.
    .replace(
      /(?<![\p{L}\d])[A-Za-z]{2,20}[-\u2010\u2011.]\d{1,9}(?:\.\d{1,9}){0,4}|(?<![\d.,])\d{1,9}(?:st|nd|rd|th)(?![\p{L}\d])/gu,
      " ",
    );
  const found =
    plain.match(/(?<![A-Za-z\d_#]|[A-Za-z][-\u2010\u2011.])\d+(?:[.,'’٬٫\u00a0\u202f]\d+| \d{3}(?!\d))*/gu) ??
    [];
  return new Map(found.map((one) => [digitsOf(one), one] as const));
}

/** Signs that stand for noughts: `200k`, and the units of four and three noughts of East Asia. */
const noughts: Readonly<Record<string, number>> = {
  k: 1e3,
  K: 1e3,
  千: 1e3,
  천: 1e3,
  万: 1e4,
  萬: 1e4,
  만: 1e4,
  億: 1e8,
  亿: 1e8,
  억: 1e8,
};

/** A text with the noughts of its numbers written out. */
function inFull(text: string): string {
  return text.replace(
    /(?<![\p{L}\d.,_-])(\d{1,6}(?:\.\d{1,3})?)\s?(?:([kK])(?![\p{L}\d/])|([千천万萬만億亿억]))/gu,
    (_, digits: string, short: string | undefined, sign = short ?? "") =>
      String(Math.round(Number(digits) * (noughts[String(sign)] ?? 1) * 1000) / 1000),
  );
}

/** A number by its digits alone; what is said with a nought behind it is the same without: `3.0`. */
function digitsOf(written: string): string {
  return written
    .replace(/^(\d{1,3})[.,]00?$/, "$1")
    .replace(/\D/g, "")
    .replace(/^0+(?=\d)/, "");
}
