import type { Span } from "../text/span.js";
import type { ProblemName } from "./problem-wordings.js";
import type { WordingData } from "../text/wording.js";
import type { CountedForm, PluralKind } from "../locale/plural-rules.js";

/**
 * A message: what every syntax and plural form is read into. Spans count UTF-16 code units of
 * `source`; a node that was made and not read has none.
 */
export interface Message {
  readonly source: string;
  readonly nodes: readonly MessageNode[];
  readonly problems: readonly MessageProblem[];
  /** The ranges that quoting marks as literal text, quote marks included. */
  readonly quoted: readonly Span[];
}

export type MessageNode = TextNode | ArgumentNode | CountNode | PluralNode | SelectNode | TagNode;

/** Literal text, as a reader sees it: quoting and escapes resolved. */
export interface TextNode {
  readonly kind: "text";
  readonly value: string;
  /** Set where the message has a value of its own that a function formats, as in MessageFormat 2: `{|2031-05-01| :date}`. */
  readonly format?: ArgumentFormat;
  /** What MessageFormat 2 calls attributes, as written (`@translate=no`): words to tools, which readers do not see. */
  readonly toolAttributes?: string;
  readonly span?: Span;
}

/** A value that the program supplies, optionally formatted: `{price, number, ::currency/EUR}`. */
export interface ArgumentNode {
  readonly kind: "argument";
  readonly name: string;
  readonly format?: ArgumentFormat;
  /** Further arguments, whose values its format takes. */
  readonly uses?: readonly string[];
  /** What MessageFormat 2 calls attributes, as written (`@translate=no`): words to tools, which readers do not see. */
  readonly toolAttributes?: string;
  readonly span?: Span;
  readonly nameSpan?: Span;
}

/** How a simple argument is formatted: its type (`number`, `date` …) in lower case, and the style as written. */
export interface ArgumentFormat {
  readonly type: string;
  readonly style?: ArgumentStyle;
  readonly typeSpan?: Span;
}

/**
 * A style: one of the type's named styles, a skeleton (after `::`, which `text` leaves out), a pattern, or options by
 * name, as MessageFormat 2 has them.
 */
export interface ArgumentStyle {
  readonly kind: "named" | "skeleton" | "pattern" | "options";
  readonly text: string;
  readonly span?: Span;
}

/** The number that the innermost plural counts, less its offset: `#`. */
export interface CountNode {
  readonly kind: "count";
  readonly span?: Span;
}

/** A choice by number: `{n, plural, one {…} other {…}}`, or by ordinal number. */
export interface PluralNode {
  readonly kind: "plural";
  readonly pluralKind: PluralKind;
  readonly name: string;
  /** What is taken off the number before a category is chosen and before `#` shows it; 0 where none is given. */
  readonly offset: number;
  readonly branches: readonly Branch[];
  /** The forms that the program chooses by the number itself, where it knows no rules of languages. */
  readonly known?: readonly CountedForm[];
  readonly span?: Span;
  readonly nameSpan?: Span;
}

/** A choice by value: `{gender, select, female {…} other {…}}`. */
export interface SelectNode {
  readonly kind: "select";
  readonly name: string;
  readonly branches: readonly Branch[];
  readonly span?: Span;
  readonly nameSpan?: Span;
}

/** One branch of a plural or select. A plural's exact number is written `=1`, as its selector. */
export interface Branch {
  readonly selector: string;
  readonly nodes: readonly MessageNode[];
  readonly selectorSpan?: Span;
  /** From the selector to the closing brace. */
  readonly span?: Span;
}

/** Rich text: `<b>…</b>`, `<br/>`. */
export interface TagNode {
  readonly kind: "tag";
  readonly name: string;
  /** What stands in the opening tag after the name: text and arguments. */
  readonly attributes: readonly MessageNode[];
  readonly children: readonly MessageNode[];
  /** Written `<br/>`, or an element that HTML never closes (`<br>`). */
  readonly selfClosing: boolean;
  /** What MessageFormat 2 calls attributes, as written (`@translate=no`): words to tools, which readers do not see. */
  readonly toolAttributes?: string;
  readonly span?: Span;
  /** The opening tag, from `<` to `>`. */
  readonly openSpan?: Span;
}

/** What a parser found wrong, and where. `error`: the message cannot be shown as written; `warning`: some programs refuse it. */
export interface MessageProblem {
  readonly severity: "error" | "warning";
  /** What kind of problem it is, in every syntax. */
  readonly code: MessageProblemCode;
  /** Which one it is, with the values in its words: `explainProblem` writes them. */
  readonly name: ProblemName;
  readonly data: WordingData;
  readonly span: Span;
}

export type MessageProblemCode =
  | "argument-name"
  | "argument-unclosed"
  | "argument-type"
  | "branch-unclosed"
  | "branch-expected"
  | "branch-duplicate"
  | "offset"
  | "style-unclosed"
  | "brace-unmatched"
  | "tag-unclosed"
  | "tag-unopened"
  | "too-deep";
