import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import type { Waiver } from "../../core/config/waivers.js";
import { waiverPlan } from "../../core/project/waive.js";
import { surveyProject } from "../../core/project/survey-project.js";
import type { Project } from "../../core/project/project.js";
import { rules } from "../../core/lint/rules/index.js";
import { nearest } from "../../core/text/nearest.js";
import {
  openOrFail,
  scopeOf,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
} from "../context.js";
import { usageError, type ExitStatus } from "../exit.js";

const say = notices("cli/waive", {
  "no-reason": { message: "missing reason", remedy: 'give it with --reason "…"' },
  "no-day": { message: '"{until}" is not a day', remedy: "write it as YYYY-MM-DD" },
  "place-or-rule": {
    message: "either a place or a rule is needed",
    remedy: "give the place of a string as file:line, or a rule with --rule",
  },
  "misspelled-rule": { message: 'unknown rule "{rule}"', remedy: 'did you mean "{meant}"?' },
  "unknown-rule": { message: 'unknown rule "{rule}"', remedy: "`fond lint` shows the rule of each finding" },
  "no-place": { message: '"{place}" is not a place', remedy: "write it as file:line, as `fond survey` does" },
  "no-text": {
    message: "no text to accept at {place}",
    remedy: "`fond survey` lists the texts with their places",
  },
  "many-texts": {
    message: "{count} texts at {place}: {texts}",
    remedy: "give the column too, as file:line:column",
  },
});

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
  if (reason === undefined || reason.trim() === "") throw usageError(say("no-reason", {}));
  if (until !== undefined && !/^\d{4}-\d{2}-\d{2}$/.test(until)) throw usageError(say("no-day", { until }));
  if ((place === undefined) === (rule === undefined)) throw usageError(say("place-or-rule", {}));
  const more = { reason, ...(until !== undefined && { until }) };
  const added: Waiver[] =
    place === undefined
      ? findingWaivers(context, rule ?? "", options.key, more)
      : [{ ...(await literalAt(context, project, place)), ...more }];
  return settlePlan(context, "waive", waiverPlan(project, added), options);
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
    throw usageError(near ? say("misspelled-rule", { rule, meant: near }) : say("unknown-rule", { rule }));
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
  if (!match) throw usageError(say("no-place", { place }));
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
  if (!first) throw usageError(say("no-text", { place }));
  if (others.length > 0)
    throw usageError(
      say("many-texts", {
        count: found.length,
        place,
        texts: found.map(({ text, column: at }) => `${at} "${text}"`).join(", "),
      }),
    );
  return { literal: first.text, file: first.file };
}

/** `fond waive` */
export const waiveCommand = defineCommand<WaiveCommandOptions>({
  name: "waive",
  summary: "Accept a finding or a hard-coded string as it is, with a reason",
  heeds: { json: true, books: true, locales: true },
  examples: [['waive web/pages/search.tsx:12 --reason "a name"', "this string stays in code"]],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[place]", "the place of a string in code, as file:line or file:line:column")
      .option("--rule <rule>", "accept findings of this rule")
      .option("--key <pattern>", "only for these keys (* and ** stand for parts)")
      .option("--reason <words>", "say why it is accepted")
      .option("--until <day>", "let the waiver expire after this day, as YYYY-MM-DD"),
  run: (context, places, options) => runWaive(context, places[0], options),
});
