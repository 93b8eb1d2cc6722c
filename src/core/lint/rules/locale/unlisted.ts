import { isListOf, localeListsIn, type LocaleList } from "../../../locale/locale-lists.js";
import { defineRule, type CodeText } from "../../rule.js";

export const localeUnlisted = defineRule({
  id: "locale/unlisted",
  level: "warning",
  summary: "List of locales in the code that lacks one of the project's.",
  why: "Routes, types, loaders and settings list the locales again: one that is not there is translated and never shown. A list counts as one of the project's locales if it has the source and half of them at least. A map of them may hold one text in each, and is for information.",
  messages: {
    unlisted: {
      message: "{missing} not in this list of locales",
      remedy: 'add it here, or take it out of "targets"',
    },
  },
  examples: {
    bad: [
      {
        source: "Boats",
        target: "Boote",
        locale: "de",
        targets: ["fr"],
        code: 'export type Locale = "en" | "fr";',
        note: "the project has German, too",
      },
    ],
    good: [
      {
        source: "Boats",
        target: "Boote",
        code: 'export const all = ["en", "de"];\nexport const fromRight = ["ar", "he"];',
      },
    ],
  },
  book(context) {
    const { book, code, others, settings } = context;
    const targets = book.targetLocales;
    for (const source of [...(code?.files ?? []), ...settings]) {
      // Other books of the same file have said it.
      if (others.some((other) => other.isBefore && (other.reads(source.file) || settings.includes(source))))
        continue;
      if (!source.text.includes(book.sourceLocale.slice(0, 2))) continue;
      for (const list of listsOf(source)) {
        if (!isListOf(list, book.sourceLocale, targets)) continue;
        const missing = targets.filter((locale) => !list.members.some((member) => member.locale === locale));
        const [first] = list.members;
        const last = list.members.at(-1);
        if (missing.length === 0 || !first || !last) continue;
        // A map may hold the texts of one thing, for which the source's is enough.
        const severity = list.kind === "map" ? "info" : undefined;
        const span = { start: first.start, end: last.end };
        context.reportCode(
          source,
          span,
          "unlisted",
          { missing: missing.join(", ") },
          severity && { severity },
        );
      }
    }
  },
});

const lists = new WeakMap<CodeText, readonly LocaleList[]>();

/** The lists of locales in a file, looked for once. */
function listsOf(source: CodeText): readonly LocaleList[] {
  const found = lists.get(source) ?? localeListsIn(source.text);
  lists.set(source, found);
  return found;
}
