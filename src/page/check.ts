import { catalogEdits, loadBook } from "#core/catalog/book.js";
import type { BookConfig, Config } from "#core/config/schema.js";
import type { PageEntry, PageWork } from "#core/exchange/carriers/page.js";
import { composeEntry } from "#core/exchange/compose.js";
import { codesIn, readInlineText, wordsOf, type Inline } from "#core/exchange/inline.js";
import { messageUnits } from "#core/exchange/units.js";
import { memoryFiles } from "#core/files/memory-files.js";
import { readLedger } from "#core/ledger/ledger.js";
import type { Concept } from "#core/lint/glossary.js";
import { lintBook } from "#core/lint/lint.js";
import { rules } from "#core/lint/rules/index.js";
import { messageReader, type MessageReader } from "#core/message/parse.js";

/** What is said of a translation while it is written. */
export interface Remark {
  readonly level: "error" | "warning" | "info";
  readonly message: string;
  readonly remedy: string;
}

/** How far the texts of an entry are. */
export interface Checked {
  readonly isEmpty: boolean;
  readonly isComplete: boolean;
  readonly remarks: readonly Remark[];
}

/** Holds the texts of entries against the rules, as taking them in will. */
export class Checker {
  private readonly readers = new Map<string, MessageReader>();
  private readonly rules = rules.filter(
    ({ entry, pair, id }) =>
      (entry ?? pair) !== undefined && id !== "text/stale" && id !== "text/untranslated",
  );

  constructor(private readonly work: PageWork) {}

  check(entry: PageEntry, texts: readonly (readonly Inline[] | undefined)[]): Checked {
    const filled = texts.map((text) => (text && isFilled(text) ? text : undefined));
    if (filled.every((text) => text === undefined)) return { isEmpty: true, isComplete: false, remarks: [] };
    const whole = filled.filter((text) => text !== undefined);
    if (whole.length < filled.length) return { isEmpty: false, isComplete: false, remarks: [] };
    const text = this.textOf(entry, whole);
    if (typeof text !== "string")
      return { isEmpty: false, isComplete: false, remarks: [{ level: "error", ...text }] };
    const remarks = this.lint(entry, text);
    return { isEmpty: false, isComplete: !remarks.some(({ level }) => level === "error"), remarks };
  }

  /** The catalog's text that translations make, or why there is none. */
  private textOf(
    entry: PageEntry,
    texts: readonly (readonly Inline[])[],
  ): string | { readonly message: string; readonly remedy: string } {
    if (entry.isRaw) return wordsOf(texts[0] ?? []);
    const reader = this.reader(entry.book);
    const { source, target } = this.work;
    const from = reader.read(entry.texts.source, source, entry.entryKey).nodes;
    const there =
      entry.texts.target === undefined
        ? undefined
        : reader.read(entry.texts.target, target, entry.entryKey).nodes;
    const units = messageUnits(from, there, target, reader)?.units ?? [];
    const composed = composeEntry(
      {
        key: entry.key,
        entryKey: entry.entryKey,
        units,
        codes: new Map(Object.entries(entry.codes)),
        source: from,
        target: there,
        locale: target,
        reader,
      },
      texts,
    );
    return composed.ok
      ? composed.text
      : { message: composed.notice.message, remedy: composed.notice.remedy ?? "" };
  }

  private lint(entry: PageEntry, text: string): readonly Remark[] {
    const { source, target, books, levels } = this.work;
    const config = books[entry.book];
    if (!config) return [];
    const project = {
      source,
      targets: [target],
      books: [config],
      rules: {},
      levels: [],
    } as unknown as Config;
    const files = memoryFiles();
    for (const [locale, value] of [
      [source, entry.texts.source],
      [target, text],
    ] as const) {
      const catalog = loadBook(files, project, config).catalog(locale, undefined);
      if (!catalog) return [];
      const edits = catalogEdits();
      edits.edit(catalog, { add: [{ path: [entry.entryKey], text: value }] });
      for (const { file, after } of edits.changes()) files.contents.set(file, after ?? "");
    }
    const findings = lintBook(
      {
        book: loadBook(files, project, config),
        code: undefined,
        reader: this.reader(entry.book),
        ledger: (locale) => readLedger(files, "ledger", config.name, locale),
        glossary: entry.terms.map((term) => this.concept(term)),
      },
      {
        rules: this.rules,
        locales: [target],
        levels: this.work.rules as Config["rules"],
        parts: levels as Config["levels"],
      },
    );
    return findings
      .filter(({ key, locale }) => key === entry.entryKey && locale === target)
      .map(({ severity, message, remedy }) => ({ level: severity, message, remedy: remedy ?? "" }));
  }

  private concept({ source, target, avoided }: PageEntry["terms"][number]): Concept {
    return {
      terms: new Map([
        [this.work.source, [source]],
        ...(target.length > 0 ? [[this.work.target, target] as const] : []),
      ]),
      avoided: new Map(avoided.length > 0 ? [[this.work.target, avoided] as const] : []),
    };
  }

  private reader(book: string): MessageReader {
    const there = this.readers.get(book) ?? messageReader(this.work.books[book] as BookConfig);
    this.readers.set(book, there);
    return there;
  }
}

/** Whether a text has anything in it. */
export function isFilled(text: readonly Inline[]): boolean {
  return wordsOf(text).trim() !== "" || codesIn(text).length > 0;
}

/** A text of the page's JSON. */
export function inlinesOf(text: string | undefined): readonly Inline[] | undefined {
  return text === undefined ? undefined : readInlineText(text);
}
