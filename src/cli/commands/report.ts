import { writeFileSync } from "node:fs";
import { relative, resolve } from "node:path";
import { notices } from "../../core/message/notices.js";
import { auditFacts, judge } from "../../core/project/audit.js";
import { trendOf, type TrendPoint } from "../../core/project/trend.js";
import type { Project } from "../../core/project/project.js";
import { reasonOf } from "../../disk/disk-files.js";
import { revisionsOf } from "../../disk/git-files.js";
import { diskSurveyCache } from "../../disk/survey-cache.js";
import { surveyWorkers } from "../../disk/survey-workers.js";
import { defineCommand } from "../command.js";
import { openOrFail, type CommandContext } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { reportPage } from "../report-page.js";
import { showProgress } from "../terminal/progress.js";

const say = notices("cli/report", {
  "not-written": { message: "{file} cannot be written: {detail}", remedy: "choose another file with --into" },
});

/** So many commits make a trend. */
const mostRevisions = 12;

export interface ReportCommandOptions {
  readonly into?: string;
  readonly trend: boolean;
}

/** Writes the state of the books as one HTML page. */
export async function runReport(
  context: CommandContext,
  { into = "fond-report.html", trend }: ReportCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const { cwd, quiet } = context.options;
  const cache = diskSurveyCache(cwd, context.io.env);
  const progress = showProgress("report", quiet ?? false, context.io);
  const facts = await auditFacts(
    project,
    {},
    {
      cache,
      elsewhere: surveyWorkers(
        cwd,
        project.configFile,
        { all: false, everything: false },
        context.options.jobs,
        progress.step,
      ),
    },
  );
  progress.end();
  cache.save();
  const verdict = judge(facts, project.config);
  const page = await reportPage(project, facts, verdict, trend ? pastOf(cwd, project) : []);
  const target = resolve(context.io.cwd, into);
  try {
    writeFileSync(target, page);
  } catch (error) {
    throw new CommandError(say("not-written", { file: into, detail: reasonOf(error) }), exitStatus.trouble);
  }
  const { style } = context;
  const file = relative(context.io.cwd, target).replaceAll("\\", "/");
  context.print(
    `${verdict.ok ? style.green("✓ Ready for a release.") : style.red(`✗ Not ready: ${verdict.against.map(({ message }) => message).join("; ")}.`)}\n${style.bold(file)}\n`,
  );
  return exitStatus.inOrder;
}

/** How far each locale was over the last commits; nothing where Git has none to tell. */
function pastOf(cwd: string, project: Project): readonly TrendPoint[] {
  const { configFile, config } = project;
  const patterns = [
    configFile,
    ...config.books.flatMap((book) => project.book(book).layout.globs),
    `${config.ledger}/**`,
  ];
  try {
    return trendOf(revisionsOf(cwd, patterns, mostRevisions, false), configFile);
  } catch {
    return [];
  }
}

/** `fond report` */
export const reportCommand = defineCommand<ReportCommandOptions>({
  name: "report",
  summary:
    "Write the state of all locales as one HTML page: verdict, shares, findings, every message side by side",
  heeds: { jobs: true },
  examples: [["report --into state.html", "a page for the release meeting"]],
  declare: (command) =>
    command
      .option("--into <file>", "write the page here", "fond-report.html")
      .option("--no-trend", "leave out how the shares changed over the last commits"),
  run: (context, _, options) => runReport(context, options),
});
