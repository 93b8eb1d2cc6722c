import { explainProblem } from "../message/problem-wordings.js";
import { partEnds } from "../text/separators.js";
import { isWhole, type Book } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import type { Finding } from "../lint/finding.js";
import { parentsOf } from "../locale/fallback.js";
import { messageReader } from "../message/parse.js";
import { samplesOf, type MessageSample } from "../message/samples.js";
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

export type PreviewSample = MessageSample;

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
