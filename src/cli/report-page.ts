import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { AuditFacts, AuditVerdict } from "../core/project/audit.js";
import type { Project } from "../core/project/project.js";
import { reportData, type ReportData } from "../core/project/report.js";
import type { TrendPoint } from "../core/project/trend.js";
import { packageRoot } from "../disk/package-root.js";
import { wholePage } from "../output/page.js";
import { today } from "./today.js";

/** The report as one HTML file. */
export async function reportPage(
  project: Project,
  facts: AuditFacts,
  verdict: AuditVerdict,
  trend: readonly TrendPoint[] = [],
  live?: ReportData["live"],
): Promise<string> {
  const part = (name: string) => readFileSync(join(packageRoot(), "dist", "page", name), "utf8");
  const data = await reportData(project, facts, verdict, trend, today());
  return wholePage({
    title: `Translations, ${data.day}`,
    id: "report",
    data: { ...data, ...(live && { live }) },
    isServed: live !== undefined,
    script: part("report.js"),
    style: part("report.css"),
  });
}
