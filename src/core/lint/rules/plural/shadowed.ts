import { pluralCategoryNames, type PluralCategory } from "../../../locale/plural-rules.js";
import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import { languageName } from "../../plural-words.js";
import { defineRule } from "../../rule.js";

export const pluralShadowed = defineRule({
  id: "plural/shadowed",
  level: "warning",
  summary: "Plural variant that is never reached because of an exact number.",
  why: "In English, `one` is only used for 1: next to `=1` it is never shown, and correcting it has no effect.",
  messages: {
    shadowed: {
      message:
        'variant "{category}" is never used: in {language} it applies only to {number}, which ={number} already covers',
      remedy: 'keep either "{category}" or ={number}',
    },
  },
  examples: {
    bad: [
      {
        source: "{n, plural, =1 {A boat} other {# boats}}",
        target: "{n, plural, =1 {Ein Boot} one {# Boot} other {# Boote}}",
      },
    ],
    good: [
      {
        source: "{n, plural, =0 {None} one {# boat} other {# boats}}",
        target: "{n, plural, =0 {Keine} one {# Boot} other {# Boote}}",
      },
      {
        locale: "ru",
        source: "{n, plural, one {# boat} other {# boats}}",
        target: "{n, plural, =1 {Лодка} one {# лодка} few {# лодки} many {# лодок} other {# лодки}}",
        note: "Russian one is 21, 31 … too",
      },
    ],
  },
  needs: ["unevenPlural"],
  entry(entry) {
    const { message, locale } = entry;
    for (const plural of message.facts.plurals) {
      if (plural.offset !== 0 || !hasRules(plural, locale)) continue;
      const rules = rulesOf(plural, locale);
      for (const branch of plural.branches) {
        const category = branch.selector as PluralCategory;
        if (!pluralCategoryNames.includes(category) || category === "other") continue;
        const only = rules.categories.includes(category) ? rules.onlyWholeNumber(category) : undefined;
        // Decimals can take the category too: 1.0 in some languages.
        if (only === undefined || rules.samples(category).some((sample) => sample.includes("."))) continue;
        if (!plural.branches.some(({ selector }) => selector === `=${only}`)) continue;
        const data = { category, language: languageName(locale), number: only };
        entry.report("shadowed", data, { span: branch.span });
      }
    }
  },
});
