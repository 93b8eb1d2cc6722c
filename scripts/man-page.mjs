// Writes man/fond.1 from the commands themselves; --check says whether it is what they make.
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { Command } from "commander";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const { commandNames, loadCommand } = await import("../dist/src/cli/run.js");
const { withCommonOptions } = await import("../dist/src/cli/context.js");

/** A text as roff has it: nothing in it is a request or an escape. */
const roff = (text) =>
  text
    .replaceAll("\\", "\\e")
    .replaceAll("-", "\\-")
    .replace(/^([.'])/gm, "\\&$1");

const lines = [
  '.TH FOND 1 "" "Fond Ledger"',
  ".SH NAME",
  "fond \\- extract UI strings, keep locale catalogs in sync, and catch broken translations before release",
  ".SH SYNOPSIS",
  ".B fond",
  ".RI [ command ] [ options ]",
  ".SH COMMANDS",
];
for (const name of commandNames) {
  const { summary, heeds, declare, examples = [] } = await loadCommand(name);
  const command = withCommonOptions(declare(new Command(name)), heeds);
  lines.push(
    `.SS ${roff(`fond ${name} ${command.usage().replace(/^\[options\] ?/, "")}`.trim())}`,
    roff(`${summary}.`),
  );
  for (const argument of command.registeredArguments)
    if (argument.description) lines.push(".TP", `.I ${roff(argument.name())}`, roff(argument.description));
  for (const option of command.options)
    if (!option.hidden) lines.push(".TP", `.B ${roff(option.flags)}`, roff(option.description));
  if (examples.length > 0) lines.push(".PP", "Examples:");
  for (const [words, what] of examples) lines.push(".TP", `.B ${roff(`fond ${words}`)}`, roff(what));
}
lines.push(
  ".SH EXIT STATUS",
  ...[
    ["0", "in order"],
    ["1", "something is left to settle: findings, or a plan that is not empty under \\-\\-check"],
    ["2", "wrong usage or configuration"],
    ["3", "trouble with files or the network kept it from finishing"],
    ["130", "interrupted"],
  ].flatMap(([status, what]) => [".TP", `.B ${status}`, what]),
  ".SH FILES",
  ".TP",
  ".I fond.config.json",
  "the configuration",
  ".TP",
  ".I fond\\-ledger/",
  "what each translation was made from, and its state",
);
const text = `${lines.join("\n")}\n`;
const file = join(root, "man", "fond.1");
if (process.argv.includes("--check")) {
  let there = "";
  try {
    there = readFileSync(file, "utf8");
  } catch {
    // Said below.
  }
  if (there !== text) {
    console.error("man/fond.1 is not what the commands make: node scripts/man-page.mjs");
    process.exit(1);
  }
} else {
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, text);
}
