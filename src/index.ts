/**
 * Fond Ledger as a library: the core that the commands call, and the files on disk. The core prints nothing,
 * reads no arguments and never ends the process.
 */
export { diskFiles } from "./disk/disk-files.js";
export { memoryFiles, type MemoryFiles } from "./core/files/memory-files.js";
export type { Files, FileText, WritableFiles } from "./core/files/files.js";
export { applyPlan, recover, type ApplyResult } from "./core/plan/apply.js";
export { unifiedDiff } from "./core/plan/diff.js";
export type { FileChange, Plan, PlanNote } from "./core/plan/plan.js";
export { loadConfig, type ConfigProblem, type ConfigResult } from "./core/config/load.js";
export type { BookConfig, Config } from "./core/config/schema.js";
export {
  pluralRules,
  type PluralCategory,
  type PluralKind,
  type PluralRules,
} from "./core/locale/plural-rules.js";
export { parseTag, type LocaleTag } from "./core/locale/tag.js";
export { parseIcu, type IcuOptions } from "./core/message/syntaxes/icu/icu.js";
export { printIcu } from "./core/message/syntaxes/icu/icu-print.js";
export { messageFacts, type MessageFacts } from "./core/message/facts.js";
export type * from "./core/message/model.js";
export { jsonFormat } from "./core/catalog/formats/json/json.js";
export type { CatalogChanges, CatalogContent, CatalogFormat, Entry } from "./core/catalog/model.js";
export {
  balanceProject,
  extractProject,
  fixProject,
  lintProject,
  openProject,
  outstandingIn,
  reconcileProject,
  surveyProject,
  type OpenResult,
  type Project,
  type Scope,
  type SurveyResult,
} from "./core/project/project.js";
export {
  planInit,
  type InitAnswers,
  type InitPlan,
  type InitQuestion,
  type InitResult,
} from "./core/project/detect.js";
export type { Finding, Severity } from "./core/lint/finding.js";
export { rules } from "./core/lint/rules/index.js";
export type { Rule } from "./core/lint/rule.js";
export type { FileSurvey, ReportedLiteral, Verdict } from "./core/survey/survey.js";
export type { BookBalance, LocaleBalance } from "./core/ledger/balance.js";
export type { OutstandingText } from "./core/ledger/outstanding.js";
export {
  addLocale,
  dropLocale,
  listLocales,
  type LocaleAccount,
  type LocaleResult,
} from "./core/project/locales.js";
export { rekeyProject, type RekeyResult } from "./core/project/rekey.js";
export { reviewProject, type ReviewOptions, type ReviewResult } from "./core/project/review.js";
export { trendOf, type Revision, type TrendPoint } from "./core/project/trend.js";
export { mergeCatalogs, type Merged } from "./core/catalog/merge.js";
export { mergeLedgers } from "./core/ledger/merge.js";
export { parseMf2 } from "./core/message/syntaxes/mf2/mf2.js";
export { printMf2 } from "./core/message/syntaxes/mf2/mf2-print.js";
export { reportFindings, reportForms, type ReportForm } from "./output/reporters/index.js";
