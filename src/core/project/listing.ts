import { isWhole, type Book, type Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import type { EntryState } from "../ledger/ledger.js";
import { progressOf } from "../ledger/progress.js";
import { showForms } from "../message/forms.js";
import { messageReader } from "../message/parse.js";
import { keysNamed } from "./preview.js";
import { booksIn, ledgers, type Project, type Scope } from "./project.js";

/** A source key with its text in every locale, and where each stands. */
export interface ListedKey {
  readonly book: string;
  readonly key: string;
  readonly texts: readonly ListedText[];
}

export interface ListedText {
  readonly locale: string;
  /** Undefined where the locale has none of its own. */
  readonly text?: string;
  /** `source` for the source's own text; `unreadable` where the catalog cannot be read and may have one. */
  readonly state: "source" | "missing" | "unreadable" | "stale" | EntryState;
  readonly file?: string;
  /** From 1. */
  readonly line?: number;
}

export type ListResult =
  | { readonly ok: true; readonly keys: readonly ListedKey[] }
  | { readonly ok: false; readonly unknown: string; readonly near: readonly string[] };

/** Lists keys with their texts, states and places. `keys` are keys or patterns; all where none is given. */
export function listProject(project: Project, scope: Scope, keys: readonly string[]): ListResult {
  const named = keysNamed(project, scope, keys.length > 0 ? keys : ["**"]);
  if (!named.ok) return named;
  const standings = new Map<string, ReadonlyMap<string, ListedText>>();
  return {
    ok: true,
    keys: named.keys.map(({ book, config, namespace, key, written }) => {
      const all = [book.sourceLocale, ...book.targetLocales].filter(
        (locale) => scope.locales?.includes(locale) ?? true,
      );
      return {
        book: config.name,
        key: written,
        texts: all.map((locale): ListedText => {
          const id = JSON.stringify([config.name, locale]);
          const known = standings.get(id) ?? textsOf(project, book, locale);
          standings.set(id, known);
          return known.get(book.fullKey(namespace, key)) ?? withoutText(book, locale, namespace);
        }),
      };
    }),
  };
}

/** The catalogs of what is listed, the source's among them, that cannot be read whole. */
export function unreadableIn(project: Project, scope: Scope): readonly string[] {
  return booksIn(project, scope).flatMap((config) => {
    const book = project.book(config);
    const isMeant = (locale: string) =>
      locale === book.sourceLocale || (scope.locales?.includes(locale) ?? true);
    return book.catalogs.filter((one) => !isWhole(one) && isMeant(one.locale)).map(({ file }) => file);
  });
}

function withoutText(book: Book, locale: string, namespace: string | undefined): ListedText {
  const catalog = book.catalog(locale, namespace);
  return !catalog || isWhole(catalog)
    ? { locale, state: "missing" }
    : { locale, state: "unreadable", file: catalog.file };
}

/** The texts that a locale has, by full key. */
function textsOf(project: Project, book: Book, locale: string): ReadonlyMap<string, ListedText> {
  const texts = new Map<string, ListedText>();
  const { config } = book;
  if (locale === book.sourceLocale) {
    for (const catalog of book.catalogsOf(locale))
      for (const entry of catalog.byKey.values())
        texts.set(book.fullKey(catalog.namespace, entry.key), {
          ...placed(catalog, entry),
          state: "source",
        });
    return texts;
  }
  for (const { source, entry, found } of progressOf(
    book,
    locale,
    messageReader(config),
    ledgers(project, config),
  )) {
    // What it inherits is no text of its own.
    if (!found || found.catalog.locale !== locale) continue;
    const { catalog, standing } = found;
    texts.set(book.fullKey(source.namespace, entry.key), {
      ...placed(catalog, found.entry),
      state: standing.stale ? "stale" : standing.state,
    });
  }
  return texts;
}

function placed({ locale, file, lines }: Catalog, { text, keySpan }: Entry): Omit<ListedText, "state"> {
  return { locale, text: showForms(text), file, line: lines.position(keySpan.start).line };
}
