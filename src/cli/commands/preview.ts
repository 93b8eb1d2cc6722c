import { previewProject, type PreviewMessage } from "../../core/project/preview.js";
import { lintProject } from "../../core/project/project.js";
import { previewJson } from "../../output/json.js";
import { changesOf, openOrFail, scopeOf, type ChangeOptions, type CommandContext } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { canonicalTag, parseTag } from "../../core/locale/tag.js";

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
  const project = openOrFail(context);
  const scope = scopeOf(context);
  const values: Record<string, string> = {};
  for (const given of options.with ?? []) {
    const match = /^([^=]+)=([\s\S]*)$/.exec(given);
    if (!match)
      throw new CommandError(`“${given}” gives no value`, "write --with name=value", exitStatus.usage);
    values[match[1] ?? ""] = match[2] ?? "";
  }
  const known = [project.config.source, ...project.config.targets];
  const compare = options.compare?.map((tag) => {
    const found = known.find((one) => canonicalTag(one) === canonicalTag(parseTag(tag) ? tag : "und"));
    if (found === undefined)
      throw new CommandError(
        `there is no locale “${tag}”`,
        `the locales are ${known.join(", ")}`,
        exitStatus.usage,
      );
    return found;
  });
  let wanted = keys;
  if (wanted.length === 0) {
    const changes = changesOf(context, options);
    const findings = await lintProject(project, scope);
    wanted = [
      ...new Set(
        findings.flatMap(({ key, namespace, rule, file, line, endLine }) =>
          key !== undefined &&
          rule !== "key/extra" &&
          rule !== "key/undefined" &&
          (!changes || changes.has(file, line, endLine))
            ? [namespace === undefined ? key : `${namespace}.${key}`]
            : [],
        ),
      ),
    ];
    if (wanted.length === 0) context.say("No key carries a finding; name keys to see them.");
  }
  const result = previewProject(project, scope, wanted, { values, ...(compare && { compare }) });
  if (!result.ok)
    throw new CommandError(
      `there is no key “${result.unknown}”`,
      result.near.length > 0
        ? `did you mean ${result.near.join(", ")}?`
        : "`fond balance` shows what there is",
      exitStatus.usage,
    );
  if (context.options.format === "json") context.print(previewJson(result.messages));
  else context.print(render(context, result.messages));
  return exitStatus.inOrder;
}

function render({ style }: CommandContext, messages: readonly PreviewMessage[]): string {
  const lines: string[] = [];
  let key = "";
  const wide = Math.max(0, ...messages.map(({ locale }) => locale.length));
  let room = 0;
  for (const message of messages) {
    if (message.key !== key) {
      if (key !== "") lines.push("");
      key = message.key;
      const same = messages.filter((one) => one.key === message.key);
      room = Math.max(0, ...same.flatMap((one) => labelsOf(one).map((label) => label.length)));
      lines.push(style.bold(style.underline(key)));
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

/** What tells the samples of a message apart: the arguments that differ. */
function labelsOf({ samples }: PreviewMessage): string[] {
  const varies = Object.keys(samples[0]?.arguments ?? {}).filter(
    (name) => new Set(samples.map((sample) => sample.arguments[name])).size > 1,
  );
  return samples.map((sample) =>
    varies.map((name) => `${name} = ${sample.arguments[name] ?? ""}`).join(", "),
  );
}

/** Right-to-left text between isolates (UAX #9), so that what stands around it keeps its place. */
function isolate(text: string): string {
  const line = text.replace(/\n/g, "⏎");
  return /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/.test(line) ? `\u2068${line}\u2069` : line;
}
