import type { Entry } from "../catalog/model.js";
import { isWhole, placeInFile, type Book, type Catalog } from "../catalog/book.js";
import type { BookCode } from "../source/book-code.js";
import type { UnreadCode } from "../source/unread-code.js";
import type { Range, Span } from "../text/span.js";
import { wordings, type Notice, type WordingData } from "../text/wording.js";
import type { MessageNode } from "../message/model.js";
import { noticeOf } from "../message/notices.js";
import type { ReadMessage } from "../message/read-message.js";
import { featureMask } from "./features.js";
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
import { inlineWaiversOf, type InlineWaiver } from "./inline-waivers.js";
import type { LevelOf } from "./levels.js";
import type { LintSubject } from "./subject.js";

/** Where rules put what they find. */
export interface Sink {
  readonly findings: Finding[];
  readonly waived: Set<InlineWaiver>;
  /** How often something was found, also what is waived or not reported. */
  found: number;
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
export class RuleRun implements RuleContext {
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
