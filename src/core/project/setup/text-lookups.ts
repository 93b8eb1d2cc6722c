import type { Files } from "../../files/files.js";
import { readableText, type SourceFile } from "../../source/model.js";
import { lookupByName } from "../../survey/calls.js";
import { isBeside, keyLike, textLike } from "./declared-texts.js";
import { countHit, newUse, type LookupUse } from "./lookup-use.js";

/** Fewer texts than these may be given to a function of the same name by chance. */
const fewest = 5;

/** Calls that look texts up by the texts themselves: `_("All crossings")`, as their names and what they are given show. */
export function textLookups(code: readonly SourceFile[]): LookupUse[] {
  const uses = new Map<string, LookupUse>();
  // Which get another text behind the first: the forms of a plural, or what a text is about and the text. Neither is a key alone.
  const pairs = new Map<LookupUse, number>();
  for (const source of code)
    for (const [place, literal] of source.literals.entries()) {
      const { role, name = "", index } = literal.context;
      if (role !== "argument" || index !== 0 || !lookupByName.test(name)) continue;
      if (literal.pieces.some(({ kind }) => kind !== "text")) continue;
      const text = readableText(literal.pieces);
      const use =
        uses.get(name) ??
        (name.startsWith("|")
          ? newUse({ filter: name.slice(1) }, `{{ TEXT ${name} }}`)
          : newUse({ call: name }, `${name}(TEXT)`));
      uses.set(name, use);
      const next = source.literals[place + 1];
      if (textLike.test(text)) {
        countHit(use, source, literal);
        if (next && isBeside(literal, next)) pairs.set(use, (pairs.get(use) ?? 0) + 1);
      }
      // A word may be either.
      else if (keyLike.test(text)) use.misses++;
    }
  return [...uses.values()]
    .filter((use) => use.hits >= fewest && use.hits > use.misses * 3 && (pairs.get(use) ?? 0) * 2 <= use.hits)
    .sort((a, b) => b.hits - a.hits);
}

/** Formats of catalogs that are not read, which many programs use. */
const otherFormats = ["po", "resx", "strings"];

/** What there is of translations in formats that are not read, as a sentence. */
export function otherCatalogs(files: Files): string | undefined {
  const [first, ...more] = files.list({
    patterns: [`**/*.{${otherFormats.join(",")}}`],
    ignore: ["**/node_modules/**"],
    respectIgnoreFiles: true,
  });
  if (first === undefined) return undefined;
  const which = more.length === 0 ? first : `${first} and ${more.length} more`;
  return `${which} ${more.length === 0 ? "is" : "are"} in a format that is not read, so that translations stay where they are.`;
}
