import { piecesOf } from "../../pieces.js";
import type { Catalog } from "../../../catalog/book.js";
import type { EntryPath } from "../../../catalog/model.js";
import { defineRule, type RuleContext } from "../../rule.js";
import { languageOf } from "../../text-parts.js";

export const textEmpty = defineRule({
  id: "text/empty",
  level: "error",
  summary: "Empty text, or only spaces.",
  why: "Users see an empty button or a gap. If source and translation are both empty, only the source is reported. Not reported: what stands for “am” and “pm” where a locale counts 24 hours, and empty texts of the source that have the same name in several groups. A piece of a sentence (`late_2` beside `late_1`, `of`) is told for information, and so is an empty text of the source that no translation fills: most are empty on purpose.",
  messages: {
    null: { message: 'value of "{key}" is null, not a text', remedy: "write the text, or remove the key" },
    "null-translation": {
      message: 'value of "{key}" is null, not a text',
      remedy: 'translate "{source}"',
    },
    empty: { message: 'empty text for "{key}"', remedy: "write the text, or remove the key" },
    "empty-translation": { message: 'empty text for "{key}"', remedy: 'translate "{source}"' },
  },
  looks: "around",
  examples: {
    bad: [
      { source: "Search", target: "" },
      { source: "Search", target: "  " },
    ],
    good: [{ source: "Search", target: "Suche" }],
  },
  needs: ["blank", "value"],
  entry(view, context) {
    const { catalog, entry, locale } = view;
    const { key } = entry;
    if (entry.kind !== "null" && (entry.kind !== "text" || entry.text.trim() !== "")) return;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, key);
    if (source?.entry.text.trim() === "" || source?.entry.kind === "null") return;
    // The first of a list is often left out, as that of months, and settings stand beside numbers and flags.
    if (entry.kind === "null" && typeof entry.path.at(-1) === "number") return;
    // A key that the source does not have is said to be extra.
    if (locale !== context.book.sourceLocale && !source) return;
    if (settingGroups(catalog).has(groupOf(entry.path))) return;
    const name = entry.kind === "null" ? "null" : "empty";
    if (source && isHalfOfDay(source.entry.text) && !countsInHalves(locale)) return;
    if (!source && isOneOfEmpties(catalog, entry.path)) return;
    if (source) {
      // A sentence that stands in pieces may need fewer of them.
      const isPiece =
        name === "empty" &&
        (piecesOf(catalog, key).some(({ text }) => text.trim() !== "") ||
          (languageOf(context.book.sourceLocale) === "en" && smallWord.test(source.entry.text.trim())));
      view.report(
        `${name}-translation`,
        { key, source: source.entry.text },
        isPiece ? { severity: "info" } : {},
      );
    } else view.report(name, { key }, isWrittenElsewhere(key, catalog, context) ? {} : { severity: "info" });
  },
});

/** Words of English that many languages say by an ending of the word beside them, or not at all. */
const smallWord = /^(?:a|an|the|at|by|for|from|in|into|is|of|on|or|to|with)$/i;

/** Whether a translation has a text where the source has none, which was lost there. */
function isWrittenElsewhere(
  key: string,
  { namespace }: Catalog,
  { book }: Pick<RuleContext, "book">,
): boolean {
  return book.targetLocales.some((locale) => {
    const text = book.catalog(locale, namespace)?.byKey.get(key)?.text;
    return text !== undefined && text.trim() !== "";
  });
}

/** Whether a text is what stands behind the hours of half a day. */
function isHalfOfDay(text: string): boolean {
  return /^[ap]\.? ?m\.?$/i.test(text.trim());
}

/** Whether a locale's clock has two times twelve hours: else nothing stands behind them. */
function countsInHalves(locale: string): boolean {
  return new Intl.DateTimeFormat(locale, { hour: "numeric" }).resolvedOptions().hour12 === true;
}

/** So many empty texts of one name are so on purpose. */
const leastEmpties = 2;

/** Whether other groups of the source have an empty text under the same name: `now.args`, `random.args`. */
function isOneOfEmpties({ byKey }: Catalog, path: EntryPath): boolean {
  const name = path.at(-1);
  let count = 0;
  for (const { kind, text, path: other } of byKey.values())
    if (kind === "text" && other.length > 1 && other.at(-1) === name && text.trim() === "") count++;
  return count >= leastEmpties;
}

const groupOf = (path: EntryPath) => path.slice(0, -1).join("\u0000");

const known = new WeakMap<Catalog, ReadonlySet<string>>();

/** The groups of a catalog that hold numbers or flags: settings of a locale, of which some are empty. */
function settingGroups(catalog: Catalog): ReadonlySet<string> {
  let groups = known.get(catalog);
  if (!groups) {
    const found = new Set<string>();
    for (const { kind, path } of catalog.byKey.values())
      if (kind === "number" || kind === "boolean") found.add(groupOf(path));
    known.set(catalog, (groups = found));
  }
  return groups;
}
