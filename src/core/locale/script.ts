const scripts = new Map<string, string>();

/** The script that a locale is written in, by the likely subtags of CLDR (UTS #35, "Likely Subtags"): `Latn`, `Cyrl`. Locales are well-formed tags. */
export function scriptOf(locale: string): string {
  let script = scripts.get(locale);
  if (script === undefined)
    scripts.set(locale, (script = new Intl.Locale(locale).maximize().script ?? "Latn"));
  return script;
}
