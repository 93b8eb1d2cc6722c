import type { BookConfig } from "./core/config/schema.js";
import type { ExtractOptions, ExtractPlan } from "./core/extract/extract.js";
import type { Files } from "./core/files/files.js";
import type { BookBalance } from "./core/ledger/balance.js";
import type { OutstandingText } from "./core/ledger/outstanding.js";
import type { Finding } from "./core/lint/finding.js";
import type { Rule } from "./core/lint/rule.js";
import type { Plan } from "./core/plan/plan.js";
import type { Handoff, ReturnedDocument } from "./core/exchange/handoff.js";
import type { PseudoOptions } from "./core/message/pseudo.js";
import { draftsFor, type DraftOptions, type DraftResult } from "./core/project/draft.js";
import { handoffFor, type HandoffOptions } from "./core/project/handoff.js";
import { intakeDocument, type IntakeOptions, type IntakeResult } from "./core/project/intake.js";
import { listProject, type ListResult } from "./core/project/listing.js";
import { pseudoProject, type PseudoResult } from "./core/project/pseudo.js";
import { convertBook, type ConvertOptions, type ConvertResult } from "./core/project/convert.js";
import { planInit, type InitResult } from "./core/project/setup/init-plan.js";
import * as locales from "./core/project/locales.js";
import { previewProject, type PreviewOptions, type PreviewResult } from "./core/project/preview.js";
import * as projects from "./core/project/project.js";
import { surveyProject, type SurveyOptions, type SurveyResult } from "./core/project/survey-project.js";
import { reconcileProject, type ReconcileOptions } from "./core/project/reconcile-project.js";
import { lintProject, fixProject } from "./core/project/lint-project.js";
import { extractProject } from "./core/project/extract-project.js";
import { rekeyProject, type RekeyResult } from "./core/project/rekey.js";
import { reviewProject, type ReviewOptions, type ReviewResult } from "./core/project/review.js";
import type { UnreadSource } from "./core/source/book-code.js";

/** What every job can take. */
export interface JobOptions {
  /** What narrows the job; nothing where not given. */
  readonly scope?: projects.Scope;
}

/** What jobs that record a day can take. */
export interface DatedOptions extends JobOptions {
  /** The day that is recorded, as YYYY-MM-DD; today (UTC) where not given. */
  readonly day?: string;
}

const today = () => new Date().toISOString().slice(0, 10);

/**
 * Opens the project whose configuration is among the files.
 *
 * @param options `config` is the path of the configuration (the usual names where not given), `day` decides which waivers
 * have expired
 * @returns the project with warnings, or all that is wrong with its configuration
 */
export async function openProject(
  files: Files,
  { config, day = today() }: { readonly config?: string; readonly day?: string } = {},
): Promise<projects.OpenResult> {
  return Promise.resolve(projects.openProject(files, config, day));
}

/** Plans a configuration for the project that the files show. */
export async function init(files: Files): Promise<InitResult> {
  return planInit(files);
}

/** Judges every string of the code: text, code, or unclear. */
export async function survey(
  project: projects.Project,
  { scope, ...options }: JobOptions & SurveyOptions = {},
): Promise<SurveyResult> {
  return surveyProject(project, scope, options);
}

/** Plans to move text into the source catalog and to put lookups in its place. */
export async function extract(
  project: projects.Project,
  { scope, ...options }: JobOptions & ExtractOptions = {},
): Promise<ExtractPlan & { readonly unread: readonly UnreadSource[] }> {
  return extractProject(project, scope, options);
}

/** Plans to sync the keys of every locale with the source catalog. */
export async function reconcile(
  project: projects.Project,
  { scope = {}, day = today(), ...options }: DatedOptions & ReconcileOptions = {},
): Promise<Plan> {
  return Promise.resolve(reconcileProject(project, scope, day, options));
}

/** Checks catalogs and code with the rules; all of them where none are given. */
export async function lint(
  project: projects.Project,
  { scope, rules }: JobOptions & { readonly rules?: readonly Rule[] } = {},
): Promise<Finding[]> {
  return lintProject(project, scope, rules);
}

/** Plans the repairs that rules know. Entries are only removed by rules that are given. */
export async function fix(
  project: projects.Project,
  { scope, rules }: JobOptions & { readonly rules?: readonly Rule[] } = {},
): Promise<Plan> {
  return fixProject(project, scope, rules);
}

/** Counts how complete each locale is. */
export async function balance(
  project: projects.Project,
  { scope, byNamespace }: JobOptions & { readonly byNamespace?: boolean } = {},
): Promise<BookBalance[]> {
  return Promise.resolve(projects.balanceProject(project, scope, byNamespace));
}

/** Lists what translators still have to do. */
export async function outstanding(
  project: projects.Project,
  { scope }: JobOptions = {},
): Promise<OutstandingText[]> {
  return Promise.resolve(projects.outstandingIn(project, scope));
}

/** Shows what users would read, by keys or patterns (`*`, `**`). */
export async function preview(
  project: projects.Project,
  keys: readonly string[],
  { scope = {}, ...options }: JobOptions & PreviewOptions = {},
): Promise<PreviewResult> {
  return Promise.resolve(previewProject(project, scope, keys, options));
}

/** Plans to convert a book of the configuration to another format, layout or syntax. */
export async function convert(
  project: projects.Project,
  book: BookConfig,
  options: ConvertOptions,
): Promise<ConvertResult> {
  return Promise.resolve(convertBook(project, book, options));
}

/** Plans a new target locale: configuration, catalogs and ledger. */
export async function addLocale(
  project: projects.Project,
  tag: string,
  { day = today() }: DatedOptions = {},
): Promise<locales.LocaleResult> {
  return Promise.resolve(locales.addLocale(project, tag, day));
}

/** Plans to remove a target locale; its texts go to the attic of the ledger. */
export async function dropLocale(
  project: projects.Project,
  tag: string,
  { day = today() }: DatedOptions = {},
): Promise<locales.LocaleResult> {
  return Promise.resolve(locales.dropLocale(project, tag, day));
}

/** The project's locales with their plural categories, fallback, direction and share. */
export async function listLocales(project: projects.Project): Promise<locales.LocaleAccount[]> {
  return Promise.resolve(locales.listLocales(project));
}

/** Plans to rename a key, or a group (`checkout.*`), in catalogs, ledger, waivers and code. */
export async function rekey(
  project: projects.Project,
  from: string,
  to: string,
  { scope = {} }: JobOptions = {},
): Promise<RekeyResult> {
  return rekeyProject(project, scope, from, to);
}

/** What the translators of a locale have to do, message by message, as whole texts with codes for values and elements. */
export async function handoff(
  project: projects.Project,
  locale: string,
  { scope = {}, ...options }: JobOptions & HandoffOptions = {},
): Promise<Handoff> {
  return handoffFor(project, scope, locale, options);
}

/**
 * Plans to take a document that came back into catalogs and ledger. Every text is checked with the rules before.
 *
 * @param document what `carrierNamed(…).read` gave
 */
export async function intake(
  project: projects.Project,
  document: ReturnedDocument,
  {
    scope = {},
    day = today(),
    file = "",
    ...options
  }: DatedOptions & Partial<Omit<IntakeOptions, "today">> = {},
): Promise<IntakeResult> {
  return intakeDocument(project, scope, document, { ...options, file, today: day });
}

/** Suggestions for what a locale lacks, from the project's own translations and from memories in TMX. */
export async function draft(
  project: projects.Project,
  locale: string,
  {
    scope = {},
    day = today(),
    likeness = 0.8,
    ...options
  }: DatedOptions & Partial<Omit<DraftOptions, "today">> = {},
): Promise<DraftResult> {
  return draftsFor(project, scope, locale, { ...options, likeness, today: day });
}

/** Plans the catalogs of a pseudo-locale. */
export async function pseudo(
  project: projects.Project,
  tag: string,
  { scope = {}, ...options }: JobOptions & PseudoOptions = {},
): Promise<PseudoResult> {
  return Promise.resolve(pseudoProject(project, scope, tag, options));
}

/** Lists keys with their texts, states and places; all of them where none are given. */
export async function list(
  project: projects.Project,
  keys: readonly string[] = [],
  { scope = {} }: JobOptions = {},
): Promise<ListResult> {
  return Promise.resolve(listProject(project, scope, keys));
}

/** Plans new states of translations in the ledger, by keys or patterns. */
export async function review(
  project: projects.Project,
  keys: readonly string[],
  { scope = {}, day = today(), ...options }: DatedOptions & Omit<ReviewOptions, "today"> = {},
): Promise<ReviewResult> {
  return Promise.resolve(reviewProject(project, scope, keys, { ...options, today: day }));
}
