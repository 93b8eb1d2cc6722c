import { catalogEdits, isWhole, type Book, type Catalog } from "../catalog/book.js";
import { addWaivers, type Waiver } from "../config/waivers.js";
import type { BookConfig } from "../config/schema.js";
import { catalogAdditions } from "../extract/additions.js";
import type { Finding } from "../lint/finding.js";
import { missingCategories } from "../lint/rules/plural/missing-category.js";
import type { PluralNode } from "../message/model.js";
import { messageReader } from "../message/parse.js";
import { makePlan, type Plan } from "../plan/plan.js";
import type { Project } from "./project.js";

/** Something that ends a finding and that a person has to look at, unlike a repair. */
export interface Mending {
  readonly what: "key" | "translation" | "categories";
  /** The key, or the categories. */
  readonly added: string;
  readonly plan: Plan;
}

/**
 * What a finding asks for and a person has to go on with: a key that code asks for, with words made of its name; a translation
 * that is missing, with the source's text; plural categories, with the text for `other`. Undefined for any other finding.
 */
export function mendingOf(project: Project, finding: Finding): Mending | undefined {
  const config = project.config.books.find(({ name }) => name === finding.book);
  if (!config) return undefined;
  const book = project.book(config);
  if (finding.rule === "key/undefined") return newKey(project, config, finding);
  const catalog = finding.locale === undefined ? undefined : book.catalog(finding.locale, finding.namespace);
  const source = book.catalog(book.sourceLocale, finding.namespace);
  if (!catalog || !isWhole(catalog) || finding.key === undefined) return undefined;
  if (finding.rule === "key/missing") return missingText(catalog, source, finding.key);
  if (finding.rule === "plural/missing-category") return moreCategories(book, catalog, finding.key);
  return undefined;
}

/** The plan that accepts a finding, for a reason. */
export function waiverPlan(
  { files, waivers: { file }, config }: Project,
  { rule, key, locale, book }: Finding,
  reason: string,
): Plan {
  const read = files.read(file);
  const before = read.ok ? read.text : undefined;
  const waiver: Waiver = {
    rule,
    ...(key !== undefined && { key }),
    ...(locale !== undefined && { locale }),
    ...(config.books.length > 1 && { book }),
    reason,
  };
  return makePlan([{ file, before, after: addWaivers(before, [waiver]) }], { waivers: 1 });
}

function newKey(project: Project, config: BookConfig, { file, key }: Finding): Mending | undefined {
  if (key === undefined) return undefined;
  const additions = catalogAdditions(project.book(config));
  const at = { key, file };
  if (!additions.hasRoomFor(at)) return undefined;
  const last = key.split(/[^\p{L}\p{N}_-]+/u).findLast((part) => part !== "") ?? key;
  const words = last
    .replace(/(?<=[\p{Ll}\p{N}])(?=\p{Lu})|[_-]+/gu, " ")
    .trim()
    .toLowerCase();
  additions.addSource(at, words.charAt(0).toUpperCase() + words.slice(1), undefined);
  return { what: "key", added: key, plan: makePlan(additions.changes(new Map()), { keys: 1 }) };
}

function missingText(catalog: Catalog, source: Catalog | undefined, key: string): Mending | undefined {
  const entry = source?.byKey.get(key);
  if (!source || !entry || entry.kind === "code") return undefined;
  const edits = catalogEdits();
  edits.edit(catalog, {
    add: [{ path: entry.path, text: entry.text }],
    order: source.entries.map(({ path }) => path),
  });
  return { what: "translation", added: key, plan: makePlan(edits.changes(), { texts: 1 }) };
}

/** Gives each plural of a message the categories that it lacks, with the text that it has for `other`. */
function moreCategories({ config }: Book, catalog: Catalog, key: string): Mending | undefined {
  const entry = catalog.byKey.get(key);
  if (!entry || config.plurals !== "inline") return undefined;
  const { locale } = catalog;
  const { plurals } = messageReader(config).read(entry.text, locale, key).facts;
  const added = new Set<string>();
  let after = entry.text;
  // From the end on, so that the places before stay what they are.
  for (const plural of [...plurals].sort((a, b) => startOf(b) - startOf(a))) {
    const other = plural.branches.find(({ selector }) => selector === "other");
    if (!other?.span) continue;
    const { start, end } = other.span;
    const written = entry.text.slice(start, end);
    const categories = missingCategories(plural, locale);
    const copies = categories.map((category) => `${category}${written.slice("other".length)} `);
    if (!written.startsWith("other") || copies.length === 0) continue;
    after = after.slice(0, start) + copies.join("") + after.slice(start);
    for (const category of categories) added.add(category);
  }
  if (added.size === 0) return undefined;
  const edits = catalogEdits();
  edits.edit(catalog, { set: [{ path: entry.path, text: after }] });
  return { what: "categories", added: [...added].join(", "), plan: makePlan(edits.changes(), { texts: 1 }) };
}

function startOf({ branches }: PluralNode): number {
  return branches.find(({ selector }) => selector === "other")?.span?.start ?? -1;
}
