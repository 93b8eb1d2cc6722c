import { hintedEntry, linesAbove, ownHintsOf } from "../../../catalog/book.js";
import { filledHint, hintTest } from "../../../catalog/hints.js";
import { digestOf } from "../../../text/digest.js";
import { defineRule } from "../../rule.js";
import { keysAreTexts } from "../../text-keys.js";

const markers: readonly (readonly [RegExp, string])[] = [
  [
    /(?<![\p{L}\p{N}])(?:TODO(?![- ]?(?:[Ll]ist|[Ii]tem|[Aa]pp))|FIXME|TBD|XXX|TRANSLATE ?ME|UNTRANSLATED|NEEDS[ _-]TRANSLATION)(?![\p{L}\p{N}])/u,
    "a mark for a translator",
  ],
  [
    /^\s*\[!!?[^]*!?!\]\s*$|^\s*\[[a-z]{2}(?:-[A-Z]{2})?\]\s|^⟦[^]*⟧$|^\[{2}[^[\]]*\]{2}$/u,
    "a pseudo-locale's brackets",
  ],
  [/\blorem ipsum\b/i, "filler text"],
  [/^(?:\?\?\?|###).{0,60}(?:\?\?\?|###)$/, "what a program shows for a missing text"],
];

export const textMarker = defineRule({
  id: "text/marker",
  level: "warning",
  summary:
    "Placeholder text: a note for translators, the key itself, or pseudo-localized text. And a comment for translators that is no longer true.",
  why: "Users read `TODO` or `page.title`. If the source has it too, it is reported only there. Comments are checked in books that say in `hints` what theirs are: one that asks for a translation that has been made hides those that have not, and one that shows an older source text misleads (info).",
  messages: {
    marker: { message: "placeholder text: users would read {what}", remedy: "write the text" },
    "marker-translation": {
      message: "placeholder text: users would read {what}",
      remedy: 'translate "{source}"',
    },
    done: {
      message: "the comment asks for a translation, but there is one",
      remedy: "remove the comment; `fond reconcile --write` does",
    },
    outdated: {
      message: "the comment does not show the source text of today",
      remedy: "bring it up to date: {wanted}; `fond reconcile --write` does",
    },
  },
  looks: "around",
  examples: {
    bad: [
      { source: "Deck plan", target: "TODO: Deck plan" },
      { source: { "page.title": "Deck plan" }, target: { "page.title": "page.title" } },
      { source: "Deck plan", target: "[!! Ðéçķ þļåñ !!]" },
    ],
    good: [
      { source: "Deck plan", target: "Deckplan" },
      { locale: "es", source: "All boats", target: "Todo el barco" },
    ],
  },
  needs: ["marker"],
  file(context, catalog) {
    const { book } = context;
    const own = ownHintsOf(book.config);
    const source = book.catalog(book.sourceLocale, catalog.namespace);
    if (!own || !source || catalog.locale === book.sourceLocale || !catalog.format.comments) return;
    const asks = hintTest(own.open);
    const shows = hintTest(own.source);
    for (const entry of catalog.byKey.values()) {
      const from = source.byKey.get(entry.key);
      const lines = from ? linesAbove(catalog, entry) : [];
      if (!from || lines.length === 0) continue;
      const record = context.ledger(catalog.locale).records.get(book.fullKey(catalog.namespace, entry.key));
      const isStale = record !== undefined && record.source !== digestOf(from.text);
      const more = { key: entry.key };
      for (const { text, start: line, end } of lines) {
        const start = line + catalog.content.slice(line, end).search(/\S/);
        if (asks(text) && entry.kind === "text" && entry.text !== "" && entry.text !== from.text && !isStale)
          context.reportRange(catalog, { start, end }, "done", {}, more);
        const wanted = own.source === undefined ? "" : filledHint(own.source, hintedEntry(source, from));
        if (shows(text) && text !== wanted)
          context.reportRange(catalog, { start, end }, "outdated", { wanted }, { ...more, severity: "info" });
      }
    }
  },
  entry(view, context) {
    const { catalog, entry, message, locale } = view;
    const { text } = message.facts;
    const source = locale === context.book.sourceLocale ? undefined : context.sourceOf(catalog, entry.key);
    const isKey =
      entry.text === entry.key &&
      !keysAreTexts(context.book) &&
      /^[\p{L}\p{N}$-]+(?:[._][\p{L}\p{N}$-]+)+$/u.test(entry.key);
    // Everything, in these languages.
    if (
      /^(?:pt|es|it|gl|ca|an|ast)(?:-|$)/.test(locale) &&
      /TODO(?!\s*[:\])>-])/.test(text) &&
      !/^\s*TODO\s+[¿¡"“«(]?\p{Lu}/u.test(text)
    )
      return;
    const found = isKey ? "the key itself" : markers.find(([pattern]) => pattern.test(text))?.[1];
    if (
      found === undefined ||
      (source &&
        (isKey
          ? source.entry.text === entry.text
          : markers.some(([pattern]) => pattern.test(source.message.facts.text))))
    )
      return;
    if (source) view.report("marker-translation", { what: found, source: source.entry.text });
    else view.report("marker", { what: found });
  },
});
