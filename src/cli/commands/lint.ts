import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { InvalidArgumentError } from "commander";
import type { Waiver } from "../../core/config/waivers.js";
import { waiverOf, waiverPlan } from "../../core/project/waive.js";
import type { Finding } from "../../core/lint/finding.js";
import type { Example, Rule } from "../../core/lint/rule.js";
import { rules } from "../../core/lint/rules/index.js";
import type { Plan } from "../../core/plan/plan.js";
import { fixEdits, fixProject, lintProject } from "../../core/project/lint-project.js";
import type { Project } from "../../core/project/project.js";
import { nearest } from "../../core/text/nearest.js";
import { withWidths } from "../../core/text/width.js";
import { reportFindings, reportForms, showsEdits } from "../../output/reporters/index.js";
import { findingsJson, ruleJson } from "../../output/json.js";
import {
  changesOf,
  lineReader,
  oneOf,
  openOrAssume,
  openOrFail,
  scopeOf,
  settlePlan,
  type ChangeOptions,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
  withChangeOptions,
} from "../context.js";
import { sayWhatHasNoReader } from "./survey.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { codeReadingFor } from "../code-reading.js";
import { runOnChanges, withWatchOption } from "../watch.js";
import { manifestVersion } from "../manifest.js";
import { countFindings, renderFindings, type FindingOrder, type FindingsView } from "../terminal/findings.js";
import { counted } from "../terminal/style.js";

const say = notices("cli/lint", {
  "nothing-to-write": {
    message: "--write and --check need --fix or --baseline",
    remedy: "add one of them; lint alone changes nothing",
  },
  "misspelled-rule": { message: 'unknown rule "{rule}"', remedy: 'did you mean "{meant}"?' },
  "unknown-rule": { message: 'unknown rule "{rule}"', remedy: "the rules are {rules}" },
});

export interface LintCommandOptions extends ChangeOptions, WriteOptions {
  readonly rule?: readonly string[];
  readonly maxWarnings?: number;
  readonly baseline?: boolean;
  readonly fix?: boolean;
  readonly explain?: string;
  readonly watch?: boolean;
  readonly cache?: boolean;
  /** What findings are grouped by. */
  readonly by?: FindingOrder;
}

/** Checks the catalogs and the code's use of them. */
export async function runLint(
  context: CommandContext,
  paths: readonly string[],
  options: LintCommandOptions = {},
): Promise<ExitStatus> {
  if (options.explain !== undefined) {
    const rule = ruleNamed(options.explain);
    context.print(context.options.format === "json" ? ruleJson(rule) : explainRule(rule, context));
    return exitStatus.inOrder;
  }
  if ((options.write || options.check) && !options.baseline && !options.fix)
    throw usageError(say("nothing-to-write", {}));
  const { project } =
    options.fix || options.baseline ? { project: openOrFail(context) } : await openOrAssume(context);
  const changes = changesOf(context, options);
  const wanted = options.rule?.flatMap((id) => rulesNamed(id));
  if (options.fix)
    return settlePlan(context, "lint", await fixProject(project, scopeOf(context, paths), wanted), options);
  sayWhatHasNoReader(context, project, scopeOf(context));
  const code = codeReadingFor(context, project, "lint", options.cache);
  const all = await lintProject(project, scopeOf(context, paths), wanted, code.uses);
  code.end();
  const findings = changes ? all.filter(({ file, line, endLine }) => changes.has(file, line, endLine)) : all;
  if (options.baseline) return settlePlan(context, "lint", baselineOf(project, findings), options);
  const { style, width } = context;
  const summary = `${style.bold(countFindings(findings, style))}\n`;
  const { format, verbose = false } = context.options;
  if (format === "json") context.print(findingsJson("lint", findings));
  else if (format !== "text")
    context.print(
      reportFindings(format, {
        findings,
        rules,
        version: manifestVersion(),
        ...(showsEdits(format) && { edits: fixEdits(project, findings) }),
      }),
    );
  else {
    const lines = lineReader(context);
    const view: FindingsView = {
      lineOf: lines,
      style,
      width,
      verbose,
      order: options.by ?? "rule",
      summaryOf: (id) => rules.find((rule) => rule.id === id)?.summary,
    };
    context.print((await withWidths(() => renderFindings(findings, view))) + summary);
    const next = nextStep(findings);
    if (next !== undefined) context.say(next);
  }
  const warnings = findings.filter(({ severity }) => severity === "warning").length;
  const tooMany = options.maxWarnings !== undefined && warnings > options.maxWarnings;
  if (tooMany) context.say(`Too many warnings: ${warnings}, at most ${options.maxWarnings ?? 0} allowed.`);
  return tooMany || findings.some(({ severity }) => severity === "error")
    ? exitStatus.toSettle
    : exitStatus.inOrder;
}

/** The one command that does most of what findings ask for. */
function nextStep(findings: readonly Finding[]): string | undefined {
  const missing = findings.filter(({ rule }) => rule === "key/missing").length;
  const fixable = findings.filter(({ fix }) => fix !== undefined).length;
  if (missing === 0 && fixable === 0) return undefined;
  return missing > fixable
    ? "`fond reconcile --write` adds the missing keys."
    : `\`fond lint --fix\` shows the fixes of ${counted(fixable, "finding")}; --write applies them.`;
}

/** What a rule is for, with what it reports and what it accepts. */
function explainRule({ id, level, summary, why, examples }: Rule, { style, width }: CommandContext): string {
  const wrap = (text: string) =>
    text
      .split(" ")
      .reduce<string[]>((lines, word) => {
        const last = lines.at(-1) ?? "";
        if (last !== "" && last.length + word.length + 1 <= Math.min(width, 96))
          lines[lines.length - 1] = `${last} ${word}`;
        else lines.push(word);
        return lines;
      }, [])
      .join("\n");
  const show = (example: Example) => {
    const lines: string[] = [];
    const put = (label: string, value: string | Readonly<Record<string, string>> | undefined) => {
      if (typeof value === "string") lines.push(`    ${style.dim(label.padEnd(6))} ${value}`);
      else
        for (const [key, text] of Object.entries(value ?? {}))
          lines.push(`    ${style.dim(label.padEnd(6))} ${key} = ${text}`);
    };
    put("en", example.source);
    put(example.locale ?? "de", example.target);
    put("code", example.code);
    put("was", example.madeFrom);
    if (example.fixed !== undefined) put("fixed", example.fixed);
    return `${example.note === undefined ? "" : `    ${style.dim(`(${example.note})`)}\n`}${lines.join("\n")}\n`;
  };
  return [
    `${style.bold(id)} ${style.dim(level)}`,
    wrap(summary),
    "",
    wrap(why),
    "",
    style.red("Reported"),
    ...examples.bad.map(show),
    style.green("Accepted"),
    ...examples.good.map(show),
  ].join("\n");
}

/** The rule of a name, or all of a family: `key/*`. */
function rulesNamed(name: string): readonly Rule[] {
  const family = name.endsWith("/*") ? rules.filter(({ id }) => id.startsWith(name.slice(0, -1))) : [];
  return family.length > 0 ? family : [ruleNamed(name)];
}

function ruleNamed(id: string): Rule {
  const found = rules.find((rule) => rule.id === id);
  if (found) return found;
  const near = nearest(
    id,
    rules.map((rule) => rule.id),
  );
  throw usageError(
    near
      ? say("misspelled-rule", { rule: id, meant: near })
      : say("unknown-rule", { rule: id, rules: rules.map((rule) => rule.id).join(", ") }),
  );
}

/** Accepts today's findings as they are, so that an old project can start: only new ones show from then on. */
function baselineOf(project: Project, findings: readonly Finding[]): Plan {
  const added = new Map<string, Waiver>();
  for (const finding of findings) {
    if (finding.rule === "waiver/idle") continue;
    const waiver = waiverOf(project, finding, "found before the rule was introduced");
    added.set(JSON.stringify(waiver), waiver);
  }
  return waiverPlan(project, [...added.values()]);
}

/** `fond lint` */
export const lintCommand = defineCommand<LintCommandOptions>({
  name: "lint",
  summary: "Check the catalogs and how the code uses them",
  heeds: { json: true, books: true, locales: true, forms: reportForms, jobs: true },
  examples: [
    ["lint --locale de fr", "only these locales"],
    ["lint --explain plural/missing-category", "what a rule is about"],
    ["lint --fix", "what can be fixed"],
  ],
  declare: (command) =>
    withWatchOption(withWriteOptions(withChangeOptions(command)))
      .argument("[paths...]", "only report on these files or folders")
      .option("--rule <rule...>", "only run these rules")
      .option("--max-warnings <number>", "fail if there are more warnings than this", (value) => {
        if (!/^\d+$/.test(value)) throw new InvalidArgumentError("It must be a whole number.");
        return Number(value);
      })
      .option("--no-cache", "read all code anew")
      .option("--by <order>", "group findings by rule, errors first, or by file", oneOf("rule", "file"))
      .option("--fix", "fix what is safe to fix: prints the plan, --write applies it")
      .option("--explain <rule>", "explain a rule, with examples")
      .option("--baseline", "accept today's findings as waivers, so that only new ones are reported"),
  run: (context, paths, options) =>
    options.watch
      ? runOnChanges(context, (again) => runLint(again, paths, options))
      : runLint(context, paths, options),
});
