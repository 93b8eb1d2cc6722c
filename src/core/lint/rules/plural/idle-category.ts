import { hasPluralRules, pluralCategoryNames, pluralRules } from "../../../locale/plural-rules.js";
import { nearest } from "../../../text/nearest.js";
import { formToWrite, languageName } from "../../plural-words.js";
import type { Span } from "../../../text/span.js";
import { defineRule } from "../../rule.js";

export const pluralIdleCategory = defineRule({
  id: "plural/idle-category",
  level: "warning",
  summary: "A plural branch that the locale never selects.",
  why: "The text in it is never shown, and often holds what belongs elsewhere: a Japanese `one`, a German `zero` where `=0` was meant.",
  examples: {
    bad: [
      {
        locale: "ja",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {自転車1台} other {自転車#台}}",
      },
      {
        source: "{n, plural, =0 {no bikes} one {# bike} other {# bikes}}",
        target: "{n, plural, zero {keine Räder} one {# Rad} other {# Räder}}",
      },
    ],
    good: [
      {
        locale: "ar",
        source: "{n, plural, one {# day} other {# days}}",
        target: "{n, plural, zero {لا أيام} one {يوم} two {يومان} few {# أيام} many {# يومًا} other {# يوم}}",
      },
    ],
  },
  looksAt: ["unevenPlural"],
  entry(context, { catalog, entry, message, locale }) {
    for (const plural of message.facts.plurals) {
      if (!hasPluralRules(locale, plural.pluralKind)) continue;
      const used: readonly string[] = pluralRules(locale, plural.pluralKind).categories;
      for (const branch of plural.branches) {
        const { selector } = branch;
        if (selector === "*" || selector.startsWith("=") || used.includes(selector)) continue;
        const isCategory = (pluralCategoryNames as readonly string[]).includes(selector);
        const exact = { zero: "=0", one: "=1", two: "=2" }[selector];
        const near = nearest(selector, used);
        context.report(
          catalog,
          { at: "message", entry, ...(branch.selectorSpan && { span: branch.selectorSpan }) },
          {
            message: isCategory
              ? `variant "${selector}" is never used: ${languageName(locale)} does not have this category`
              : `unknown plural category "${selector}"`,
            remedy: isCategory
              ? context.book.config.plurals === "inline"
                ? `remove the variant${exact ? `, or write ${exact} if exactly that number is meant` : ""}`
                : `remove ${formToWrite(catalog, entry, context.book.config.syntax, selector)}`
              : near
                ? `did you mean "${near}"?`
                : `the categories are ${used.join(", ")}; write an exact number as =1`,
            ...(isCategory &&
              context.book.config.syntax === "icu" &&
              context.book.config.plurals === "inline" &&
              branch.span && {
                fix: { text: withoutBranch(entry.text, branch.span) },
              }),
          },
        );
      }
    }
  },
});

/** A text without a branch and the white space in front of it. */
function withoutBranch(text: string, { start, end }: Span): string {
  return (
    text.slice(0, start).trimEnd() + (/^\s*\}/.test(text.slice(end)) ? "" : " ") + text.slice(end).trimStart()
  );
}
