import { formsArgument } from "../source/literal-message.js";
import type { EntryView, RuleContext, SourceView } from "./rule.js";

/** Right behind these an argument only chooses words, and is not shown: `{{plural:%count%|…}}`. */
const choosing = /\{\{\s?#?[a-zA-Z]{2,20}\s?:\s?$/;

/** Whether the source shows an argument nowhere, and only has words chosen by it: a translation that needs no choice is without it. */
export function onlyChooses(name: string, { message: { source, facts } }: SourceView): boolean {
  const places = facts.arguments.get(name) ?? [];
  return (
    places.length > 0 &&
    places.every(
      ({ span }) =>
        span !== undefined && choosing.test(source.slice(Math.max(span.start - 30, 0), span.start)),
    )
  );
}

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
