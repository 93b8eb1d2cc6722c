import { catalogEdits, isWhole, pathsIn, type Book, type Catalog } from "../catalog/book.js";
import { withDeclared } from "../catalog/declared.js";
import { formatOf } from "../catalog/formats/index.js";
import type { EntryPath, PathText } from "../catalog/model.js";
import { viewOf } from "../catalog/view.js";
import type { FileChange } from "../plan/plan.js";
import { separatorsOf } from "../text/separators.js";

/** A key with the file of code that asks for it: where catalogs stand beside code, the file says which one is meant. */
export interface KeyInFile {
  readonly key: string;
  readonly file: string;
}

/** What extraction adds to a book's catalogs. */
export interface CatalogAdditions {
  /** Whether the source catalog that a key belongs to is known and can take it. */
  hasRoomFor(key: KeyInFile): boolean;
  /** Adds a source text, with what a comment says of it to translators. */
  addSource(key: KeyInFile, text: string, note: string | undefined): void;
  /** Adds a translation to a target locale's catalog, unless it has one or cannot be read. */
  addTranslation(key: KeyInFile, locale: string, text: string): void;
  /** How many translations were added. */
  translations(): number;
  /** The changed and the new files; `rewritten` are the texts of files of code that catalogs may stand in. */
  changes(rewritten: ReadonlyMap<string, string>): readonly FileChange[];
}

export function catalogAdditions(book: Book): CatalogAdditions {
  /** By namespace; the empty one is that of books without. */
  const sources = new Map<string, PathText[]>();
  const translated = new Map<Catalog, PathText[]>();
  const placeOf = (key: KeyInFile) => {
    const { namespace, key: own } = splitKey(book, key);
    return { namespace, own, path: pathOf(book, own) };
  };
  return {
    hasRoomFor(key) {
      const { namespace } = splitKey(book, key);
      // Which of several catalogs it would be, nothing tells.
      if (namespace === undefined && book.layout.hasParts) return false;
      const catalog = book.catalog(book.sourceLocale, namespace);
      return catalog === undefined || isWhole(catalog);
    },
    addSource(key, text, note) {
      const { namespace = "", path } = placeOf(key);
      // What the code tells translators stands above the text, where the format has room for it.
      const comment = note === undefined || note.trim() === "" ? undefined : note.replace(/\s+/g, " ").trim();
      const added = { path, text, ...(comment !== undefined && { comment }) };
      const list = sources.get(namespace);
      if (list) list.push(added);
      else sources.set(namespace, [added]);
    },
    addTranslation(key, locale, text) {
      const { namespace, own, path } = placeOf(key);
      const catalog = book.catalog(locale, namespace);
      if (!catalog || !isWhole(catalog) || catalog.byKey.has(own)) return;
      const list = translated.get(catalog) ?? [];
      const id = path.join("\u0000");
      if (!list.some((one) => one.path.join("\u0000") === id))
        translated.set(catalog, [...list, { path, text }]);
    },
    translations: () => [...translated.values()].reduce((sum, list) => sum + list.length, 0),
    changes: (rewritten) => [
      ...editedCatalogs(book, sources, translated, rewritten),
      ...newCatalogs(book, sources),
      ...declarations(book, sources),
    ],
  };
}

function editedCatalogs(
  book: Book,
  sources: ReadonlyMap<string, readonly PathText[]>,
  translated: ReadonlyMap<Catalog, readonly PathText[]>,
  rewritten: ReadonlyMap<string, string>,
): readonly FileChange[] {
  const edits = catalogEdits(rewritten);
  for (const catalog of book.catalogsOf(book.sourceLocale)) {
    const add = sources.get(catalog.namespace ?? "");
    const order = [...catalog.entries, ...(add ?? [])].map(({ path }) => path);
    if (add) edits.edit(catalog, { add, order });
  }
  for (const [catalog, add] of translated) edits.edit(catalog, { add });
  return edits.changes();
}

/** The files of types that declare the texts, with the new ones. */
function declarations(book: Book, sources: ReadonlyMap<string, readonly PathText[]>): readonly FileChange[] {
  return book.declarations().flatMap((declared): FileChange[] => {
    const { file, text, bom, catalogs } = declared;
    const added = catalogs
      .flatMap(({ namespace = "" }) => sources.get(namespace) ?? [])
      .map(({ path }) => path);
    const after = withDeclared(declared, added, [...catalogs.flatMap(pathsIn), ...added]);
    return after === text ? [] : [{ file, before: text, after, bom }];
  });
}

/** The files of namespaces that have no catalog yet. */
function newCatalogs(book: Book, sources: ReadonlyMap<string, readonly PathText[]>): readonly FileChange[] {
  const { layout, sourceLocale, config } = book;
  const there = new Set(book.catalogsOf(sourceLocale).map(({ namespace }) => namespace ?? ""));
  const format = formatOf(config);
  const view = viewOf(config, layout.spell(sourceLocale));
  return [...sources].flatMap(([namespace, added]): FileChange[] => {
    if (there.has(namespace)) return [];
    const file = layout.path(sourceLocale, layout.hasParts ? namespace : undefined);
    const add = added.map(({ path, ...rest }) => ({ ...rest, path: view.toFile(path) }));
    return [{ file, before: undefined, after: format.edit(format.empty, { add }) }];
  });
}

function pathOf({ config }: Book, key: string): EntryPath {
  if (config.naming.pattern === "{text}") return [key];
  const format = formatOf(config);
  const isFlat = config.naming.shape === "flat" || !format.nests || format.holds === "all-locales";
  return isFlat ? [key] : key.split(separatorsOf(config).parts);
}

function splitKey(
  book: Book,
  { key: fullKey, file }: KeyInFile,
): { readonly namespace: string | undefined; readonly key: string } {
  const { layout } = book;
  if (!layout.hasParts) return { namespace: undefined, key: fullKey };
  const { home } = book.config.naming;
  if (!layout.hasNamespaces) {
    const named = book.catalogsOf(book.sourceLocale).find(({ namespace }) => namespace === home);
    const near = nearestCatalogs(book, undefined, file);
    const [only] = near;
    const namespace =
      near.length === 1 ? only?.namespace : (placeByGroup(book, near, fullKey) ?? named?.namespace);
    return { namespace, key: fullKey };
  }
  const separator = separatorsOf(book.config).namespace;
  const at = fullKey.indexOf(separator);
  if (at < 0 && home !== undefined) return { namespace: homeOf(book, home, file) ?? home, key: fullKey };
  const namespace = fullKey.slice(0, at);
  return {
    namespace: homeOf(book, namespace, file) ?? namespace,
    key: fullKey.slice(at + separator.length),
  };
}

/** Of catalogs that differ by folder or name, the one for a file; undefined where several are as near. */
function homeOf(book: Book, codeNamespace: string | undefined, file: string): string | undefined {
  const near = nearestCatalogs(book, codeNamespace, file);
  return near.length > 1 ? undefined : near[0]?.namespace;
}

/** Of catalogs that differ by folder or name, those of the code's namespace whose path has most folders in common with a file's. */
function nearestCatalogs(book: Book, codeNamespace: string | undefined, file: string): readonly Catalog[] {
  const { layout, sourceLocale, config } = book;
  const catalogs = book.catalogsOf(sourceLocale);
  // A constant holds the texts of its own file.
  if (config.constant !== undefined) return catalogs.filter((catalog) => catalog.file === file);
  const near = catalogs
    .filter(({ namespace, exists }) => exists && layout.codeNamespace(namespace) === codeNamespace)
    .map((catalog) => ({ catalog, shared: sharedFolders(catalog.file, file) }));
  const most = Math.max(...near.map(({ shared }) => shared));
  return near.filter(({ shared }) => shared === most).map(({ catalog }) => catalog);
}

/**
 * Where a key belongs in a book whose catalogs are one to code: with the group that it stands in, or in a file of its own where each
 * file is called as the one group in it; undefined where neither says.
 */
function placeByGroup(book: Book, catalogs: readonly Catalog[], key: string): string | undefined {
  const { parts } = separatorsOf(book.config);
  const names = parts === "" ? [key] : key.split(parts);
  for (let depth = names.length - 1; depth > 0; depth--) {
    const group = names.slice(0, depth).join(parts);
    const having = (list: readonly Catalog[]) =>
      list.filter((one) => groupingOf(one, parts).groups.has(group));
    const near = having(catalogs);
    // A group in a group is no chance, wherever it is.
    const found = near.length > 0 || depth < 2 ? near : having(book.catalogsOf(book.sourceLocale));
    if (found.length > 1) return undefined;
    if (found[0]) return found[0].namespace;
  }
  const [group] = names;
  const isNamedByGroup = (catalog: Catalog) => {
    const { groups, roots } = groupingOf(catalog, parts);
    return roots.size === 0 || (roots.size === 1 && groups.has(catalog.namespace ?? ""));
  };
  const isAlone = /^[^{}]*(?:\{(?:locale|name)\}[^{}]*){1,9}$/.test(book.config.files);
  const hasOwn =
    names.length > 1 && isAlone && catalogs.length >= fewestNamed && catalogs.every(isNamedByGroup);
  return hasOwn && /^[\w-]+$/.test(group ?? "") ? group : undefined;
}

/** So many files that are called as the group in them are no chance. */
const fewestNamed = 3;

/** The groups that a catalog has, and the names at the beginning of its keys. */
interface Grouping {
  readonly groups: ReadonlySet<string>;
  readonly roots: ReadonlySet<string>;
}

const groupings = new WeakMap<Catalog, Grouping>();

function groupingOf(catalog: Catalog, parts: string): Grouping {
  const known = groupings.get(catalog);
  if (known) return known;
  const [groups, roots] = [new Set<string>(), new Set<string>()];
  for (let at = 0; at < catalog.table.size; at++) {
    const names = catalog.table.keyAt(at).split(parts);
    roots.add(names[0] ?? "");
    for (let depth = 1; depth < names.length; depth++) groups.add(names.slice(0, depth).join(parts));
  }
  groupings.set(catalog, { groups, roots });
  return { groups, roots };
}

/** How many folders two paths begin with alike. */
function sharedFolders(one: string, other: string): number {
  const [a, b] = [one, other].map((path) => path.split("/").slice(0, -1));
  let count = 0;
  while (count < (a?.length ?? 0) && a?.[count] === b?.[count]) count++;
  return count;
}
