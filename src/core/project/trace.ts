import { commentAbove, isWhole, type Book } from "../catalog/book.js";
import type { EntryState, LedgerRecord } from "../ledger/ledger.js";
import { progressOf } from "../ledger/progress.js";
import { readNotes } from "../ledger/translator-notes.js";
import type { Finding } from "../lint/finding.js";
import { parentsOf } from "../locale/fallback.js";
import { showForms } from "../message/forms.js";
import { messageReader } from "../message/parse.js";
import { wordChanges, type TextChange } from "../plan/words.js";
import { listCode, readBookCode, type UseRecord } from "../source/book-code.js";
import { prepareReaders } from "../source/read.js";
import { keysNamed, type SourceKey } from "./preview.js";
import { formerSources, ledgers, type Project, type Scope } from "./project.js";
import type { WorkReading } from "./file-work.js";
import { lintProject } from "./lint-project.js";

/** All that is known of one key. */
export interface TracedKey {
  readonly book: string;
  readonly key: string;
  readonly source: {
    readonly text: string;
    readonly file: string;
    readonly line: number;
    readonly comment?: string;
  };
  readonly locales: readonly TracedLocale[];
  readonly uses: readonly TracedUse[];
  readonly findings: readonly Finding[];
}

/** One locale's text of a key. */
export interface TracedLocale {
  readonly locale: string;
  /** What users read, the locale's own or what it falls back to; undefined where there is nothing. */
  readonly text?: string;
  /** The locale that it is from, where that is another one. */
  readonly from?: string;
  /** The locales that are asked in turn, the own first. */
  readonly chain: readonly string[];
  readonly state: EntryState | "stale" | "missing" | "unreadable";
  readonly file?: string;
  /** From 1. */
  readonly line?: number;
  readonly record?: Pick<LedgerRecord, "state" | "origin" | "date">;
  /** For what is stale, how the source changed since. */
  readonly change?: readonly TextChange[];
  /** What a translator said of it. */
  readonly note?: { readonly date: string; readonly text: string };
}

/** A place where code asks for a key, with its line. */
export interface TracedUse {
  readonly file: string;
  readonly line: number;
  readonly column: number;
  readonly code: string;
}

export type TraceResult =
  | { readonly ok: true; readonly keys: readonly TracedKey[] }
  | { readonly ok: false; readonly unknown: string; readonly near: readonly string[] };

/** Everything about keys: their texts and states in every locale, where code asks for them, their records, their findings. */
export async function traceProject(
  project: Project,
  scope: Scope,
  keys: readonly string[],
  uses?: WorkReading<UseRecord>,
): Promise<TraceResult> {
  const named = keysNamed(project, scope, keys);
  if (!named.ok) return named;
  const findings = await lintProject(project, scope.books ? { books: scope.books } : {}, undefined, uses);
  const traced: TracedKey[] = [];
  for (const own of named.keys) traced.push(await traceKey(project, scope, own, findings));
  return { ok: true, keys: traced };
}

async function traceKey(
  project: Project,
  scope: Scope,
  { book, config, namespace, key, written }: SourceKey,
  findings: readonly Finding[],
): Promise<TracedKey> {
  const catalog = book.catalog(book.sourceLocale, namespace);
  const entry = catalog?.byKey.get(key);
  const comment = catalog && entry && commentAbove(catalog, entry);
  const full = book.fullKey(namespace, key);
  const locales = book.targetLocales.filter((one) => scope.locales?.includes(one) ?? true);
  return {
    book: config.name,
    key: written,
    source: {
      text: entry ? showForms(entry.text) : "",
      file: catalog?.file ?? "",
      line: catalog && entry ? catalog.lines.position(entry.keySpan.start).line : 1,
      ...(comment !== undefined && { comment }),
    },
    locales: locales.map((locale) => traceLocale(project, book, locale, namespace, key, full)),
    uses: await usesOf(project, book, full),
    findings: findings.filter(
      (one) =>
        one.book === config.name &&
        (one.key === key || one.key === written || one.key === full) &&
        (one.namespace === undefined || one.namespace === namespace),
    ),
  };
}

function traceLocale(
  project: Project,
  book: Book,
  locale: string,
  namespace: string | undefined,
  key: string,
  full: string,
): TracedLocale {
  const all = [book.sourceLocale, ...book.targetLocales];
  const chain = [
    ...new Set([locale, ...parentsOf(locale).filter((one) => all.includes(one)), book.sourceLocale]),
  ];
  const own = book.catalog(locale, namespace);
  const holder = chain.find((one) => book.catalog(one, namespace)?.byKey.has(key));
  const held = holder === undefined ? undefined : book.catalog(holder, namespace);
  const entry = held?.byKey.get(key);
  const base = {
    locale,
    chain,
    ...(entry && { text: showForms(entry.text) }),
    ...(holder !== undefined && holder !== locale && { from: holder }),
    ...(held && entry && { file: held.file, line: held.lines.position(entry.keySpan.start).line }),
  };
  if (own && !isWhole(own) && holder !== locale) return { ...base, state: "unreadable" };
  const reader = messageReader(book.config);
  const progress = [...progressOf(book, locale, reader, ledgers(project, book.config))].find(
    (one) => book.fullKey(one.source.namespace, one.entry.key) === full,
  );
  const found = progress?.found;
  if (!found || found.catalog.locale !== locale) return { ...base, state: "missing" };
  const { record, standing } = found;
  const former =
    standing.stale && record ? formerSources(project, book.config)(full, record.source) : undefined;
  const note = readNotes(project.files, project.config.ledger, book.config.name, locale).notes.get(full);
  return {
    ...base,
    state: standing.stale ? "stale" : standing.state,
    ...(record && { record: { state: record.state, origin: record.origin, date: record.date } }),
    ...(former !== undefined &&
      progress && { change: wordChanges(showForms(former), showForms(progress.entry.text)) }),
    ...(note && { note }),
  };
}

async function usesOf(project: Project, book: Book, full: string): Promise<readonly TracedUse[]> {
  const { config } = book;
  if (config.code.length === 0) return [];
  await prepareReaders(listCode(project.files, config), project.files);
  return readBookCode(project.files, config, book.sourceLocale).files.flatMap(
    ({ file, text, lines, lookups }) =>
      lookups.flatMap(({ key, keySpan }): TracedUse[] => {
        if (key.kind !== "fixed") return [];
        const found = book.resolve(key.value);
        if (!found || book.fullKey(found.catalog.namespace, found.entry.key) !== full) return [];
        const start = text.lastIndexOf("\n", keySpan.start - 1) + 1;
        const end = text.indexOf("\n", keySpan.start);
        return [
          {
            file,
            ...lines.position(keySpan.start),
            code: text.slice(start, end < 0 ? undefined : end).trim(),
          },
        ];
      }),
  );
}
