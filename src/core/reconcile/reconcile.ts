import { notices } from "../message/notices.js";
import { catalogEdits, isWhole, type Book } from "../catalog/book.js";
import { KeyPool } from "../catalog/key-pool.js";
import type { Files } from "../files/files.js";
import { readLedger, type LedgerProblem } from "../ledger/ledger.js";
import {
  readSourceTexts,
  sourceTextChanges,
  type SourceText,
  type SourceTexts,
} from "../ledger/source-texts.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { sourceRowsOf, type ReconcileOptions, type Tally } from "./job.js";
import { reconcileLocale } from "./locale.js";

export type { ReconcileOptions } from "./job.js";

const say = notices("reconcile", {
  "no-source": {
    message: "no source catalog to keep the others in sync with",
    remedy:
      'check "source" and "files" in the configuration; `fond extract --write` writes the first source catalog',
  },
  "ledger-unreadable": {
    message: "{detail}",
    remedy: "check its permissions; its locale is skipped until it can be read",
  },
  "ledger-line": { message: "{detail}", remedy: "the rest was read; writing the plan repairs the file" },
});

/**
 * Plans what brings every target locale into step with the source: missing keys added where the source has them,
 * keys that left the source set aside in the attic, those that came back taken out of it, and the ledger brought
 * up to what the texts show. A catalog that cannot be read whole is left alone and said.
 */
export function planReconcile(files: Files, books: readonly Book[], options: ReconcileOptions): Plan {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const tally: Tally = {
    "keys added": 0,
    "untranslated copies renewed": 0,
    "keys renamed": 0,
    "keys restored": 0,
    "keys set aside": 0,
    "translations stale": 0,
  };
  for (const book of books) {
    const reader = options.reader(book);
    const edits = catalogEdits();
    const sources = readSourceTexts(files, options.ledgerFolder, book.config.name);
    const madeFrom = new Set<string>();
    const origins = options.origins?.(book);
    const former = new Map<string, SourceText[]>();
    const pool = new KeyPool();
    const rows = sourceRowsOf(book, pool);
    noteProblems(sources.problems, notes);
    if (!book.catalogsOf(book.sourceLocale).some(({ exists }) => exists) && book.targetLocales.length > 0) {
      notes.push({
        file: book.layout.path(book.sourceLocale, book.namespaces[0]),
        ...say("no-source", {}),
        undone: "broken",
      });
      continue;
    }
    for (const locale of book.targetLocales) {
      if (options.locales && !options.locales.includes(locale)) continue;
      const ledger = readLedger(files, options.ledgerFolder, book.config.name, locale, pool);
      noteProblems(ledger.problems, notes);
      // Without its records every translation would count as new.
      if (ledger.problems.some(({ isUnreadable }) => isUnreadable)) continue;
      const { changes: ofLedger, outdated } = reconcileLocale({
        book,
        locale,
        ledger,
        reader,
        options,
        sources,
        origins,
        rowsOf: rows,
        notes,
        tally,
        edits,
        former,
      });
      changes.push(...ofLedger);
      for (const one of outdated) madeFrom.add(one);
    }
    changes.push(...sourceTextsOf(book, withFormer(sources, former), options, madeFrom));
    changes.push(...edits.changes());
  }
  const summary = Object.fromEntries(Object.entries(tally).filter(([, count]) => count > 0));
  return makePlan(changes, summary, notes);
}

function noteProblems(problems: readonly LedgerProblem[], notes: PlanNote[]): void {
  for (const { file, line, detail, isUnreadable } of problems)
    notes.push(
      isUnreadable
        ? { file, ...say("ledger-unreadable", { detail }), undone: "unreadable" }
        : { file, line, ...say("ledger-line", { detail }) },
    );
}

/** The source texts of today for the ledger, with the older ones that translations were made from. */
function sourceTextsOf(
  book: Book,
  sources: SourceTexts,
  { today, locales }: ReconcileOptions,
  madeFrom: ReadonlySet<string>,
): FileChange[] {
  const now = new Map<string, string>();
  for (const catalog of book.catalogsOf(book.sourceLocale)) {
    // What cannot be read may hold any key, so nothing is known to have left.
    if (!isWhole(catalog)) return [];
    for (const entry of catalog.byKey.values())
      now.set(book.fullKey(catalog.namespace, entry.key), entry.text);
  }
  if (now.size === 0 || book.targetLocales.length === 0) return [];
  return sourceTextChanges(
    sources,
    now,
    today,
    (key, digest) => locales !== undefined || madeFrom.has(`${key}\u0000${digest}`),
  );
}

/** The kept source texts with those that history shows in front of them. */
function withFormer(sources: SourceTexts, former: ReadonlyMap<string, readonly SourceText[]>): SourceTexts {
  if (former.size === 0) return sources;
  const byKey = new Map(sources.byKey);
  for (const [key, list] of former) {
    const known = byKey.get(key) ?? [];
    byKey.set(key, [...list.filter((one) => !known.some(({ digest }) => digest === one.digest)), ...known]);
  }
  return { ...sources, byKey };
}
