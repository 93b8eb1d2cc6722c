import { describe, expect, test } from "@jest/globals";
import { parentsOf } from "../../../src/core/locale/fallback.js";
import { doubtTag, meantBy } from "../../../src/core/locale/mistaken-tag.js";
import { pluralCategoryNames, pluralRules, type PluralKind } from "../../../src/core/locale/plural-rules.js";
import { canonicalTag, parseTag } from "../../../src/core/locale/tag.js";
import { cldrSupplemental } from "../../../src/core/locale/cldr.js";

describe("plural rules", () => {
  const categories: [string, PluralKind, string][] = [
    ["en", "cardinal", "one other"],
    ["de", "cardinal", "one other"],
    ["fr", "cardinal", "one many other"],
    ["pl", "cardinal", "one few many other"],
    ["ru", "cardinal", "one few many other"],
    ["ar", "cardinal", "zero one two few many other"],
    ["ja", "cardinal", "other"],
    ["cy", "cardinal", "zero one two few many other"],
    ["pt-BR", "cardinal", "one many other"],
    ["pt-PT", "cardinal", "one many other"],
    ["zh-Hant-TW", "cardinal", "other"],
    ["en", "ordinal", "one two few other"],
    ["fr", "ordinal", "one other"],
    ["de", "ordinal", "other"],
    ["xx", "cardinal", "other"],
  ];
  test.each(categories)("%s %s", (locale, kind, expected) => {
    expect(pluralRules(locale, kind).categories.join(" ")).toBe(expected);
  });

  const selections: [string, number | string, string][] = [
    ["pl", 1, "one"],
    ["pl", 2, "few"],
    ["pl", 12, "many"],
    ["pl", 22, "few"],
    ["pl", "1.5", "other"],
    ["ru", 21, "one"],
    ["ar", 0, "zero"],
    ["ar", 11, "many"],
    ["ar", 100, "other"],
    ["fr", 0, "one"],
    ["fr", "1.5", "one"],
    ["fr", 1000000, "many"],
    ["en", "1.0", "other"],
    ["en", 1, "one"],
  ];
  test.each(selections)("%s: %s is %s", (locale, number, expected) => {
    expect(pluralRules(locale).select(number)).toBe(expected);
  });

  test.each(["cardinal", "ordinal"] as const)(
    "every %s sample of CLDR falls into its own category, in every locale",
    (kind) => {
      const all =
        cldrSupplemental<Record<string, Record<string, object>>>(
          kind === "cardinal" ? "plurals" : "ordinals",
        )[`plurals-type-${kind}`] ?? {};
      const wrong: string[] = [];
      let checked = 0;
      for (const locale of Object.keys(all)) {
        const rules = pluralRules(locale, kind);
        for (const category of pluralCategoryNames) {
          for (const sample of rules.samples(category)) {
            checked++;
            if (rules.select(sample) !== category)
              wrong.push(`${locale} ${sample}: ${rules.select(sample)}, not ${category}`);
          }
        }
      }
      expect(wrong).toEqual([]);
      expect(checked).toBeGreaterThan(2000);
    },
  );

  test("a category that stands for one whole number says which", () => {
    expect(pluralRules("pl").onlyWholeNumber("one")).toBe(1);
    expect(pluralRules("ru").onlyWholeNumber("one")).toBeUndefined();
    expect(pluralRules("ar").onlyWholeNumber("two")).toBe(2);
  });
});

describe("tags", () => {
  test.each([
    ["PT-br", "pt-BR"],
    ["zh-hans-cn", "zh-Hans-CN"],
    ["DE", "de"],
    ["sl-rozaj", "sl-rozaj"],
  ])("%s is conventionally written %s", (written, expected) => {
    expect(canonicalTag(written)).toBe(expected);
  });

  test.each(["", "d", "de_DE", "de-", "-de", "en--US", "toolonglanguage", "de DE"])(
    "%j is no tag",
    (written) => {
      expect(parseTag(written)).toBeUndefined();
    },
  );

  test.each(["und", "und-Latn"])("%s is a tag of no language in particular", (written) => {
    expect(parseTag(written)).toMatchObject({ tag: written, language: "und" });
    expect(doubtTag(written, ["en"])).toBeUndefined();
  });

  test("a locale's ancestors follow CLDR, not only the hyphens", () => {
    expect(parentsOf("fr-CA")).toEqual(["fr"]);
    expect(parentsOf("es-MX")).toEqual(["es-419", "es"]);
    expect(parentsOf("en-AU")).toEqual(["en-001", "en"]);
    expect(parentsOf("zh-Hant")).toEqual([]);
    expect(parentsOf("de")).toEqual([]);
  });

  const doubts: [string, string | undefined, string | undefined][] = [
    ["jp", "country", "ja"],
    ["cz", "country", "cs"],
    ["dk", "country", "da"],
    ["ua", "country", "uk"],
    ["cn", "country", "zh"],
    ["kr", "unlikely", "ko"],
    ["se", "unlikely", "sv"],
    ["dk_DK", "country", "da"],
    ["jp-JP", "country", "ja"],
    ["se_SE", "unlikely", "sv"],
    ["de_DE", undefined, undefined],
    ["dk_GL", "no-tag", undefined],
    ["templates", "no-tag", undefined],
    ["ja", undefined, undefined],
    ["pt_BR", undefined, undefined],
    ["be", undefined, undefined],
    ["cy", undefined, undefined],
    ["ga", undefined, undefined],
    ["my", undefined, undefined],
    ["sv", undefined, undefined],
  ];
  test.each(doubts)("%s: %s, %s is meant", (written, kind, suggestion) => {
    const doubt = doubtTag(written, ["en", "de"]);
    expect(doubt?.kind).toBe(kind);
    expect(meantBy(doubt)).toBe(suggestion);
  });

  test("a country's language that the project has already is not what was meant", () => {
    expect(meantBy(doubtTag("ch", ["en", "fr", "de"]))).toBe("it");
  });
});
