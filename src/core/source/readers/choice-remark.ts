import type { Remark } from "../model.js";

/** What it means that code chooses between texts by a test: a plural by hand, a choice by language, or nothing in particular. */
export function choiceRemark(test: string): Remark | undefined {
  const compared = test.matchAll(
    /(?<![\w.()\]"'])([\w.()\]"']+)\s*(?:===?|!==?|(?<=\.equals\(|\.startsWith\()|\beq\b)\s*[:"'`]/gi,
  );
  if ([...compared].some(([, value = ""]) => /(?:locale|lang|language)\b/i.test(value)))
    return { kind: "chosen-by-language", message: "chosen by language in code" };
  if (/(?:===?|!==?|<=?|>=?)\s*[012]\b(?!\.)|\b[01]\s*(?:===?|<|>)/.test(test))
    return { kind: "plural-by-hand", message: "a plural made by hand" };
  return undefined;
}
