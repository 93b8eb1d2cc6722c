import { rulesOf } from "./rules-of-plural.js";
import { fillMessage, type ArgumentValue } from "./fill.js";
import type { ArgumentNode, PluralNode, SelectNode } from "./model.js";
import type { ReadMessage } from "./read-message.js";

/** What users read for some values. */
export interface MessageSample {
  readonly arguments: Readonly<Record<string, string | number>>;
  readonly text: string;
}

/** At most this many samples are shown of one message. */
const mostSamples = 24;

/** A message filled with values: every category of its plurals, every case of its selects. */
export function samplesOf(
  message: ReadMessage,
  source: ReadMessage,
  locale: string,
  given: Readonly<Record<string, string>>,
  beside: readonly { readonly message: ReadMessage; readonly locale: string }[],
): MessageSample[] {
  // What the source does not ask for no program passes: users see such an argument as it stands.
  const names = new Set((source.isBroken ? message : source).facts.arguments.keys());
  // A set holds one value and what it was added to: a message may have thousands of arguments.
  let sets: readonly (ValueSet | undefined)[] = [undefined];
  const counted = countedByPlace(message, source);
  for (const name of names) {
    if (name === counted?.name && given[name] === undefined) continue;
    const uses = [...(message.facts.arguments.get(name) ?? []), ...(source.facts.arguments.get(name) ?? [])];
    const own = given[name];
    const values = own === undefined ? valuesFor(name, uses, locale) : [typed(own, uses)];
    if (own === undefined && values.some((value) => typeof value === "number" || values.length > 1))
      for (const other of beside) {
        const more = valuesFor(name, other.message.facts.arguments.get(name) ?? [], other.locale);
        for (const value of more)
          if (!values.includes(value) && typeof value === typeof values[0]) values.push(value);
      }
    sets = sets.flatMap((rest) => values.map((value) => ({ name, value, rest }))).slice(0, mostSamples);
  }
  return sets.map(valuesIn).map((set) => ({
    arguments: Object.fromEntries(
      Object.entries(set).map(([name, value]) => [
        name,
        value instanceof Date
          ? value.toISOString().slice(0, 16)
          : typeof value === "number"
            ? value
            : String(value),
      ]),
    ),
    text: fillMessage(message.nodes, locale, withCount(set, counted)).text,
  }));
}

/** The number that a plural's forms show by its place, `%d`: it is the one that they are chosen by. Undefined where there is none, or several. */
function countedByPlace(
  message: ReadMessage,
  source: ReadMessage,
): { readonly name: string; readonly plural: string } | undefined {
  const plural = [...message.facts.plurals, ...source.facts.plurals].find(
    ({ nameSpan }) => nameSpan === undefined,
  );
  const numbers = [...source.facts.arguments].filter(
    ([name, uses]) =>
      /^\d+$/.test(name) &&
      uses.every((use) => use.kind === "argument" && wholeNumber.test(use.format?.type ?? "")),
  );
  const [only] = numbers;
  return plural && only && numbers.length === 1 ? { name: only[0], plural: plural.name } : undefined;
}

/** The placeholders of `printf` that take a whole number. */
const wholeNumber = /^[diu]$/;

function withCount(
  values: Readonly<Record<string, ArgumentValue>>,
  counted: { readonly name: string; readonly plural: string } | undefined,
): Readonly<Record<string, ArgumentValue>> {
  const count = counted && values[counted.plural];
  return counted && count !== undefined && values[counted.name] === undefined
    ? { ...values, [counted.name]: count }
    : values;
}

interface ValueSet {
  readonly name: string;
  readonly value: ArgumentValue;
  readonly rest: ValueSet | undefined;
}

function valuesIn(set: ValueSet | undefined): Readonly<Record<string, ArgumentValue>> {
  const values: [string, ArgumentValue][] = [];
  for (let at = set; at; at = at.rest) values.push([at.name, at.value]);
  return Object.fromEntries(values.reverse());
}

type Use = ArgumentNode | PluralNode | SelectNode;

/** A day and time in a made-up voyage: 4 May 2031, 9:30. */
const sampleDate = new Date(Date.UTC(2031, 4, 4, 9, 30));

function valuesFor(name: string, uses: readonly Use[], locale: string): ArgumentValue[] {
  const plurals = uses.filter((use) => use.kind === "plural");
  if (plurals.length > 0) return pluralNumbers(plurals, locale);
  const cases = uses.flatMap((use) =>
    use.kind === "select" ? use.branches.map(({ selector }) => selector) : [],
  );
  if (cases.length > 0) return [...new Set(cases)];
  const type = uses.find((use): use is ArgumentNode => use.kind === "argument" && use.format !== undefined)
    ?.format?.type;
  if (type === "date" || type === "time") return [sampleDate];
  if (wholeNumber.test(type ?? "")) return [1234];
  if (type === "number" || /^[fgFGeE]$/.test(type ?? "")) return [isPart(name) ? 0.75 : 1234.5];
  return [madeUp(name)];
}

/** Numbers that people would try, the likeliest first; those with fractions stand for categories that have no other. */
const tried = [1, 2, 5, 21, 3, 0, 11, 4, 22, 100, 1_000_000, 1.5, 0.5, 2.5, 10.5];

/** For each category a number or two that people would try, else CLDR's own; and each exact number. */
function pluralNumbers(plurals: readonly PluralNode[], locale: string): number[] {
  const numbers = new Set<number>();
  for (const plural of plurals) {
    const { offset, branches } = plural;
    for (const { selector } of branches) if (selector.startsWith("=")) numbers.add(Number(selector.slice(1)));
    const rules = rulesOf(plural, locale);
    for (const category of rules.categories) {
      const fitting = tried.filter((number) => rules.select(number) === category);
      const whole = fitting.filter(Number.isInteger);
      const [own] = rules.samples(category).filter((digits) => !/\.0*$/.test(digits));
      const usable =
        whole.length > 0 ? whole.slice(0, 2) : fitting.length > 0 ? fitting.slice(0, 1) : [Number(own ?? 0)];
      for (const value of usable) numbers.add(value + offset);
    }
  }
  return [...numbers].sort((a, b) => a - b);
}

function isPart(name: string): boolean {
  return /share|percent|ratio|rate|progress/i.test(name);
}

/** A value that fits a name: a person, a place, a price, a number, a day. */
function madeUp(name: string): ArgumentValue {
  if (
    /(?:^|_|[a-z])(?:count|total|number|num|quantity|amount|size|length|days|hours|minutes|seats|max|min|page|year)$|^n$|^\d+$/i.test(
      name,
    )
  )
    return 12;
  if (/date|day|when|until|since|time|deadline/i.test(name)) return sampleDate;
  if (/price|cost|fee|fare/i.test(name)) return 24.5;
  if (/mail/i.test(name)) return "mara@quay.example";
  if (/url|link|href/i.test(name)) return "https://quay.example";
  if (/user|name|person|author|owner|customer|sender|guest|who/i.test(name)) return "Mara Lindqvist";
  if (/city|place|port|island|from|to|destination|harbour/i.test(name)) return "Lysø";
  return name.charAt(0).toUpperCase() + name.slice(1);
}

/** A given value as what its uses take. */
function typed(value: string, uses: readonly Use[]): ArgumentValue {
  const isNumber = uses.some(
    (use) => use.kind === "plural" || (use.kind === "argument" && use.format?.type === "number"),
  );
  if (isNumber && value.trim() !== "" && !Number.isNaN(Number(value))) return Number(value);
  const isDate = uses.some(
    (use) => use.kind === "argument" && /^(?:date|time)$/.test(use.format?.type ?? ""),
  );
  const date = isDate
    ? new Date(/Z|[+-]\d\d:?\d\d$/.test(value) ? value : `${value}${value.includes("T") ? "Z" : ""}`)
    : undefined;
  return date && !Number.isNaN(date.getTime()) ? date : value;
}
