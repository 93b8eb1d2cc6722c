import { planInit } from "../../core/project/detect.js";
import { bookLayout } from "../../core/catalog/layout.js";
import { makePlan } from "../../core/plan/plan.js";
import { git } from "../../disk/git.js";
import { openOrFail, settlePlan, type CommandContext, type WriteOptions } from "../context.js";
import { CommandError, exitStatus, type ExitStatus } from "../exit.js";

/** Looks at the project and writes its configuration, or sets Git up to merge its catalogs by key. */
export async function runInit(
  context: CommandContext,
  options: WriteOptions & { readonly mergeDriver?: boolean },
): Promise<ExitStatus> {
  if (options.mergeDriver) return setUpMergeDriver(context, options);
  const result = await planInit(context.files);
  if (!result.ok)
    throw new CommandError(
      `${result.file} is there already, and init never overwrites`,
      "edit it, or remove it first",
      exitStatus.usage,
    );
  const { plan } = result;
  if (context.options.format === "text")
    for (const ground of plan.grounds) context.say(`${context.style.dim("·")} ${ground}`);
  return settlePlan(context, "init", plan, options);
}

const driver = "npx fond merge %O %A %B %P";

/** The attributes of catalogs and ledgers go into the project, the command that they name into the repository's configuration. */
function setUpMergeDriver(context: CommandContext, options: WriteOptions): ExitStatus {
  const project = openOrFail(context);
  const { cwd } = context.options;
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
  if (known !== driver) context.say(`git config merge.fond.driver "${driver}"`);
  const status = settlePlan(context, "init", plan, options);
  if (options.check) return known === driver ? status : exitStatus.toSettle;
  if (options.write && known !== driver) {
    git(cwd, ["config", "--local", "merge.fond.name", "merge catalogs and ledgers by key"]);
    git(cwd, ["config", "--local", "merge.fond.driver", driver]);
    context.say("The repository's configuration names the driver now; each clone needs this once.");
  }
  return status;
}
