import { cldrSupplemental } from "./cldr.js";
import { hasPluralRules } from "./plural-rules.js";
import { parseTag } from "./tag.js";

interface LikelySubtags {
  readonly likelySubtags: Readonly<Record<string, string>>;
}

interface TerritoryInfo {
  readonly territoryInfo: Readonly<
    Record<
      string,
      {
        readonly _population: string;
        readonly languagePopulation?: Readonly<
          Record<string, { readonly _populationPercent: string; readonly _officialStatus?: string }>
        >;
      }
    >
  >;
}

/**
 * What is doubtful about a locale's name, and what was likely meant: no tag; a tag of a language that CLDR does not know, as it
 * does not know most of ISO 639-3; the code of a country; a tag of a language, where a country's code was likelier meant.
 */
export type TagDoubt =
  | { readonly kind: "no-tag" }
  | { readonly kind: "unknown" }
  | { readonly kind: "country"; readonly data: { readonly country: string; readonly meant: string } }
  | {
      readonly kind: "unlikely";
      readonly data: { readonly language: string; readonly country: string; readonly meant: string };
    };

/** The locale that was likely meant, if one can be told. */
export function meantBy(doubt: TagDoubt | undefined): string | undefined {
  return doubt && "data" in doubt ? doubt.data.meant : undefined;
}

/**
 * Whether a locale's name, as a file or the configuration writes it, is doubtful: not a BCP 47 tag, of an
 * unknown language, or a country's code (ISO 3166) where a language's (ISO 639) belongs. `companions` are the
 * project's other locales: a code that is both is doubted only where its country's language is the likelier one.
 */
export function doubtTag(written: string, companions: readonly string[]): TagDoubt | undefined {
  const tag = parseTag(written.replaceAll("_", "-"));
  // A country's code may stand for both: `dk_DK`.
  const code = /^([a-z]{2})(?:[-_]\1)?$/i.exec(written)?.[1]?.toUpperCase();
  const country = code === undefined ? [] : countryLanguages(code);
  const free = country.filter((language) => !companions.some((other) => other.split("-")[0] === language));
  const meant = free[0] ?? country[0];
  const countryName = () => nameOf("region", code ?? "");
  if (!tag || !isKnownLanguage(tag.language)) {
    if (meant !== undefined) return { kind: "country", data: { country: countryName(), meant } };
    return { kind: tag?.language.length === 3 ? "unknown" : "no-tag" };
  }
  if (meant === undefined || country.includes(tag.language) || !isMinor(tag.language)) return undefined;
  // Where the country's languages, or the country, have files of their own, the code was not meant for it.
  const isThere = companions.some((other) => other !== written && parseTag(other)?.region === code);
  if (free.length === 0 || isThere) return undefined;
  const data = { language: nameOf("language", tag.language), country: countryName(), meant };
  return { kind: "unlikely", data };
}

/** Whether CLDR knows the language at all. */
export function isKnownLanguage(language: string): boolean {
  // Those that are translated most have plural rules, which are read anyway.
  if (hasPluralRules(language)) return true;
  return language in cldrSupplemental<LikelySubtags>("likelySubtags").likelySubtags || language === "en";
}

/** The official languages of a country, the most spoken first, as languages without region. */
function countryLanguages(region: string): string[] {
  const population =
    cldrSupplemental<TerritoryInfo>("territoryInfo").territoryInfo[region]?.languagePopulation ?? {};
  return Object.entries(population)
    .filter(([, info]) => info._officialStatus?.startsWith("official") ?? false)
    .sort(([, a], [, b]) => Number(b._populationPercent) - Number(a._populationPercent))
    .map(([language]) => language.split("_")[0] ?? language);
}

/** Fewer speakers than this, or no official standing anywhere: products in it are rare, country codes by mistake are not. */
const fewSpeakers = 300_000;

function isMinor(language: string): boolean {
  let speakers = 0;
  let official = false;
  for (const territory of Object.values(cldrSupplemental<TerritoryInfo>("territoryInfo").territoryInfo)) {
    for (const [name, info] of Object.entries(territory.languagePopulation ?? {})) {
      if (!name.startsWith(language) || name.split("_")[0] !== language) continue;
      speakers += (Number(territory._population) * Number(info._populationPercent)) / 100;
      official ||= info._officialStatus !== undefined;
    }
  }
  return !official || speakers < fewSpeakers;
}

function nameOf(type: "region" | "language", code: string): string {
  return new Intl.DisplayNames(["en"], { type }).of(code) ?? code;
}
