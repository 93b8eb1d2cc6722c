import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { groupBy } from "../../core/text/group-by.js";
import type { Finding } from "../../core/lint/finding.js";
import {
  previewFindings,
  previewProject,
  type PreviewMessage,
  type PreviewResult,
} from "../../core/project/preview.js";
import { lintProject } from "../../core/project/lint-project.js";
import type { Project, Scope } from "../../core/project/project.js";
import { previewJson } from "../../output/json.js";
import { onOneLine } from "../../output/safe-text.js";
import {
  changesOf,
  mustBeKnown,
  openOrAssume,
  scopeOf,
  type ChangeOptions,
  type CommandContext,
  withChangeOptions,
} from "../context.js";
import { isolate } from "../terminal/one-line.js";
import { drawn, withoutEndSpaces } from "../terminal/table.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";

const say = notices("cli/preview", {
  "no-value": { message: '"{value}" has no value', remedy: "write --with name=value" },
  "misspelled-key": { message: 'unknown key "{key}"', remedy: "did you mean {meant}?" },
  "unknown-key": { message: 'unknown key "{key}"', remedy: "`fond preview '**'` lists all keys" },
});

export interface PreviewCommandOptions extends ChangeOptions {
  readonly with?: readonly string[];
  readonly compare?: readonly string[];
}

/** Shows what users would read, every locale side by side. */
export async function runPreview(
  context: CommandContext,
  keys: readonly string[],
  options: PreviewCommandOptions,
): Promise<ExitStatus> {
  const { project } = await openOrAssume(context);
  const scope = scopeOf(context);
  const values: Record<string, string> = {};
  for (const given of options.with ?? []) {
    const match = /^([^=]+)=([\s\S]*)$/.exec(given);
    if (!match) throw usageError(say("no-value", { value: given }));
    values[match[1] ?? ""] = match[2] ?? "";
  }
  const { source, targets } = project.config;
  mustBeKnown("locale", options.compare, [source, ...targets]);
  const given = { values, ...(options.compare && { compare: options.compare }) };
  const messages =
    keys.length > 0
      ? named(previewProject(project, scope, keys, given))
      : previewFindings(project, scope, await findingsToShow(context, project, scope, options), given);
  if (messages.length === 0) context.say("No key has findings; name the keys to preview.");
  if (context.options.format === "json") context.print(previewJson(messages));
  else if (options.compare && options.compare.length > 1)
    context.print(renderBeside(context, messages, options.compare));
  else context.print(narrowedTo(context, options) + render(context, messages));
  return exitStatus.inOrder;
}

/** What the samples were narrowed to, so that a picture of them says so: locales and values. */
function narrowedTo(
  { options, style }: CommandContext,
  { with: values = [] }: PreviewCommandOptions,
): string {
  const parts = [...(options.locale ? [options.locale.join(", ")] : []), ...values];
  return parts.length === 0 ? "" : `${style.dim(parts.join(" · "))}\n`;
}

function named(result: PreviewResult): readonly PreviewMessage[] {
  if (result.ok) return result.messages;
  throw usageError(
    result.near.length > 0
      ? say("misspelled-key", { key: result.unknown, meant: result.near.join(", ") })
      : say("unknown-key", { key: result.unknown }),
  );
}

async function findingsToShow(
  context: CommandContext,
  project: Project,
  scope: Scope,
  options: ChangeOptions,
): Promise<readonly Finding[]> {
  const changes = changesOf(context, options);
  const findings = await lintProject(project, scope);
  return changes ? findings.filter(({ file, line, endLine }) => changes.has(file, line, endLine)) : findings;
}

function render({ style }: CommandContext, messages: readonly PreviewMessage[]): string {
  const lines: string[] = [];
  let key = "";
  const wide = messages.reduce((most, { locale }) => Math.max(most, locale.length), 0);
  const byKey = groupBy(messages, ({ key }) => key);
  let room = 0;
  for (const message of messages) {
    if (message.key !== key) {
      if (key !== "") lines.push("");
      key = message.key;
      const same = byKey.get(message.key) ?? [];
      room = Math.max(0, ...same.flatMap((one) => labelsOf(one).map((label) => label.length)));
      lines.push(style.bold(style.underline(onOneLine(key))));
    }
    const labels = labelsOf(message);
    const from = message.from === undefined ? "" : style.dim(`  (from ${message.from})`);
    message.samples.forEach((sample, index) => {
      const head = index === 0 ? style.cyan(message.locale.padEnd(wide)) : " ".repeat(wide);
      const label = room === 0 ? "" : `${style.dim((labels[index] ?? "").padEnd(room))}  `;
      lines.push(`  ${head}  ${label}${isolate(sample.text)}${index === 0 ? from : ""}`);
    });
    if (message.trouble !== undefined)
      lines.push(
        `  ${style.cyan(message.locale.padEnd(wide))}  ${style.yellow(`! ${message.trouble}`)}${from}`,
      );
  }
  return lines.length === 0 ? "" : `${lines.join("\n")}\n`;
}

/** Locales beside each other, a column each; rows are the samples of any of them. */
function renderBeside(
  { style, width }: CommandContext,
  messages: readonly PreviewMessage[],
  locales: readonly string[],
): string {
  const blocks = [...groupBy(messages, ({ key }) => key)].map(([key, same]) => {
    const own = locales.map((locale) => same.find((one) => one.locale === locale));
    const labels = [...new Set(own.flatMap((one) => (one ? labelsOf(one) : [])))];
    const numberIn = (label: string) => Number(/(?<![\d.])-?\d+(?:\.\d+)?$/.exec(label)?.[0] ?? Number.NaN);
    if (labels.every((label) => !Number.isNaN(numberIn(label))))
      labels.sort((a, b) => numberIn(a) - numberIn(b));
    const room = Math.max(2, ...labels.map((label) => label.length + 2));
    const column = Math.max(12, Math.floor((width - room - 4) / locales.length));
    const rowOf = (label: string) =>
      own.map((one) => {
        const at = one ? labelsOf(one).indexOf(label) : -1;
        const from = one?.from === undefined ? "" : ` (from ${one.from})`;
        return at < 0 ? "" : isolate(one?.samples[at]?.text ?? "") + from;
      });
    const rows = labels.map((label) => [style.dim(label), ...rowOf(label)]);
    if (own.some((one) => one?.trouble !== undefined))
      rows.push([
        "",
        ...own.map((one) => (one?.trouble === undefined ? "" : style.yellow(`! ${one.trouble}`))),
      ]);
    const table = drawn(["", ...locales.map((locale) => style.cyan(locale))], rows, {
      colWidths: [room, ...locales.map(() => column)],
      wordWrap: true,
    });
    return `${style.bold(style.underline(onOneLine(key)))}\n${withoutEndSpaces(table)}\n`;
  });
  return blocks.join("\n");
}

/** What tells the samples of a message apart: the arguments that differ. */
function labelsOf({ samples }: PreviewMessage): string[] {
  const varies = Object.keys(samples[0]?.arguments ?? {}).filter(
    (name) => new Set(samples.map((sample) => sample.arguments[name])).size > 1,
  );
  return samples.map((sample) =>
    varies.map((name) => `${name} = ${sample.arguments[name] ?? ""}`).join(", "),
  );
}

/** `fond preview` */
export const previewCommand = defineCommand<PreviewCommandOptions>({
  name: "preview",
  summary: "Show what users would read: every locale, plural category and case",
  heeds: { json: true, books: true, locales: true },
  examples: [
    ["preview sailings.list.seats", "one message in every locale"],
    ["preview search.results --with count=21 --locale pl", "with a number of yours"],
  ],
  declare: (command) =>
    withChangeOptions(command)
      .argument("[keys...]", "keys or patterns (* and **); default: the keys that have findings")
      .option(
        "--with <name=value>",
        "use this value for an argument; repeatable",
        (value: string, all?: readonly string[]) => [...(all ?? []), value],
      )
      .option("--compare <locale...>", "show these locales side by side"),
  run: runPreview,
});
