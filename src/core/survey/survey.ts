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

/** A literal with its judgement and place. */
export interface SurveyedLiteral extends Range, Judgement {
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
  readonly literal: Literal;
}

/** Judges one literal by everything known about it. */
export function judgeLiteral(literal: Literal, own?: OwnHabits): Judgement {
  const evidence = gatherEvidence(literal, own);
  let sum = 0;
  for (const { name } of evidence) sum += weights[name];
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
  return source.literals.map((literal) => {
    const text = readableText(literal.pieces);
    return {
      file: source.file,
      ...source.lines.range(literal.span),
      book,
      text: isContent(literal) ? text.replace(/[ \t\r\n]+/g, " ").trim() : text,
      message: reader.print(literalNodes(literal.pieces)),
      ...judgeLiteral(literal, own),
      context: literal.context,
      ...(literal.skipped !== undefined && { waived: literal.skipped }),
      ...(literal.remarks && { remarks: literal.remarks.map(({ message }) => message) }),
      ...(literal.note !== undefined && { note: literal.note }),
      literal,
    };
  });
}

function isContent(literal: Literal): boolean {
  return literal.form === "content" || literal.form === "phrase";
}
