import type { CatalogContent, Entry } from "../../catalog/model.js";
import { pluralCategoryNames, type PluralCategory } from "../../locale/plural-rules.js";
import type { FormatName } from "../../config/names.js";
import { hasFormsByBars } from "./message-guess.js";

/** A group of catalog files that differ in their locale alone, or one file that holds all locales. */
export interface FoundBook {
  /** The pattern of its files. */
  readonly files: string;
  /** The format of its files, where their ending does not name it. */
  readonly format?: FormatName;
  /** The constant that holds the texts of each file, where they stand in the code itself. */
  readonly constant?: string;
  /** The columns of a table, where they are not called as tables usually call them. */
  readonly table?: {
    readonly id: string;
    readonly locale: string;
    readonly text: string | readonly string[];
  };
  /** How many keys each locale has. */
  readonly locales: ReadonlyMap<string, number>;
  /** The locales of which a file cannot be read whole: how many keys they have is not known. */
  readonly unread: ReadonlySet<string>;
  readonly spelling: "hyphen" | "underscore" | Readonly<Record<string, string>>;
  /** The name around all entries of each file, where code leaves it out of its keys. */
  readonly frame?: string;
  /** Where the locale stands in the files: at their root, or at the end of each key. */
  readonly inside: "root" | "leaf" | undefined;
  /** The member that holds the text, where entries are objects. */
  readonly leaf?: string;
  /** Texts of all locales. */
  readonly texts: readonly string[];
  /** The keys of those texts that have signs of a placeholder, as code writes them. */
  readonly counted: ReadonlySet<string>;
  /** The keys of those texts that have forms of a plural between bars. */
  readonly barred: ReadonlySet<string>;
  /** The keys of all locales by namespace; of books without, by the empty text. */
  readonly keys: ReadonlyMap<string, ReadonlySet<string>>;
  /** By locale, the keys that end in a number, and those that stand before one. */
  readonly numbered: ReadonlyMap<string, ReadonlySet<string>>;
  /** By locale, the forms of plurals that are under keys of their own. */
  readonly forms: ReadonlyMap<string, ReadonlySet<PluralCategory>>;
  /** How many keys of each locale are the very text that they stand for. */
  readonly ownText: ReadonlyMap<string, number>;
  /** How many entries stand under a name of their own at the root, and how many there are. */
  readonly flat: { readonly whole: number; readonly of: number };
  /** The same for the entries below the one name that stands around all entries of each file. */
  readonly flatBelow: number;
}

/** A book without the one name that stands around all entries of its files; undefined where there is none. */
export function withoutFrame(book: FoundBook): FoundBook | undefined {
  const { keys, flat } = book;
  const own = keys.get("");
  const frame = own === undefined ? undefined : /^[^.]+(?=\.)/.exec([...own][0] ?? "")?.[0];
  if (!own || keys.size > 1 || frame === undefined) return undefined;
  const before = `${frame}.`;
  if (![...own].every((key) => key.startsWith(before))) return undefined;
  const bare = (set: ReadonlySet<string>) => new Set([...set].map((key) => key.slice(before.length)));
  return {
    ...book,
    frame,
    keys: new Map([["", bare(own)]]),
    counted: bare(book.counted),
    barred: bare(book.barred),
    numbered: new Map([...book.numbered].map(([locale, set]) => [locale, bare(set)])),
    flat: { ...flat, whole: book.flatBelow },
  };
}

/** How many keys a book has in all namespaces. */
export function keyCount({ keys }: FoundBook): number {
  return [...keys.values()].reduce((sum, set) => sum + set.size, 0);
}

/** What a text has that shows a value, in any syntax. */
const placeholderSign = /[{}%$]|__\w+__/;

/** Counts the keys of a book as its files are gone through. */
export class BookCount {
  private readonly locales = new Map<string, number>();
  private readonly unread = new Set<string>();
  private readonly keys = new Map<string, Set<string>>();
  private readonly texts: string[] = [];
  private readonly counted = new Set<string>();
  private readonly barred = new Set<string>();
  private readonly numbered = new Map<string, Set<string>>();
  private readonly forms = new Map<string, Set<PluralCategory>>();
  private readonly ownText = new Map<string, number>();
  private whole = 0;
  private wholeBelow = 0;

  /** `isRooted` says that keys start with the locale, which is none of them. */
  constructor(private readonly isRooted: boolean) {}

  get size(): number {
    return [...this.keys.values()].reduce((sum, set) => sum + set.size, 0);
  }

  add(locale: string, content: CatalogContent, namespace: string): void {
    if (content.problems.length > 0) this.unread.add(locale);
    const own = this.keys.get(namespace) ?? new Set<string>();
    this.keys.set(namespace, own);
    const all = new Set<string>();
    for (const entry of content.entries)
      all.add(this.entry(entry, own, this.isRooted ? entry.path.slice(1) : entry.path));
    const numbered = this.numbered.get(locale) ?? new Set<string>();
    for (const key of all) {
      const end = /(?:_plural)?_\d{1,2}$/.exec(key);
      if (end && all.has(key.slice(0, end.index))) numbered.add(key).add(key.slice(0, end.index));
    }
    if (numbered.size > 0) this.numbered.set(locale, numbered);
    const forms = this.forms.get(locale) ?? new Set<PluralCategory>();
    for (const key of all) {
      const base = /[._]other$/.test(key) ? key.slice(0, -"other".length) : undefined;
      for (const one of pluralCategoryNames) if (base !== undefined && all.has(base + one)) forms.add(one);
    }
    if (forms.size > 1) this.forms.set(locale, forms);
    this.locales.set(locale, (this.locales.get(locale) ?? 0) + content.entries.length);
    const same = content.entries.filter(({ path, text }) => path.length === 1 && path[0] === text).length;
    this.ownText.set(locale, (this.ownText.get(locale) ?? 0) + same);
  }

  /** An entry of a file that holds all locales, alone or beside others that have names. */
  addAlone(locale: string, entry: Entry, path: Entry["path"], namespace = ""): void {
    const own = this.keys.get(namespace) ?? new Set<string>();
    this.keys.set(namespace, own);
    this.entry(entry, own, path);
    this.locales.set(locale, (this.locales.get(locale) ?? 0) + 1);
  }

  private entry({ text }: Entry, own: Set<string>, path: Entry["path"]): string {
    const key = path.join(".");
    own.add(key);
    this.texts.push(text);
    if (path.length === 1) this.whole++;
    if (path.length === 2) this.wholeBelow++;
    if (placeholderSign.test(text)) this.counted.add(key);
    if (hasFormsByBars(text)) this.barred.add(key);
    return key;
  }

  found(files: string, spelling: FoundBook["spelling"], inside: FoundBook["inside"]): FoundBook {
    const { locales, unread, texts, counted, barred, keys, numbered, forms, ownText, whole, wholeBelow } =
      this;
    return {
      files,
      locales,
      unread,
      spelling,
      inside,
      texts,
      counted,
      barred,
      keys,
      numbered,
      forms,
      ownText,
      flat: { whole, of: texts.length },
      flatBelow: wholeBelow,
    };
  }
}
