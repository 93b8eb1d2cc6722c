import type { Book, Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import type { Ledger } from "../ledger/ledger.js";
import type { MessageNode } from "../message/model.js";
import type { ReadMessage } from "../message/read-message.js";
import type { BookCode } from "../source/book-code.js";
import type { SourceFile } from "../source/model.js";
import type { Span } from "../text/span.js";
import type { Feature } from "./features.js";
import type { Concept } from "./glossary.js";
import type { KeyOrder } from "./key-order.js";
import type { Fix, Severity } from "./finding.js";

/** One rule: what it is for, examples that are its docs and its first tests at once, and its check. */
export interface Rule {
  /** `family/name`. */
  readonly id: string;
  readonly level: Severity;
  /** What it finds, in one line. */
  readonly summary: string;
  /** Why that matters to somebody who reads the product, and what is let pass on purpose. */
  readonly why: string;
  readonly examples: { readonly bad: readonly Example[]; readonly good: readonly Example[] };
  /** Looks at every catalog file that is there, also those that cannot be read and those of unknown locales. */
  file?(context: RuleContext, catalog: Catalog): void;
  /** Looks at every message that can be read, in every locale; at unreadable ones too where `readsBroken` says so. */
  entry?(context: RuleContext, entry: EntryView): void;
  /** Looks at every translation beside its source, where both can be read. */
  pair?(context: RuleContext, target: EntryView, source: EntryView): void;
  /** Looks at the book as a whole and at its code. */
  book?(context: RuleContext): void;
  readonly readsBroken?: boolean;
  /**
   * What a message must have for `entry` and `pair` to have anything to say; a pair where either side has it. All messages
   * where not given.
   */
  readonly looksAt?: readonly Feature[];
  /** Whether the book has what the rule needs at all; asked once a run. */
  applies?(context: RuleContext): boolean;
}

/** One entry with its message. */
export interface EntryView {
  readonly catalog: Catalog;
  readonly entry: Entry;
  readonly message: ReadMessage;
  readonly locale: string;
  /** What the message has, as numbers of `features`. */
  readonly features: number;
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
  /** False for a project without a source catalog. */
  readonly hasSource?: false;
  /** The code of the book's only file. */
  readonly code?: string;
  /** The source text that the translation was made from, as the ledger has it. */
  readonly madeFrom?: string;
  /** What of the book's configuration the rule looks at. */
  readonly naming?: "camel" | "kebab" | "snake";
  readonly limits?: Readonly<Record<string, number>>;
  readonly paths?: readonly string[];
  readonly order?: KeyOrder;
  /** The project's glossary, as a CSV table. */
  readonly glossary?: string;
  /** The target's only text after the rule's fix. */
  readonly fixed?: string;
  /** In a few words, what is wrong or why it is right. */
  readonly note?: string;
}

/** What a rule can see and say. */
export interface RuleContext {
  readonly book: Book;
  /** The book's code; undefined for a book of catalogs alone. */
  readonly code: BookCode | undefined;
  ledger(locale: string): Ledger;
  /** The concepts of the project's glossary; none where there is no glossary. */
  readonly glossary: readonly Concept[];
  /** What a source text was, by its digest, where the ledger still has it. */
  formerSource(catalog: Catalog, key: string, digest: string): string | undefined;
  message(text: string, locale?: string, key?: string): ReadMessage;
  /** How the book's syntax writes a node. */
  print(node: MessageNode): string;
  /** The source entry of a translation, if there is one. */
  sourceOf(catalog: Catalog, key: string): EntryView | undefined;
  /** A finding in a catalog: at an entry's key, at a range of its message, or at a range of the file. */
  report(catalog: Catalog, place: CatalogPlace, words: Words): void;
  /** A finding in code. */
  reportCode(source: SourceFile, span: Span, words: Words & { readonly key?: string }): void;
  /** A finding about a file that could not be opened, so that it has no places. */
  reportFile(file: string, words: Words): void;
}

export type CatalogPlace =
  | { readonly at: "key"; readonly entry: Entry }
  | { readonly at: "message"; readonly entry: Entry; readonly span?: Span }
  | { readonly at: "file"; readonly span: Span; readonly key?: string };

export interface Words {
  readonly message: string;
  readonly remedy: string;
  /** Where a rule has findings of several levels; the configuration still has the last word. */
  readonly severity?: Severity;
  /** A repair that changes nothing but the fault. */
  readonly fix?: Fix;
}

/** Declares a rule; here so that its parts are checked where they are written. */
export function defineRule(rule: Rule): Rule {
  return rule;
}
