import type { CodeUse } from "../source/book-code.js";

const mentioned = new WeakMap<CodeUse, ReadonlySet<string>>();

/** The strings of a file that may be keys: as they are, and without the name of a program or catalog in front: `harbor/tides:low.title`. */
export function mentionsOf(source: CodeUse): ReadonlySet<string> {
  let all = mentioned.get(source);
  if (!all) {
    const behind = [...source.mentions].flatMap(behindName);
    all = behind.length > 0 ? new Set([...source.mentions, ...behind]) : source.mentions;
    mentioned.set(source, all);
  }
  return all;
}

/** Of so many letters at least is the beginning of a key behind a name. */
const leastStart = 3;

const prefixed = new WeakMap<CodeUse, ReadonlyMap<string, ReadonlySet<string>>>();

/** Names in the strings of a file, by what stands before them: `say_quay_open` among the classes of an element, which a script looks up. */
export function groupedByPrefix(source: CodeUse): ReadonlyMap<string, ReadonlySet<string>> {
  let groups = prefixed.get(source);
  if (!groups) {
    const found = new Map<string, Set<string>>();
    for (const mention of source.mentions)
      for (const [, prefix = "", name = ""] of mention.slice(0, longestList).matchAll(prefixedName)) {
        const names = found.get(prefix);
        if (names) names.add(name);
        else found.set(prefix, new Set([name]));
      }
    prefixed.set(source, (groups = found));
  }
  return groups;
}

const prefixedName = /(?<![\w-])([a-z][a-z\d]{1,11}[_-])([A-Za-z]\w{2,80}(?:[.-]\w{1,80}){0,4})(?![\w-])/g;

/** Longer strings than this are no lists of names, in code units. */
const longestList = 300;

/** What a file puts together with values, the same way. */
export function composedIn({ composed }: CodeUse): readonly (readonly (string | null)[])[] {
  return composed.flatMap((parts) => {
    const [start, ...others] = parts;
    // `width:a` with a value behind says nothing of keys.
    const behind = behindName(start ?? "").filter((text) => text.length >= leastStart);
    return [parts, ...behind.map((text) => [text, ...others])];
  });
}

/** What stands behind the first colon, where a name without spaces stands before it. */
function behindName(text: string): readonly string[] {
  const at = text.indexOf(":");
  return at > 0 && at < text.length - 1 && !/\s/.test(text.slice(0, at)) ? [text.slice(at + 1)] : [];
}
