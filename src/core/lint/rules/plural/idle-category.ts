import { pluralCategoryNames } from "../../../locale/plural-rules.js";
import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import { nearest } from "../../../text/nearest.js";
import { formToWrite, languageName } from "../../plural-words.js";
import type { Span } from "../../../text/span.js";
import { defineRule, type Replacement } from "../../rule.js";

export const pluralIdleCategory = defineRule({
  id: "plural/idle-category",
  level: "warning",
  summary: "Plural variant that the locale never uses.",
  why: "Its text is never shown, and often belongs elsewhere: a Japanese `one`, or a German `zero` where `=0` was meant.",
  messages: {
    idle: {
      message: 'variant "{category}" is never used: {language} does not have this category',
      remedy: "remove the variant",
    },
    "idle-exact": {
      message: 'variant "{category}" is never used: {language} does not have this category',
      remedy: "remove the variant, or write {exact} if exactly that number is meant",
    },
    "idle-form": {
      message: 'variant "{category}" is never used: {language} does not have this category',
      remedy: "remove {form}",
    },
    "idle-known": {
      message: 'variant "{category}" is never used: the program knows {categories}',
      remedy: 'remove {form}, or name it in "forms.known" if the program does choose it',
    },
    misspelled: { message: 'unknown plural category "{category}"', remedy: 'did you mean "{meant}"?' },
    unknown: {
      message: 'unknown plural category "{category}"',
      remedy: "use one of the categories {categories}, or an exact number such as =1",
    },
  },
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
  needs: ["unevenPlural"],
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    const { plurals, forms } = context.book.config;
    for (const plural of message.facts.plurals) {
      if (!hasRules(plural, locale)) continue;
      const used: readonly string[] = rulesOf(plural, locale).categories;
      for (const { selector: category, selectorSpan: span, span: branch } of plural.branches) {
        if (category === "*" || category.startsWith("=") || used.includes(category)) continue;
        if (!(pluralCategoryNames as readonly string[]).includes(category)) {
          const meant = nearest(category, used);
          if (meant) view.report("misspelled", { category, meant }, { span });
          else view.report("unknown", { category, categories: used.join(", ") }, { span });
          continue;
        }
        const data = { category, language: languageName(locale) };
        if (plural.known) {
          const form = formToWrite(catalog, entry, context.syntax, category);
          view.report("idle-known", { category, categories: used.join(", "), form }, { span });
          continue;
        }
        // Programs that keep forms apart show `zero` for none in every language.
        if (plurals !== "inline" && category === "zero") continue;
        // Where the key by itself is the first form, it is the only one of languages that have one.
        if (forms?.second !== undefined && category === "one") continue;
        if (plurals !== "inline") {
          view.report(
            "idle-form",
            { ...data, form: formToWrite(catalog, entry, context.syntax, category) },
            // A program that keeps forms apart may ask for these two by the number itself.
            { span, severity: /^(?:zero|one)$/.test(category) ? "info" : undefined },
          );
          continue;
        }
        const fix =
          context.syntax.choices === "nested" && branch ? withoutBranch(entry.text, branch) : undefined;
        const exact = { zero: "=0", one: "=1", two: "=2" }[category];
        if (exact) view.report("idle-exact", { ...data, exact }, { span, fix });
        else view.report("idle", data, { span, fix });
      }
    }
  },
});

/** What takes the place of a branch and the space around it: one space, or nothing before the plural's end. */
function withoutBranch(text: string, { start, end }: Span): Replacement {
  const from = text.slice(0, start).trimEnd().length;
  const to = text.length - text.slice(end).trimStart().length;
  return { span: { start: from, end: to }, text: text[to] === "}" ? "" : " " };
}
