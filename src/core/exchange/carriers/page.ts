import type { BookConfig } from "../../config/schema.js";
import { directionOf } from "../../locale/script.js";
import { aboutLines, formOf, type HandoffEntry } from "../handoff.js";
import { inlineText } from "../inline.js";
import { jsonInPage, wholePage } from "../whole-page.js";
import type { Carrier, CarrierMeans } from "./carrier.js";
import type { UnitChoice } from "../units.js";

/** What a translators' page has of its work, as JSON. */
export interface PageWork {
  readonly source: string;
  readonly target: string;
  /** Where a served page saves each text, and hears of changes. */
  readonly live?: { readonly save: string; readonly events: string };
  readonly direction: "ltr" | "rtl";
  readonly sourceDirection: "ltr" | "rtl";
  /** The locales in English, for headings. */
  readonly names: { readonly source: string; readonly target: string };
  /** What tells this work from other pages in the same browser. */
  readonly id: string;
  readonly rules: Readonly<Record<string, unknown>>;
  readonly levels: readonly unknown[];
  readonly books: Readonly<Record<string, BookConfig>>;
  readonly entries: readonly PageEntry[];
}

export interface PageEntry {
  readonly id: string;
  readonly book: string;
  readonly key: string;
  readonly entryKey: string;
  readonly what: HandoffEntry["what"];
  readonly state: HandoffEntry["state"];
  readonly made: { readonly source: string; readonly text: string };
  readonly texts: HandoffEntry["texts"];
  readonly codes: Readonly<Record<string, { readonly open: string; readonly close?: string }>>;
  readonly isRaw?: true;
  readonly about: readonly { readonly kind: string; readonly text: string }[];
  readonly change?: HandoffEntry["about"]["change"];
  readonly terms: HandoffEntry["about"]["terms"];
  readonly units: readonly {
    readonly id: string;
    readonly form: string;
    readonly choices: readonly UnitChoice[];
    readonly source: string;
    readonly target?: string;
  }[];
}

/** One HTML file that a translator opens in any browser: the work, and the program to do it with. Nothing is loaded from anywhere. */
export const page: Carrier = {
  name: "page",
  ending: ".html",
  summary: "a page that works in any browser, without a network",
  needsMeans: true,
  *write(handoff, means) {
    if (!means) return;
    const work = workOf(handoff.entries, handoff.source, handoff.target, means);
    const { script, style, digest, live } = means;
    const title = `${work.names.source} → ${work.names.target}`;
    yield* wholePage(
      { title, id: "work", script, style, digest, isServed: live !== undefined },
      dataOf(work),
    );
  },
};

/** The work as JSON, an entry at a time. */
function* dataOf({ entries, ...rest }: PageWork): Iterable<string> {
  yield `${jsonInPage(rest).slice(0, -1)},"entries":[`;
  for (const [index, entry] of entries.entries()) yield (index > 0 ? "," : "") + jsonInPage(entry);
  yield "]}";
}

function workOf(
  entries: readonly HandoffEntry[],
  source: string,
  target: string,
  { config, digest, live }: CarrierMeans,
): PageWork {
  const names = new Intl.DisplayNames(["en"], { type: "language" });
  const books = [...new Set(entries.map(({ book }) => book))];
  return {
    source,
    target,
    ...(live && { live }),
    direction: directionOf(target),
    sourceDirection: directionOf(source),
    names: { source: names.of(source) ?? source, target: names.of(target) ?? target },
    id: digest(JSON.stringify([source, target, entries.map(({ id, source: made }) => [id, made])])),
    rules: config.rules,
    levels: config.levels,
    books: Object.fromEntries(
      config.books.filter(({ name }) => books.includes(name)).map((book) => [book.name, bookOnPage(book)]),
    ),
    entries: entries.map(entryOnPage),
  };
}

/** What of a book decides how its texts are read and checked; where its files are is nobody's business outside. */
export function bookOnPage(book: BookConfig): BookConfig {
  const elsewhere = [
    "format",
    "root",
    "leaf",
    "table",
    "constant",
    "declared",
    "hints",
    "fallback",
    "relative",
    "dialects",
  ];
  const kept = Object.fromEntries(Object.entries(book).filter(([name]) => !elsewhere.includes(name)));
  return {
    ...(kept as BookConfig),
    files: "texts/{locale}.json",
    spelling: "hyphen",
    code: [],
    ignore: [],
    lookups: [],
    emit: {},
    marked: [],
  };
}

/** An entry as a page has it. */
export function entryOnPage(entry: HandoffEntry): PageEntry {
  const { id, book, key, entryKey, what, state, source, text, texts, codes, isRaw, about, units } = entry;
  return {
    id,
    book,
    key,
    entryKey,
    what,
    state,
    made: { source, text },
    texts,
    codes: Object.fromEntries(codes),
    ...(isRaw && { isRaw }),
    about: aboutLines(entry).filter(({ kind }) => kind !== "changed"),
    ...(about.change && { change: about.change }),
    terms: about.terms,
    units: units.map(({ id: unit, choices, source: from, target }) => ({
      id: unit,
      form: formOf(choices),
      choices,
      source: inlineText(from),
      ...(target && { target: inlineText(target) }),
    })),
  };
}
