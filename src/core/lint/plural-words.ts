import type { Catalog } from "../catalog/book.js";
import type { Entry } from "../catalog/model.js";
import { formKey, hasForms } from "../catalog/plural-keys.js";
import type { Syntax } from "../message/syntaxes/syntax.js";
import { lazily } from "../text/lazy.js";
import type { PluralCategory, PluralRules } from "../locale/plural-rules.js";

/** The first numbers of a category as a reader writes them: “2, 3, 4, 22 …”. Whole numbers if it has any. */
export function numbersOf(rules: PluralRules, category: PluralCategory): string {
  const samples = rules.samples(category);
  const whole = samples.filter((sample) => !sample.includes("."));
  // Of fractions, those that people count in.
  const halves = ["0.5", "1.5", "2.5", "10.5"].filter((number) => rules.select(number) === category);
  const chosen = whole.length > 0 ? whole : halves.length > 0 ? halves : samples;
  const shown = chosen
    .slice(0, 4)
    .map((number) =>
      number.length > 4 && !number.includes(".") ? Number(number).toLocaleString("en") : number,
    );
  return shown.join(", ") + (chosen.length > 4 ? " …" : "");
}

const inEnglish = lazily(() => new Intl.DisplayNames(["en"], { type: "language" }));

/** A locale's language in English: "Polish". */
export function languageName(locale: string): string {
  return inEnglish().of(locale) ?? locale;
}

/** A plural's form as a translator writes it: a branch of the message, or a key of its own where the book keeps forms so. */
export function formToWrite(catalog: Catalog, entry: Entry, syntax: Syntax, category: string): string {
  if (catalog.settings.plurals === "bar") return `a form for ${category}`;
  return hasForms(entry)
    ? `the key "${formKey(entry.key, category, catalog.settings, catalog.separator)}"`
    : syntax.writeBranch(category);
}
