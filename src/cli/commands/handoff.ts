import { relative, resolve } from "node:path";
import { overlayFiles } from "../../core/files/overlay-files.js";
import { carriers } from "../../core/exchange/carriers/index.js";
import type { Carrier, CarrierMeans } from "../../core/exchange/carriers/carrier.js";
import { wordsOf } from "../../core/exchange/inline.js";
import type { Handoff, HandoffEntry } from "../../core/exchange/handoff.js";
import { entryStates, type EntryState } from "../../core/ledger/ledger.js";
import { notices } from "../../core/message/notices.js";
import { handoffFor, type HandoffOptions } from "../../core/project/handoff.js";
import { booksIn, openProject, type Project } from "../../core/project/project.js";
import { prepareWidths } from "../../core/text/width.js";
import { writeDocument } from "../../disk/document.js";
import { reasonOf } from "../../disk/disk-files.js";
import { git, gitTrouble } from "../../disk/git.js";
import { handoffJson } from "../../output/json.js";
import { pageParts } from "../page-parts.js";
import { defineCommand } from "../command.js";
import {
  oneOf,
  openOrFail,
  scopeOf,
  wholeNumber,
  withWriteOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { counted } from "../terminal/style.js";
import { columnsOf, withoutEndSpaces } from "../terminal/table.js";

const say = notices("cli/handoff", {
  "no-revision": {
    message: "{detail}",
    remedy: 'check the revision "{revision}"; `git log` lists revisions',
  },
  "not-written": {
    message: "{file} cannot be written: {detail}",
    remedy: "choose another folder with --into",
  },
  "unknown-key": {
    message: 'no outstanding text matches "{key}"',
    remedy: "--all also hands out what is done",
  },
});

export interface HandoffCommandOptions extends WriteOptions {
  readonly to?: string;
  readonly into?: string;
  readonly all?: boolean;
  readonly stale?: boolean;
  readonly state?: readonly EntryState[];
  readonly since?: string;
  readonly split?: number;
}

/** One document that is handed out. */
export interface HandedDocument {
  readonly file: string;
  readonly locale: string;
  readonly texts: number;
  readonly words: number;
  readonly what: Readonly<Record<HandoffEntry["what"], number>>;
}

const writing = carriers.filter((one) => one.write);

/** Writes the outstanding work of each locale for its translators. */
export async function runHandoff(
  context: CommandContext,
  keys: readonly string[],
  options: HandoffCommandOptions,
): Promise<ExitStatus> {
  const project = openOrFail(context);
  const carrier = writing.find(({ name }) => name === (options.to ?? "xliff")) ?? writing[0];
  if (!carrier) return exitStatus.inOrder;
  for (const state of options.state ?? []) oneOf(...entryStates)(state);
  const chosen: HandoffOptions = {
    // A memory is of what is done.
    all: options.all === true || carrier.name === "tmx",
    ...(options.stale && { stale: true }),
    ...(options.state && { states: options.state }),
    ...(keys.length > 0 && { keys }),
    ...(options.since !== undefined && { formerly: sourcesAt(context, project, options.since) }),
  };
  const documents: { readonly document: HandedDocument; readonly handoff: Handoff }[] = [];
  const folder = resolve(context.io.cwd, options.into ?? resolve(context.options.cwd, "handoff"));
  for (const locale of project.config.targets) {
    if (context.options.locale && !context.options.locale.includes(locale)) continue;
    const handoff = await handoffFor(project, scopeOf(context), locale, chosen);
    const parts = inParts(handoff, options.split);
    for (const [index, part] of parts.entries()) {
      const name = parts.length === 1 ? locale : `${locale}-${index + 1}`;
      documents.push({ document: accountOf(part, resolve(folder, name + carrier.ending)), handoff: part });
    }
  }
  if (keys.length > 0 && documents.length === 0)
    throw usageError(say("unknown-key", { key: keys.join(", ") }));
  const means =
    options.write && carrier.needsMeans ? { config: project.config, ...pageParts("translate") } : undefined;
  if (options.write)
    for (const { document, handoff } of documents) write(carrier, document.file, handoff, means);
  const shown = documents.map(({ document }) => ({
    ...document,
    file: relative(context.io.cwd, document.file).replaceAll("\\", "/"),
  }));
  if (context.options.format === "json") context.print(handoffJson(carrier.name, shown));
  else context.print(await render(context, shown));
  if (documents.length === 0) return exitStatus.inOrder;
  if (!options.write) context.say("Nothing written. Run again with --write to write the files.");
  else if (carrier.read ?? carrier.needsMeans)
    context.say(
      `Take them in when they come back: fond intake ${carrier.read ? (shown[0]?.file ?? "FILE") : "FILE"} --write`,
    );
  return options.check ? exitStatus.toSettle : exitStatus.inOrder;
}

function write(carrier: Carrier, file: string, handoff: Handoff, means: CarrierMeans | undefined): void {
  try {
    writeDocument(file, carrier.write?.(handoff, means) ?? []);
  } catch (error) {
    throw new CommandError(say("not-written", { file, detail: reasonOf(error) }), exitStatus.trouble);
  }
}

/** The work in parts of so many texts at most; a message is never cut. None where there is nothing to do. */
function inParts(handoff: Handoff, most: number | undefined): readonly Handoff[] {
  const parts: HandoffEntry[][] = [];
  let room = 0;
  for (const entry of handoff.entries) {
    if (parts.length === 0 || (most !== undefined && room < entry.units.length)) {
      parts.push([]);
      room = most ?? Infinity;
    }
    parts.at(-1)?.push(entry);
    room -= entry.units.length;
  }
  return parts.map((entries) => ({ ...handoff, entries }));
}

function accountOf({ target, entries }: Handoff, file: string): HandedDocument {
  const what = { missing: 0, initial: 0, stale: 0, incomplete: 0, done: 0 };
  let texts = 0;
  let words = 0;
  for (const entry of entries) {
    what[entry.what]++;
    for (const unit of entry.units) {
      texts++;
      words += wordsOf(unit.source).match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu)?.length ?? 0;
    }
  }
  return { file, locale: target, texts, words, what };
}

async function render(context: CommandContext, documents: readonly HandedDocument[]): Promise<string> {
  const { style } = context;
  if (documents.length === 0) return `${style.green("✓")} nothing is outstanding\n`;
  await prepareWidths();
  const table = columnsOf(
    ["locale", "file", "texts", "words", "missing", "untranslated", "stale", "incomplete", "done"].map(
      (one) => style.bold(one),
    ),
    documents.map(({ locale, file, texts, words, what }) => [
      locale,
      file,
      ...[texts, words, what.missing, what.initial, what.stale, what.incomplete, what.done].map(String),
    ]),
    ["left", "left", "right", "right", "right", "right", "right", "right", "right"],
    context.width,
  );
  const texts = documents.reduce((sum, one) => sum + one.texts, 0);
  return `${withoutEndSpaces(table)}\n${style.bold(`${counted(documents.length, "file")} with ${counted(texts, "text")}.`)}\n`;
}

/** The source texts at a revision, by book and full key. */
function sourcesAt(
  { options: { cwd } }: CommandContext,
  project: Project,
  revision: string,
): (book: string, fullKey: string) => string | undefined {
  const texts = new Map<string, string | undefined>();
  try {
    git(cwd, ["rev-parse", "--verify", "--quiet", "--end-of-options", `${revision}^{commit}`]);
  } catch (error) {
    throw usageError(say("no-revision", { detail: gitTrouble(error), revision }));
  }
  for (const config of booksIn(project, {}))
    for (const { file, locale } of project.book(config).catalogs) {
      if (locale !== project.config.source) continue;
      try {
        texts.set(file, git(cwd, ["show", `${revision}:./${file}`]));
      } catch {
        texts.set(file, undefined);
      }
    }
  const opened = openProject(overlayFiles(project.files, texts), project.configFile);
  const books = new Map(
    opened.ok ? opened.project.config.books.map((one) => [one.name, opened.project.book(one)]) : [],
  );
  const known = new Map<string, ReadonlyMap<string, string>>();
  return (name, fullKey) => {
    const book = books.get(name);
    if (!book) return undefined;
    let all = known.get(name);
    if (!all) {
      all = new Map(
        book
          .catalogsOf(book.sourceLocale)
          .flatMap(({ namespace, byKey }) =>
            [...byKey.values()].map((entry) => [book.fullKey(namespace, entry.key), entry.text] as const),
          ),
      );
      known.set(name, all);
    }
    return all.get(fullKey);
  };
}

/** `fond handoff` */
export const handoffCommand = defineCommand<HandoffCommandOptions>({
  name: "handoff",
  summary: "Write what is outstanding for translators: XLIFF, a table, or a page that works in any browser",
  heeds: { json: true, books: true, locales: true },
  examples: [
    ["handoff --to page --locale pl", "a page for a translator"],
    ["handoff 'search.*' --to csv", "a table of a few keys"],
  ],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[keys...]", "only these keys or patterns (* and **); default: all that is outstanding")
      .option(
        "--to <kind>",
        `write ${writing.map(({ name }) => name).join(", ")}`,
        oneOf(...writing.map(({ name }) => name)),
        "xliff",
      )
      .option("--into <folder>", "put the files here; default: handoff")
      .option("--all", "hand out what is done as well")
      .option("--stale", "only hand out what is stale")
      .option("--state <state...>", `only hand out texts in these states: ${entryStates.join(", ")}`)
      .option("--since <revision>", "only hand out texts whose source has changed since this Git revision")
      .option("--split <number>", "put at most this many texts into a file", wholeNumber),
  run: runHandoff,
});
