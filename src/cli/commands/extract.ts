import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { addWaivers } from "../../core/config/waivers.js";
import type { Decision } from "../../core/extract/extract.js";
import { makePlan } from "../../core/plan/plan.js";
import { extractProject } from "../../core/project/project.js";
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
  readonly everything?: boolean;
  /** Keys that are given by hand, as `file:line=key`. */
  readonly key?: readonly string[];
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
  };
  const plan = await extractProject(project, scopeOf(context, paths), { ...narrowed, decisions: given });
  sayWhatWasNotRead(context, plan.unread);
  sayWhatHasNoReader(context, project, scopeOf(context, paths));
  const [idle] = plan.idleDecisions;
  if (idle !== undefined) throw usageError(say("no-text", { place: idle }));
  const unfit = plan.unread.length > 0 ? exitStatus.trouble : undefined;
  // With a person at the terminal and nothing said of what to do, each text is shown and asked about.
  const reviews =
    options.review ?? (isAttended(context.options.format, context.io) && !options.write && !options.check);
  if (!reviews || plan.extracted.length === 0) {
    const status = settlePlan(context, "extract", plan, options);
    return status === exitStatus.inOrder ? (unfit ?? status) : status;
  }
  const { decisions, waivers, taken } = await reviewTexts(context, plan.extracted);
  const reviewed = await extractProject(project, scopeOf(context, paths), {
    ...narrowed,
    decisions: new Map([...given, ...decisions]),
  });
  const { file } = project.waivers;
  const read = context.files.read(file);
  const before = read.ok ? read.text : undefined;
  const accepted = waivers.length > 0 ? [{ file, before, after: addWaivers(before, waivers) }] : [];
  const changes = [...(taken > 0 ? reviewed.changes : []), ...accepted];
  context.print("\n");
  const summary = {
    ...(taken > 0 && reviewed.summary),
    ...(waivers.length > 0 && { "texts accepted as they are": waivers.length }),
  };
  // Each text was agreed to in the review, so there is nothing left to ask.
  const status = settlePlan(context, "extract", makePlan(changes, summary, reviewed.notes), {
    ...options,
    ...(options.check ? {} : { write: true }),
  });
  return status === exitStatus.inOrder ? (unfit ?? status) : status;
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
  heeds: { json: true, books: true },
  declare: (command) =>
    withWriteOptions(command)
      .argument("[paths...]", "files or folders to extract from")
      .option(
        "--include <certainty>",
        "also extract what is less than surely text: likely, or unclear for both",
        oneOf("likely", "unclear"),
      )
      .option("--everything", "also extract from tests, stories, libraries, generated and minified files")
      .option("--limit <number>", "extract at most this many texts", wholeNumber)
      .option(
        "--key <place=key>",
        "use this key for the text at a place, as file:line=key; repeatable",
        (value: string, all?: readonly string[]) => [...(all ?? []), value],
      )
      .option("--review", "go through the texts one by one, then write what you accepted")
      .option("--no-review", "only print the plan, even on a terminal"),
  run: runExtract,
});
