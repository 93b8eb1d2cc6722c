import type { Notice } from "../text/wording.js";
import { notices } from "../message/notices.js";
import { fixedText, type Literal, type SourceFile } from "../source/model.js";
import type { Span } from "../text/span.js";
import type { Keyed } from "./rewrite-host.js";

const say = notices("extract", {
  broken: {
    message: "the rewritten file would not parse: {detail}",
    remedy: "check the templates in emit and the lookups of the book, or move it by hand",
  },
  lost: {
    message: 'the rewritten file would not look up "{key}"',
    remedy: "check the templates in emit and the lookups of the book, or move it by hand",
  },
  changed: {
    message: 'the rewritten file would change "{text}" too',
    remedy: "check the templates in emit and the lookups of the book, or move it by hand",
  },
});

/** What went wrong in a rewritten file; undefined where it asks for each key, and its other texts are what they were. */
export function lostInRewrite(
  before: SourceFile,
  after: SourceFile,
  chosen: readonly Pick<Keyed, "literal" | "key" | "labels">[],
): Notice | undefined {
  const [problem] = after.problems;
  if (problem && before.problems.length === 0) return say("broken", { detail: problem.message });
  const keys = new Set(after.lookups.flatMap(({ key }) => (key.kind === "fixed" ? [key.value] : [])));
  // What hands a label out looks up whatever key the constant holds.
  const lost = chosen.find(({ key, labels }) => !(labels ? after.mentions : keys).has(key));
  if (lost) return say("lost", { key: lost.key });
  const gone = new Set(chosen.map(({ literal }) => literal));
  const outer = outermost(chosen.map(({ literal }) => literal));
  let next = 0;
  /** Asked in the order of places. */
  const inside = ({ span }: Literal) => {
    while (next < outer.length && (outer[next]?.span.end ?? 0) < span.end) next++;
    const around = outer[next];
    return around !== undefined && around.span.start <= span.start && span.end <= around.span.end;
  };
  const kept = new Set(after.literals.map(({ pieces }) => fixedText(pieces)));
  const missing = [...before.literals]
    .sort((a, b) => a.span.end - b.span.end)
    .find((one) => !inside(one) && !gone.has(one) && !kept.has(fixedText(one.pieces)));
  return missing && say("changed", { text: fixedText(missing.pieces) });
}

/** Those that no other holds, in order. */
export function outermost<Item extends { readonly span: Span }>(items: readonly Item[]): readonly Item[] {
  let end = -1;
  return [...items]
    .sort((a, b) => a.span.start - b.span.start || b.span.end - a.span.end)
    .filter(({ span }) => {
      if (span.end <= end) return false;
      end = span.end;
      return true;
    });
}
