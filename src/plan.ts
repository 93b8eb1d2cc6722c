/** Plans: changes of files as data, applied all or nothing. `fond-ledger/plan`. */
export { diskFiles } from "./disk/disk-files.js";
export { memoryFiles, type MemoryFiles } from "./core/files/memory-files.js";
export type { Files, FileText, WritableFiles } from "./core/files/files.js";
export { applyPlan, recover, type ApplyResult } from "./core/plan/apply.js";
export { unifiedDiff } from "./core/plan/diff.js";
export { makePlan, type FileChange, type Plan, type PlanNote } from "./core/plan/plan.js";
