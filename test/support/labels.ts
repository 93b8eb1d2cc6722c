import { messageReader } from "../../src/core/message/parse.js";
import { noShapes } from "../../src/core/source/book-code.js";
import { memoryFiles } from "../../src/core/files/memory-files.js";
import { prepareReaders, readSource } from "../../src/core/source/read.js";
import { surveyFile } from "../../src/core/survey/survey.js";
import { thresholds } from "../../src/core/survey/weights.js";

/** How the survey judged one labelled file. */
export interface Measured {
  /** The endings of the file, by which it is read. */
  readonly language: string;
  /** All literals that were read. */
  readonly literals: number;
  /** What users read, by the labels. */
  readonly labelled: number;
  /** Labels that a literal judged `text` covers. */
  readonly found: number;
  /** Labels that a literal judged `text` or `unclear` covers: those that a survey shows. */
  readonly shown: number;
  /** Literals judged `text`. */
  readonly called: number;
  /** Those of them that cover a label. */
  readonly right: number;
  /** Literals called sure, and those of them that cover a label. */
  readonly sure: number;
  readonly surelyRight: number;
  readonly missed: readonly string[];
  readonly wrong: readonly string[];
}

const shapes = {
  ...noShapes,
  sourceLanguage: "en",
  calls: new Map([
    ["t", {}],
    ["I18n.t", {}],
  ]),
  filters: new Set(["trans"]),
};

/** Surveys a file in which guillemets stand around what users read; they are taken out before it is read. */
export async function measureFile(name: string, labelled: string): Promise<Measured> {
  const labels: { start: number; end: number }[] = [];
  const open: number[] = [];
  let text = "";
  for (const unit of labelled) {
    if (unit === "«") open.push(text.length);
    else if (unit === "»") labels.push({ start: open.pop() ?? 0, end: text.length });
    else text += unit;
  }
  await prepareReaders([name], memoryFiles({ [name]: text }));
  const found = surveyFile(readSource(name, text, false, shapes), "labels", messageReader("icu")).literals;
  const texts = found.filter(({ verdict, waived }) => verdict === "text" && waived === undefined);
  const covers = (span: { start: number; end: number }, label: { start: number; end: number }) =>
    span.start < label.end && label.start < span.end;
  const shown = found.filter(({ verdict, waived }) => verdict !== "code" && waived === undefined);
  const missed = labels.filter((label) => !texts.some(({ literal }) => covers(literal.span, label)));
  const wrong = texts.filter(({ literal }) => !labels.some((label) => covers(literal.span, label)));
  return {
    language: /\.[^]*$/.exec(name)?.[0] ?? "",
    literals: found.length,
    labelled: labels.length,
    found: labels.length - missed.length,
    shown: labels.filter((label) => shown.some(({ literal }) => covers(literal.span, label))).length,
    called: texts.length,
    right: texts.length - wrong.length,
    sure: texts.filter(({ score }) => score >= thresholds.sure).length,
    surelyRight: texts.filter((one) => one.score >= thresholds.sure && !wrong.includes(one)).length,
    missed: missed.map((label) => {
      const literal = found.find((one) => covers(one.literal.span, label));
      return `missed ${text.slice(label.start, label.end).slice(0, 50)}: ${literal ? `${literal.verdict} ${literal.score} ${literal.reason}` : "not read"}`;
    }),
    wrong: wrong.map(({ message, score, reason }) => `wrong ${message.slice(0, 50)}: ${score} ${reason}`),
  };
}
