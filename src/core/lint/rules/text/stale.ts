import { shellWord } from "../../../text/shell-word.js";
import { keptDigestOf } from "../../../text/digest.js";
import { standingOf } from "../../../ledger/standing.js";
import { defineRule } from "../../rule.js";

export const textStale = defineRule({
  id: "text/stale",
  level: "warning",
  summary: "Translation of a source text that has changed.",
  why: "It may say what is no longer true: an old price, a rule that was dropped. The ledger records which source text a translation was made from; a translation edited since counts as made from the new one.",
  messages: {
    stale: {
      message: "stale translation: the source text changed after {date}",
      remedy:
        'the source now reads "{source}": update the translation, or run `fond review {key} --locale {locale} --same-meaning --write` if it still applies',
    },
    "stale-from": {
      message: 'stale translation, made from "{former}" ({date})',
      remedy:
        'the source now reads "{source}": update the translation, or run `fond review {key} --locale {locale} --same-meaning --write` if it still applies',
    },
  },
  examples: {
    bad: [
      {
        source: "Check-in closes 20 minutes before",
        target: "Check-in schließt 30 Minuten vorher",
        madeFrom: "Check-in closes 30 minutes before",
      },
    ],
    good: [
      {
        source: "Check-in closes 20 minutes before",
        target: "Check-in schließt 20 Minuten vorher",
        madeFrom: "Check-in closes 20 minutes before",
      },
    ],
  },
  applies: ({ book, ledger }) => book.targetLocales.some((locale) => ledger(locale).size > 0),
  pair(target, source, context) {
    const { catalog, entry, locale } = target;
    const key = context.book.fullKey(catalog.namespace, entry.key);
    const ledger = context.ledger(locale);
    // Nearly all are from the source text of today; no record is another matter.
    if (ledger.isFrom(key, keptDigestOf(source.entry.text)) !== false) return;
    const record = ledger.record(key);
    if (!record) return;
    const { stale } = standingOf({
      record,
      source: source.entry.text,
      message: source.message,
      text: entry.text,
    });
    if (!stale) return;
    const former = context.formerSource(catalog, entry.key, record.source);
    const data = {
      date: record.date,
      source: source.entry.text,
      key: shellWord(context.book.codeKey(catalog.namespace, entry.key)),
      locale,
    };
    if (former === undefined) target.report("stale", data);
    else target.report("stale-from", { ...data, former });
  },
});
