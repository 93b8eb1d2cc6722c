/** A language tag (BCP 47, RFC 5646) taken apart, in its canonical letter case. */
export interface LocaleTag {
  readonly tag: string;
  readonly language: string;
  readonly script: string | undefined;
  readonly region: string | undefined;
}

/**
 * Reads a well-formed tag with hyphens; undefined for anything else. Whether its subtags are
 * registered is another question: see `isKnownLanguage`.
 */
export function parseTag(text: string): LocaleTag | undefined {
  if (!/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/.test(text)) return undefined;
  try {
    const locale = new Intl.Locale(text);
    return {
      tag: canonicalTag(text),
      // An undetermined language, which the standard calls "und", has none here, whatever its type says.
      language: (locale.language as string | undefined) ?? "und",
      script: locale.script,
      region: locale.region,
    };
  } catch {
    return undefined;
  }
}

/** A well-formed tag in conventional letter case (RFC 5646, section 2.1.1), its subtags unchanged. */
export function canonicalTag(tag: string): string {
  const parts = tag.split("-");
  let afterSingleton = false;
  return parts
    .map((part, index) => {
      const lower = part.toLowerCase();
      if (part.length === 1) afterSingleton = true;
      if (index === 0 || afterSingleton) return lower;
      if (part.length === 2) return part.toUpperCase();
      if (part.length === 4 && /^[A-Za-z]/.test(part)) return lower.charAt(0).toUpperCase() + lower.slice(1);
      return lower;
    })
    .join("-");
}
