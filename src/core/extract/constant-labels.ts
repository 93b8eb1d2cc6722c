import { notices } from "../message/notices.js";
import { languageNamed } from "../source/languages/index.js";
import type { Literal, Obstacle, SourceFile } from "../source/model.js";
import type { TextEdit } from "../text/edits.js";
import type { Span } from "../text/span.js";
import type { Host } from "./hosts.js";

/**
 * What the constants of an enumeration are called: `GOOD("Good work")`. They are made once, before a locale is chosen, so each is
 * given its key, and the methods that hand its text out look that up. All of them or none, and only where nothing else reads
 * the field: then every text that leaves the class is the one that left it before.
 */
export interface Labels {
  readonly members: readonly Literal[];
  /** What turns a method that hands the field out into one that looks its text up. */
  readonly reads: readonly TextEdit[];
}

/** The labels that a literal is one of; why they stay as they are; undefined where it is no such label. */
export function labelsOf(source: SourceFile, literal: Literal, host: Host): Labels | Obstacle | undefined {
  const { context, span } = literal;
  const { labelsConstants } = languageNamed(context.language) ?? {};
  if (!labelsConstants || context.role !== "property" || context.name === undefined) return undefined;
  const code = withoutWords(source);
  const body = enumAround(code, span);
  if (!body) return undefined;
  const found = fieldOf(code, body, context.name);
  if (!found) return say("label-kept", {});
  const { constants, field, own } = found;
  const members = source.literals.filter(
    (one) =>
      one.context.role === "property" &&
      one.context.name === context.name &&
      constants.start <= one.span.start &&
      one.span.end <= constants.end,
  );
  // Each constant must give a text: what is none would be looked up as well.
  if (
    members.length !== found.count ||
    members.some(({ form, pieces }) => form !== "string" || pieces.length > 1)
  )
    return say("label-mixed", {});
  const call = lookupOf(host, field);
  if (call === undefined) return say("label-kept", {});
  const reads: TextEdit[] = [];
  const mention = new RegExp(`(?<![\\w$])(?:this\\s?\\.\\s?)?${field}(?![\\w$]|\\s?\\()`, "g");
  for (const { 0: all, index } of code.slice(body.start, body.end).matchAll(mention)) {
    const start = body.start + index;
    const end = start + all.length;
    if (own.some((one) => one.start <= start && end <= one.end)) continue;
    if (
      !/\breturn\s+$/.test(code.slice(Math.max(0, start - 40), start)) ||
      !/^\s*;/.test(code.slice(end, end + 40))
    )
      return say("label-read", { line: source.lines.position(start).line });
    reads.push({ start, end, replacement: call });
  }
  // A class around it may read what is private here.
  const outer = new RegExp(`(?<!(?<![\\w$])this)\\s?\\.\\s?${field}(?![\\w$]|\\s?\\()`).exec(
    code.slice(0, body.start) + " ".repeat(body.end - body.start) + code.slice(body.end),
  );
  if (outer) return say("label-read", { line: source.lines.position(outer.index).line });
  return reads.length > 0 ? { members, reads } : say("label-kept", {});
}

const blanked = new WeakMap<SourceFile, string>();

/** Code with its comments and what strings hold blanked out, each unit in its place. */
function withoutWords(source: SourceFile): string {
  const known = blanked.get(source);
  if (known !== undefined) return known;
  const { text } = source;
  let code = "";
  let at = 0;
  for (const { 0: open, index } of text.matchAll(/"""|["']|\/[*/]/g)) {
    if (index < at) continue;
    const inner = index + open.length;
    const [from, to] =
      open === "//"
        ? [index, endAt(text, "\n", inner)]
        : open === "/*"
          ? [index, endAt(text, "*/", inner) + 2]
          : [inner, endOfString(text, open, inner)];
    const after = open.startsWith("/") ? to : to + open.length;
    code += text.slice(at, from) + text.slice(from, to).replace(/[^\n]/g, " ") + text.slice(to, after);
    at = after;
  }
  code += text.slice(at);
  blanked.set(source, code);
  return code;
}

function endAt(text: string, mark: string, from: number): number {
  const found = text.indexOf(mark, from);
  return found < 0 ? text.length : found;
}

function endOfString(text: string, quote: string, from: number): number {
  let end = from;
  while (end < text.length && !text.startsWith(quote, end)) end += text[end] === "\\" ? 2 : 1;
  return Math.min(end, text.length);
}

/** The innermost enumeration around a place, from its name to the end of its braces. */
function enumAround(
  code: string,
  { start, end }: Span,
): (Span & { readonly name: string; readonly open: number }) | undefined {
  let found: (Span & { readonly name: string; readonly open: number }) | undefined;
  for (const { 0: head, 1: name = "", index } of code.matchAll(/\benum\s+(\w{1,80})[^{};]{0,80}\{/g)) {
    const open = index + head.length;
    const close = closing(code, open);
    if (close !== undefined && open <= start && end <= close)
      found = { name, start: index, open, end: close };
  }
  return found;
}

/** Where the braces close that are open before a place. */
function closing(code: string, from: number): number | undefined {
  let depth = 1;
  for (let at = from; at < code.length; at++) {
    if (code[at] === "{") depth++;
    else if (code[at] === "}" && --depth === 0) return at;
  }
  return undefined;
}

/** The private field that a constructor keeps a parameter in, and nothing else of it. */
function fieldOf(
  code: string,
  { name, open, end }: Span & { readonly name: string; readonly open: number },
  parameter: string,
):
  | {
      readonly constants: Span;
      readonly count: number;
      readonly field: string;
      /** The places of the field and the parameter that are part of all this. */
      readonly own: readonly Span[];
    }
  | undefined {
  const inside = code.slice(open, end);
  const last = inside.indexOf(";");
  if (last < 0) return undefined;
  const constants = { start: open, end: open + last };
  const heads = [
    ...inside.slice(last).matchAll(new RegExp(`(?<![\\w.])${name}\\s?\\(([^()]{1,300})\\)\\s*\\{`, "g")),
  ];
  const [head] = heads;
  if (!head || heads.length > 1) return undefined;
  const listed = (head[1] ?? "").split(",").map((one) => one.trim());
  if (!listed.some((one) => new RegExp(`^(?:final\\s+)?String\\s+${parameter}$`).test(one))) return undefined;
  const from = open + last + head.index;
  const to = closing(code, from + head[0].length);
  if (to === undefined) return undefined;
  const made = code.slice(from + head[0].length, to);
  const kept = new RegExp(
    `(?:(?<=[\\s;{])this\\s?\\.\\s?(\\w+)|(?<![\\w.])(?!${parameter}\\b)(\\w+))\\s?=\\s?${parameter}\\s?;`,
  ).exec(made);
  const field = kept?.[1] ?? kept?.[2];
  if (!kept || field === undefined) return undefined;
  const others = (made.slice(0, kept.index) + made.slice(kept.index + kept[0].length)).replace(
    /this\s?\.\s?\w+/g,
    "",
  );
  if (new RegExp(`(?<![\\w$])(?:${parameter}|${field})(?![\\w$])`).test(others)) return undefined;
  const declared = new RegExp(`\\bprivate\\s+(?:final\\s+)?String\\s+${field}\\s?;`).exec(inside);
  if (!declared) return undefined;
  const depths = inside.slice(0, last);
  let depth = 0;
  let count = 0;
  for (const { 0: unit, index } of depths.matchAll(/[(){}]|(?<!\w)\w{1,200}(?=\s?\()/g)) {
    if (unit === "(" || unit === "{") depth++;
    else if (unit === ")" || unit === "}") depth--;
    else if (depth === 0 && !/@$/.test(depths.slice(0, index))) count++;
  }
  return {
    constants,
    count,
    field,
    own: [
      { start: from, end: to },
      { start: open + declared.index, end: open + declared.index + declared[0].length },
    ],
  };
}

/** The lookup of what a field holds, by the book's template; undefined where it takes a key in quotes alone. */
function lookupOf({ call }: Host, field: string): string | undefined {
  if (call === undefined || !/(["'])\{key\}\1/.test(call)) return undefined;
  return call.replace(/(["'])\{key\}\1/, () => field).replace(/,?\s?\{(?:args|values)\}/, "");
}

const say = notices("extract", {
  "label-kept": {
    message: "it is kept in a constant that is made before a locale is chosen",
    remedy: "keep its key there in a private field, and look it up in the method that hands it out",
  },
  "label-mixed": {
    message: "not all constants beside it are given a plain text",
    remedy: "give all of them one, or move them by hand",
  },
  "label-read": {
    message: "line {line, number} reads the field that holds it, and does more than to hand it out",
    remedy: "let that use the method that hands it out, then extract again",
  },
});
