import { markPattern } from "../../source/book-code.js";
import { posix } from "node:path";
import type { LookupConfig } from "../../config/schema.js";
import type { Literal, SourceFile } from "../../source/model.js";
import { languageOf, languages } from "../../source/languages/index.js";
import { lookupByName } from "../../survey/calls.js";
import { keysInAttribute } from "../../source/attribute-keys.js";
import { underscored } from "../../source/unread-code.js";
import { boundNames, type BoundCall } from "./bound-names.js";
import { memberUses } from "./member-evidence.js";
import { defaultPlace, noteBeside } from "./declared-texts.js";
import type { KeyIndex, KeyMatch } from "./key-index.js";
import {
  hasValueBehind,
  homeOf,
  nameOf,
  mergeVotes,
  most,
  newUse,
  newVotes,
  tally,
  type LookupSample,
  type LookupUse,
} from "./lookup-use.js";

/** What was found of a book's lookups. */
export interface FoundLookups {
  /** Those that are lookups by what was found, the most frequent first. */
  readonly uses: readonly LookupUse[];
  /** What stands between namespace and key, and between the parts of a key, in code. */
  readonly between: string | undefined;
  readonly parts: string | undefined;
  /** The namespace of keys that code writes without one. */
  readonly home: string | undefined;
}

/** So many samples from files of a kind are enough to see how something is written. */
const mostSamples = 40;

/** The lookups of other books, which may take a book's keys as well, and whether a string is a key of those books. */
export interface SharedLookups {
  readonly uses: readonly LookupUse[];
  readonly isKey: (text: string) => boolean;
}

/** Fewer keys that another book's lookup takes may be words of both by chance. */
const leastShared = 3;

/**
 * Finds the lookups of a book, whose texts may be in a constant of its code: whatever takes its keys in code, and hardly any other
 * string. With `shared` only those of other books are looked at, and the keys of these count for nothing.
 */
export function findLookups(
  code: readonly SourceFile[],
  keys: KeyIndex,
  constant?: string,
  shared?: SharedLookups,
): FoundLookups {
  const sharedIds = shared && new Set(shared.uses.map(({ lookup }) => JSON.stringify(lookup)));
  const uses = new Map<string, LookupUse>();
  const makers = new Map<string, MakerVotes>();
  for (const source of code) {
    const bound = boundNames(source);
    for (const [place, literal] of source.literals.entries()) {
      const text = fixedTextOf(literal);
      if (text === undefined) continue;
      const maker = makerOf(literal, bound);
      if (maker) {
        voteFor(makers, maker, text, keys, { source, literal, bound: maker });
        continue;
      }
      // What the call's other arguments put before a key is looked at with them.
      if (literal.context.language === "ruby" && scopeBehind(source.text, literal.span.end) !== undefined)
        continue;
      const match = keys.match(text);
      // What such a key is relative to is found out by itself.
      if (!match && /^\.[\w.]+$/.test(text)) continue;
      for (const { id, lookup, shown } of shapesOf(literal, source, place)) {
        if (shared && (sharedIds?.has(JSON.stringify(lookup)) !== true || (!match && shared.isKey(text))))
          continue;
        const use = uses.get(id) ?? newUse(lookup, shown);
        uses.set(id, use);
        const found =
          "attribute" in lookup ? keysInAttribute(text).map(({ key }) => keys.match(key)) : [match];
        for (const own of found)
          if (!own) use.misses++;
          else countHit(use, { source, literal, ...madeHere(lookup, bound) }, own);
      }
    }
  }
  if (!shared) {
    addMarks(code, keys, uses);
    addSymbols(code, keys, uses);
  }
  const surely = [...uses.values()].filter(
    (use) => isLookup(use, keys) && (!shared || distinct(use.samples) >= leastShared),
  );
  const found = [
    ...surely,
    ...[...uses.values()].filter((use) => !surely.includes(use) && isPartOf(use, surely)),
    ...(shared ? [] : [...makerUses(makers), ...memberUses(code, keys, constant)]),
  ];
  const kept = withoutChance(found).map((use) => withDefault(use));
  const votes = newVotes();
  for (const one of kept) mergeVotes(votes, one.votes);
  return {
    uses: kept.sort(
      (a, b) => Number(isMarkup(a)) - Number(isMarkup(b)) || b.hits - a.hits || (a.shown < b.shown ? -1 : 1),
    ),
    between: most(votes.between),
    parts: most(votes.parts),
    home: homeOf(votes),
  };
}

/** What makes the function, or its object, that a declared text is given to. */
function madeHere(lookup: LookupConfig, bound: ReadonlyMap<string, BoundCall>): Pick<LookupSample, "bound"> {
  const made = "descriptor" in lookup ? bound.get(lookup.descriptor.split(".", 1)[0] ?? "") : undefined;
  return made ? { bound: made } : {};
}

/** A call with the place of its default texts, where it has them. */
export function withDefault(use: LookupUse): LookupUse {
  const place = "call" in use.lookup && use.lookup.key === undefined ? defaultPlace(use) : undefined;
  return place === undefined ? use : { ...use, lookup: { ...use.lookup, default: place } as LookupConfig };
}

function isMarkup({ lookup }: LookupUse): boolean {
  return !("call" in lookup || "maker" in lookup || "member" in lookup);
}

function countHit(use: LookupUse, sample: LookupSample, match: KeyMatch): void {
  tally(use, sample.source, match);
  if (hasValueBehind(sample.source, sample.literal)) use.valued++;
  // Each kind of file writes lookups its own way.
  if ((use.endings.get(posix.extname(sample.source.file)) ?? 0) <= mostSamples) use.samples.push(sample);
}

/** The text of a literal that is one; undefined for what is put together. */
function fixedTextOf({ pieces }: Literal): string | undefined {
  const [only] = pieces;
  return pieces.length === 1 && only?.kind === "text" ? only.value : undefined;
}

/** Whether what takes strings is a lookup: most of them are keys, more of them where keys are words like others. */
function isLookup({ hits, misses, telling, lookup, samples }: LookupUse, keys: KeyIndex): boolean {
  if (hits === 0) return false;
  const share = hits / (hits + misses);
  const isLoose = "attribute" in lookup || "descriptor" in lookup;
  // What is called as lookups are may ask for the texts of other programs as well.
  if ("call" in lookup && lookupByName.test(lookup.call) && share >= 0.25 && distinct(samples) >= leastNamed)
    return true;
  if (telling > 0) {
    if (telling * 2 >= hits) return share >= (isLoose ? 0.7 : 0.5) && (hits > 1 || share === 1);
    return share >= 0.8;
  }
  // Plain words: few of them tell enough where they are half of a small book's keys.
  const known = distinct(samples);
  return share >= 0.9 && (known * 2 >= keys.size || (known >= 5 && !keys.hasNamespaces));
}

/** So many keys that a function takes which is called as lookups are show that it is one. */
const leastNamed = 8;

/** Attributes of HTML whose values readers see or hear. */
const shownAttribute =
  /^(?:title|alt|placeholder|label|summary|abbr|content|aria-(?:label|description|placeholder|roledescription|valuetext))$/;

/** Whether parts of templates are filled in by a function of the name of a lookup that code calls, whatever else they ask for. */
function isPartOf({ lookup, hits }: LookupUse, surely: readonly LookupUse[]): boolean {
  const name = "mark" in lookup ? /^\{\{#(\w+)\}\}/.exec(lookup.mark)?.[1] : undefined;
  return name !== undefined && hits > 0 && surely.some((use) => nameOf(use) === name);
}

/** Fewer than this share of what the most frequent lookup has is chance, but for another form of the same function. */
const leastShare = 0.03;

/** Fewer words than these, none of which can only be a key, may be the names of anything. */
const fewWords = 12;

/** What is left of lookups by chance beside one that is used all over. */
function withoutChance(uses: readonly LookupUse[]): LookupUse[] {
  const most = Math.max(0, ...uses.map(({ hits }) => hits));
  const main = uses.filter(({ hits }) => hits * 5 >= most).map(nameOf);
  // Names of other things are keys by chance where keys are plain words: `mayEdit("Boats")`, again and again.
  const isOfOthers = ({ hits, telling, samples }: LookupUse) =>
    telling === 0 && hits * 5 <= most && distinct(samples) < fewWords;
  return uses.filter((use) => {
    if (isOfOthers(use)) return false;
    const name = nameOf(use);
    return use.hits >= most * leastShare || (name !== undefined && main.includes(name));
  });
}

function distinct(samples: readonly LookupSample[]): number {
  return new Set(samples.map(({ literal }) => fixedTextOf(literal))).size;
}

/** Signs before and behind what may be a key, in a text of any file: `[[cart:title]]`, `{%cart.title%}`. */
const marked = /([[{%<@#(]{2,3})([\w.:/-]{2,200})(?:\s{0,9},[^\]\n]{0,200}?)?([\]}%>@#)]{2,3})/g;

/** A part of a template that a function of its name fills in: `{{#say}}cart.title{{/say}}`. */
const filledPart = /(\{\{#(\w{1,40})\}\}\s{0,9})([\w.:/-]{2,200})(\s{0,9}\{\{\/\2\}\})/g;

/** Keys in the marks by which attributes fill in a page, also with values. */
function filledMarks({ text, dialect }: SourceFile): readonly (readonly string[])[] {
  const mark = dialect?.fills?.mark;
  if (mark === undefined) return [];
  const [open = "", close = ""] = mark.split("KEY");
  return [...text.matchAll(markPattern(mark))].map(([, key = ""]) => [open, key, close]);
}

function addMarks(code: readonly SourceFile[], keys: KeyIndex, uses: Map<string, LookupUse>): void {
  for (const source of code)
    for (const [open = "", text = "", close = ""] of [
      ...filledMarks(source),
      ...[marked, underscored].flatMap((pattern) =>
        source.dialect?.fills ? [] : [...source.text.matchAll(pattern)].map((found) => found.slice(1)),
      ),
      ...[...source.text.matchAll(filledPart)].map(([, open = "", , text = "", close = ""]) => [
        open.trim(),
        text,
        close.trim(),
      ]),
    ]) {
      const found = keys.match(text);
      // Most of what stands in brackets is code; a key between underscores hardly is.
      const match = found && { ...found, isTelling: found.isTelling || open.startsWith("__") };
      const mark = `${open}KEY${close}`;
      const use = uses.get(mark) ?? (match?.isTelling ? newUse({ mark }, mark) : undefined);
      if (!use) continue;
      uses.set(mark, use);
      tally(use, source, match);
    }
}

/** Ruby's symbols, which are no literals: `t(:title)`, `l :label_title`; and keys with a part in another argument. */
function addSymbols(code: readonly SourceFile[], keys: KeyIndex, uses: Map<string, LookupUse>): void {
  for (const source of code) {
    if ((source.dialect?.language ?? languageOf(source.file)) !== "ruby") continue;
    for (const { 0: whole, 1: call = "", 2: symbol, 3: text = symbol ?? "", index } of source.text.matchAll(
      /(?<![\w.:@$])((?:[A-Z]\w{0,40}\.)?[a-z_]\w{0,40}(?:\.\w{1,40})?)(?:\(\s*|[ \t]+)(?::([a-z_]\w{0,100})\b(?!\s*=>|:)|["']([\w.]{1,100})["'](?=,))/g,
    )) {
      const scope = scopeBehind(source.text, index + whole.length);
      if (scope === undefined ? symbol === undefined : scope.includes(null)) continue;
      const id = `call ${call} 0`;
      const use = uses.get(id) ?? newUse({ call }, `${call}(…)`);
      uses.set(id, use);
      const match = keys.match([...(scope ?? []), text].join("."));
      const behind = source.text.slice(index + whole.length, index + whole.length + 200);
      tally(use, source, match);
      if (!match || scope !== undefined) continue;
      // Values have names: `say :title, count: 1`.
      if (/^\s{0,9},\s{0,99}(?:\w{1,60}:|:\w{1,60}\s{0,9}=>|\*\*)/.test(behind)) use.valued++;
      const ending = posix.extname(source.file);
      use.symbols.set(ending, (use.symbols.get(ending) ?? 0) + 1);
    }
  }
}

/** What the other arguments of a call put before its key, which ends at a place; undefined where they do not. */
function scopeBehind(text: string, end: number): readonly (string | null)[] | undefined {
  const behind = /^["']?,[^()\n]{0,200}/.exec(text.slice(end, end + 200))?.[0];
  const scope = behind === undefined ? undefined : languages.ruby.keyScope?.(behind);
  return scope && scope.length > 0 ? scope : undefined;
}

interface Shape {
  readonly id: string;
  readonly lookup: LookupConfig;
  readonly shown: string;
}

/** What a string stands in that may be a lookup. */
function shapesOf(literal: Literal, source: SourceFile, place: number): readonly Shape[] {
  const filter = filterBehind(literal, source);
  if (filter !== undefined)
    return [{ id: `filter ${filter}`, lookup: { filter }, shown: `{{ … | ${filter} }}` }];
  const { role, name, element, index = 0 } = literal.context;
  if (name === undefined) return [];
  if (role === "argument") {
    const lookup = index === 0 ? { call: name } : { call: name, key: index };
    return [
      {
        id: `call ${name} ${index}`,
        lookup,
        shown: index === 0 ? `${name}(…)` : `${name}(${"…, ".repeat(index)}KEY)`,
      },
    ];
  }
  if (role === "tagged") return [{ id: `call ${name} 0`, lookup: { call: name }, shown: `${name}\`…\`` }];
  if (role === "property" && isGivenTo(element, literal, source)) {
    const beside = besideKey(source, place);
    return [
      {
        id: `descriptor ${element} ${name}`,
        lookup: { descriptor: element, key: name, ...beside },
        shown: `${element}({ ${name}: … })`,
      },
    ];
  }
  // What a template binds or listens to is an expression: `[(model)]="member.name"`.
  if (role !== "attribute" || element === undefined || /^[[(*#:@]|^(?:v-|bind:|on:|x-)/.test(name)) return [];
  // What HTML itself has for programs holds names of parts of the page.
  if (
    /^[a-z][a-z0-9]*$/.test(element) &&
    /^(?:for|id|name|class|type|value|href|src|action|method|rel|role|style|target|headers|form|list)$/.test(
      name,
    )
  )
    return [];
  // What readers see or hear is a text, which something may look up where it shows it.
  if (
    /^[a-z][a-z0-9]*$/.test(element) &&
    shownAttribute.test(name) &&
    !/^[a-z][\w-]*(?:[.:/][\w-]+)+$/.test(fixedTextOf(literal) ?? "")
  )
    return [];
  if (/^[A-Z]/.test(element) || element.includes("."))
    return [
      {
        id: `component ${element} ${name}`,
        lookup: { component: element, key: name },
        shown: `<${element} ${name}=…>`,
      },
    ];
  if (/[:-]/.test(element))
    return [
      { id: `tag ${element} ${name}`, lookup: { tag: element, key: name }, shown: `<${element} ${name}=…>` },
    ];
  return [{ id: `attribute ${name}`, lookup: { attribute: name }, shown: `${name}="…"` }];
}

/** Whether a string is in an object that a function is given: no other names what its lookup could be known by. */
function isGivenTo(
  callee: string | undefined,
  { span, context: { properties = [] } }: Literal,
  { text }: SourceFile,
): callee is string {
  const name = callee?.split(".").at(-1);
  if (name === undefined || !/^[\w$]+$/.test(name) || properties.length !== 1) return false;
  const before = text.slice(Math.max(0, span.start - longestObject), span.start);
  return new RegExp(String.raw`(?<![\w$])${name.replaceAll("$", "\\$")}\s{0,9}\(\s{0,200}\{`).test(before);
}

/** So far before one of its strings the object that a function is given begins at most, in code units. */
const longestObject = 2_000;

/** The properties beside a key that hold its text and a note, by what they are and say. */
function besideKey(source: SourceFile, place: number): { default?: string; note?: string } {
  const key = source.literals[place];
  const note = noteBeside(source, place);
  const found: { default?: string; note?: string } = note === undefined ? {} : { note };
  for (const other of source.literals.slice(Math.max(place - 3, 0), place + 4)) {
    const { role, name, element, properties = [] } = other.context;
    if (!key || other === key || role !== "property" || name === undefined || name === note) continue;
    if (element !== key.context.element || properties.length !== 1 || name === key.context.name) continue;
    if (Math.abs(other.span.start - key.span.start) > 600) continue;
    if (/^\p{Lu}.*\s/u.test(fixedTextOf(other) ?? "")) found.default = name;
  }
  return found;
}

/** The filter that a string goes through, alone or chosen by a condition. */
function filterBehind({ span }: Literal, { text, dialect }: SourceFile): string | undefined {
  if (!dialect) return undefined;
  const behind =
    /^(?:\s{0,9}:\s{0,9}(?:"[^"\n]{0,200}"|'[^'\n]{0,200}'))?\s{0,9}\)?\s{0,9}\|(?!\|)\s{0,9}([A-Za-z_$][\w$]*)/;
  return behind.exec(text.slice(span.end, span.end + 400))?.[1];
}

interface MakerVotes {
  readonly maker: string;
  readonly gives: string | undefined;
  readonly votes: { namespace: number; prefix: number; whole: number; misses: number };
  readonly endings: Map<string, number>;
  readonly files: Set<string>;
  readonly samples: LookupSample[];
}

/** The statement that made the function which a string is given to, where the file has it. */
function makerOf({ context }: Literal, bound: ReadonlyMap<string, BoundCall>): BoundCall | undefined {
  return context.role === "argument" && (context.index ?? 0) === 0 && context.name !== undefined
    ? bound.get(context.name)
    : undefined;
}

function voteFor(
  makers: Map<string, MakerVotes>,
  { maker, gives, first }: BoundCall,
  text: string,
  keys: KeyIndex,
  sample: LookupSample,
): void {
  const id = `${maker} ${gives ?? ""}`;
  const found = makers.get(id) ?? {
    maker,
    gives,
    votes: { namespace: 0, prefix: 0, whole: 0, misses: 0 },
    endings: new Map<string, number>(),
    files: new Set<string>(),
    samples: [],
  };
  makers.set(id, found);
  const kind =
    (first === undefined ? undefined : keys.joins(first, text)) ?? (keys.match(text) ? "whole" : "misses");
  found.votes[kind]++;
  if (kind === "misses") return;
  const { file } = sample.source;
  const ending = posix.extname(file);
  found.files.add(file);
  const count = (found.endings.get(ending) ?? 0) + 1;
  found.endings.set(ending, count);
  if (count <= mostSamples) found.samples.push(sample);
}

function makerUses(makers: ReadonlyMap<string, MakerVotes>): LookupUse[] {
  return [...makers.values()].flatMap(({ maker, gives, votes, endings, files, samples }): LookupUse[] => {
    const { namespace, prefix, whole, misses } = votes;
    const hits = namespace + prefix + whole;
    if (hits === 0 || hits < misses) return [];
    const part = namespace > 0 ? { namespace: 0 } : prefix > 0 ? { prefix: 0 } : {};
    const lookup = { maker, ...(gives !== undefined && { gives }), ...part };
    const shown = `what ${maker}(${namespace + prefix > 0 ? "…" : ""}) gives${gives === undefined ? "" : ` as ${gives}`}`;
    return [
      {
        lookup,
        shown,
        hits,
        misses,
        telling: hits,
        valued: hits,
        endings,
        symbols: new Map(),
        files,
        samples,
        votes: newVotes(),
      },
    ];
  });
}
