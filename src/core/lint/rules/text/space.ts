import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Languages that write no spaces between words: a space that they drop at an end is no loss. */
const spaceless = new Set(["ja", "zh", "th", "lo", "km", "my", "bo"]);

export const textSpace = defineRule({
  id: "text/space",
  level: "warning",
  summary: "White space at the ends that the source does not have, or has and this lost, and doubled spaces.",
  why: "A space at the end of a text is there because another text follows: without it words run together, and one too many shows as a gap. Languages that write no spaces may drop them. Texts of several lines are let pass.",
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
  pair(context, { catalog, entry, message, locale }, source) {
    const { text } = entry;
    const from = source.entry.text;
    if (text.includes("\n") || from.includes("\n") || text.trim() === "" || entry.kind !== "text") return;
    if (!/^\s|\s$|\s\s/.test(text) && !/^\s|\s$/.test(from)) return;
    const edge = (one: string) => [/^\s*/.exec(one)?.[0] ?? "", one.slice(one.trimEnd().length)] as const;
    const [lead, tail] = edge(text);
    const [wantedLead, wantedTail] = edge(from);
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
          message: `${lost ? "the source has" : "there is"} white space at the ${atEnd ? "end" : "beginning"}${lost ? ", this has not" : " that the source does not have"}`,
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
          remedy: "write one",
          ...(isExact && {
            fix: { text: `${text.slice(0, span.start)} ${text.slice(span.end)}` },
          }),
        },
      );
      return;
    }
  },
});
