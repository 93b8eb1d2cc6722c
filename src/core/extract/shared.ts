import type { Book } from "../catalog/book.js";
import type { FileChange } from "../plan/plan.js";
import { separatorsOf } from "../text/separators.js";
import { catalogAdditions, type KeyInFile } from "./additions.js";
import { keyNamer, knownKeys, type KeyRequest } from "./key-names.js";

/**
 * What the files of one extraction share: the keys, and what goes to the catalogs. Of all that one file's result hangs on, only
 * this may be different when the file's turn comes. Questions and answers are plain data, so that a thread can write them down.
 */
export interface Shared {
  /** The key for a text: one it already has in its group or in this run, else a new one. */
  nameFor(request: KeyRequest): string;
  /** The key that a person gave a text; undefined where it is another text's, or a group. */
  given(fullKey: string, message: string): string | undefined;
  /** The text that source catalogs have under a key. */
  textOf(fullKey: string): string | undefined;
  /** The default text that a lookup of this run gave a key. */
  defaultOf(fullKey: string): string | undefined;
  /** Whether the source catalog that a key belongs to is known and can take it. */
  hasRoomFor(place: KeyInFile): boolean;
  /** Adds the text that code gives a key; false where the key is another's, or a group. */
  collect(place: KeyInFile, text: string, note?: string): boolean;
  /** Adds a source text, with what a comment says of it to translators, where the key has none. */
  addSource(place: KeyInFile, text: string, note?: string): void;
  /** Adds a translation to a target locale's catalog, unless it has one or cannot be read. */
  addTranslation(place: KeyInFile, locale: string, text: string): void;
}

/** What a run shares, and what comes of it. */
export interface SharedState extends Shared {
  /** Whether a key is new in this run: no catalog and no lookup gave it. */
  isNew(fullKey: string): boolean;
  /** How many default texts were collected. */
  readonly collected: number;
  /** How many translations were added. */
  readonly translations: number;
  /** The changed and the new catalogs; `rewritten` are the texts of files of code that they may stand in. */
  changes(rewritten: ReadonlyMap<string, string>): readonly FileChange[];
}

/** Makes what the files of an extraction share, as it is before the first of them; cheap after the first time. */
export function sharedBy(book: Book): () => SharedState {
  const { config } = book;
  const existing = new Map<string, string>();
  for (const catalog of book.catalogsOf(book.sourceLocale))
    for (const [key, entry] of catalog.byKey) existing.set(book.codeKey(catalog.namespace, key), entry.text);
  const known = knownKeys(config, separatorsOf(config), existing);
  return () => {
    const namer = keyNamer(config, separatorsOf(config), known);
    const additions = catalogAdditions(book);
    const collected = new Map<string, string>();
    const added = new Set<string>();
    const addSource: Shared["addSource"] = (place, text, note) => {
      if (existing.has(place.key) || added.has(place.key)) return;
      added.add(place.key);
      additions.addSource(place, text, note);
    };
    return {
      nameFor: (request) => namer.nameFor(request),
      given: (fullKey, message) => namer.given(fullKey, message),
      textOf: (fullKey) => book.resolve(fullKey)?.entry?.text,
      defaultOf: (fullKey) => collected.get(fullKey),
      hasRoomFor: (place) => additions.hasRoomFor(place),
      collect(place, text, note) {
        if (!namer.reserve(place.key, text)) return false;
        collected.set(place.key, text);
        addSource(place, text, note);
        return true;
      },
      addSource,
      addTranslation: (place, locale, text) => additions.addTranslation(place, locale, text),
      isNew: (fullKey) => !existing.has(fullKey) && !collected.has(fullKey),
      get collected() {
        return collected.size;
      },
      get translations() {
        return additions.translations();
      },
      changes: (rewritten) => additions.changes(rewritten),
    };
  };
}

/** One thing that a file asked of what is shared, or did to it, and the answer. */
export interface Step {
  readonly ask: keyof Shared;
  readonly with: readonly unknown[];
  readonly answer?: unknown;
}

const asks: readonly (keyof Shared)[] = [
  "nameFor",
  "given",
  "textOf",
  "defaultOf",
  "hasRoomFor",
  "collect",
  "addSource",
  "addTranslation",
];

type Ask = (...given: readonly unknown[]) => unknown;

function askOf(shared: Shared, ask: keyof Shared): Ask {
  return shared[ask] as Ask;
}

function sharedFrom(answer: (ask: keyof Shared, given: readonly unknown[]) => unknown): Shared {
  return Object.fromEntries(
    asks.map((ask) => [ask, (...given: readonly unknown[]) => answer(ask, given)]),
  ) as unknown as Shared;
}

/** The same, with each step written down. */
export function recorded(shared: Shared): { readonly shared: Shared; readonly steps: readonly Step[] } {
  const steps: Step[] = [];
  return {
    steps,
    shared: sharedFrom((ask, given) => {
      const answer = askOf(shared, ask)(...given);
      const some = given.at(-1) === undefined ? given.slice(0, -1) : given;
      steps.push({ ask, with: some, ...(answer !== undefined && { answer }) });
      return answer;
    }),
  };
}

/** Takes recorded steps as long as they are answered as they were then: the answers, the last of which may be another. */
export function retraced(
  steps: readonly Step[],
  shared: Shared,
): { readonly answers: readonly unknown[]; readonly isSame: boolean } {
  const answers: unknown[] = [];
  for (const { ask, with: given, answer } of steps) {
    const now = askOf(shared, ask)(...given);
    answers.push(now);
    if (now !== answer) return { answers, isSame: false };
  }
  return { answers, isSame: true };
}

/** The same behind steps that were taken already: they are answered as they were, and not taken again. */
export function behind(answers: readonly unknown[], shared: Shared): Shared {
  let at = 0;
  return sharedFrom((ask, given) => (at < answers.length ? answers[at++] : askOf(shared, ask)(...given)));
}
