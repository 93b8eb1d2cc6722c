import { hasTextsAsKeys } from "./source-language.js";
import type { LetterCase } from "../../config/names.js";
import type { FoundBook } from "./found-book.js";

/** How the keys of a book are built, so that new ones follow; only what differs from what is usual. */
export interface NamingStyle {
  readonly shape?: "flat";
  readonly case?: Exclude<LetterCase, "camel">;
  readonly separator?: string;
  readonly namespace?: string;
  readonly home?: string;
  readonly pattern?: "{text}" | "{slug}";
}

/** The style of a book's keys, and how code joins their parts; `usual` is the case of such projects, for keys of one word each. */
export function namingOf(
  book: FoundBook,
  source: string,
  {
    between,
    parts,
    home,
  }: {
    readonly between: string | undefined;
    readonly parts: string | undefined;
    readonly home: string | undefined;
  },
  usual: "snake" | undefined,
): NamingStyle | undefined {
  const { keys, flat, locales, ownText } = book;
  const all = [...keys.values()].flatMap((set) => [...set]);
  // A group has its name in many keys.
  const words = [...new Set(all.flatMap((key) => key.split(".")))];
  const snake = words.filter((word) => /^[a-z\d]+(?:_[a-z\d]+)+$/.test(word)).length;
  const kebab = words.filter((word) => /^[a-z\d]+(?:-[a-z\d]+)+$/.test(word)).length;
  const camel = words.filter((word) => /^[a-z\d]+(?:[A-Z][a-z\d]*)+$/.test(word)).length;
  const pascal = words.filter((word) => /^(?:[A-Z][a-z\d]+)+$/.test(word)).length;
  const upper = words.filter((word) => /^[A-Z\d]{2,}(?:_[A-Z\d]+)*$/.test(word)).length;
  const joined = snake > camel && snake >= kebab ? "snake" : kebab > camel ? "kebab" : undefined;
  const most = pascal * 2 > words.length ? "pascal" : upper * 2 > words.length ? "upper" : undefined;
  const letterCase = most ?? (snake + kebab + camel === 0 ? usual : joined);
  const isProse = all.filter((key) => /\p{L} \p{L}/u.test(key)).length * 2 > all.length;
  const isOwnText =
    isProse ||
    (!locales.has(source) && hasTextsAsKeys(book)) ||
    (ownText.get(source) ?? 0) * 2 > (locales.get(source) ?? 0);
  const share = (test: (key: string) => boolean) => all.filter(test).length / Math.max(all.length, 1);
  // Flat keys may have parts of their own: `cart:title`.
  const mark =
    share((key) => key.includes(".")) < 0.2
      ? [":", "/"].find(
          (one) => share((key) => /^[\w-]+$/.test(key.replaceAll(one, "")) && key.includes(one)) >= 0.8,
        )
      : undefined;
  // Keys of one part say nothing of where they are used.
  const isFlatList = mark === undefined && all.length >= 2 && share((key) => !key.includes(".")) >= 0.8;
  const style: NamingStyle = {
    ...(isOwnText ? { pattern: "{text}" as const } : isFlatList && { pattern: "{slug}" as const }),
    ...(flat.of > 0 && flat.whole * 10 >= flat.of * 9 && { shape: "flat" as const }),
    ...(letterCase !== undefined && !isOwnText && { case: letterCase }),
    ...(mark !== undefined && { separator: mark }),
    ...(mark === undefined && parts !== undefined && parts !== "." && { separator: parts }),
    ...(between !== undefined && between !== (parts ?? ".") && { namespace: between }),
    ...(home !== undefined && { home }),
  };
  return Object.keys(style).length > 0 ? style : undefined;
}
