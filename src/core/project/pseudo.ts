import { catalogEdits, isWhole, loadBook, unreadNote, type Book } from "../catalog/book.js";
import type { EntryPath, PathText } from "../catalog/model.js";
import { placementIn } from "../catalog/placement.js";
import { editConfig } from "../config/edit.js";
import { canonicalTag } from "../locale/tag.js";
import { notices } from "../message/notices.js";
import { messageReader } from "../message/parse.js";
import { pseudoMessage, type PseudoOptions } from "../message/pseudo.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { separatorsOf } from "../text/separators.js";
import type { Notice } from "../text/wording.js";
import { booksIn, type Project, type Scope } from "./project.js";

const say = notices("pseudo", {
  "no-tag": {
    message: '"{tag}" is not a language tag (BCP 47)',
    remedy: 'write one that no people have, such as "en-XA"',
  },
  taken: {
    message: '"{tag}" is a locale of this project; its translations would be overwritten',
    remedy: 'choose a tag that no people have, such as "en-XA"',
  },
});

export type PseudoResult = { readonly ok: true; readonly plan: Plan } | ({ readonly ok: false } & Notice);

/** Plans the catalogs of a pseudo-locale: every source text, changed by rule. The same texts give the same catalogs. */
export function pseudoProject(
  project: Project,
  scope: Scope,
  tag: string,
  options: PseudoOptions,
): PseudoResult {
  const { config, files } = project;
  const locale = canonicalTag(tag);
  if (locale === undefined) return { ok: false, ...say("no-tag", { tag }) };
  if ([config.source, ...config.targets].some((one) => canonicalTag(one) === locale))
    return { ok: false, ...say("taken", { tag: locale }) };
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  let count = 0;
  for (const own of booksIn(project, scope)) {
    const book = loadBook(files, { ...config, targets: [...config.targets, locale] }, own);
    const edits = catalogEdits();
    count += changeBook(book, locale, options, edits, notes);
    changes.push(...edits.changes());
  }
  const pseudo = config.pseudo ?? [];
  if (!pseudo.some((one) => canonicalTag(one) === locale)) {
    const read = files.read(project.configFile);
    if (read.ok)
      changes.push({
        file: project.configFile,
        before: read.text,
        after: editConfig(project.configFile, read.text, ["pseudo"], [...pseudo, locale]),
        bom: read.bom,
      });
  }
  return {
    ok: true,
    plan: makePlan(changes, count > 0 ? { "texts in the pseudo-locale": count } : {}, notes),
  };
}

function changeBook(
  book: Book,
  locale: string,
  options: PseudoOptions,
  edits: ReturnType<typeof catalogEdits>,
  notes: PlanNote[],
): number {
  const reader = messageReader(book.config);
  const { ranges } = reader.syntax;
  const own: PseudoOptions = {
    ...options,
    ...(ranges && {
      ranges: {
        read: (style) => ranges.read(style, (text) => reader.readOnce(text).nodes),
        write: (branches) => ranges.write(branches, (nodes) => reader.print(nodes)),
      },
    }),
  };
  let count = 0;
  for (const catalog of book.catalogsOf(locale)) {
    const source = book.catalog(book.sourceLocale, catalog.namespace);
    const broken = [catalog, ...(source ? [source] : [])].find((one) => !isWhole(one));
    if (broken || !source) {
      if (broken) notes.push(unreadNote(broken));
      continue;
    }
    const placement = placementIn(catalog, separatorsOf(book.config).parts, []);
    const set: PathText[] = [];
    const add: PathText[] = [];
    const order: EntryPath[] = [];
    for (const entry of source.byKey.values()) {
      if (entry.kind === "code") continue;
      const message = reader.read(entry.text, book.sourceLocale, entry.key);
      const isPlain = entry.kind !== "text" || entry.text === "" || message.isBroken;
      const text = isPlain ? entry.text : reader.print(pseudoMessage(message.nodes, own));
      const there = catalog.byKey.get(entry.key);
      const path = there?.path ?? placement.pathOf(entry);
      order.push(path);
      if (there) {
        if (there.text !== text) set.push({ path, text });
      } else {
        placement.take(entry, path);
        add.push({ path, text });
      }
      count++;
    }
    const remove = [...catalog.byKey.values()]
      .filter(({ key, isInherited }) => !source.byKey.has(key) && !isInherited)
      .map(({ path }) => path);
    if (set.length > 0) edits.edit(catalog, { set });
    if (add.length + remove.length > 0) edits.edit(catalog, { add, remove, order });
  }
  return count;
}
