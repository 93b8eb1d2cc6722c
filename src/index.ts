/**
 * Fond Ledger as a library: the jobs that the commands run. The core prints nothing, reads no arguments and never ends the
 * process. Messages, catalogs and plans by themselves are in `fond-ledger/message`, `fond-ledger/catalog` and
 * `fond-ledger/plan`.
 */
export * from "./jobs.js";
export { diskFiles } from "./disk/disk-files.js";
export { memoryFiles, type MemoryFiles } from "./core/files/memory-files.js";
export type { Files, FileText, WritableFiles } from "./core/files/files.js";
export { applyPlan, recover, type ApplyResult } from "./core/plan/apply.js";
export { unifiedDiff } from "./core/plan/diff.js";
export type { FileChange, Plan, PlanNote } from "./core/plan/plan.js";
export { loadConfig, type ConfigProblem, type ConfigResult } from "./core/config/load.js";
export type { BookConfig, Config } from "./core/config/schema.js";
export type { OpenResult, Project, Scope } from "./core/project/project.js";
export type { SurveyOptions, SurveyResult } from "./core/project/survey-project.js";
export type { InitAnswers, InitPlan, InitQuestion, InitResult } from "./core/project/setup/init-plan.js";
export type { ConvertOptions, ConvertResult } from "./core/project/convert.js";
export type { PreviewMessage, PreviewOptions, PreviewResult } from "./core/project/preview.js";
export type { LocaleAccount, LocaleResult } from "./core/project/locales.js";
export type { RekeyResult } from "./core/project/rekey.js";
export type { ReviewOptions, ReviewResult } from "./core/project/review.js";
export { trendOf, type Revision, type TrendPoint } from "./core/project/trend.js";
export type { Finding, Fix, Severity } from "./core/lint/finding.js";
export { defineRule } from "./core/lint/rule.js";
export type {
  EntryPlace,
  EntryView,
  Example,
  Rule,
  RuleContext,
  RuleDefinition,
  SourceView,
} from "./core/lint/rule.js";
export { lintExample } from "./core/lint/example.js";
export { rules } from "./core/lint/rules/index.js";
export type { Notice, Wording, WordingData, Wordings } from "./core/text/wording.js";
export type { ExtractOptions, ExtractPlan } from "./core/extract/extract.js";
export type { FileSurvey, ReportedLiteral, Verdict } from "./core/survey/survey.js";
export type { BookBalance, LocaleBalance } from "./core/ledger/balance.js";
export type { OutstandingText } from "./core/ledger/outstanding.js";
export { reportFindings, reportForms, type ReportForm } from "./output/reporters/index.js";
export { carrierNamed, carrierOf } from "./core/exchange/carriers/index.js";
export type { Carrier, DocumentBytes, ReadDocument } from "./core/exchange/carriers/carrier.js";
export type {
  Handoff,
  HandoffEntry,
  HandoffUnit,
  ReturnedDocument,
  ReturnedUnit,
} from "./core/exchange/handoff.js";
export type { Inline } from "./core/exchange/inline.js";
export type { DraftOptions, DraftResult } from "./core/project/draft.js";
export type { HandoffOptions } from "./core/project/handoff.js";
export type { IntakeOptions, IntakeResult } from "./core/project/intake.js";
export type { ListResult } from "./core/project/listing.js";
export type { PseudoResult } from "./core/project/pseudo.js";
export type { ServiceAnswer, ServiceRequest, TranslationService } from "./core/exchange/service.js";
