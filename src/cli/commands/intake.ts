import { readFileSync } from "node:fs";
import { relative, resolve } from "node:path";
import type { Book } from "../../core/catalog/book.js";
import { carrierOf } from "../../core/exchange/carriers/index.js";
import { overlayFiles } from "../../core/files/overlay-files.js";
import { decodeText } from "../../core/files/files.js";
import { notices } from "../../core/message/notices.js";
import { makePlan } from "../../core/plan/plan.js";
import { PlanChain } from "../../core/project/plan-chain.js";
import {
  intakeDocument,
  intakeTexts,
  type IntakeCounts,
  type IntakeOptions,
  type IntakeResult,
} from "../../core/project/intake.js";
import { openProject, type Project } from "../../core/project/project.js";
import type { Finding } from "../../core/lint/finding.js";
import { prepareWidths } from "../../core/text/width.js";
import { documentAt, headOf } from "../../disk/document.js";
import { reasonOf } from "../../disk/disk-files.js";
import { defineCommand } from "../command.js";
import {
  oneOf,
  openOrFail,
  scopeOf,
  settlePlan,
  withWriteOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { counted } from "../terminal/style.js";
import { today } from "../today.js";

const say = notices("cli/intake", {
  unreadable: { message: "{file} cannot be read: {detail}", remedy: "check the path" },
  "one-locale": {
    message: "--locale takes one locale here",
    remedy: "take the files of each locale in by themselves",
  },
  "unknown-kind": {
    message: "{file} is no document that a handoff wrote, and no catalog of this project",
    remedy:
      "give a file that came back: XLIFF, CSV, XLSX, what the page saved, or a catalog with --book and --locale",
  },
  "which-catalog": {
    message: "{file} may be one of {catalogs}",
    remedy: "say which: --locale TAG, and --book NAME where there are several",
  },
  damaged: { message: "{file}{place}: {detail}", remedy: "{remedy}" },
  refused: { message: "{file}: {detail}", remedy: "{remedy}" },
});

export interface IntakeCommandOptions extends WriteOptions {
  readonly prefer?: "file" | "project";
  readonly allOrNothing?: boolean;
}

/** Takes translations that came back into catalogs and ledger. */
export async function runIntake(
  context: CommandContext,
  paths: readonly string[],
  options: IntakeCommandOptions,
): Promise<ExitStatus> {
  const first = openOrFail(context);
  const { locale: locales, book: books } = context.options;
  if (locales && locales.length > 1) throw usageError(say("one-locale", {}));
  const [locale] = locales ?? [];
  const scope = scopeOf({ ...context, options: { ...context.options, ...(books && { book: books }) } });
  const chain = new PlanChain(first);
  const warnings: Finding[] = [];
  const counts = { taken: 0, unchanged: 0, empty: 0, refused: 0 };
  for (const path of paths) {
    const file = relative(context.io.cwd, resolve(context.io.cwd, path)).replaceAll("\\", "/");
    const own: IntakeOptions = {
      file,
      today: today(),
      ...(locale !== undefined && { locale }),
      ...(options.prefer && { prefer: options.prefer }),
      ...(options.allOrNothing && { allOrNothing: true }),
    };
    const result = await takeIn(context, chain.project, scope, resolve(context.io.cwd, path), own);
    if (!result.ok) {
      const { message: detail, remedy = "" } = result;
      throw new CommandError(say("refused", { file, detail, remedy }), exitStatus.usage);
    }
    for (const name of Object.keys(counts) as (keyof IntakeCounts)[]) counts[name] += result.counts[name];
    warnings.push(...result.warnings);
    chain.add(result.plan);
  }
  await prepareWidths();
  const isNothing = options.allOrNothing === true && counts.refused > 0;
  const whole = chain.plan();
  const plan = isNothing ? makePlan([], {}, whole.notes) : whole;
  const { style } = context;
  const said = [
    counts.unchanged > 0 && `${counted(counts.unchanged, "text")} unchanged`,
    counts.empty > 0 && `${counted(counts.empty, "text")} not filled in`,
    counts.refused > 0 && style.red(`${counted(counts.refused, "text")} not taken`),
  ].filter((one) => one !== false);
  const head = [
    ...(said.length > 0 ? [`${said.join(", ")}.`] : []),
    ...warnings.map(
      ({ message, file, line, key }) =>
        style.yellow(`warning `) + `${message}  ${style.dim(`${file}:${line} ${key ?? ""}`)}`,
    ),
  ];
  const end = settlePlan(context, "intake", plan, options, {
    head: head.length > 0 ? `${head.join("\n")}\n\n` : "",
  });
  return end === exitStatus.inOrder && counts.refused > 0 && (options.write || options.check)
    ? exitStatus.toSettle
    : end;
}

async function takeIn(
  context: CommandContext,
  project: Project,
  scope: ReturnType<typeof scopeOf>,
  path: string,
  options: IntakeOptions,
): Promise<IntakeResult> {
  const inScope = { ...(scope.books && { books: scope.books }) };
  let head: string;
  try {
    head = headOf(path);
  } catch (error) {
    throw new CommandError(
      say("unreadable", { file: options.file, detail: reasonOf(error) }),
      exitStatus.trouble,
    );
  }
  const carrier = carrierOf(path, head);
  const read = carrier?.read?.(documentAt(path));
  if (read && !read.ok) {
    const { line, message: detail, remedy = "" } = read;
    const place = line === undefined ? "" : `:${line}`;
    throw new CommandError(say("damaged", { file: options.file, place, detail, remedy }), exitStatus.trouble);
  }
  if (read) return intakeDocument(project, inScope, read.document, options);
  const { book, locale, namespace } = catalogMeant(context, project, path, options);
  const text = decodeText(readFileSync(path), path);
  if (!text.ok)
    throw new CommandError(
      say("unreadable", { file: options.file, detail: text.detail }),
      exitStatus.trouble,
    );
  const place = book.catalog(locale, namespace)?.file ?? book.layout.path(locale, namespace);
  const opened = openProject(overlayFiles(project.files, new Map([[place, text.text]])), project.configFile);
  const config = opened.ok
    ? opened.project.config.books.find(({ name }) => name === book.config.name)
    : undefined;
  const edited = opened.ok && config ? opened.project.book(config).catalog(locale, namespace) : undefined;
  const [problem] = edited?.problems ?? [];
  if (!edited || problem) {
    const at = problem && edited ? `:${edited.lines.position(problem.span.start).line}` : "";
    throw new CommandError(
      say("damaged", {
        file: options.file,
        place: at,
        detail: problem?.message ?? "it holds no catalog",
        remedy: problem?.remedy ?? "check that it is the right file",
      }),
      exitStatus.trouble,
    );
  }
  const texts = new Map(
    [...edited.byKey.values()].map((entry) => [
      book.fullKey(namespace, entry.key),
      { text: entry.text, line: edited.lines.position(entry.keySpan.start).line },
    ]),
  );
  return intakeTexts(project, inScope, book, locale, texts, { ...options, locale });
}

/** The catalog of the project that a file is a copy of, by its name and what was said of it. */
function catalogMeant(
  { options: { book: books } }: CommandContext,
  project: Project,
  path: string,
  { file, locale }: IntakeOptions,
): { readonly book: Book; readonly locale: string; readonly namespace: string | undefined } {
  const given = path.replaceAll("\\", "/").split("/");
  const meant = project.config.books
    .filter(({ name }) => books?.includes(name) ?? true)
    .flatMap((config) => {
      const book = project.book(config);
      return book.targetLocales
        .filter((one) => locale === undefined || one === locale)
        .flatMap((one) =>
          book.namespaces.map((namespace) => {
            const parts = book.layout.path(one, namespace).split("/");
            // As much of the path as is alike, from its end.
            let alike = 0;
            while (alike < parts.length && parts.at(-1 - alike) === given.at(-1 - alike)) alike++;
            return { book, locale: one, namespace, alike };
          }),
        );
    });
  const most = Math.max(0, ...meant.map(({ alike }) => alike));
  const ending = /\.[^.]+$/.exec(path)?.[0];
  const best = meant.filter(
    (one) =>
      one.alike === most &&
      (most > 0 ||
        (one.namespace === undefined &&
          locale !== undefined &&
          one.book.layout.path(locale, undefined).endsWith(ending ?? "\n"))),
  );
  const [only] = best;
  if (only && best.length === 1) return only;
  if (best.length === 0) throw usageError(say("unknown-kind", { file }));
  throw usageError(
    say("which-catalog", {
      file,
      catalogs:
        best
          .slice(0, 4)
          .map((one) => one.book.layout.path(one.locale, one.namespace))
          .join(", ") + (best.length > 4 ? ", …" : ""),
    }),
  );
}

/** `fond intake` */
export const intakeCommand = defineCommand<IntakeCommandOptions>({
  name: "intake",
  summary: "Take translations that came back into catalogs and ledger, each checked with the rules",
  heeds: { json: true, books: true, locales: true },
  declare: (command) =>
    withWriteOptions(command)
      .argument(
        "<files...>",
        "what came back: XLIFF, CSV, XLSX, what the page saved, or a catalog that was edited",
      )
      .option(
        "--prefer <side>",
        "which text counts where both changed: file, project; default: neither, and it is said",
        oneOf("file", "project"),
      )
      .option("--all-or-nothing", "take nothing if anything has to stay out"),
  run: runIntake,
});
