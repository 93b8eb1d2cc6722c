import type { PluralNode } from "../../../message/model.js";
import { defineRule } from "../../rule.js";

export const pluralSelector = defineRule({
  id: "plural/selector",
  level: "error",
  summary: "A plural that counts something else than the source's, or with another offset.",
  why: "The form is chosen by the wrong number: users read “1 boats”. So it is with an ordinal in place of a plural.",
  examples: {
    bad: [
      {
        source: "{boats, plural, one {# boat} other {# boats}} for {guests}",
        target: "{guests, plural, one {# Boot} other {# Boote}} für {boats}",
      },
      {
        source: "{n, plural, offset:1 one {# more} other {# more}}",
        target: "{n, plural, one {# mehr} other {# mehr}}",
      },
      {
        source: "{n, selectordinal, one {#st} two {#nd} few {#rd} other {#th}}",
        target: "{n, plural, one {#.} other {#.}}",
      },
    ],
    good: [
      {
        source: "{n, plural, offset:1 one {# more} other {# more}}",
        target: "{n, plural, offset:1 one {# mehr} other {# mehr}}",
      },
    ],
  },
  looksAt: ["parts"],
  pair(context, { catalog, entry, message }, source) {
    const wanted = source.message.facts.plurals;
    const own = message.facts.plurals;
    if (wanted.length === 0 || own.length === 0) return;
    const idOf = ({ name, pluralKind }: PluralNode) => `${pluralKind} ${name}`;
    for (const plural of own) {
      const same = wanted.filter((one) => idOf(one) === idOf(plural));
      // A name that the source lacks is an unknown argument; a plural that is only here is the language's own.
      const meant =
        same[0] ??
        wanted.find((one) => one.name === plural.name) ??
        (wanted.length === 1 && own.length === 1 ? wanted[0] : undefined);
      if (!meant || !source.message.facts.arguments.has(plural.name)) continue;
      if (same.some(({ offset }) => offset === plural.offset)) continue;
      const span = plural.nameSpan;
      const what =
        meant.name !== plural.name
          ? {
              message: `the plural counts {${plural.name}}; the source counts {${meant.name}}`,
              remedy: `write {${meant.name}, …}`,
            }
          : meant.pluralKind !== plural.pluralKind
            ? {
                message: `the source has ${meant.pluralKind === "ordinal" ? "an ordinal" : "a plural"} here`,
                remedy: `write {${meant.name}, ${meant.pluralKind === "ordinal" ? "selectordinal" : "plural"}, …}`,
              }
            : {
                message: `plural offset is ${plural.offset}; the source has ${meant.offset}`,
                remedy: meant.offset === 0 ? "remove the offset" : `write offset:${meant.offset}`,
              };
      context.report(catalog, { at: "message", entry, ...(span && { span }) }, what);
    }
  },
});
