import type { Remark } from "../model.js";

/** What it means that code chooses between texts by a test: a plural by hand, a choice by language, or nothing in particular. */
export function choiceRemark(test: string): Remark | undefined {
  if (
    /(?:locale|lang|language)\b[\w.()\]"']*\s*(?:===?|!==?|\.equals\(|\.startsWith\(|eq)\s*[:"'`]/i.test(test)
  )
    return { kind: "chosen-by-language", message: "chosen by language in code" };
  if (/(?:===?|!==?|<=?|>=?)\s*[012]\b(?!\.)|\b[01]\s*(?:===?|<|>)/.test(test))
    return { kind: "plural-by-hand", message: "a plural made by hand" };
  return undefined;
}
