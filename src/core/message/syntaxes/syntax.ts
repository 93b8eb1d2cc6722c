import type { Branch, Message, MessageNode } from "../model.js";

/** Code units of which one has to be in a text for it to be more than plain words: each parser begins with that question. */
export interface MessageSigns {
  /** Any of these. */
  readonly single: string;
  /** This one twice in a row. */
  readonly doubled?: string;
}

/**
 * How placeholders of any syntax look in a text: what one syntax reads as an argument, users of another see as it is written.
 */
export const placeholderShapes = {
  "double-brace": /\{\{\s*[\p{L}_$][\w.$]*\s*\}\}/u,
  "dollar-brace": /\$\{[\p{L}_$][\w.$]*\}/u,
  "hash-brace": /#\{[\p{L}_@][\w.@]*\}/u,
  "percent-brace": /%\{[\p{L}_]\w*\}/u,
  "percent-paren": /%\([\p{L}_]\w*\)[sdif]/u,
  percent: /(?<![\p{N}%])%(?:\d+\$)?(?:[sd@]|l[du]|\.\d+f)(?![\p{L}\p{N}])/u,
  brace: /(?<![{$%#\p{L}\p{N}])\{[\p{L}_$][\w.]*\}(?!\})/u,
  "brace-number": /(?<![{$%#\p{L}\p{N}])\{\d\}(?!\})/u,
  "brace-dollar": /\{\s*\$[\p{L}_][\w-]*\s*\}/u,
} as const;

export type PlaceholderShape = keyof typeof placeholderShapes;

/** How messages are written: everything that the rest of the program knows of a syntax. */
export interface Syntax {
  /** The name that a book can give it. */
  readonly name: string;
  readonly signs: MessageSigns;
  /** Reads a message; never throws. `tags` says whether `<b>…</b>` is rich text. */
  parse(text: string, tags: boolean): Message;
  print(nodes: readonly MessageNode[], tags: boolean): string;
  readonly hasArguments: boolean;
  /** The number of the first argument, where arguments are numbered and not named. */
  readonly numberedFrom?: number;
  /** Set where arguments without a name are counted, beside those that have one. */
  readonly countsUnnamed?: true;
  /** Set where programs fill the text that a lookup gives, at once or later: one without values says nothing of them. */
  readonly isFilledLater?: true;
  /** The name by which a program gives the value of an argument, where a message may take a part of it. */
  readonly givenAs?: (name: string) => string;
  /** How plurals and selects can be in a message: one in another, or side by side on the outside alone; undefined for not at all. */
  readonly choices: "nested" | "flat" | undefined;
  /** What shows the number that a plural counts; undefined where the argument itself does. */
  readonly countSign: string | undefined;
  /** Whether arguments can have ICU's styles and skeletons. */
  readonly hasSkeletons: boolean;
  /** The types that an argument can have, where there are no others. */
  readonly argumentTypes?: readonly string[];
  /** The shapes of placeholders that it reads; all others are foreign to it. */
  readonly placeholders: readonly PlaceholderShape[];
  /** How it is recognized in texts by what it alone writes so. */
  readonly recognized?: {
    readonly pattern: RegExp;
    /** What other syntaxes write that looks the same in part. */
    readonly ignoring?: RegExp;
    /** Set where ordinary text often looks so. */
    readonly isWeak?: boolean;
  };
  /** How a value of the type `choice` chooses among texts by ranges of numbers, where a syntax has that. */
  readonly ranges?: {
    /** The texts of a style, each with where its range begins (`0`, `1`, `1<`); undefined for what cannot be taken apart. */
    read(style: string, parse: (text: string) => readonly MessageNode[]): readonly Branch[] | undefined;
    /** The style for such texts; undefined where one has something that the style cannot hold. */
    write(branches: readonly Branch[], print: (nodes: readonly MessageNode[]) => string): string | undefined;
  };
  /** How a branch of a plural or select is written, with `…` for its text. */
  writeBranch(selector: string): string;
}
