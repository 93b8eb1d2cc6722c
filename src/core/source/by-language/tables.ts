import { doubtTag, isKnownLanguage } from "../../locale/mistaken-tag.js";
import { notices } from "../../message/notices.js";
import { isNameIn, isOwnNameOf } from "../../locale/own-name.js";
import { fixedText, type Literal, type Remark, type SourceFile } from "../model.js";
import { languageOfTag } from "./tests.js";

const say = notices("extract", {
  languages: {
    message: "it is one of several languages side by side in code",
    remedy: "move them into the catalogs by hand, each under one key",
  },
});

/** Why one of several languages' texts is not taken out of the code. */
export const oneOfLanguages = say("languages", {});

/** What is said of such a text. */
export const besideLanguages: Remark = {
  kind: "chosen-by-language",
  message: "one of several languages in code",
};

/** A literal with the locale under which a table of the code has it. */
interface Entry {
  readonly literal: Literal;
  readonly locale: string;
}

/**
 * The literals of a file, with those of tables by locale marked, `{ en: "Boats", de: "Boote" }`: what is another language's is no
 * text of the source, and one lookup in the place of one of them would leave the others.
 */
export function withLanguageTables(source: SourceFile, sourceLanguage: string): SourceFile {
  const marked = new Map<Literal, Literal>();
  for (const table of [...tablesIn(source.literals), ...tablesByName(source.literals)]) {
    const locales = new Set(table.map(({ locale }) => locale));
    if (!areLocales(locales)) continue;
    const languages = new Set([...locales].map(languageOfTag));
    // Short words are names of languages too: `{ no: "Not yet", is: "Is here" }`.
    if (locales.size < 2 || !(languages.has(sourceLanguage) || [...languages].filter(isFrequent).length > 1))
      continue;
    // What languages are called is one text for each of them.
    const named = table.filter(({ literal, locale }) => {
      const text = fixedText(literal.pieces).trim();
      return isOwnNameOf(text, locale) || isNameIn(sourceLanguage, text, locale);
    });
    if (named.length * 2 >= table.length) continue;
    for (const { literal, locale } of table)
      marked.set(literal, {
        ...literal,
        ...(!literal.obstacle && !literal.translations && { obstacle: oneOfLanguages }),
        ...(!literal.remarks && { remarks: [besideLanguages] }),
        ...(languageOfTag(locale) !== sourceLanguage && !literal.translations && { inLocale: locale }),
      });
  }
  if (marked.size === 0) return source;
  return { ...source, literals: source.literals.map((literal) => marked.get(literal) ?? literal) };
}

/** Languages that most products with several have. */
function isFrequent(language: string): boolean {
  return /^(?:en|de|fr|es|it|pt|nl|pl|ru|ja|zh|ko|tr|ar|sv|cs|uk)$/.test(language);
}

/** Literals that follow each other as the values of one table, where all of its keys are locales. */
function tablesIn(literals: readonly Literal[]): readonly (readonly Entry[])[] {
  const found: Entry[][] = [];
  let current: { readonly path: string; readonly entries: Entry[] } | undefined;
  let spoiled = "";
  for (const literal of literals) {
    const place = literal.context.around ?? literal.context;
    if (place.role === "key") continue;
    const { role, properties = [], element = "" } = place;
    const name = properties.at(-1);
    if (role !== "property" || name === undefined) {
      current = undefined;
      continue;
    }
    const path = [element, ...properties.slice(0, -1)].join("\n");
    const isNext = current?.path === path;
    if (!isLocale(name) && !isCountry(name)) {
      // One key that is none makes the rest of the table something else.
      if (isNext && current) found.splice(found.indexOf(current.entries), 1);
      current = undefined;
      spoiled = path;
      continue;
    }
    if (spoiled === path && !isNext) continue;
    spoiled = "";
    const last = current?.entries.at(-1)?.locale;
    // A locale that comes again opens the table of another member of a list.
    const isAgain =
      isNext && name !== last && current?.entries.some(({ locale }) => locale === name) === true;
    if (!current || !isNext || isAgain) {
      current = { path, entries: [] };
      found.push(current.entries);
    }
    current.entries.push({ literal, locale: name });
  }
  return found;
}

/** The name of a constant that ends in a language: `textsEN`, `texts_en`, `textsEn`. */
const namedForLanguage = /^([A-Za-z]\w{2,60}?)(?:_([a-z]{2}|[A-Z]{2})|(?<=[a-z])([A-Z][A-Za-z]))$/;

/** The member of an object that is named for a locale: `calendars.cs_CZ`. */
const memberOfLocale = /^([\w$.]{1,80})\.([a-z]{2,3}(?:[_-][A-Za-z]{2,4})?)$/;

/** So many members with the same names show that two constants are one table in two languages. */
const leastShared = 2;

/** Literals of constants whose names differ in a language alone, and whose members have the same names: one table for each name. */
function tablesByName(literals: readonly Literal[]): readonly (readonly Entry[])[] {
  const families = new Map<string, Map<string, Entry[]>>();
  for (const literal of literals) {
    const { role, element = "", properties = [] } = literal.context;
    if (role !== "property") continue;
    const [, stem, plain, capital] = memberOfLocale.exec(element) ?? namedForLanguage.exec(element) ?? [];
    const locale = plain !== undefined && /[_-]/.test(plain) ? plain : (plain ?? capital)?.toLowerCase();
    if (stem === undefined || locale === undefined || properties.length === 0 || !isLocale(locale)) continue;
    const family = families.get(stem) ?? new Map<string, Entry[]>();
    families.set(stem, family.set(locale, [...(family.get(locale) ?? []), { literal, locale }]));
  }
  return [...families.values()].flatMap((family) => {
    const namesOf = (entries: readonly Entry[]) =>
      new Set(entries.map(({ literal }) => (literal.context.properties ?? []).join(".")));
    const [first, ...others] = [...family.values()].map(namesOf);
    const areSame = others.every(
      (names) => [...names].filter((name) => first?.has(name)).length >= leastShared,
    );
    return others.length > 0 && areSame ? [[...family.values()].flat()] : [];
  });
}

/** So many languages stand beside one that is called by its country, at least: `{ da: …, de: …, cz: … }`. */
const leastBesideCountry = 3;

/** Whether the names of a table's members are locales, with one called by its country here and there. */
export function areLocales(names: Iterable<string>): boolean {
  const all = [...names];
  const locales = all.filter(isLocale).length;
  const others = all.filter((name) => !isLocale(name));
  return locales >= 2 && others.every(isCountry) && others.length * leastBesideCountry <= locales;
}

function isLocale(name: string): boolean {
  return /^[a-z]{2,3}(?:[-_][A-Za-z]{2,4})?$/.test(name) && isKnownLanguage(languageOfTag(name));
}

/** Whether a name is the code of a country and of no language. */
function isCountry(name: string): boolean {
  return /^[a-z]{2}$/.test(name) && doubtTag(name, [])?.kind === "country";
}
