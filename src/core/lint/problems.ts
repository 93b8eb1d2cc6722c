import type { MessageProblemCode } from "../message/model.js";
import type { EntryView, RuleContext } from "./rule.js";

/** Reports what a message's parser found, of the codes that a rule speaks of. */
export function reportProblems(
  context: RuleContext,
  { catalog, entry, message, locale }: EntryView,
  speaksOf: (code: MessageProblemCode) => boolean,
): void {
  if (message.problems.length === 0) return;
  const source =
    locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key)?.message;
  for (const { severity, code, message: what, remedy, span } of message.problems) {
    if (!speaksOf(code)) continue;
    // What the source has wrong in the same way is told of there.
    const slice = message.source.slice(span.start, span.end);
    const isSame = source?.problems.some(
      (one) => one.code === code && source.source.slice(one.span.start, one.span.end) === slice,
    );
    if (isSame) continue;
    const words = { message: what, remedy, ...(severity === "warning" && { severity }) };
    context.report(catalog, { at: "message", entry, span }, words);
  }
}

/** Whether a problem is one of tags, and not of the message's syntax. */
export function isTagProblem(code: MessageProblemCode): boolean {
  return code === "tag-unclosed" || code === "tag-unopened";
}
