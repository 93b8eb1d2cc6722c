import { posix } from "node:path";
import type { PluralForms } from "../../message/names.js";
import type { FoundBook } from "./found-book.js";
import { KeyIndex, pluralBase } from "./key-index.js";
import type { LookupSample, LookupUse } from "./lookup-use.js";
import type { WrittenLookup } from "./written-call.js";

/** The keys of a book that have a plural with forms of its own, as code asks for them; undefined where messages have all forms in them. */
export function keysWithForms(book: FoundBook, plurals: PluralForms): KeyIndex | undefined {
  if (plurals === "inline") return undefined;
  const own = (key: string, all: ReadonlySet<string>) =>
    plurals === "bar" ? (book.barred.has(key) ? key : undefined) : pluralBase(key, all);
  const keys = [...book.keys].map(
    ([name, all]) => [name, new Set([...all].flatMap((key) => own(key, all) ?? []))] as const,
  );
  return keys.some(([, set]) => set.size > 0) ? new KeyIndex(new Map(keys)) : undefined;
}

/** What code says of how plurals are looked up: by the usual call, by another one, or by one that no pattern writes. */
export type PluralCall =
  | { readonly kind: "usual" }
  | { readonly kind: "unseen" }
  /** Another lookup; its call is false where no pattern writes it. */
  | { readonly kind: "other"; readonly call: string | false };

/** The usual lookup, with what brings it in. */
export type UsualLookup = Pick<WrittenLookup, "call" | "import" | "setup">;

/** Values by their names that end a call: `{ count: n })`, `count: n)`, `["count" => n])`. */
const namedAlone =
  /^(?:\{[^{}]{0,200}\}\s{0,9}\)|\[[^[\]]{0,200}\]\s{0,9}\)|array\([^()]{0,200}\)\s{0,9}\)|\w{1,40}\s?[:=](?![:=]))/;

/**
 * How the files that are meant look plurals up: of the lookups that ask for keys with forms, the one that does so most, with
 * `{count}` where the number stands alone behind the key. `writtenAs` gives a lookup's call.
 */
export function pluralCallOf(
  uses: readonly LookupUse[],
  isMeant: (ending: string) => boolean,
  forms: KeyIndex,
  usual: UsualLookup,
  writtenAs: (use: LookupUse) => WrittenLookup | undefined,
): PluralCall {
  const asking = uses
    .map((use) => ({
      use,
      asks: use.samples.filter(
        (sample) => isMeant(posix.extname(sample.source.file)) && asksFor(sample, forms),
      ),
    }))
    .filter(({ asks }) => asks.length > 0)
    .sort((a, b) => b.asks.length - a.asks.length);
  if (asking.length === 0) return { kind: "unseen" };
  const written = asking.map(({ use, asks }) => ({ asks, lookup: writtenAs(use) }));
  if (written.some(({ lookup }) => lookup?.call === usual.call)) return { kind: "usual" };
  const [first] = written;
  // What brings the usual lookup in has to bring this one in as well.
  if (
    !first?.lookup ||
    !isSame(first.lookup.import, usual.import) ||
    !isSame(first.lookup.setup, usual.setup)
  )
    return unwritten;
  const { call } = first.lookup;
  const behind = first.asks.map(
    ({ source: { text }, literal: { span } }) =>
      /^["'`]?\s{0,9},\s{0,9}([^]{0,200})/.exec(text.slice(span.end, span.end + 220))?.[1],
  );
  const given = behind.flatMap((one) => one ?? []);
  if (given.length * 2 <= behind.length) return unwritten;
  // Values by their names have the number among them.
  if (given.every((one) => namedAlone.test(one)))
    return call.includes("{args}") ? { kind: "other", call } : unwritten;
  if (given.some((one) => /^[{[]/.test(one)) || !/["']\{key\}["'](?:\{args\})?\)$/.test(call))
    return unwritten;
  const takesMore = given.some((one) => /^(?:[^,()[\]{}]|\([^()]{0,80}\)){1,100},\s{0,9}[[{]/.test(one));
  return {
    kind: "other",
    call: call.replace(/(?:\{args\})?\)$/, takesMore ? ", {count}{args})" : ", {count})"),
  };
}

const unwritten: PluralCall = { kind: "other", call: false };

function isSame(own: WrittenLookup["import"], other: WrittenLookup["import"]): boolean {
  return own === undefined || String(own) === String(other);
}

function asksFor({ literal: { pieces } }: LookupSample, forms: KeyIndex): boolean {
  const [only] = pieces;
  return pieces.length === 1 && only?.kind === "text" && forms.match(only.value) !== undefined;
}
