import type { Book } from "../../../catalog/book.js";
import { defineRule } from "../../rule.js";

/** What stands in a text for a sign that a file's format writes so, and was written so twice. */
const escapes: readonly RegExp[] = [
  /\\[nrt](?![a-z])|\\["']|\\u[0-9a-fA-F]{4}/,
  /&amp;(?:[a-z]{2,8}|#\d{1,6});/,
];

/** The same in a source, where a letter may follow: `fully\\nwhile`. */
const escapesInSource: readonly RegExp[] = [/\\[nrt"']|\\u[0-9a-fA-F]{4}/g, /&amp;(?:[a-z]{2,8}|#\d{1,6});/g];

const known = new WeakMap<Book, ReadonlySet<string>>();

/** The escapes that stand in texts of a book's source. */
function writtenInSource(book: Book): ReadonlySet<string> {
  let found = known.get(book);
  if (!found) {
    const texts = book
      .catalogsOf(book.sourceLocale)
      .flatMap(({ byKey }) => [...byKey.values()].map(({ text }) => text));
    found = new Set(
      texts.flatMap((text) =>
        (text.includes("\\") || text.includes("&amp;") ? escapesInSource : []).flatMap(
          (one) => text.match(one) ?? [],
        ),
      ),
    );
    known.set(book, found);
  }
  return found;
}

export const textEscape = defineRule({
  id: "text/escape",
  level: "warning",
  summary: "Escape that users see as it is written.",
  why: "A tool or a translator escaped the text twice, so users read `\\n` or `&lt;` in it. Reported where the source has nothing of the kind.",
  messages: {
    twice: {
      message: 'users see "{written}" as it is written here',
      remedy: "write the sign itself; the file's format escapes it once",
    },
  },
  examples: {
    bad: [
      { source: "Boats\nLate", target: "Boote\\nVerspätet" },
      { source: "Boats & more", target: "Boote &amp;amp; mehr" },
    ],
    good: [
      { source: "Boats\nLate", target: "Boote\nVerspätet" },
      { source: "Type \\n for a line", target: "Geben Sie \\n für eine Zeile ein" },
    ],
  },
  looks: "around",
  needs: ["extra"],
  pair(target, source, { book }) {
    const { text } = target.entry;
    if (!text.includes("\\") && !text.includes("&amp;")) return;
    const from = source.entry.text;
    for (const pattern of escapes) {
      const found = pattern.exec(text);
      if (!found || pattern.test(from)) continue;
      // A path of Windows has such signs in it.
      if (/[A-Za-z]:\\/.test(text)) continue;
      // A program that reads them has them in its source texts too.
      if (writtenInSource(book).has(found[0])) return;
      target.report(
        "twice",
        { written: found[0] },
        { span: { start: found.index, end: found.index + found[0].length } },
      );
      return;
    }
  },
});
