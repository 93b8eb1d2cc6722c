import Table from "cli-table3";
import type { BookBalance, LocaleBalance } from "../../core/ledger/balance.js";
import { balanceProject } from "../../core/project/project.js";
import { balanceJson } from "../../output/json.js";
import { openOrFail, scopeOf, type CommandContext } from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";
import { counted, type Style } from "../terminal/style.js";

/** Shows how far each locale is. */
export function runBalance(context: CommandContext): ExitStatus {
  const project = openOrFail(context);
  const books = balanceProject(project, scopeOf(context));
  for (const file of books.flatMap(({ unreadable }) => unreadable))
    context.say(`${file}: cannot be read, so its keys count as missing; \`fond lint\` says why`);
  if (context.options.format === "json") context.print(balanceJson(books));
  else context.print(books.map((book) => renderBook(book, context.style, context.width)).join("\n"));
  return exitStatus.inOrder;
}

function renderBook(book: BookBalance, style: Style, width: number): string {
  const columns = ["locale", "", "", "translated", "reviewed", "stale", "initial", "missing", "extra"];
  const barWidth = Math.max(8, Math.min(28, width - 78));
  const table = new Table({
    head: columns.map((name) => style.dim(name)),
    colAligns: ["left", "left", ...columns.slice(2).map(() => "right" as const)],
    style: { head: [], border: [], "padding-left": 0, "padding-right": 2 },
    chars: Object.fromEntries(
      [
        "top",
        "top-mid",
        "top-left",
        "top-right",
        "bottom",
        "bottom-mid",
        "bottom-left",
        "bottom-right",
        "left",
        "left-mid",
        "mid",
        "mid-mid",
        "right",
        "right-mid",
        "middle",
      ].map((name) => [name, ""]),
    ),
  });
  const sorted = [...book.locales].sort((a, b) => a.share - b.share || (a.locale < b.locale ? -1 : 1));
  for (const locale of sorted) table.push(renderLocale(locale, style, barWidth));
  const title = `${style.bold(book.name)} ${style.dim(counted(book.keys, "key"))}`;
  return `${title}\n${sorted.length > 0 ? table.toString().replace(/ +$/gm, "") : style.dim("no target locales")}\n`;
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
  ];
}
