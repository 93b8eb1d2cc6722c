import { mayStaySame } from "../../../ledger/standing.js";
import { defineRule } from "../../rule.js";

export const textUntranslated = defineRule({
  id: "text/untranslated",
  level: "warning",
  summary: "A translation that is the same as the source.",
  why: "Users read a foreign language in the middle of their own. Not reported: texts without words, words in capitals (`PDF`), single words of up to three letters, variants of the source's own language, and texts that the ledger has as translated or better.",
  examples: {
    bad: [{ source: "Choose a sailing", target: "Choose a sailing" }],
    good: [
      { source: "Choose a sailing", target: "Abfahrt wählen" },
      { source: "OK", target: "OK" },
      { source: "{count} / {total}", target: "{count} / {total}" },
      { locale: "en-GB", source: "Choose a sailing", target: "Choose a sailing" },
    ],
  },
  looksAt: ["same"],
  pair(context, { catalog, entry, message, locale }, source) {
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
    context.report(
      catalog,
      { at: "message", entry },
      {
        message: "not translated",
        remedy: `translate it into ${new Intl.DisplayNames(["en"], { type: "language" }).of(locale) ?? locale}`,
      },
    );
  },
});
