import { posix } from "node:path";
import type { SyntaxSetting } from "../../message/names.js";
import { readableText, type Literal, type SourceFile } from "../../source/model.js";
import { keyName } from "../../source/bound-key.js";
import { languageNamed, languageOf } from "../../source/languages/index.js";
import { isScript } from "../../source/readers/script/endings.js";
import { isFormattedBehind } from "./filled-texts.js";
import { boundNames, importLine } from "./bound-names.js";
import {
  hasValueBehind,
  most,
  nameOf,
  takesNoNames,
  type LookupSample,
  type LookupUse,
} from "./lookup-use.js";

/** What extraction writes, as the code that is there looks texts up. */
export interface ProposedEmission {
  readonly call?: string;
  /** The same for text with elements in it. */
  readonly rich?: string;
  readonly import?: string | readonly string[];
  readonly setup?: string;
  readonly withValues?: WithValues;
  readonly endings?: Readonly<Record<string, EndingEmission>>;
}

/** What is written for texts with values, where it is something else. */
export interface WithValues {
  readonly call?: string;
  readonly content?: string;
  readonly attribute?: string;
}

export interface EndingEmission {
  readonly call?: string;
  readonly withValues?: WithValues;
  readonly content?: string;
  readonly attribute?: string;
  readonly import?: string;
  readonly atLoad?: true;
}

/** How a lookup is written in one place: the expression, and what brings its function in. */
interface WrittenLookup {
  readonly call: string;
  readonly withValues?: WithValues;
  readonly import?: string | readonly string[];
  readonly setup?: string;
}

/** The emission that goes by the lookups of a book; undefined where none can be taken as a pattern. */
export function emissionOf(
  uses: readonly LookupUse[],
  code: readonly SourceFile[],
): ProposedEmission | undefined {
  const endings = new Map<string, number>();
  for (const use of uses)
    for (const [ending, count] of use.endings) endings.set(ending, (endings.get(ending) ?? 0) + count);
  const forElements = uses.filter(takesElements);
  const plain = uses.filter((use) => !forElements.includes(use));
  const packages = packagesOf(code);
  const scripts = withRich(
    writtenIn(plain, isScriptEnding, packages),
    writtenIn(forElements, isScriptEnding, packages),
  );
  const own: Record<string, EndingEmission> = {};
  for (const ending of [...endings.keys()].sort()) {
    if (isScriptEnding(ending)) continue;
    const found =
      markupIn(uses, ending) ??
      shownHelper(uses, ending) ??
      writtenIn(uses, (one) => one === ending, packages);
    if (!found) continue;
    // What components call is brought into their scripts, as into others.
    const written = shownMember(found, code, ending) ?? shownAsSeen(found, uses, ending) ?? forEnding(found);
    if (
      !("call" in written) ||
      written.call !== scripts?.call ||
      written.withValues?.call !== scripts?.withValues?.call
    )
      own[ending] = isLazy(written) ? { ...written, atLoad: true } : written;
  }
  const [first] = Object.entries(own);
  if (
    !scripts &&
    first &&
    Object.keys(own).length === 1 &&
    first[1].call !== undefined &&
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
function isLazy({ import: line = "" }: WrittenLookup | EndingEmission): boolean {
  return /(?:^|[^A-Za-z])lazy(?![a-z])|[a-z]Lazy(?![a-z])/.test(String(line));
}

/** A member of an object of texts as templates show it, where their language does not say how calls are. */
function shownMember(
  { call }: WrittenLookup | EndingEmission,
  code: readonly SourceFile[],
  ending: string,
): EndingEmission | undefined {
  if (call === undefined || call.includes("(")) return undefined;
  const around = code.find(({ file, dialect }) => posix.extname(file) === ending && dialect?.shownMember)
    ?.dialect?.shownMember;
  if (!around) return undefined;
  const content = around.join(call);
  return { content, attribute: content };
}

/** What opens and closes a place of a template that shows something, around a call without values. */
const opening = /(\{\{[{~-]?\s?|\{(?=\$))$/;
const closings: Readonly<Record<string, string>> = {
  "{{{": "}}}",
  "{{~": "~}}",
  "{{-": "-}}",
  "{{": "}}",
  "{": "}",
};

/** So many calls in the same marks show how one is put into a template. */
const enoughShown = 3;

/** A helper as the templates of an ending show it: `{{say "{key}"{args}}}`. */
function shownHelper(uses: readonly LookupUse[], ending: string): EndingEmission | undefined {
  const counts = new Map<string, number>();
  let all = 0;
  let isGiven = false;
  for (const { lookup, samples } of uses)
    for (const { source, literal } of samples) {
      if (!("call" in lookup) || posix.extname(source.file) !== ending) continue;
      if (source.dialect?.language !== "expression") continue;
      all++;
      const { text } = source;
      const { start, end } = literal.span;
      const [, open] = /(\{\{~?\s?[\w./-]{1,60} )$/.exec(text.slice(Math.max(start - 80, 0), start)) ?? [];
      if (open === undefined || !open.trim().endsWith(lookup.call)) continue;
      isGiven ||= /^["']?\s{1,9}\w{1,60}=/.test(text.slice(end, end + 80));
      const quote = quoteOf(literal, text);
      const blank = /^\{\{~?\s/.test(open) ? " " : "";
      const content = `${open}${quote}{key}${quote}{args}${blank}}}`;
      counts.set(content, (counts.get(content) ?? 0) + 1);
    }
  const best = most(counts);
  if (best === undefined || (counts.get(best) ?? 0) * 2 <= all) return undefined;
  const content = isGiven || all < enoughCalls ? best : best.replace("{args}", "");
  return { content, attribute: content };
}

/** A call as the templates of an ending show it, where their language does not say how: some of its calls stand alone in the same marks. */
function shownAsSeen(
  { call }: WrittenLookup | EndingEmission,
  uses: readonly LookupUse[],
  ending: string,
): EndingEmission | undefined {
  if (call?.includes("(") !== true) return undefined;
  const name = call.slice(0, call.indexOf("("));
  const counts = new Map<string, number>();
  for (const { samples } of uses)
    for (const { source, literal } of samples) {
      if (posix.extname(source.file) !== ending || source.dialect === undefined || source.dialect.shown)
        continue;
      const { text } = source;
      const before = text.slice(Math.max(literal.span.start - 120, 0), literal.span.start);
      if (!before.endsWith(`${name}(`)) continue;
      const open = opening.exec(before.slice(0, -name.length - 1))?.[1] ?? "";
      const close = closings[open.trim()];
      const behind = /^["'`]?(\s?)\)(\s?)/.exec(text.slice(literal.span.end - 1, literal.span.end + 4));
      if (close === undefined || !behind) continue;
      if (!text.startsWith(close, literal.span.end - 1 + behind[0].length)) continue;
      const marks = `${open}\n${behind[2] ?? ""}${close}`;
      counts.set(marks, (counts.get(marks) ?? 0) + 1);
    }
  const best = most(counts);
  if (best === undefined || (counts.get(best) ?? 0) < enoughShown) return undefined;
  const content = best.split("\n").join(call.replace("{args}", ""));
  return { content, attribute: content };
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

/** The line that all templates have that use a tag: `{% load words %}`. */
function loadLine(samples: readonly LookupSample[]): string | undefined {
  const files = new Set(samples.map(({ source }) => source));
  const counts = new Map<string, number>();
  for (const { text, dialect } of files) {
    const names = dialect?.imports?.namesIn?.(text) ?? [];
    for (const name of new Set(names)) counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  // Nothing says which of those that all have brings the tag in.
  const names = [...counts].filter(([, count]) => count === files.size).map(([name]) => name);
  return names.length > 0 ? `{% load ${names.join(" ")} %}` : undefined;
}

/** What marks a text that another call looks up later, as gettext has it. */
const onlyMarks = /^N_$|gettext_noop$/;

/** The most frequent call of some files, as they write it. */
function writtenIn(
  uses: readonly LookupUse[],
  isMeant: (ending: string) => boolean,
  packages: ReadonlySet<string>,
): WrittenLookup | undefined {
  const calls = uses.filter(isCall);
  const asking = calls.filter(({ lookup }) => !("call" in lookup && onlyMarks.test(lookup.call)));
  const counted = (asking.length > 0 ? asking : calls)
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
      .flatMap((sample) => writtenAt(sample, packages) ?? [])
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
        ? withText(withoutValues(filledAround(chosen, samples), use, uses), use, uses)
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

/** A lookup that is given its text with its key, as the calls of it are: `say("{key}", "{text}"{args})`. */
function withText(written: WrittenLookup, use: LookupUse, uses: readonly LookupUse[]): WrittenLookup {
  // What is made by a call takes what functions of its name take that are given.
  const own = uses.find((one) => "default" in one.lookup && givenName(one) === givenName(use)) ?? use;
  const { lookup } = own;
  const place = "default" in lookup ? lookup.default : undefined;
  if (place === undefined) return written;
  const property = typeof place === "string" ? `${place}: ` : "";
  if (typeof place === "number" && place !== (("key" in lookup && Number(lookup.key)) || 0) + 1)
    return written;
  return { ...written, call: written.call.replace(/(["'])\{key\}\1/, `$&, ${property}$1{text}$1`) };
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

/** Signs that mark the place of a value in texts, in whatever syntax. */
const placeSigns = /[%{}#@:]/;

/**
 * A lookup of a text by itself, which mostly gives it back as it is: with what its language fills such texts with where its calls
 * get no values; else texts with values have no place. Undefined where its calls get what nothing here knows.
 */
function filledByLanguage(
  written: WrittenLookup,
  samples: readonly LookupSample[],
  syntax: SyntaxSetting,
): WrittenLookup | undefined {
  const counts = new Map<string, number>();
  for (const one of samples) {
    const behind = behindKey(one);
    if (behind !== undefined) counts.set(behind, (counts.get(behind) ?? 0) + 1);
  }
  const shared = most(counts) ?? "";
  const isShared = (counts.get(shared) ?? 0) * 10 >= samples.length * 8;
  const hasMore = ({ source, literal }: LookupSample) => hasValueBehind(source, literal);
  const plain = samples.filter(({ literal: { pieces } }) => !placeSigns.test(readableText(pieces)));
  // What texts without values get as well is something else.
  const isGivenMore = plain.filter(hasMore).length * 5 > plain.length;
  if (isGivenMore && !isShared) return undefined;
  if (!isGivenMore && samples.filter(hasMore).length * 20 > samples.length) return written;
  // What nearly all of them get as well is written: the name of a domain, or of a page.
  const call = written.call.replace("{args}", () => (isShared ? shared : ""));
  const [first] = samples;
  const { fillers = {} } = (first && languageNamed(languageOf(first.source.file) ?? "")) ?? {};
  const filler = typeof syntax === "string" ? fillers[syntax] : undefined;
  if (filler === undefined) return { ...written, call };
  return { ...written, call, withValues: { call: filler.replace("{call}", () => call) } };
}

/**
 * What a call gives behind its key, where that is constants, or variables as PHP marks them, alone: `, "harbor"`; an empty string for
 * nothing, and undefined for all else. Whether such a variable is known is looked at wherever the call is written.
 */
function behindKey({ source, literal }: LookupSample): string | undefined {
  const behind = source.text.slice(literal.span.end, literal.span.end + 160);
  const given =
    /^((?:\s{0,9},\s{0,9}(?:"[^"\\$\n]{0,60}"|'[^'\\\n]{0,60}'|\$\w{1,60}|\d{1,9}|true|false|null|nil|none)){0,3})\s{0,9},?\s{0,9}\)/i.exec(
      behind,
    )?.[1];
  if (given === undefined) return undefined;
  const parts = given.split(",").flatMap((part) => part.trim() || []);
  return parts.map((part) => `, ${part}`).join("");
}

/** Of so many calls one would have values, if any had. */
const enoughCalls = 20;

/** A lookup without room for values, where none of its many calls gets any: texts that have some stay where they are. */
function withoutValues(written: WrittenLookup, use: LookupUse, uses: readonly LookupUse[]): WrittenLookup {
  const { hits, valued } = use;
  // What a function is given, another makes under the same name.
  const isGivenSome = valued > 0 || uses.some((one) => one.valued > 0 && givenName(one) === givenName(use));
  const hasRoom = hits < enoughCalls || isGivenSome || written.withValues;
  return hasRoom && !takesNoNames(use) ? written : { ...written, call: written.call.replace("{args}", "") };
}

/** The name under which code calls a lookup; undefined for what is no call. */
function givenName(use: LookupUse): string | undefined {
  const { lookup } = use;
  return "maker" in lookup ? lookup.gives : nameOf(use);
}

/** A lookup that gets no values anywhere, with the call that fills its text: `format(texts.getString("{key}"), {values})`. */
function filledAround(written: WrittenLookup, samples: readonly LookupSample[]): WrittenLookup {
  const around = new Map<string, number>();
  const [first] = samples;
  const language = first && languageNamed(languageOf(first.source.file) ?? "");
  for (const { source, literal } of samples) {
    const behind = source.text.slice(literal.span.end, literal.span.end + 40);
    // Values behind the key are its own.
    if (/^\s*,/.test(behind)) return written;
    if (!/^\s*\)\s*,/.test(behind)) continue;
    const before = source.text.slice(Math.max(literal.span.start - 200, 0), literal.span.start);
    const filler =
      /(?<![\w$.])([A-Za-z_$][\w$]{0,60}(?:(?:\.|->|::)[A-Za-z_$][\w$]{0,60}){0,4})\(\s{0,99}[\w$.>:-]{1,200}\(\s{0,9}(?:[\w$.]{1,40}\s{0,9},\s{0,9}){0,3}$/.exec(
        before,
      )?.[1];
    if (filler !== undefined && !/^(?:console|log|logger|print|println|echo|alert)\b/i.test(filler))
      around.set(filler, (around.get(filler) ?? 0) + 1);
  }
  const call = written.call.replace("{args}", "");
  const behind = samples.some(isFormattedBehind) ? language?.fillers?.["brace-field"] : undefined;
  if (behind !== undefined)
    return { ...written, call, withValues: { call: behind.replace("{call}", () => call) } };
  // What its language fills such texts with is named in full, and needs no import.
  if (language?.keyAlone?.test(/^[^(]*/.exec(call)?.[0] ?? "")) return { ...written, call };
  const filler = most(around);
  if (filler !== undefined && language?.grammar.formats[filler] === 0)
    return { ...written, call, withValues: { call: `${filler}(${call}, {values})` } };
  return written;
}

/** A call with the key taken out: `say("{key}"{args})`; its other arguments stay where they come before the key. */
function writtenAt(
  { source, literal, bound }: LookupSample,
  packages: ReadonlySet<string>,
): WrittenLookup | undefined {
  const { text } = source;
  const before = text.slice(Math.max(literal.span.start - 200, 0), literal.span.start);
  const [, callee, given] =
    /(?<![\w$@])([$@]{0,2}[A-Za-z_][\w$]{0,60}(?:(?:\??\.|->|::)[A-Za-z_$][\w$]{0,60}){0,4})\(\s{0,9}((?:[\w$.]{1,40}\s{0,9},\s{0,9}){0,3})$/.exec(
      before,
    ) ??
    /(?<![\w$.])([A-Za-z_]\w*)( )$/.exec(before) ??
    // A key in an object: say({ id: "cart.title" })
    /(?<![\w$])([A-Za-z_$][\w$]{0,60}(?:\.[A-Za-z_$][\w$]{0,60}){0,4})\(\s{0,99}(\{\s{0,99}[\w$]{1,40}\s{0,9}:\s{0,9})$/.exec(
      before,
    ) ??
    // A tag of a template: t`…`
    (text[literal.span.start] === "`" ? /(?<![\w$.])([A-Za-z_$][\w$]{0,60})()$/.exec(before) : null) ??
    [];
  if (callee === undefined || given === undefined) return undefined;
  const quote = quoteOf(literal, text);
  const isTag = text[literal.span.start] === "`" && before.endsWith(callee);
  const others =
    given.trim() === ""
      ? ""
      : given
          .split(",")
          .map((one) => one.trim())
          .join(", ");
  const property = /^\{\s*([\w$]+)/.exec(given)?.[1];
  const around = before.slice(0, before.length - callee.length - 1 - given.length);
  if (property === undefined && text[literal.span.end] === ")" && givenAsKey.test(around))
    return writtenAround(
      source,
      around,
      `${callee}(${quoteOf(literal, text)}{key}${quoteOf(literal, text)})`,
      callee,
    );
  const call =
    property !== undefined
      ? `${callee}({ ${property}: ${quote}{key}${quote} }{args})`
      : isTag
        ? `${callee}\`{key}\``
        : `${callee}(${others}${quote}{key}${quote}{args})`;
  const name = callee.split(/\??\.|->|::/, 1)[0] ?? callee;
  if (!/^[\w$]+$/.test(name) || name === "this") return { call };
  if (bound) {
    if (bound.hasArguments) return undefined;
    const line = importLine(source.file, text, bound.maker.split(".", 1)[0] ?? "");
    return { call, ...(line !== undefined && { import: line }), setup: bound.statement };
  }
  const line =
    isScript(source.file) || boundNames(source).size > 0
      ? importLine(source.file, text, name)
      : otherImport(source, name, packages);
  return { call, ...(line !== undefined && { import: line }) };
}

function quoteOf({ span }: Literal, text: string): string {
  return text[span.start] === "'" ? "'" : '"';
}

/** What stands before a call that makes a key, and no text: the property of an object that asks for one. */
const givenAsKey = new RegExp(`(?<![\\w$])${keyName}\\s{0,9}(?::|=\\s{0,9}\\{)\\s{0,99}$`);

/** The lookup around a call that makes its key: `say({ id: keyOf("cart.title") })`; undefined where none is seen. */
function writtenAround(
  source: SourceFile,
  before: string,
  key: string,
  maker: string,
): WrittenLookup | undefined {
  const { file, text } = source;
  const [, callee, property] =
    /(?<![\w$.])([A-Za-z_$][\w$]{0,60})\(\s{0,99}\{\s{0,99}([\w$]{1,40})\s{0,9}:\s{0,99}$/.exec(before) ?? [];
  if (callee === undefined || property === undefined) return undefined;
  const bound = boundNames(source).get(callee);
  if (bound?.hasArguments) return undefined;
  const root = (name: string) => name.split(".", 1)[0] ?? name;
  const lines = [root(maker), root(bound?.maker ?? callee)].map((name) => importLine(file, text, name));
  const [first, second] = lines;
  if (first === undefined || second === undefined) return undefined;
  return {
    call: `${callee}({ ${property}: ${key} }{args})`,
    import: [first, second],
    ...(bound && { setup: bound.statement }),
  };
}

/** The line of another language that brings a name in. */
function otherImport(
  { text, file }: SourceFile,
  name: string,
  packages: ReadonlySet<string>,
): string | undefined {
  const escaped = name.replace(/\$/g, "\\$");
  const line = new RegExp(
    `^(?:from\\s+\\S{1,200}\\s+import\\s+(?:[\\w, ]{0,200}\\b)?${escaped}(?!\\w)(?!\\s+as\\b)[\\w, ]{0,200}|import\\s+(?:static\\s+)?[\\w.]{1,200}\\.${escaped};|using\\s+[\\w.]{1,200};)[ \\t]*$`,
    "m",
  ).exec(text)?.[0];
  if (line === undefined) return undefined;
  // Of several names that a line brings in, the others are not wanted everywhere.
  if (!line.startsWith("from")) return line.trim();
  const renamed = new RegExp(`(\\w{1,60})\\s+as\\s+${escaped}(?!\\w)`).exec(line)?.[0];
  const short = line.replace(/\bimport\s+.*/, `import ${renamed ?? name}`);
  const [whole = "", dots] = /^from\s+(\.+)/.exec(short) ?? [];
  if (dots === undefined) return short;
  // What is relative to one file is another module in the next folder.
  const holder = packageOf(posix.dirname(file), packages).slice(
    0,
    dots.length === 1 ? undefined : 1 - dots.length,
  );
  const rest = short.slice(whole.length);
  if (holder.length === 0) return undefined;
  return `from ${holder.join(".")}${/^\s/.test(rest) ? "" : "."}${rest}`;
}

/** The folders that are packages of Python by the file that makes them one (The Python Language Reference, 5.2.1). */
function packagesOf(code: readonly SourceFile[]): ReadonlySet<string> {
  return new Set(
    code.flatMap(({ file }) => (posix.basename(file) === "__init__.py" ? [posix.dirname(file)] : [])),
  );
}

/** The package that a folder is, by its names from the outermost one; none where the folder is no package. */
function packageOf(folder: string, packages: ReadonlySet<string>): readonly string[] {
  const names: string[] = [];
  for (let at = folder; at !== "." && packages.has(at); at = posix.dirname(at))
    names.unshift(posix.basename(at));
  return names;
}

/** What templates write for a filter or a tag. */
function markupIn(uses: readonly LookupUse[], ending: string): EndingEmission | undefined {
  const here = uses.filter(({ endings }) => (endings.get(ending) ?? 0) > 0);
  const counts = new Map(here.map((use) => [use, use.endings.get(ending) ?? 0]));
  const [main] = [...here].sort((a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0));
  if (!main) return undefined;
  const { lookup, samples } = main;
  if ("mark" in lookup) {
    const content = lookup.mark.replace("KEY", "{key}");
    return { content, attribute: content };
  }
  if ("filter" in lookup) {
    const isBinding = samples.some(({ source, literal }) =>
      /\[[\w.-]{1,60}\]\s*=\s*"\s*$/.test(
        source.text.slice(Math.max(literal.span.start - 80, 0), literal.span.start),
      ),
    );
    const own = samples.find(({ source: { file } }) => posix.extname(file) === ending)?.source.dialect;
    const { open, bar, close } = own?.filtered ?? { open: "{{ ", bar: " | ", close: " }}" };
    const written = (behind: string) => {
      const content = `${open}'{key}'${bar}${lookup.filter}${behind}${close}`;
      return { content, attribute: isBinding ? `[{name}]="'{key}' | ${lookup.filter}${behind}"` : content };
    };
    const takesObject = samples.some(({ source, literal }) =>
      /^\s{0,9}\|\s{0,9}[\w$]{1,60}\s{0,9}:\s{0,9}\{/.test(
        source.text.slice(literal.span.end, literal.span.end + 100),
      ),
    );
    return { ...written(""), ...(takesObject && { withValues: written(":{values}") }) };
  }
  if ("call" in lookup) {
    // A tag of a template's own language: `{% trans "All crossings" %}`.
    const tag = new RegExp(`\\{%-?\\s{0,9}${lookup.call.replace(/\W/g, "\\$&")}\\s{1,9}$`);
    const inTags = samples.filter(
      ({ source: { file, text }, literal: { span } }) =>
        posix.extname(file) === ending && tag.test(text.slice(Math.max(span.start - 80, 0), span.start)),
    );
    if (inTags.length * 2 <= (counts.get(main) ?? 0)) return undefined;
    const content = `{% ${lookup.call} "{key}" %}`;
    const line = loadLine(inTags);
    return { content, attribute: content, ...(line !== undefined && { import: line }) };
  }
  if ("attribute" in lookup) return { content: `${lookup.attribute}="{key}"` };
  if (!("tag" in lookup)) return undefined;
  const content = `<${lookup.tag} ${lookup.key}="{key}"/>`;
  return { content, ...(lookup.tag.includes(":") && { attribute: content.replaceAll('"', "'") }) };
}
