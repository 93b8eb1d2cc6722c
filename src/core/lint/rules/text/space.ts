import type { Book, Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Languages that write no spaces between words: a space that they drop at an end is no loss. */
const spaceless = new Set(["ja", "zh", "th", "lo", "km", "my", "bo"]);

export const textSpace = defineRule({
  id: "text/space",
  level: "warning",
  summary: "Leading, trailing or double spaces.",
  why: "A trailing space separates a text from what follows: without it words run together, and an extra one shows as a gap. If most translations omit the source's space, the source is reported once. Languages without spaces may omit them. Texts of several lines are not checked.",
  messages: {
    "source-trailing": {
      message: "trailing space that most translations omit",
      remedy: "remove it from the source",
    },
    "source-leading": {
      message: "leading space that most translations omit",
      remedy: "remove it from the source",
    },
    trailing: { message: "trailing space", remedy: "remove it" },
    leading: { message: "leading space", remedy: "remove it" },
    "no-trailing": {
      message: "missing trailing space, which the source has",
      remedy: "add the space: another text likely follows",
    },
    "no-leading": {
      message: "missing leading space, which the source has",
      remedy: "add the space: another text likely precedes it",
    },
    double: { message: "two spaces in a row", remedy: "write one space" },
  },
  looks: "around",
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
  needs: ["space"],
  entry(view, context) {
    const { catalog, entry, locale } = view;
    const { text } = entry;
    if (locale !== context.book.sourceLocale || entry.kind !== "text" || text.includes("\n")) return;
    if (text.trim() === "" || text === text.trim() || isMeant(context.book, catalog, entry)) return;
    const lead = text.length - text.trimStart().length;
    const end = text.trimEnd().length;
    const fix = { span: { start: 0, end: text.length }, text: text.trim() };
    if (lead === 0) view.report("source-trailing", {}, { span: { start: end, end: text.length }, fix });
    else view.report("source-leading", {}, { span: { start: 0, end: lead }, fix });
  },
  pair(target, source, context) {
    const { entry, message, locale } = target;
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
    const hasLead = may(lead, wantedLead);
    const hasTail = may(tail, wantedTail);
    if (!hasLead || !hasTail) {
      const fixed = (hasLead ? lead : wantedLead) + text.trim() + (hasTail ? tail : wantedTail);
      const fix = { span: { start: 0, end: text.length }, text: fixed };
      const span = hasLead
        ? { start: text.length - Math.max(tail.length, 1), end: text.length }
        : { start: 0, end: Math.max(lead.length, 1) };
      if (hasLead)
        target.report(tail.length < wantedTail.length ? "no-trailing" : "trailing", {}, { span, fix });
      else target.report(lead.length < wantedLead.length ? "no-leading" : "leading", {}, { span, fix });
    }
    if (/\S {2,}\S/.test(from)) return;
    for (const node of textNodesIn(message.nodes)) {
      const found = /(?<=\S) {2,}(?=\S)/.exec(node.value);
      const span = found && spanInText(node, found.index, found[0].length);
      if (!found || !span) continue;
      const isExact = text.slice(span.start, span.end) === found[0];
      target.report("double", {}, { span, fix: isExact ? " " : undefined });
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
