import { notices } from "../message/notices.js";
import { catalogEdits, isWhole, type Book, type Catalog } from "../catalog/book.js";
import type { LedgerProblem } from "../ledger/ledger.js";
import { sourceTextChanges, type SourceText, type SourceTexts } from "../ledger/source-texts.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { makeAnew } from "../text/kept.js";
import { emptyTally, sourceRowsOf, type ReconcileOptions, type SourceRow, type Tally } from "./job.js";
import { reconcileLocale } from "./locale.js";
import { stillSettled, type Settled } from "./settled.js";

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
export function planReconcile(books: readonly Book[], options: ReconcileOptions): Plan {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const tally = emptyTally();
  const keep = options.keep ?? makeAnew;
  for (const book of books) {
    const { config } = book;
    const reader = options.reader(book);
    const ledgers = options.ledgers(book);
    const edits = catalogEdits();
    const { sources } = ledgers;
    const madeFrom = new Set<string>();
    const origins = options.origins?.(book);
    const former = new Map<string, SourceText[]>();
    const rows = sourceRowsOf(book, ledgers.pool, keep);
    const said = new Set<string>();
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
      const ledger = ledgers.of(locale);
      noteProblems(ledger.problems, notes);
      // Without its records every translation would count as new.
      if (ledger.problems.some(({ isUnreadable }) => isUnreadable)) continue;
      const catalogs = [...book.catalogsOf(book.sourceLocale), ...book.catalogsOf(locale)];
      const { today, keepExtra } = options;
      const done = keep(
        `reconciled ${config.name} ${locale}`,
        [config, ledger, sources, today, keepExtra, book.targetLocales.join(), ...catalogs],
        () =>
          reconcileLocale({
            book,
            locale,
            ledger,
            reader,
            options,
            sources,
            origins,
            rowsOf: rows,
          }),
      );
      for (const note of done.notes) {
        // A source that cannot be read is the trouble of every locale.
        const id = JSON.stringify(note);
        if (!said.has(id)) notes.push(note);
        said.add(id);
      }
      for (const [key, list] of done.former) {
        const known = former.get(key) ?? [];
        former.set(key, [
          ...known,
          ...list.filter((one) => !known.some(({ digest }) => digest === one.digest)),
        ]);
      }
      for (const name of Object.keys(tally) as (keyof Tally)[]) tally[name] += done.tally[name];
      for (const edit of done.edits) edit(edits);
      changes.push(...done.changes);
      for (const one of done.outdated) madeFrom.add(one);
    }
    const kept = keep<KeptSources>(
      `sources ${config.name}`,
      [
        config,
        sources,
        options.today,
        options.locales?.join(),
        [...madeFrom].join(),
        ...book.catalogsOf(book.sourceLocale),
      ],
      (before) => sourceTextsOf(book, withFormer(sources, former), options, madeFrom, rows, before?.settled),
    );
    changes.push(...kept.changes);
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

/** What brings a book's kept source texts up to date, and which of its texts need nothing. */
interface KeptSources {
  readonly changes: readonly FileChange[];
  readonly settled?: Settled;
}

/** The source texts of today for the ledger, with the older ones that translations were made from. */
function sourceTextsOf(
  book: Book,
  sources: SourceTexts,
  { today, locales }: ReconcileOptions,
  madeFrom: ReadonlySet<string>,
  rowsOf: (source: Catalog) => readonly SourceRow[],
  before: Settled | undefined,
): KeptSources {
  const catalogs = book.catalogsOf(book.sourceLocale);
  // What cannot be read may hold any key, so nothing is known to have left.
  if (!catalogs.every(isWhole)) return { changes: [] };
  const latest = ([] as SourceRow[]).concat(...catalogs.map(rowsOf));
  if (latest.length === 0 || book.targetLocales.length === 0) return { changes: [] };
  const settled = stillSettled(before, sources, latest);
  const changes = sourceTextChanges(
    sources,
    latest,
    today,
    (key, digest) => locales !== undefined || madeFrom.has(`${key}\u0000${digest}`),
    settled.isInOrder,
  );
  return { changes, settled };
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
