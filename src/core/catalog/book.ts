import type { BookConfig, Config } from "../config/schema.js";
import type { Files } from "../files/files.js";
import { canonicalTag } from "../locale/tag.js";
import { lineIndex, type LineIndex } from "../text/line-index.js";
import { jsonFormat } from "./formats/json.js";
import { bookLayout, type Layout } from "./layout.js";
import type { CatalogContent, CatalogFormat, CatalogProblem, Entry } from "./model.js";

/** One catalog file of a book, or the place where one would be. */
export interface Catalog extends CatalogContent {
  readonly file: string;
  readonly locale: string;
  readonly namespace: string | undefined;
  readonly exists: boolean;
  /** The file's text as read, without its byte order mark; that of an empty catalog where there is no file. */
  readonly content: string;
  readonly bom: boolean;
  readonly format: CatalogFormat;
  /** The entries by key; of a key that is there twice, the last, as readers keep it. */
  readonly byKey: ReadonlyMap<string, Entry>;
  readonly lines: LineIndex;
  /** Set where the file is there and its text could not be had. */
  readonly unreadable?: string;
}

/** All catalogs of one book. */
export interface Book {
  readonly config: BookConfig;
  readonly layout: Layout;
  readonly sourceLocale: string;
  readonly targetLocales: readonly string[];
  /** The namespaces that the source locale has, sorted; `[undefined]` for a book without namespaces. */
  readonly namespaces: readonly (string | undefined)[];
  /** Every catalog of the configured locales, present or not, and those of namespaces only a target has. */
  readonly catalogs: readonly Catalog[];
  /** Files of the book's layout whose locale the configuration does not name. */
  readonly strays: readonly Catalog[];
  catalog(locale: string, namespace: string | undefined): Catalog | undefined;
  /** What code writes to ask for a key. */
  fullKey(namespace: string | undefined, key: string): string;
  /** The source entry that a key in code stands for. */
  resolve(fullKey: string): { readonly catalog: Catalog; readonly entry: Entry } | undefined;
}

/** The key separators of a book: between parts, and between namespace and key. */
export function separatorsOf(book: BookConfig): { readonly parts: string; readonly namespace: string } {
  const parts = book.naming.separator ?? ".";
  return { parts, namespace: book.naming.namespace ?? parts };
}

/** Reads every catalog of a book. Files that cannot be read are there with their problem; nothing is thrown. */
export function loadBook(files: Files, config: Config, book: BookConfig): Book {
  const layout = bookLayout(book);
  const separators = separatorsOf(book);
  const locales = [config.source, ...config.targets];
  const read = (file: string, locale: string, namespace: string | undefined) =>
    readCatalog(files, file, locale, namespace, separators.parts);
  const found = new Map<string, Catalog>();
  const strays: Catalog[] = [];
  const namespaces = new Set<string | undefined>();
  for (const file of files.list({ patterns: [layout.glob], ignore: book.ignore })) {
    const place = layout.place(file);
    if (!place) continue;
    // Letter case means nothing in a tag: the configuration's way of writing it is the one that counts.
    const locale = locales.find((one) => canonicalTag(one) === canonicalTag(place.locale));
    const catalog = read(file, locale ?? place.locale, place.namespace);
    if (locale === undefined) strays.push(catalog);
    else {
      found.set(catalogId(locale, place.namespace), catalog);
      if (locale === config.source) namespaces.add(place.namespace);
    }
  }
  if (!layout.hasNamespaces) namespaces.add(undefined);
  const ordered = [...namespaces].sort();
  for (const locale of locales) {
    for (const namespace of ordered) {
      const id = catalogId(locale, namespace);
      if (!found.has(id)) found.set(id, read(layout.path(locale, namespace), locale, namespace));
    }
  }
  const catalogs = [...found.values()].sort(
    (a, b) =>
      locales.indexOf(a.locale) - locales.indexOf(b.locale) || compare(a.namespace ?? "", b.namespace ?? ""),
  );
  const fullKey = (namespace: string | undefined, key: string) =>
    namespace === undefined ? key : namespace + separators.namespace + key;
  return {
    config: book,
    layout,
    sourceLocale: config.source,
    targetLocales: config.targets,
    namespaces: ordered,
    catalogs,
    strays,
    catalog: (locale, namespace) => found.get(catalogId(locale, namespace)),
    fullKey,
    resolve(full) {
      for (const namespace of namespaces) {
        const prefix = namespace === undefined ? "" : namespace + separators.namespace;
        if (!full.startsWith(prefix)) continue;
        const catalog = found.get(catalogId(config.source, namespace));
        const entry = catalog?.byKey.get(full.slice(prefix.length));
        if (catalog && entry) return { catalog, entry };
      }
      return undefined;
    },
  };
}

/** Reads one catalog file. */
export function readCatalog(
  files: Files,
  file: string,
  locale: string,
  namespace: string | undefined,
  separator: string,
): Catalog {
  const format = jsonFormat;
  const base = { file, locale, namespace, format };
  const read = files.read(file);
  if (!read.ok) {
    const empty = {
      ...base,
      content: format.empty,
      bom: false,
      entries: [],
      emptyGroups: [],
      byKey: new Map<string, Entry>(),
    };
    const lines = lineIndex("");
    if (read.trouble === "absent") return { ...empty, exists: false, problems: [], lines };
    const problem: CatalogProblem = {
      code: "syntax",
      message:
        read.trouble === "encoding"
          ? `this is not UTF-8 text: ${read.detail}`
          : `it cannot be read: ${read.detail}`,
      remedy: read.trouble === "encoding" ? "save the file as UTF-8" : "see that it can be read",
      span: { start: 0, end: 0 },
    };
    return { ...empty, exists: true, problems: [problem], lines, unreadable: read.detail };
  }
  const content = format.read(read.text, separator);
  return {
    ...base,
    ...content,
    exists: true,
    content: read.text,
    bom: read.bom,
    byKey: new Map(content.entries.map((entry) => [entry.key, entry])),
    lines: lineIndex(read.text),
  };
}

/** Whether everything in the catalog could be read, so that what is not in it is really missing. */
export function isWhole(catalog: Catalog): boolean {
  return catalog.problems.length === 0;
}

function catalogId(locale: string, namespace: string | undefined): string {
  return namespace === undefined ? locale : `${locale}\u0000${namespace}`;
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
