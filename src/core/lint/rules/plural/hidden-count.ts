import { visitNodes } from "../../../message/facts.js";
import type { Branch, PluralNode } from "../../../message/model.js";
import { pluralCategoryNames, type PluralCategory, type PluralRules } from "../../../locale/plural-rules.js";
import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import { languageName, numbersOf } from "../../plural-words.js";
import { defineRule } from "../../rule.js";
import { textNodesIn } from "../../text-parts.js";

export const pluralHiddenCount = defineRule({
  id: "plural/hidden-count",
  level: "warning",
  summary: "Plural variant that shows no number although it is used for several.",
  why: "In Russian, `one` is used for 1, 21, 31 and 101: without the number, users read that there is one. Variants for a single number may omit it, and so may a plural that shows the number in no variant.",
  messages: {
    hidden: {
      message: 'variant "{category}" shows no number, but {language} uses it for {numbers}',
      remedy: "write # where the number belongs, or use =1 {written} for exactly 1",
    },
  },
  examples: {
    bad: [
      {
        locale: "ru",
        source: "{n, plural, one {One boat} other {# boats}}",
        target: "{n, plural, one {Одна лодка} few {# лодки} many {# лодок} other {# лодки}}",
      },
    ],
    good: [
      {
        locale: "ru",
        source: "{n, plural, one {One boat} other {# boats}}",
        target: "{n, plural, one {# лодка} few {# лодки} many {# лодок} other {# лодки}}",
      },
      {
        source: "{n, plural, one {One boat} other {# boats}}",
        target: "{n, plural, one {Ein Boot} other {# Boote}}",
        note: "German one is the number 1 alone",
      },
    ],
  },
  needs: ["unevenPlural"],
  entry(entry) {
    const { message, locale } = entry;
    for (const plural of message.facts.plurals) {
      if (!hasRules(plural, locale)) continue;
      const other = plural.branches.find(({ selector }) => selector === "other");
      if (!other || !showsCount(other, plural)) continue;
      for (const branch of plural.branches) {
        const category = branch.selector as PluralCategory;
        if (!pluralCategoryNames.includes(category) || category === "other" || showsCount(branch, plural))
          continue;
        const rules = rulesOf(plural, locale);
        if (!rules.categories.includes(category) || hasOneNumber(plural, rules, category)) continue;
        // A digit in its place is another fault.
        if (branch.nodes.length === 0 || textNodesIn(branch.nodes).some(({ value }) => /\p{Nd}/u.test(value)))
          continue;
        const numbers = numbersOf(rulesOf(plural, locale), category);
        const data = { category, language: languageName(locale), numbers, written: "{…}" };
        entry.report("hidden", data, { span: branch.span });
      }
    }
  },
});

/** Whether a branch shows the number that its plural counts. */
export function showsCount(branch: Branch, plural: PluralNode): boolean {
  let shows = false;
  visitNodes(branch.nodes, (node) => {
    if (node.kind === "count" || ("name" in node && node.kind !== "tag" && node.name === plural.name))
      shows = true;
  });
  return shows;
}

/** Whether a branch is read for one whole number at most: what exact numbers take is not its own. */
export function hasOneNumber(plural: PluralNode, rules: PluralRules, category: PluralCategory): boolean {
  if (rules.onlyWholeNumber(category) !== undefined) return true;
  const numbers = rules.wholeSamples(category);
  if (!plural.branches.some(({ selector }) => selector.startsWith("="))) return numbers.length < 2;
  const left = numbers.filter(
    (number) => !plural.branches.some(({ selector }) => selector === `=${number + plural.offset}`),
  );
  return left.length < 2;
}
