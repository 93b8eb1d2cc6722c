import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { partEnds } from "../text/separators.js";
import { isWhole } from "../catalog/book.js";
import { ledgerChanges, readLedger, type EntryState, type LedgerRecord } from "../ledger/ledger.js";
import { standingOf } from "../ledger/standing.js";
import { messageReader } from "../message/parse.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { keyTest } from "../text/key-pattern.js";
import { nearest } from "../text/nearest.js";
import { booksIn, type Project, type Scope } from "./project.js";

/** What a person says of translations. */
export interface ReviewOptions {
  /** The state that they are raised or lowered to; as it is where not given. */
  readonly state?: Exclude<EntryState, "initial">;
  /** The source text changed, and its meaning did not: what is stale fits as it is. */
  readonly sameMeaning?: boolean;
  /** Today, as YYYY-MM-DD. */
  readonly today: string;
}

const say = notices("review", {
  untranslated: { message: '"{key}" is not translated', remedy: "translate it first" },
  unknown: {
    message: 'no key matches "{key}"',
    remedy: "in patterns, * stands for one part of a key and ** for any number of parts",
  },
  misspelled: { message: 'unknown key "{key}"', remedy: 'did you mean "{meant}"?' },
});

export type ReviewResult = { readonly ok: true; readonly plan: Plan } | ({ readonly ok: false } & Notice);

/** Plans new states of translations in the ledger, by keys or patterns as code writes them. */
export function reviewProject(
  project: Project,
  scope: Scope,
  patterns: readonly string[],
  { state, sameMeaning, today }: ReviewOptions,
): ReviewResult {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const known = new Set<string>();
  const met = new Set<string>();
  let count = 0;
  for (const config of booksIn(project, scope)) {
    const book = project.book(config);
    const reader = messageReader(config);
    const tests = patterns.map((pattern) => ({ pattern, test: keyTest(pattern, partEnds(config)) }));
    for (const locale of book.targetLocales) {
      if (scope.locales && !scope.locales.includes(locale)) continue;
      const ledger = readLedger(project.files, project.config.ledger, config.name, locale);
      const records = new Map<string, LedgerRecord>(ledger.records);
      for (const source of book.catalogs) {
        if (source.locale !== book.sourceLocale) continue;
        const catalog = book.catalog(locale, source.namespace);
        for (const entry of source.byKey.values()) {
          const key = book.codeKey(source.namespace, entry.key);
          known.add(key);
          const hit = tests.filter(({ pattern, test }) => pattern === key || test(key));
          for (const { pattern } of hit) met.add(pattern);
          const there = catalog && isWhole(catalog) ? catalog.byKey.get(entry.key) : undefined;
          if (hit.length === 0 || !catalog || !there) continue;
          const full = book.fullKey(source.namespace, entry.key);
          const record = records.get(full);
          const message = reader.read(entry.text, book.sourceLocale, entry.key);
          const standing = standingOf({ record, source: entry.text, message, text: there.text });
          if (standing.state === "initial") {
            notes.push({
              file: catalog.file,
              ...catalog.lines.position(there.keySpan.start),
              ...say("untranslated", { key }),
            });
            continue;
          }
          if (sameMeaning && !standing.stale) continue;
          const next: LedgerRecord = {
            state: state ?? standing.state,
            source: digestOf(entry.text),
            text: digestOf(there.text),
            origin: record?.origin ?? "person",
            date: today,
          };
          if (record && (["state", "source", "text"] as const).every((name) => record[name] === next[name]))
            continue;
          records.set(full, next);
          count++;
        }
      }
      if (
        records.size !== ledger.records.size ||
        [...records].some(([full, one]) => ledger.records.get(full) !== one)
      )
        changes.push(...ledgerChanges(ledger, records, ledger.attic));
    }
  }
  const missed = patterns.find((pattern) => !met.has(pattern));
  if (missed !== undefined) {
    const near = nearest(missed, known);
    return {
      ok: false,
      ...(near === undefined
        ? say("unknown", { key: missed })
        : say("misspelled", { key: missed, meant: near })),
    };
  }
  return { ok: true, plan: makePlan(changes, count > 0 ? { "translations reviewed": count } : {}, notes) };
}
