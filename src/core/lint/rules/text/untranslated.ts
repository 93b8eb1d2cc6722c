import { scriptOf } from "../../../locale/script.js";
import { isTimePattern } from "../../time-pattern.js";
import type { Catalog } from "../../../catalog/book.js";
import type { Entry } from "../../../catalog/model.js";
import { mayStaySame } from "../../../ledger/standing.js";
import { languageName } from "../../plural-words.js";
import { defineRule, type RuleContext } from "../../rule.js";

export const textUntranslated = defineRule({
  id: "text/untranslated",
  level: "warning",
  summary: "Translation that is the same as the source.",
  why: "Users read a foreign language in the middle of their own. Not reported: texts without words, words in capitals (`PDF`), single words of up to three letters, variants of the source language, and texts that the ledger records as translated.",
  messages: {
    untranslated: { message: "not translated", remedy: "translate it into {language}" },
  },
  looks: "around",
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
      isTimePattern(entry.text) ||
      mayStaySame(message)
    )
      return;
    if (locale.split("-")[0] === context.book.sourceLocale.split("-")[0]) return;
    const record = context.ledger(locale).record(context.book.fullKey(catalog.namespace, entry.key));
    if (record && record.state !== "initial") return;
    if (isKeptElsewhere(entry, catalog, context) || regionNames(locale).has(entry.text)) return;
    target.report(
      "untranslated",
      { language: languageName(locale) },
      { severity: isSharedWord(entry, catalog, context) ? "info" : undefined },
    );
  },
});

/** How much of a catalog may be as the source has it for what it keeps to be kept on purpose. */
const mostKept = 0.2;

const shares = new WeakMap<Catalog, { readonly source: Catalog | undefined; readonly share: number }>();

/** How much of a catalog's text is the source's. */
function shareKept(catalog: Catalog, { book, sourceOf }: Pick<RuleContext, "book" | "sourceOf">): number {
  const source = book.catalog(book.sourceLocale, catalog.namespace);
  const known = shares.get(catalog);
  if (known?.source === source && known) return known.share;
  let same = 0;
  for (const { key, text } of catalog.byKey.values()) if (sourceOf(catalog, key)?.entry.text === text) same++;
  const share = same / Math.max(catalog.byKey.size, 1);
  shares.set(catalog, { source, share });
  return share;
}

/** Whether a text is a name: a translation into another script keeps it in the source's letters, where it keeps little else. */
function isKeptElsewhere(
  { key, text }: Entry,
  { namespace }: Catalog,
  context: Pick<RuleContext, "book" | "sourceOf">,
): boolean {
  // Any text is the same everywhere while nobody has translated it yet; a name is so for good.
  const words = text.trim().split(/\s+/);
  if (words.length > 3 || !words.every((word) => /^[^\p{Ll}]/u.test(word))) return false;
  const { book } = context;
  const script = scriptOf(book.sourceLocale);
  return book.targetLocales.some((locale) => {
    if (scriptOf(locale) === script) return false;
    const catalog = book.catalog(locale, namespace);
    return catalog?.byKey.get(key)?.text === text && shareKept(catalog, context) < mostKept;
  });
}

/** How many translations keep a word that several languages have, and what part of them. */
const leastSharing = 3;
const leastShare = 0.4;
/** Of so many texts at least so few are kept that a word among them is hardly one that was forgotten. */
const leastTexts = 100;
const hardlyAny = 0.05;

/**
 * Whether a word is the same in both languages: its translation keeps hardly anything else, and is written in the same script;
 * or several translations that keep little else keep it.
 */
function isSharedWord(
  { key, text }: Entry,
  own: Catalog,
  context: Pick<RuleContext, "book" | "sourceOf">,
): boolean {
  if (/\s/.test(text.trim())) return false;
  const { book } = context;
  const { namespace, locale: at } = own;
  if (
    own.byKey.size >= leastTexts &&
    scriptOf(at) === scriptOf(book.sourceLocale) &&
    shareKept(own, context) < hardlyAny
  )
    return true;
  let kept = 0;
  let all = 0;
  for (const locale of book.targetLocales) {
    const catalog = book.catalog(locale, namespace);
    const own = catalog?.byKey.get(key);
    if (!catalog || !own || shareKept(catalog, context) >= mostKept) continue;
    all++;
    if (own.text === text) kept++;
  }
  return kept >= leastSharing && kept >= all * leastShare;
}

const regions = new Map<string, ReadonlySet<string>>();

/** What a locale calls the countries of the world: many have one name in many languages. */
function regionNames(locale: string): ReadonlySet<string> {
  let names = regions.get(locale);
  if (!names) {
    const found = new Set<string>();
    const display = new Intl.DisplayNames([locale], { type: "region", fallback: "none" });
    const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    for (const first of letters)
      for (const second of letters) {
        const name = display.of(first + second);
        if (name !== undefined) found.add(name);
      }
    regions.set(locale, (names = found));
  }
  return names;
}
