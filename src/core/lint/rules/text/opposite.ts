import type { Catalog } from "../../../catalog/book.js";
import { defineRule } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

/** English words that mean the contrary of each other, as settings and directions have them. */
const pairs: readonly (readonly [string, string])[] = (
  "on off;left right;up down;top bottom;open closed;open close;yes no;enable disable;enabled disabled;show hide;start stop;start end;" +
  "next previous;forward back;add remove;minimum maximum;min max;before after;first last;more less;increase decrease;light dark;" +
  "import export;lock unlock;locked unlocked;public private;active inactive;online offline;visible hidden;" +
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
  file(context, catalog) {
    const { book } = context;
    const source = book.catalog(book.sourceLocale, catalog.namespace);
    if (!source || catalog.locale === book.sourceLocale || book.strays.includes(catalog)) return;
    for (const [key, otherKey] of contrariesIn(source)) {
      const entry = catalog.byKey.get(key);
      const other = catalog.byKey.get(otherKey);
      if (!entry || !other || plain(other.text) !== plain(entry.text) || plain(other.text) === "") continue;
      // Not translated at all is another fault.
      const from = source.byKey.get(key)?.text ?? "";
      const contrary = source.byKey.get(otherKey)?.text ?? "";
      if (plain(entry.text) === plain(from) || plain(entry.text) === plain(contrary)) continue;
      context.report(catalog, entry, "same", {
        text: entry.text,
        other: otherKey,
        words: `${from}, ${contrary}`,
      });
    }
  },
});
