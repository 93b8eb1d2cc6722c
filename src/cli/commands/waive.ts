import { addWaivers, type Waiver } from "../../core/config/waivers.js";
import { makePlan } from "../../core/plan/plan.js";
import { surveyProject, type Project } from "../../core/project/project.js";
import { rules } from "../../core/lint/rules/index.js";
import { nearest } from "../../core/text/nearest.js";
import { openOrFail, scopeOf, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";

export interface WaiveCommandOptions extends WriteOptions {
  readonly rule?: string;
  readonly key?: string;
  readonly reason?: string;
  readonly until?: string;
}

/** Accepts a literal at a place in code, or the findings of a rule, with a reason. */
export async function runWaive(
  context: CommandContext,
  place: string | undefined,
  options: WaiveCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const { reason, until, rule } = options;
  if (reason === undefined || reason.trim() === "")
    throw usage("a waiver needs its reason", 'give it with --reason "…"');
  if (until !== undefined && !/^\d{4}-\d{2}-\d{2}$/.test(until))
    throw usage(`“${until}” is no day`, "write it as YYYY-MM-DD");
  if ((place === undefined) === (rule === undefined))
    throw usage(
      "it takes either a literal's place or a rule",
      "name the place as file:line, or the rule with --rule",
    );
  const more = { reason, ...(until !== undefined && { until }) };
  const added: Waiver[] =
    place === undefined
      ? findingWaivers(context, rule ?? "", options.key, more)
      : [{ ...(await literalAt(context, project, place)), ...more }];
  const file = project.waivers.file;
  const read = context.files.read(file);
  const before = read.ok ? read.text : undefined;
  const change = {
    file,
    before,
    after: addWaivers(before, added),
    ...(read.ok && read.bom && { bom: true }),
  };
  return settlePlan(context, "waive", makePlan([change], { waivers: added.length }, []), options);
}

function findingWaivers(
  { options: { locale, book } }: CommandContext,
  rule: string,
  key: string | undefined,
  more: { reason: string; until?: string },
): Waiver[] {
  const ids = rules.map(({ id }) => id);
  if (!ids.includes(rule)) {
    const near = nearest(rule, ids);
    throw usage(
      `there is no rule “${rule}”`,
      near ? `did you mean “${near}”?` : "`fond lint` names the rules",
    );
  }
  return (book ?? [undefined]).flatMap((name) =>
    (locale ?? [undefined]).map((tag) => ({
      rule,
      ...(key !== undefined && { key }),
      ...(tag !== undefined && { locale: tag }),
      ...(name !== undefined && { book: name }),
      ...more,
    })),
  );
}

async function literalAt(
  context: CommandContext,
  project: Project,
  place: string,
): Promise<{ literal: string; file: string }> {
  const match = /^(.+?):(\d+)(?::(\d+))?$/.exec(place);
  if (!match) throw usage(`“${place}” is no place`, "write it as file:line, as `fond survey` does");
  const [, path = "", line = "", column] = match;
  const result = await surveyProject(project, scopeOf(context, [path]), { all: true });
  const found = result.files
    .flatMap(({ literals }) => literals)
    .filter(
      (one) =>
        one.verdict !== "code" &&
        one.waived === undefined &&
        one.line === Number(line) &&
        (column === undefined || one.column === Number(column)),
    );
  const [first, ...others] = found;
  if (!first) throw usage(`no text to accept stands at ${place}`, "`fond survey` lists what there is");
  if (others.length > 0)
    throw usage(
      `${found.length} texts stand at ${place}: ${found.map(({ text, column: at }) => `${at} “${text}”`).join(", ")}`,
      "name the column too, as file:line:column",
    );
  return { literal: first.text, file: first.file };
}

function usage(message: string, remedy: string): CommandError {
  return new CommandError(message, remedy, exitStatus.usage);
}
