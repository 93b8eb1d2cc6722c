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
import { editCatalog, loadBook } from "../../core/catalog/book.js";
import type { PathText } from "../../core/catalog/model.js";
import { loadConfig } from "../../core/config/load.js";
import { diskFiles, reasonOf } from "../../disk/disk-files.js";
import { packageRoot } from "../../disk/package-root.js";
import { commandContext, type CommandContext, type CommonOptions } from "../context.js";
import { findings, type Settlement } from "../demo/settlements.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { runBalance } from "./balance.js";
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
      "Add the translations",
      "Translators filled in the new texts (translators/*.json). A last reconcile records them in the ledger.",
    );
    this.translate();
    await this.run("reconcile --write", () => runReconcile(this.inner, { write: true }));
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

  /** Enters the translators' texts in the catalogs, in place. */
  private translate(): void {
    const files = diskFiles(this.target);
    const loaded = loadConfig(files);
    if (!loaded.ok) throw new Error("the sample project's configuration cannot be read");
    const books = loaded.config.books.map((one) => loadBook(files, loaded.config, one));
    for (const locale of loaded.config.targets) {
      const texts = JSON.parse(
        readFileSync(join(this.target, "translators", `${locale}.json`), "utf8"),
      ) as Record<string, string>;
      let count = 0;
      for (const book of books)
        for (const catalog of book.catalogs.filter((one) => one.locale === locale)) {
          const set = [...catalog.byKey.values()].flatMap((entry): PathText[] => {
            const text = texts[book.fullKey(catalog.namespace, entry.key)];
            return text === undefined ? [] : [{ path: entry.path, text }];
          });
          if (set.length > 0)
            writeFileSync(join(this.target, catalog.file), editCatalog(catalog, catalog.content, { set }));
          count += set.length;
        }
      this.context.print(`  ${this.context.style.green("✓")} ${locale}: ${count} texts\n`);
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
