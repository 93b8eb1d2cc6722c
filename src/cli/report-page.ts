import { jsonInPage, wholePage } from "../core/exchange/whole-page.js";
import type { AuditFacts, AuditVerdict } from "../core/project/audit.js";
import type { Project } from "../core/project/project.js";
import { reportData, type ReportData } from "../core/project/report.js";
import type { TrendPoint } from "../core/project/trend.js";
import { pageParts } from "./page-parts.js";
import { today } from "./today.js";

/** The report as one HTML file. */
export async function reportPage(
  project: Project,
  facts: AuditFacts,
  verdict: AuditVerdict,
  trend: readonly TrendPoint[] = [],
  live?: ReportData["live"],
): Promise<string> {
  const data = await reportData(project, facts, verdict, trend, today());
  const parts = {
    ...pageParts("report"),
    title: `Translations, ${data.day}`,
    id: "report",
    isServed: live !== undefined,
  };
  return [...wholePage(parts, [jsonInPage({ ...data, ...(live && { live }) })])].join("");
}
