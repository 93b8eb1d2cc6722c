import { cldrSupplemental } from "./cldr.js";
import { parentsOf } from "./fallback.js";

/** The six plural categories in CLDR's order (UTS #35 Part 3, "Language Plural Rules"). */
export const pluralCategoryNames = ["zero", "one", "two", "few", "many", "other"] as const;
export type PluralCategory = (typeof pluralCategoryNames)[number];

/** Which numbers are counted: things (`cardinal`) or places in an order (`ordinal`). */
export type PluralKind = "cardinal" | "ordinal";

/** The plural rules of one locale. */
export interface PluralRules {
  /** The categories that the locale uses, in CLDR's order; `other` is always the last. */
  readonly categories: readonly PluralCategory[];
  /** The category of a number, given as JavaScript's number or as decimal digits ("1.50" keeps its zeros). */
  select(value: number | string): PluralCategory;
  /** The numbers that CLDR gives as examples of a category: integers first, then decimals, each as digits. */
  samples(category: PluralCategory): readonly string[];
  /**
   * The whole numbers from 0 to 999 of a category, where it has only one of them: 1 for `one` in Polish or English,
   * undefined for `one` in Russian (1, 21, 31 …). Fractions such as French 1.5 do not count.
   */
  onlyWholeNumber(category: PluralCategory): number | undefined;
  /** The whole numbers among CLDR's examples of a category. */
  wholeSamples(category: PluralCategory): readonly number[];
}

interface RawRules {
  readonly [count: `pluralRule-count-${string}`]: string;
}

/** The operands of a number (UTS #35 Part 3, "Plural Operand Meanings"). */
interface Operands {
  readonly n: number;
  readonly i: number;
  readonly v: number;
  readonly w: number;
  readonly f: number;
  readonly t: number;
  readonly c: number;
  readonly e: number;
}

type Condition = (operands: Operands) => boolean;

const cache = { cardinal: new Map<string, PluralRules>(), ordinal: new Map<string, PluralRules>() };
const raw = {
  cardinal: new Map<string, RawRules | undefined>(),
  ordinal: new Map<string, RawRules | undefined>(),
};

/** The plural rules of a locale; those of its nearest ancestor that has any, else only `other`. */
export function pluralRules(locale: string, kind: PluralKind = "cardinal"): PluralRules {
  let rules = cache[kind].get(locale);
  if (!rules) {
    rules = readRules(rawRules(locale, kind));
    cache[kind].set(locale, rules);
  }
  return rules;
}

/** The forms that a program may choose by the number itself, without the rules of a language. */
export const countedForms = ["zero", "one", "two", "other"] as const;
export type CountedForm = (typeof countedForms)[number];

const formNumbers = ["zero", "one", "two"] as const;

const byNumber = new Map<string, PluralRules>();

/** The rules of a program that knows these forms alone, in every language: 0, 1 and 2 have the form of their name, where there is one. */
export function rulesByNumber(known: readonly CountedForm[]): PluralRules {
  const name = known.join(" ");
  let rules = byNumber.get(name);
  if (!rules) byNumber.set(name, (rules = readRulesByNumber(known)));
  return rules;
}

function readRulesByNumber(known: readonly CountedForm[]): PluralRules {
  const categories = countedForms.filter((form) => form === "other" || known.includes(form));
  const select = (value: number | string): PluralCategory => {
    const form = formNumbers[Number(value)];
    return form !== undefined && known.includes(form) ? form : "other";
  };
  const whole = (category: PluralCategory) =>
    [0, 1, 2, 3, 4, 5, 6, 11, 21, 100].filter((number) => select(number) === category);
  return {
    categories,
    select,
    samples: (category) => whole(category).map(String),
    onlyWholeNumber: (category) => (category === "other" ? undefined : whole(category)[0]),
    wholeSamples: whole,
  };
}

/** Whether CLDR has plural rules for the locale's language, so that a verdict about its categories is founded. */
export function hasPluralRules(locale: string, kind: PluralKind = "cardinal"): boolean {
  return rawRules(locale, kind) !== undefined;
}

function rawRules(locale: string, kind: PluralKind): RawRules | undefined {
  const known = raw[kind];
  if (!known.has(locale)) known.set(locale, findRaw(locale, kind));
  return known.get(locale);
}

function findRaw(locale: string, kind: PluralKind): RawRules | undefined {
  const all = cldrSupplemental<Record<string, Record<string, RawRules>>>(
    kind === "cardinal" ? "plurals" : "ordinals",
  )[`plurals-type-${kind}`];
  const language = locale.split("-", 1)[0] ?? locale;
  for (const tag of [locale, ...parentsOf(locale), language]) if (all?.[tag]) return all[tag];
  return undefined;
}

function readRules(raw: RawRules | undefined): PluralRules {
  const rules = pluralCategoryNames.flatMap((category) => {
    const rule = raw?.[`pluralRule-count-${category}`] ?? (category === "other" ? "" : undefined);
    if (rule === undefined) return [];
    const [condition = "", ...samples] = rule.split("@");
    return [{ category, matches: parseCondition(condition.trim()), samples: samples.flatMap(expandSamples) }];
  });
  const select = (value: number | string): PluralCategory => {
    const operands =
      typeof value === "number" && Number.isInteger(value) && value >= 0 && value < 1e15
        ? wholeOperands(value)
        : operandsOf(String(value));
    return rules.find((rule) => rule.category !== "other" && rule.matches(operands))?.category ?? "other";
  };
  const whole = new Map(
    rules.map(({ category, samples }) => [
      category,
      samples.filter((sample) => !sample.includes(".")).map(Number),
    ]),
  );
  // The number that a category was first met with, or undefined from the second on.
  let onlyNumbers: Map<PluralCategory, number | undefined> | undefined;
  return {
    categories: rules.map((rule) => rule.category),
    select,
    samples: (category) => rules.find((rule) => rule.category === category)?.samples ?? [],
    onlyWholeNumber(category) {
      if (!onlyNumbers) {
        onlyNumbers = new Map();
        for (let number = 0; number < 1000; number++) {
          const found = select(number);
          onlyNumbers.set(found, onlyNumbers.has(found) ? undefined : number);
        }
      }
      return onlyNumbers.get(category);
    },
    wholeSamples: (category) => whole.get(category) ?? [],
  };
}

/** The categories that whole numbers take in a locale: in Russian `one`, `few` and `many`. In CLDR's order. */
export function wholeNumberCategories(locale: string): readonly PluralCategory[] {
  const rules = pluralRules(locale, "cardinal");
  return rules.categories.filter((category) => rules.wholeSamples(category).length > 0);
}

/** `integer 2~4, 22, …` gives 2, 3, 4, 22; compact forms such as `1c6` are left out, being notations of a number. */
function expandSamples(list: string): string[] {
  return list
    .replace(/^(integer|decimal)/, "")
    .split(",")
    .flatMap((part) => {
      const [from = "", to] = part.trim().split("~");
      if (!/^\d+(\.\d+)?$/.test(from)) return [];
      if (to === undefined) return [from];
      const decimals = from.split(".")[1]?.length ?? 0;
      const step = 10 ** -decimals;
      const count = Math.round((Number(to) - Number(from)) / step) + 1;
      return Array.from({ length: count }, (_, index) => (Number(from) + index * step).toFixed(decimals));
    });
}

function wholeOperands(number: number): Operands {
  return { n: number, i: number, v: 0, w: 0, f: 0, t: 0, c: 0, e: 0 };
}

function operandsOf(text: string): Operands {
  const [, whole = "0", fraction = "", compact = "0"] =
    /^-?(\d+)(?:\.(\d+))?(?:[ce](\d+))?$/.exec(text) ?? [];
  const exponent = Number(compact);
  const digits = whole + fraction.slice(0, exponent).padEnd(exponent, "0");
  const visible = fraction.slice(exponent);
  const trimmed = visible.replace(/(?<!0)0+$/, "");
  return {
    n: Number(`${digits}.${visible || "0"}`),
    i: Number(digits),
    v: visible.length,
    w: trimmed.length,
    f: Number(visible || "0"),
    t: Number(trimmed || "0"),
    c: exponent,
    e: exponent,
  };
}

/** Reads a condition such as `v = 0 and i % 10 = 2..4 and i % 100 != 12..14 or n = 1`. */
function parseCondition(text: string): Condition {
  if (text === "") return () => true;
  const alternatives = text.split(" or ").map((part) => part.split(" and ").map(parseRelation));
  return (operands) => alternatives.some((all) => all.every((relation) => relation(operands)));
}

function parseRelation(text: string): Condition {
  const match = /^\s*([nivwftce])\s*(?:%\s*(\d+)\s*)?(!?=)\s*(\d[\d.,\s]*)$/.exec(text);
  if (!match) throw new Error(`a plural rule that cannot be read: ${text}`);
  const [, operand = "n", modulus, relation, list = ""] = match;
  const ranges = list.split(",").map((range) => {
    const [from = "0", to] = range.trim().split("..");
    return { from: Number(from), to: Number(to ?? from) };
  });
  const wanted = relation === "=";
  return (operands) => {
    const number = operands[operand as keyof Operands];
    const value = modulus === undefined ? number : number % Number(modulus);
    return (
      ranges.some(({ from, to }) =>
        from === to ? value === from : Number.isInteger(value) && value >= from && value <= to,
      ) === wanted
    );
  };
}
