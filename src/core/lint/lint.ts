import { partEnds } from "../text/separators.js";
import type { Entry } from "../catalog/model.js";
import { isWhole, placeInFile, type Book, type Catalog } from "../catalog/book.js";
import type { RuleLevel } from "../config/schema.js";
import type { Ledger } from "../ledger/ledger.js";
import type { MessageReader } from "../message/parse.js";
import type { BookCode } from "../source/book-code.js";
import type { UnreadCode } from "../source/unread-code.js";
import { makeAnew, type Keep } from "../text/kept.js";
import type { Range, Span } from "../text/span.js";
import { wordings, type Notice, type WordingData } from "../text/wording.js";
import type { MessageNode } from "../message/model.js";
import { noticeOf } from "../message/notices.js";
import type { ReadMessage } from "../message/read-message.js";
import { featureMask, features, TextScanner } from "./features.js";
import { haveSameParts, messageFeatures } from "./message-features.js";
import type { Finding, Fix, Severity } from "./finding.js";
import type { Concept } from "./glossary.js";
import type {
  CodeText,
  EntryPlace,
  EntryView,
  OtherBook,
  RangeMore,
  Replacement,
  Rule,
  RuleContext,
  SourceView,
} from "./rule.js";
import { CodeUnits } from "../text/code-units.js";
import { keyTest } from "../text/key-pattern.js";
import { inlineWaivers, inlineWaiversOf, type InlineWaiver } from "./inline-waivers.js";
import { rules as allRules } from "./rules/index.js";

/** One book with all that the rules look at. */
export interface LintSubject {
  readonly book: Book;
  /** The book's code; undefined for a book of catalogs alone. */
  readonly code: BookCode | undefined;
  readonly reader: MessageReader;
  ledger(locale: string): Ledger;
  /** Files with the program's settings, besides the code. */
  readonly settings?: readonly CodeText[];
  /** Code in languages that have no reader. */
  readonly unreadCode?: Pick<UnreadCode, "mentions">;
  /** The project's other books, in the order of the configuration; those before this one are told apart. */
  readonly others?: readonly OtherBook[];
  /** The concepts of the project's glossary. */
  readonly glossary?: readonly Concept[];
  /** What a source text was, by full key and digest, where the ledger still has it. */
  formerSource?(fullKey: string, digest: string): string | undefined;
  /** The file that says so, where the book is looked at again and again. */
  readonly formerTexts?: string;
}

export interface LintOptions {
  /** The levels that the configuration sets, by rule; a book's own come before those of the project. */
  readonly levels?: Readonly<Record<string, RuleLevel>>;
  /** Levels for parts: some locales, some keys. The last that fits wins. */
  readonly parts?: readonly PartLevel[];
  /** The rules to run; all where not given. */
  readonly rules?: readonly Rule[];
  /** Only findings about these locales, or about none; all where not given. */
  readonly locales?: readonly string[];
  /** What was made before, where the book is looked at again and again. */
  readonly keep?: Keep;
}

/** Where rules put what they find. */
interface Sink {
  readonly findings: Finding[];
  readonly waived: Set<InlineWaiver>;
  /** How often something was found, also what is waived or not reported. */
  found: number;
}

const newSink = (): Sink => ({ findings: [], waived: new Set(), found: 0 });

function pour(from: Sink, into: Sink): void {
  for (const finding of from.findings) into.findings.push(finding);
  for (const waiver of from.waived) into.waived.add(waiver);
}

/** Runs the rules over one book. Findings come sorted by file and place, the same from run to run. */
export function lintBook(subject: LintSubject, options: LintOptions = {}): Finding[] {
  const sink = newSink();
  const { findings, waived } = sink;
  const { keep } = options;
  const sources = new SourceFinder(subject, keep);
  const running = (options.rules ?? allRules).flatMap((rule) => {
    const level = levelNamed(subject.book.config.rules, rule.id) ?? levelNamed(options.levels, rule.id);
    const parts = (options.parts ?? []).filter((part) => meansRule(part, rule.id, subject.book.config.name));
    if (level === "off" && parts.length === 0) return [];
    const levelOf = levelsOf(level, parts, partEnds(subject.book.config));
    const run = new RuleRun(rule, levelOf, subject, sources.find, sink);
    return rule.applies?.(run) === false ? [] : [run];
  });
  for (const run of running) run.rule.book?.(run);
  for (const catalog of [...subject.book.catalogs, ...subject.book.strays]) {
    if (!catalog.exists) continue;
    if (keep) lintAgain(catalog, running, subject, sources, options, keep, sink);
    else lintCatalog(catalog, running, subject, sources);
  }
  const { locales } = options;
  if (!options.rules && !locales) findings.push(...unusedWaivers(subject.book, waived));
  const wanted = locales
    ? findings.filter(({ locale }) => locale === undefined || locales.includes(locale))
    : findings;
  return sortFindings(wanted);
}

/** What is said of waivers in comments of catalogs. */
export const waiverMessages = wordings("waiver/idle", {
  "no-reason": {
    message: "waiver of {rule} has no reason, so it has no effect",
    remedy: "write the reason after the rule",
  },
  expired: {
    message: 'this waiver expired on {date} ("{reason}")',
    remedy: "fix what it accepted, or give it a new date",
  },
  "unused-entry": { message: 'unused waiver ("{reason}")', remedy: "remove it" },
  unused: { message: 'unused waiver of {rule} ("{reason}")', remedy: "remove it" },
});

/** Waivers in comments of catalogs that accept nothing: what they accepted is gone, or they have no reason. */
function unusedWaivers({ catalogs, config }: Book, used: ReadonlySet<InlineWaiver>): Finding[] {
  return catalogs.flatMap((catalog) =>
    inlineWaivers(catalog)
      .filter((waiver) => !used.has(waiver))
      .map(({ rule, reason, start, end, key }): Finding => {
        const name = reason === "" ? "no-reason" : "unused";
        return {
          rule: "waiver/idle",
          severity: "warning",
          ...noticeOf(name, waiverMessages[name], { rule, reason }),
          file: catalog.file,
          ...catalog.lines.range({ start, end }),
          book: config.name,
          locale: catalog.locale,
          ...(catalog.namespace !== undefined && { namespace: catalog.namespace }),
          ...(key !== undefined && { key }),
        };
      }),
  );
}

/** Sorts findings by file, place, rule and key. */
export function sortFindings(findings: readonly Finding[]): Finding[] {
  const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return [...findings].sort(
    (a, b) =>
      compare(a.file, b.file) ||
      a.line - b.line ||
      a.column - b.column ||
      compare(a.rule, b.rule) ||
      compare(a.key ?? "", b.key ?? "") ||
      compare(a.message, b.message),
  );
}

/** A level for findings of some rules in some locales or keys. */
export interface PartLevel {
  readonly rules: readonly string[];
  readonly books?: readonly string[] | undefined;
  readonly locales?: readonly string[] | undefined;
  readonly keys?: readonly string[] | undefined;
  readonly level: RuleLevel;
}

/** The level that a map of rules gives one: by its name, or by its family's, `text/*`. */
function levelNamed(
  levels: Readonly<Record<string, RuleLevel>> | undefined,
  id: string,
): RuleLevel | undefined {
  return levels?.[id] ?? levels?.[`${id.split("/", 1)[0] ?? ""}/*`];
}

function meansRule({ rules, books }: PartLevel, id: string, book: string): boolean {
  const named = rules.some(
    (name) => name === id || (name.endsWith("/*") && id.startsWith(name.slice(0, -1))),
  );
  return named && (books === undefined || books.includes(book));
}

/** The level of a finding, by its locale and key: the configuration's, or undefined for the rule's own. */
type LevelOf = (at: Pick<Finding, "locale" | "key">) => RuleLevel | undefined;

function levelsOf(
  level: RuleLevel | undefined,
  parts: readonly PartLevel[],
  ends: readonly string[],
): LevelOf {
  if (parts.length === 0) return () => level;
  const tests = parts.map((part) => ({
    ...part,
    tests: part.keys?.map((pattern) => keyTest(pattern, ends)),
  }));
  return ({ locale, key }) =>
    tests.findLast(
      (part) =>
        (part.locales === undefined || (locale !== undefined && part.locales.includes(locale))) &&
        (part.tests === undefined || (key !== undefined && part.tests.some((test) => test(key)))),
    )?.level ?? level;
}

const reaches = { none: 0, beside: 1, around: 2 } as const;

/** What was found in a catalog when it was looked at last. */
interface CatalogFindings extends Sink {
  readonly catalog: Catalog;
  readonly source: Catalog | undefined;
  /** What the rules found that look at other entries. */
  readonly beside: Sink;
  /** What else it hangs on. */
  readonly settings: readonly unknown[];
  /** By entry: 1 where the rules that look at it alone found nothing. */
  readonly isClean: Uint8Array;
  /** By entry: how far those rules look that look further and were shown it; 0 for none. */
  readonly reach: Uint8Array;
}

/**
 * Shows one catalog to the rules again, only those entries and rules for which something may have changed since it was shown
 * to them last.
 */
function lintAgain(
  catalog: Catalog,
  running: readonly RuleRun[],
  subject: LintSubject,
  sources: SourceFinder,
  { levels, parts, rules }: LintOptions,
  keep: Keep,
  sink: Sink,
): void {
  const { book, glossary, reader } = subject;
  const { locale, namespace, file, table } = catalog;
  const own = running.filter(({ rule }) => rule.looks === undefined);
  const others = running.filter(({ rule }) => rule.looks !== undefined);
  const beside = others.filter(({ rule }) => rule.looks === "beside");
  const around = others.filter(({ rule }) => rule.looks === "around");
  const source = book.catalog(book.sourceLocale, namespace);
  const isStray = book.strays.includes(catalog);
  const name = `findings ${book.config.name} ${file} ${locale} ${namespace ?? ""}`;
  const settings = [
    book.config,
    isStray,
    subject.ledger(locale),
    subject.formerTexts,
    glossary,
    levels,
    parts,
    rules,
    reader,
  ];
  let isNew = false;
  const found = keep(
    name,
    [catalog, source, ...settings, ...running.map(({ rule }) => rule)],
    (before?: CatalogFindings): CatalogFindings => {
      isNew = true;
      const last = before?.settings.every((one, at) => one === settings[at]) ? before : undefined;
      const made: CatalogFindings = {
        ...newSink(),
        beside: newSink(),
        catalog,
        source,
        settings,
        isClean: new Uint8Array(table.size),
        reach: new Uint8Array(table.size),
      };
      for (const run of own) run.sink = made;
      for (const run of beside) run.sink = made.beside;
      for (const run of running) run.rule.file?.(run, catalog);
      // Those that look around are shown the entries on the way: what they find goes where all findings go.
      if (!isStray) {
        const left = entryLinter(catalog, running, subject, sources).lintNew(made, last);
        if (left.length > 0) entryLinter(catalog, others, subject, sources).lintSome(left);
      }
      for (const run of [...own, ...beside]) run.sink = sink;
      return made;
    },
  );
  pour(found, sink);
  pour(found.beside, sink);
  if (isNew) return;
  for (const run of around) run.rule.file?.(run, catalog);
  const seen: number[] = [];
  for (let index = 0; index < table.size; index++)
    if (found.reach[index] === reaches.around) seen.push(index);
  if (seen.length > 0) entryLinter(catalog, around, subject, sources).lintSome(seen);
}

/** Finds the place that an entry of a catalog had in an earlier state of it, where it and its source were the same; -1 for none. */
function sameEntries(now: CatalogFindings, last: CatalogFindings): (index: number) => number {
  const isSame = (one: Catalog, at: number, other: Catalog, there: number) =>
    one.table.isTextAt(at) === other.table.isTextAt(there) &&
    one.table.textAt(at) === other.table.textAt(there) &&
    writtenAt(one, at) === writtenAt(other, there);
  const canTell = now.catalog.table.isUnique && last.catalog.table.isUnique;
  return (index) => {
    const key = now.catalog.table.keyAt(index);
    const there = canTell ? last.catalog.table.findNear(index, key) : -1;
    if (there < 0 || last.isClean[there] !== 1) return -1;
    if (now.catalog !== last.catalog && !isSame(now.catalog, index, last.catalog, there)) return -1;
    const [from, before] = [now.source, last.source];
    if (from === before) return there;
    if (!from || !before || !from.table.isUnique || !before.table.isUnique) return -1;
    const [at, was] = [from.table.findNear(index, key), before.table.findNear(there, key)];
    if (at < 0 || was < 0) return at === was ? there : -1;
    return isSame(from, at, before, was) ? there : -1;
  };
}

/** How a file writes an entry's text; undefined where that is the text. */
function writtenAt({ table, content }: Catalog, index: number): string | undefined {
  if (table.plainStartAt(index) >= 0) return undefined;
  const { start, end } = table.entryAt(index).valueSpan;
  return content.slice(start, end);
}

/** Shows one catalog to every rule: the file, then each entry, read once for all of them. */
function lintCatalog(
  catalog: Catalog,
  running: readonly RuleRun[],
  subject: LintSubject,
  sources: SourceFinder,
): void {
  for (const run of running) run.rule.file?.(run, catalog);
  if (!subject.book.strays.includes(catalog)) entryLinter(catalog, running, subject, sources).lintAll();
}

function entryLinter(
  catalog: Catalog,
  running: readonly RuleRun[],
  { book, reader }: LintSubject,
  sources: SourceFinder,
): EntryLinter {
  const source = catalog.locale === book.sourceLocale ? undefined : sources.entriesFor(catalog);
  return new EntryLinter(catalog, running, reader, sources.texts, source);
}

/** Shows the entries of one catalog to the rules that have anything to say about them: most entries give no reason to ask. */
class EntryLinter {
  private readonly units: Uint16Array;
  private readonly onEntries: RuleGate;
  private readonly onPairs: RuleGate;
  private readonly keepsEquals: boolean;

  constructor(
    private readonly catalog: Catalog,
    running: readonly RuleRun[],
    private readonly reader: MessageReader,
    private readonly texts: TextScanner,
    private readonly source: SourceEntries | undefined,
  ) {
    this.units = catalogUnits.of(catalog.content);
    this.onEntries = new RuleGate(running.filter(({ rule }) => rule.entry));
    this.onPairs = new RuleGate(running.filter(({ rule }) => rule.pair));
    // Of three forms side by side and more, each language makes another message.
    this.keepsEquals = reader.plurals !== "bar";
  }

  lintAll(): void {
    this.visit((index, start) => {
      this.lint(index, this.featuresAt(index, start));
    });
  }

  /**
   * Shows the entries that are not known to be as they were, and notes of each what was found. Gives those of the others that
   * the rules have to see that look further.
   */
  lintNew(made: CatalogFindings, last: CatalogFindings | undefined): readonly number[] {
    const left: number[] = [];
    const placeBefore = last && sameEntries(made, last);
    this.visit((index, start) => {
      const there = placeBefore?.(index) ?? -1;
      if (last && there >= 0) {
        made.isClean[index] = 1;
        const reach = last.reach[there] ?? reaches.none;
        made.reach[index] = reach;
        if (reach !== reaches.none) left.push(index);
        return;
      }
      const before = made.found;
      const shown = this.lint(index, this.featuresAt(index, start));
      if (made.found === before) made.isClean[index] = 1;
      for (const { rule } of shown)
        made.reach[index] = Math.max(made.reach[index] ?? 0, reaches[rule.looks ?? "none"]);
    });
    return left;
  }

  /** What a text has by its characters; -1 where that cannot be told from its file. */
  private featuresAt(index: number, start: number): number {
    return start < 0 ? -1 : this.texts.at(this.units, start, start + this.catalog.table.plainLengthAt(index));
  }

  /** Visits the entries, each with where its text starts in the file as it is meant; -1 where it is written otherwise. */
  private visit(show: (index: number, start: number) => void): void {
    if (this.onEntries.isIdle && (this.onPairs.isIdle || this.source === undefined)) return;
    const { table } = this.catalog;
    const { isUnique, size } = table;
    for (let index = 0; index < size; index++) {
      // Of a duplicate key the last counts.
      if (!isUnique && table.find(table.keyAt(index)) !== index) continue;
      show(index, table.plainStartAt(index));
    }
  }

  lintSome(entries: readonly number[]): void {
    for (const index of entries) this.lint(index, -1);
  }

  /** Shows one entry; gives the rules that were shown it. `ofText` is what the text has by its characters; -1 where that is not known yet. */
  private lint(index: number, ofText: number): readonly RuleRun[] {
    const { catalog, source: sourceEntries, reader } = this;
    const { table, locale } = catalog;
    const key = table.keyAt(index);
    // What is worked out when the program runs is not known here.
    if (!table.isTextAt(index) && table.entryAt(index).kind === "code") return noRules;
    const text = table.textAt(index);
    const source = sourceEntries?.find(index, key);
    const isSame = source?.message.source === text;
    const message = isSame && this.keepsEquals ? source.message : reader.readOnce(text, locale, key);
    const own =
      messageFeatures(message, locale, ofText < 0 ? this.texts.of(text) : ofText) |
      (table.isTextAt(index) ? 0 : features.value);
    const { isBroken } = message;
    const forEntry = this.onEntries.rules(own);
    // An empty translation lacks everything that its source has: that it is empty is said once.
    const isPair =
      source !== undefined && !isBroken && (own & features.blank) === 0 && !source.message.isBroken;
    const forPair = isPair
      ? this.onPairs.rules(
          own |
            source.features |
            (isSame ? features.same : haveSameParts(source.message, message) ? 0 : features.parts),
        )
      : noRules;
    if (forEntry.length === 0 && forPair.length === 0) return noRules;
    const view = { catalog, entry: table.entryAt(index), message, locale, features: own };
    for (const run of forEntry) if (!isBroken || run.rule.readsBroken) run.rule.entry?.(run.view(view), run);
    if (source) for (const run of forPair) run.rule.pair?.(run.view(view), source, run);
    return forPair.length === 0 ? forEntry : forEntry.length === 0 ? forPair : [...forEntry, ...forPair];
  }
}

const catalogUnits = new CodeUnits();
const noRules: readonly RuleRun[] = [];

/** Which of some rules have anything to say about messages with some features; there are far fewer sets of features than messages. */
class RuleGate {
  private readonly known = new Map<number, readonly RuleRun[]>();
  // What was asked for last is most likely asked for next.
  private last = -1;
  private ofLast: readonly RuleRun[] = noRules;

  constructor(private readonly running: readonly RuleRun[]) {}

  get isIdle(): boolean {
    return this.running.length === 0;
  }

  rules(found: number): readonly RuleRun[] {
    if (found === this.last) return this.ofLast;
    let rules = this.known.get(found);
    if (!rules) {
      // Every message has the bit of the rules that check all.
      rules = this.running.filter(({ mask }) => (mask & (found | everyMessage)) !== 0);
      this.known.set(found, rules);
    }
    this.last = found;
    this.ofLast = rules;
    return rules;
  }
}

const everyMessage = 1 << 30;

/** The entries of one source catalog, each read once: every locale's are compared with them. */
class SourceEntries {
  private readonly views: (SourceView | undefined)[] = [];
  /** The key that was asked for last: the linter asks for it, and then each rule that wants to know. */
  private lastKey: string | undefined = undefined;
  private last: SourceView | undefined = undefined;

  constructor(
    private readonly catalog: Catalog,
    private readonly reader: MessageReader,
    private readonly texts: TextScanner,
  ) {}

  /** The entry of a key, which most likely stands at the same place as in a translation. */
  find(likely: number, key: string): SourceView | undefined {
    if (key !== this.lastKey) {
      this.last = this.lookUp(likely, key);
      this.lastKey = key;
    }
    return this.last;
  }

  private lookUp(likely: number, key: string): SourceView | undefined {
    const { table } = this.catalog;
    const index = table.findNear(likely, key);
    if (index < 0 || (!table.isTextAt(index) && table.entryAt(index).kind === "code")) return undefined;
    return (this.views[index] ??= this.read(index));
  }

  private read(index: number): SourceView {
    const { catalog, reader } = this;
    const entry = catalog.table.entryAt(index);
    const message = reader.read(entry.text, catalog.locale, entry.key);
    const found =
      messageFeatures(message, catalog.locale, this.texts.of(entry.text)) |
      (entry.kind === "text" ? 0 : features.value);
    return { catalog, entry, message, locale: catalog.locale, features: found };
  }
}

/** Finds source entries. */
class SourceFinder {
  private readonly made = new Map<string | undefined, SourceEntries | undefined>();

  readonly texts: TextScanner;

  constructor(
    private readonly subject: LintSubject,
    private readonly keep: Keep = makeAnew,
  ) {
    this.texts = new TextScanner(subject.reader.signs);
  }

  readonly find: RuleContext["sourceOf"] = (catalog, key) => this.entriesFor(catalog)?.find(-1, key);

  /** The source entries of the namespace that a catalog has. */
  entriesFor({ namespace }: Catalog): SourceEntries | undefined {
    if (!this.made.has(namespace)) {
      const { book, reader } = this.subject;
      const catalog = book.catalog(book.sourceLocale, namespace);
      const make = () => catalog && new SourceEntries(catalog, reader, this.texts);
      this.made.set(
        namespace,
        this.keep(`source ${book.config.name} ${namespace ?? ""}`, [catalog, reader], make),
      );
    }
    return this.made.get(namespace);
  }
}

/** So many findings of one rule in one message are enough to say that it is no message. */
const mostAlike = 100;

/** What is said where one message has very many findings of one rule. */
export const lintMessages = wordings("lint", {
  more: {
    message: "more problems of this kind: {count} are reported, the rest are not",
    remedy: "fix those first, then run lint again",
  },
});

/** Where a finding is, besides its file and range. */
type FindingOf = Pick<Finding, "locale" | "namespace" | "key">;

/** One rule at work on one book. */
class RuleRun implements RuleContext {
  readonly book: Book;
  readonly code: BookCode | undefined;
  readonly glossary: readonly Concept[];
  readonly others: readonly OtherBook[];
  readonly unreadCode: Pick<UnreadCode, "mentions">;
  readonly settings: readonly CodeText[];
  readonly ledger: RuleContext["ledger"];
  readonly message: RuleContext["message"];
  readonly syntax: RuleContext["syntax"];
  /** The features that messages must have for the rule; every bit for one that checks all. */
  readonly mask: number;
  private lastEntry: Entry | undefined;
  private alike = 0;

  constructor(
    readonly rule: Rule,
    private readonly levelOf: LevelOf,
    private readonly subject: LintSubject,
    readonly sourceOf: RuleContext["sourceOf"],
    /** Where what it finds goes. */
    public sink: Sink,
  ) {
    this.mask = rule.needs ? featureMask(rule.needs) : -1;
    this.book = subject.book;
    this.code = subject.code;
    this.glossary = subject.glossary ?? [];
    this.others = subject.others ?? [];
    this.settings = subject.settings ?? [];
    this.unreadCode = subject.unreadCode ?? { mentions: () => false };
    this.ledger = subject.ledger;
    this.message = subject.reader.read;
    this.syntax = subject.reader.syntax;
  }

  formerSource({ namespace }: Catalog, key: string, digest: string): string | undefined {
    return this.subject.formerSource?.(this.book.fullKey(namespace, key), digest);
  }

  print(node: MessageNode): string {
    return this.subject.reader.print([node]);
  }

  argument(name: string): string {
    return this.print({ kind: "argument", name });
  }

  /** An entry as this rule sees it. */
  view(view: SourceView): EntryView {
    return new RuleEntry(view, this);
  }

  report(
    catalog: Catalog,
    entry: Entry,
    name: string,
    data: WordingData,
    at: EntryPlace & { readonly remove?: true } = {},
  ): void {
    this.reportEntry(catalog, entry, this.notice(name, data), at);
  }

  reportRange(catalog: Catalog, span: Span, name: string, data: WordingData, more?: RangeMore): void {
    this.reportNotice(catalog, span, this.notice(name, data), more);
  }

  reportCode(
    source: CodeText,
    span: Span,
    name: string,
    data: WordingData,
    { key, severity }: { readonly key?: string; readonly severity?: Severity } = {},
  ): void {
    this.add(
      source.file,
      source.lines.range(span),
      this.notice(name, data),
      severity,
      key === undefined ? {} : { key },
    );
  }

  reportFile(
    file: string,
    name: string,
    data: WordingData,
    { severity }: { readonly severity?: Severity } = {},
  ): void {
    this.add(file, { line: 1, column: 1, endLine: 1, endColumn: 1 }, this.notice(name, data), severity, {});
  }

  reportNotice(catalog: Catalog, span: Span, notice: Notice, { key, severity, fix }: RangeMore = {}): void {
    if (this.isWaived(catalog, key)) return;
    this.add(catalog.file, catalog.lines.range(span), notice, severity, placeOf(catalog, key), fix);
  }

  reportEntry(
    catalog: Catalog,
    entry: Entry,
    notice: Notice,
    { span, on, severity, fix, remove }: EntryPlace & { readonly remove?: true },
  ): void {
    if (this.isWaived(catalog, entry.key)) return;
    let said = notice;
    if (on !== "key") {
      this.alike = entry === this.lastEntry ? this.alike + 1 : 1;
      this.lastEntry = entry;
      if (this.alike > mostAlike) return;
      if (this.alike === mostAlike) said = noticeOf("lint/more", lintMessages.more, { count: mostAlike - 1 });
    }
    const range = on === "key" ? entry.keySpan : spanInFile(catalog, entry, span);
    this.add(
      catalog.file,
      catalog.lines.range(range),
      said,
      severity,
      placeOf(catalog, entry.key),
      remove ? { remove } : said === notice && fix !== undefined ? textFix(entry, span, fix) : undefined,
    );
  }

  private isWaived(catalog: Catalog, key: string | undefined): boolean {
    this.sink.found++;
    const waivers = inlineWaiversOf(catalog, key, this.rule.id);
    for (const waiver of waivers) this.sink.waived.add(waiver);
    return waivers.length > 0;
  }

  private notice(name: string, data: WordingData): Notice {
    const wording = this.rule.messages[name];
    if (!wording) throw new Error(`the rule ${this.rule.id} has no message "${name}"`);
    return noticeOf(name, wording, data);
  }

  private add(
    file: string,
    range: Range,
    { messageId, data, message, remedy }: Notice,
    severity: Severity | undefined,
    of: FindingOf,
    fix?: Fix,
  ): void {
    const level = this.levelOf(of);
    if (level === "off") return;
    const { findings } = this.sink;
    const last = findings.at(-1);
    // A form that stands for two categories is read twice, and reported once.
    if (
      last?.rule === this.rule.id &&
      last.file === file &&
      last.line === range.line &&
      last.column === range.column &&
      last.messageId === messageId &&
      last.message === message
    )
      return;
    findings.push({
      rule: this.rule.id,
      messageId,
      data,
      severity: level ?? severity ?? this.rule.level,
      message,
      remedy,
      file,
      line: range.line,
      column: range.column,
      endLine: range.endLine,
      endColumn: range.endColumn,
      book: this.book.config.name,
      ...of,
      ...(fix && { fix }),
    });
  }
}

/** One entry as one rule sees it. */
class RuleEntry implements EntryView {
  readonly catalog: Catalog;
  readonly entry: Entry;
  readonly message: ReadMessage;
  readonly locale: string;
  readonly features: number;

  constructor(
    view: SourceView,
    private readonly run: RuleRun,
  ) {
    this.catalog = view.catalog;
    this.entry = view.entry;
    this.message = view.message;
    this.locale = view.locale;
    this.features = view.features;
  }

  report(name: string, data: WordingData, at: EntryPlace = {}): void {
    this.run.report(this.catalog, this.entry, name, data, at);
  }

  reportNotice(notice: Notice, at: EntryPlace = {}): void {
    this.run.reportEntry(this.catalog, this.entry, notice, at);
  }
}

function placeOf({ locale, namespace }: Catalog, key: string | undefined): FindingOf {
  return { locale, ...(namespace !== undefined && { namespace }), ...(key !== undefined && { key }) };
}

function textFix({ text }: Entry, reported: Span | undefined, fix: string | Replacement): Fix {
  const whole = { start: 0, end: text.length };
  const { span, text: replacement } = typeof fix === "string" ? { span: reported ?? whole, text: fix } : fix;
  return { text: text.slice(0, span.start) + replacement + text.slice(span.end), span, replacement };
}

function spanInFile(catalog: Catalog, entry: Entry, span: Span | undefined): Span {
  if (!span || !isWhole(catalog)) return entry.valueSpan;
  return {
    start: placeInFile(catalog, entry, span.start),
    end: placeInFile(catalog, entry, span.end),
  };
}
