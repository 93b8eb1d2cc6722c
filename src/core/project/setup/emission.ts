import type { Fills } from "../../source/dialects/dialect.js";
import { posix } from "node:path";
import type { SourceFile } from "../../source/model.js";
import { languageOf } from "../../source/languages/index.js";
import { isScript } from "../../source/readers/script/endings.js";
import type { KeyIndex } from "./key-index.js";
import { most, nameOf, type LookupUse } from "./lookup-use.js";
import { pluralCallOf, type PluralCall, type UsualLookup } from "./plural-emission.js";
import {
  filledAround,
  filledByLanguage,
  withListBehind,
  withSameBehind,
  withText,
  withoutValues,
} from "./filled-call.js";
import {
  markupIn,
  shownAsSeen,
  shownHelper,
  shownMember,
  withAttributes,
  type EndingEmission,
} from "./template-emission.js";
import { placesOf, writtenAt, type CodePlaces, type WithValues, type WrittenLookup } from "./written-call.js";

/** What extraction writes, as the code that is there looks texts up. */
export interface ProposedEmission {
  readonly call?: string;
  /** The same for texts with a plural, where another lookup chooses its form; false where no pattern writes that one. */
  readonly plural?: string | false;
  /** The same for text with elements in it. */
  readonly rich?: string;
  readonly import?: string | readonly string[];
  readonly setup?: string;
  readonly withValues?: WithValues;
  readonly endings?: Readonly<Record<string, EndingEmission>>;
}

/**
 * The emission that goes by the lookups of a book; undefined where none can be taken as a pattern. `forms` are the keys that have a
 * plural whose form the lookup chooses.
 */
export function emissionOf(
  uses: readonly LookupUse[],
  code: readonly SourceFile[],
  forms?: KeyIndex,
): ProposedEmission | undefined {
  const usual = usualEmission(uses, code);
  if (!usual || !forms) return usual;
  const places = placesOf(code);
  const own = usual.endings ?? {};
  const pluralIn = (isMeant: (ending: string) => boolean, one: UsualLookup) =>
    pluralCallOf(uses.filter(isCall), isMeant, forms, one, (use) => writtenIn([use], isMeant, places));
  const inEndings = Object.entries(own).map(([ending, written]) => {
    const call = written.call ?? written.content;
    const { import: line } = written;
    const asked = call === undefined ? undefined : { call, ...(line !== undefined && { import: line }) };
    const found = asked && pluralIn((one) => one === ending, asked);
    return [ending, found ?? unseen] as const;
  });
  const { call } = usual;
  const onTop =
    call === undefined ? undefined : pluralIn((ending) => own[ending] === undefined, { ...usual, call });
  const all = [onTop, ...inEndings.map(([, found]) => found)];
  if (!all.some((found) => found?.kind === "other")) return usual;
  // What one kind of file asks another lookup for, the usual one of the next does not know of by itself.
  const settled = (found: PluralCall | undefined) =>
    found === undefined || found.kind === "usual"
      ? {}
      : { plural: found.kind === "unseen" ? (false as const) : found.call };
  const endings = Object.fromEntries(
    inEndings.map(([ending, found]) => [ending, { ...own[ending], ...settled(found) }]),
  );
  return { ...usual, ...settled(onTop), ...(usual.endings && { endings }) };
}

const unseen: PluralCall = { kind: "unseen" };

/** How attributes fill in the pages of an ending, where they do. */
function fillsIn(code: readonly SourceFile[], ending: string): Fills | undefined {
  return code.find(({ file, dialect }) => dialect?.fills !== undefined && file.endsWith(ending))?.dialect
    ?.fills;
}

function usualEmission(
  uses: readonly LookupUse[],
  code: readonly SourceFile[],
): ProposedEmission | undefined {
  const endings = new Map<string, number>();
  for (const use of uses)
    for (const [ending, count] of use.endings) endings.set(ending, (endings.get(ending) ?? 0) + count);
  const forElements = uses.filter(takesElements);
  const plain = uses.filter((use) => !forElements.includes(use));
  const places = placesOf(code);
  const called = (isMeant: (ending: string) => boolean) =>
    withRich(writtenIn(plain, isMeant, places), writtenIn(forElements, isMeant, places));
  const ofComponents = new Set(
    code.flatMap(({ file, dialect }) => (dialect?.isComponent ? [posix.extname(file)] : [])),
  );
  // What scripts of components alone make for themselves is made in others like them.
  const inComponents = () => {
    const found = called((ending) => ofComponents.has(ending));
    return found?.setup === undefined ? undefined : found;
  };
  const scripts = called(isScriptEnding) ?? inComponents();
  const own: Record<string, EndingEmission> = {};
  for (const ending of [...endings.keys()].sort()) {
    if (isScriptEnding(ending)) continue;
    const called = (some: readonly LookupUse[]) => writtenIn(some, (one) => one === ending, places);
    // What works out its text when that is shown is for what is evaluated while a file is loaded.
    const eager = uses.filter((use) => !isNamedLazy(nameOf(use) ?? ""));
    const found =
      markupIn(uses, ending, fillsIn(code, ending)) ??
      shownHelper(uses, ending) ??
      called(eager) ??
      called(uses);
    if (!found) continue;
    const lazy = uses.length > eager.length ? called(uses.filter((use) => !eager.includes(use))) : undefined;
    // What components call is brought into their scripts, as into others.
    const written =
      shownMember(found, code, ending) ??
      shownAsSeen(found, uses, ending) ??
      withAttributes(forEnding(found), uses, ending);
    if (
      !("call" in written) ||
      written.call !== scripts?.call ||
      written.withValues?.call !== scripts?.withValues?.call
    )
      own[ending] = isLazy(written)
        ? { ...written, atLoad: true }
        : lazy && lazy.call !== found.call
          ? { ...written, atLoad: earlyCall(lazy) }
          : written;
  }
  const [first] = Object.entries(own);
  if (
    !scripts &&
    first &&
    Object.keys(own).length === 1 &&
    first[1].call !== undefined &&
    first[1].attribute === undefined &&
    first[1].import === undefined &&
    // What one language has, another does not know; and what templates have, scripts may not.
    isAllOfLanguage(code, first[0]) &&
    !code.some(({ file }) => isScript(file))
  )
    return { call: first[1].call, ...(first[1].withValues && { withValues: first[1].withValues }) };
  if (!scripts && !first) return undefined;
  const calls = new Set(plain.filter(isCall).flatMap((use) => [...use.endings.keys()]));
  // What scripts call is not known to be there in templates that never do.
  const silent = code.some(({ file, dialect }) => {
    const ending = posix.extname(file);
    return (
      dialect?.shown !== undefined &&
      !dialect.isComponent &&
      own[ending]?.call === undefined &&
      !calls.has(ending)
    );
  });
  if (scripts && silent) {
    const { setup, ...rest } = scripts;
    const scriptsOwn = Object.fromEntries(
      [...new Set(code.map(({ file }) => posix.extname(file)))]
        .filter(isScriptEnding)
        .sort()
        .map((ending) => [ending, Array.isArray(rest.import) ? { call: rest.call } : rest]),
    );
    if (setup === undefined && !Array.isArray(rest.import))
      return { endings: { ...scriptsOwn, ...own } as Readonly<Record<string, EndingEmission>> };
  }
  return { ...scripts, ...(first && { endings: own }) };
}

/** Whether what brings a lookup in says that it works out its text when that is shown: `lazy` is a word of its name. */
function isLazy({ import: line = "", call = "" }: WrittenLookup | EndingEmission): boolean {
  return isNamedLazy(String(line)) || isNamedLazy(/^[\w$.]*/.exec(call)?.[0] ?? "");
}

function isNamedLazy(words: string): boolean {
  return /(?:^|[^A-Za-z])lazy(?![a-z])|[a-z]Lazy(?![a-z])/.test(words);
}

function earlyCall({ call, import: line }: WrittenLookup): NonNullable<EndingEmission["atLoad"]> {
  return { call, ...(typeof line === "string" && { import: line }) };
}

/** Whether the programs and templates among some files that are of any language are of that of one ending: `.rb` beside `.erb`. */
function isAllOfLanguage(code: readonly SourceFile[], ending: string): boolean {
  const spoken = ({ file, dialect }: SourceFile) =>
    isScript(file) ? "script" : (dialect?.language ?? languageOf(file));
  const own = code.find(({ file }) => posix.extname(file) === ending);
  const language = own && spoken(own);
  return code.every((one) => {
    const other = spoken(one);
    return other === undefined || other === "expression" || other === language;
  });
}

/** Whether most calls of a lookup get functions that write elements: `rich("key", { link: (text) => <a>{text}</a> })`. */
function takesElements({ lookup, samples }: LookupUse): boolean {
  if (!("call" in lookup) || samples.length === 0) return false;
  const withElements = samples.filter(({ source: { text }, literal: { span } }) =>
    /^["'`]?\s{0,9},\s{0,9}\{[^;]{0,300}?=>\s{0,30}\(?\s{0,60}</.test(text.slice(span.end, span.end + 400)),
  );
  return withElements.length * 2 > samples.length;
}

function withRich(
  plain: WrittenLookup | undefined,
  rich: WrittenLookup | undefined,
): (Omit<WrittenLookup, "import"> & Pick<ProposedEmission, "rich" | "import">) | undefined {
  if (!plain || !rich) return plain;
  const lines = [plain.import, rich.import].flatMap((line) => line ?? []);
  const [only] = lines;
  return {
    ...plain,
    rich: rich.call,
    ...(only !== undefined && { import: lines.length > 1 ? lines : only }),
  };
}

/** A lookup for the files of one ending, which names what brings it in and not what makes it; several lines have no place there. */
function forEnding(found: WrittenLookup | EndingEmission): EndingEmission {
  const { import: line, ...written } = found;
  if ("setup" in written) delete written.setup;
  return { ...written, ...(typeof line === "string" && { import: line }) };
}

function isScriptEnding(ending: string): boolean {
  return isScript(`file${ending}`);
}

function isCall({ lookup }: LookupUse): boolean {
  return "call" in lookup || "maker" in lookup || "member" in lookup || "descriptor" in lookup;
}

/** What marks a text or key that another call looks up later: it gives it back as it is. */
const onlyMarks = /^N_$|[nN]oop$|(?:^|\.)mark(?:er|ed)?$|(?:^|[.a-z\d])[mM]ark(?:Key|Text|ForTranslation)$/;

/** The most frequent call of some files, as they write it. */
function writtenIn(
  uses: readonly LookupUse[],
  isMeant: (ending: string) => boolean,
  places: CodePlaces,
): WrittenLookup | undefined {
  const calls = uses.filter(isCall);
  const asking = calls.filter(({ lookup }) => !("call" in lookup && onlyMarks.test(lookup.call)));
  const counted = asking
    .map((use) => ({
      use,
      count: [...use.endings].reduce((sum, [one, n]) => sum + (isMeant(one) ? n : 0), 0),
      isOwn: isOfOneObject(use, isMeant),
    }))
    .filter(({ count }) => count > 0)
    .sort(
      (a, b) =>
        Number(a.isOwn) - Number(b.isOwn) ||
        Number(isForNumbers(a.use)) - Number(isForNumbers(b.use)) ||
        b.count - a.count,
    );
  // What is a part of one object is asked elsewhere only where hardly anything else is.
  const [first] = counted;
  if (first && counted.some(({ isOwn, count }) => isOwn && !first.isOwn && first.count * 20 < count))
    counted.sort((a, b) => b.count - a.count);
  for (const { use } of counted) {
    if ("member" in use.lookup) {
      // What a call gives is in a variable that has another name everywhere.
      if (use.shown.includes("()")) continue;
      const call = memberAsWritten(use, isMeant);
      // Keys of several parts in brackets each are not written by one pattern.
      if (call?.includes("{key}") !== true) continue;
      return {
        call,
        ...(use.import !== undefined && { import: use.import }),
        ...(use.setup !== undefined && { setup: use.setup }),
      };
    }
    const samples = use.samples.filter(({ source }) => isMeant(posix.extname(source.file)));
    // What stands before a text may be anything: only what is called as the lookup is counts.
    const name = nameOf(use)?.replace(/\W/g, "\\$&");
    const isCalled = name === undefined ? undefined : new RegExp(`(?<![\\w$])${name}(?![\\w$])`);
    const written = samples
      .flatMap((sample) => writtenAt(sample, places) ?? [])
      .filter(({ call }) => isCalled?.test(call) !== false);
    const counts = new Map<string, number>();
    for (const { call } of written) counts.set(call, (counts.get(call) ?? 0) + 1);
    const best = most(counts);
    const same = written.filter(({ call }) => call === best);
    const chosen =
      same
        .filter((one) => one.import !== undefined || one.setup !== undefined)
        // What makes the lookup alone is wanted, and nothing else that its maker gives.
        .sort((a, b) => (a.setup?.length ?? 0) - (b.setup?.length ?? 0))[0] ?? same[0];
    const made =
      chosen &&
      (use.textSyntax === undefined
        ? withText(
            withoutValues(
              withListBehind(withSameBehind(filledAround(chosen, samples), samples), samples),
              use,
              uses,
            ),
            use,
            uses,
          )
        : filledByLanguage(chosen, samples, use.textSyntax));
    const asked = asSymbol(made, use, isMeant);
    if (asked) return asked;
  }
  return undefined;
}

/** A lookup whose keys most files of Ruby write as symbols, written so: `say(:'{key}'{args})`; another as it is. */
function asSymbol(
  written: WrittenLookup | undefined,
  { lookup, symbols, endings }: LookupUse,
  isMeant: (ending: string) => boolean,
): WrittenLookup | undefined {
  const sum = (counts: ReadonlyMap<string, number>) =>
    [...counts].reduce((all, [ending, count]) => all + (isMeant(ending) ? count : 0), 0);
  if (!("call" in lookup) || sum(symbols) * 2 <= sum(endings)) return written;
  if (!written) return { call: `${lookup.call}(:'{key}'{args})` };
  return { ...written, call: written.call.replace(/(?<!:)(["'])\{key\}\1/, ":'{key}'") };
}

/** How most members of an object of texts are written in some files. */
function memberAsWritten({ written }: LookupUse, isMeant: (ending: string) => boolean): string | undefined {
  const counts = new Map<string, number>();
  for (const [ending, styles] of written ?? [])
    if (isMeant(ending))
      for (const [style, count] of styles) counts.set(style, (counts.get(style) ?? 0) + count);
  return most(counts);
}

/** Whether nearly all calls of a lookup get something else with the key, as one that chooses a form by a number does. */
function isForNumbers({ lookup, hits, valued }: LookupUse): boolean {
  return !("maker" in lookup) && valued * 5 > hits * 4;
}

/** Whether a lookup is asked of `this`, or of what the files that use it make for themselves. */
function isOfOneObject({ lookup, samples }: LookupUse, isMeant: (ending: string) => boolean): boolean {
  if (!("call" in lookup)) return false;
  const own = samples.filter(({ source }) => isMeant(posix.extname(source.file)));
  const [first] = own;
  const name = lookup.call.split(".", 1)[0] ?? "";
  if (name === "this" || !first || !isScript(first.source.file)) return name === "this";
  const made = new RegExp(
    `\\b(?:var|let|const)\\s(?:[^;={}()]{0,200},)?\\s{0,20}${name.replaceAll("$", "\\$")}\\s{0,9}=(?!\\s{0,9}require)`,
  );
  return lookup.call.includes(".") && own.every(({ source: { text } }) => made.test(text));
}
