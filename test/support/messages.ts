import fc from "fast-check";
import type { Branch, MessageNode } from "../../src/core/message/model.js";
import type { MessageSettings } from "../../src/core/message/parse.js";

/** Books of every kind, by what they are called here. */
export const messageBooks = {
  icu: { syntax: "icu" },
  mf2: { syntax: "mf2" },
  java: { syntax: "java" },
  "percent-brace, branches": { syntax: "percent-brace", plurals: "branches" },
  "double-brace, suffixes": { syntax: "double-brace", plurals: "suffix" },
  "colon, bars": { syntax: "colon", plurals: "bar" },
  printf: { syntax: "printf" },
  plain: { syntax: "plain" },
} as const satisfies Readonly<Record<string, MessageSettings>>;

export type MessageBook = keyof typeof messageBooks;

/** Words with signs that some syntax, table or markup takes for its own. */
export const words = fc
  .array(
    fc.constantFrom(
      "boat",
      "a seat",
      "Überfahrt",
      "船",
      "مرسى",
      "it's",
      'say "hi"',
      "100 %",
      "a & b",
      "x = y",
      "=1+1",
      "a; b, c",
      "[x]",
      "\\",
      "…",
      "\t",
      "two\nlines",
      "🚢",
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map((all) => `w ${all.join(" ")}`);

const text = words.map((value): MessageNode => ({ kind: "text", value }));

const names = fc.constantFrom("name", "boat", "price");

/** A message that a book of a kind can hold, made of what its syntax has. */
export function messages(book: MessageBook): fc.Arbitrary<readonly MessageNode[]> {
  const numbered = book === "java" || book === "printf";
  const argument = numbered
    ? fc
        .constantFrom("0", "1")
        .map((at): MessageNode => ({ kind: "argument", name: book === "java" ? at : String(Number(at) + 1) }))
    : names.map((name): MessageNode => ({ kind: "argument", name }));
  if (book === "plain") return text.map((one) => [one]);
  const tagged = fc.tuple(fc.constantFrom("b", "terms"), words).map(([name, value]): MessageNode => ({
    kind: "tag",
    name,
    attributes: [],
    children: [{ kind: "text", value }],
    selfClosing: false,
  }));
  const flat = fc
    .tuple(
      text,
      fc.option(argument, { nil: undefined }),
      fc.option(book === "mf2" ? text : tagged, { nil: undefined }),
      fc.boolean(),
    )
    .map(([first, value, tag, isLast]) =>
      [first, value, tag, isLast ? ({ kind: "text", value: " end" } as const) : undefined].filter(
        (node) => node !== undefined,
      ),
    );
  if (numbered) return flat;
  const counted = fc
    .tuple(flat, fc.boolean())
    .map(([nodes, shows]): readonly MessageNode[] =>
      shows && book === "icu" ? [{ kind: "count" }, ...nodes] : nodes,
    );
  const branchesOf = (selectors: readonly string[], inner: fc.Arbitrary<readonly MessageNode[]>) =>
    fc
      .tuple(...selectors.map(() => inner))
      .map((all) => selectors.map((selector, index): Branch => ({ selector, nodes: all[index] ?? [] })));
  const plural = (inner: fc.Arbitrary<readonly MessageNode[]>, selectors: readonly string[]) =>
    branchesOf(selectors, inner).map((branches): readonly MessageNode[] => [
      { kind: "plural", pluralKind: "cardinal", name: "count", offset: 0, branches },
    ]);
  const simple = plural(counted, ["one", "other"]);
  if (book !== "icu" && book !== "mf2") return fc.oneof(flat, simple);
  const exact = plural(counted, ["=0", "one", "other"]);
  const select = branchesOf(["female", "other"], book === "icu" ? fc.oneof(flat, simple) : flat).map(
    (branches): readonly MessageNode[] => [{ kind: "select", name: "who", branches }],
  );
  return fc.oneof(flat, simple, exact, select);
}
