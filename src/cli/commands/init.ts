import { join } from "node:path";
import { planInit, type InitAnswers, type InitPlan } from "../../core/project/detect.js";
import { parseTag } from "../../core/locale/tag.js";
import { bookLayout } from "../../core/catalog/layout.js";
import { makePlan } from "../../core/plan/plan.js";
import { git } from "../../disk/git.js";
import { packageRoot } from "../../disk/package-root.js";
import { openOrFail, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";
import { renderPlan } from "../terminal/plan.js";
import { terminalText } from "../terminal/style.js";
import { answerReader, isAttended, type Answers } from "../terminal/answers.js";

export interface InitCommandOptions extends WriteOptions {
  readonly mergeDriver?: boolean;
  readonly ask?: boolean;
  readonly yes?: boolean;
}

/** Looks at the project and writes its configuration, or sets Git up to merge its catalogs by key. */
export async function runInit(context: CommandContext, options: InitCommandOptions): Promise<ExitStatus> {
  if (options.mergeDriver) return setUpMergeDriver(context, options);
  const result = await planInit(context.files);
  if (!result.ok)
    throw new CommandError(
      `${result.file} is there already, and init never overwrites`,
      "edit it, or remove it first",
      exitStatus.usage,
    );
  const { plan } = result;
  const asks =
    (options.ask ?? (isAttended(context.options.format, context.io) && !options.check)) && !options.yes;
  if (!asks || plan.open.length === 0) {
    tellGrounds(context, plan);
    return settlePlan(context, "init", plan, options);
  }
  // Questions must not stand in what another program reads.
  const isText = context.options.format === "text";
  const print = isText ? context.print : (text: string) => void context.io.stderr.write(terminalText(text));
  const asked = answerReader(context.io, print);
  const answered = plan.answer(await askFor(plan, asked, print));
  tellGrounds(context, answered);
  if (options.write || options.check || !isText) {
    asked.close();
    return settlePlan(context, "init", answered, options);
  }
  print(renderPlan(answered, context.style, false));
  const wanted = await asked.ask("Write it? Enter: yes · n: no  ");
  asked.close();
  if (wanted === "") return settlePlan(context, "init", answered, { ...options, write: true });
  context.say("Nothing was changed.");
  return exitStatus.inOrder;
}

function tellGrounds(context: CommandContext, { grounds }: InitPlan): void {
  if (context.options.format !== "text") return;
  for (const ground of grounds) context.say(`${context.style.dim("·")} ${ground}`);
}

/** Asks what the files do not tell. Enter takes what is proposed; so does the end of the input. */
async function askFor(
  { open, source }: InitPlan,
  asked: Answers,
  print: (text: string) => void,
): Promise<InitAnswers> {
  const answers: { -readonly [Key in keyof InitAnswers]: InitAnswers[Key] } = {};
  const tags = async (question: string, fits: (found: readonly string[]) => boolean) => {
    for (;;) {
      const written = ((await asked.ask(question)) ?? "").split(/[\s,]+/).filter(Boolean);
      const found = written.flatMap((one) => parseTag(one)?.tag ?? []);
      if (written.length === 0 || (found.length === written.length && fits(found))) return found;
      print("  write tags such as de or pt-BR\n");
    }
  };
  for (const question of open)
    switch (question) {
      case "source": {
        const [tag] = await tags(
          `Which locale are the texts written in? [${source}]  `,
          ({ length }) => length === 1,
        );
        answers.source = tag ?? source;
        break;
      }
      case "targets":
        answers.targets = await tags("Which locales are they translated into? [none yet]  ", () => true);
        break;
      case "lookup": {
        const usual = 't("{key}"{args})';
        const written = (await asked.ask(`What stands in the code for a text? [${usual}]  `)) || usual;
        answers.lookup = written.includes("{key}")
          ? written
          : `${written.split("(", 1)[0] ?? ""}("{key}"{args})`;
        const line = await asked.ask("Which line brings it in? [none]  ");
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
    throw new CommandError("the project is in no Git repository", "run `git init` first", exitStatus.usage);
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
    context.say("The repository's configuration names the driver now; each clone needs this once.");
  }
  return status;
}
