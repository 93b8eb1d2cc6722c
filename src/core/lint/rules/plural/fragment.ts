import { defineRule } from "../../rule.js";

export const pluralFragment = defineRule({
  id: "plural/fragment",
  level: "info",
  summary: "Source sentence that is split around a plural.",
  why: "In some languages other words change with the number, or the order differs: translators need the whole sentence in each variant. Only the source is checked; ordinals and short remainders such as a colon are not reported.",
  messages: {
    split: {
      message: "the sentence continues outside the plural {argument}",
      remedy: "put the whole sentence into each variant",
    },
  },
  examples: {
    bad: [
      {
        source: "You have {n, plural, one {# boat} other {# boats}} at the quay",
        target: "Sie haben {n, plural, one {# Boot} other {# Boote}} am Kai",
      },
    ],
    good: [
      {
        source: "{n, plural, one {You have # boat} other {You have # boats}}",
        target: "{n, plural, one {Sie haben # Boot} other {Sie haben # Boote}}",
      },
      {
        source: "Boats: {n, plural, one {# boat} other {# boats}}",
        target: "Boote: {n, plural, one {# Boot} other {# Boote}}",
      },
    ],
  },
  needs: ["unevenPlural"],
  entry(entry, context) {
    const { message, locale } = entry;
    if (locale !== context.book.sourceLocale || message.facts.plurals.length === 0) return;
    const at = message.nodes.findIndex((node) => node.kind === "plural" && node.pluralKind === "cardinal");
    const plural = message.nodes[at];
    if (plural?.kind !== "plural") return;
    const isWordy = (nodes: typeof message.nodes) =>
      nodes.some((node) => node.kind === "text" && /\p{L}{2,}[^:]*$/u.test(node.value.trim()));
    const before = isWordy(message.nodes.slice(at - 1 < 0 ? 0 : at - 1, at));
    const after = message.nodes
      .slice(at + 1)
      .some((node) => node.kind === "text" && /\p{L}{2}/u.test(node.value));
    if (!before && !after) return;
    entry.report("split", { argument: context.argument(plural.name) }, { span: plural.span });
  },
});
