import { codeReadingFor } from "../code-reading.js";
import { notices } from "../../core/message/notices.js";
import { traceProject, type TracedKey, type TracedLocale } from "../../core/project/trace.js";
import { git } from "../../disk/git.js";
import { traceJson } from "../../output/json.js";
import { onOneLine } from "../../output/safe-text.js";
import { shortened } from "../../core/text/shorten.js";
import { defineCommand } from "../command.js";
import { openOrAssume, scopeOf, type CommandContext } from "../context.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { isolate } from "../terminal/one-line.js";
import { counted, type Style } from "../terminal/style.js";

const say = notices("cli/trace", {
  "misspelled-key": { message: 'unknown key "{key}"', remedy: "did you mean {meant}?" },
  "unknown-key": { message: 'unknown key "{key}"', remedy: "`fond list` lists all keys" },
});

/** So many commits tell the life of a text. */
const mostCommits = 5;

/** Shows all that is known of keys. */
export async function runTrace(context: CommandContext, keys: readonly string[]): Promise<ExitStatus> {
  const { project } = await openOrAssume(context);
  const code = codeReadingFor(context, project, "trace");
  const result = await traceProject(project, scopeOf(context), keys, code.uses);
  code.end();
  if (!result.ok)
    throw usageError(
      result.near.length > 0
        ? say("misspelled-key", { key: result.unknown, meant: result.near.join(", ") })
        : say("unknown-key", { key: result.unknown }),
    );
  const traced = result.keys.map((one) => ({ ...one, commits: commitsOf(context.options.cwd, one) }));
  if (context.options.format === "json") context.print(traceJson(traced));
  else context.print(traced.map((one) => render(context, one)).join("\n"));
  return exitStatus.inOrder;
}

/** One commit that changed the line of a key in the source catalog. */
export interface TracedCommit {
  readonly commit: string;
  readonly date: string;
  readonly author: string;
  readonly subject: string;
}

function commitsOf(cwd: string, { source: { file, line } }: TracedKey): readonly TracedCommit[] {
  try {
    const log = git(cwd, [
      "log",
      `-n${mostCommits}`,
      "--no-patch",
      "--format=%h%x09%cs%x09%an%x09%s",
      `-L${line},${line}:${file}`,
    ]);
    return log
      .split("\n")
      .filter((one) => one !== "")
      .map((one) => {
        const [commit = "", date = "", author = "", ...subject] = one.split("\t");
        return { commit, date, author, subject: subject.join("\t") };
      });
  } catch {
    // Without Git, or for a file that it does not know, there is no history to tell.
    return [];
  }
}

function render(
  { style, width }: CommandContext,
  {
    key,
    source,
    locales,
    uses,
    findings,
    commits,
  }: TracedKey & { readonly commits: readonly TracedCommit[] },
): string {
  const wide = Math.max(0, ...locales.map(({ locale }) => locale.length));
  const room = Math.max(0, ...locales.map(({ state }) => state.length));
  const heading = (words: string) => `\n  ${style.bold(words)}`;
  return [
    style.bold(style.underline(onOneLine(key))),
    `  ${isolate(source.text)}  ${style.dim(`${source.file}:${source.line}`)}`,
    ...(source.comment === undefined ? [] : [`  ${style.dim(onOneLine(source.comment))}`]),
    heading("Locales"),
    ...locales.flatMap((one) => localeLines(style, one, wide, room)),
    heading(
      uses.length === 0 ? "Code does not ask for it" : `Code asks for it in ${counted(uses.length, "place")}`,
    ),
    ...uses.map(
      ({ file, line, column, code }) =>
        `  ${style.dim(`${file}:${line}:${column}`)}  ${shortened(code, Math.max(width - file.length - 14, 20))}`,
    ),
    ...(findings.length === 0 ? [] : [heading("Findings")]),
    ...findings.map(
      ({ severity, message, file, line, rule }) =>
        `  ${severity === "error" ? style.red(severity) : style.yellow(severity)}  ${message}  ${style.dim(`${rule}  ${file}:${line}`)}`,
    ),
    ...(commits.length === 0 ? [] : [heading("Commits of the source text")]),
    ...commits.map(
      ({ commit, date, author, subject }) =>
        `  ${style.dim(`${commit} ${date}`)}  ${onOneLine(subject)}  ${style.dim(onOneLine(author))}`,
    ),
    "",
  ].join("\n");
}

function localeLines(style: Style, one: TracedLocale, wide: number, room: number): readonly string[] {
  const { locale, text, from, state, file, line, record, change, note, chain } = one;
  const color =
    state === "translated" || state === "reviewed" || state === "final" ? style.green : style.yellow;
  const indent = " ".repeat(wide + room + 6);
  const shown = text === undefined ? style.dim("nothing") : isolate(text);
  const place = file === undefined || from !== undefined ? [] : [`${file}:${line ?? 1}`];
  const second = [...(record ? [record.origin, record.date] : []), ...place];
  return [
    `  ${style.cyan(locale.padEnd(wide))}  ${color(state.padEnd(room))}  ${shown}`,
    ...(from === undefined
      ? []
      : [`${indent}${style.dim(`from ${from}, as ${chain.join(" → ")} are asked`)}`]),
    ...(second.length > 0 ? [`${indent}${style.dim(second.join(", "))}`] : []),
    ...(change
      ? [
          `${indent}${style.dim("source since: ")}${change
            .map(({ text: part, kind }) =>
              kind === "same"
                ? part
                : kind === "removed"
                  ? style.red(`[-${part}-]`)
                  : style.green(`[+${part}+]`),
            )
            .join("")}`,
        ]
      : []),
    ...(note ? [`${indent}${style.dim(`note of ${note.date}: `)}${onOneLine(note.text)}`] : []),
  ];
}

/** `fond trace` */
export const traceCommand = defineCommand({
  name: "trace",
  summary: "Show all that is known of a key: texts, states, fallback, where code asks for it, its history",
  heeds: { json: true, books: true, locales: true },
  examples: [["trace fares.checkIn", "one key, with all that is known of it"]],
  declare: (command) => command.argument("<keys...>", "keys or patterns (* and **)"),
  run: runTrace,
});
