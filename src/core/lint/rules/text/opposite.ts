import type { Catalog } from "../../../catalog/book.js";
import { defineRule } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

/** English words that mean the contrary of each other, as settings and directions have them. */
const pairs: readonly (readonly [string, string])[] = (
  "on off;left right;up down;top bottom;open closed;open close;yes no;enable disable;enabled disabled;show hide;start stop;start end;" +
  "next previous;forward back;add remove;minimum maximum;min max;before after;first last;more less;increase decrease;light dark;" +
  "import export;upload download;lock unlock;locked unlocked;public private;active inactive;online offline;visible hidden;" +
  "horizontal vertical;ascending descending;width height;row column;sign in sign out;log in log out;join leave;buy sell;accept reject;" +
  "accept decline;expand collapse;undo redo;cut paste;from to;arrival departure;morning evening;male female;sender receiver;debit credit;" +
  "income expense;subscribe unsubscribe;follow unfollow;mute unmute;zoom in zoom out"
)
  .split(";")
  .map((one) => {
    const words = one.split(" ");
    const half = words.length / 2;
    return [words.slice(0, half).join(" "), words.slice(half).join(" ")];
  });

const contraries = new Map<string, string[]>();
for (const [one, other] of pairs) {
  contraries.set(one, [...(contraries.get(one) ?? []), other]);
  contraries.set(other, [...(contraries.get(other) ?? []), one]);
}

const longest = Math.max(...[...contraries.keys()].map(({ length }) => length));

const plain = (text: string) => text.trim().toLowerCase();

const byCatalog = new WeakMap<Catalog, ReadonlyMap<string, string>>();

/** The keys of a source catalog whose texts have a contrary beside them, each with the key of that. */
function contrariesIn(catalog: Catalog): ReadonlyMap<string, string> {
  let found = byCatalog.get(catalog);
  if (found) return found;
  const words = new Map<string, string>();
  const groupOf = (key: string) => key.slice(0, key.lastIndexOf(catalog.separator) + 1);
  const met: { readonly key: string; readonly word: string }[] = [];
  for (const { key, text } of catalog.byKey.values()) {
    if (text.length > longest + 2) continue;
    const word = plain(text);
    if (!contraries.has(word)) continue;
    words.set(`${groupOf(key)}\n${word}`, key);
    met.push({ key, word });
  }
  const made = new Map<string, string>();
  for (const { key, word } of met)
    for (const contrary of contraries.get(word) ?? []) {
      const other = words.get(`${groupOf(key)}\n${contrary}`);
      // Each pair is one finding.
      if (other !== undefined && made.get(other) !== key) made.set(key, other);
    }
  byCatalog.set(catalog, (found = made));
  return found;
}

export const textOpposite = defineRule({
  id: "text/opposite",
  level: "warning",
  summary: "Two contraries with one translation, such as on and off.",
  why: "Users cannot tell the two apart. Only pairs of English words beside each other are looked at whose contrary is plain: on and off, left and right, show and hide.",
  messages: {
    same: {
      message: '"{text}" is also what "{other}" says, and the source says the contrary there: {words}',
      remedy: "translate each of the two for itself",
    },
  },
  examples: {
    bad: [{ source: { "lamp.off": "Off", "lamp.on": "On" }, target: { "lamp.off": "An", "lamp.on": "An" } }],
    good: [
      { source: { "lamp.off": "Off", "lamp.on": "On" }, target: { "lamp.off": "Aus", "lamp.on": "An" } },
    ],
  },
  applies: ({ book }) => languageOf(book.sourceLocale) === "en",
  pair(target, source) {
    const from = source.entry.text;
    if (from.length > longest + 2) return;
    const otherKey = contrariesIn(source.catalog).get(source.entry.key);
    const other = otherKey === undefined ? undefined : target.catalog.byKey.get(otherKey);
    if (!other || plain(other.text) !== plain(target.entry.text) || plain(other.text) === "") return;
    // Not translated at all is another fault.
    const contrary = source.catalog.byKey.get(other.key)?.text ?? "";
    if (plain(target.entry.text) === plain(from) || plain(target.entry.text) === plain(contrary)) return;
    target.report("same", { text: target.entry.text, other: other.key, words: `${from}, ${contrary}` });
  },
});
