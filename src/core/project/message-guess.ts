import type { MessageSyntax, PluralForms } from "../message/names.js";

/** How the syntaxes write what only they write so: a text can speak for several. */
const syntaxSigns: readonly (readonly [MessageSyntax, RegExp])[] = [
  ["icu", /\{\s*[\p{L}_][\w]*\s*(?:\}(?!\})|,\s*(?:plural|select|selectordinal|number|date|time)\b)/u],
  ["mf2", /^\s*\.(?:input\s*\{|local\s+\$|match\s)|\{\s*(?:\$[\p{L}_][\w.-]*[\s}]|#[\p{L}][\w:-]*[\s}/])/u],
  ["double-brace", /\{\{-?\s*[\p{L}_$][\w.$]*\s*(?:,[^{}]*)?\}\}/u],
  ["percent-brace", /%\{[\p{L}_][\w.]*\}/u],
  ["percent-paren", /%\([\p{L}_][\w.]*\)[-+ 0#]*(?:[1-9]\d*)?(?:\.\d+)?[dfs]/u],
  ["java", /\{\d+(?:,\s*(?:number|date|time|choice)\b[^{}]*)?\}/],
  ["printf", /%(?:\d+\$)?[-+0]*(?:[1-9]\d*)?(?:\.\d*)?(?:[sd@f]|l?[dux])(?![\p{L}])/u],
  ["colon", /(?<![\p{L}\p{N}_:]):[a-z_]{2,}\b(?!:)/u],
];

/** The syntax whose placeholders the texts hold most; ICU where there are none. */
export function chooseSyntax(texts: readonly string[], grounds: string[]): MessageSyntax {
  const counts = syntaxSigns.map(([syntax, sign]) => ({
    syntax,
    count: texts.filter((text) => {
      // What one syntax writes inside another's signs is not its own.
      const bare =
        syntax === "icu" || syntax === "java" ? text.replace(/[%$]\{[^{}]*\}|\{\{[^{}]*\}\}/g, "") : text;
      return sign.test(bare);
    }).length,
  }));
  const best = counts.reduce((most, one) => (one.count > most.count ? one : most), {
    syntax: "icu" as MessageSyntax,
    count: 0,
  });
  const [icu] = counts;
  if (
    best.count === 0 ||
    best.syntax === "icu" ||
    (icu && icu.count * 2 > best.count && best.syntax === "colon")
  )
    return "icu";
  grounds.push(
    `${best.count === 1 ? "One text has" : `${best.count} texts have`} placeholders as “${best.syntax}” writes them.`,
  );
  return best.syntax;
}

/** Where plurals are, by the keys and texts that only one form has. */
export function choosePlurals(
  { keys, texts }: { readonly keys: ReadonlySet<string>; readonly texts: readonly string[] },
  syntax: MessageSyntax,
  grounds: string[],
): PluralForms {
  const pairs = (mark: string) =>
    [...keys].filter((key) => key.endsWith(`${mark}other`) && keys.has(`${key.slice(0, -"other".length)}one`))
      .length;
  const older = [...keys].filter(
    (key) => key.endsWith("_plural") && keys.has(key.slice(0, -"_plural".length)),
  ).length;
  const bars = syntax === "icu" ? 0 : texts.filter((text) => /[^|\s]\s*\|\s*[^|\s]/.test(text)).length;
  const counts: readonly (readonly [PluralForms, number])[] = [
    ["suffix", pairs("_") + older],
    ["branches", pairs(".")],
    ["bar", bars],
  ];
  const [best, count] = counts.reduce((most, one) => (one[1] > most[1] ? one : most));
  if (count === 0) return "inline";
  grounds.push(`${count === 1 ? "One plural is" : `${count} plurals are`} kept as “${best}” has them.`);
  return best;
}
