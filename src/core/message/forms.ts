import { pluralCategoryNames } from "../locale/plural-rules.js";
import type { Branch, Message, MessageNode, MessageProblem } from "./model.js";
import { pluralOf, shiftMessage } from "./parts.js";

/** One plural form of a message whose forms are kept under keys of their own. */
export interface PluralForm {
  readonly selector: string;
  readonly text: string;
  /** Where its text starts in the joined text. */
  readonly start: number;
}

/** What opens and closes the name of a form: noncharacters, which Unicode (section 23.7) leaves to programs, so that no text has them. */
export const formMark = "\uFDD0";
const markEnd = "\uFDD1";

const mark = new RegExp(`${formMark}(${pluralCategoryNames.join("|")})${markEnd}`, "g");

/**
 * Forms as one text, each behind its category, so that a message of several keys is compared, digested and read like any
 * other, its places counted from one start. It is never how a file or a person has them: an entry has its `forms`.
 */
export function joinForms(forms: readonly Pick<PluralForm, "selector" | "text">[]): string {
  return forms.map(({ selector, text }) => `${formMark}${selector}${markEnd}${text}`).join("");
}

/** The forms of a joined text; undefined for any other. */
export function splitForms(joined: string): readonly PluralForm[] | undefined {
  if (!joined.startsWith(formMark)) return undefined;
  const marks = [...joined.matchAll(mark)];
  if (marks[0]?.index !== 0) return undefined;
  return marks.map((match, index) => {
    const start = match.index + match[0].length;
    return { selector: match[1] ?? "other", text: joined.slice(start, marks[index + 1]?.index), start };
  });
}

/** A text for people: joined forms one behind the other with their categories, any other as it is. */
export function showForms(text: string): string {
  return (
    splitForms(text)
      ?.map((form) => `${form.selector}: ${form.text}`)
      .join(" · ") ?? text
  );
}

/** Reads joined forms as a plural of the model; any other text as the syntax reads it. */
export function readForms(source: string, parse: (text: string) => Message): Message {
  const forms = splitForms(source);
  if (!forms) return parse(source);
  const problems: MessageProblem[] = [];
  const branches = forms.map(({ selector, text, start }): Branch => {
    const inner = shiftMessage(parse(text), start);
    problems.push(...inner.problems);
    return {
      selector,
      nodes: inner.nodes,
      selectorSpan: { start, end: start },
      span: { start, end: start + text.length },
    };
  });
  return pluralOf(source, branches, problems);
}

/** Writes a plural as joined forms; what is no plural as the syntax writes it. */
export function printForms(
  nodes: readonly MessageNode[],
  print: (nodes: readonly MessageNode[]) => string,
): string {
  const [only] = nodes;
  if (
    nodes.length !== 1 ||
    only?.kind !== "plural" ||
    only.branches.some(({ selector }) => selector.startsWith("="))
  )
    return print(nodes);
  return joinForms(only.branches.map(({ selector, nodes: inner }) => ({ selector, text: print(inner) })));
}
