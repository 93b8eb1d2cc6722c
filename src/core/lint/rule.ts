import type { LetterCase } from "../config/names.js";
import type { Book, Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import type { Ledger } from "../ledger/ledger.js";
import type { MessageNode } from "../message/model.js";
import type { ReadMessage } from "../message/read-message.js";
import type { BookCode } from "../source/book-code.js";
import type { UnreadCode } from "../source/unread-code.js";
import type { SourceFile } from "../source/model.js";
import type { Span } from "../text/span.js";
import type { DataOf, Notice, Wordings } from "../text/wording.js";
import type { Syntax } from "../message/syntaxes/syntax.js";
import type { Feature } from "./features.js";
import type { Concept } from "./glossary.js";
import type { KeyOrder } from "./key-order.js";
import type { Finding, Fix, Severity } from "./finding.js";
import type { FileChange } from "../plan/plan.js";

/** One rule: what it is for, its messages, examples that are its docs and its first tests at once, and its check. */
export interface RuleDefinition<M extends Wordings = Wordings> {
  /** `family/name`. */
  readonly id: string;
  readonly level: Severity;
  /** What it finds, in one line. */
  readonly summary: string;
  /** Why that matters to somebody who reads the product, and what is not reported on purpose. */
  readonly why: string;
  /** What it says, by name, as ICU patterns. */
  readonly messages: M;
  readonly examples: { readonly bad: readonly Example[]; readonly good: readonly Example[] };
  /** Checks every catalog file that exists, also those that cannot be read and those of unknown locales. */
  file?(context: RuleContext<M>, catalog: Catalog): void;
  /** Checks every message that can be read, in every locale; unreadable ones too where `readsBroken` is true. */
  entry?(entry: EntryView<M>, context: RuleContext<M>): void;
  /** Checks every translation against its source, where both can be read. */
  pair?(target: EntryView<M>, source: SourceView, context: RuleContext<M>): void;
  /** Checks the book as a whole and its code. */
  book?(context: RuleContext<M>): void;
  /** What ends one of the rule's findings and a person goes on with, unlike a repair; undefined where there is nothing of the kind. */
  offer?(finding: Finding, book: Book): Offer | undefined;
  readonly readsBroken?: boolean;
  /**
   * What else `entry` and `pair` look at besides the entry, its source, the ledger and the configuration: other entries of the
   * same catalog or its source's (`beside`), other locales (`around`; `file` too). When those change, such
   * rules are asked again.
   */
  readonly looks?: "beside" | "around";
  /**
   * What a message must have for `entry` and `pair` to have anything to say; a pair where either side has it. All messages
   * where not given.
   */
  readonly needs?: readonly Feature[];
  /** Whether the book has what the rule needs at all; asked once a run. */
  applies?(context: RuleContext<M>): boolean;
}

export type Rule = RuleDefinition;

/** A start of what a finding asks for: a key with words made of its name, a text that is to be translated. */
export interface Offer {
  /** What it does, in the imperative. */
  readonly title: string;
  readonly changes: readonly FileChange[];
}

/** One entry of the source with its message. */
export interface SourceView {
  readonly catalog: Catalog;
  readonly entry: Entry;
  readonly message: ReadMessage;
  readonly locale: string;
  /** What the message has, as numbers of `features`. */
  readonly features: number;
}

/** One entry with its message, as one rule sees it. */
export interface EntryView<M extends Wordings = Wordings> extends SourceView {
  /** A finding in this entry, by the name of one of the rule's messages. */
  report<K extends keyof M & string>(name: K, data: DataOf<M[K]>, at?: EntryPlace): void;
  /** A finding whose words come from elsewhere, such as the message's parser. */
  reportNotice(notice: Notice, at?: EntryPlace): void;
}

/** Where in an entry a finding is, and what repairs it. */
export interface EntryPlace {
  /** A range of the message; the whole text where not given. */
  readonly span?: Span | undefined;
  /** `key` for a finding at the entry's key. */
  readonly on?: "key";
  /** Where a rule has findings of several levels; the configuration overrides it. */
  readonly severity?: Severity | undefined;
  /** A repair that changes nothing but the fault: the text for the place of the finding, or for another range. */
  readonly fix?: string | Replacement | undefined;
}

/** A text for a range of a message; an empty range inserts it. */
export interface Replacement {
  readonly span: Span;
  readonly text: string;
}

/** A project in small: what an example shows. All of it is one book with `en` as source. */
export interface Example {
  /** The target locale; `de` where not given. */
  readonly locale?: string;
  /** The text of the source's only entry, or its entries by key. */
  readonly source?: string | Readonly<Record<string, string>>;
  /** The same for the target; a file's raw text where it starts with a brace and `raw` is true. */
  readonly target?: string | Readonly<Record<string, string>>;
  readonly raw?: boolean;
  /** The project's other target locales. */
  readonly targets?: readonly string[];
  /** False for a project without a source catalog. */
  readonly hasSource?: false;
  /** The code of the book's only file. */
  readonly code?: string;
  /** The source text that the translation was made from, as the ledger has it. */
  readonly madeFrom?: string;
  /** What of the book's configuration the rule looks at. */
  readonly naming?: LetterCase;
  readonly limits?: Readonly<Record<string, number>>;
  readonly paths?: readonly string[];
  readonly order?: KeyOrder;
  /** The member of each entry that holds its text. */
  readonly leaf?: string;
  /** A file of types that declares the source's texts. */
  readonly declared?: string;
  /** The project's glossary, as a CSV table. */
  readonly glossary?: string;
  /** The target's only text after the rule's fix. */
  readonly fixed?: string;
  /** In a few words, what is wrong or why it is right. */
  readonly note?: string;
}

/** A file of code, as far as findings in it go. */
export type CodeText = Pick<SourceFile, "file" | "text" | "lines">;

/** Another book of the project. */
export interface OtherBook {
  readonly book: Book;
  /** Whether a file is of its code, too. */
  readonly reads: (file: string) => boolean;
  /** Whether it comes before the book at hand. */
  readonly isBefore: boolean;
}

/** What a rule can see, and how it reports findings outside of entries that it is shown. */
export interface RuleContext<M extends Wordings = Wordings> {
  readonly book: Book;
  /** The book's code; undefined for a book of catalogs alone. */
  readonly code: BookCode | undefined;
  ledger(locale: string): Ledger;
  /** Files with the program's settings, which are no code of the book. */
  readonly settings: readonly CodeText[];
  /** Code in languages that have no reader: which keys it has in it. */
  readonly unreadCode: Pick<UnreadCode, "mentions">;
  /** The project's other books. */
  readonly others: readonly OtherBook[];
  /** The concepts of the project's glossary; none where there is no glossary. */
  readonly glossary: readonly Concept[];
  /** What a source text was, by its digest, where the ledger still has it. */
  formerSource(catalog: Catalog, key: string, digest: string): string | undefined;
  /** How the book's messages are written. */
  readonly syntax: Syntax;
  message(text: string, locale?: string, key?: string): ReadMessage;
  /** How the book's syntax writes a node. */
  print(node: MessageNode): string;
  /** How the book's syntax writes an argument: `{name}`, `%{name}`. */
  argument(name: string): string;
  /** The source entry of a translation, if there is one. */
  sourceOf(catalog: Catalog, key: string): SourceView | undefined;
  /** A finding at an entry's key or text. */
  report<K extends keyof M & string>(
    catalog: Catalog,
    entry: Entry,
    name: K,
    data: DataOf<M[K]>,
    at?: EntryPlace & { readonly remove?: true },
  ): void;
  /** A finding at a range of a catalog's file. */
  reportRange<K extends keyof M & string>(
    catalog: Catalog,
    span: Span,
    name: K,
    data: DataOf<M[K]>,
    more?: RangeMore,
  ): void;
  /** A finding in code. */
  reportCode<K extends keyof M & string>(
    source: CodeText,
    span: Span,
    name: K,
    data: DataOf<M[K]>,
    more?: { readonly key?: string; readonly severity?: Severity },
  ): void;
  /** A finding about a file as a whole. */
  reportFile<K extends keyof M & string>(
    file: string,
    name: K,
    data: DataOf<M[K]>,
    more?: { readonly severity?: Severity },
  ): void;
  /** A finding whose words come from a reader. */
  reportNotice(catalog: Catalog, span: Span, notice: Notice, more?: RangeMore): void;
}

export interface RangeMore {
  readonly key?: string;
  readonly severity?: Severity | undefined;
  readonly fix?: Fix;
}

/** Declares a rule; here so that its parts are checked where they are written. */
export function defineRule<const M extends Wordings>(rule: RuleDefinition<M>): Rule {
  return rule as RuleDefinition;
}
