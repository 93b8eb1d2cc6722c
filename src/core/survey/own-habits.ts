/** What a book adds to the habits of its languages. */
export interface OwnHabits {
  readonly textAttributes: readonly string[];
  readonly codeAttributes: readonly string[];
  readonly textCalls: readonly string[];
  readonly codeCalls: readonly string[];
  /** Types of errors whose messages the book's code shows where it catches them. */
  readonly shownErrors?: ReadonlySet<string>;
}

/** Nothing added. */
export const noHabits: OwnHabits = { textAttributes: [], codeAttributes: [], textCalls: [], codeCalls: [] };
