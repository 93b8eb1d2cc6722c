/** One message of this program: what is wrong and what to do about it, each as an ICU pattern. */
export interface Wording {
  readonly message: string;
  readonly remedy: string;
}

/** Messages by name. */
export type Wordings = Readonly<Record<string, Wording>>;

/** Declares messages that are filled in elsewhere; the area is the first part of their ids. */
export function wordings<const W extends Wordings>(area: string, texts: W): W {
  if (area === "") throw new Error("messages need an area");
  return texts;
}

/** What a message says in one case: a value for each argument of its patterns. */
export type WordingData = Readonly<Record<string, string | number>>;

/** The values that a message needs. */
export type DataOf<W extends Wording> = Readonly<
  Record<ArgumentsOf<W["message"]> | ArgumentsOf<W["remedy"]>, string | number>
>;

/** The names of a pattern's arguments. A branch of a plural is no name where it has a space in it. */
type ArgumentsOf<P extends string> = P extends `${string}{${infer Rest}`
  ? Rest extends `${infer Name}}${infer More}`
    ? NameIn<Name> | ArgumentsOf<More>
    : never
  : never;

type NameIn<N extends string> = N extends `${infer Head},${string}`
  ? Head
  : N extends `${string} ${string}` | ""
    ? never
    : N;

/** A message in one case: its id, the values in it, and both as text in English. */
export interface Notice {
  readonly messageId: string;
  readonly data: WordingData;
  readonly message: string;
  readonly remedy: string;
}
