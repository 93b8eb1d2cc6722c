import { waiverPlan } from "../../core/project/waive.js";
import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import type { Decision, Extracted, ExtractPlan } from "../../core/extract/extract.js";
import { makePlan, type FileChange } from "../../core/plan/plan.js";
import { groupBy } from "../../core/text/group-by.js";
import { foldersTable, kindOfRole } from "../terminal/folders.js";
import type { Style } from "../terminal/style.js";
import { extractProject } from "../../core/project/extract-project.js";
import type { Certainty } from "../../core/survey/survey.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
  oneOf,
  wholeNumber,
} from "../context.js";
import { codeReadingFor } from "../code-reading.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { isAttended } from "../terminal/answers.js";
import { reviewTexts } from "./review.js";
import { sayWhatHasNoReader, sayWhatWasNotRead } from "./survey.js";

const say = notices("cli/extract", {
  "no-text": {
    message: "no text to extract at {place}",
    remedy: "`fond survey` lists the texts with their places; give the line where one starts",
  },
  "no-key": {
    message: '"{value}" has no key',
    remedy: "write it as file:line=key, for example web/fares.tsx:12=fares.title",
  },
});

export interface ExtractCommandOptions extends WriteOptions {
  readonly include?: Certainty;
  readonly limit?: number;
  /** Whether only texts that have their keys already go to the catalogs. */
  readonly collect?: boolean;
  readonly everything?: boolean;
  /** Whether every file's diff is shown, however many there are. */
  readonly diff?: boolean;
  /** Whether what is written stays as it is, even where the project has a formatter. */
  readonly asWritten?: boolean;
  /** Keys that are given by hand, as `file:line=key`. */
  readonly key?: readonly string[];
  /** Whether what earlier runs found in files that are still the same is used. */
  readonly cache?: boolean;
  /** Whether to go through the texts one by one. */
  readonly review?: boolean;
}

/** Moves text from code into the source catalog and puts lookups in its place. */
export async function runExtract(
  context: CommandContext,
  paths: readonly string[],
  options: ExtractCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const given = givenKeys(options.key ?? []);
  const narrowed = {
    least: options.include ?? "sure",
    everything: options.everything ?? false,
    ...(options.limit !== undefined && { limit: options.limit }),
    ...(options.collect && { collectOnly: true }),
  };
  // After a review what was not decided on is known from before.
  const code = codeReadingFor(context, project, "extract", options.cache);
  const planned = async (decisions: ReadonlyMap<string, Decision>) => {
    const made = await extractProject(project, scopeOf(context, paths), {
      ...narrowed,
      ...code.extract,
      decisions,
    }).finally(code.end);
    if (options.asWritten) return made;
    const { formattedAsBefore } = await import("../../disk/formatter.js");
    return { ...made, changes: await formattedAsBefore(context.options.cwd, context.files, made.changes) };
  };
  const plan = await planned(given);
  sayWhatWasNotRead(context, plan.unread);
  sayWhatHasNoReader(context, project, scopeOf(context, paths));
  const [idle] = plan.idleDecisions;
  if (idle !== undefined) throw usageError(say("no-text", { place: idle }));
  const unfit = plan.unread.length > 0 ? exitStatus.trouble : undefined;
  // With a person at the terminal and nothing said of what to do, each text is shown and asked about.
  const reviews =
    !options.collect &&
    (options.review ?? (isAttended(context.options.format, context.io) && !options.write && !options.check));
  if (!reviews || plan.extracted.length === 0) {
    const files = new Set(plan.extracted.map(({ file }) => file)).size;
    const isBrief = files > mostDiffs && !options.diff;
    const ordered = context.options.format === "json" ? plan : { ...plan, changes: byRisk(plan) };
    const status = settlePlan(context, "extract", ordered, options, {
      head: `${summaryOf(plan, context.style)}${isBrief && !options.write ? `${diffHint}\n\n` : ""}`,
      isBrief,
    });
    return status === exitStatus.inOrder ? (unfit ?? status) : status;
  }
  const { decisions, waivers, taken } = await reviewTexts(context, plan.extracted);
  // What was taken as it was proposed is planned already.
  const reviewed = decisions.size === 0 ? plan : await planned(new Map([...given, ...decisions]));
  const changes = [...(taken > 0 ? reviewed.changes : []), ...waiverPlan(project, waivers).changes];
  context.print("\n");
  const summary = {
    ...(taken > 0 && reviewed.summary),
    ...(waivers.length > 0 && { "texts waived": waivers.length }),
  };
  // Each text was agreed to in the review, so there is nothing left to ask.
  const status = settlePlan(context, "extract", makePlan(changes, summary, reviewed.notes), {
    ...options,
    ...(options.check ? {} : { write: true }),
  });
  return status === exitStatus.inOrder ? (unfit ?? status) : status;
}

/** Of more rewritten files the diffs are shown when asked for. */
const mostDiffs = 25;
const diffHint = "Diffs, riskiest files first: --diff, or name some of the files";

/** What a plan takes and leaves, and where: by folder, and by what the texts are. */
function summaryOf(plan: ExtractPlan, style: Style): string {
  const refused = plan.notes.filter(({ undone }) => undone === "refused");
  const all = [
    ...plan.extracted.map(({ file }) => ({ file, isMoved: true })),
    ...refused.map(({ file }) => ({ file, isMoved: false })),
  ];
  if (all.length === 0) return "";
  const lines = foldersTable(
    all,
    [
      { head: "moved", counts: ({ isMoved }) => isMoved },
      { head: "refused", counts: ({ isMoved }) => !isMoved },
    ],
    style,
  );
  const kinds = [...groupBy(plan.extracted, kindOf)].map(([kind, { length }]) => `${length} ${kind}`);
  return `${[...lines, style.dim(kinds.join(", "))].join("\n")}\n\n`;
}

/** An extracted text's role has what the role is about behind it. */
function kindOf({ role }: Extracted): string {
  return kindOfRole(role.split(" ", 1)[0] ?? role);
}

/** The changes of a plan, those first in which most can go wrong: words that code chooses, then values in strings. */
function byRisk(plan: ExtractPlan): readonly FileChange[] {
  const risks = new Map<string, number>();
  for (const one of plan.extracted) {
    const { file, message } = one;
    const risk = /, (?:plural|select)/.test(message)
      ? 3
      : /[{%]/.test(message)
        ? 2
        : kindOf(one) === "in strings"
          ? 1
          : 0;
    risks.set(file, Math.max(risks.get(file) ?? 0, risk));
  }
  // Catalogs come last, as they do without an order.
  return [...plan.changes].sort((a, b) => (risks.get(b.file) ?? -1) - (risks.get(a.file) ?? -1));
}

function givenKeys(written: readonly string[]): ReadonlyMap<string, Decision> {
  return new Map(
    written.map((one) => {
      const match = /^([^=]+:\d+)=(\S+)$/.exec(one);
      if (!match) throw usageError(say("no-key", { value: one }));
      return [match[1] ?? "", { key: match[2] ?? "" }] as const;
    }),
  );
}

/** `fond extract` */
export const extractCommand = defineCommand<ExtractCommandOptions>({
  name: "extract",
  summary: "Move hard-coded text into the source catalog and put lookups in its place",
  heeds: { json: true, books: true, jobs: true },
  examples: [
    ["extract web/pages --no-review", "the plan for these files"],
    ["extract --write", "apply it to all code"],
  ],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[paths...]", "files or folders to extract from")
      .option(
        "--include <certainty>",
        "also extract what is less than surely text: likely, or unclear for both",
        oneOf("likely", "unclear"),
      )
      .option("--everything", "also extract from tests, stories, libraries, generated and minified files")
      .option("--diff", `show every diff, even of more than ${mostDiffs} files`)
      .option("--collect", "only collect texts that code and templates give with their keys; no code changes")
      .option("--as-written", "leave what is written as it is, even where the project has a formatter")
      .option("--limit <number>", "extract at most this many texts", wholeNumber)
      .option(
        "--key <place=key>",
        "use this key for the text at a place, as file:line=key; repeatable",
        (value: string, all?: readonly string[]) => [...(all ?? []), value],
      )
      .option("--no-cache", "read all code anew")
      .option("--review", "go through the texts one by one, then write what you accepted")
      .option("--no-review", "only print the plan, even on a terminal"),
  run: runExtract,
});
