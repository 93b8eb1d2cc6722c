import { notices } from "../../core/message/notices.js";
import { defineCommand } from "../command.js";
import { join } from "node:path";
import { planInit, type InitAnswers, type InitPlan } from "../../core/project/setup/init-plan.js";
import { parseTag } from "../../core/locale/tag.js";
import { bookLayout } from "../../core/catalog/layout.js";
import { makePlan } from "../../core/plan/plan.js";
import { git } from "../../disk/git.js";
import { packageRoot } from "../../disk/package-root.js";
import {
  openOrFail,
  settlePlan,
  type CommandContext,
  type WriteOptions,
  withWriteOptions,
} from "../context.js";
import { exitStatus, usageError, type ExitStatus } from "../exit.js";
import { prepareWidths } from "../../core/text/width.js";
import { wrapped } from "../terminal/wrap.js";
import { renderPlan } from "../terminal/plan.js";
import { terminalText } from "../terminal/style.js";
import { answersFor, isAttended, type Answers } from "../terminal/answers.js";

const say = notices("cli/init", {
  configured: {
    message: "{file} already exists, and init never overwrites it",
    remedy: "edit it, or remove it first",
  },
  "no-runtime": {
    message:
      "a module that looks texts up is written only where nothing does that yet, and in JavaScript, TypeScript or plain pages",
    remedy: "run it without --runtime; it proposes the lookups that are there",
  },
  "no-tag": { message: '"{tag}" is not a locale', remedy: "write a tag such as de or pt-BR" },
  "no-git": { message: "the project is not in a Git repository", remedy: "run `git init` first" },
});

export interface InitCommandOptions extends WriteOptions {
  readonly mergeDriver?: boolean;
  readonly ask?: boolean;
  readonly yes?: boolean;
  readonly runtime?: boolean;
  readonly targets?: readonly string[];
}

/** Looks at the project and writes its configuration, or sets Git up to merge its catalogs by key. */
export async function runInit(context: CommandContext, options: InitCommandOptions): Promise<ExitStatus> {
  if (options.mergeDriver) return setUpMergeDriver(context, options);
  const result = await planInit(context.files);
  if (!result.ok) throw usageError(say("configured", { file: result.file }));
  const wanted = wantedAnswers(options);
  if (options.runtime && !result.plan.takesRuntime) throw usageError(say("no-runtime", {}));
  const plan = Object.keys(wanted).length > 0 ? result.plan.answer(wanted) : result.plan;
  await prepareWidths();
  const asks =
    (options.ask ?? (isAttended(context.options.format, context.io) && !options.check)) && !options.yes;
  if (!asks || plan.open.length === 0) {
    printGrounds(context, plan);
    return settlePlan(context, "init", plan, options);
  }
  // Questions must not stand in what another program reads.
  const isText = context.options.format === "text";
  const print = isText ? context.print : (text: string) => void context.io.stderr.write(terminalText(text));
  const asked = await answersFor(context.io, print, !isText || !context.hasColor);
  const answered = plan.answer({ ...wanted, ...(await askFor(plan, asked, print)) });
  printGrounds(context, answered);
  if (options.write || options.check || !isText) {
    asked.close();
    return settlePlan(context, "init", answered, options);
  }
  print(renderPlan(answered, context.style, false));
  const reply = await asked.choose("Write it?", [
    { key: "y", label: "yes" },
    { key: "n", label: "no" },
  ]);
  asked.close();
  if (reply === "" || reply === "y")
    return settlePlan(context, "init", answered, { ...options, write: true });
  context.say("Nothing written.");
  return exitStatus.inOrder;
}

/** What the options say already. */
function wantedAnswers({ runtime, targets: tags }: InitCommandOptions): InitAnswers {
  const targets = tags?.map((tag) => {
    const parsed = parseTag(tag);
    if (!parsed) throw usageError(say("no-tag", { tag }));
    return parsed.tag;
  });
  return { ...(runtime && { runtime }), ...(targets && { targets }) };
}

function printGrounds(context: CommandContext, { grounds }: InitPlan): void {
  if (context.options.format !== "text") return;
  for (const ground of grounds) context.say(`${context.style.dim("·")} ${wrapped(ground, context.width, 2)}`);
}

/** Asks what the files do not tell. Enter takes what is proposed; so does the end of the input. */
async function askFor(
  { open, source }: InitPlan,
  asked: Answers,
  print: (text: string) => void,
): Promise<InitAnswers> {
  const answers: { -readonly [Key in keyof InitAnswers]: InitAnswers[Key] } = {};
  const tags = async (question: string, usual: string, fits: (found: readonly string[]) => boolean) => {
    for (;;) {
      const written = ((await asked.ask(question, { usual })) ?? "").split(/[\s,]+/).filter(Boolean);
      const found = written.flatMap((one) => parseTag(one)?.tag ?? []);
      if (written.length === 0 || (found.length === written.length && fits(found))) return found;
      print("  Write tags such as de or pt-BR.\n");
    }
  };
  for (const question of open)
    switch (question) {
      case "source": {
        const [tag] = await tags("Source locale?", source, ({ length }) => length === 1);
        answers.source = tag ?? source;
        break;
      }
      case "targets":
        answers.targets = await tags("Target locales?", "none", () => true);
        break;
      case "lookup": {
        const usual = 't("{key}"{args})';
        const written = (await asked.ask("What does a lookup look like in the code?", { usual })) || usual;
        answers.lookup = written.includes("{key}")
          ? written
          : `${written.split("(", 1)[0] ?? ""}("{key}"{args})`;
        const line = await asked.ask("Import line for it?", { usual: "none" });
        if (line) answers.import = line;
      }
    }
  return answers;
}

/**
 * The command that Git's configuration names: this very program, never one that a package registry would be asked for. Where
 * it is gone or fails, Git merges line by line and leaves its usual conflict markers.
 */
function mergeDriver(): string {
  // Git runs it through a shell, and reads % as the start of a placeholder.
  const quoted = (path: string) => `'${path.replaceAll("'", `'\\''`).replaceAll("%", "%%")}'`;
  const own = `${quoted(process.execPath)} ${quoted(join(packageRoot(), "dist", "bin", "main.js"))} merge %O %A %B %P`;
  // A conflict that it left itself stays one; without its markers it did not come that far.
  return `${own} || { grep -q '^<<<<<<< ' %A && exit 1; git merge-file -L ours -L base -L theirs %A %O %B; }`;
}

/** The attributes of catalogs and ledgers go into the project, the command that they name into the repository's configuration. */
function setUpMergeDriver(context: CommandContext, options: WriteOptions): ExitStatus {
  const project = openOrFail(context);
  const { cwd } = context.options;
  const driver = mergeDriver();
  const patterns = project.config.books.flatMap((book) => bookLayout(book).globs);
  const file = ".gitattributes";
  const read = context.files.read(file);
  const before = read.ok ? read.text : undefined;
  const lines = [...patterns, `${project.config.ledger}/*.txt`]
    .map((pattern) => `/${pattern.replace(/^\.?\//, "")} merge=fond`)
    .filter((line) => !before?.split(/\r?\n/).includes(line));
  const start =
    before === undefined || before === "" || before.endsWith("\n") ? (before ?? "") : `${before}\n`;
  const after = start + lines.map((line) => `${line}\n`).join("");
  let known: string;
  try {
    known = git(cwd, ["config", "--local", "--default", "", "merge.fond.driver"]).trim();
  } catch {
    throw usageError(say("no-git", {}));
  }
  const plan = makePlan(
    [{ file, before, after: lines.length > 0 ? after : before }],
    { "patterns added": lines.length },
    [],
  );
  if (known !== driver) context.say(`git config merge.fond.driver ${JSON.stringify(driver)}`);
  const status = settlePlan(context, "init", plan, options);
  if (options.check) return known === driver ? status : exitStatus.toSettle;
  if (options.write && known !== driver) {
    git(cwd, ["config", "--local", "merge.fond.name", "merge catalogs and ledgers by key"]);
    git(cwd, ["config", "--local", "merge.fond.driver", driver]);
    context.say("Git is set up to use the merge driver. Each clone needs this once.");
  }
  return status;
}

/** `fond init` */
export const initCommand = defineCommand<InitCommandOptions>({
  name: "init",
  summary: "Detect the project's setup and write its configuration",
  heeds: { json: true },
  declare: (command) =>
    withWriteOptions(command)
      .option("--ask", "prompt for what the files do not show, even without a terminal")
      .option("--yes", "never prompt; accept the defaults")
      .option("--runtime", "also write a small module that looks texts up, where the project has none")
      .option("--targets <tags...>", "target locales to start with")
      .option("--merge-driver", "set up Git to merge the project's catalogs and ledgers by key"),
  run: (context, _, options) => runInit(context, options),
});
