import { catalogEdits, isWhole, type Catalog } from "../../../catalog/book.js";
import { messageReader } from "../../../message/parse.js";
import { applyEdits, type TextEdit } from "../../../text/edits.js";
import type { Entry } from "../../../catalog/model.js";
import {
  hasPluralRules,
  pluralRules,
  type PluralCategory,
  type PluralKind,
} from "../../../locale/plural-rules.js";
import { hasRules, rulesOf } from "../../../message/rules-of-plural.js";
import type { PluralNode } from "../../../message/model.js";
import { formToWrite, languageName, numbersOf } from "../../plural-words.js";
import { defineRule, type EntryView, type RuleContext } from "../../rule.js";
import { showsCount } from "./hidden-count.js";

export const pluralMissingCategory = defineRule({
  id: "plural/missing-category",
  level: "error",
  summary: "Missing plural category that the locale needs.",
  why: "Languages have up to six plural categories (CLDR). If one is missing, users read the variant `other`, which is wrong grammar. An exact number replaces a category that stands only for that number: `=1` for `one` in Polish, but not in Russian. A category of fractions or millions only, such as `many` in Czech and Spanish, is a warning, because few counts reach it.",
  messages: {
    plural: {
      message: 'plural {argument} has no {missing}, which {language} needs; it falls back to "other"',
      remedy: "add {written}",
    },
    rare: {
      message:
        'plural {argument}, and perhaps others, has no {missing}, which {language} has for such numbers; it falls back to "other"',
      remedy: "add {written} where such numbers can be",
    },
    ordinal: {
      message: 'ordinal {argument} has no {missing}, which {language} needs; it falls back to "other"',
      remedy: "add {written}",
    },
  },
  examples: {
    bad: [
      {
        locale: "pl",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {# rower} other {# rowerów}}",
      },
      {
        locale: "fr",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {# vélo} other {# vélos}}",
        note: "1 000 000 takes many: un million de vélos",
      },
    ],
    good: [
      {
        locale: "pl",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, one {# rower} few {# rowery} many {# rowerów} other {# roweru}}",
      },
      {
        locale: "ja",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, other {自転車#台}}",
      },
      {
        locale: "pl",
        source: "{n, plural, one {# bike} other {# bikes}}",
        target: "{n, plural, =1 {rower} few {# rowery} many {# rowerów} other {# roweru}}",
      },
    ],
  },
  file(context, catalog) {
    if (!hasPluralRules(catalog.locale, "cardinal")) return;
    const found = rarelyMissed(catalog, context);
    if (!found) return;
    const { entry, plural, category } = found;
    context.report(
      catalog,
      entry,
      "rare",
      {
        argument: context.argument(plural.name),
        missing: `"${category}" variant (${numbersOf(pluralRules(catalog.locale, "cardinal"), category)})`,
        language: languageName(catalog.locale),
        written: formToWrite(catalog, entry, context.syntax, category),
      },
      { severity: "info" },
    );
  },
  needs: ["unevenPlural"],
  offer({ locale = "", namespace, key = "" }, book) {
    const catalog = book.catalog(locale, namespace);
    const entry = catalog?.byKey.get(key);
    if (!catalog || !isWhole(catalog) || !entry || book.config.plurals !== "inline") return undefined;
    const { plurals } = messageReader(book.config).read(entry.text, locale, key).facts;
    const { text, added } = withAllCategories(entry.text, plurals, locale);
    if (added.length === 0) return undefined;
    const edits = catalogEdits();
    edits.edit(catalog, { set: [{ path: entry.path, text }] });
    return {
      title: `Add the plural variants that are missing: ${added.join(", ")}`,
      changes: edits.changes(),
    };
  },
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    if (message.facts.plurals.length === 0) return;
    // The source's own forms are not translated yet, and said to be so.
    const isCopy =
      locale !== context.book.sourceLocale && context.sourceOf(catalog, entry.key)?.entry.text === entry.text;
    if (isCopy) return;
    for (const plural of message.facts.plurals) {
      if (!hasRules(plural, locale)) continue;
      const missing = missingCategories(plural, locale);
      if (missing.length === 0) continue;
      if (isSwitch(plural) && isSwitchInSource(plural, view, context)) continue;
      // What only millions take is said once a locale.
      if (missing.every((category) => isRarelyReached(locale, plural.pluralKind, category))) continue;
      const { syntax } = context;
      view.report(
        plural.pluralKind === "ordinal" ? "ordinal" : "plural",
        {
          argument: context.argument(plural.name),
          missing: missing
            .map((category) => `"${category}" variant (${numbersOf(rulesOf(plural, locale), category)})`)
            .join(" and "),
          language: languageName(locale),
          written: missing
            .map((category) => formToWrite(catalog, entry, syntax, category))
            .join(context.book.config.plurals === "inline" ? " " : " and "),
        },
        { span: plural.nameSpan },
      );
    }
  },
});

/** Whether a plural only tells some numbers from all others, and shows none: `=0 {No boat yet} other {Your boats}`. */
function isSwitch(plural: PluralNode): boolean {
  return (
    plural.branches.some(({ selector }) => selector.startsWith("=")) &&
    plural.branches.every(
      (branch) =>
        (branch.selector === "other" || branch.selector.startsWith("=")) && !showsCount(branch, plural),
    )
  );
}

/** Whether the source has a plural only as such a switch as well. */
function isSwitchInSource(
  { name }: PluralNode,
  { catalog, entry, locale }: Pick<EntryView, "catalog" | "entry" | "locale">,
  context: Pick<RuleContext, "book" | "sourceOf">,
): boolean {
  if (locale === context.book.sourceLocale) return true;
  const own = context.sourceOf(catalog, entry.key)?.message.facts.plurals.find((one) => one.name === name);
  return own !== undefined && isSwitch(own);
}

/** Gives each plural of a message the categories that it lacks, with the text that it has for `other`. */
function withAllCategories(text: string, plurals: readonly PluralNode[], locale: string) {
  const added = new Set<string>();
  const edits = plurals.flatMap((plural): TextEdit[] => {
    const span = plural.branches.find(({ selector }) => selector === "other")?.span;
    if (!span || !text.startsWith("other", span.start)) return [];
    const written = text.slice(span.start, span.end);
    const missing = missingCategories(plural, locale);
    for (const category of missing) added.add(category);
    const copies = missing.map((category) => `${category}${written.slice("other".length)} `);
    return [{ start: span.start, end: span.start, replacement: copies.join("") }];
  });
  return { text: applyEdits(text, edits), added: [...added] };
}

/** The categories of a locale that a plural has no variant for; the locale must have plural rules. */
function missingCategories(plural: PluralNode, locale: string): readonly PluralCategory[] {
  const { known, pluralKind } = plural;
  // A program that chooses by the number falls back where a language has no such category, and a form for none is extra.
  const needed: readonly string[] | undefined =
    known && pluralRules(locale, pluralKind).categories.filter((category) => category !== "zero");
  return rulesOf(plural, locale).categories.filter(
    (category) =>
      category !== "other" && needed?.includes(category) !== false && !covers(plural, locale, category),
  );
}

interface RarelyMissed {
  readonly entry: Entry;
  readonly plural: PluralNode;
  readonly category: PluralCategory;
}

const missedRarely = new WeakMap<
  Catalog,
  { readonly message: RuleContext["message"]; readonly found: RarelyMissed | undefined }
>();

/** The first plural of a catalog that lacks a category which hardly any number takes, looked for once. */
function rarelyMissed(
  catalog: Catalog,
  context: Pick<RuleContext, "book" | "message">,
): RarelyMissed | undefined {
  const known = missedRarely.get(catalog);
  if (known?.message === context.message) return known.found;
  const found = firstRarelyMissed(catalog, context);
  missedRarely.set(catalog, { message: context.message, found });
  return found;
}

function firstRarelyMissed(
  catalog: Catalog,
  { book, message }: Pick<RuleContext, "book" | "message">,
): RarelyMissed | undefined {
  const { locale } = catalog;
  const rare = pluralRules(locale, "cardinal").categories.filter(
    (category) => category !== "other" && isRarelyReached(locale, "cardinal", category),
  );
  if (rare.length === 0 || locale === book.sourceLocale) return undefined;
  for (const entry of catalog.byKey.values()) {
    if (entry.kind !== "text") continue;
    for (const plural of message(entry.text, locale, entry.key).facts.plurals) {
      if (plural.pluralKind !== "cardinal") continue;
      const missing = missingCategories(plural, locale);
      // Where more is missing the plural has a finding of its own.
      if (!missing.every((one) => rare.includes(one))) continue;
      const [category] = missing;
      if (category) return { entry, plural, category };
    }
  }
  return undefined;
}

/** Whether no whole number below a million takes a category. */
function isRarelyReached(locale: string, kind: PluralKind, category: PluralCategory): boolean {
  return pluralRules(locale, kind)
    .wholeSamples(category)
    .every((number) => number >= 1_000_000);
}

/** Whether a branch takes the numbers of a category: its own, or an exact number that is all the category stands for. */
function covers(plural: PluralNode, locale: string, category: PluralCategory): boolean {
  if (plural.branches.some(({ selector }) => selector === category)) return true;
  const only = rulesOf(plural, locale).onlyWholeNumber(category);
  return (
    only !== undefined &&
    plural.offset === 0 &&
    plural.branches.some(({ selector }) => selector === `=${only}`)
  );
}
