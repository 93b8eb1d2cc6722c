import { balanceProject, type Project } from "../core/project/project.js";
import { lintProject } from "../core/project/lint-project.js";
import { surveyProject } from "../core/project/survey-project.js";
import type { BookBalance } from "../core/ledger/balance.js";
import { projectIfAny, type CommandContext } from "./context.js";
import { codeReadingFor } from "./code-reading.js";
import { exitStatus, type ExitStatus } from "./exit.js";
import { countFindings } from "./terminal/findings.js";
import { counted } from "./terminal/style.js";

/** So many locales are named; the rest are counted. */
const mostLocales = 8;

/** Shows what there is, how far it is and what to run next: what the program alone prints. Undefined where there is nothing to show. */
export async function showState(context: CommandContext): Promise<ExitStatus | undefined> {
  const opened = await projectIfAny(context);
  if (!opened) return undefined;
  const { project, isAssumed } = opened;
  const { style } = context;
  const books = balanceProject(project, {});
  const code = codeReadingFor(context, project, "fond");
  const { files } = await surveyProject(project, {}, code.survey);
  const literals = files.flatMap((file) => file.literals).filter(({ waived }) => waived === undefined);
  const sure = literals.filter(({ verdict, isSure }) => verdict === "text" && isSure).length;
  const likely = literals.filter(({ verdict, isSure }) => verdict === "text" && !isSure).length;
  const findings = await lintProject(project, {}, undefined, code.uses);
  code.end();
  const line = (name: string, text: string) => `${style.bold(name.padEnd(12))}  ${text}\n`;
  context.print(
    books
      .map(({ name, keys }) => line("Book", `${name}: ${counted(keys, "key")} in ${pathOf(project, name)}`))
      .join(""),
  );
  context.print(line("Translated", shares(project, books)));
  context.print(
    line(
      "Left in code",
      `${counted(sure, "text")} for sure, ${likely} likely, in ${counted(files.length, "file")}`,
    ),
  );
  context.print(line("Findings", countFindings(findings, style)));
  const errors = findings.filter(({ severity }) => severity === "error").length;
  const left = books.reduce((sum, { locales }) => sum + locales.filter(({ share }) => share < 1).length, 0);
  const next = isAssumed
    ? "fond init"
    : errors > 0
      ? "fond lint"
      : sure > 0
        ? "fond extract"
        : left > 0
          ? "fond balance --todo"
          : undefined;
  context.print(line("Next", next === undefined ? "nothing: all is in order" : `\`${next}\``));
  return exitStatus.inOrder;
}

function pathOf(project: Project, name: string): string {
  return project.config.books.find((book) => book.name === name)?.files ?? "";
}

/** The share of each locale that is translated and not stale, over all books. */
function shares({ config }: Project, books: readonly BookBalance[]): string {
  if (config.targets.length === 0) return "no target locales yet";
  const rows = config.targets.map((locale) => {
    let keys = 0;
    let done = 0;
    for (const book of books)
      for (const one of book.locales)
        if (one.locale === locale) {
          keys += book.keys;
          done += book.keys * one.share;
        }
    return `${locale} ${keys === 0 ? "–" : `${Math.floor((done / keys) * 100 + 1e-9)} %`}`;
  });
  const more = rows.length - mostLocales;
  return rows.slice(0, mostLocales).join(", ") + (more > 0 ? `, and ${counted(more, "other locale")}` : "");
}
