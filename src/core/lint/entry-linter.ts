import type { Catalog } from "../catalog/book.js";
import { changedEntries } from "../catalog/changed-keys.js";
import type { MessageReader } from "../message/parse.js";
import { makeAnew, type Keep } from "../text/kept.js";
import { features, TextScanner } from "./features.js";
import { haveSameParts, messageFeatures } from "./message-features.js";
import type { RuleContext, SourceView } from "./rule.js";
import { CodeUnits } from "../text/code-units.js";
import type { RuleRun } from "./rule-run.js";
import { type Sink } from "./rule-run.js";
import type { LintSubject } from "./subject.js";

/** How far a rule looks besides the entry that it is shown. */
export const reaches = { none: 0, beside: 1, around: 2 } as const;

/** What was found in a catalog when it was looked at last. */
export interface CatalogFindings extends Sink {
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
 * Finds the place that an entry of a catalog had when it was looked at last, where it and its source were the same and nothing was
 * found in it alone; -1 for none.
 */
function cleanEntries(
  { catalog, source }: CatalogFindings,
  last: CatalogFindings,
): (index: number) => number {
  const own = changedEntries(last.catalog, catalog);
  const ofSource = source === last.source ? [] : source && last.source && changedEntries(last.source, source);
  if (!own || !ofSource) return () => -1;
  const changed = new Set([...own, ...ofSource]);
  return (index) => {
    const key = catalog.table.keyAt(index);
    if (changed.has(key)) return -1;
    const there = last.catalog.table.findNear(index, key);
    return last.isClean[there] === 1 ? there : -1;
  };
}

/** What shows the entries of a catalog to some rules. */
export function entryLinter(
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
    const placeBefore = last && cleanEntries(made, last);
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
export class SourceFinder {
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
