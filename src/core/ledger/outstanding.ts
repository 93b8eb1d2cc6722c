import { showForms } from "../message/forms.js";
import type { Book } from "../catalog/book.js";
import type { MessageReader } from "../message/parse.js";
import type { ReadMessage } from "../message/read-message.js";
import type { Ledger } from "./ledger.js";
import { progressOf } from "./progress.js";

/** One text that a locale's translators still have to do. */
export interface OutstandingText {
  readonly book: string;
  readonly locale: string;
  readonly namespace?: string;
  readonly key: string;
  readonly what: "missing" | "initial" | "stale";
  readonly source: string;
  /** The source text that a stale translation was made from, where the ledger still has it. */
  readonly former?: string;
  /** The text that is there. */
  readonly text?: string;
  readonly file: string;
  readonly line?: number;
  /** Words of the source text. */
  readonly words: number;
}

/** Lists what is outstanding in the target locales of a book, in the order of the source. What a locale inherits is its parent's to do. */
export function outstandingTexts(
  book: Book,
  reader: MessageReader,
  ledger: (locale: string) => Ledger,
  formerSource: (fullKey: string, digest: string) => string | undefined,
  locales?: readonly string[],
): OutstandingText[] {
  return book.targetLocales
    .filter((locale) => !locales || locales.includes(locale))
    .flatMap((locale) =>
      [...progressOf(book, locale, reader, ledger)].flatMap(
        ({ source, entry, message, found }): OutstandingText[] => {
          const { namespace } = source;
          const base = {
            book: book.config.name,
            locale,
            ...(namespace !== undefined && { namespace }),
            key: entry.key,
            source: showForms(entry.text),
            words: wordsIn(message),
          };
          if (!found) {
            const file = book.catalog(locale, namespace)?.file ?? book.layout.path(locale, namespace);
            return [{ ...base, what: "missing", file }];
          }
          const { catalog, record, standing } = found;
          if (catalog.locale !== locale || (standing.state !== "initial" && !standing.stale)) return [];
          const former =
            standing.stale && record
              ? formerSource(book.fullKey(namespace, entry.key), record.source)
              : undefined;
          return [
            {
              ...base,
              what: standing.stale ? "stale" : "initial",
              ...(former !== undefined && { former: showForms(former) }),
              text: showForms(found.entry.text),
              file: catalog.file,
              line: catalog.lines.position(found.entry.keySpan.start).line,
            },
          ];
        },
      ),
    );
}

/** The words of a message that a translator has to do: those of all branches, without arguments. */
export function wordsIn(message: ReadMessage): number {
  return message.facts.text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu)?.length ?? 0;
}
