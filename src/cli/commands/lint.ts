import { addWaivers, type Waiver } from "../../core/config/waivers.js";
import type { Finding } from "../../core/lint/finding.js";
import type { Rule } from "../../core/lint/rule.js";
import { rules } from "../../core/lint/rules/index.js";
import { makePlan, type Plan } from "../../core/plan/plan.js";
import { lintProject, type Project } from "../../core/project/project.js";
import { nearest } from "../../core/text/nearest.js";
import { findingsJson } from "../../output/json.js";
import {
  changesOf,
  lineReader,
  openOrFail,
  scopeOf,
  settlePlan,
  type ChangeOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { countFindings, renderFindings } from "../terminal/findings.js";

export interface LintCommandOptions extends ChangeOptions, WriteOptions {
  readonly rule?: readonly string[];
  readonly maxWarnings?: number;
  readonly baseline?: boolean;
}

/** Checks the catalogs and the code's use of them. */
export async function runLint(
  context: CommandContext,
  paths: readonly string[],
  options: LintCommandOptions = {},
): Promise<ExitStatus> {
  if ((options.write || options.check) && !options.baseline)
    throw new CommandError(
      "--write and --check go with --baseline here",
      "lint alone changes nothing",
      exitStatus.usage,
    );
  const project = openOrFail(context);
  const changes = changesOf(context, options);
  const wanted = options.rule?.map((id) => ruleNamed(id));
  const all = await lintProject(project, scopeOf(context, paths), wanted);
  const findings = changes ? all.filter(({ file, line, endLine }) => changes.has(file, line, endLine)) : all;
  if (options.baseline) return settlePlan(context, "lint", baselineOf(context, project, findings), options);
  if (context.options.format === "json") context.print(findingsJson("lint", findings));
  else {
    const { style, width, options } = context;
    context.print(renderFindings(findings, lineReader(context), style, width, options.verbose ?? false));
    context.print(`${style.bold(countFindings(findings, style))}\n`);
  }
  const warnings = findings.filter(({ severity }) => severity === "warning").length;
  const tooMany = options.maxWarnings !== undefined && warnings > options.maxWarnings;
  if (tooMany) context.say(`${warnings} warnings, where ${options.maxWarnings ?? 0} are allowed.`);
  return tooMany || findings.some(({ severity }) => severity === "error")
    ? exitStatus.toSettle
    : exitStatus.inOrder;
}

function ruleNamed(id: string): Rule {
  const found = rules.find((rule) => rule.id === id);
  if (found) return found;
  const near = nearest(
    id,
    rules.map((rule) => rule.id),
  );
  throw new CommandError(
    `there is no rule “${id}”`,
    near ? `did you mean “${near}”?` : "docs/rules lists them",
    exitStatus.usage,
  );
}

/** Accepts today's findings as they are, so that an old project can start: only new ones show from then on. */
function baselineOf(context: CommandContext, project: Project, findings: readonly Finding[]): Plan {
  const { waivers, config } = project;
  const seen = new Set<string>();
  const added = findings.flatMap(({ rule, key, namespace, locale, file, book }): Waiver[] => {
    if (rule === "waiver/idle") return [];
    const waiver: Waiver = {
      rule,
      ...(key !== undefined && { key }),
      ...((key === undefined || namespace !== undefined) && { file }),
      ...(locale !== undefined && { locale }),
      ...(config.books.length > 1 && { book }),
      reason: "there from before the rules were",
    };
    const id = JSON.stringify(waiver);
    if (seen.has(id)) return [];
    seen.add(id);
    return [waiver];
  });
  const read = context.files.read(waivers.file);
  const before = read.ok ? read.text : undefined;
  const after = added.length === 0 ? before : addWaivers(before, added);
  return makePlan(
    [{ file: waivers.file, before, after }],
    added.length === 0 ? {} : { waivers: added.length },
  );
}
