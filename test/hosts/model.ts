import fc from "fast-check";

/** A piece of a text as code puts it together, in no language yet. */
export type Part =
  | { readonly kind: "words"; readonly text: string }
  | { readonly kind: "name" }
  | { readonly kind: "count" }
  | { readonly kind: "late"; readonly then: readonly Part[]; readonly otherwise: readonly Part[] }
  | { readonly kind: "plural"; readonly one: readonly Part[]; readonly other: readonly Part[] };

/** How code writes the pieces of a text as one: with values in the string, joined, or filled into a pattern. */
export type Style = "inside" | "joined" | "pattern";

/** A line of a program: a text, and how it is written. */
export interface Line {
  readonly parts: readonly Part[];
  readonly style: Style;
}

const beginnings = ["The boat", "All seats", "Your ticket", "No ferry", "Dear guest", "A table for you"];
const middles = [" leaves with ", " is kept for ", " was sold to ", ", as always: ", " and then "];
const ends = [" today.", " at the quay!", " – please wait", ".", " in the harbor"];
/** Signs that mean something in a language, a template or a message. */
const awkward = ["'", '"', "{", "}", "%", "|", "#", "$", "\\", "&", "@", "…", "`"];

/** Texts of programs; `signs` are those that the place can hold. */
export function lines(signs: readonly string[] = awkward): fc.Arbitrary<Line> {
  const words = (all: readonly string[]) =>
    fc.constantFrom(...all).map((text): Part => ({ kind: "words", text }));
  const sign =
    signs.length === 0
      ? words([" "])
      : fc.constantFrom(...signs).map((one): Part => ({ kind: "words", text: ` ${one} ` }));
  const value = fc.constantFrom<Part>({ kind: "name" }, { kind: "count" });
  const short = fc.oneof(
    fc.tuple(words(["one of them", "nobody here", "some of us"])),
    fc.tuple(words(["those of "]), value),
  );
  const late = fc.tuple(short, short).map(([then, otherwise]): Part => ({ kind: "late", then, otherwise }));
  const plural = fc
    .constantFrom<readonly [string, string]>(["one seat", " seats"], ["one boat", " boats"])
    .map(([one, other]): Part => ({
      kind: "plural",
      one: [{ kind: "words", text: one }],
      other: [{ kind: "count" }, { kind: "words", text: other }],
    }));
  const inner = fc.oneof(
    { weight: 4, arbitrary: value },
    { weight: 2, arbitrary: late },
    { weight: 2, arbitrary: plural },
    sign,
  );
  return fc.record({
    parts: fc.oneof(
      fc.tuple(words(beginnings), words(middles), inner, words(ends)),
      fc.tuple(words(beginnings), words(middles), inner, words(middles), inner, words(ends)),
      fc.tuple(words(beginnings), sign, words(ends)),
      fc.tuple(words(beginnings), words(ends)),
      fc.tuple(value, words([" is the name of it"]), words(ends)),
    ),
    style: fc.constantFrom<Style>("inside", "joined", "pattern"),
  });
}

/** What a line says for the values given. */
export interface Values {
  readonly name: string;
  readonly count: number;
  readonly late: boolean;
}

/** Every value that programs are run with. */
export const allValues: readonly Values[] = ["Ines", "O'Hara & Söhne {x} <b>"].flatMap((name) =>
  [0, 1, 2, 5].flatMap((count) => [true, false].map((late) => ({ name, count, late }))),
);

/** Whether a text chooses its words, which no pattern does. */
export function chooses(parts: readonly Part[]): boolean {
  return parts.some(({ kind }) => kind === "late" || kind === "plural");
}
