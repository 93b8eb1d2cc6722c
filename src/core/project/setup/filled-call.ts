import type { SyntaxSetting } from "../../message/names.js";
import { delimitedParts, withoutQuoted } from "../../text/delimited.js";
import { readableText } from "../../source/model.js";
import { languageNamed, languageOf } from "../../source/languages/index.js";
import { isFormattedBehind } from "./filled-texts.js";
import {
  hasValueBehind,
  most,
  nameOf,
  takesNoNames,
  type LookupSample,
  type LookupUse,
} from "./lookup-use.js";
import type { WrittenLookup } from "./written-call.js";

/** A lookup that is given its text with its key, as the calls of it are: `say("{key}", "{text}"{args})`. */
export function withText(written: WrittenLookup, use: LookupUse, uses: readonly LookupUse[]): WrittenLookup {
  // What is made by a call takes what functions of its name take that are given.
  const own = uses.find((one) => "default" in one.lookup && givenName(one) === givenName(use)) ?? use;
  const { lookup } = own;
  const place = "default" in lookup ? lookup.default : undefined;
  if (place === undefined || ("call" in lookup && typeof place === "string")) return written;
  const property = typeof place === "string" ? `${place}: ` : "";
  if (typeof place === "number" && place !== (("key" in lookup && Number(lookup.key)) || 0) + 1)
    return written;
  return { ...written, call: written.call.replace(/(["'])\{key\}\1/, `$&, ${property}$1{text}$1`) };
}

/** Signs that mark the place of a value in texts, in whatever syntax. */
const placeSigns = /[%{}#@:]/;

/**
 * A lookup of a text by itself, which mostly gives it back as it is: with what its language fills such texts with where its calls
 * get no values; else texts with values have no place. Undefined where its calls get what nothing here knows.
 */
export function filledByLanguage(
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

/** What a call is given where it has no values for its message. */
const noValues = /^(?:null|nil|None|undefined|new\s+\w+\s?\[\]\s?\{\s?\}|new\s+\w+\s?\[0\]|\[\]|\{\})$/;

/** A value that is the same wherever a lookup is called, by its name: `locale`, `request.getLocale()`, `"harbor"`. */
const sameEverywhere =
  /^(?:\$?[A-Za-z_]\w{0,60}(?:(?:\??\.|->|::)\w{1,60}(?:\(\))?){0,4}|"[\w.-]{0,60}"|'[\w.-]{0,60}'|\d{1,9})$/;

/**
 * A lookup whose every call gets the same behind its key, with or without values: `messages.getMessage("{key}", null, locale)`. Where
 * values have a place of their own, they are written there; where none is seen, texts with values have no place.
 */
export function withSameBehind(written: WrittenLookup, samples: readonly LookupSample[]): WrittenLookup {
  const given = samples.map(argumentsBehind);
  const [first] = given;
  if (!first || given.length < 2 || !written.call.includes("{args}") || written.withValues) return written;
  const all = given.flatMap((one) => (one && one.length > 0 ? [one] : []));
  if (all.length < given.length) return written;
  const sameAt = (at: number) => {
    const value = first.at(at);
    return value !== undefined && sameEverywhere.test(value) && all.every((one) => one.at(at) === value);
  };
  const call = (behind: readonly string[]) => written.call.replace("{args}", () => `, ${behind.join(", ")}`);
  let ahead = 0;
  while (sameAt(ahead) && !noValues.test(first[ahead] ?? "")) ahead++;
  // The same value a few times may be one of the message's own; a locale is none.
  if (ahead > 0) {
    if (given.length < 5 && !/loc|lang/i.test(first[0] ?? "")) return written;
    const same = first.slice(0, ahead);
    const rest = all.some((one) => one.length > ahead) ? "{args}" : "";
    return { ...written, call: written.call.replace("{args}", () => `, ${same.join(", ")}${rest}`) };
  }
  let behind = 0;
  while (sameAt(-1 - behind)) behind++;
  const between = all.map((one) => one.slice(0, one.length - behind));
  const empty = between.find(([one]) => one !== undefined && noValues.test(one))?.[0];
  if (empty === undefined || between.some((one) => one.length !== 1)) return written;
  const last = behind === 0 ? [] : first.slice(-behind);
  const filled = between.flatMap(([one = ""]) => placeOfValues(one) ?? []).at(0);
  return {
    ...written,
    call: call([empty, ...last]),
    ...(filled !== undefined && { withValues: { call: call([filled, ...last]) } }),
  };
}

/**
 * The place for values in what a call gave its message: a list that holds them in order, `new Object[]{name, count}`, or what the
 * language writes itself, `['name' => $name]` and `{ name }`; undefined for a variable, and for lists whose values have no names.
 */
function placeOfValues(given: string): string | undefined {
  const [, list] = /^(new\s+\w+\s?\[\]\s?\{)(?=\s*[^\s}])[^]*\}$/.exec(given) ?? [];
  if (list !== undefined) return `${list}{values}}`;
  const isNamed =
    (given.startsWith("[") && given.endsWith("]") && given.includes("=>")) ||
    (given.startsWith("{") && given.endsWith("}") && !noValues.test(given));
  return isNamed ? "{values}" : undefined;
}

/** A list of values in their order, as code gives it alone behind a key: `[$name, $count]`, `array($name)`. */
const listInOrder = /^(\[|array\(\s?)(?=\s{0,9}[^\s\])])(?![^]*=>)[^]*?(\s?[\])])$/;

/** A lookup whose values, where its calls have some, are one list in their order: `say("{key}", [{values}])`. */
export function withListBehind(written: WrittenLookup, samples: readonly LookupSample[]): WrittenLookup {
  if (!written.call.includes("{args}") || written.withValues) return written;
  const given = samples.flatMap((sample) => {
    const parts = argumentsBehind(sample);
    return parts && parts.length > 0 ? [parts] : [];
  });
  const lists = given.flatMap((parts) =>
    parts.length === 1 ? (listInOrder.exec(parts[0] ?? "") ?? []) : [],
  );
  const [, open, close] = lists;
  if (open === undefined || close === undefined || lists.length < given.length * 3) return written;
  const call = (behind: string) => written.call.replace("{args}", () => behind);
  return { ...written, call: call(""), withValues: { call: call(`, ${open}{values}${close}`) } };
}

/** What a call gives behind its key, part by part; undefined where its end is not seen. */
function argumentsBehind({ source, literal }: LookupSample): readonly string[] | undefined {
  const behind = source.text.slice(literal.span.end, literal.span.end + 400);
  const blank = withoutQuoted(behind, "\"'", ({ start, end }) => "_".repeat(end - start));
  let depth = 0;
  for (let at = 0; at < blank.length; at++) {
    const unit = blank[at] ?? "";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit) && depth-- === 0)
      return delimitedParts(behind.slice(0, at).replace(/^\s*,/, "")).flatMap((part) => part.trim() || []);
  }
  return undefined;
}

/**
 * How code names the values of its texts, where that is with the marks that the texts themselves have: `%{name}%` for
 * `say("boat.late", ['%name%' => $name])`. Undefined where it is not, or in several ways.
 */
export function markedNames(uses: readonly LookupUse[], texts: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  let all = 0;
  for (const { samples } of uses)
    for (const { source, literal } of samples) {
      const behind = source.text.slice(literal.span.end, literal.span.end + 200).split(";", 1)[0] ?? "";
      for (const [, before = "", name = "", after = ""] of behind.matchAll(
        /["']([^\w\s"']{0,3})([A-Za-z]\w{0,60})([^\w\s"']{0,3})["']\s{0,3}(?:=>|:)/g,
      )) {
        all++;
        const written = before + name + after;
        if (before !== "" && texts.some((text) => text.includes(written)))
          counts.set(`${before}{name}${after}`, (counts.get(`${before}{name}${after}`) ?? 0) + 1);
      }
    }
  const marked = most(counts);
  return marked !== undefined && (counts.get(marked) ?? 0) * 5 >= all * 4 ? marked : undefined;
}

/** Of so many calls one would have values, if any had. */
export const enoughCalls = 20;

/** A lookup without room for values, where none of its many calls gets any: texts that have some stay where they are. */
export function withoutValues(
  written: WrittenLookup,
  use: LookupUse,
  uses: readonly LookupUse[],
): WrittenLookup {
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
export function filledAround(written: WrittenLookup, samples: readonly LookupSample[]): WrittenLookup {
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
