import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { notices } from "../../core/message/notices.js";
import { rules } from "../../core/lint/rules/index.js";
import { sortFindings } from "../../core/lint/lint.js";
import {
  auditFacts,
  joinFacts,
  judge,
  type AuditFacts,
  type AuditReason,
  type AuditVerdict,
} from "../../core/project/audit.js";
import { fixEdits } from "../../core/project/lint-project.js";
import type { Project } from "../../core/project/project.js";
import { reasonOf } from "../../disk/disk-files.js";
import { codeReadingFor } from "../code-reading.js";
import { auditJson, readAuditJson } from "../../output/json.js";
import { reportFindings, showsEdits, type ReportForm } from "../../output/reporters/index.js";
import { defineCommand } from "../command.js";
import { openOrFail, scopeOf, type CommandContext } from "../context.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { manifestVersion } from "../manifest.js";
import { counted, type Style } from "../terminal/style.js";

const say = notices("cli/audit", {
  "no-shard": {
    message: '"{value}" is not a part of parts',
    remedy: "write --shard 1/4 for the first of four",
  },
  "no-part": {
    message: "{file} cannot be read: {detail}",
    remedy: "give files that fond audit --shard I/N --format json --output FILE wrote",
  },
  "no-audit": {
    message: "{file} is not what an audit wrote",
    remedy: "give files that fond audit --shard I/N --format json --output FILE wrote",
  },
  differ: {
    message: "the parts are of different configurations, or of another number of parts",
    remedy: "run all parts on the same commit",
  },
  missing: { message: "missing parts: {numbers}", remedy: "give the files of all parts" },
  "not-written": {
    message: "{folder} cannot be written: {detail}",
    remedy: "choose another folder with --write-reports",
  },
});

export interface AuditCommandOptions {
  readonly writeReports?: string;
  readonly shard?: string;
  readonly join?: readonly string[];
  readonly cache: boolean;
}

/** Judges a project before a release, by everything that the other commands check. */
export async function runAudit(context: CommandContext, options: AuditCommandOptions): Promise<ExitStatus> {
  const project = openOrFail(context);
  const facts = options.join ? joined(context, options.join) : await gathered(context, project, options);
  const isPart = facts.part.of > 1;
  const verdict = judge(facts, project.config);
  if (options.writeReports !== undefined)
    await writeReports(context, project, facts, verdict, options.writeReports);
  if (context.options.format === "json") context.print(auditJson(facts, verdict));
  else context.print(render(context.style, facts, verdict));
  // A part has no verdict of its own: its findings may be another's.
  return isPart || verdict.ok ? exitStatus.inOrder : exitStatus.toSettle;
}

async function gathered(
  context: CommandContext,
  project: Project,
  options: AuditCommandOptions,
): Promise<AuditFacts> {
  const code = codeReadingFor(context, project, "audit", options.cache);
  const facts = await auditFacts(project, scopeOf(context), {
    ...(options.shard !== undefined && { part: partOf(options.shard) }),
    ...code.survey,
    uses: code.uses,
  });
  code.end();
  return facts;
}

function partOf(value: string): AuditFacts["part"] {
  const [, number = "", of = ""] = /^(\d{1,4})\/(\d{1,4})$/.exec(value) ?? [];
  const part = { number: Number(number), of: Number(of) };
  if (part.number < 1 || part.number > part.of) throw usageError(say("no-shard", { value }));
  return part;
}

function joined({ io }: CommandContext, files: readonly string[]): AuditFacts {
  const parts = files.map((file) => {
    let text: string;
    try {
      text = readFileSync(resolve(io.cwd, file), "utf8");
    } catch (error) {
      throw new CommandError(say("no-part", { file, detail: reasonOf(error) }), exitStatus.trouble);
    }
    const facts = readAuditJson(text);
    if (!facts) throw usageError(say("no-audit", { file }));
    return facts;
  });
  const result = joinFacts(parts);
  if (result.ok) return result.facts;
  throw usageError(
    result.missing ? say("missing", { numbers: result.missing.join(", ") }) : say("differ", {}),
  );
}

const reportFiles: readonly (readonly [form: ReportForm, name: string])[] = [
  ["sarif", "audit.sarif"],
  ["junit", "audit.junit.xml"],
  ["markdown", "audit.md"],
];

async function writeReports(
  { io }: CommandContext,
  project: Project,
  facts: AuditFacts,
  verdict: AuditVerdict,
  into: string,
): Promise<void> {
  const folder = resolve(io.cwd, into);
  const { reportPage } = await import("../report-page.js");
  try {
    mkdirSync(folder, { recursive: true });
    const findings = sortFindings(facts.findings);
    for (const [form, name] of reportFiles)
      writeFileSync(
        join(folder, name),
        reportFindings(form, {
          findings,
          rules,
          version: manifestVersion(),
          ...(showsEdits(form) && { edits: fixEdits(project, findings) }),
        }),
      );
    writeFileSync(join(folder, "audit.json"), auditJson(facts, verdict));
    writeFileSync(join(folder, "report.html"), await reportPage(project, facts, verdict));
  } catch (error) {
    throw new CommandError(say("not-written", { folder: into, detail: reasonOf(error) }), exitStatus.trouble);
  }
}

function render(
  style: Style,
  { part, books, findings }: AuditFacts,
  { ok, against, told }: AuditVerdict,
): string {
  const keys = books.reduce((sum, one) => sum + one.keys, 0);
  const size = `${counted(books.length, "book")}, ${counted(keys, "key")}, ${counted(findings.length, "finding")}`;
  const head =
    part.of > 1
      ? style.bold(`Part ${part.number} of ${part.of}: fond audit --join gives the verdict.`)
      : ok
        ? style.green(style.bold("✓ Ready for a release."))
        : style.red(style.bold(`✗ Not ready: ${counted(against.length, "reason")}.`));
  const lines = (all: readonly AuditReason[], mark: string) =>
    all.map(({ message, remedy }) => `  ${mark} ${message}\n      ${style.dim(remedy)}`);
  const [first] = against;
  return [
    `${head}  ${style.dim(size)}`,
    ...lines(against, style.red("✗")),
    ...(told.length > 0 ? ["", style.bold("Told only")] : []),
    ...lines(told, style.yellow("·")),
    ...(first && part.of === 1 ? ["", `Run next: ${style.bold(first.remedy)}`] : []),
    "",
  ].join("\n");
}

/** `fond audit` */
export const auditCommand = defineCommand<AuditCommandOptions>({
  name: "audit",
  summary: "Give one verdict before a release: findings, how far each locale is, and text left in code",
  heeds: { json: true, books: true, jobs: true },
  examples: [["audit", "the verdict, and what stands against it"]],
  declare: (command) =>
    command
      .option("--write-reports <folder>", "also write SARIF, JUnit, Markdown, JSON and the HTML report there")
      .option("--shard <part>", "only do one part, such as 1/4; --format json keeps it for --join")
      .option("--join <files...>", "give the verdict on parts that were done elsewhere")
      .option("--no-cache", "survey all code anew"),
  run: (context, _, options) => runAudit(context, options),
});
