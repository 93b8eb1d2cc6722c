import type { MessageProblem, MessageProblemCode } from "../message/model.js";
import { explainProblem } from "../message/problem-wordings.js";
import type { Span } from "../text/span.js";
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
    if (
      !isSame &&
      !isOfTex(message.source, span) &&
      !(isTagProblem(code) && isNoTag(problem, entry, context))
    )
      entry.reportNotice(explainProblem(problem), {
        span,
        severity: severity === "warning" ? severity : undefined,
      });
  }
}

/** Whether braces at a place belong to a command of TeX: `\\cite{key}`. */
export function isOfTex(text: string, span: Span | undefined): boolean {
  return (
    span !== undefined && /\\\p{L}{2,30}\{?$/u.test(text.slice(Math.max(0, span.start - 34), span.start))
  );
}

/** Elements whose end HTML lets people leave out (HTML Living Standard, section 13.1.2.4). */
const endsByItself = new Set(
  "p li dt dd option optgroup tr td th thead tbody tfoot body html head".split(" "),
);

/** Elements that texts are formatted with. Of others without attributes a text may only speak: "policies for the <iframe>". */
const formatting = new Set(
  "a abbr address article aside b bdi bdo big blockquote caption center cite code dd del details dfn div dl dt em figcaption figure font footer h1 h2 h3 h4 h5 h6 header i ins kbd label legend li mark ol p pre q rp rt ruby s samp section small span strike strong sub summary sup table tbody td tfoot th thead tr tt u ul var".split(
    " ",
  ),
);

/**
 * Whether what looks like an opening tag is none: an element that ends by itself, or a name that nobody closes, as in
 * `ferry [options] <host>`.
 */
function isNoTag(
  { code, data }: MessageProblem,
  { catalog, entry, locale }: EntryView,
  context: RuleContext,
): boolean {
  const name = /^<\/?([^>]+)>$/.exec(String(data["tag"] ?? ""))?.[1] ?? "";
  if (endsByItself.has(name.toLowerCase())) return true;
  // An example has dots where values go.
  if (/\.\.\.|…/.test(String(data["tag"] ?? "")) || /<(?:pre|code)\b[^<>]*"\.\.\."/.test(entry.text))
    return true;
  // A text that is one name in such signs stands for something: `<select>`.
  if (code === "tag-unclosed" && /^\s*<[\w -]+>\s*$/.test(entry.text)) return true;
  if (code !== "tag-unclosed" || formatting.has(name.toLowerCase())) return false;
  const end = `</${name}>`;
  if (entry.text.includes(end)) return false;
  const { book } = context;
  const isSource = locale === book.sourceLocale;
  const others = isSource ? book.targetLocales : [book.sourceLocale];
  return !others.some((one) =>
    book.catalog(one, catalog.namespace)?.byKey.get(entry.key)?.text.includes(end),
  );
}

/** Whether a problem is one of tags, and not of the message's syntax. */
export function isTagProblem(code: MessageProblemCode): boolean {
  return code === "tag-unclosed" || code === "tag-unopened";
}
