import { notices } from "../../core/message/notices.js";
import { listProject, unreadableIn, type ListedKey, type ListedText } from "../../core/project/listing.js";
import { listJson } from "../../output/json.js";
import { onOneLine } from "../../output/safe-text.js";
import { defineCommand } from "../command.js";
import { openOrAssume, scopeOf, type CommandContext } from "../context.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { isolate } from "../terminal/one-line.js";
import type { Style } from "../terminal/style.js";

const say = notices("cli/list", {
  "misspelled-key": { message: 'unknown key "{key}"', remedy: "did you mean {meant}?" },
  "unknown-key": { message: 'unknown key "{key}"', remedy: "`fond list` without a key lists all of them" },
});

/** Lists keys with their texts in every locale, where each stands, and where it is. */
export async function runList(context: CommandContext, keys: readonly string[]): Promise<ExitStatus> {
  const { project } = await openOrAssume(context);
  const unreadable = unreadableIn(project, scopeOf(context));
  for (const file of unreadable)
    context.say(
      `${file}: cannot be read, so keys and texts may be in it that are not listed; \`fond lint\` shows why`,
    );
  const result = listProject(project, scopeOf(context), keys);
  if (!result.ok)
    throw usageError(
      result.near.length > 0
        ? say("misspelled-key", { key: result.unknown, meant: result.near.join(", ") })
        : say("unknown-key", { key: result.unknown }),
    );
  if (context.options.format === "json") context.print(listJson(result.keys));
  else context.print(render(context.style, result.keys));
  return unreadable.length > 0 ? exitStatus.trouble : exitStatus.inOrder;
}

function render(style: Style, keys: readonly ListedKey[]): string {
  const texts = keys.flatMap((one) => one.texts);
  const wide = Math.max(0, ...texts.map(({ locale }) => locale.length));
  const room = Math.max(0, ...texts.map(({ state }) => state.length));
  return keys
    .map(({ key, texts: own }) => {
      const lines = own.map((text) => {
        const { locale } = text;
        const head = `  ${style.cyan(locale.padEnd(wide))}  ${colored(style, text, room)}`;
        return text.text === undefined
          ? head.trimEnd()
          : `${head}  ${isolate(text.text)}  ${style.dim(`${text.file ?? ""}:${text.line ?? 1}`)}`;
      });
      return `${style.bold(style.underline(onOneLine(key)))}\n${lines.join("\n")}\n`;
    })
    .join("\n");
}

function colored(style: Style, { state }: ListedText, room: number): string {
  const padded = state.padEnd(room);
  if (state === "unreadable") return style.red(padded);
  if (state === "missing" || state === "stale" || state === "initial") return style.yellow(padded);
  return style.dim(padded);
}

/** `fond list` */
export const listCommand = defineCommand({
  name: "list",
  summary: "List keys with their texts in every locale, how far each is, and where it stands",
  heeds: { json: true, books: true, locales: true },
  examples: [["list 'common.nav.*' --locale de", "keys of a group"]],
  declare: (command) => command.argument("[keys...]", "keys or patterns (* and **); default: all keys"),
  run: runList,
});
