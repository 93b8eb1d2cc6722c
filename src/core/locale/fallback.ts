import { cldrSupplemental } from "./cldr.js";
import { scriptOf } from "./script.js";

interface ParentLocales {
  readonly parentLocales: { readonly parentLocale: Readonly<Record<string, string>> };
}

/**
 * The locales that a locale inherits from, nearest first, without the root: CLDR's explicit parents
 * (UTS #35 Part 1, "Parent Locales"), else the tag shortened by its last subtag.
 * `es-MX` gives `es-419`, `es`; a script other than the language's usual one (`zh-Hant`) ends the chain.
 */
export function parentsOf(tag: string): readonly string[] {
  const explicit = cldrSupplemental<ParentLocales>("parentLocales").parentLocales.parentLocale;
  const chain: string[] = [];
  for (let current = tag; ;) {
    const cut = current.lastIndexOf("-");
    const parent: string | undefined = explicit[current] ?? (cut > 0 ? current.slice(0, cut) : undefined);
    if (parent === undefined || parent === "root" || parent === "und" || chain.includes(parent)) return chain;
    chain.push(parent);
    current = parent;
  }
}

/** Whether a locale is the source's own language as another country writes it: what it does not say is said by the source. */
export function isVariantOf(locale: string, source: string): boolean {
  return (
    locale !== source &&
    locale.split("-", 1)[0] === source.split("-", 1)[0] &&
    scriptOf(locale) === scriptOf(source)
  );
}
