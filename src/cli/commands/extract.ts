import { addWaivers } from "../../core/config/waivers.js";
import type { Decision } from "../../core/extract/extract.js";
import { makePlan } from "../../core/plan/plan.js";
import { extractProject } from "../../core/project/project.js";
import type { Verdict } from "../../core/survey/survey.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { isAttended } from "../terminal/answers.js";
import { reviewTexts } from "./review.js";
import { sayWhatHasNoReader, sayWhatWasNotRead } from "./survey.js";

export interface ExtractCommandOptions extends WriteOptions {
  readonly include?: readonly Verdict[];
  readonly limit?: number;
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
  const verdicts: readonly Verdict[] = ["text", ...(options.include ?? [])];
  const given = givenKeys(options.key ?? []);
  const narrowed = { verdicts, ...(options.limit !== undefined && { limit: options.limit }) };
  const plan = await extractProject(project, scopeOf(context, paths), { ...narrowed, decisions: given });
  sayWhatWasNotRead(context, plan.unread);
  sayWhatHasNoReader(context, project, scopeOf(context, paths));
  const [idle] = plan.idleDecisions;
  if (idle !== undefined)
    throw new CommandError(
      `no text to extract at ${idle}`,
      "`fond survey` lists the texts with their places; give the line where one starts",
      exitStatus.usage,
    );
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
      if (!match)
        throw new CommandError(
          `“${one}” gives no key`,
          "write it as file:line=key, such as web/fares.tsx:12=fares.title",
          exitStatus.usage,
        );
      return [match[1] ?? "", { key: match[2] ?? "" }] as const;
    }),
  );
}
