import type { MessageSyntax, PluralForms } from "../../message/names.js";
import { syntaxes } from "../../message/syntaxes/index.js";
import type { Syntax } from "../../message/syntaxes/syntax.js";

/** One text in so many has a placeholder at least, where any have. */
const leastOf = 500;

/** The syntax whose placeholders the texts hold most; ICU where there are none. */
export function chooseSyntax(texts: readonly string[], grounds: string[]): MessageSyntax {
  const counts = (Object.keys(syntaxes) as readonly MessageSyntax[]).map((syntax) => ({
    syntax,
    count: texts.filter((text) => isWrittenIn(syntaxes[syntax], text)).length,
  }));
  const [usual] = counts;
  const best = counts.reduce((most, one) => (one.count > most.count ? one : most));
  // What one text of hundreds has may be anything.
  if (!usual || best.count * leastOf < texts.length || best === usual) return usual?.syntax ?? "icu";
  if (syntaxes[best.syntax].recognized?.isWeak && usual.count * 2 > best.count) return usual.syntax;
  grounds.push(
    `${best.count === 1 ? "One text has" : `${best.count} texts have`} placeholders as "${best.syntax}" writes them.`,
  );
  return best.syntax;
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
  syntax: MessageSyntax,
  grounds: string[],
): PluralForms {
  const pairs = (mark: string) =>
    [...keys].filter((key) => key.endsWith(`${mark}other`) && keys.has(`${key.slice(0, -"other".length)}one`))
      .length;
  // A heading may have a key that ends so as well: the forms of a plural show their number.
  const older = [...keys].filter(
    (key) => key.endsWith("_plural") && counted.has(key) && keys.has(key.slice(0, -"_plural".length)),
  ).length;
  const bars =
    syntaxes[syntax].choices === "nested"
      ? 0
      : texts.filter((text) => /[^|\s]\s*\|\s*[^|\s]/.test(text)).length;
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
