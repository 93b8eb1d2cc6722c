import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { addLocale, dropLocale, listLocales, type LocaleAccount } from "../../core/project/locales.js";
import { localesJson } from "../../output/json.js";
import {
  openOrFail,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
} from "../context.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { today } from "../today.js";

const say = notices("cli/locale", {
  "no-action": {
    message: 'unknown action "{action}"',
    remedy: "write `fond locale list`, `fond locale add pt-BR` or `fond locale drop pt-BR`",
  },
});

/** Lists the locales of a project, opens a new one, or sets one aside. */
export function runLocale(
  context: CommandContext,
  [action = "list", tag]: readonly string[],
  options: WriteOptions,
): ExitStatus {
  const project = openOrFail(context);
  if (action === "list" && tag === undefined) {
    const locales = listLocales(project);
    if (context.options.format === "json") context.print(localesJson(locales));
    else for (const one of locales) context.print(describe(context, one));
    return exitStatus.inOrder;
  }
  if ((action !== "add" && action !== "drop") || tag === undefined)
    throw usageError(say("no-action", { action: [action, tag ?? ""].join(" ").trim() }));
  const result = action === "add" ? addLocale(project, tag, today()) : dropLocale(project, tag, today());
  if (!result.ok) throw usageError(result);
  if (result.account && context.options.format === "text") context.print(describe(context, result.account));
  return settlePlan(context, "locale", result.plan, options);
}

function describe(
  { style }: CommandContext,
  one: Omit<LocaleAccount, "share"> & { readonly share?: number },
): string {
  const name = new Intl.DisplayNames(["en"], { type: "language" }).of(one.locale) ?? one.locale;
  const facts = [
    one.isSource ? "source" : `falls back to ${one.fallback.join(", then ")}`,
    one.direction === "rtl" ? "right to left" : "left to right",
    `plurals ${one.cardinal.join(" ")}`,
    `ordinals ${one.ordinal.join(" ")}`,
  ];
  const share =
    one.share === undefined || one.isSource ? "" : `  ${(Math.floor(one.share * 1000) / 10).toFixed(1)} %`;
  return `${style.bold(one.locale.padEnd(6))}  ${name}${share}\n        ${style.dim(facts.join(" · "))}\n`;
}

/** `fond locale` */
export const localeCommand = defineCommand<WriteOptions>({
  name: "locale",
  summary: "List the project's locales, add one, or drop one",
  heeds: { json: true },
  examples: [["locale list", "the locales with what they fall back to"]],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[action]", "list, add or drop")
      .argument("[tag]", "the locale, for example pt-BR"),
  run: runLocale,
});
