import { partEnds } from "../text/separators.js";
import type { Entry } from "../catalog/model.js";
import { isWhole, placeInFile, type Book, type Catalog } from "../catalog/book.js";
import type { RuleLevel } from "../config/schema.js";
import type { Ledger } from "../ledger/ledger.js";
import type { MessageReader } from "../message/parse.js";
import type { BookCode } from "../source/book-code.js";
import type { Range, Span } from "../text/span.js";
import { featureMask, features, mayHoldSigns, TextLook } from "./features.js";
import { haveSameParts, messageFeatures } from "./message-features.js";
import type { Finding } from "./finding.js";
import type { Concept } from "./glossary.js";
import type { CatalogPlace, EntryView, Rule, RuleContext, Words } from "./rule.js";
import { CodeUnits } from "../text/code-units.js";
import { keyTest } from "../text/key-pattern.js";
import { inlineWaivers, isWaivedInline } from "./inline-waivers.js";
import { rules as allRules } from "./rules/index.js";

/** One book with all that the rules look at. */
export interface LintSubject {
  readonly book: Book;
  /** The book's code; undefined for a book of catalogs alone. */
  readonly code: BookCode | undefined;
  readonly reader: MessageReader;
  ledger(locale: string): Ledger;
  /** The concepts of the project's glossary. */
  readonly glossary?: readonly Concept[];
  /** What a source text was, by full key and digest, where the ledger still has it. */
  formerSource?(fullKey: string, digest: string): string | undefined;
}

export interface LintOptions {
  /** The levels that the configuration sets, by rule; a book's own come before those of the project. */
  readonly levels?: Readonly<Record<string, RuleLevel>>;
  /** Levels for parts: some locales, some keys. The last that fits has the last word. */
  readonly parts?: readonly PartLevel[];
  /** The rules to run; all where not given. */
  readonly rules?: readonly Rule[];
  /** Only findings about these locales, or about none; all where not given. */
  readonly locales?: readonly string[];
}

/** Runs the rules over one book. Findings come sorted by file and place, the same from run to run. */
export function lintBook(subject: LintSubject, options: LintOptions = {}): Finding[] {
  const findings: Finding[] = [];
  const sources = new SourceFinder(subject);
  const running = (options.rules ?? allRules).flatMap((rule) => {
    const level = levelNamed(subject.book.config.rules, rule.id) ?? levelNamed(options.levels, rule.id);
    const parts = (options.parts ?? []).filter((part) => meansRule(part, rule.id, subject.book.config.name));
    if (level === "off" && parts.length === 0) return [];
    const context = contextFor(
      rule,
      levelsOf(level, parts, partEnds(subject.book.config)),
      subject,
      sources.find,
      findings,
    );
    if (rule.applies?.(context) === false) return [];
    return [{ rule, context, mask: rule.looksAt ? featureMask(rule.looksAt) : -1 }];
  });
  for (const { rule, context } of running) rule.book?.(context);
  for (const catalog of [...subject.book.catalogs, ...subject.book.strays]) {
    if (catalog.exists) lintCatalog(catalog, running, subject, sources);
  }
  const { locales } = options;
  if (!options.rules && !locales) findings.push(...idleMarks(subject.book));
  const wanted = locales
    ? findings.filter(({ locale }) => locale === undefined || locales.includes(locale))
    : findings;
  return sortFindings(wanted);
}

/** Marks in catalogs that accept nothing: what they accepted is gone, or they have no reason. */
function idleMarks({ catalogs, config }: Book): Finding[] {
  return catalogs.flatMap((catalog) =>
    inlineWaivers(catalog)
      .filter(({ isUsed }) => !isUsed)
      .map(({ rule, reason, start, end, key }): Finding => ({
        rule: "waiver/idle",
        severity: "warning",
        message:
          reason === ""
            ? `this waiver of ${rule} gives no reason, so it does not count`
            : `this waiver of ${rule} hides nothing any more (“${reason}”)`,
        remedy: reason === "" ? "write behind the rule why it is accepted" : "take it out",
        file: catalog.file,
        ...catalog.lines.range({ start, end }),
        book: config.name,
        locale: catalog.locale,
        ...(catalog.namespace !== undefined && { namespace: catalog.namespace }),
        ...(key !== undefined && { key }),
      })),
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

interface RunningRule {
  readonly rule: Rule;
  readonly context: RuleContext;
  /** The features that messages must have for it; every bit for one that looks at all. */
  readonly mask: number;
}

/** Shows one catalog to every rule: the file, then each entry, read once for all of them. */
function lintCatalog(
  catalog: Catalog,
  running: readonly RunningRule[],
  { book, reader }: LintSubject,
  sources: SourceFinder,
): void {
  for (const { rule, context } of running) rule.file?.(context, catalog);
  if (book.strays.includes(catalog)) return;
  const source = catalog.locale === book.sourceLocale ? undefined : sources.beside(catalog);
  new EntryLinter(catalog, running, reader, sources.look, source).lintAll();
}

/** Shows the entries of one catalog to the rules. What no rule asks for is not made: most entries give no reason to ask. */
class EntryLinter {
  private readonly units: Uint16Array;
  private readonly onEntries: Concerned;
  private readonly onPairs: Concerned;
  private readonly keepsEquals: boolean;

  constructor(
    private readonly catalog: Catalog,
    running: readonly RunningRule[],
    private readonly reader: MessageReader,
    private readonly look: TextLook,
    private readonly source: SourceEntries | undefined,
  ) {
    this.units = catalogUnits.of(catalog.content);
    this.onEntries = new Concerned(running.filter(({ rule }) => rule.entry));
    this.onPairs = new Concerned(running.filter(({ rule }) => rule.pair));
    // Of three forms side by side and more, each language makes another message.
    this.keepsEquals = reader.plurals !== "bar";
  }

  lintAll(): void {
    if (this.onEntries.isIdle && (this.onPairs.isIdle || this.source === undefined)) return;
    const { table } = this.catalog;
    const { isUnique, size } = table;
    for (let index = 0; index < size; index++) {
      // Of a key that is there twice the last counts.
      if (!isUnique && table.find(table.keyAt(index)) !== index) continue;
      const start = table.plainStartAt(index);
      const look = start < 0 ? -1 : this.look.at(this.units, start, start + table.plainLengthAt(index));
      if (look < 0 || !this.isQuiet(index, look)) this.lint(index, look);
    }
  }

  /** Whether a text that stands in the file as it is meant is plain words of which no rule has anything to say. */
  private isQuiet(index: number, look: number): boolean {
    if ((look & mayHoldSigns) !== 0 || this.onEntries.rules(look).length > 0) return false;
    const { table } = this.catalog;
    if (!table.isTextAt(index)) return false;
    if (!this.source) return true;
    const beside = this.source.find(index, table.keyAt(index));
    if (!beside) return true;
    const { source, isPlain } = beside.message;
    return (
      isPlain &&
      source.length !== table.plainLengthAt(index) &&
      this.onPairs.rules(look | beside.features).length === 0
    );
  }

  /** `look` is what the text has by its characters; -1 where that is not known yet. */
  private lint(index: number, look: number): void {
    const { catalog, source, reader } = this;
    const { table, locale } = catalog;
    const key = table.keyAt(index);
    const text = table.textAt(index);
    const beside = source?.find(index, key);
    const isSame = beside?.message.source === text;
    const message = isSame && this.keepsEquals ? beside.message : reader.readOnce(text, locale, key);
    const own =
      messageFeatures(message, locale, look < 0 ? this.look.of(text) : look) |
      (table.isTextAt(index) ? 0 : features.value);
    const { isBroken } = message;
    const forEntry = this.onEntries.rules(own);
    // An empty translation lacks everything that its source has: that it is empty is said once.
    const isPair =
      beside !== undefined && !isBroken && (own & features.blank) === 0 && !beside.message.isBroken;
    const forPair = isPair
      ? this.onPairs.rules(
          own |
            beside.features |
            (isSame ? features.same : haveSameParts(beside.message, message) ? 0 : features.parts),
        )
      : noRules;
    if (forEntry.length === 0 && forPair.length === 0) return;
    const view = { catalog, entry: table.entryAt(index), message, locale, features: own };
    for (const { rule, context } of forEntry) if (!isBroken || rule.readsBroken) rule.entry?.(context, view);
    if (beside) for (const { rule, context } of forPair) rule.pair?.(context, view, beside);
  }
}

const catalogUnits = new CodeUnits();
const noRules: readonly RunningRule[] = [];

/** Which of some rules look at messages with some features; there are far fewer sets of features than messages. */
class Concerned {
  private readonly known = new Map<number, readonly RunningRule[]>();
  // What was asked for last is most likely asked for next.
  private last = -1;
  private ofLast: readonly RunningRule[] = noRules;

  constructor(private readonly running: readonly RunningRule[]) {}

  get isIdle(): boolean {
    return this.running.length === 0;
  }

  rules(found: number): readonly RunningRule[] {
    if (found === this.last) return this.ofLast;
    let rules = this.known.get(found);
    if (!rules) {
      // Every message has the bit of the rules that look at all.
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
  private readonly views: (EntryView | undefined)[] = [];
  /** The key that was asked for last: the linter asks for it, and then each rule that wants to know. */
  private lastKey: string | undefined = undefined;
  private last: EntryView | undefined = undefined;

  constructor(
    private readonly catalog: Catalog,
    private readonly reader: MessageReader,
    private readonly look: TextLook,
  ) {}

  /** The entry of a key, which most likely stands at the same place as in a translation. */
  find(likely: number, key: string): EntryView | undefined {
    if (key !== this.lastKey) {
      this.last = this.lookUp(likely, key);
      this.lastKey = key;
    }
    return this.last;
  }

  private lookUp(likely: number, key: string): EntryView | undefined {
    const { table } = this.catalog;
    const isThere = likely >= 0 && likely < table.size && table.isUnique && table.keyAt(likely) === key;
    const index = isThere ? likely : table.find(key);
    return index < 0 ? undefined : (this.views[index] ??= this.read(index));
  }

  private read(index: number): EntryView {
    const { catalog, reader } = this;
    const entry = catalog.table.entryAt(index);
    const message = reader.read(entry.text, catalog.locale, entry.key);
    const found =
      messageFeatures(message, catalog.locale, this.look.of(entry.text)) |
      (entry.kind === "text" ? 0 : features.value);
    return { catalog, entry, message, locale: catalog.locale, features: found };
  }
}

/** Finds source entries. */
class SourceFinder {
  private readonly made = new Map<string | undefined, SourceEntries | undefined>();

  readonly look: TextLook;

  constructor(private readonly subject: LintSubject) {
    this.look = new TextLook(subject.reader.signs);
  }

  readonly find: RuleContext["sourceOf"] = (catalog, key) => this.beside(catalog)?.find(-1, key);

  /** The source entries of the namespace that a catalog has. */
  beside({ namespace }: Catalog): SourceEntries | undefined {
    if (!this.made.has(namespace)) {
      const { book, reader } = this.subject;
      const catalog = book.catalog(book.sourceLocale, namespace);
      this.made.set(namespace, catalog && new SourceEntries(catalog, reader, this.look));
    }
    return this.made.get(namespace);
  }
}

/** So many findings of one rule in one message are enough to say that it is no message. */
const mostAlike = 100;

function contextFor(
  rule: Rule,
  levelOf: LevelOf,
  subject: LintSubject,
  sourceOf: RuleContext["sourceOf"],
  findings: Finding[],
): RuleContext {
  const { book, code, reader } = subject;
  const add = (
    file: string,
    range: Range,
    words: Words,
    more: Pick<Finding, "locale" | "namespace" | "key">,
  ) => {
    const level = levelOf(more);
    if (level === "off") return;
    const last = findings.at(-1);
    // A form that stands for two categories is read twice, and told of once.
    if (
      last?.rule === rule.id &&
      last.file === file &&
      last.line === range.line &&
      last.column === range.column &&
      last.message === words.message
    )
      return;
    findings.push({
      rule: rule.id,
      severity: level ?? words.severity ?? rule.level,
      message: words.message,
      remedy: words.remedy,
      file,
      line: range.line,
      column: range.column,
      endLine: range.endLine,
      endColumn: range.endColumn,
      book: book.config.name,
      ...more,
      ...(words.fix && { fix: words.fix }),
    });
  };
  let lastEntry: Entry | undefined;
  let alike = 0;
  return {
    book,
    code,
    ledger: subject.ledger,
    glossary: subject.glossary ?? [],
    formerSource: ({ namespace }, key, digest) =>
      subject.formerSource?.(book.fullKey(namespace, key), digest),
    message: reader.read,
    print: (node) => reader.print([node]),
    sourceOf,
    report(catalog, place, given) {
      const key = place.at === "file" ? place.key : place.entry.key;
      if (isWaivedInline(catalog, key, rule.id)) return;
      let words: Words = given;
      if (place.at === "message") {
        alike = place.entry === lastEntry ? alike + 1 : 1;
        lastEntry = place.entry;
        if (alike > mostAlike) return;
        if (alike === mostAlike)
          words = {
            message: `this message has more problems of this kind than the ${mostAlike - 1} before`,
            remedy: "fix those first, then run lint again",
            ...(given.severity && { severity: given.severity }),
          };
      }
      add(catalog.file, catalog.lines.range(spanInFile(catalog, place)), words, {
        locale: catalog.locale,
        ...(catalog.namespace !== undefined && { namespace: catalog.namespace }),
        ...(key !== undefined && { key }),
      });
    },
    reportCode(source, span, { key, ...words }) {
      add(source.file, source.lines.range(span), words, key === undefined ? {} : { key });
    },
    reportFile(file, words) {
      add(file, { line: 1, column: 1, endLine: 1, endColumn: 1 }, words, {});
    },
  };
}

function spanInFile(catalog: Catalog, place: CatalogPlace): Span {
  if (place.at === "file") return place.span;
  if (place.at === "key") return place.entry.keySpan;
  const { entry, span } = place;
  if (!span || !isWhole(catalog)) return entry.valueSpan;
  const offset = (unit: number) => placeInFile(catalog, entry, unit);
  return { start: offset(span.start), end: offset(span.end) };
}
