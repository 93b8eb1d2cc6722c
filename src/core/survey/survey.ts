import { notices } from "../message/notices.js";
import type { Notice } from "../text/wording.js";
import type { Range } from "../text/span.js";
import type { MessageReader } from "../message/parse.js";
import { bookPieces, literalMessage } from "../source/literal-message.js";
import {
  readableText,
  type Literal,
  type LiteralContext,
  type Piece,
  type SourceFile,
  type SourceProblem,
} from "../source/model.js";
import type { Place } from "./company.js";
import type { LeftOut } from "./left-out.js";
import { withShownErrors } from "./shown-errors.js";
import { gatherEvidence } from "./evidence.js";
import type { OwnHabits } from "./own-habits.js";
import { thresholds, weights, type EvidenceName } from "./weights.js";

/** Whether users read a literal: surely, perhaps, or not. */
export type Verdict = "text" | "unclear" | "code";

/** How sure a literal must be to be text: surely, likely, or not known to be code. */
export type Certainty = "sure" | "likely" | "unclear";

/** Whether a literal is text at least as surely. */
export function isAtLeast({ verdict, isSure, isPattern }: Judgement, certainty: Certainty): boolean {
  if (isPattern) return false;
  if (certainty === "sure") return isSure === true;
  return verdict === "text" || (certainty === "unclear" && verdict === "unclear");
}

/** What the survey says of one literal. */
export interface Judgement {
  readonly verdict: Verdict;
  /** How likely the literal is to be text, from 0 to 1. */
  readonly score: number;
  /** Set where it is text as surely as evidence can say. */
  readonly isSure?: true;
  /** Set for a fixed pattern of dates: no text that anybody translates, and yet nothing that fits every locale. */
  readonly isPattern?: true;
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
  /** Why the file was left out: then nothing of it was judged. */
  readonly leftOut?: LeftOut;
  /** The first place where the file does not parse. */
  readonly problem?: {
    readonly line: number;
    readonly column: number;
  } & Notice;
}

/** How long the judging of one file may take, in ms: no file holds the rest up. */
const longest = 20_000;

const say = notices("survey", {
  "too-long": {
    message: "judging this file took longer than {seconds} s; the rest of it is skipped",
    remedy: 'exclude it with the book\'s "ignore" if nobody writes text in it',
  },
});

/** Judges the literals of a file in order; where that takes too long it stops, and says so. */
function judgeEach(
  { literals, lookups, text }: SourceFile,
  own: OwnHabits | undefined,
  take: (literal: Literal, judgement: Judgement) => void,
): SourceProblem | undefined {
  const end = performance.now() + longest;
  for (const [index, literal] of literals.entries()) {
    // To ask for the time costs little against judging, and less still now and then.
    if (index % 16 === 15 && performance.now() > end)
      return {
        ...say("too-long", { seconds: longest / 1000 }),
        span: literal.span,
      };
    take(literal, judgeLiteral(literal, own, { literals, index, text, lookups: lookups.length }));
  }
  return undefined;
}

/** One thing that speaks for or against a literal being text: how much, in log-odds, and why. */
export interface WeighedEvidence {
  readonly name: EvidenceName;
  readonly reason: string;
  readonly weight: number;
}

/** A literal with all that was weighed to judge it. */
export interface ExplainedLiteral extends ReportedLiteral {
  readonly evidence: readonly WeighedEvidence[];
}

/** The literals of a file that stand on a line, with everything that speaks for and against each. */
export function explainLine(
  read: SourceFile,
  line: number,
  book: string,
  reader: MessageReader,
  own: OwnHabits | undefined,
  waivers?: LiteralWaivers,
): readonly ExplainedLiteral[] {
  const source = withShownErrors(read, own?.shownErrors);
  const { literals, lookups, text } = source;
  return literals.flatMap((literal, index): ExplainedLiteral[] => {
    const { line: first, endLine } = source.lines.range(literal.span);
    if (line < first || line > endLine) return [];
    const place = { literals, index, text, lookups: lookups.length };
    const report = reportLiteral(source, literal, judgeLiteral(literal, own, place), book, reader, waivers);
    const evidence = gatherEvidence(literal, own, place).map((one) => ({
      ...one,
      weight: weights[one.name],
    }));
    return [{ ...report, evidence }];
  });
}

/** Surveys one file that was read. `all` keeps what was judged to be code as well. */
export function reportFile(
  read: SourceFile,
  book: string,
  reader: MessageReader,
  own: OwnHabits | undefined,
  all: boolean,
  waivers?: LiteralWaivers,
): FileSurvey {
  const source = withShownErrors(read, own?.shownErrors);
  const counts = { text: 0, unclear: 0, code: 0, waived: 0 };
  const literals: ReportedLiteral[] = [];
  const stopped = judgeEach(source, own, (literal, judgement) => {
    const mayMatter = all || (judgement.verdict !== "code" && literal.skipped === undefined);
    const report = mayMatter ? reportLiteral(source, literal, judgement, book, reader, waivers) : undefined;
    const isWaived = (report ? report.waived : literal.skipped) !== undefined;
    counts[isWaived ? "waived" : judgement.verdict]++;
    if (report && (all || !isWaived)) literals.push(report);
  });
  const problem = source.problems[0] ?? stopped;
  if (!problem) return { file: source.file, literals, counts };
  const { messageId, data, message, remedy, span } = problem;
  return {
    file: source.file,
    literals,
    counts,
    problem: { ...source.lines.position(span.start), messageId, data, message, remedy },
  };
}

/** What accepts literals as they are, by book, file and text: the reason, or undefined. */
export interface LiteralWaivers {
  literal(book: string, file: string, text: string): string | undefined;
}

/** Judges one literal by everything known about it. */
export function judgeLiteral(literal: Literal, own?: OwnHabits, place?: Place): Judgement {
  const evidence = gatherEvidence(literal, own, place);
  let sum = 0;
  for (const { name } of evidence) sum += weights[name];
  // A fixed pattern for dates is neither: no text, and yet nothing that every locale can live with.
  const fixedPattern = evidence.find(({ name }) => name === "datePattern");
  if (fixedPattern) return { verdict: "unclear", score: 0.5, isPattern: true, reason: fixedPattern.reason };
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
    ...(score >= thresholds.sure && { isSure: true }),
    reason: told.map(({ reason }) => reason).join("; ") || "nothing speaks for either",
  };
}

/** The literals of one file of code with their judgements, in its order; and why some are missing, where judging took too long. */
export function surveyFile(
  read: SourceFile,
  book: string,
  reader: MessageReader,
  own?: OwnHabits,
  waivers?: LiteralWaivers,
): { readonly literals: readonly SurveyedLiteral[]; readonly stopped?: SourceProblem } {
  const source = withShownErrors(read, own?.shownErrors);
  const literals: SurveyedLiteral[] = [];
  const stopped = judgeEach(source, own, (literal, judgement) => {
    literals.push({ ...reportLiteral(source, literal, judgement, book, reader, waivers), literal });
  });
  return { literals, ...(stopped && { stopped }) };
}

function reportLiteral(
  source: SourceFile,
  literal: Literal,
  judgement: Judgement,
  book: string,
  reader: MessageReader,
  waivers: LiteralWaivers | undefined,
): ReportedLiteral {
  const readable = readableText(literal.pieces);
  const text = isContent(literal) ? readable.replace(/[ \t\r\n]+/g, " ").trim() : readable;
  const waived = literal.skipped ?? waivers?.literal(book, source.file, text);
  const { line, column, endLine, endColumn } = source.lines.range(literal.span);
  const { context, remarks, note } = literal;
  return {
    file: source.file,
    line,
    column,
    endLine,
    endColumn,
    book,
    text,
    message: literal.written ?? messageOf(literal.pieces, reader),
    ...judgement,
    context,
    ...(waived !== undefined && { waived }),
    ...(remarks && { remarks: remarks.map(({ message }) => message) }),
    ...(note !== undefined && { note }),
  };
}

function messageOf(given: readonly Piece[], reader: MessageReader): string {
  const pieces = bookPieces(given, reader);
  return literalMessage(pieces, reader) ?? readableText(pieces);
}

function isContent(literal: Literal): boolean {
  return literal.form === "content" || literal.form === "phrase";
}
