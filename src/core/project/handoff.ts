import { descriptionOf, type Book } from "../catalog/book.js";
import {
  entryId,
  unitId,
  type AboutEntry,
  type CodeUse,
  type Handoff,
  type HandoffEntry,
  type HandoffTerm,
} from "../exchange/handoff.js";
import { messageUnits } from "../exchange/units.js";
import type { EntryState } from "../ledger/ledger.js";
import { progressOf, type Progress } from "../ledger/progress.js";
import { inLocale, termTest, type Concept } from "../lint/glossary.js";
import { limitsOf } from "../lint/limits.js";
import { showForms } from "../message/forms.js";
import { messageReader, type MessageReader } from "../message/parse.js";
import { wordChanges } from "../plan/words.js";
import { listCode, readBookCode } from "../source/book-code.js";
import { prepareReaders } from "../source/read.js";
import { digestOf } from "../text/digest.js";
import { keyTest } from "../text/key-pattern.js";
import { partEnds } from "../text/separators.js";
import { booksIn, formerSources, ledgers, type Project, type Scope } from "./project.js";

/** Which texts are handed out; what is outstanding where nothing is given. */
export interface HandoffOptions {
  /** What is done as well. */
  readonly all?: boolean;
  /** Only what is stale. */
  readonly stale?: boolean;
  /** Only texts in these states, outstanding or not. */
  readonly states?: readonly EntryState[];
  /** Only keys that match one of these, keys or patterns as code writes them. */
  readonly keys?: readonly string[];
  /** Only texts whose source text was another then: what it was, by book and full key; undefined where it was not there. */
  readonly formerly?: (book: string, fullKey: string) => string | undefined;
}

/** So many places where code asks for a text tell enough. */
const mostUses = 3;
const longestCode = 160;

/** What the translators of a locale have to do, with what they may want to know of it. */
export async function handoffFor(
  project: Project,
  scope: Scope,
  locale: string,
  options: HandoffOptions = {},
): Promise<Handoff> {
  const entries: HandoffEntry[] = [];
  for (const config of booksIn(project, scope)) {
    const book = project.book(config);
    const reader = messageReader(config);
    const former = formerSources(project, config);
    const tests = options.keys?.map((pattern) => ({ pattern, test: keyTest(pattern, partEnds(config)) }));
    const chosen = [...progressOf(book, locale, reader, ledgers(project, config))].filter((progress) => {
      const { source, entry } = progress;
      // Code among the texts is nobody's to translate.
      if (entry.kind === "code" || entry.text.trim() === "") return false;
      if (progress.found && progress.found.catalog.locale !== locale) return false;
      const key = book.codeKey(source.namespace, entry.key);
      if (tests && !tests.some(({ pattern, test }) => pattern === key || test(key))) return false;
      const { formerly } = options;
      if (formerly && formerly(config.name, book.fullKey(source.namespace, entry.key)) === entry.text)
        return false;
      return isWanted(progress, options);
    });
    if (chosen.length === 0) continue;
    const uses = await usesIn(project, book);
    for (const progress of chosen) {
      const { source, entry } = progress;
      const full = book.fullKey(source.namespace, entry.key);
      const wanted = entryOf(book, reader, locale, progress, full, nothing);
      if (wanted.what === "done" && !isWantedDone(options)) continue;
      const about: AboutEntry = {
        ...descriptionIn(progress),
        ...changeOf(progress, full, former),
        uses: uses.get(full) ?? [],
        ...limitIn(book, entry.key),
        terms: termsIn(project.glossary ?? [], progress.message.facts.text, book.sourceLocale, locale),
      };
      entries.push({ ...wanted, about });
    }
  }
  return { source: project.config.source, target: locale, entries };
}

function whatOf({ found }: Progress): HandoffEntry["what"] {
  if (!found) return "missing";
  return found.standing.stale ? "stale" : found.standing.state === "initial" ? "initial" : "done";
}

const nothing: AboutEntry = { uses: [], terms: [] };

function isWanted(progress: Progress, options: HandoffOptions): boolean {
  const { stale, states } = options;
  const what = whatOf(progress);
  if (stale && what !== "stale") return false;
  if (states && !states.includes(progress.found?.standing.state ?? "initial")) return false;
  // A translation may lack a form that its language needs.
  return what !== "done" || isWantedDone(options) || progress.message.facts.plurals.length > 0;
}

/** Whether what is done is handed out as well. */
function isWantedDone({ all, states, formerly }: HandoffOptions): boolean {
  return all === true || states !== undefined || formerly !== undefined;
}

/** Whether what a locale has is only the source's text in the place of a translation. */
export function isCopy({ standing, record }: NonNullable<Progress["found"]>): boolean {
  return (
    standing.state === "initial" &&
    (record === undefined || record.origin === "copy" || record.origin === "person")
  );
}

/** One source text as an entry of the handoff. */
export function entryOf(
  book: Book,
  reader: MessageReader,
  locale: string,
  progress: Progress,
  full: string,
  about: AboutEntry,
): HandoffEntry {
  const { source, entry, message, found } = progress;
  const state = found?.standing.state ?? "initial";
  // A copy that stands for what is not translated says nothing; a draft does.
  const there = found && !isCopy(found) ? reader.read(found.entry.text, locale, entry.key) : undefined;
  const id = entryId(book.config.name, full, digestOf);
  const base = {
    id,
    book: book.config.name,
    key: book.codeKey(source.namespace, entry.key),
    what: whatOf(progress),
    state,
    source: digestOf(entry.text),
    text: found ? digestOf(found.entry.text) : "-",
    entryKey: entry.key,
    texts: { source: entry.text, ...(there && found && { target: found.entry.text }) },
    about,
  };
  const taken = message.isBroken ? undefined : messageUnits(message.nodes, there?.nodes, locale, reader);
  if (!taken) {
    const raw = (text: string) => [{ kind: "text", value: text }] as const;
    const unit = {
      id,
      choices: [],
      source: raw(showForms(entry.text)),
      ...(found && there && { target: raw(showForms(found.entry.text)) }),
    };
    return { ...base, codes: new Map(), units: [unit], isRaw: true };
  }
  const isLacking = there !== undefined && taken.units.some(({ target }) => target === undefined);
  return {
    ...base,
    ...(base.what === "done" && isLacking && { what: "incomplete" as const }),
    codes: taken.codes,
    units: taken.units.map((unit) => ({ ...unit, id: unitId(id, unit.choices) })),
  };
}

function descriptionIn({ source, entry }: Progress): Pick<AboutEntry, "description"> {
  const description = descriptionOf(source, entry);
  return description === undefined ? {} : { description };
}

/** What a source text was when its translation was made, against what it is. */
function changeOf(
  { entry, found }: Progress,
  full: string,
  former: (fullKey: string, digest: string) => string | undefined,
): Pick<AboutEntry, "change"> {
  const old = found?.standing.stale && found.record ? former(full, found.record.source) : undefined;
  if (old === undefined) return {};
  return { change: wordChanges(showForms(old), showForms(entry.text)) };
}

function limitIn(book: Book, key: string): Pick<AboutEntry, "limit"> {
  const [limit] = [...limitsOf(book.config, key)].sort((a, b) => a.most - b.most);
  return limit && Number.isFinite(limit.most) ? { limit } : {};
}

/** The places where a book's code asks for each of its texts, by full key. */
export async function usesIn(project: Project, book: Book): Promise<ReadonlyMap<string, readonly CodeUse[]>> {
  const uses = new Map<string, CodeUse[]>();
  const { config } = book;
  if (config.code.length === 0) return uses;
  await prepareReaders(listCode(project.files, config), project.files);
  for (const { file, text, lines, lookups } of readBookCode(project.files, config, book.sourceLocale).files)
    for (const { key, keySpan } of lookups) {
      if (key.kind !== "fixed") continue;
      const found = book.resolve(key.value);
      if (!found) continue;
      const full = book.fullKey(found.catalog.namespace, found.entry.key);
      const known = uses.get(full) ?? [];
      uses.set(full, known);
      if (known.length >= mostUses) continue;
      const { line } = lines.position(keySpan.start);
      const start = text.lastIndexOf("\n", keySpan.start - 1) + 1;
      const end = text.indexOf("\n", keySpan.start);
      const code = text.slice(start, end < 0 ? undefined : end).trim();
      known.push({ file, line, code: code.length > longestCode ? `${code.slice(0, longestCode)}…` : code });
    }
  return uses;
}

/** The terms of the glossary that a source text has. */
function termsIn(
  glossary: readonly Concept[],
  text: string,
  source: string,
  target: string,
): readonly HandoffTerm[] {
  return glossary.flatMap((concept) => {
    const found = (inLocale(concept.terms, source) ?? []).find((term) => termTest(term).test(text));
    if (found === undefined) return [];
    return [
      {
        source: found.replace(/\*$/, ""),
        target: inLocale(concept.terms, target) ?? [],
        avoided: inLocale(concept.avoided, target) ?? [],
      },
    ];
  });
}
