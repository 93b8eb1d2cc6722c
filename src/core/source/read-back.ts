import { literally } from "../text/key-pattern.js";
import type { Literal } from "./model.js";

/** Roles in which a value goes on to wherever the program takes it; what a page shows stays there. */
const goesOn: ReadonlySet<string> = new Set([
  "property",
  "variable",
  "assignment",
  "returned",
  "parameter",
  "other",
]);

/** What keeps what it is given, so that a program can ask it for it: a widget that is made, an entry that a list gets. */
const keeps =
  /^\p{Lu}\w{0,80}(?:<[^<>]{0,80}>)?$|[.>](?:(?:add|insert|append|set)(?:\p{Lu}\w{0,40})?|show)$|\.(?:Add|Insert)\w{0,20}$/u;

/** Whether a program may meet a literal's text again and read it: what a call puts out is met by people alone. */
export function mayBeReadBack({ context: { role, name = "" } }: Literal): boolean {
  return role === "argument" ? keeps.test(name) : goesOn.has(role);
}

const quoted = String.raw`(?:"([^"\\\n]{2,80})"|'([^'\\\n]{2,80})')`;
const equals = String.raw`(?:equals(?:IgnoreCase)?|contentEquals|Equals|eql\?)`;

/** Calls that say whether two texts are the same, in any language. */
export const equalCall = new RegExp(
  `(?:^|[.>:_])(?:${equals}|is_?[eE]qual(?:_?[tT]o)?|str(?:case|ncase|n)?cmp|localeCompare|EqualFold)$`,
);

const things =
  "(?:tab|item|column|row|page|card|section|option|header|menu|action|button|group|panel|node|entry|value)";
const asking = `(?:last)?indexof(?:${things})?|(?:get|find|has|contains|remove|select|set_?selected|show|activate)_?(?:by_?)?${things}(?:_?(?:by_?)?(?:text|name|title|label|index))?|find_?(?:by_?)?(?:text|name|title|label)`;

/** Calls that ask for a thing by its text: a tab, a column, an item of a list. */
export const askingCall = new RegExp(`(?:^|[.>:])(?:${asking})$`, "i");

/** A string that such a call is given, and one by which a page of several is put in or shown. */
const asked = new RegExp(`[.>:](?:${asking})\\(\\s{0,9}${quoted}`, "gi");
const named = new RegExp(String.raw`[.>]add\([\w.()]{1,60},\s?${quoted}\s?\)`, "g");
const shownByName = new RegExp(String.raw`[.>]show\([\w.()]{1,60},\s?${quoted}\s?\)`, "g");

/** A string behind a sign or word that compares, or before it. */
const behind = new RegExp(
  String.raw`(?:[=!]==?|\b(?:case|when|eq|ne|is)|${equals}\s?\()\s{0,9}${quoted}`,
  "g",
);
const before = new RegExp(String.raw`${quoted}\s{0,9}(?:[=!]==?|\.${equals}|\b(?:eq|ne)\b)`, "g");

/** What a browser names its own things by: a key of the keyboard, an element. */
const ofBrowser = /\.(?:key|code|type|tagName|nodeName|localName)\s{0,9}[=!]==?\s{0,9}$/;

/** What the code of a book does elsewhere with what a text becomes. */
export interface UsesElsewhere {
  /** The strings that it compares with. */
  readonly compared: readonly string[];
  /** The members that it looks up by their text where it shows them, by their names: `label` of `say(field.getLabel())`. */
  readonly lookedUp: readonly string[];
}

/** What code does with strings and members; the latter where `calls` look a text up by itself. */
export function usesIn(
  texts: () => Iterable<{ readonly text: string }>,
  calls: readonly string[],
): UsesElsewhere {
  return { compared: comparedIn(texts()), lookedUp: calls.length > 0 ? lookedUpIn(texts(), calls) : [] };
}

/** The members that code gives to lookups, by their names in lower case first. */
function lookedUpIn(texts: Iterable<{ readonly text: string }>, calls: readonly string[]): readonly string[] {
  const names = calls.map((call) => literally(call.split(/[.:>-]/).at(-1) ?? call)).join("|");
  const given = new RegExp(
    `(?<![\\w$])(?:${names})\\(\\s?\\$?\\w{1,60}(?:\\(\\))?(?:(?:->|\\.)\\w{1,60}(?:\\(\\))?){0,3}(?:->|\\.)(?:get([A-Z]\\w{0,60})\\(\\)|(\\w{1,60}))\\s?[,)]`,
    "g",
  );
  const found = new Set<string>();
  for (const { text } of texts)
    for (const [, got, member] of text.matchAll(given)) {
      const name = got ?? member ?? "";
      found.add(name.charAt(0).toLowerCase() + name.slice(1));
    }
  return [...found].sort();
}

/** The strings that code compares with and that may be a text of people's: in words, or with a capital. */
function comparedIn(texts: Iterable<{ readonly text: string }>): readonly string[] {
  const found = new Set<string>();
  const names = new Set<string | undefined>();
  const shown = new Set<string | undefined>();
  const add = (text: string | undefined) => {
    if (text !== undefined && /\p{L}{2}/u.test(text) && /\p{Lu}|\p{L} \p{L}/u.test(text)) found.add(text);
  };
  for (const { text } of texts) {
    for (const match of text.matchAll(behind)) {
      const sign = match[0].length - (match[1] ?? match[2] ?? "").length - 2;
      const ahead = text.slice(Math.max(match.index - 20, 0), match.index + sign);
      if (!ofBrowser.test(ahead)) add(match[1] ?? match[2]);
    }
    for (const match of [...text.matchAll(before), ...text.matchAll(asked)]) add(match[1] ?? match[2]);
    for (const match of text.matchAll(named)) names.add(match[1] ?? match[2]);
    for (const match of text.matchAll(shownByName)) shown.add(match[1] ?? match[2]);
  }
  for (const name of names) if (shown.has(name)) add(name);
  return [...found].sort();
}
