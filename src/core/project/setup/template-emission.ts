import type { Fills } from "../../source/dialects/dialect.js";
import { posix } from "node:path";
import { literally } from "../../text/key-pattern.js";
import type { SourceFile } from "../../source/model.js";
import { most, type LookupSample, type LookupUse } from "./lookup-use.js";
import { enoughCalls } from "./filled-call.js";
import { quoteOf, type WithValues, type WrittenLookup } from "./written-call.js";

export interface EndingEmission {
  readonly call?: string;
  readonly withValues?: WithValues;
  readonly plural?: string | false;
  readonly content?: string;
  readonly attribute?: string;
  readonly import?: string;
  readonly atLoad?: true | { readonly call: string; readonly import?: string };
}

/** A member of an object of texts as templates show it, where their language does not say how calls are. */
export function shownMember(
  { call }: WrittenLookup | EndingEmission,
  code: readonly SourceFile[],
  ending: string,
): EndingEmission | undefined {
  if (call === undefined || call.includes("(")) return undefined;
  const here = code.filter(({ file }) => posix.extname(file) === ending);
  const { shownMember: marks, membersInBrackets } =
    here.find(({ dialect }) => dialect?.shownMember)?.dialect ?? {};
  if (!marks) return undefined;
  const root = /^[\w$]+/.exec(call)?.[0] ?? "";
  const uses = (open: string) => here.reduce((sum, { text }) => sum + text.split(open + root).length - 1, 0);
  const [around = ["", ""]] = [...marks].sort(([a], [b]) => uses(b) - uses(a));
  const content = around.join(membersInBrackets ? call.replace(/\.\{key\}$/, "['{key}']") : call);
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
export function shownHelper(uses: readonly LookupUse[], ending: string): EndingEmission | undefined {
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

/** What stands behind the key of a call that is all that its marks show. */
const behindAlone = /^["'`]?(\s?)(,[^{}]{1,300})?\)(\s?)(?=\}|[~-]\})/;

/**
 * A call as the templates of an ending show it, where their language does not say how: some of its calls stand alone in the same
 * marks, or most of few. Values are passed by their names where one call does that.
 */
export function shownAsSeen(
  { call }: WrittenLookup | EndingEmission,
  uses: readonly LookupUse[],
  ending: string,
): EndingEmission | undefined {
  if (call?.includes("(") !== true) return undefined;
  const name = call.slice(0, call.indexOf("("));
  const counts = new Map<string, number>();
  let all = 0;
  let isNamed = false;
  for (const { samples } of uses)
    for (const { source, literal } of samples) {
      if (posix.extname(source.file) !== ending || source.dialect === undefined || source.dialect.shown)
        continue;
      const { text } = source;
      const before = text.slice(Math.max(literal.span.start - 120, 0), literal.span.start);
      if (!before.endsWith(`${name}(`)) continue;
      all++;
      const open = opening.exec(before.slice(0, -name.length - 1))?.[1] ?? "";
      const close = closings[open.trim()];
      const behind = behindAlone.exec(text.slice(literal.span.end - 1, literal.span.end + 400));
      if (close === undefined || !behind) continue;
      if (!text.startsWith(close, literal.span.end - 1 + behind[0].length)) continue;
      isNamed ||= /^,\s{0,9}\w{1,60}\s?=(?!=)/.test(behind[2] ?? "");
      const marks = `${open}\n${behind[3] ?? ""}${close}`;
      counts.set(marks, (counts.get(marks) ?? 0) + 1);
    }
  const best = most(counts);
  const count = best === undefined ? 0 : (counts.get(best) ?? 0);
  if (best === undefined || (count < enoughShown && count * 2 <= all)) return undefined;
  const content = best.split("\n").join(isNamed ? call : call.replace("{args}", ""));
  return { ...(isNamed && { call }), content, attribute: content };
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

/** What templates write for a filter or a tag. */
export function markupIn(
  uses: readonly LookupUse[],
  ending: string,
  fills: Fills | undefined,
): EndingEmission | undefined {
  const here = uses.filter(({ endings }) => (endings.get(ending) ?? 0) > 0);
  const counts = new Map(here.map((use) => [use, use.endings.get(ending) ?? 0]));
  const [main] = [...here].sort((a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0));
  if (!main) return undefined;
  const { lookup, samples } = main;
  if ("mark" in lookup) {
    const content = lookup.mark.replace("KEY", "{key}");
    return fills?.mark === lookup.mark
      ? { content: fills.content, attribute: fills.attribute, withValues: { content: fills.withValues } }
      : { content, attribute: content };
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
    const isGiven = inTags.some(({ source: { text }, literal: { span } }) =>
      /^["']?\s{1,9}\w{1,60}=(?!=)/.test(text.slice(span.end, span.end + 80)),
    );
    const content = `{% ${lookup.call} "{key}"${isGiven ? "{args}" : ""} %}`;
    const line = loadLine(inTags);
    return { content, attribute: content, ...(line !== undefined && { import: line }) };
  }
  if ("attribute" in lookup) return { content: `${lookup.attribute}="{key}"` };
  if (!("tag" in lookup)) return undefined;
  const content = `<${lookup.tag} ${lookup.key}="{key}"/>`;
  return { content, ...(lookup.tag.includes(":") && { attribute: content.replaceAll('"', "'") }) };
}

/** What stands before a call that gives an attribute's value, on a page and in a string of markup. */
const attributeBefore = /=\s?\\?["'](?:(?:<[?%]|\{\{)[=-]?[\w\s]{0,20}\(?|["']\s{0,9}[.+]\s{0,9})$/;

/** So many calls in attributes show which lookup they ask. */
const enoughAttributes = 10;

/**
 * A lookup for the files of one ending, with the one that attributes mostly ask where that is another: one that escapes what it
 * gives. Only where the marks that show an expression are known.
 */
export function withAttributes(
  written: EndingEmission,
  uses: readonly LookupUse[],
  ending: string,
): EndingEmission {
  const { call } = written;
  const name = call === undefined ? undefined : /^[\w$]+(?=\()/.exec(call)?.[0];
  const counts = new Map<string, number>();
  let marks: readonly [string, string] | undefined;
  for (const { lookup, samples, hits } of uses) {
    const own = samples.filter(({ source: { file } }) => posix.extname(file) === ending);
    if (!("call" in lookup) || !/^[\w$]+$/.test(lookup.call) || own.length === 0) continue;
    const before = ({ source: { text }, literal: { span } }: LookupSample) =>
      text.slice(Math.max(span.start - 60, 0), span.start).replace(/\(\s{0,9}$/, "");
    const inAttributes = own.filter((sample) => {
      const asked = before(sample);
      return asked.endsWith(lookup.call) && attributeBefore.test(asked.slice(0, -lookup.call.length));
    });
    marks ??= own.find(({ source }) => source.dialect?.shown)?.source.dialect?.shown;
    counts.set(lookup.call, Math.round((inAttributes.length / own.length) * hits));
  }
  const best = most(counts);
  if (call === undefined || name === undefined || best === undefined || best === name || !marks)
    return written;
  const asked = counts.get(best) ?? 0;
  if (asked < enoughAttributes || asked <= (counts.get(name) ?? 0) * 2) return written;
  const [open, close] = marks;
  const inMarks = (one: string) =>
    open + one.replace(new RegExp(`(?<![\\w$])${literally(name)}(?=\\()`), () => best) + close;
  const filled = written.withValues?.call;
  return {
    ...written,
    attribute: inMarks(call),
    ...(filled !== undefined && { withValues: { ...written.withValues, attribute: inMarks(filled) } }),
  };
}
