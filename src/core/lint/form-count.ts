import { formsArgument } from "../source/literal-message.js";
import type { EntryView, RuleContext, SourceView } from "./rule.js";

/** Whether an argument is the number that forms of their own are chosen by: the program passes it wherever there are forms. */
export function isCountOfForms(
  name: string,
  target: EntryView,
  source: SourceView,
  { book }: Pick<RuleContext, "book">,
): boolean {
  return (
    book.config.plurals !== undefined &&
    book.config.plurals !== "inline" &&
    name === formsArgument &&
    target.message.facts.plurals.length + source.message.facts.plurals.length > 0
  );
}
