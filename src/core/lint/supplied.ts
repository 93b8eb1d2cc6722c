import type { Book, Catalog } from "../catalog/book.js";
import { changedKeys } from "../catalog/changed-keys.js";
import { visitNodes } from "../message/facts.js";
import type { BookCode, CodeUse } from "../source/book-code.js";
import type { Lookup } from "../source/model.js";
import { formsArgument } from "../source/literal-message.js";
import type { RuleContext } from "./rule.js";

/** A lookup whose arguments are known, with what its message uses. */
export interface SuppliedLookup {
  readonly source: CodeUse;
  readonly lookup: Lookup;
  readonly key: string;
  /** The arguments of the source message. */
  readonly needed: ReadonlySet<string>;
  /** What any locale's message uses: arguments, tags, and what the book's plurals choose by. */
  readonly known: ReadonlySet<string>;
  readonly passed: readonly string[];
  /** The function that it calls; empty for other lookups. */
  readonly callee: string;
}

/** What was found in a file of code, with the book that it was held against. */
interface Found {
  readonly book: Book;
  readonly lookups: readonly SuppliedLookup[];
}

const found = new WeakMap<CodeUse, Found>();
const changes = new WeakMap<
  Book,
  { readonly before: Book; readonly keys: ReadonlySet<string> | undefined }
>();

const foundLast = new WeakMap<BookCode, { readonly book: Book; readonly all: readonly SuppliedLookup[] }>();

/** The lookups of a book's code that pass their arguments by name, where code alone says which. */
export function suppliedAt(context: RuleContext): readonly SuppliedLookup[] {
  const { code, book } = context;
  if (!code) return [];
  const known = foundLast.get(code);
  if (known?.book === book) return known.all;
  const all = allSupplied(code, context);
  foundLast.set(code, { book, all });
  return all;
}

function allSupplied(code: BookCode, context: RuleContext): readonly SuppliedLookup[] {
  // Numbered arguments are passed in order, without names.
  if (context.syntax.numberedFrom !== undefined) return [];
  // Some languages have an operator that fills a text: their lookups are given the key alone.
  const isGiven = ({ argumentNames }: Lookup) => argumentNames !== undefined && argumentNames.length > 0;
  if (context.syntax.countsUnnamed && !code.files.some(({ lookups }) => lookups.some(isGiven))) return [];
  const all: SuppliedLookup[] = [];
  for (const source of code.files) for (const one of suppliedIn(source, context)) all.push(one);
  const others = new Set([...markingCalls(code.files), ...settingCalls(all), ...unfilledCalls(all)]);
  return others.size === 0 ? all : all.filter(({ callee }) => !others.has(callee));
}

/** So many names that a function is given tell whether they are values; where not one of them is, fewer do. */
const enoughNames = 8;
const fewNames = 4;

/** Functions that get something else behind a key than values by their names: hardly any of the names is in a message. */
function settingCalls(all: readonly SuppliedLookup[]): readonly string[] {
  const names = new Map<string, { count: number; fitting: number }>();
  for (const { callee, known, passed } of all) {
    const own = names.get(callee) ?? { count: 0, fitting: 0 };
    names.set(callee, own);
    own.count += passed.length;
    own.fitting += passed.filter((name) => known.has(name)).length;
  }
  return [...names].flatMap(([callee, { count, fitting }]) =>
    callee !== "" && (fitting === 0 ? count >= fewNames : count >= enoughNames && fitting * 10 < count)
      ? [callee]
      : [],
  );
}

/** So many messages with arguments that a function is asked for without any value say that others fill the text. */
const enoughUnfilled = 12;

/** Functions that are asked for many messages with arguments, and never given a value. */
function unfilledCalls(all: readonly SuppliedLookup[]): readonly string[] {
  const counts = new Map<string, number>();
  const given = new Set<string>();
  for (const { callee, needed, passed } of all)
    if (passed.length > 0) given.add(callee);
    else if (needed.size > 0) counts.set(callee, (counts.get(callee) ?? 0) + 1);
  return [...counts].flatMap(([callee, count]) =>
    callee !== "" && count >= enoughUnfilled && !given.has(callee) ? [callee] : [],
  );
}

/** So many calls of one function without values say that it never takes any, where others do. */
const enoughCalls = 20;

/** How often functions are called for a text, and whether any call passes values. */
type CallCounts = Map<string, { count: number; isGiven: boolean }>;

const counted = new WeakMap<CodeUse, CallCounts>();

/** The calls of one file, counted once. */
function callsIn(source: CodeUse): CallCounts {
  const known = counted.get(source);
  if (known) return known;
  const calls: CallCounts = new Map();
  for (const lookup of source.lookups) {
    const { argumentNames } = lookup;
    addCall(calls, calleeOf(source, lookup), 1, argumentNames === undefined || argumentNames.length > 0);
  }
  counted.set(source, calls);
  return calls;
}

function addCall(calls: CallCounts, callee: string, count: number, isGiven: boolean): void {
  const known = calls.get(callee);
  calls.set(callee, { count: (known?.count ?? 0) + count, isGiven: isGiven || known?.isGiven === true });
}

/** Functions that only mark keys, for what looks them up elsewhere: none of their many calls passes a value, and others' do. */
function markingCalls(files: readonly CodeUse[]): ReadonlySet<string> {
  const calls: CallCounts = new Map();
  for (const source of files)
    for (const [callee, { count, isGiven }] of callsIn(source)) addCall(calls, callee, count, isGiven);
  if (![...calls.values()].some(({ count, isGiven }) => isGiven && count >= enoughCalls)) return new Set();
  return new Set(
    [...calls].flatMap(([callee, { count, isGiven }]) =>
      callee !== "" && !isGiven && count >= enoughCalls ? [callee] : [],
    ),
  );
}

/** The function that a lookup calls; empty for other lookups. */
function calleeOf({ text }: CodeUse, { span }: Lookup): string {
  return /^([\w$.]{1,80})\(/.exec(text.slice(span.start, span.start + 90))?.[1] ?? "";
}

function suppliedIn(source: CodeUse, context: RuleContext): readonly SuppliedLookup[] {
  const { book } = context;
  const made = found.get(source);
  if (made?.book === book) return made.lookups;
  const changed = made && changedSince(made.book, book);
  const isSame = changed && !source.lookups.some(({ key }) => key.kind === "fixed" && changed.has(key.value));
  const lookups =
    isSame && made ? made.lookups : source.lookups.flatMap((one) => suppliedBy(source, one, context) ?? []);
  found.set(source, { book, lookups });
  return lookups;
}

/** The keys whose texts changed from one state of a book to another; undefined where any may have. */
function changedSince(before: Book, now: Book): ReadonlySet<string> | undefined {
  if (before.config !== now.config) return undefined;
  const known = changes.get(now);
  const keys = known?.before === before ? known.keys : changedKeys(before, now);
  changes.set(now, { before, keys });
  // Or each state of the book would keep the one before it.
  changes.delete(before);
  return keys;
}

function suppliedBy(source: CodeUse, lookup: Lookup, context: RuleContext): SuppliedLookup | undefined {
  const { book } = context;
  const { key, argumentNames } = lookup;
  if (key.kind !== "fixed" || !argumentNames) return undefined;
  const { countsUnnamed, isFilledLater, givenAs = (name: string) => name } = context.syntax;
  if (isFilledLater && argumentNames.length === 0) return undefined;
  const resolved = book.resolve(key.value);
  if (!resolved) return undefined;
  const { catalog, entry } = resolved;
  const message = context.message(entry.text, book.sourceLocale, entry.key);
  if (message.isBroken) return undefined;
  const known = new Set<string>();
  for (const locale of [book.sourceLocale, ...book.targetLocales]) {
    const there = book.catalog(locale, catalog.namespace);
    if (there) for (const name of namesUsed(there, entry.key, context)) known.add(givenAs(name));
  }
  // What has no name is filled in its order, where the call cannot show it.
  const isNamed = (name: string) => !countsUnnamed || !/^\d+$/.test(name);
  const needed = new Set([...message.facts.arguments.keys()].map(givenAs).filter(isNamed));
  const callee = calleeOf(source, lookup);
  // Some programs name values with the marks that they have in messages: `'%name%' => $name`.
  const marked = new Map([...known].map((name) => [context.argument(name), name]));
  const passed = argumentNames.map((name) => (name === undefined ? name : (marked.get(name) ?? name)));
  return { source, lookup, key: key.value, needed, known, passed, callee };
}

interface UsedNames {
  readonly text: string;
  readonly names: readonly string[];
}

/** By what reads a book's messages, locale and full key: most are the same when a book is looked at again. */
const used = new WeakMap<RuleContext["message"], Map<string, Map<string, UsedNames>>>();
const none: readonly string[] = [];

/** The arguments and tags of a catalog's message, and what the book's plurals choose by. */
function namesUsed(
  { byKey, locale, namespace }: Catalog,
  key: string,
  { book, message }: RuleContext,
): readonly string[] {
  const text = byKey.get(key)?.text;
  if (text === undefined) return none;
  const ofBook = used.get(message) ?? new Map<string, Map<string, UsedNames>>();
  used.set(message, ofBook);
  const id = `${locale} ${namespace ?? ""}`;
  const known = ofBook.get(id) ?? new Map<string, UsedNames>();
  ofBook.set(id, known);
  const there = known.get(key);
  if (there?.text === text) return there.names;
  const { facts, nodes } = message(text, locale, key);
  const names = [...facts.arguments.keys(), ...facts.tags.keys()];
  visitNodes(nodes, (node) => {
    if (node.kind === "plural" && book.config.plurals !== "inline") names.push(formsArgument);
  });
  known.set(key, { text, names });
  return names;
}
