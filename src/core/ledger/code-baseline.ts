import type { Files } from "../files/files.js";
import { escapeField, readRecords, unescapeField, type LedgerProblem } from "./ledger.js";
import type { FileChange } from "../plan/plan.js";
import type { ReportedLiteral } from "../survey/survey.js";

/** The texts that a team has agreed to leave in code for now: by book and text, how often each is there. */
export interface Baseline {
  readonly file: string;
  readonly written: string | undefined;
  readonly counts: ReadonlyMap<string, number>;
  readonly problems: readonly LedgerProblem[];
}

const head = "# Fond Ledger 1: texts left in code";

/** Reads the baseline in the ledger's folder; an empty one where there is none. Lines that make no sense are reported and skipped. */
export function readBaseline(files: Files, folder: string): Baseline {
  const file = `${folder}/code.txt`;
  const counts = new Map<string, number>();
  const problems: LedgerProblem[] = [];
  const written = readRecords(files, file, problems, ([count = "", book, text, ...rest]) => {
    if (!/^[1-9]\d{0,8}$/.test(count) || book === undefined || text === undefined || rest.length > 0)
      return false;
    counts.set(idOf(unescapeField(book), unescapeField(text)), Number(count));
    return true;
  });
  return { file, written, counts, problems };
}

/** The texts that are not in a baseline, or stand more often in code than it allows: of the same text the last ones. */
export function beyondBaseline(
  { counts }: Pick<Baseline, "counts">,
  literals: readonly ReportedLiteral[],
): readonly ReportedLiteral[] {
  const left = new Map(counts);
  return literals.filter((literal) => {
    if (!isLeftInCode(literal)) return false;
    const id = idOf(literal.book, literal.text);
    const allowed = left.get(id) ?? 0;
    if (allowed > 0) left.set(id, allowed - 1);
    return allowed === 0;
  });
}

/** The change that makes a baseline say what stands in code today; none where it does. */
export function baselineChanges(baseline: Baseline, literals: readonly ReportedLiteral[]): FileChange[] {
  const counts = new Map<string, number>();
  for (const literal of literals) {
    if (!isLeftInCode(literal)) continue;
    const id = idOf(literal.book, literal.text);
    counts.set(id, (counts.get(id) ?? 0) + 1);
  }
  const lines = [...counts.keys()].sort().map((id) => `${counts.get(id) ?? 0}\t${id}`);
  const after = lines.length === 0 ? undefined : [head, ...lines, ""].join("\n");
  if (after === baseline.written) return [];
  return [{ file: baseline.file, before: baseline.written, after, isRecord: true }];
}

function isLeftInCode({ verdict, waived }: ReportedLiteral): boolean {
  return verdict === "text" && waived === undefined;
}

function idOf(book: string, text: string): string {
  return `${escapeField(book)}\t${escapeField(text)}`;
}
