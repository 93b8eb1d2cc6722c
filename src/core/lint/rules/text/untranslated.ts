import { mayStaySame } from "../../../ledger/standing.js";
import { languageName } from "../../plural-words.js";
import { defineRule } from "../../rule.js";

export const textUntranslated = defineRule({
  id: "text/untranslated",
  level: "warning",
  summary: "Translation that is the same as the source.",
  why: "Users read a foreign language in the middle of their own. Not reported: texts without words, words in capitals (`PDF`), single words of up to three letters, variants of the source language, and texts that the ledger records as translated.",
  messages: {
    untranslated: { message: "not translated", remedy: "translate it into {language}" },
  },
  examples: {
    bad: [{ source: "Choose a sailing", target: "Choose a sailing" }],
    good: [
      { source: "Choose a sailing", target: "Abfahrt wählen" },
      { source: "OK", target: "OK" },
      { source: "{count} / {total}", target: "{count} / {total}" },
      { locale: "en-GB", source: "Choose a sailing", target: "Choose a sailing" },
    ],
  },
  needs: ["same"],
  pair(target, source, context) {
    const { catalog, entry, message, locale } = target;
    if (
      entry.text !== source.entry.text ||
      entry.kind !== "text" ||
      entry.text.trim() === "" ||
      mayStaySame(message)
    )
      return;
    if (locale.split("-")[0] === context.book.sourceLocale.split("-")[0]) return;
    const record = context.ledger(locale).record(context.book.fullKey(catalog.namespace, entry.key));
    if (record && record.state !== "initial") return;
    target.report("untranslated", { language: languageName(locale) });
  },
});
