import { descriptionOf } from "../catalog/book.js";
import type { BookConfig } from "../config/schema.js";
import { bookOnPage } from "../exchange/carriers/page.js";
import { progressOf } from "../ledger/progress.js";
import { directionOf } from "../locale/script.js";
import { showForms } from "../message/forms.js";
import { messageReader } from "../message/parse.js";
import type { AuditFacts, AuditVerdict } from "./audit.js";
import { usesIn } from "./handoff.js";
import { wordChanges, type TextChange } from "../plan/words.js";
import { balanceProject, formerSources, ledgers, type Project } from "./project.js";
import type { TrendPoint } from "./trend.js";

/** What a report shows, as JSON: lists rather than objects where there are many. */
export interface ReportData {
  readonly day: string;
  /** Where a served report hears of changes, and where each locale's texts are edited. */
  readonly live?: { readonly events: string; readonly edit?: Readonly<Record<string, string>> };
  readonly source: string;
  readonly locales: readonly ReportLocale[];
  readonly verdict: {
    readonly ok: boolean;
    readonly against: readonly ReportReason[];
    readonly told: readonly ReportReason[];
  };
  readonly books: readonly BookConfig[];
  /** A row for each namespace of each book, a cell for each target locale. */
  readonly rows: readonly {
    readonly book: string;
    readonly namespace?: string;
    readonly keys: number;
    readonly cells: readonly { readonly share: number; readonly words: number; readonly stale: number }[];
  }[];
  readonly trend: readonly {
    readonly date: string;
    readonly revision: string;
    readonly shares: readonly number[];
  }[];
  readonly findings: readonly ReportFinding[];
  readonly messages: readonly ReportMessage[];
}

export interface ReportLocale {
  readonly tag: string;
  readonly name: string;
  readonly direction: "ltr" | "rtl";
}

export interface ReportReason {
  readonly message: string;
  readonly remedy: string;
}

export interface ReportFinding {
  readonly rule: string;
  readonly severity: string;
  readonly message: string;
  readonly remedy: string;
  readonly file: string;
  readonly line: number;
  readonly locale?: string;
  /** The place of its message in `messages`, where it is about one. */
  readonly at?: number;
}

export interface ReportMessage {
  /** The place of its book in `books`. */
  readonly book: number;
  readonly key: string;
  readonly entryKey: string;
  /** The texts as catalogs have them: joined where forms have keys of their own. */
  readonly source: string;
  readonly about?: string;
  readonly uses: readonly string[];
  readonly texts: readonly ReportText[];
}

/** A target locale's text and state; of a stale one also how its source became what it is. */
export type ReportText = readonly [text: string | null, state: string, changes?: readonly TextChange[]];

/** Gathers what a report shows. */
export async function reportData(
  project: Project,
  facts: AuditFacts,
  verdict: AuditVerdict,
  trend: readonly TrendPoint[],
  day: string,
): Promise<ReportData> {
  const { config } = project;
  const names = new Intl.DisplayNames(["en"], { type: "language" });
  const locales = [config.source, ...config.targets].map((tag) => ({
    tag,
    name: names.of(tag) ?? tag,
    direction: directionOf(tag),
  }));
  const messages: ReportMessage[] = [];
  const places = new Map<string, number>();
  for (const [index, own] of config.books.entries()) {
    const book = project.book(own);
    const reader = messageReader(own);
    const former = formerSources(project, own);
    const uses = await usesIn(project, book);
    const byKey = new Map<string, ReportText[]>();
    for (const [at, locale] of config.targets.entries())
      for (const { source, entry, found } of progressOf(book, locale, reader, ledgers(project, own))) {
        const full = book.fullKey(source.namespace, entry.key);
        const all = byKey.get(full) ?? config.targets.map(() => [null, "missing"] as const);
        byKey.set(full, all);
        if (!found) continue;
        const { standing, record, catalog } = found;
        const old = standing.stale && record ? former(full, record.source) : undefined;
        const state =
          catalog.locale !== locale ? `from ${catalog.locale}` : standing.stale ? "stale" : standing.state;
        const changes = old === undefined ? undefined : wordChanges(showForms(old), showForms(entry.text));
        all[at] = changes ? [found.entry.text, state, changes] : [found.entry.text, state];
      }
    for (const source of book.catalogsOf(book.sourceLocale))
      for (const entry of source.byKey.values()) {
        if (entry.kind === "code") continue;
        const full = book.fullKey(source.namespace, entry.key);
        const about = descriptionOf(source, entry);
        places.set(JSON.stringify([own.name, source.namespace, entry.key]), messages.length);
        messages.push({
          book: index,
          key: book.codeKey(source.namespace, entry.key),
          entryKey: entry.key,
          source: entry.text,
          ...(about !== undefined && { about }),
          uses: (uses.get(full) ?? []).map(({ file, line, code }) => `${file}:${line}  ${code}`),
          texts: byKey.get(full) ?? config.targets.map(() => [null, "missing"] as const),
        });
      }
  }
  return {
    day,
    source: config.source,
    locales,
    verdict: {
      ok: verdict.ok,
      against: verdict.against.map(({ message, remedy }) => ({ message, remedy })),
      told: verdict.told.map(({ message, remedy }) => ({ message, remedy })),
    },
    books: config.books.map(bookOnPage),
    rows: balanceProject(project, {}, true).map(({ name, namespace, keys, locales: cells }) => ({
      book: name,
      ...(namespace !== undefined && { namespace }),
      keys,
      cells: cells.map(({ share, words, stale }) => ({ share, words, stale })),
    })),
    trend: trend.map(({ date, revision, books }) => ({
      date,
      revision,
      shares: config.targets.map((tag) => shareOf(books, tag)),
    })),
    findings: facts.findings.map(
      ({ rule, severity, message, remedy, file, line, locale, book, namespace, key }) => {
        const at = key === undefined ? undefined : places.get(JSON.stringify([book, namespace, key]));
        return {
          rule,
          severity,
          message,
          remedy: remedy ?? "",
          file,
          line,
          ...(locale !== undefined && { locale }),
          ...(at !== undefined && { at }),
        };
      },
    ),
    messages,
  };
}

/** The share of a locale over all books, by their keys. */
function shareOf(books: TrendPoint["books"], tag: string): number {
  const own = books.flatMap(({ keys, locales }) => {
    const found = locales.find(({ locale }) => locale === tag);
    return found ? [{ keys, share: found.share }] : [];
  });
  const keys = own.reduce((sum, one) => sum + one.keys, 0);
  return keys === 0 ? 0 : own.reduce((sum, one) => sum + one.keys * one.share, 0) / keys;
}
