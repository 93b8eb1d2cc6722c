import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import { languageName } from "../../plural-words.js";
import { languageOf } from "../../text-parts.js";
import { defineRule } from "../../rule.js";

/** Languages in which nouns keep one form behind a number, so that a text that shows the number is right for every one. */
const oneForm: ReadonlySet<string> = new Set(
  "az ba bn ckb cv fa hu hy ka kk ky mn tg tk tr tt ug uz".split(" "),
);

export const pluralFlattened = defineRule({
  id: "plural/flattened",
  level: "error",
  summary: "Missing plural that the source has.",
  why: 'Users read "1 Boote". Languages without plural categories, such as Japanese, do not need one, and neither do those whose nouns keep one form behind a number, such as Turkish. A plural that only the translation has is not reported either, because languages differ in what they count.',
  messages: {
    flattened: {
      message: "missing plural {argument}, which the source has; {language} needs {categories}",
      remedy: "write {written}",
    },
  },
  examples: {
    bad: [{ source: "{n, plural, one {# boat} other {# boats}}", target: "{n} Boote" }],
    good: [
      {
        source: "{n, plural, one {# boat} other {# boats}}",
        target: "{n, plural, one {# Boot} other {# Boote}}",
      },
      { locale: "tr", source: "{n, plural, one {# boat} other {# boats}}", target: "{n} tekne" },
      { locale: "ja", source: "{n, plural, one {# boat} other {# boats}}", target: "ボート{n}隻" },
      { source: "Boats: {n}", target: "{n, plural, one {# Boot} other {# Boote}}" },
    ],
  },
  needs: ["parts"],
  pair(target, source, context) {
    const { message, locale } = target;
    for (const plural of source.message.facts.plurals) {
      if (!hasRules(plural, locale)) continue;
      const { categories } = rulesOf(plural, locale);
      if (categories.length < 2) continue;
      const uses = message.facts.arguments.get(plural.name);
      // An argument that is gone altogether is reported as that.
      if (!uses || uses.some(({ kind }) => kind !== "argument")) continue;
      if (plural.pluralKind !== "ordinal" && oneForm.has(languageOf(locale))) continue;
      const type = plural.pluralKind === "ordinal" ? "selectordinal" : "plural";
      const branches = categories.map((category) => `${category} {…}`).join(" ");
      target.report(
        "flattened",
        {
          argument: context.argument(plural.name),
          language: languageName(locale),
          categories: categories.join(", "),
          written: `{${plural.name}, ${type}, ${branches}}`,
        },
        { span: uses[0]?.span },
      );
    }
  },
});
