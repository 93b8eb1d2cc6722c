/** Words that stand in most texts of a language, and hardly in those of others. */
const commonWords: Readonly<Record<string, RegExp>> = {
  en: /\b(?:the|and|of|to|is|your|you|for|with|this|not)\b/giu,
  de: /\b(?:der|die|das|und|nicht|ist|ein|eine|mit|für|wird)\b/giu,
  fr: /\b(?:le|les|des|est|une|vous|votre|pour|pas|avec|du)\b/giu,
  es: /\b(?:el|los|las|una|por|para|con|que|del|su|no)\b/giu,
  it: /\b(?:il|gli|della|per|una|con|non|che|sono|del|di)\b/giu,
  pt: /\b(?:os|uma|para|com|não|que|dos|seu|você|em|do)\b/giu,
  nl: /\b(?:het|een|van|niet|voor|met|wordt|zijn|uw|je|en)\b/giu,
  sv: /\b(?:och|att|det|inte|för|med|är|ett|som|på|av)\b/giu,
  da: /\b(?:og|ikke|det|til|med|er|af|på|en|et|din)\b/giu,
  pl: /\b(?:nie|się|jest|na|do|dla|oraz|został|wybierz|lub|ten)\b/giu,
  cs: /\b(?:není|je|na|pro|byl|nebo|se|jako|váš|tento|při)\b/giu,
  ru: /(?<!\p{L})(?:не|и|в|на|для|вы|или|что|это|ваш)(?!\p{L})/giu,
};

/** The language that texts are in, as far as a few common words tell; undefined where they do not. */
export function languageOfTexts(texts: readonly string[]): string | undefined {
  const sample = texts.join("\n").slice(0, 60_000);
  const counts = Object.entries(commonWords).map(
    ([language, words]) => [language, sample.match(words)?.length ?? 0] as const,
  );
  const [best, second] = [...counts].sort(([, a], [, b]) => b - a);
  return best && best[1] >= 3 && best[1] > (second?.[1] ?? 0) * 1.3 ? best[0] : undefined;
}
