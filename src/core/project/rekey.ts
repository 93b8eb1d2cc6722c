import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { separatorsOf } from "../text/separators.js";
import { placementIn } from "../catalog/placement.js";
import { renameWaivedKeys } from "../config/waivers.js";
import {
  catalogEdits,
  descriptionOf,
  isWhole,
  unreadNote,
  type Book,
  type Catalog,
} from "../catalog/book.js";
import { withRenamed } from "../catalog/declared.js";
import type { Entry, EntryPath, PathText } from "../catalog/model.js";
import { ledgerChanges, readLedger, type AtticRecord, type LedgerRecord } from "../ledger/ledger.js";
import { readSourceTexts, renameSourceTexts } from "../ledger/source-texts.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { listCode, readInTurn } from "../source/book-code.js";
import type { SourceFile } from "../source/model.js";
import { prepareReaders } from "../source/read.js";
import { unreadCode } from "../source/unread-code.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import { composedKeyTest } from "../text/key-pattern.js";
import { nearestKey } from "../text/nearest.js";
import { booksIn, type Project, type Scope } from "./project.js";

export type RekeyResult = { readonly ok: true; readonly plan: Plan } | ({ readonly ok: false } & Notice);

const say = notices("rekey", {
  mismatch: {
    message: '"{from}" cannot be renamed to "{to}"',
    remedy: "give one key and its new name, or a group and its new name: checkout.* basket.*",
  },
  unknown: { message: 'unknown key "{key}"', remedy: "`fond preview '**'` lists all keys" },
  "unknown-unread": {
    message: 'unknown key "{key}", and {file} cannot be read: {problem}',
    remedy: "make the file readable first; `fond lint` shows where it is not",
  },
  misspelled: { message: 'unknown key "{key}"', remedy: 'did you mean "{meant}"?' },
  "no-catalog": { message: 'no catalog for the namespace of "{key}"', remedy: "create {file} first" },
  exists: {
    message: 'key "{key}" already exists, with the text "{text}" instead of "{other}"',
    remedy: "choose another name, or make the two texts the same first",
  },
  dropped: {
    message: '"{key}" keeps its own text; the text of "{old}", "{text}", is dropped',
    remedy: "check which of the two is better",
  },
  blocked: {
    message: 'key "{key}" cannot be added: "{other}" is already in {file}',
    remedy: "choose a name that is neither the group of a text nor inside a text",
  },
  composed: {
    message: 'this key is composed at run time and may be "{key}"',
    remedy: "change it by hand if it looks up a renamed key",
  },
  "not-rewritten": {
    message: 'the lookup of "{key}" cannot be rewritten',
    remedy: "change it by hand",
  },
  unread: {
    message: "{keys} in code that is not read",
    remedy: "change it by hand if it looks up a renamed key",
  },
  mention: {
    message: '"{key}" appears here, outside any known lookup',
    remedy: "change it by hand if it looks up a renamed key",
  },
});

/** What a key becomes; undefined for a key that stays. */
interface Renaming {
  (codeKey: string): string | undefined;
  /** How the keys of a whole group begin, before and after. */
  readonly group?: { readonly from: string; readonly to: string };
}

/**
 * Plans new names for keys, `old.key` to `new.key` or a whole group, `checkout.*` to `basket.*`: in every catalog, the
 * ledger, the waivers and the code. A new name that already exists with the same source text takes the old one in.
 */
export async function rekeyProject(
  project: Project,
  scope: Scope,
  from: string,
  to: string,
): Promise<RekeyResult> {
  if (from.endsWith("*") !== to.endsWith("*") || /\*(?!$)/.test(from) || /\*(?!$)/.test(to) || from === to)
    return { ok: false, ...say("mismatch", { from, to }) };
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const known = new Set<string>();
  const tally = { "keys renamed": 0, "keys merged": 0, "lookups rewritten": 0 };
  const renamed = new Set<string>();
  const renamings: Renaming[] = [];
  const books = booksIn(project, scope);
  const unread: Catalog[] = [];
  for (const config of books) {
    const book = project.book(config);
    unread.push(...book.catalogsOf(book.sourceLocale).filter((one) => one.exists && !isWhole(one)));
    const rename = renamingOf(from, to, separatorsOf(config).parts, book);
    renamings.push(rename);
    for (const catalog of book.catalogs)
      for (const key of catalog.byKey.keys()) known.add(book.codeKey(catalog.namespace, key));
    if (![...known].some((key) => rename(key) !== undefined)) continue;
    const moved = moveEntries(book, rename, notes, tally);
    if (!moved.ok) return moved;
    changes.push(...moved.changes, ...declaredNames(book, rename));
    for (const key of moved.keys) renamed.add(key);
    for (const locale of book.targetLocales) {
      const ledger = readLedger(project.files, project.config.ledger, config.name, locale);
      const name = (full: string) => fullAfter(book, rename, full) ?? full;
      const records = renameKeys<LedgerRecord>(ledger.records, name);
      const attic = renameKeys<AtticRecord>(ledger.attic, name);
      if (records || attic)
        changes.push(...ledgerChanges(ledger, records ?? ledger.records, attic ?? ledger.attic));
    }
    const sources = readSourceTexts(project.files, project.config.ledger, config.name);
    changes.push(...renameSourceTexts(sources, (full) => fullAfter(book, rename, full)));
    if (config.code.length === 0) continue;
    const listed = listCode(project.files, config);
    await prepareReaders(listed, project.files);
    for (const file of readInTurn(project.files, config, project.config.source, [], listed)) {
      const edits = renameLookups(file, book, rename, notes);
      if (edits.length === 0) continue;
      tally["lookups rewritten"] += edits.length;
      changes.push({
        file: file.file,
        before: file.text,
        after: applyEdits(file.text, edits),
        bom: file.bom,
      });
    }
  }
  if (renamed.size === 0) {
    const [broken] = unread;
    if (broken)
      return {
        ok: false,
        ...say("unknown-unread", {
          key: from,
          file: broken.file,
          problem: broken.unreadable ?? broken.problems[0]?.message ?? "",
        }),
      };
    const near = nearestKey(from.replace(/\W?\*$/, ""), known);
    return {
      ok: false,
      ...(near === undefined ? say("unknown", { key: from }) : say("misspelled", { key: from, meant: near })),
    };
  }
  const { file: waiverFile } = project.waivers;
  const read = project.files.read(waiverFile);
  const waivers = read.ok
    ? [
        {
          file: waiverFile,
          before: read.text,
          after: renameWaivedKeys(read.text, from, to, (name) => {
            const book = books.find((one) => one.name === name) ?? books[0];
            return book ? separatorsOf(book).parts : ".";
          }),
          bom: read.bom,
        },
      ]
    : [];
  const old = new Set([...known].filter((key) => renamings.some((rename) => rename(key) !== undefined)));
  for (const { file, keys } of unreadCode(project.files).filesWith(old))
    notes.push({ file, ...say("unread", { keys: keys.map((key) => `"${key}"`).join(", ") }) });
  const summary = Object.fromEntries(Object.entries(tally).filter(([, count]) => count > 0));
  return { ok: true, plan: makePlan([...changes, ...waivers], summary, notes) };
}

/** A group is named with or without its star. */
function renamingOf(from: string, to: string, separator: string, book: Book): Renaming {
  const isGroup =
    from.endsWith("*") ||
    !book.catalogs.some((one) =>
      [...one.byKey.keys()].some((key) => book.codeKey(one.namespace, key) === from),
    );
  const [old, fresh] = [from, to].map((name) => name.replace(/(?<!\*)\*+$/, "")) as [string, string];
  const ends = (name: string) => (name === "" || !/[\p{L}\p{N}]$/u.test(name) ? name : name + separator);
  if (!isGroup) return (key) => (key === from ? to : undefined);
  const group = { from: ends(old), to: ends(fresh) };
  const rename = (key: string) =>
    key.startsWith(group.from) && key !== group.from ? group.to + key.slice(group.from.length) : undefined;
  return Object.assign(rename, { group });
}

interface Place {
  readonly namespace: string | undefined;
  readonly key: string;
}

/**
 * The namespace and key that code means by a key; a namespace that is not there yet is the first part. In books whose
 * catalogs differ by folder or name alone, a key stays in the catalog that it is in.
 */
function placeOf(book: Book, codeKey: string, current: string | undefined): Place {
  if (!book.layout.hasNamespaces) return { namespace: current, key: codeKey };
  const { namespace: separator } = separatorsOf(book.config);
  const namespaces = [...new Set(book.catalogs.map(({ namespace }) => namespace ?? ""))].sort(
    (a, b) => b.length - a.length,
  );
  const found = namespaces.find((name) => codeKey.startsWith(name + separator));
  const at = codeKey.indexOf(separator);
  const namespace = found ?? (at < 0 ? "" : codeKey.slice(0, at));
  return { namespace, key: codeKey.slice(namespace === "" ? 0 : namespace.length + separator.length) };
}

function fullAfter(book: Book, rename: Renaming, full: string): string | undefined {
  for (const namespace of new Set(book.catalogs.map((one) => one.namespace))) {
    const prefix = book.fullKey(namespace, "");
    if (!full.startsWith(prefix)) continue;
    const fresh = rename(book.codeKey(namespace, full.slice(prefix.length)));
    if (fresh === undefined) continue;
    const place = placeOf(book, fresh, namespace);
    return book.fullKey(place.namespace, place.key);
  }
  return undefined;
}

function moveEntries(
  book: Book,
  rename: Renaming,
  notes: PlanNote[],
  tally: Record<"keys renamed" | "keys merged", number>,
):
  | { readonly ok: true; readonly changes: FileChange[]; readonly keys: readonly string[] }
  | Extract<RekeyResult, { ok: false }> {
  const edits = catalogEdits();
  const keys: string[] = [];
  const { parts } = separatorsOf(book.config);
  for (const catalog of book.catalogs) {
    if (!catalog.exists) continue;
    const moving = [...catalog.byKey.values()].flatMap((entry) => {
      const fresh = rename(book.codeKey(catalog.namespace, entry.key));
      return fresh === undefined ? [] : [{ entry, place: placeOf(book, fresh, catalog.namespace), fresh }];
    });
    if (!isWhole(catalog)) {
      notes.push(unreadNote(catalog));
      continue;
    }
    if (moving.length === 0) continue;
    const byHome = new Map<Catalog, { readonly entry: Entry; readonly path: EntryPath }[]>();
    const leaving: EntryPath[] = [];
    const gone = new Set(moving.map(({ entry }) => entry));
    for (const { entry, place, fresh } of moving) {
      const home = book.catalog(catalog.locale, place.namespace);
      if (!home)
        return {
          ok: false,
          ...say("no-catalog", { key: fresh, file: book.layout.path(catalog.locale, place.namespace) }),
        };
      const there = home.byKey.get(place.key);
      const isSource = catalog.locale === book.sourceLocale;
      if (isSource) keys.push(entry.key);
      if (there && !gone.has(there)) {
        if (isSource && there.text !== entry.text)
          return {
            ok: false,
            ...say("exists", { key: fresh, text: there.text, other: entry.text }),
          };
        if (there.text !== entry.text)
          notes.push({
            file: home.file,
            ...home.lines.position(there.keySpan.start),
            ...say("dropped", { key: fresh, old: entry.key, text: entry.text }),
          });
        if (isSource) tally["keys merged"]++;
        leaving.push(entry.path);
        continue;
      }
      const placement = placementIn(home, parts, [...gone]);
      const path = placement.pathOf({ key: place.key, path: place.key.split(parts) });
      const blocker = placement.blocker(path);
      if (blocker)
        return { ok: false, ...say("blocked", { key: fresh, other: blocker.key, file: home.file }) };
      if (isSource) tally["keys renamed"]++;
      leaving.push(entry.path);
      byHome.set(home, [...(byHome.get(home) ?? []), { entry, path }]);
    }
    const own = byHome.get(catalog) ?? [];
    if (own.length === leaving.length && edits.rename(catalog, own)) continue;
    const arrivals = (home: Catalog): PathText[] =>
      (byHome.get(home) ?? []).map(({ entry, path }) => {
        const comment = descriptionOf(catalog, entry);
        return {
          path,
          text: entry.text,
          ...(comment !== undefined && home.format.comments && { comment }),
        };
      });
    // What is renamed in its own catalog keeps its place there.
    const stays = new Map((byHome.get(catalog) ?? []).map(({ entry, path }) => [entry, path]));
    edits.edit(catalog, {
      remove: leaving,
      add: arrivals(catalog),
      order: [...catalog.byKey.values()].map((entry) => stays.get(entry) ?? entry.path),
    });
    for (const home of byHome.keys()) if (home !== catalog) edits.edit(home, { add: arrivals(home) });
  }
  return { ok: true, changes: edits.changes(), keys };
}

/** The files of types that declare the texts, with the new names. */
function declaredNames(book: Book, rename: Renaming): FileChange[] {
  const { parts } = separatorsOf(book.config);
  return book.declarations().flatMap((declared): FileChange[] => {
    const { file, text, bom, catalogs } = declared;
    const after = withRenamed(declared, (path) => {
      const catalog = catalogs.find(({ byKey, separator }) => byKey.has(path.join(separator)));
      const fresh = catalog && rename(book.codeKey(catalog.namespace, path.join(catalog.separator)));
      if (fresh === undefined) return undefined;
      const { key } = placeOf(book, fresh, catalog?.namespace);
      return path.length === 1 ? [key] : key.split(parts);
    });
    return after === text ? [] : [{ file, before: text, after, bom }];
  });
}

function renameKeys<Row>(
  rows: ReadonlyMap<string, Row>,
  rename: (full: string) => string,
): ReadonlyMap<string, Row> | undefined {
  if (![...rows.keys()].some((full) => rename(full) !== full)) return undefined;
  const renamed = new Map<string, Row>();
  for (const [full, row] of rows) if (rename(full) === full) renamed.set(full, row);
  for (const [full, row] of rows)
    if (rename(full) !== full && !renamed.has(rename(full))) renamed.set(rename(full), row);
  return renamed;
}

function renameLookups(file: SourceFile, book: Book, rename: Renaming, notes: PlanNote[]): TextEdit[] {
  const edits: TextEdit[] = [];
  const note = (start: number, notice: Notice) =>
    notes.push({ file: file.file, ...file.lines.position(start), ...notice });
  for (const { key, keySpan, isMember } of file.lookups) {
    if (key.kind === "unknown") continue;
    if (key.kind === "composed") {
      const { group } = rename;
      if (
        group &&
        group.from !== "" &&
        key.parts[0]?.startsWith(group.from) &&
        file.text.startsWith(group.from, keySpan.start)
      ) {
        edits.push({ start: keySpan.start, end: keySpan.start + group.from.length, replacement: group.to });
        continue;
      }
      const fits = composedKeyTest(key.parts);
      const hit = book.catalogs
        .flatMap((one) => [...one.byKey.keys()].map((name) => book.codeKey(one.namespace, name)))
        .find((name) => rename(name) !== undefined && fits(name));
      if (hit !== undefined) note(keySpan.start, say("composed", { key: hit }));
      continue;
    }
    const fresh = rename(key.value);
    if (fresh === undefined) continue;
    const written = file.text.slice(keySpan.start, keySpan.end);
    const bound = key.value.endsWith(written)
      ? key.value.slice(0, key.value.length - written.length)
      : undefined;
    // Behind a full stop a name stands, in brackets the key of one group.
    const fits = isMember && file.text[keySpan.start - 1] === "." ? /^[\w$]+$/ : isMember ? /^[^.]*$/ : /^/;
    if (bound === undefined || !fresh.startsWith(bound) || !fits.test(fresh.slice(bound.length)))
      note(keySpan.start, say("not-rewritten", { key: key.value }));
    else edits.push({ ...keySpan, replacement: fresh.slice(bound.length) });
  }
  const asked = new Set(file.lookups.flatMap(({ key }) => (key.kind === "fixed" ? [key.value] : [])));
  for (const mention of file.mentions) {
    if (asked.has(mention) || rename(mention) === undefined || book.resolve(mention) === undefined) continue;
    const at = file.text.indexOf(mention);
    note(Math.max(at, 0), say("mention", { key: mention }));
  }
  return edits;
}
