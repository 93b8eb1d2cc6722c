import type { Branch, Message, MessageNode, MessageProblem } from "./model.js";
import { pluralOf, shiftMessage } from "./parts.js";

/** A form's own condition: `{0}`, `{2,5}`, `[2,*]`. */
const condition = /^\s*(?:\{\s*(\d+)\s*\}|\[\s*(\d+)\s*,\s*(\d+|\*)\s*\])\s*/;

/**
 * A message whose plural forms stand side by side, `one|many`: a plural of the model. Two forms without conditions are
 * `one` and `other`. More take the categories of the language's whole numbers in CLDR's order, where there are as many,
 * and the last also stands for what is left; where there is one more, the first is for none; else the last is `other`. A bar that is doubled is text.
 * Where a book has something else `between` its forms, such as `||||`, blanks around it are no part of them, and all else is text.
 */
export function readBars(
  source: string,
  parse: (text: string) => Message,
  categories: readonly string[],
  between: string = bar,
): Message {
  const forms = between === bar ? splitBars(source) : splitAt(source, between.trim());
  const unescaped = between === bar ? singleBars : undefined;
  if (forms.length === 1) return shiftMessage(parse(source), 0, unescaped);
  const problems: MessageProblem[] = [];
  const branches: Branch[] = [];
  const plain = forms.filter(({ text }) => !condition.test(text)).length;
  const isExact = plain > 2 && plain === categories.length;
  let seen = 0;
  for (const { text, start } of forms) {
    const found = condition.exec(text);
    const lead = found?.[0].length ?? 0;
    const inner = shiftMessage(parse(text.slice(lead)), start + lead, unescaped);
    problems.push(...inner.problems);
    const names =
      plain === 1
        ? ["other"]
        : plain === 2
          ? ["one", "other"]
          : plain === categories.length + 1 && between === bar
            ? ["=0", ...categories]
            : categories;
    const last = plain - 1;
    const selector = found
      ? found[1] !== undefined
        ? `=${found[1]}`
        : found[3] === "*"
          ? "other"
          : `=${found[2] ?? ""}`
      : seen === last && !isExact
        ? "other"
        : (names[seen] ?? "other");
    if (!found) seen++;
    branches.push({
      selector,
      nodes: inner.nodes,
      selectorSpan: { start, end: start + Math.max(lead, 0) },
      span: { start, end: start + text.length },
    });
  }
  const ending = branches.at(-1);
  if (isExact && ending && ending.selector !== "other")
    branches.push({ selector: "other", nodes: ending.nodes });
  return pluralOf(source, branches, problems);
}

/** Two bars stand for one. */
const singleBars = (text: string) => text.replaceAll("||", "|");

/** Writes a plural as forms side by side; what is no plural as the syntax writes it. */
export function printBars(
  nodes: readonly MessageNode[],
  print: (nodes: readonly MessageNode[]) => string,
  between: string = bar,
): string {
  const [only] = nodes;
  const escape = (text: string) => (between === bar ? text.replaceAll("|", "||") : text);
  if (nodes.length !== 1 || only?.kind !== "plural") return escape(print(nodes));
  return only.branches
    .filter(
      ({ selector, nodes: inner }, index) =>
        selector !== "other" || only.branches[index - 1]?.nodes !== inner,
    )
    .map(({ selector, nodes: inner }) => {
      const text = escape(print(inner));
      return selector.startsWith("=") ? `{${selector.slice(1)}} ${text}` : text;
    })
    .join(between === bar || /^\s|\s$/.test(between) ? between : ` ${between} `);
}

/** What stands between forms where a book says nothing else. */
export const bar = "|";

/** The forms of a text, without the blanks around them. */
function splitAt(source: string, between: string): { text: string; start: number }[] {
  let start = 0;
  return source.split(between).map((form) => {
    const lead = form.length - form.trimStart().length;
    const found = { text: form.trim(), start: start + lead };
    start += form.length + between.length;
    return found;
  });
}

function splitBars(source: string): { text: string; start: number }[] {
  const forms: { text: string; start: number }[] = [];
  let start = 0;
  for (let at = 0; at < source.length; at++) {
    if (source[at] !== "|") continue;
    if (source[at + 1] === "|") {
      at++;
      continue;
    }
    forms.push({ text: source.slice(start, at), start });
    start = at + 1;
  }
  forms.push({ text: source.slice(start), start });
  return forms;
}
