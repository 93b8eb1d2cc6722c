import { addWaivers, type Waiver } from "../config/waivers.js";
import type { Finding } from "../lint/finding.js";
import { makePlan, type Plan } from "../plan/plan.js";
import type { Project } from "./project.js";

/** What accepts a finding, for a reason: its rule at its key, or in its file where it has none or keys are parted by namespace. */
export function waiverOf(
  { config }: Project,
  { rule, key, locale, book, file, namespace }: Finding,
  reason: string,
): Waiver {
  return {
    rule,
    ...(key !== undefined && { key }),
    ...((key === undefined || namespace !== undefined) && { file }),
    ...(locale !== undefined && { locale }),
    ...(config.books.length > 1 && { book }),
    reason,
  };
}

/** The plan that adds waivers to the project's file of them. */
export function waiverPlan({ files, waivers: { file } }: Project, added: readonly Waiver[]): Plan {
  if (added.length === 0) return makePlan([], {});
  const read = files.read(file);
  const before = read.ok ? read.text : undefined;
  const after = addWaivers(before, added);
  return makePlan([{ file, before, after, ...(read.ok && read.bom && { bom: true }) }], {
    waivers: added.length,
  });
}
