import type { PluralNode } from "../../../message/model.js";
import { defineRule } from "../../rule.js";

export const pluralSelector = defineRule({
  id: "plural/selector",
  level: "error",
  summary: "Plural that counts another argument than the source, or with another offset.",
  why: 'The variant is chosen by the wrong number, and users read "1 boats". The same goes for an ordinal instead of a plural.',
  messages: {
    argument: {
      message: "the plural counts {argument}; the source counts {wanted}",
      remedy: "write {written}",
    },
    plural: { message: "the source has a plural here", remedy: "write {written}" },
    ordinal: { message: "the source has an ordinal here", remedy: "write {written}" },
    "no-offset": {
      message: "plural offset is {offset}; the source has none",
      remedy: "remove the offset",
    },
    offset: {
      message: "plural offset is {offset}; the source has {wanted}",
      remedy: "write offset:{wanted}",
    },
  },
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
  needs: ["parts"],
  pair(target, source, context) {
    const { message } = target;
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
      const { nameSpan: span, offset } = plural;
      const { name, pluralKind } = meant;
      if (name !== plural.name) {
        const argument = context.argument(plural.name);
        const wanted = context.argument(name);
        target.report("argument", { argument, wanted, written: `{${name}, …}` }, { span });
      } else if (pluralKind !== plural.pluralKind) {
        const type = pluralKind === "ordinal" ? "selectordinal" : "plural";
        const written = `{${name}, ${type}, …}`;
        target.report(pluralKind === "ordinal" ? "ordinal" : "plural", { written }, { span });
      } else if (meant.offset === 0) target.report("no-offset", { offset }, { span });
      else target.report("offset", { offset, wanted: meant.offset }, { span });
    }
  },
});
