import { catalogEdits, isWhole, ownHintsOf, unreadNote, type Book, type Catalog } from "../catalog/book.js";
import { placementIn } from "../catalog/placement.js";
import type { PathText } from "../catalog/model.js";
import {
  entryId,
  formOf,
  type HandoffEntry,
  type ReturnedDocument,
  type ReturnedUnit,
} from "../exchange/handoff.js";
import { codesIn, sameInlines, wordsOf, type Inline } from "../exchange/inline.js";
import { composeEntry } from "../exchange/compose.js";
import { overlayFiles } from "../files/overlay-files.js";
import { ledgerChanges, type EntryState, type LedgerRecord, type Origin } from "../ledger/ledger.js";
import { noteChanges, readNotes } from "../ledger/translator-notes.js";
import { progressOf, type Progress } from "../ledger/progress.js";
import type { Finding } from "../lint/finding.js";
import { rules } from "../lint/rules/index.js";
import { showForms } from "../message/forms.js";
import { notices } from "../message/notices.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { separatorsOf } from "../text/separators.js";
import { shortened } from "../text/shorten.js";
import type { Notice } from "../text/wording.js";
import { entryOf, isCopy } from "./handoff.js";
import { booksIn, ledgers, openProject, type Project, type Scope } from "./project.js";
import { lintProject } from "./lint-project.js";

const say = notices("intake", {
  "other-locale": {
    message: "the file is for {found}, not for {wanted}",
    remedy: "check that it is the right file; --locale {found} takes it for {found}",
  },
  "no-target": {
    message: 'the file is for "{found}", which is no target locale',
    remedy: "name the locale that it is for: --locale TAG",
  },
  "no-locale": {
    message: "the file does not say which locale it is for",
    remedy: "name the locale: --locale TAG",
  },
  "other-source": {
    message: 'the file was translated from "{found}"; the texts of this project are in "{source}"',
    remedy: "check that it is a file of this project",
  },
  unknown: {
    message: 'unknown text "{id}"',
    remedy: "its key was renamed or removed since; move the translation by hand if it still applies",
  },
  "unknown-form": {
    message: '"{key}" has no form "{form}" here',
    remedy: "hand the text out again: its plural forms or cases are others now",
  },
  "source-changed": {
    message: 'the source of "{key}" has changed since; translated was "{was}", it now reads "{now}"',
    remedy: "translate it anew, or --prefer file takes the translation and marks it stale",
  },
  edited: {
    message: '"{key}" was edited here in the meantime: "{here}" here, "{there}" in the file',
    remedy: "--prefer file takes the file's, --prefer project keeps what is here",
  },
  "forms-missing": {
    message: '"{key}" lacks {forms}',
    remedy: "fill in every form; where two are the same, write the text twice",
  },
  torn: { message: 'a code in "{key}" is torn: {text}', remedy: "put the codes back as the source has them" },
  finding: { message: '"{key}": {detail}', remedy: "{remedy}" },
  blocked: {
    message: '"{key}" has no place in {file}, because of "{other}"',
    remedy: "run `fond lint`; one of the two has to be renamed",
  },
});

export interface IntakeOptions {
  /** Today, as YYYY-MM-DD. */
  readonly today: string;
  /** The document's path, for what is said of it. */
  readonly file: string;
  /** The locale that it is for, whatever it says itself. */
  readonly locale?: string;
  /** Which text counts where both the document and the project were changed, and where the source was. */
  readonly prefer?: "file" | "project";
  /** Takes nothing where anything has to stay out. */
  readonly allOrNothing?: boolean;
  /** The state that everything is recorded in, whatever the document says. */
  readonly state?: EntryState;
  /** Who or what made the translations; a person where not given. */
  readonly origin?: Origin;
}

export interface IntakeCounts {
  readonly taken: number;
  readonly unchanged: number;
  readonly empty: number;
  readonly refused: number;
}

export type IntakeResult =
  | {
      readonly ok: true;
      readonly locale: string;
      readonly plan: Plan;
      readonly counts: IntakeCounts;
      /** Warnings of the rules about what is taken. */
      readonly warnings: readonly Finding[];
    }
  | ({ readonly ok: false } & Notice);

/** A translation that is to be written. */
interface Candidate {
  readonly book: Book;
  readonly progress: Progress;
  readonly full: string;
  readonly key: string;
  /** As the catalog has texts: joined where forms have keys of their own. */
  readonly text: string;
  readonly state: EntryState;
  /** The digest of the source text that it was made from. */
  readonly source: string;
  readonly note: string | undefined;
  readonly line: number;
}

/** What a document brings for one message, or a catalog that was edited by hand. */
type Brought =
  | { readonly kind: "units"; readonly units: ReadonlyMap<string, ReturnedUnit>; readonly line: number }
  | { readonly kind: "text"; readonly text: string; readonly line: number };

/** Plans to take a document that came back into catalogs and ledger. Every text is checked with the rules before. */
export async function intakeDocument(
  project: Project,
  scope: Scope,
  document: ReturnedDocument,
  options: IntakeOptions,
): Promise<IntakeResult> {
  const { source, targets } = project.config;
  if (document.source !== undefined && document.source !== "" && !isSameTag(document.source, source))
    return { ok: false, ...say("other-source", { found: document.source, source }) };
  const said = document.target === "" ? undefined : document.target;
  const meant = targets.find((one) => said !== undefined && isSameTag(one, said));
  if (options.locale !== undefined && meant !== undefined && meant !== options.locale)
    return { ok: false, ...say("other-locale", { found: meant, wanted: options.locale }) };
  const locale = options.locale ?? meant;
  if (locale === undefined)
    return { ok: false, ...(said === undefined ? say("no-locale", {}) : say("no-target", { found: said })) };
  const brought = new Map<string, Brought>();
  for (const unit of document.units) {
    const id = unit.id.split("--", 1)[0] ?? unit.id;
    const there = brought.get(id);
    if (there?.kind === "units") (there.units as Map<string, ReturnedUnit>).set(unit.id, unit);
    else brought.set(id, { kind: "units", units: new Map([[unit.id, unit]]), line: unit.line });
  }
  return intake(project, scope, locale, brought, options);
}

/** Plans to take the texts of a catalog that was edited by hand, by full key. */
export async function intakeTexts(
  project: Project,
  scope: Scope,
  book: Book,
  locale: string,
  texts: ReadonlyMap<string, { readonly text: string; readonly line: number }>,
  options: IntakeOptions,
): Promise<IntakeResult> {
  const brought = new Map<string, Brought>();
  for (const [full, { text, line }] of texts)
    brought.set(entryId(book.config.name, full, digestOf), { kind: "text", text, line });
  return intake(project, { ...scope, books: [book.config.name] }, locale, brought, options);
}

async function intake(
  project: Project,
  scope: Scope,
  locale: string,
  brought: ReadonlyMap<string, Brought>,
  options: IntakeOptions,
): Promise<IntakeResult> {
  const notes: PlanNote[] = [];
  const counts = { taken: 0, unchanged: 0, empty: 0, refused: 0 };
  const candidates: Candidate[] = [];
  const met = new Set<string>();
  const refuse = (line: number, notice: Notice) => {
    counts.refused++;
    notes.push({ file: options.file, line, ...notice, undone: "refused" });
  };
  for (const config of booksIn(project, scope)) {
    const book = project.book(config);
    const reader = messageReader(config);
    for (const progress of progressOf(book, locale, reader, ledgers(project, config))) {
      const full = book.fullKey(progress.source.namespace, progress.entry.key);
      const id = entryId(config.name, full, digestOf);
      const one = brought.get(id);
      if (!one) continue;
      met.add(id);
      const candidate = candidateOf({ book, reader, locale, progress, full, options }, one);
      if (candidate === "unchanged" || candidate === "empty") counts[candidate]++;
      else if ("message" in candidate) refuse(one.line, candidate);
      else candidates.push(candidate);
    }
  }
  for (const [id, { line }] of brought) if (!met.has(id)) refuse(line, say("unknown", { id }));
  const first = changesOf(project, locale, candidates, options, notes);
  const { errors, warnings } = await findingsAbout(project, scope, locale, first.changes, candidates);
  for (const { candidate, finding } of errors)
    refuse(
      candidate.line,
      say("finding", {
        key: candidate.key,
        detail: finding.message,
        remedy: finding.remedy ?? "correct it and take the file in again",
      }),
    );
  const bad = new Set(errors.map(({ candidate }) => candidate));
  const isNothing = options.allOrNothing === true && counts.refused > 0;
  const good = isNothing ? [] : candidates.filter((one) => !bad.has(one));
  const blockedBefore = notes.length;
  const { changes, written } =
    bad.size === 0 && !isNothing ? first : changesOf(project, locale, good, options, []);
  counts.refused += first.blocked;
  counts.taken = written;
  notes.splice(blockedBefore);
  notes.sort((a, b) => (a.line ?? 0) - (b.line ?? 0));
  const summary: Record<string, number> = counts.taken > 0 ? { "translations taken in": counts.taken } : {};
  return { ok: true, locale, plan: makePlan(changes, summary, notes), counts, warnings };
}

function isSameTag(one: string, other: string): boolean {
  return one.toLowerCase().replaceAll("_", "-") === other.toLowerCase().replaceAll("_", "-");
}

interface EntryJob {
  readonly book: Book;
  readonly reader: MessageReader;
  readonly locale: string;
  readonly progress: Progress;
  readonly full: string;
  readonly options: IntakeOptions;
}

/** What becomes of one message: a translation to write, nothing, or the reason why it stays out. */
function candidateOf(job: EntryJob, brought: Brought): Candidate | Notice | "unchanged" | "empty" {
  const { book, reader, locale, progress, full, options } = job;
  const { source, entry } = progress;
  const found = progress.found?.catalog.locale === locale ? progress.found : undefined;
  const here = found?.entry.text;
  const key = book.codeKey(source.namespace, entry.key);
  const digest = digestOf(entry.text);
  const candidate = (text: string, more: Partial<Candidate> = {}): Candidate => ({
    book,
    progress,
    full,
    key,
    text,
    state: "translated",
    source: digest,
    note: undefined,
    line: brought.line,
    ...more,
  });
  if (brought.kind === "text") {
    if (brought.text === here) return "unchanged";
    return brought.text.trim() === "" ? "empty" : candidate(brought.text);
  }
  const expected = entryOf(book, reader, locale, progress, full, { uses: [], terms: [] });
  const text = textOf(job, expected, brought.units, key);
  if (text === "empty" || typeof text === "object") return text;
  const units = [...brought.units.values()];
  const note =
    units
      .flatMap((unit) => unit.note ?? [])
      .join("\n")
      .trim() || undefined;
  const state = stateOf(units);
  const made = units.find((unit) => unit.made)?.made;
  const isTouched = text !== here;
  if (!isTouched) {
    const isSaid = state !== undefined && state !== "initial";
    // A translation that only comes back as it went out says nothing new.
    const isNews = isSaid && (found?.standing.stale === true || found?.standing.state !== state);
    if (!isNews && note === undefined) return "unchanged";
    const record = found?.record;
    return candidate(text, {
      state: isSaid ? state : (record?.state ?? "translated"),
      source: isSaid ? digest : (record?.source ?? digest),
      note,
    });
  }
  if (made && made.source !== digest && options.prefer !== "file")
    return say("source-changed", {
      key,
      was: shortened(units.find(({ given }) => given !== undefined)?.given ?? made.source),
      now: shortened(showForms(entry.text)),
    });
  const isEdited =
    made && found && made.text !== digestOf(found.entry.text) && found.standing.state !== "initial";
  if (isEdited && options.prefer === undefined)
    return say("edited", {
      key,
      here: shortened(showForms(found.entry.text)),
      there: shortened(showForms(text)),
    });
  if (isEdited && options.prefer === "project") return "unchanged";
  return candidate(text, {
    state: options.state ?? (state === undefined || state === "initial" ? "translated" : state),
    source: made?.source ?? digest,
    note,
  });
}

/** The lowest state that is said of the units of a message. */
function stateOf(units: readonly ReturnedUnit[]): EntryState | undefined {
  const order: readonly EntryState[] = ["initial", "translated", "reviewed", "final"];
  return order.find((state) => units.some((unit) => unit.state === state));
}

/** The text that units make, as the catalog has it; or why it cannot be had. */
function textOf(
  { reader, locale, progress }: EntryJob,
  expected: HandoffEntry,
  units: ReadonlyMap<string, ReturnedUnit>,
  key: string,
): string | Notice | "empty" {
  const ids = new Set(expected.units.map(({ id }) => id));
  const strange = [...units.values()].find(
    (unit) => !ids.has(unit.id) && (unit.text ?? unit.torn) !== undefined,
  );
  if (strange) return say("unknown-form", { key, form: strange.id.split("--").slice(1).join(", ") });
  const torn = [...units.values()].find((unit) => unit.torn !== undefined);
  if (torn) return say("torn", { key, text: shortened(torn.torn ?? "") });
  const isFilled = (text: readonly Inline[] | undefined) =>
    text !== undefined && (wordsOf(text).trim() !== "" || codesIn(text).length > 0);
  const texts = expected.units.map(({ id, target }) => {
    const unit = units.get(id);
    // What was not handed out, or was cut off, stays as it is.
    return unit ? (isFilled(unit.text) ? unit.text : undefined) : target;
  });
  if (texts.every((text) => text === undefined)) return "empty";
  const lacking = expected.units.filter((_, index) => texts[index] === undefined);
  const isAsBefore = expected.units.every(({ target }, index) => {
    const text = texts[index];
    return text === undefined || (target !== undefined && sameInlines(target, text));
  });
  // Where forms were lacking before and nothing was written, nobody has begun.
  if (lacking.length > 0 && isAsBefore) return "empty";
  if (lacking.length > 0)
    return say("forms-missing", {
      key,
      forms: lacking.map(({ choices }) => `"${formOf(choices)}"`).join(", "),
    });
  const whole = texts as readonly (readonly Inline[])[];
  const there = progress.found?.catalog.locale === locale ? progress.found.entry.text : undefined;
  if (
    there !== undefined &&
    expected.units.every(({ target }, index) => target && sameInlines(target, whole[index] ?? []))
  )
    return there;
  if (expected.isRaw) return wordsOf(whole[0] ?? []);
  const isUntranslated = progress.found !== undefined && isCopy(progress.found);
  const composed = composeEntry(
    {
      key,
      units: expected.units,
      codes: expected.codes,
      source: progress.message.nodes,
      target:
        there === undefined || isUntranslated
          ? undefined
          : reader.read(there, locale, progress.entry.key).nodes,
      entryKey: progress.entry.key,
      locale,
      reader,
    },
    whole,
  );
  return composed.ok ? composed.text : composed.notice;
}

/** The changes of catalogs, ledger and notes for translations. */
function changesOf(
  project: Project,
  locale: string,
  candidates: readonly Candidate[],
  { today, origin = "person", file }: IntakeOptions,
  notes: PlanNote[],
): { readonly changes: FileChange[]; readonly written: number; readonly blocked: number } {
  const changes: FileChange[] = [];
  let blocked = 0;
  let written = 0;
  const byBook = new Map<Book, Candidate[]>();
  for (const candidate of candidates) {
    const all = byBook.get(candidate.book) ?? [];
    byBook.set(candidate.book, all);
    all.push(candidate);
  }
  for (const [book, all] of byBook) {
    const edits = catalogEdits();
    const ledger = ledgers(project, book.config)(locale);
    const records = new Map<string, LedgerRecord>(ledger.records);
    const kept = readNotes(project.files, project.config.ledger, book.config.name, locale);
    const said = new Map(kept.notes);
    for (const namespace of new Set(all.map(({ progress }) => progress.source.namespace))) {
      const catalog = book.catalog(locale, namespace);
      const own = all.filter(({ progress }) => progress.source.namespace === namespace);
      if (!catalog || !isWhole(catalog)) {
        if (catalog) notes.push(unreadNote(catalog));
        blocked += own.length;
        continue;
      }
      const done = placeAll(catalog, own, notes, file, edits);
      blocked += own.length - done.length;
      written += done.length;
      for (const { full, text, state, source, note } of done) {
        const next: LedgerRecord = { state, source, text: digestOf(text), origin, date: today };
        const there = records.get(full);
        const isSame =
          there && (["state", "source", "text"] as const).every((name) => there[name] === next[name]);
        if (!isSame) records.set(full, next);
        if (note !== undefined) said.set(full, { date: today, text: note });
      }
    }
    changes.push(
      ...edits.changes(),
      ...ledgerChanges(ledger, records, ledger.attic),
      ...noteChanges(kept, said),
    );
  }
  return { changes: changes.filter(({ before, after }) => before !== after), written, blocked };
}

/** Writes translations into one catalog, and gives those that have a place there. */
function placeAll(
  catalog: Catalog,
  candidates: readonly Candidate[],
  notes: PlanNote[],
  file: string,
  edits: ReturnType<typeof catalogEdits>,
): readonly Candidate[] {
  const [first] = candidates;
  if (!first) return [];
  const { book } = first;
  const source = book.catalog(book.sourceLocale, catalog.namespace);
  const placement = placementIn(catalog, separatorsOf(book.config).parts, []);
  const set: PathText[] = [];
  const add: PathText[] = [];
  const done: Candidate[] = [];
  for (const candidate of candidates) {
    const { progress, text, key, line } = candidate;
    const there = catalog.byKey.get(progress.entry.key);
    if (there) {
      if (there.text !== text) set.push({ path: there.path, text });
    } else {
      const path = placement.pathOf(progress.entry);
      const blocker = placement.blocker(path);
      if (blocker) {
        notes.push({
          file,
          line,
          ...say("blocked", { key, file: catalog.file, other: blocker.key }),
          undone: "refused",
        });
        continue;
      }
      placement.take(progress.entry, path);
      add.push({ path, text });
    }
    done.push(candidate);
  }
  if (set.length > 0) edits.edit(catalog, { set });
  if (add.length > 0)
    edits.edit(catalog, {
      add,
      order: [...(source?.byKey.values() ?? [])].map((entry) => placement.pathOf(entry)),
    });
  const { hints } = book.config;
  if (hints && catalog.format.comments && done.length > 0) {
    const keys = new Set(done.map(({ progress }) => progress.entry.key));
    edits.hint(catalog, (key) => (keys.has(key) ? [] : undefined), ownHintsOf(book.config));
  }
  return done;
}

/** What the rules say of translations, once they are written. */
async function findingsAbout(
  project: Project,
  scope: Scope,
  locale: string,
  changes: readonly FileChange[],
  candidates: readonly Candidate[],
): Promise<{
  readonly errors: readonly { readonly candidate: Candidate; readonly finding: Finding }[];
  readonly warnings: readonly Finding[];
}> {
  if (candidates.length === 0) return { errors: [], warnings: [] };
  const texts = new Map(changes.map(({ file, after }) => [file, after]));
  const opened = openProject(overlayFiles(project.files, texts), project.configFile);
  if (!opened.ok) return { errors: [], warnings: [] };
  const names = [...new Set(candidates.map(({ book }) => book.config.name))];
  const findings = await lintProject(
    opened.project,
    { ...scope, books: names, locales: [locale] },
    rules.filter(({ entry, pair }) => (entry ?? pair) !== undefined),
  );
  const byKey = new Map(
    candidates.map((one) => [
      JSON.stringify([one.book.config.name, one.progress.source.namespace, one.progress.entry.key]),
      one,
    ]),
  );
  const errors = new Map<Candidate, Finding>();
  const warnings: Finding[] = [];
  for (const finding of findings) {
    const candidate = byKey.get(JSON.stringify([finding.book, finding.namespace, finding.key]));
    if (!candidate || finding.locale !== locale) continue;
    if (finding.severity !== "error") {
      if (finding.severity === "warning" && finding.rule !== "text/stale") warnings.push(finding);
    } else if (!errors.has(candidate)) errors.set(candidate, finding);
  }
  return { errors: [...errors].map(([candidate, finding]) => ({ candidate, finding })), warnings };
}
