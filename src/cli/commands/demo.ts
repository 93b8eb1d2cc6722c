import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmdirSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, resolve } from "node:path";
import { csv } from "../../core/exchange/carriers/csv.js";
import { messageUnits } from "../../core/exchange/units.js";
import { messageReader } from "../../core/message/parse.js";
import { handoffFor } from "../../core/project/handoff.js";
import { openProject, type Project } from "../../core/project/project.js";
import { writeDocument } from "../../disk/document.js";
import { diskFiles, reasonOf } from "../../disk/disk-files.js";
import { packageRoot } from "../../disk/package-root.js";
import { commandContext, type CommandContext, type CommonOptions } from "../context.js";
import { findings, type Settlement } from "../demo/settlements.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { runBalance } from "./balance.js";
import { runHandoff } from "./handoff.js";
import { runIntake } from "./intake.js";
import { runExtract } from "./extract.js";
import { runLint } from "./lint.js";
import { runReconcile } from "./reconcile.js";
import { runSurvey } from "./survey.js";

const say = notices("cli/demo", {
  "not-empty": {
    message: "{folder} exists and is not empty",
    remedy: "choose another folder: fond demo FOLDER",
  },
  "not-copied": {
    message: "the sample project cannot be copied to {folder}: {detail}",
    remedy: "choose another folder: fond demo FOLDER",
  },
});

/** Copies the sample project to a new folder and walks through the whole job in it. */
export async function runDemo(context: CommandContext, folder: string): Promise<ExitStatus> {
  const target = resolve(context.options.cwd, folder);
  if (existsSync(target) && readdirSync(target).length > 0) throw usageError(say("not-empty", { folder }));
  copySample(target, folder);
  await new Walk(context, target, folder).all();
  return exitStatus.inOrder;
}

function copySample(target: string, folder: string): void {
  const sample = join(packageRoot(), "demo", "ferries");
  try {
    mkdirSync(target, { recursive: true });
    cpSync(sample, target, {
      recursive: true,
      filter: (path) => !/[\\/](node_modules|\.site-[^\\/]*)$/.test(path.replace(/[\\/]$/, "")),
    });
  } catch (error) {
    throw new CommandError(say("not-copied", { folder, detail: reasonOf(error) }), exitStatus.trouble);
  }
}

class Walk {
  private step = 0;
  private readonly inner: CommandContext;

  constructor(
    private readonly context: CommandContext,
    private readonly target: string,
    private readonly folder: string,
  ) {
    const { color, verbose } = context.options;
    const options: CommonOptions = {
      cwd: target,
      format: "text",
      color,
      quiet: true,
      ...(verbose !== undefined && { verbose }),
    };
    this.inner = {
      ...commandContext(options, context.io),
      style: context.style,
      width: context.width,
      print: context.print,
    };
  }

  async all(): Promise<void> {
    this.tell(
      `The texts of Lanternfish Ferries are now in ${this.folder}: a booking site in TSX with JSON, a kiosk of`,
      "pages with YAML, and a harbor office in JSP and Java with properties. Each has six languages, part of",
      "its text still in the code, and some of the common mistakes.",
    );

    this.head(
      "Find hard-coded text",
      "survey classifies every string in the code and says why. It changes nothing.",
    );
    const read = ["web/pages/sailings.tsx", "kiosk", "harbor"];
    await this.run(`survey ${read.join(" ")}`, () =>
      runSurvey(
        this.inner,
        read.map((path) => join(this.target, path)),
        { cache: false },
      ),
    );

    this.head(
      "Move it into the catalogs",
      "extract names keys, moves text into the source catalog and puts lookups in its place.",
      "Without --write it only shows the plan, here for one file:",
    );
    await this.run("extract web/pages/sailings.tsx", () =>
      runExtract(this.inner, [join(this.target, "web/pages/sailings.tsx")], { review: false }),
    );
    this.tell("The plan looks right, so apply it to all three:");
    await this.run("extract --write", () => runExtract(this.inner, [], { write: true }));

    this.head(
      "Sync every locale",
      "reconcile adds the new keys to every locale, with the plural categories that its language needs,",
      "moves what the source no longer has to the attic, and writes the ledger.",
    );
    await this.run("reconcile --write", () => runReconcile(this.inner, { write: true }));

    this.head(
      "Find what would break for users",
      "lint compares every message with its source, its locale and the code.",
    );
    await this.run("lint", () => runLint(this.inner, []));

    this.head("Fix the findings", "Each one in its place:");
    this.settle(findings);
    await this.run("reconcile --write", () => runReconcile(this.inner, { write: true }));

    this.head(
      "Hand the new texts to translators, and take them in",
      "handoff writes what is outstanding: here a table for each language, else XLIFF, a spreadsheet or a page for",
      "any browser. Translators fill it in (translators/*.json has what they wrote), and intake checks every text",
      "with the rules before it goes into the catalogs.",
    );
    await this.run("handoff --to csv --write", () => runHandoff(this.inner, [], { to: "csv", write: true }));
    await this.translate();
    await this.run("intake handoff/*.csv --write", () =>
      runIntake(
        this.inner,
        this.locales().map((locale) => join(this.target, "handoff", `${locale}.csv`)),
        { write: true },
      ),
    );
    await this.run("lint", () => runLint(this.inner, []));

    this.head("See how complete each locale is");
    await this.run("balance", () => runBalance(this.inner));

    this.tell(
      "",
      "Left to people: the strings that survey calls unclear, and a second pair of eyes on the translations",
      `(fond review "sailings.*" --locale pl --write records that somebody has read them).`,
      `Experiment in the folder ${this.folder}: break something and run \`fond lint --cwd ${this.folder}\`.`,
    );
  }

  private head(title: string, ...why: readonly string[]): void {
    const { style } = this.context;
    this.step++;
    this.context.print(`\n${style.inverse(` ${this.step} `)} ${style.bold(title)}\n`);
    this.tell(...why);
  }

  private tell(...lines: readonly string[]): void {
    for (const line of lines) this.context.print(`${line}\n`);
  }

  private async run(command: string, action: () => ExitStatus | Promise<ExitStatus>): Promise<void> {
    const { style } = this.context;
    this.context.print(`\n${style.cyan("$")} ${style.bold(`fond ${command}`)}\n`);
    await action();
  }

  private settle(settlements: readonly Settlement[]): void {
    const { style } = this.context;
    for (const one of settlements) {
      const path = join(this.target, one.file);
      this.context.print(`\n  ${style.green("✓")} ${one.fault}\n    ${style.dim(one.file)}\n`);
      if (one.kind === "rename") {
        renameSync(path, join(this.target, one.to));
        rmdirSync(dirname(path));
        this.context.print(`    ${style.red(`- ${one.file}`)}\n    ${style.green(`+ ${one.to}`)}\n`);
        continue;
      }
      const text = readFileSync(path, "utf8");
      if (!text.includes(one.from)) throw new Error(`the sample project has no "${one.from}" in ${one.file}`);
      writeFileSync(
        path,
        text.replace(one.from, () => one.to),
      );
      for (const line of one.from.split("\n")) this.context.print(`    ${style.red(`- ${line}`)}\n`);
      if (one.to !== "")
        for (const line of one.to.split("\n")) this.context.print(`    ${style.green(`+ ${line}`)}\n`);
    }
  }

  private project(): Project {
    const opened = openProject(diskFiles(this.target));
    if (!opened.ok) throw new Error("the sample project's configuration cannot be read");
    return opened.project;
  }

  private locales(): readonly string[] {
    return this.project().config.targets;
  }

  /** Fills in the tables as the translators did. */
  private async translate(): Promise<void> {
    const project = this.project();
    for (const locale of this.locales()) {
      const texts = JSON.parse(
        readFileSync(join(this.target, "translators", `${locale}.json`), "utf8"),
      ) as Record<string, string>;
      const handoff = await handoffFor(project, {}, locale);
      const filled = handoff.entries.map((entry) => {
        const config = project.config.books.find(({ name }) => name === entry.book);
        const text = texts[entry.key];
        if (!config || text === undefined) return entry;
        const reader = messageReader(config);
        const units = messageUnits(
          reader.read(entry.texts.source, project.config.source, entry.entryKey).nodes,
          reader.read(text, locale, entry.entryKey).nodes,
          locale,
          reader,
        )?.units;
        return {
          ...entry,
          units: entry.units.map((unit, index) => ({
            ...unit,
            target: units?.[index]?.target ?? unit.source,
          })),
        };
      });
      const file = join(this.target, "handoff", `${locale}.csv`);
      writeDocument(file, csv.write?.({ ...handoff, entries: filled }) ?? []);
      this.context.print(`  ${this.context.style.green("✓")} ${locale}: ${filled.length} texts filled in\n`);
    }
  }
}

/** `fond demo` */
export const demoCommand = defineCommand({
  name: "demo",
  summary: "Walk through the whole workflow on a sample project",
  heeds: {},
  declare: (command) => command.argument("[folder]", "the new folder to use", "fond-demo"),
  run: (context, words) => runDemo(context, words[0] ?? "fond-demo"),
});
