import type { SourceFile } from "../../source/model.js";
import type { KeyIndex } from "./key-index.js";
import { nameOf, type LookupUse } from "./lookup-use.js";

/** A mark of templates as a book has it: the attribute, and how its value holds a key where it has one. */
export type ProposedMark =
  | string
  | { readonly attribute: string; readonly pattern: string }
  | { readonly class: string; readonly attributes?: readonly string[] };

/** A mark as people read it: `data-say`, `class="say"`. */
export function markInWords(mark: ProposedMark): string {
  if (typeof mark === "string") return mark;
  return "class" in mark ? `class="${mark.class}"` : mark.attribute;
}

/** What is known of an attribute that may be a mark. */
interface Seen {
  /** How often it stands on an element that begins with a text of its own. */
  onText: number;
  /** How often it names another attribute of its element: `mark-title` beside `title`. */
  besides: number;
  readonly values: string[];
}

const tag = /<[a-zA-Z][\w.-]{0,60}((?:\s(?:[^<>"']|"[^"<>]{0,500}"|'[^'<>]{0,500}'){0,60})?)>([^<]{0,200})/g;
const attribute = /(?<![^\s"'])([A-Za-z][\w-]{0,60})(?:\s?=\s?(?:"([^"]{0,500})"|'([^']{0,500})'))?/g;

/** Attributes of HTML that say something by being there, or whose names are the beginnings of others. */
const ofHtml =
  /^(?:hidden|disabled|checked|selected|readonly|required|multiple|autofocus|open|defer|async|novalidate|controls|loop|muted|reversed|contenteditable|draggable|spellcheck|data|aria|v|ng|x|on|class|id|style|type|name|value|title|href|src|for|rel|role|lang|dir|alt)$/;

/** The attributes that mark the texts of templates, where no lookup asks for their keys. */
export function findMarks(code: readonly SourceFile[], keys: KeyIndex): readonly ProposedMark[] {
  const seen = new Map<string, Seen>();
  for (const { dialect, text } of code) {
    if (!dialect) continue;
    for (const [, attributes = "", content = ""] of text.matchAll(tag)) {
      const found = [...attributes.matchAll(attribute)];
      const names = new Set(found.map(([, name]) => name));
      for (const [, name = "", double, single] of found) {
        const value = double ?? single ?? "";
        const part = [...name.matchAll(/-/g)].find(({ index }) => names.has(name.slice(index + 1)));
        const base = part ? name.slice(0, part.index) : name;
        if (ofHtml.test(base)) continue;
        const one = seen.get(base) ?? { onText: 0, besides: 0, values: [] };
        if (part) one.besides++;
        else if (/\p{L}{2}/u.test(content) && !/^\s*\{[{%]/.test(content)) one.onText++;
        else continue;
        seen.set(base, one);
        if (value !== "" && one.values.length < 500) one.values.push(value);
      }
    }
  }
  return [...seen].flatMap(([name, { onText, besides, values }]): ProposedMark[] => {
    // A value that is a key as a whole is a lookup's, and one that differs nowhere is a setting's.
    if (values.some((value) => keys.match(value)?.isTelling)) return [];
    const pattern = patternOf(values, keys);
    if (pattern !== undefined && onText + besides >= 2) return [{ attribute: name, pattern }];
    return besides > 0 && onText >= 2 ? [name] : [];
  });
}

/** How values hold a key of the catalogs at their ends, behind a meaning and a note; undefined where few do. */
function patternOf(values: readonly string[], keys: KeyIndex): string | undefined {
  const before = new Map<string, number>();
  let meanings = 0;
  for (const value of values) {
    const [whole, between = ""] = /([^\p{L}\d\s._-]{1,3})[\w.-]{1,200}$/u.exec(value) ?? [];
    if (whole === undefined || keys.match(whole.slice(between.length)) === undefined) continue;
    before.set(between, (before.get(between) ?? 0) + 1);
    if (value.slice(0, -whole.length).includes("|")) meanings++;
  }
  const [best] = [...before].sort(([, a], [, b]) => b - a);
  if (!best || best[1] * 2 < values.length) return undefined;
  return `${meanings > 0 ? "{meaning}|" : ""}{note}${best[0]}{key}`;
}

/** So many elements are not marked for a browser alone. */
const leastMarked = 10;

/**
 * What marks the texts of templates where these are their own keys: HTML's `translate` without a value (HTML Living Standard,
 * 3.2.6.4), which a library of pages then goes by.
 */
export function bareMarks(code: readonly SourceFile[]): readonly string[] {
  let marked = 0;
  for (const { dialect, text } of code) {
    if (!dialect || !text.includes(" translate")) continue;
    for (const [, attributes = "", content = ""] of text.matchAll(tag))
      if (
        /(?<!\S)translate(?![\w=-]|\s?=)/.test(attributes.replace(/"[^"]*"|'[^']*'/g, '""')) &&
        /\p{L}{2}/u.test(content)
      )
        marked++;
  }
  return marked >= leastMarked ? ["translate"] : [];
}

/** The elements of some classes that a script goes over: `$(".say").each(…`, `document.querySelectorAll(".say, .tip")`. */
const overClasses =
  /(?:\$|jQuery|querySelectorAll|getElementsByClassName)\(\s?(?:"([^"\n]{1,200})"|'([^'\n]{1,200})')\s?\)/g;

/** What a script reads of an element: what it shows, or an attribute of it. */
const readOfElement =
  /^[^;\n]{0,60}?(?:\.(text|html)\(\)|\.(textContent|innerText|innerHTML)(?!\w)|\.(?:attr|getAttribute)\(\s?["']([\w-]{1,40})["']\s?\))/;

/** So much behind the elements is looked at for a lookup of what they show, in code units. */
const longestLoop = 600;

/**
 * The classes whose elements a script fills with the lookups of what they show, or of some of their attributes: where texts are
 * their own keys, these mark them as attributes do.
 */
export function classMarks(
  code: readonly SourceFile[],
  lookups: readonly LookupUse[],
): readonly Exclude<ProposedMark, string>[] {
  const names = new Set(lookups.flatMap((lookup) => nameOf(lookup) ?? []));
  if (names.size === 0) return [];
  const asked = new RegExp(
    `(?<![\\w$])(?:${[...names].map((name) => name.replace(/\W/g, "\\$&")).join("|")})\\(`,
    "g",
  );
  const found = new Map<string, Set<string> | undefined>();
  for (const { text } of code) {
    for (const place of text.matchAll(overClasses)) {
      const selector = place[1] ?? place[2] ?? "";
      const classes = place[0].startsWith("getElements")
        ? selector.split(" ")
        : selector.split(",").flatMap((one) => /^[a-z]{0,20}\.([\w-]{1,60})$/.exec(one.trim())?.[1] ?? []);
      const start = place.index + place[0].length;
      const loop = text.slice(start, loopEnd(text, start));
      const read = [...loop.matchAll(asked)].flatMap((call) => {
        const [whole, shown, inner, attribute] =
          readOfElement.exec(loop.slice(call.index + call[0].length)) ?? [];
        return whole === undefined ? [] : [(shown ?? inner) ? undefined : attribute];
      });
      if (read.length === 0) continue;
      const attributes = read.flatMap((one) => one ?? []);
      for (const name of classes)
        found.set(name, attributes.length < read.length ? undefined : new Set(attributes));
    }
  }
  return [...found].map(([name, attributes]) => ({
    class: name,
    ...(attributes && { attributes: [...attributes] }),
  }));
}

/** Where a loop over elements ends that begins here: at the end of its function, or of the line where there is none. */
function loopEnd(text: string, start: number): number {
  const part = text.slice(start, start + longestLoop);
  const end = part.search(/\n\s{0,40}\}\s?\)|\n\s{0,40}\}\n/);
  return start + (end < 0 ? part.length : end);
}
