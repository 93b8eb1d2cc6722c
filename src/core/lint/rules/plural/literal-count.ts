import { pluralCategoryNames, type PluralCategory } from "../../../locale/plural-rules.js";
import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import { languageName, numbersOf } from "../../plural-words.js";
import { defineRule } from "../../rule.js";
import { asciiDigits, spanInText, textNodesIn } from "../../text-parts.js";
import { hasOneNumber, showsCount } from "./hidden-count.js";

export const pluralLiteralCount = defineRule({
  id: "plural/literal-count",
  level: "warning",
  summary: "Digit in a plural variant that is used for other numbers too.",
  why: '`one {1 лодка}` says "1" for 21 and 31 as well. A variant for a single number may write it out.',
  messages: {
    literal: {
      message: 'variant "{category}" says {digits}, but {language} uses it for {numbers}',
      remedy: "write # instead of the digit",
    },
  },
  examples: {
    bad: [
      {
        locale: "ru",
        source: "{n, plural, one {1 boat} other {# boats}}",
        target: "{n, plural, one {1 лодка} few {# лодки} many {# лодок} other {# лодки}}",
      },
    ],
    good: [
      {
        source: "{n, plural, one {1 boat} other {# boats}}",
        target: "{n, plural, one {1 Boot} other {# Boote}}",
      },
      {
        locale: "ru",
        source: "{n, plural, =1 {1 boat} other {# boats}}",
        target: "{n, plural, =1 {1 лодка} one {# лодка} few {# лодки} many {# лодок} other {# лодки}}",
      },
    ],
  },
  needs: ["unevenPlural"],
  entry(entry) {
    const { message, locale } = entry;
    for (const plural of message.facts.plurals) {
      if (!hasRules(plural, locale)) continue;
      for (const branch of plural.branches) {
        const category = branch.selector as PluralCategory;
        if (!pluralCategoryNames.includes(category) || category === "other") continue;
        const rules = rulesOf(plural, locale);
        if (!rules.categories.includes(category) || hasOneNumber(plural, rules, category)) continue;
        if (showsCount(branch, plural)) continue;
        for (const node of textNodesIn(branch.nodes)) {
          const found = /(?<![\p{L}\p{N}.,:-])\p{Nd}{1,3}(?![\p{L}\p{N}:.-])/u.exec(node.value);
          if (!found || rules.select(asciiDigits(found[0])) !== category) continue;
          const span = spanInText(node, found.index, found[0].length);
          const numbers = numbersOf(rulesOf(plural, locale), category);
          const language = languageName(locale);
          entry.report("literal", { category, digits: found[0], language, numbers }, { span });
        }
      }
    }
  },
});
