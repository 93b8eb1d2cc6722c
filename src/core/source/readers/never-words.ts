import { literally } from "../../text/key-pattern.js";

/** A string that holds a line's end, blanks or markup, and none of it words. */
const furniture = String.raw`(?:"(?:[^"\\\n<>&\p{L}\p{N}{}$#]|\\[ntr]|<[^<>"\n]{0,200}>|&\w{1,10};){1,200}"|'(?:[^'\\\n<>&\p{L}\p{N}{}]|\\[ntr]|<[^<>'\n]{0,200}>|&\w{1,10};){1,200}'|""|''|PHP_EOL)`;

/** Several of them, joined. */
const joined = String.raw`${furniture}(?:\s{0,9}[.+]\s{0,9}${furniture}){0,3}`;

/** One of them, or one of two by a condition; of Python's, the condition stands between. */
const onlyFurniture = new RegExp(
  String.raw`^\s{0,20}(?:\(?[^?;\n]{1,80}\?\s{0,9})?${joined}(?:(?:\s{0,9}:\s{0,9}|\s{1,9}if\s[^"'\n]{1,60}\selse\s)${joined})?\)?\s{0,9}(?:[;,]|$|//|#)`,
  "u",
);

/**
 * Tells of a file's variables whether they are only ever given line ends, blanks or markup: `$nl = "\n"`, `$li = $isPage ? "<li>" : " - "`.
 * Not those to which nothing in the file gives a value. Each is looked for once.
 */
export function neverWordsIn(text: string): (code: string) => boolean {
  const known = new Map<string, boolean>();
  return (code) => {
    const name = /^\s*(\$?[A-Za-z_]\w{0,40})\s*$/.exec(code)?.[1];
    if (name === undefined) return false;
    const is = known.get(name) ?? isNeverWords(name, text);
    known.set(name, is);
    return is;
  };
}

function isNeverWords(name: string, text: string): boolean {
  const given = new RegExp(
    `(?<![\\w$.>:@])${literally(name)}\\s{0,9}(?::\\s?\\w{1,20}\\s?)?[-+.|*?]{0,2}=(?![=>~])([^\\n]{0,300})`,
    "g",
  );
  const values = [...text.matchAll(given)].map(([, value = ""]) => value);
  return values.length > 0 && values.every((value) => onlyFurniture.test(value));
}
