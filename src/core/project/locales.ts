import { addedMember, isListOf, localeListsIn, settingsOf } from "../locale/locale-lists.js";
import { listCode } from "../source/book-code.js";
import { applyEdits, type TextEdit } from "../text/edits.js";
import { lineIndex } from "../text/line-index.js";
import { directionOf } from "../locale/script.js";
import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import { isWhole, unreadNote } from "../catalog/book.js";
import { editConfigList } from "../config/edit.js";
import { overlayFiles } from "../files/overlay-files.js";
import { ledgerChanges, readLedger, type AtticRecord, type LedgerRecord } from "../ledger/ledger.js";
import { parentsOf } from "../locale/fallback.js";
import { hasPluralRules, pluralRules, type PluralCategory } from "../locale/plural-rules.js";
import { canonicalTag } from "../locale/tag.js";
import { doubtTag, type TagDoubt } from "../locale/mistaken-tag.js";
import { makePlan, type FileChange, type Plan, type PlanNote } from "../plan/plan.js";
import { digestOf } from "../text/digest.js";
import { balanceProject, openProject, type Project } from "./project.js";
import { reconcileProject } from "./reconcile-project.js";

/** What is known of one locale of a project. */
export interface LocaleAccount {
  readonly locale: string;
  readonly isSource: boolean;
  /** Where a text that it lacks is taken from, nearest first; the source locale is last. */
  readonly fallback: readonly string[];
  readonly direction: "ltr" | "rtl";
  readonly cardinal: readonly PluralCategory[];
  readonly ordinal: readonly PluralCategory[];
  /** The share of all books' keys that is translated and not stale; 1 for the source. */
  readonly share: number;
}

/** Lists the locales of a project, the source first. */
export function listLocales(project: Project): LocaleAccount[] {
  const { source, targets } = project.config;
  const books = balanceProject(project);
  const keys = books.reduce((sum, book) => sum + book.keys, 0);
  return [source, ...targets].map((locale) => {
    const done = books.reduce(
      (sum, book) => sum + (book.locales.find((one) => one.locale === locale)?.share ?? 1) * book.keys,
      0,
    );
    return { ...describeLocale(locale, source, targets), share: keys === 0 ? 1 : done / keys };
  });
}

function describeLocale(
  locale: string,
  source: string,
  targets: readonly string[],
): Omit<LocaleAccount, "share"> {
  const all = [source, ...targets];
  const fallback = parentsOf(locale).filter((parent) => all.includes(parent) && parent !== source);
  return {
    locale,
    isSource: locale === source,
    fallback: locale === source ? [] : [...fallback, source],
    direction: directionOf(locale),
    cardinal: hasPluralRules(locale, "cardinal") ? pluralRules(locale, "cardinal").categories : ["other"],
    ordinal: hasPluralRules(locale, "ordinal") ? pluralRules(locale, "ordinal").categories : ["other"],
  };
}

const say = notices("locale", {
  listed: {
    message: "locales are listed here, each with more than its name",
    remedy: 'add "{locale}" as the others are',
  },
  "no-tag": {
    message: '"{tag}" is not a language tag (BCP 47)',
    remedy: "write a language tag, for example pt-BR",
  },
  "unknown-language": {
    message: '"{tag}" is not a language that CLDR knows',
    remedy: 'write another tag; to use "{tag}" anyway, add it to "targets" by hand',
  },
  country: {
    message: '"{tag}" is the code of a country ({country}), not of a language',
    remedy: 'did you mean "{meant}"? To use "{tag}" anyway, add it to "targets" by hand',
  },
  unlikely: {
    message: '"{tag}" is the language {language}; the country {country} has the same code',
    remedy: 'did you mean "{meant}"? To use "{tag}" anyway, add it to "targets" by hand',
  },
  known: { message: "{locale} is already a locale of the project", remedy: "`fond locale list` shows them" },
  source: { message: "{locale} is the source locale", remedy: 'set another locale as "source" first' },
  unknown: { message: "{locale} is not a locale of the project", remedy: "`fond locale list` shows them" },
  shared: {
    message: "skipped, because it holds other locales too",
    remedy: "remove {locale} from it by hand",
  },
  "cannot-edit": {
    message: "{file} cannot be edited in place",
    remedy: 'change "targets" in it by hand, then run `fond reconcile --write`',
  },
});

function doubtNotice(tag: string, doubt: TagDoubt | undefined): Notice {
  if (doubt === undefined || doubt.kind === "no-tag") return say("no-tag", { tag });
  if (doubt.kind === "unknown") return say("unknown-language", { tag });
  return doubt.kind === "country"
    ? say("country", { tag, ...doubt.data })
    : say("unlikely", { tag, ...doubt.data });
}

export type LocaleResult =
  | { readonly ok: true; readonly plan: Plan; readonly account: Omit<LocaleAccount, "share"> | undefined }
  | ({ readonly ok: false } & Notice);

/**
 * Plans a new target locale: the configuration, catalogs in every book filled as the book wants, and its ledger. What a
 * parent in the project has is not copied. A locale that was dropped before gets its texts back.
 */
export function addLocale(project: Project, tag: string, today: string): LocaleResult {
  const { config } = project;
  const locale = canonicalTag(tag);
  const doubt = doubtTag(tag, [config.source, ...config.targets]);
  if (locale === undefined || doubt) return { ok: false, ...doubtNotice(tag, doubt) };
  if (locale === config.source || config.targets.includes(locale))
    return { ok: false, ...say("known", { locale }) };
  const targets = [...config.targets, locale];
  const opened = withTargets(project, (file, text) =>
    editConfigList(file, text, ["targets"], { add: locale }),
  );
  if (!opened) return cannotEdit(project);
  const plan = reconcileProject(opened.project, { locales: [locale] }, today);
  const lists = withListed(project, locale);
  return {
    ok: true,
    plan: makePlan(
      [opened.change, ...plan.changes, ...lists.changes],
      { ...plan.summary, "locales added": 1 },
      [...plan.notes, ...lists.notes],
    ),
    account: describeLocale(locale, config.source, targets),
  };
}

/** What adds a locale to the lists of locales in code and settings; those that are more than plain values are noted. */
function withListed(
  { config, files }: Project,
  locale: string,
): { readonly changes: readonly FileChange[]; readonly notes: readonly PlanNote[] } {
  const changes: FileChange[] = [];
  const notes: PlanNote[] = [];
  const code = config.books.flatMap((book) => listCode(files, book));
  for (const file of new Set([...code, ...settingsOf(files)])) {
    const read = files.read(file);
    if (!read.ok) continue;
    const { text, bom } = read;
    const edits: TextEdit[] = [];
    for (const list of localeListsIn(text)) {
      const end = list.members.at(-1)?.end ?? 0;
      if (!isListOf(list, config.source, config.targets)) continue;
      if (list.members.some((member) => member.locale === locale)) continue;
      const replacement = addedMember(list, text, locale);
      if (replacement !== undefined) edits.push({ start: end, end, replacement });
      else notes.push({ file, ...lineIndex(text).position(end), ...say("listed", { locale }) });
    }
    if (edits.length > 0) changes.push({ file, before: text, after: applyEdits(text, edits), bom });
  }
  return { changes, notes };
}

/** Plans the end of a target locale: its texts go to the attic of the ledger, its catalogs and its place in the configuration go. */
export function dropLocale(project: Project, tag: string, today: string): LocaleResult {
  const { config, files } = project;
  const locale = canonicalTag(tag) ?? tag;
  if (locale === config.source) return { ok: false, ...say("source", { locale }) };
  if (!config.targets.includes(locale)) return { ok: false, ...say("unknown", { locale }) };
  const index = config.targets.indexOf(locale);
  const opened = withTargets(project, (file, text) =>
    editConfigList(file, text, ["targets"], { remove: index }),
  );
  if (!opened) return cannotEdit(project);
  const changes: FileChange[] = [opened.change];
  const notes: PlanNote[] = [];
  let kept = 0;
  for (const bookConfig of config.books) {
    const book = project.book(bookConfig);
    const ledger = readLedger(files, config.ledger, bookConfig.name, locale);
    const attic = new Map<string, AtticRecord>(ledger.attic);
    for (const catalog of book.catalogs) {
      if (catalog.locale !== locale || !catalog.exists) continue;
      const shared = book.catalogs.some(
        (one) => one.file === catalog.file && one !== catalog && one.locale !== locale,
      );
      if (shared || !isWhole(catalog)) {
        notes.push(
          shared
            ? {
                file: catalog.file,
                ...say("shared", { locale }),
                undone: "refused",
              }
            : unreadNote(catalog),
        );
        continue;
      }
      for (const entry of catalog.byKey.values()) {
        const full = book.fullKey(catalog.namespace, entry.key);
        const digest = digestOf(entry.text);
        const record: LedgerRecord = ledger.records.get(full) ?? {
          state: "translated",
          source: digest,
          text: digest,
          origin: "person",
          date: today,
        };
        attic.set(full, { ...record, text: digest, kept: entry.text });
        kept++;
      }
      changes.push({
        file: catalog.file,
        before: catalog.content,
        after: undefined,
        bom: catalog.bom,
        ...(catalog.encoding && { encoding: catalog.encoding }),
      });
    }
    changes.push(...ledgerChanges(ledger, new Map(), attic));
  }
  return {
    ok: true,
    plan: makePlan(changes, { "locales set aside": 1, "texts kept in the attic": kept }, notes),
    account: undefined,
  };
}

/** The project as it would be with other target locales. */
function withTargets(
  project: Project,
  edit: (file: string, text: string) => string,
): { readonly project: Project; readonly change: FileChange } | undefined {
  const { files, configFile } = project;
  const read = files.read(configFile);
  if (!read.ok) return undefined;
  const after = edit(configFile, read.text);
  const opened = openProject(overlayFiles(files, new Map([[configFile, after]])), configFile);
  if (!opened.ok) return undefined;
  return { project: opened.project, change: { file: configFile, before: read.text, after, bom: read.bom } };
}

function cannotEdit({ configFile }: Project): LocaleResult {
  return { ok: false, ...say("cannot-edit", { file: configFile }) };
}
