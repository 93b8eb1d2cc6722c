import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { diffWordsWithSpace } from "diff";
import { bookLayout } from "../../core/catalog/layout.js";
import type { BookBalance, LocaleBalance } from "../../core/ledger/balance.js";
import type { OutstandingText } from "../../core/ledger/outstanding.js";
import { balanceProject, outstandingIn, type Project } from "../../core/project/project.js";
import { trendOf, type TrendPoint } from "../../core/project/trend.js";
import { revisionsOf } from "../../disk/git-files.js";
import { gitTrouble } from "../../disk/git.js";
import { withWidths } from "../../core/text/width.js";
import { balanceJson, outstandingJson, trendJson } from "../../output/json.js";
import { openOrAssume, scopeOf, type CommandContext, oneOf, wholeNumber } from "../context.js";
import { columnsOf } from "../terminal/table.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { counted, type Style } from "../terminal/style.js";

const say = notices("cli/balance", {
  "no-history": {
    message: "no history to show: {detail}",
    remedy: "run it inside a Git repository with commits",
  },
});

export interface BalanceCommandOptions {
  readonly by?: "namespace";
  readonly todo?: boolean;
  readonly stale?: boolean;
  /** How many revisions to look back; true for as many as fit. */
  readonly trend?: number | true;
  readonly releases?: boolean;
}

/** Shows how far each locale is, what is still to be done, or how it went so far. */
export async function runBalance(
  context: CommandContext,
  options: BalanceCommandOptions = {},
): Promise<ExitStatus> {
  const { project } = await openOrAssume(context);
  const isJson = context.options.format === "json";
  if (options.todo || options.stale) {
    const all = outstandingIn(project, scopeOf(context));
    const texts = options.stale && !options.todo ? all.filter(({ what }) => what === "stale") : all;
    context.print(isJson ? outstandingJson(texts) : renderOutstanding(texts, context.style));
    return exitStatus.inOrder;
  }
  if (options.trend !== undefined) {
    const points = trendIn(context, project, options);
    context.print(isJson ? trendJson(points) : renderTrend(points, context.style));
    return exitStatus.inOrder;
  }
  const books = balanceProject(project, scopeOf(context), options.by === "namespace");
  const unreadable = books.flatMap((book) => book.unreadable);
  for (const file of unreadable)
    context.say(`${file}: cannot be read, so its keys count as missing; \`fond lint\` shows why`);
  if (isJson) context.print(balanceJson(books));
  else
    context.print(
      await withWidths(() => books.map((book) => renderBook(book, context.style, context.width)).join("\n")),
    );
  // The counts are not those of the texts then.
  return unreadable.length > 0 ? exitStatus.trouble : exitStatus.inOrder;
}

function trendIn(
  context: CommandContext,
  project: Project,
  { trend, releases }: BalanceCommandOptions,
): TrendPoint[] {
  const { config, configFile } = project;
  const patterns = [
    ...config.books.flatMap((book) => bookLayout(book).globs),
    `${config.ledger}/**`,
    configFile,
    config.waivers,
  ];
  try {
    const revisions = revisionsOf(
      context.options.cwd,
      patterns,
      trend === true ? 12 : (trend ?? 12),
      releases ?? false,
    );
    return trendOf(revisions, configFile, scopeOf(context));
  } catch (error) {
    throw usageError(say("no-history", { detail: gitTrouble(error) }));
  }
}

function renderOutstanding(texts: readonly OutstandingText[], style: Style): string {
  if (texts.length === 0) return `${style.green("✓")} nothing to do\n`;
  const lines: string[] = [];
  let locale = "";
  for (const one of texts) {
    if (one.locale !== locale) {
      const own = texts.filter((other) => other.locale === one.locale);
      const words = own.reduce((sum, other) => sum + other.words, 0);
      lines.push(
        `${lines.length > 0 ? "\n" : ""}${style.bold(one.locale)} ${style.dim(`${counted(own.length, "text")}, ${counted(words, "word")}`)}`,
      );
      locale = one.locale;
    }
    const key = one.namespace === undefined ? one.key : `${one.namespace} ${one.key}`;
    const place = one.line === undefined ? one.file : `${one.file}:${one.line}`;
    const paint = one.what === "missing" ? style.red : style.yellow;
    lines.push(`  ${paint(one.what.padEnd(7))} ${key}  ${style.dim(place)}`);
    lines.push(
      `          ${one.former === undefined ? one.source : wordDiff(one.former, one.source, style)}`,
    );
    if (one.what === "stale" && one.text !== undefined)
      lines.push(`          ${style.dim("now:")} ${one.text}`);
  }
  return `${lines.join("\n")}\n`;
}

/** What changed between two texts, word by word. */
function wordDiff(before: string, after: string, style: Style): string {
  return diffWordsWithSpace(before, after)
    .map(({ value, added, removed }) =>
      removed ? style.red(`[-${value}-]`) : added ? style.green(`{+${value}+}`) : value,
    )
    .join("");
}

const steps = "▁▂▃▄▅▆▇█";

function renderTrend(points: readonly TrendPoint[], style: Style): string {
  const last = points.at(-1);
  if (!last) return "No revision has a configuration that can be read.\n";
  const lines: string[] = [
    style.dim(`${points[0]?.date ?? ""} (${points[0]?.revision ?? ""}) to ${last.date} (${last.revision})`),
  ];
  for (const book of last.books) {
    lines.push(style.bold(book.name));
    for (const { locale, share } of book.locales) {
      const shares = points.map(
        (point) =>
          point.books.find(({ name }) => name === book.name)?.locales.find((one) => one.locale === locale)
            ?.share,
      );
      const line = shares
        .map((one) =>
          one === undefined
            ? " "
            : (steps[Math.min(steps.length - 1, Math.floor(one * steps.length))] ?? "█"),
        )
        .join("");
      lines.push(`  ${locale.padEnd(8)} ${style.cyan(line)} ${(Math.floor(share * 1000) / 10).toFixed(1)} %`);
    }
  }
  return `${lines.join("\n")}\n`;
}

function renderBook(book: BookBalance, style: Style, width: number): string {
  const columns = [
    "locale",
    "",
    "",
    "translated",
    "reviewed",
    "stale",
    "initial",
    "missing",
    "extra",
    "words to do",
  ];
  const barWidth = Math.max(8, Math.min(28, width - 92));
  const sorted = [...book.locales].sort((a, b) => a.share - b.share || (a.locale < b.locale ? -1 : 1));
  const table = columnsOf(
    columns.map((name) => style.dim(name)),
    sorted.map((locale) => renderLocale(locale, style, barWidth)),
    ["left", "left", ...columns.slice(2).map(() => "right" as const)],
    width,
  );
  const name = book.namespace === undefined ? book.name : `${book.name} ${book.namespace}`;
  const title = `${style.bold(name)} ${style.dim(counted(book.keys, "key"))}`;
  return `${title}\n${sorted.length > 0 ? table : style.dim("no target locales")}\n`;
}

function renderLocale(locale: LocaleBalance, style: Style, barWidth: number): string[] {
  const paint = locale.share >= 1 ? style.green : locale.share >= 0.5 ? style.yellow : style.red;
  const filled = locale.share >= 1 ? barWidth : Math.min(barWidth - 1, Math.round(locale.share * barWidth));
  const bar = paint("█".repeat(filled)) + style.dim("░".repeat(barWidth - filled));
  const share = `${(Math.floor(locale.share * 1000) / 10).toFixed(1)} %`;
  const number = (count: number, alarm?: (text: string) => string) =>
    count === 0 ? style.dim("0") : alarm ? alarm(String(count)) : String(count);
  return [
    style.bold(locale.locale),
    bar,
    paint(share),
    number(locale.translated),
    number(locale.reviewed),
    number(locale.stale, style.yellow),
    number(locale.initial, style.yellow),
    number(locale.missing, style.red),
    number(locale.extra, style.yellow),
    number(locale.words),
  ];
}

/** `fond balance` */
export const balanceCommand = defineCommand<BalanceCommandOptions>({
  name: "balance",
  summary: "Show how complete each locale is",
  heeds: { json: true, books: true, locales: true },
  examples: [["balance --todo --locale pl", "what is left in one locale"]],
  declare: (command) =>
    command
      .option("--by <part>", "count by namespace", oneOf("namespace"))
      .option("--todo", "list what is not translated yet, with source text and place")
      .option("--stale", "list translations of an older source text, with what changed")
      .option("--trend [number]", "show how the shares grew over the last commits to the catalogs", (value) =>
        wholeNumber(value),
      )
      .option("--releases", "with --trend: use the last tags instead of commits"),
  run: (context, _, options) => runBalance(context, options),
});
