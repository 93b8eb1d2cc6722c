import type { Book, Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Languages that write no spaces between words: a space that they drop at an end is no loss. */
const spaceless = new Set(["ja", "zh", "th", "lo", "km", "my", "bo"]);

export const textSpace = defineRule({
  id: "text/space",
  level: "warning",
  summary: "Leading, trailing and doubled spaces.",
  why: "A space at the end of a text is there because another text follows: without it words run together, and one too many shows as a gap. Where most translations do without the source's space, the source is at fault, and it is reported there once. Languages that write no spaces may drop them. Texts of several lines are not checked.",
  examples: {
    bad: [
      { source: "Total: ", target: "Summe:", fixed: "Summe: " },
      { source: "Total", target: "Summe ", fixed: "Summe" },
      { source: "One boat", target: "Ein  Boot", fixed: "Ein Boot" },
    ],
    good: [
      { source: "Total: ", target: "Summe: " },
      { locale: "ja", source: "Total: ", target: "合計：" },
    ],
  },
  looksAt: ["space"],
  entry(context, { catalog, entry, locale }) {
    const { text } = entry;
    if (locale !== context.book.sourceLocale || entry.kind !== "text" || text.includes("\n")) return;
    if (text.trim() === "" || text === text.trim() || isMeant(context.book, catalog, entry)) return;
    const atEnd = text === text.trimStart();
    const edge = atEnd ? text.length - text.trimEnd().length : text.length - text.trimStart().length;
    context.report(
      catalog,
      {
        at: "message",
        entry,
        span: atEnd ? { start: text.length - edge, end: text.length } : { start: 0, end: edge },
      },
      {
        message: `${atEnd ? "trailing" : "leading"} space that most translations do without`,
        remedy: "remove it from the source",
        fix: { text: text.trim() },
      },
    );
  },
  pair(context, { catalog, entry, message, locale }, source) {
    const { text } = entry;
    const from = source.entry.text;
    if (text.includes("\n") || from.includes("\n") || text.trim() === "" || entry.kind !== "text") return;
    if (!/^\s|\s$|\s\s/.test(text) && !/^\s|\s$/.test(from)) return;
    const edge = (one: string) => [/^\s*/.exec(one)?.[0] ?? "", one.slice(one.trimEnd().length)] as const;
    const [lead, tail] = edge(text);
    // A stray space of the source is no model for its translations.
    const model =
      from === from.trim() || isMeant(context.book, source.catalog, source.entry) ? from : from.trim();
    const [wantedLead, wantedTail] = edge(model);
    if (model !== from && text !== text.trim()) return;
    const may = (own: string, wanted: string) =>
      own === wanted || (own === "" && spaceless.has(languageOf(locale)));
    if (!may(lead, wantedLead) || !may(tail, wantedTail)) {
      const fixed =
        (may(lead, wantedLead) ? lead : wantedLead) +
        text.trim() +
        (may(tail, wantedTail) ? tail : wantedTail);
      const atEnd = may(lead, wantedLead);
      const span = atEnd
        ? { start: text.length - Math.max(tail.length, 1), end: text.length }
        : { start: 0, end: Math.max(lead.length, 1) };
      const lost = (atEnd ? tail : lead).length < (atEnd ? wantedTail : wantedLead).length;
      context.report(
        catalog,
        { at: "message", entry, span },
        {
          message: lost
            ? `missing ${atEnd ? "trailing" : "leading"} space, which the source has`
            : `${atEnd ? "trailing" : "leading"} space`,
          remedy: lost ? "add the space: another text likely follows" : "remove it",
          fix: { text: fixed },
        },
      );
    }
    if (/\S {2,}\S/.test(from)) return;
    for (const node of textNodesIn(message.nodes)) {
      const found = /(?<=\S) {2,}(?=\S)/.exec(node.value);
      const span = found && spanInText(node, found.index, found[0].length);
      if (!found || !span) continue;
      const isExact = text.slice(span.start, span.end) === found[0];
      context.report(
        catalog,
        { at: "message", entry, span },
        {
          message: "two spaces in a row",
          remedy: "write one space",
          ...(isExact && {
            fix: { text: `${text.slice(0, span.start)} ${text.slice(span.end)}` },
          }),
        },
      );
      return;
    }
  },
});

/**
 * Whether a space at an end of a source text is there for what follows: it stands behind a colon or the like, or no fewer
 * translations keep it than drop it.
 */
function isMeant(book: Book, source: Catalog, { key, text }: Entry): boolean {
  if (/[:=,([–—-]\s+$/.test(text) || /^\s+[([–—-]/.test(text)) return true;
  const hasEdge = (one: string) =>
    (text === text.trimEnd() || one !== one.trimEnd()) &&
    (text === text.trimStart() || one !== one.trimStart());
  let kept = 0;
  let dropped = 0;
  for (const locale of book.targetLocales) {
    if (spaceless.has(languageOf(locale))) continue;
    const there = book.catalog(locale, source.namespace)?.byKey.get(key);
    if (there?.kind !== "text" || there.text.trim() === "" || there.text === text) continue;
    if (hasEdge(there.text)) kept++;
    else dropped++;
  }
  return kept >= dropped;
}
