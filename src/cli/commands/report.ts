import { writeFileSync } from "node:fs";
import { relative, resolve } from "node:path";
import { notices } from "../../core/message/notices.js";
import { auditFacts, judge } from "../../core/project/audit.js";
import { trendOf, type TrendPoint } from "../../core/project/trend.js";
import type { Project } from "../../core/project/project.js";
import { reasonOf } from "../../disk/disk-files.js";
import { revisionsOf } from "../../disk/git-files.js";
import { codeReadingFor } from "../code-reading.js";
import { defineCommand } from "../command.js";
import { openOrFail, wholeNumber, type CommandContext } from "../context.js";
import { openDesk, type Desk } from "../desk.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { reportPage } from "../report-page.js";

const say = notices("cli/report", {
  "edit-alone": { message: "--edit needs --serve", remedy: "run fond report --serve --edit" },
  "no-port": { message: "port {port} cannot be used: {detail}", remedy: "choose another with --port" },
  "not-written": { message: "{file} cannot be written: {detail}", remedy: "choose another file with --into" },
});

/** So many reasons are told in a line; the page has all. */
const mostReasons = 4;

/** So many commits make a trend. */
const mostRevisions = 12;

export interface ReportCommandOptions {
  readonly into?: string;
  readonly trend: boolean;
  readonly serve?: boolean;
  readonly edit?: boolean;
  readonly port?: number;
}

/** Writes the state of the books as one HTML page. */
export async function runReport(context: CommandContext, options: ReportCommandOptions): Promise<ExitStatus> {
  const { into = "fond-report.html", trend } = options;
  if (options.edit && !options.serve) throw usageError(say("edit-alone", {}));
  const project = openOrFail(context);
  if (options.serve) return serve(context, options);
  const code = codeReadingFor(context, project, "report");
  const facts = await auditFacts(project, {}, { ...code.survey, uses: code.uses });
  code.end();
  const verdict = judge(facts, project.config);
  const page = await reportPage(project, facts, verdict, trend ? pastOf(context.options.cwd, project) : []);
  const target = resolve(context.io.cwd, into);
  try {
    writeFileSync(target, page);
  } catch (error) {
    throw new CommandError(say("not-written", { file: into, detail: reasonOf(error) }), exitStatus.trouble);
  }
  const { style } = context;
  const file = relative(context.io.cwd, target).replaceAll("\\", "/");
  const first = verdict.against.slice(0, mostReasons).map(({ message }) => message);
  const more = verdict.against.length - first.length;
  const reasons = [...first, ...(more > 0 ? [`and ${more} more`] : [])].join("; ");
  context.print(
    `${verdict.ok ? style.green("✓ Ready for a release.") : style.red(`✗ Not ready: ${reasons}.`)}\n${style.bold(file)}\n`,
  );
  return exitStatus.inOrder;
}

/** Serves the report until the program is interrupted. */
async function serve(
  context: CommandContext,
  { edit, port, trend }: ReportCommandOptions,
): Promise<ExitStatus> {
  const { cwd } = context.options;
  let desk: Desk;
  try {
    desk = await openDesk({
      folder: cwd,
      open: () => openOrFail(context),
      files: context.files,
      edit: edit ?? false,
      port: port ?? 0,
      trend: (project) => (trend ? pastOf(context.options.cwd, project) : []),
    });
  } catch (error) {
    throw new CommandError(say("no-port", { port: port ?? 0, detail: reasonOf(error) }), exitStatus.trouble);
  }
  const { style } = context;
  context.print(
    `${style.bold(desk.url)}\n${edit ? "Whoever has this address can edit the texts." : "Whoever has this address can read the report."} It is this machine's alone; Ctrl+C ends it.\n`,
  );
  await new Promise<void>((resolve) => {
    process.once("SIGINT", resolve);
    process.once("SIGTERM", resolve);
  });
  await desk.close();
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
      .option("--serve", "serve the page on this machine alone, and reload it when files change")
      .option("--edit", "with --serve: also let texts be edited, checked and written as they are typed")
      .option("--port <number>", "with --serve: use this port; default: any that is free", wholeNumber)
      .option("--no-trend", "leave out how the shares changed over the last commits"),
  run: (context, _, options) => runReport(context, options),
});
