import { posix } from "node:path";
import type { LookupConfig } from "../../config/schema.js";
import type { SyntaxSetting } from "../../message/names.js";
import type { Literal, SourceFile } from "../../source/model.js";
import { isScript } from "../../source/readers/script/endings.js";
import type { BoundCall } from "./bound-names.js";
import type { KeyMatch } from "./key-index.js";

/** One way in which code asks for texts, with how often it takes a key. */
export interface LookupUse {
  readonly lookup: LookupConfig;
  /** In words, for people: `t(…)`, `<Text id=…>`. */
  readonly shown: string;
  /** The syntax of the texts that it is given, where these are their own keys. */
  readonly textSyntax?: SyntaxSetting;
  hits: number;
  misses: number;
  /** How many of the hits have something behind the key that is no string: values, mostly. */
  valued: number;
  /** How many of the hits can hardly be keys by chance: they are more than one word, or name their namespace. */
  telling: number;
  /** How many of the hits are in files of each ending. */
  readonly endings: Map<string, number>;
  /** How many of the hits are symbols of Ruby, in files of each ending. */
  readonly symbols: Map<string, number>;
  /** The files that have a hit. */
  readonly files: Set<string>;
  /** Places where a key stands, a few of them. */
  readonly samples: LookupSample[];
  /** How code writes the members of an object of texts, with `{key}`, by the ending of its files and how often: `$lang['{key}']`. */
  readonly written?: ReadonlyMap<string, ReadonlyMap<string, number>>;
  /** The line that brings an object of texts in, where a script imports it, or what makes it. */
  readonly import?: string;
  /** The statement by which functions make it for themselves. */
  readonly setup?: string;
  /** How the keys are written. */
  readonly votes: Votes;
}

/**
 * Whether a lookup is given something else behind its key that may be a value: no string, and no constant that sets how it works.
 * Behind a text for the key, values stand in an object or a list.
 */
export function hasValueBehind({ text }: SourceFile, { span }: Literal): boolean {
  const behind = text.slice(span.end, span.end + 800);
  return (
    /^\s{0,20},\s{0,20}(?!(?:\d{1,9}|true|false|null|nil|none|undefined)\s{0,9}[,)])[^\s"'`)]/i.test(
      behind,
    ) ||
    /^\s{0,200},\s{0,200}(?:"(?:[^"\\]|\\.){1,500}"|'(?:[^'\\]|\\.){1,500}'|`(?:[^`\\]|\\.){1,500}`)\s{0,200},\s{0,200}(?:[{[]|array\()/.test(
      behind,
    )
  );
}

/** What a lookup that is a call is called, without the object that has it. */
export function nameOf({ lookup }: Pick<LookupUse, "lookup">): string | undefined {
  return "call" in lookup ? lookup.call.split(/[.:>]+/).at(-1) : undefined;
}

/**
 * Whether the values behind keys in scripts stand in lists, which have no names for them, as those of browsers do (WebExtensions,
 * "i18n.getMessage()").
 */
export function takesNoNames({ lookup, samples }: LookupUse): boolean {
  if (isOfBrowser({ lookup })) return true;
  const behind = samples.flatMap(({ source, literal: { span } }) => {
    const given = /^["'`]?\s{0,20},\s{0,20}(\S)/.exec(source.text.slice(span.end, span.end + 60))?.[1];
    return isScript(source.file) && given !== undefined ? [given] : [];
  });
  return behind.includes("[") && !behind.includes("{");
}

/** Whether a lookup is the one that browsers give to their extensions. */
export function isOfBrowser({ lookup }: Pick<LookupUse, "lookup">): boolean {
  return "call" in lookup && /(?:^|\.)i18n\.getMessage$/.test(lookup.call);
}

/** How its messages have their values: `$1`. */
export const numberedByBrowser = { argument: "${1}" };

export interface LookupSample {
  readonly source: SourceFile;
  readonly literal: Literal;
  /** The statement that makes the function, where the file has it. */
  readonly bound?: BoundCall;
}

/** How keys are written, by how often. */
export interface Votes {
  readonly between: Map<string, number>;
  readonly parts: Map<string, number>;
  /** Of keys without a namespace, the namespaces that have them, and how many there are. */
  readonly homes: Map<string, number>;
  bare: number;
}

export function newVotes(): Votes {
  return { between: new Map(), parts: new Map(), homes: new Map(), bare: 0 };
}

export function mergeVotes(all: Votes, more: Votes): void {
  for (const kind of ["between", "parts", "homes"] as const)
    for (const [name, count] of more[kind]) all[kind].set(name, (all[kind].get(name) ?? 0) + count);
  all.bare += more.bare;
}

export function newUse(lookup: LookupConfig, shown: string): LookupUse {
  return {
    lookup,
    shown,
    hits: 0,
    misses: 0,
    telling: 0,
    valued: 0,
    endings: new Map(),
    symbols: new Map(),
    files: new Set(),
    samples: [],
    votes: newVotes(),
  };
}

/** Counts a literal that is surely a key, or a text that is its own. */
export function countHit(use: LookupUse, source: SourceFile, literal: Literal): void {
  const ending = posix.extname(source.file);
  use.hits++;
  use.telling++;
  if (hasValueBehind(source, literal)) use.valued++;
  use.endings.set(ending, (use.endings.get(ending) ?? 0) + 1);
  use.files.add(source.file);
  use.samples.push({ source, literal });
}

/** The namespace that has nearly all keys without one, where others are written with theirs. */
export function homeOf({ between, homes, bare }: Votes): string | undefined {
  const [best] = [...homes].sort(([, a], [, b]) => b - a);
  const isParted = [...between.keys()].some((mark) => mark !== ".");
  return best && isParted && best[1] * 10 >= bare * 8 ? best[0] : undefined;
}

/** Counts what has no literal: whether it is a key. */
export function tally(use: LookupUse, { file }: SourceFile, match: KeyMatch | undefined): void {
  if (!match) {
    use.misses++;
    return;
  }
  const ending = posix.extname(file);
  use.hits++;
  use.files.add(file);
  if (match.isTelling) use.telling++;
  use.endings.set(ending, (use.endings.get(ending) ?? 0) + 1);
  voteBy(match, use.votes);
}

function voteBy({ between, parts, homes }: KeyMatch, votes: Votes): void {
  if (between !== undefined) votes.between.set(between, (votes.between.get(between) ?? 0) + 1);
  if (parts !== undefined) votes.parts.set(parts, (votes.parts.get(parts) ?? 0) + 1);
  if (homes.length === 0) return;
  votes.bare++;
  for (const home of homes) votes.homes.set(home, (votes.homes.get(home) ?? 0) + 1);
}

/** The name that is counted most often; undefined for none. */
export function most(counts: ReadonlyMap<string, number>): string | undefined {
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}
