import { partEnds } from "../text/separators.js";
import { type Book, type Catalog } from "../catalog/book.js";
import type { RuleLevel } from "../config/schema.js";
import type { Keep } from "../text/kept.js";
import { wordings } from "../text/wording.js";
import { noticeOf } from "../message/notices.js";
import type { Finding } from "./finding.js";
import type { Rule } from "./rule.js";
import { inlineWaivers, type InlineWaiver } from "./inline-waivers.js";
import { rules as allRules } from "./rules/index.js";
import { type CatalogFindings, SourceFinder, entryLinter, reaches } from "./entry-linter.js";
import { type PartLevel, levelNamed, levelsOf, meansRule } from "./levels.js";
import { RuleRun, type Sink } from "./rule-run.js";
import type { LintSubject } from "./subject.js";

export interface LintOptions {
  /** The levels that the configuration sets, by rule; a book's own come before those of the project. */
  readonly levels?: Readonly<Record<string, RuleLevel>>;
  /** Levels for parts: some locales, some keys. The last that fits wins. */
  readonly parts?: readonly PartLevel[];
  /** The rules to run; all where not given. */
  readonly rules?: readonly Rule[];
  /** Only findings about these locales, or about none; all where not given. */
  readonly locales?: readonly string[];
  /** What was made before, where the book is looked at again and again. */
  readonly keep?: Keep;
}

const newSink = (): Sink => ({ findings: [], waived: new Set(), found: 0 });

function pour(from: Sink, into: Sink): void {
  for (const finding of from.findings) into.findings.push(finding);
  for (const waiver of from.waived) into.waived.add(waiver);
}

/** Runs the rules over one book. Findings come sorted by file and place, the same from run to run. */
export function lintBook(subject: LintSubject, options: LintOptions = {}): Finding[] {
  const sink = newSink();
  const { findings, waived } = sink;
  const { keep } = options;
  const sources = new SourceFinder(subject, keep);
  const running = (options.rules ?? allRules).flatMap((rule) => {
    const level = levelNamed(subject.book.config.rules, rule.id) ?? levelNamed(options.levels, rule.id);
    const parts = (options.parts ?? []).filter((part) => meansRule(part, rule.id, subject.book.config.name));
    if (level === "off" && parts.length === 0) return [];
    const levelOf = levelsOf(level, parts, partEnds(subject.book.config));
    const run = new RuleRun(rule, levelOf, subject, sources.find, sink);
    return rule.applies?.(run) === false ? [] : [run];
  });
  for (const run of running) run.rule.book?.(run);
  for (const catalog of [...subject.book.catalogs, ...subject.book.strays]) {
    if (!catalog.exists) continue;
    if (keep) lintAgain(catalog, running, subject, sources, options, keep, sink);
    else lintCatalog(catalog, running, subject, sources);
  }
  const { locales } = options;
  if (!options.rules && !locales) findings.push(...unusedWaivers(subject.book, waived));
  const wanted = locales
    ? findings.filter(({ locale }) => locale === undefined || locales.includes(locale))
    : findings;
  return sortFindings(wanted);
}

/** What is said of waivers in comments of catalogs. */
export const waiverMessages = wordings("waiver/idle", {
  "no-reason": {
    message: "waiver of {rule} has no reason, so it has no effect",
    remedy: "write the reason after the rule",
  },
  expired: {
    message: 'this waiver expired on {date} ("{reason}")',
    remedy: "fix what it accepted, or give it a new date",
  },
  "unused-entry": { message: 'unused waiver ("{reason}")', remedy: "remove it" },
  unused: { message: 'unused waiver of {rule} ("{reason}")', remedy: "remove it" },
});

/** Waivers in comments of catalogs that accept nothing: what they accepted is gone, or they have no reason. */
function unusedWaivers({ catalogs, config }: Book, used: ReadonlySet<InlineWaiver>): Finding[] {
  return catalogs.flatMap((catalog) =>
    inlineWaivers(catalog)
      .filter((waiver) => !used.has(waiver))
      .map(({ rule, reason, start, end, key }): Finding => {
        const name = reason === "" ? "no-reason" : "unused";
        return {
          rule: "waiver/idle",
          severity: "warning",
          ...noticeOf(name, waiverMessages[name], { rule, reason }),
          file: catalog.file,
          ...catalog.lines.range({ start, end }),
          book: config.name,
          locale: catalog.locale,
          ...(catalog.namespace !== undefined && { namespace: catalog.namespace }),
          ...(key !== undefined && { key }),
        };
      }),
  );
}

/** Sorts findings by file, place, rule and key. */
export function sortFindings(findings: readonly Finding[]): Finding[] {
  const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return [...findings].sort(
    (a, b) =>
      compare(a.file, b.file) ||
      a.line - b.line ||
      a.column - b.column ||
      compare(a.rule, b.rule) ||
      compare(a.key ?? "", b.key ?? "") ||
      compare(a.message, b.message),
  );
}

/**
 * Shows one catalog to the rules again, only those entries and rules for which something may have changed since it was shown
 * to them last.
 */
function lintAgain(
  catalog: Catalog,
  running: readonly RuleRun[],
  subject: LintSubject,
  sources: SourceFinder,
  { levels, parts, rules }: LintOptions,
  keep: Keep,
  sink: Sink,
): void {
  const { book, glossary, reader } = subject;
  const { locale, namespace, file, table } = catalog;
  const own = running.filter(({ rule }) => rule.looks === undefined);
  const others = running.filter(({ rule }) => rule.looks !== undefined);
  const beside = others.filter(({ rule }) => rule.looks === "beside");
  const around = others.filter(({ rule }) => rule.looks === "around");
  const source = book.catalog(book.sourceLocale, namespace);
  const isStray = book.strays.includes(catalog);
  const name = `findings ${book.config.name} ${file} ${locale} ${namespace ?? ""}`;
  const settings = [
    book.config,
    isStray,
    subject.ledger(locale),
    subject.formerTexts,
    glossary,
    levels,
    parts,
    rules,
    reader,
  ];
  let isNew = false;
  const found = keep(
    name,
    [catalog, source, ...settings, ...running.map(({ rule }) => rule)],
    (before?: CatalogFindings): CatalogFindings => {
      isNew = true;
      const last = before?.settings.every((one, at) => one === settings[at]) ? before : undefined;
      const made: CatalogFindings = {
        ...newSink(),
        beside: newSink(),
        catalog,
        source,
        settings,
        isClean: new Uint8Array(table.size),
        reach: new Uint8Array(table.size),
      };
      for (const run of own) run.sink = made;
      for (const run of beside) run.sink = made.beside;
      for (const run of running) run.rule.file?.(run, catalog);
      // Those that look around are shown the entries on the way: what they find goes where all findings go.
      if (!isStray) {
        const left = entryLinter(catalog, running, subject, sources).lintNew(made, last);
        if (left.length > 0) entryLinter(catalog, others, subject, sources).lintSome(left);
      }
      for (const run of [...own, ...beside]) run.sink = sink;
      return made;
    },
  );
  pour(found, sink);
  pour(found.beside, sink);
  if (isNew) return;
  for (const run of around) run.rule.file?.(run, catalog);
  const seen: number[] = [];
  for (let index = 0; index < table.size; index++)
    if (found.reach[index] === reaches.around) seen.push(index);
  if (seen.length > 0) entryLinter(catalog, around, subject, sources).lintSome(seen);
}

/** Shows one catalog to every rule: the file, then each entry, read once for all of them. */
function lintCatalog(
  catalog: Catalog,
  running: readonly RuleRun[],
  subject: LintSubject,
  sources: SourceFinder,
): void {
  for (const run of running) run.rule.file?.(run, catalog);
  if (!subject.book.strays.includes(catalog)) entryLinter(catalog, running, subject, sources).lintAll();
}
