import type { MessageProblemCode } from "../message/model.js";
import { explainProblem } from "../message/problem-wordings.js";
import type { EntryView, RuleContext } from "./rule.js";

/** Reports what a message's parser found, of the codes that a rule is about. */
export function reportProblems(
  entry: EntryView,
  context: RuleContext,
  isAbout: (code: MessageProblemCode) => boolean,
): void {
  const { catalog, message, locale } = entry;
  if (message.problems.length === 0) return;
  const source =
    locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.entry.key)?.message;
  for (const problem of message.problems) {
    const { severity, code, span } = problem;
    if (!isAbout(code)) continue;
    // What is wrong in the source in the same way is reported there.
    const slice = message.source.slice(span.start, span.end);
    const isSame = source?.problems.some(
      (one) => one.code === code && source.source.slice(one.span.start, one.span.end) === slice,
    );
    if (!isSame)
      entry.reportNotice(explainProblem(problem), {
        span,
        severity: severity === "warning" ? severity : undefined,
      });
  }
}

/** Whether a problem is one of tags, and not of the message's syntax. */
export function isTagProblem(code: MessageProblemCode): boolean {
  return code === "tag-unclosed" || code === "tag-unopened";
}
