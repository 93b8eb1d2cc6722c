import {
  countedForms,
  hasPluralRules,
  pluralRules,
  wholeNumberCategories,
  type CountedForm,
  type PluralCategory,
} from "../../locale/plural-rules.js";
import type { MessageSyntax, PluralForms, SyntaxSetting } from "../../message/names.js";
import { syntaxes, syntaxOf } from "../../message/syntaxes/index.js";
import type { Syntax } from "../../message/syntaxes/syntax.js";

/** One text in so many has a placeholder at least, where any have. */
const leastOf = 500;

/** Of the texts of so many keys one would have a placeholder, if the program filled any. */
const manyKeys = 300;

/** A syntax that code shows by how it fills the texts that it looks up. */
export type FillingSyntax = "brace-field" | "brace-index" | "replaced";

/**
 * The syntax whose placeholders the texts hold most; where there are none, `byDefault`, or that of plain text where many have none.
 * What code fills them with tells braces from braces: `filling`. `keys` is how many keys the texts have in all locales;
 * `isOfOthers` is set where the programs are none of Java's, whose numbers in braces are formats only if the texts show it.
 */
export function chooseSyntax(
  texts: readonly string[],
  grounds: string[],
  filling?: FillingSyntax,
  byDefault?: SyntaxSetting,
  keys = texts.length,
  isOfOthers = false,
): SyntaxSetting {
  const counts = (Object.keys(syntaxes) as readonly MessageSyntax[]).map((syntax) => ({
    syntax,
    count: texts.filter((text) => isWrittenIn(syntaxes[syntax], text)).length,
  }));
  const own = ownPlaceholders(texts, Math.max(...counts.map(({ count }) => count)));
  if (own !== undefined) {
    grounds.push(`${own.count} texts have placeholders of a kind of their own, ${own.argument}.`);
    return { argument: own.argument };
  }
  const inBraces = filling === undefined ? 0 : texts.filter((text) => bracesOf[filling].test(text)).length;
  if (
    filling !== undefined &&
    inBraces > 0 &&
    !texts.some((text) => /\{\s?\w{1,60}\s?,\s?(?:plural|select|selectordinal)\s?,/.test(text)) &&
    counts.every(({ syntax, count }) => usesBraces(syntax) || count <= inBraces)
  ) {
    if (filling === "replaced") {
      grounds.push(`Code puts values in place of names in braces, and does no more: ${plainNames}.`);
      return { argument: plainNames };
    }
    grounds.push(`Code fills the texts that it looks up by their braces: "${filling}".`);
    return filling;
  }
  const [usual] = counts;
  const first = counts.reduce((most, one) => (one.count > most.count ? one : most));
  // What names some values and counts others is read by the syntax that has both.
  const both = counts.find(({ syntax }) => first.syntax === "printf" && syntax === "percent-paren");
  const best = both && both.count * 4 >= first.count ? both : first;
  if (best.count === 0 && byDefault === undefined && keys >= manyKeys) {
    grounds.push(
      `The texts of ${keys} keys have no placeholders: "plain", so that texts with values stay in the code. Change "syntax" if the program fills some.`,
    );
    return "plain";
  }
  if (best.count === 0) return byDefault ?? "icu";
  if (best === usual && areNamesAlone(texts)) {
    grounds.push(
      `Of the texts of ${keys} keys many have names in braces, and none a plural or a format: ${plainNames}. Change "syntax" to "icu" if the program reads such messages.`,
    );
    return { argument: plainNames };
  }
  // What one text of hundreds has may be anything.
  if (!usual || best.count * leastOf < texts.length || best === usual) return usual?.syntax ?? "icu";
  if (syntaxes[best.syntax].recognized?.isWeak && usual.count * 2 > best.count) return usual.syntax;
  // Where some values have names, those with numbers are named by them.
  const named = best.syntax === "java" ? texts.filter((text) => namedValue.test(text)).length : 0;
  if (named * namedOf >= best.count && named > 0) {
    const syntax = quotesWithApostrophes(texts, isOfOthers) ? usual.syntax : "brace-field";
    grounds.push(`${best.count} texts have numbers in braces, and ${named} have names: "${syntax}".`);
    return syntax;
  }
  if (best.syntax === "java" && !quotesWithApostrophes(texts, isOfOthers)) {
    grounds.push(
      `${best.count} texts have numbers in braces, and nothing in them is quoted or formatted as Java does it.`,
    );
    return { argument: plainNumbers };
  }
  grounds.push(
    `${best.count === 1 ? "One text has" : `${best.count} texts have`} placeholders as "${best.syntax}" writes them.`,
  );
  return best.syntax;
}

/** A value in braces with a name; one of so many that have a number is no slip. */
const namedValue = /(?<![{$%#])\{[a-zA-Z_]\w{0,40}\}(?!\})/;
const namedOf = 30;

/** What looks like a value in braces to each of what fills them. */
const bracesOf: Readonly<Record<FillingSyntax, RegExp>> = {
  "brace-field": /(?<![{$%#])\{(?:[\p{L}_][\w.]{0,60}|\d{0,2})[}:!]/u,
  "brace-index": /(?<![{$%#])\{\d{1,2}[},:]/,
  replaced: /(?<![{$%#])\{[a-zA-Z_]\w{0,40}\}(?!\})/,
};

/** So many texts with values in braces would have a plural or a format among them, if the program read any. */
const manyNames = 60;

/** Whether many texts name values in braces, and none says how one is written. */
function areNamesAlone(texts: readonly string[]): boolean {
  return (
    texts.filter((text) => bracesOf.replaced.test(text)).length >= manyNames &&
    !texts.some((text) => /\{\s{0,9}\w{1,60}\s{0,9},|'[{}]|''/.test(text))
  );
}

/** Whether a syntax may look as the braces do that programs fill. */
function usesBraces(syntax: MessageSyntax): boolean {
  return /^(?:icu|java|brace-field|brace-index)$/.test(syntax);
}

/** Numbers in braces that programs replace and do nothing else with: `It's {0}`. */
const plainNumbers = "{{0}}";

/** The same with names. */
const plainNames = "{{name}}";

/**
 * Whether texts with numbers in braces are formats of Java, by what only these have: formats behind the number, and apostrophes
 * that are doubled. In most of a catalog's texts that is done right, or they are none.
 */
function quotesWithApostrophes(texts: readonly string[], isOfOthers: boolean): boolean {
  const filled = texts.filter((text) => /\{\d{1,2}\}/.test(text));
  if (texts.some((text) => /\{\d{1,2}\s?,\s?[a-z]/.test(text))) return true;
  const withApostrophes = filled.filter((text) => text.includes("'"));
  const doubled = withApostrophes.filter((text) => text.includes("''")).length;
  if (isOfOthers && doubled === 0) return false;
  return withApostrophes.length < 5 || doubled * 2 >= withApostrophes.length;
}

/** Ways of marking a value that no syntax here has, and that programs fill themselves. */
const ownMarks: readonly (readonly [argument: string, pattern: RegExp])[] = [
  ["__{name}__", /(?<![\w_])__[a-zA-Z][a-zA-Z0-9]*(?:[_.-][a-zA-Z0-9]+)*__(?![\w_])/],
  ["%{name}%", /(?<![\w%])%[a-zA-Z][a-zA-Z_]{2,}%(?![\w%])/],
  ["[[{name}]]", /\[\[[a-zA-Z]\w*\]\]/],
  ["#{name}#", /(?<![\w#])#[a-zA-Z][a-zA-Z_]{2,}#(?![\w#])/],
  ["${{name}}", /\$\{[a-zA-Z]\w*\}/],
  ["${name}", /(?<![\w$\\])\$[a-z][a-zA-Z_]+(?![\w$(])/],
  ["${{0}}", /\$\{\d\}/],
  ["${1}", /(?<![\w$\\])\$1(?![\w.,]\d|\d)/],
  ["%{0}", /(?<![\w%])%0(?![\d$.,a-zA-Z])/],
  ["%{1}", /(?<![\w%])%[1-9](?![\d$.,a-zA-Z])/],
];

/** The placeholders of a kind of its own that a catalog has, where more texts have them than those of any known kind. */
function ownPlaceholders(
  texts: readonly string[],
  most: number,
): { readonly argument: string; readonly count: number } | undefined {
  for (const [argument, pattern] of ownMarks) {
    const count = texts.filter((text) => pattern.test(text)).length;
    if (count >= 5 && count > most && count * leastOf >= texts.length) return { argument, count };
  }
  return undefined;
}

function isWrittenIn({ recognized }: Syntax, text: string): boolean {
  if (!recognized) return false;
  const { pattern, ignoring } = recognized;
  return pattern.test(ignoring ? text.replace(ignoring, "") : text);
}

/** Whether plurals are kept in the older way, `boat` beside `boat_plural`, and in no other. */
export function hasOlderPlurals(keys: ReadonlySet<string>): boolean {
  const isOlder = [...keys].some(
    (key) => key.endsWith("_plural") && keys.has(key.slice(0, -"_plural".length)),
  );
  return isOlder && ![...keys].some((key) => key.endsWith("_other"));
}

/**
 * The names that numbered forms have in each locale (`boat_plural_2`), in the order of its categories: the first is the key
 * itself, and none is for fractions.
 */
export function numberedForms(
  byLocale: ReadonlyMap<string, ReadonlySet<string>>,
): Readonly<Record<string, Readonly<Record<string, string>>>> | undefined {
  const found: Record<string, Readonly<Record<string, string>>> = {};
  for (const [locale, keys] of byLocale) {
    const numbers = new Map<string, number>();
    for (const key of keys) {
      const end = /(?:_plural)?_\d{1,2}$/.exec(key);
      const name = end?.[0].slice(1);
      if (end && name !== undefined && keys.has(key.slice(0, end.index)))
        numbers.set(name, (numbers.get(name) ?? 0) + 1);
    }
    const rules = hasPluralRules(locale, "cardinal") ? pluralRules(locale, "cardinal").categories : [];
    const wanted = rules.filter((one) => one !== "one" && one !== "other");
    // A list has numbers, too: each name is one of several plurals.
    const names = [/^plural_/, /^\d/]
      .map((style) => [...numbers].filter(([name, count]) => style.test(name) && count > 1))
      .map((all) => all.map(([name]) => name).sort((a, b) => numberIn(a) - numberIn(b)))
      .find(({ length }) => length > 0 && length === wanted.length);
    if (!names) continue;
    found[locale] = Object.fromEntries(wanted.map((category, index) => [category, names[index] ?? ""]));
  }
  return Object.keys(found).length > 0 ? found : undefined;
}

function numberIn(name: string): number {
  return Number(/\d{1,2}$/.exec(name)?.[0]);
}

/** So many languages with more forms than these show that the program knows no others. */
const leastRich = 2;

/** So many languages that have no form for one by their rules are not given one by chance. */
const leastBeyond = 3;

/**
 * The forms that a program knows, where it chooses them by the number itself: some language has a form for none that its rules
 * lack, or several have one for one that theirs lack, and of several that have more forms by their rules none has any. Undefined where nothing shows it.
 */
export function knownForms(
  forms: ReadonlyMap<string, ReadonlySet<PluralCategory>>,
): readonly CountedForm[] | undefined {
  const rulesOf = (locale: string): readonly string[] =>
    hasPluralRules(locale, "cardinal") ? wholeNumberCategories(locale) : [];
  const used = new Set([...forms.values()].flatMap((own) => [...own]));
  const beyond = (form: PluralCategory) =>
    [...forms].filter(([locale, own]) => own.has(form) && !rulesOf(locale).includes(form)).length;
  const isOwn = beyond("zero") > 0 || beyond("one") >= leastBeyond;
  const rich = [...forms.keys()].filter((locale) =>
    rulesOf(locale).some((category) => category === "two" || category === "few" || category === "many"),
  );
  const more: readonly PluralCategory[] = ["two", "few", "many"];
  if (!isOwn || rich.length < leastRich || more.some((category) => used.has(category))) return undefined;
  return countedForms.filter((form) => used.has(form));
}

/** Forms with four bars between them. */
const betweenBars = /[^|\s]\s{0,20}\|{4}\s{0,20}[^|\s]/;

/** What stands between the forms of a book whose plurals are side by side; undefined for a bar. */
export function separatorOfForms(texts: readonly string[]): string | undefined {
  return texts.some((text) => betweenBars.test(text)) ? "||||" : undefined;
}

/** A text without what its braces hold: bars in them are those of a choice. */
function withoutBraces(text: string): string {
  let depth = 0;
  let kept = "";
  for (const sign of text) {
    if (sign === "{") depth++;
    if (depth === 0) kept += sign;
    else if (sign === "}") {
      depth--;
      if (depth === 0) kept += "0";
    }
  }
  return kept;
}

/**
 * Whether the parts between the bars of a text are forms of one plural: two of them have a word or a placeholder in common, by its
 * first letters, or one says what numbers it is for. The parts of a heading or of a list of choices have nothing in common, and text of
 * several lines is about commands that have bars.
 */
export function hasFormsByBars(text: string): boolean {
  if (!text.includes("|") || /\S\n+ {0,9}\S/.test(text)) return false;
  if (!/[^|\s]\s{0,20}\|\s{0,20}[^|\s]/.test(withoutBraces(text))) return false;
  const forms = text.replace(/https?:\/\/[^\s|]{1,300}/g, "").split("|");
  if (forms.some((form) => /^\s*(?:\{\d+\}|[[\]](?:\d+|\*|-?Inf),)/.test(form))) return true;
  const seen = new Set<string>();
  return forms.some((form) => {
    const own = wordStarts(form);
    const isShared = own.some((start) => seen.has(start));
    for (const start of own) seen.add(start);
    return isShared;
  });
}

/** The first three letters of each word of a text, without case; of a word in a script without spaces, each pair of signs; and its placeholders. */
function wordStarts(text: string): string[] {
  const words = text.toLowerCase().match(/\p{L}{3,}/gu) ?? [];
  const placeholders = text.match(/%(?:\d\$)?[a-z]|[:%@#]\{?\w+\}?|\{\w*\}/gi) ?? [];
  return [
    ...words.flatMap((word) => (unspaced.test(word) ? pairsOf(word) : word.slice(0, 3))),
    ...placeholders,
  ];
}

const unspaced = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

function pairsOf(word: string): string[] {
  return [...word].slice(1).map((_, at) => word.slice(at, at + 2));
}

/** Where plurals are, by the keys and texts that only one form has. */
export function choosePlurals(
  {
    keys,
    texts,
    counted,
  }: {
    readonly keys: ReadonlySet<string>;
    readonly texts: readonly string[];
    readonly counted: ReadonlySet<string>;
  },
  syntax: SyntaxSetting,
  grounds: string[],
): PluralForms {
  const pairs = (mark: string) =>
    [...keys].filter((key) => key.endsWith(`${mark}other`) && keys.has(`${key.slice(0, -"other".length)}one`))
      .length;
  // A heading may have a key that ends so as well: the forms of a plural show their number.
  const older = [...keys].filter(
    (key) => key.endsWith("_plural") && counted.has(key) && keys.has(key.slice(0, -"_plural".length)),
  ).length;
  const fourBars = texts.filter((text) => betweenBars.test(text)).length;
  const bars =
    fourBars > 0 ? fourBars : syntaxOf(syntax).choices === "nested" ? 0 : texts.filter(hasFormsByBars).length;
  const counts: readonly (readonly [PluralForms, number])[] = [
    ["suffix", pairs("_") + older],
    ["branches", pairs(".")],
    ["bar", bars],
  ];
  const [best, count] = counts.reduce((most, one) => (one[1] > most[1] ? one : most));
  if (count === 0) return "inline";
  grounds.push(`${count === 1 ? "One plural is" : `${count} plurals are`} kept as "${best}" has them.`);
  return best;
}
