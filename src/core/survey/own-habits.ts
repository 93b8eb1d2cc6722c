/** What a book adds to the habits of its languages. */
export interface OwnHabits {
  readonly textAttributes: readonly string[];
  readonly codeAttributes: readonly string[];
  readonly textCalls: readonly string[];
  readonly codeCalls: readonly string[];
}
