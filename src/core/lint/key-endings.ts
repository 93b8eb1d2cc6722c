import type { BookCode } from "../source/book-code.js";

/** What a program may put behind keys: a string of its own that begins with what parts keys, such as `.label`. */
const ending = /^[._:-][A-Za-z]\w{2,40}$/;

const known = new WeakMap<BookCode, readonly string[]>();

/** The endings that a book's code has as strings by themselves, which a function of its own may put behind the keys it is given. */
function endingsIn(code: BookCode): readonly string[] {
  let found = known.get(code);
  if (!found) {
    const all = new Set<string>();
    for (const { mentions } of code.files)
      for (const mention of mentions) if (ending.test(mention)) all.add(mention);
    known.set(code, (found = [...all]));
  }
  return found;
}

/** What a program may make of a key that it is given: with an ending behind it, or with one in place of another. */
export function withEndings(key: string, code: BookCode): readonly string[] {
  const endings = endingsIn(code);
  const stems = [key, ...endings.flatMap((one) => (key.endsWith(one) ? [key.slice(0, -one.length)] : []))];
  return stems.flatMap((stem) => endings.map((one) => stem + one)).filter((one) => one !== key);
}

/** The keys of which a program may make one, as it is given them. */
export function withoutEnding(key: string, code: BookCode): readonly string[] {
  const endings = endingsIn(code);
  return endings.flatMap((one) => {
    if (!key.endsWith(one)) return [];
    const stem = key.slice(0, -one.length);
    return [stem, ...endings.map((other) => stem + other)].filter((made) => made !== key);
  });
}
