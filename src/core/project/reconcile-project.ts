import { type Book } from "../catalog/book.js";
import { overlayFiles } from "../files/overlay-files.js";
import { workOutOrigins, type CatalogRevision } from "../ledger/history.js";
import { ledgerFiles } from "../ledger/ledger.js";
import { sourceTextsFile } from "../ledger/source-texts.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan } from "../plan/plan.js";
import { planReconcile } from "../reconcile/reconcile.js";
import { declaredChanges } from "../reconcile/declared.js";
import { booksIn, ledgersOf, openProject, textOrTrouble, type Project, type Scope } from "./project.js";

export interface ReconcileOptions {
  /** Keeps keys that the source does not have. */
  readonly keepExtra?: boolean;
  /** Older versions of the catalogs, newest first, from which it is worked out what translations were made from. */
  readonly history?: (patterns: readonly string[]) => Iterable<CatalogRevision>;
}

/** Plans what brings the locales of a project into step. `today` is a day as YYYY-MM-DD. */
export function reconcileProject(
  project: Project,
  scope: Scope,
  today: string,
  options: ReconcileOptions = {},
): Plan {
  const { keep, config, files } = project;
  const books = booksIn(project, scope);
  const make = () => planSteps(project, scope, today, options);
  // What types declare is read from files that are none of the book's.
  if (!keep || options.history || books.some(({ declared }) => declared !== undefined)) return make();
  const ledgerTexts = books.flatMap(({ name }) =>
    [
      sourceTextsFile(config.ledger, name),
      ...config.targets.flatMap((locale) => ledgerFiles(config.ledger, name, locale)),
    ].map((file) => textOrTrouble(files.read(file))),
  );
  const from = [...books.map((one) => project.book(one)), ...ledgerTexts, today, options.keepExtra];
  return keep(`steps ${JSON.stringify([scope.books, scope.locales])}`, from, make);
}

function planSteps(project: Project, scope: Scope, today: string, options: ReconcileOptions): Plan {
  const { history, ...more } = options;
  const { project: agreed, declared, summary } = declaredFirst(project, scope);
  const books = booksIn(agreed, scope).map((config) => agreed.book(config));
  const readers = new Map<Book, MessageReader>();
  const plan = planReconcile(books, {
    ledgerFolder: project.config.ledger,
    today,
    ...(scope.locales && { locales: scope.locales }),
    ...more,
    // What is worked out from history hangs on it.
    keep: history ? undefined : agreed.keep,
    ledgers: (book) => ledgersOf(project, book.config),
    origins: history && ((book) => workOutOrigins(project.config, book.config, history(book.layout.globs))),
    reader(book) {
      const reader = readers.get(book) ?? messageReader(book.config);
      readers.set(book, reader);
      return reader;
    },
  });
  if (declared.length === 0) return plan;
  // A file that both change is changed from what it is to what it is in the end.
  const later = new Map(plan.changes.map((change) => [change.file, change]));
  const first = new Map(declared.map((change) => [change.file, change]));
  const changes = [
    ...declared.map((change) => ({ ...change, after: later.get(change.file)?.after ?? change.after })),
    ...plan.changes.filter(({ file }) => !first.has(file)),
  ];
  return makePlan(changes, { ...summary, ...plan.summary }, plan.notes);
}

/** The project as it is once source catalogs and the types that declare their texts agree, and what makes them so. */
function declaredFirst(project: Project, scope: Scope) {
  const summary: Record<string, number> = {};
  const declared: FileChange[] = [];
  for (const config of booksIn(project, scope)) {
    const found = declaredChanges(project.book(config));
    for (const [what, count] of Object.entries(found.summary)) summary[what] = (summary[what] ?? 0) + count;
    declared.push(...found.changes);
  }
  const after = new Map(declared.map((change) => [change.file, change.after]));
  const opened = after.size > 0 && openProject(overlayFiles(project.files, after), project.configFile);
  return { project: opened && opened.ok ? opened.project : project, declared, summary };
}
