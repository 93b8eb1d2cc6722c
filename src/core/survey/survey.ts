import type { Range } from "../text/span.js";
import type { MessageReader } from "../message/parse.js";
import { literalNodes } from "../source/literal-message.js";
import { readableText, type Literal, type LiteralContext, type SourceFile } from "../source/model.js";
import { gatherEvidence } from "./evidence.js";
import type { OwnHabits } from "./habits/index.js";
import { thresholds, weights } from "./weights.js";

/** Whether users read a literal: surely, perhaps, or not. */
export type Verdict = "text" | "unclear" | "code";

/** What the survey says of one literal. */
export interface Judgement {
  readonly verdict: Verdict;
  /** How likely the literal is to be text, from 0 to 1. */
  readonly score: number;
  /** The weightiest evidence, in words. */
  readonly reason: string;
}

/** A literal with its judgement and place, as it is reported. */
export interface ReportedLiteral extends Range, Judgement {
  readonly file: string;
  readonly book: string;
  /** What the user reads, white space as rendered. */
  readonly text: string;
  /** The same as a message in the book's syntax. */
  readonly message: string;
  readonly context: LiteralContext;
  /** The reason given in a comment for leaving it alone. */
  readonly waived?: string;
  /** What else is to be said of it: put together from pieces, chosen by a number or a language, a fixed format. */
  readonly remarks?: readonly string[];
  /** What a comment beside it tells translators. */
  readonly note?: string;
}

/** The same with what was read, for a rewrite. */
export interface SurveyedLiteral extends ReportedLiteral {
  readonly literal: Literal;
}

/** How many literals got which verdict; those excused by a comment or the markup count as `waived` alone. */
export interface VerdictCounts {
  readonly text: number;
  readonly unclear: number;
  readonly code: number;
  readonly waived: number;
}

/** What the survey says of one file. */
export interface FileSurvey {
  readonly file: string;
  /** Without what was judged `code` or is waived, unless all was asked for. */
  readonly literals: readonly ReportedLiteral[];
  readonly counts: VerdictCounts;
  /** The first place where the file does not parse. */
  readonly problem?: {
    readonly line: number;
    readonly column: number;
    readonly message: string;
    readonly remedy: string;
  };
}

/** Surveys one file that was read. `all` keeps what was judged to be code as well. */
export function reportFile(
  source: SourceFile,
  book: string,
  reader: MessageReader,
  own: OwnHabits | undefined,
  all: boolean,
): FileSurvey {
  const counts = { text: 0, unclear: 0, code: 0, waived: 0 };
  const literals: ReportedLiteral[] = [];
  for (const literal of source.literals) {
    const judgement = judgeLiteral(literal, own);
    const isWaived = literal.skipped !== undefined;
    counts[isWaived ? "waived" : judgement.verdict]++;
    if (all || (judgement.verdict !== "code" && !isWaived))
      literals.push(reportLiteral(source, literal, judgement, book, reader));
  }
  const [problem] = source.problems;
  if (!problem) return { file: source.file, literals, counts };
  const { message, remedy, span } = problem;
  return {
    file: source.file,
    literals,
    counts,
    problem: { ...source.lines.position(span.start), message, remedy },
  };
}

/** Judges one literal by everything known about it. */
export function judgeLiteral(literal: Literal, own?: OwnHabits): Judgement {
  const evidence = gatherEvidence(literal, own);
  let sum = 0;
  for (const { name } of evidence) sum += weights[name];
  // A fixed pattern for dates is neither: no text, and yet nothing that every locale can live with.
  const fixedPattern = evidence.find(({ name }) => name === "datePattern");
  if (fixedPattern) return { verdict: "unclear", score: 0.5, reason: fixedPattern.reason };
  const score = Math.round(100 / (1 + Math.exp(-sum))) / 100;
  const verdict: Verdict = score >= thresholds.text ? "text" : score <= thresholds.code ? "code" : "unclear";
  // What speaks for the verdict is said first; what speaks against it only explains a doubt.
  const speaksFor = (weight: number) => verdict === "unclear" || weight > 0 === (verdict === "text");
  const told = evidence
    .filter(({ name }) => speaksFor(weights[name]))
    .sort((a, b) => Math.abs(weights[b.name]) - Math.abs(weights[a.name]))
    .slice(0, 2);
  return {
    verdict,
    score,
    reason: told.map(({ reason }) => reason).join("; ") || "nothing speaks for either",
  };
}

/** Judges every literal of one file of code, in the order of the file. */
export function surveyFile(
  source: SourceFile,
  book: string,
  reader: MessageReader,
  own?: OwnHabits,
): SurveyedLiteral[] {
  return source.literals.map((literal) => ({
    ...reportLiteral(source, literal, judgeLiteral(literal, own), book, reader),
    literal,
  }));
}

function reportLiteral(
  source: SourceFile,
  literal: Literal,
  judgement: Judgement,
  book: string,
  reader: MessageReader,
): ReportedLiteral {
  const text = readableText(literal.pieces);
  const { line, column, endLine, endColumn } = source.lines.range(literal.span);
  const { verdict, score, reason } = judgement;
  const { context, skipped, remarks, note } = literal;
  return {
    file: source.file,
    line,
    column,
    endLine,
    endColumn,
    book,
    text: isContent(literal) ? text.replace(/[ \t\r\n]+/g, " ").trim() : text,
    message: reader.print(literalNodes(literal.pieces)),
    verdict,
    score,
    reason,
    context,
    ...(skipped !== undefined && { waived: skipped }),
    ...(remarks && { remarks: remarks.map(({ message }) => message) }),
    ...(note !== undefined && { note }),
  };
}

function isContent(literal: Literal): boolean {
  return literal.form === "content" || literal.form === "phrase";
}
