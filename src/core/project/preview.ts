import { explainProblem } from "../message/problem-wordings.js";
import { partEnds } from "../text/separators.js";
import { isWhole, type Book } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import type { Finding } from "../lint/finding.js";
import { parentsOf } from "../locale/fallback.js";
import { pluralRules } from "../locale/plural-rules.js";
import { fillMessage, type ArgumentValue } from "../message/fill.js";
import type { ArgumentNode, PluralNode, SelectNode } from "../message/model.js";
import { messageReader } from "../message/parse.js";
import type { ReadMessage } from "../message/read-message.js";
import { keyTest } from "../text/key-pattern.js";
import { nearest } from "../text/nearest.js";
import type { Project, Scope } from "./project.js";

/** What users of one locale would read for one key. */
export interface PreviewMessage {
  readonly book: string;
  readonly key: string;
  readonly locale: string;
  /** The locale whose text is shown, where this one has none of its own. */
  readonly from?: string;
  /** Why there is no text, or none that can be shown. */
  readonly trouble?: string;
  readonly samples: readonly PreviewSample[];
}

export interface PreviewSample {
  readonly arguments: Readonly<Record<string, string | number>>;
  readonly text: string;
}

export interface PreviewOptions {
  /** Values by argument name, in place of made-up ones. */
  readonly values?: Readonly<Record<string, string>>;
  /** Only these locales, side by side. */
  readonly compare?: readonly string[];
}

export type PreviewResult =
  | { readonly ok: true; readonly messages: readonly PreviewMessage[] }
  | { readonly ok: false; readonly unknown: string; readonly near: readonly string[] };

/** A source key, and what code writes to ask for it. */
export interface SourceKey {
  readonly config: BookConfig;
  readonly book: Book;
  readonly namespace: string | undefined;
  readonly key: string;
  readonly written: string;
  /** The books that come before its own, which stands behind them: a locale of theirs may have its own text. */
  readonly before?: readonly Book[];
}

/** Shows what users would read. `keys` are keys or patterns (`*`, `**`); one that finds nothing ends it with its nearest neighbors. */
export function previewProject(
  project: Project,
  scope: Scope,
  keys: readonly string[],
  options: PreviewOptions = {},
): PreviewResult {
  const named = keysNamed(project, scope, keys);
  return named.ok
    ? { ok: true, messages: named.keys.flatMap((one) => previewKey(one, scope, options)) }
    : named;
}

/** The source keys that keys and patterns name, each once; the first that names none, with its nearest neighbors. */
export function keysNamed(
  project: Project,
  scope: Scope,
  keys: readonly string[],
):
  | { readonly ok: true; readonly keys: readonly SourceKey[] }
  | { readonly ok: false; readonly unknown: string; readonly near: readonly string[] } {
  const known = sourceKeysIn(project, scope);
  const wanted = new Set<SourceKey>();
  for (const pattern of keys) {
    const tests = new Map<BookConfig, (key: string) => boolean>();
    const fits = ({ config, written, before }: SourceKey) => {
      if (!pattern.includes("*") || before) return false;
      const test = tests.get(config) ?? keyTest(pattern, partEnds(config));
      tests.set(config, test);
      return test(written);
    };
    const hits = known.filter((one) => one.written === pattern || fits(one));
    if (hits.length === 0) return { ok: false, unknown: pattern, near: nearTo(pattern, known) };
    for (const hit of hits) wanted.add(hit);
  }
  return { ok: true, keys: [...wanted] };
}

/** Shows what users would read of the source keys that findings are about. */
export function previewFindings(
  project: Project,
  scope: Scope,
  findings: readonly Pick<Finding, "book" | "namespace" | "key">[],
  options: PreviewOptions = {},
): readonly PreviewMessage[] {
  const idOf = (book: string, namespace: string | undefined, key: string) =>
    JSON.stringify([book, namespace, key]);
  const wanted = new Set(
    findings.flatMap(({ book, namespace, key }) => (key === undefined ? [] : [idOf(book, namespace, key)])),
  );
  return sourceKeysIn(project, scope)
    .filter(({ config, namespace, key }) => wanted.has(idOf(config.name, namespace, key)))
    .flatMap((one) => previewKey(one, scope, options));
}

function sourceKeysIn(project: Project, scope: Scope): readonly SourceKey[] {
  const meant = project.config.books.filter(({ name }) => scope.books?.includes(name) ?? true);
  // What a book has no key for, users read from the books that stand behind it.
  const behind = project.config.books.filter(
    (config) => !meant.includes(config) && meant.some(({ fallback }) => fallback?.includes(config.name)),
  );
  const before = ({ config }: SourceKey) =>
    meant.filter(({ fallback }) => fallback?.includes(config.name)).map((one) => project.book(one));
  const own = keysOf(project, meant);
  const asked = new Set(own.map(({ written }) => written));
  const others = keysOf(project, behind).filter(({ written }) => !asked.has(written));
  return [...own, ...others.map((one) => ({ ...one, before: before(one) }))];
}

function keysOf(project: Project, books: readonly BookConfig[]): readonly SourceKey[] {
  return books.flatMap((config) => {
    const book = project.book(config);
    return book.catalogs
      .filter(({ locale }) => locale === book.sourceLocale)
      .flatMap(({ namespace, byKey }) =>
        [...byKey.keys()].map((key) => ({
          config,
          book,
          namespace,
          key,
          written: book.codeKey(namespace, key),
        })),
      );
  });
}

function nearTo(pattern: string, known: readonly SourceKey[]): readonly string[] {
  const all = known.map(({ written }) => written);
  const best = nearest(pattern, all);
  // A key that lacks its beginning is near by its end.
  const parts = pattern.split(".");
  const tailOf = (key: string) => key.split(".").slice(-parts.length).join(".");
  const tail = nearest(pattern, all.map(tailOf));
  const end = parts.at(-1) ?? pattern;
  const others = all.filter(
    (key) => tailOf(key) === tail || key.startsWith(`${pattern}.`) || key.endsWith(`.${end}`),
  );
  return [...new Set([...(best ? [best] : []), ...others])].slice(0, 5);
}

function previewKey(
  { book, config, namespace, key, written, before }: SourceKey,
  scope: Scope,
  options: PreviewOptions,
): PreviewMessage[] {
  const reader = messageReader(config);
  const entryIn = (locale: string) => {
    for (const front of before ?? [])
      for (const catalog of front.catalogsOf(locale)) {
        const start = front.codeKey(catalog.namespace, "");
        const entry = written.startsWith(start) && catalog.byKey.get(written.slice(start.length));
        if (entry) return entry;
      }
    return book.catalog(locale, namespace)?.byKey.get(key);
  };
  const source = reader.read(entryIn(book.sourceLocale)?.text ?? "", book.sourceLocale, key);
  const all = [book.sourceLocale, ...book.targetLocales];
  const locales =
    options.compare ?? (scope.locales ? all.filter((one) => scope.locales?.includes(one)) : all);
  // Beside each other every locale shows the numbers and cases of all of them.
  const beside = (options.compare ?? []).flatMap((locale) => {
    const text = entryIn(locale)?.text;
    const message = text === undefined ? undefined : reader.read(text, locale, key);
    return message && !message.isBroken ? [{ message, locale }] : [];
  });
  return locales.map((locale): PreviewMessage => {
    const base = { book: config.name, key: written, locale };
    const chain = [locale, ...parentsOf(locale).filter((one) => all.includes(one)), book.sourceLocale];
    const own = book.catalog(locale, namespace);
    if (own && !isWhole(own) && !entryIn(locale))
      return {
        ...base,
        trouble: `its catalog cannot be read: ${own.problems[0]?.message ?? ""}`,
        samples: [],
      };
    const holder = chain.find((one) => entryIn(one));
    const entry = holder && entryIn(holder);
    if (!holder || !entry) return { ...base, trouble: "no text", samples: [] };
    const from = holder === locale ? {} : { from: holder };
    if (entry.kind === "code") return { ...base, ...from, trouble: "code, which is not run", samples: [] };
    const message = reader.read(entry.text, holder, key);
    if (message.isBroken) {
      const problem = message.problems.find(({ severity }) => severity === "error");
      return {
        ...base,
        ...from,
        trouble: `cannot be shown: ${problem ? explainProblem(problem).message : "broken message"}`,
        samples: [],
      };
    }
    return { ...base, ...from, samples: samplesOf(message, source, holder, options.values ?? {}, beside) };
  });
}

/** At most this many samples are shown of one message. */
const mostSamples = 24;

/** A message filled with values: every category of its plurals, every case of its selects. */
function samplesOf(
  message: ReadMessage,
  source: ReadMessage,
  locale: string,
  given: Readonly<Record<string, string>>,
  beside: readonly { readonly message: ReadMessage; readonly locale: string }[],
): PreviewSample[] {
  // What the source does not ask for no program passes: users see such an argument as it stands.
  const names = new Set((source.isBroken ? message : source).facts.arguments.keys());
  // A set holds one value and what it was added to: a message may have thousands of arguments.
  let sets: readonly (ValueSet | undefined)[] = [undefined];
  for (const name of names) {
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
    text: fillMessage(message.nodes, locale, set).text,
  }));
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
  if (type === "number" || /^[difgFGeEu]$/.test(type ?? "")) return [isPart(name) ? 0.75 : 1234.5];
  return [madeUp(name)];
}

/** Numbers that people would try, the likeliest first; those with fractions stand for categories that have no other. */
const tried = [1, 2, 5, 21, 3, 0, 11, 4, 22, 100, 1_000_000, 1.5, 0.5, 2.5, 10.5];

/** For each category a number or two that people would try, else CLDR's own; and each exact number. */
function pluralNumbers(plurals: readonly PluralNode[], locale: string): number[] {
  const numbers = new Set<number>();
  for (const { pluralKind, offset, branches } of plurals) {
    for (const { selector } of branches) if (selector.startsWith("=")) numbers.add(Number(selector.slice(1)));
    const rules = pluralRules(locale, pluralKind);
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
