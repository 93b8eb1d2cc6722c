const scripts = new Map<string, string>();

/** The script that a locale is written in, by the likely subtags of CLDR (UTS #35, "Likely Subtags"): `Latn`, `Cyrl`. Locales are well-formed tags. */
export function scriptOf(locale: string): string {
  let script = scripts.get(locale);
  if (script === undefined)
    scripts.set(locale, (script = new Intl.Locale(locale).maximize().script ?? "Latn"));
  return script;
}

const rightToLeftScripts = new Set("Arab Hebr Syrc Thaa Nkoo Adlm Rohg Mand Samr Yezi Sogd Hung".split(" "));

/** The direction of a locale's script (Unicode Standard Annex 9, by the likely script of CLDR). */
export function directionOf(locale: string): "ltr" | "rtl" {
  return rightToLeftScripts.has(scriptOf(locale)) ? "rtl" : "ltr";
}
