import { notices } from "../../../message/notices.js";
import { closeOf } from "../../../text/brackets.js";
import { lazily } from "../../../text/lazy.js";
import type { Literal, LiteralContext, Lookup, LookupKey, LookupShapes, Piece } from "../../model.js";
import { holdsMarkup } from "../../../text/html-elements.js";
import { quotedIn, withoutQuoted, type Quoted } from "../../../text/delimited.js";
import { nameFromCode, uniqueNames } from "../expression-names.js";
import { chosenByNumber } from "./chosen-by-number.js";
import { joinedIn, type Joined } from "./joined.js";
import { readScript } from "../script/script.js";
import { shiftLiteral, shiftLookup } from "../shift.js";

const say = notices("extract", {
  "joined-open": {
    message: "other operators stand behind what is joined, and may be done with all of it",
    remedy: "put brackets around what belongs together, or move the text by hand",
  },
  "joined-words": {
    message: "it is joined with words that are a part of the sentence",
    remedy: "write each whole sentence as a text of its own",
  },
  "string-markup": {
    message: "it has elements in a string, and the template may escape what takes its place",
    remedy: "move the markup out of the string, or the text by hand",
  },
  "filled-pattern": {
    message: "the template fills values into it",
    remedy: "write the values into the text as the template's own, then extract again",
  },
});

/** What an expression in a template holds. */
export interface ExpressionContent {
  readonly literals: readonly Literal[];
  readonly lookups: readonly Lookup[];
  readonly mentions: Iterable<string>;
}

/**
 * Reads an expression of a template that is JavaScript, with filters behind `|`. `place` says what the value of the
 * whole expression is for; strings inside calls and comparisons are judged by those.
 */
export function readScriptExpression(
  text: string,
  start: number,
  end: number,
  shapes: LookupShapes,
  place: LiteralContext | undefined,
): ExpressionContent {
  const filtered = readFilters(text, start, end, shapes);
  const code = withoutInnerFilters(text.slice(start, filtered.codeEnd));
  if (!/["'`]/.test(code) && shapes.members.size === 0)
    return { literals: [], lookups: filtered.lookups, mentions: [] };
  const source = readScript("expression.ts", `(${code}\n)`, false, shapes);
  const keySpans = filtered.lookups.map(({ keySpan }) => keySpan.start);
  const translates = lookupFilter.exec(text.slice(filtered.codeEnd, end))?.[1];
  const literals = source.literals
    .map((literal) => shiftLiteral(literal, start - 1))
    .filter((literal) => !keySpans.includes(literal.span.start + 1))
    .map((literal) =>
      translates !== undefined && literal.context.role === "other"
        ? {
            ...literal,
            context: {
              language: "markup",
              role: "argument",
              name: `|${translates}`,
              index: 0,
              atLoad: false,
            } as const,
          }
        : place && literal.context.role === "other"
          ? { ...literal, context: placed(literal, place) }
          : { ...literal, context: { ...literal.context, atLoad: false } },
    );
  return {
    literals,
    lookups: [...source.lookups.map((lookup) => shiftLookup(lookup, start - 1)), ...filtered.lookups],
    mentions: source.mentions,
  };
}

/** Where a literal is whose own code gives it to nothing: in a place of the page, or a member of what the page takes. */
export function placed({ context }: Literal, place: LiteralContext): LiteralContext {
  const { properties = [] } = context;
  const name = properties.at(-1);
  return name === undefined
    ? place
    : {
        ...place,
        role: "property",
        name,
        properties,
        ...(place.name !== undefined && { element: place.name }),
      };
}

/** Splits `'key' | filter: argument` and reads the lookups by filter that it holds: all keys that the expression before the filter may be. */
function readFilters(
  text: string,
  start: number,
  end: number,
  shapes: LookupShapes,
): { codeEnd: number; lookups: Lookup[] } {
  const code = text.slice(start, end);
  const blank = withoutQuoted(code, "\"'`", (quoted) => "_".repeat(quoted.end - quoted.start));
  const lookups: Lookup[] = [];
  const add = (key: LookupKey, at: number, length: number, argumentNames: readonly string[] | undefined) =>
    lookups.push({
      span: { start, end },
      keySpan: { start: start + at, end: start + at + length },
      key,
      argumentNames,
    });
  const quotes = [...quotedIn(code, "\"'`")];
  const behind = /\s*\|(?!\|)\s*([\w$]+)/y;
  const bar = /(?<!\|)\|(?!\|)/.exec(blank);
  const outer = bar ? outerBar(blank) : undefined;
  const codeEnd = outer === undefined ? end : start + outer;
  const filter = bar ? /^\|\s*([\w$]+)/.exec(code.slice(bar.index, bar.index + longestName)) : null;
  const isWhole = bar !== null && shapes.filters.has(filter?.[1] ?? "");
  const values = isWhole ? valuesBehind(code.slice(bar.index + (filter?.[0].length ?? 0))) : undefined;
  const before = quotes.filter(({ end: close }) => isWhole && close <= bar.index);
  const glued = isWhole && /^[^?]*\+[^?]*$/.test(blank.slice(0, bar.index));
  const [first] = before;
  if (glued && first) {
    const parts = gluedParts(code.slice(0, bar.index), before);
    add({ kind: "composed", parts }, first.start + 1, first.value.length, values);
  }
  for (const { start: at, end: close, value } of quotes) {
    if (isWhole && close <= bar.index) {
      // Strings that are compared, and names in brackets, are not keys.
      const isAnswer =
        /(?:^|[?:(]|\|\||\?\?)\s*$/.test(blank.slice(Math.max(at - 60, 0), at)) &&
        /^\s*(?:$|[:)]|\|\||\?\?)/.test(blank.slice(close, Math.min(close + 60, bar.index)));
      if (!glued && isAnswer) add({ kind: "fixed", value }, at + 1, value.length, values);
      continue;
    }
    behind.lastIndex = close;
    if (!shapes.filters.has(behind.exec(code)?.[1] ?? "")) continue;
    const rest = code.slice(behind.lastIndex, behind.lastIndex + closeOf(blank.slice(behind.lastIndex), 0));
    add({ kind: "fixed", value }, at + 1, value.length, valuesBehind(rest));
  }
  return { codeEnd, lookups };
}

/** The parts of `'status.' + state`; null for what is known at run time only. */
function gluedParts(
  code: string,
  quotes: readonly { readonly start: number; readonly end: number; readonly value: string }[],
): (string | null)[] {
  const parts: (string | null)[] = [];
  let at = 0;
  for (const { start, end, value } of quotes) {
    if (/[^\s+()]/.test(code.slice(at, start))) parts.push(null);
    parts.push(value);
    at = end;
  }
  if (/[^\s+()]/.test(code.slice(at))) parts.push(null);
  return parts;
}

/** Where the filters of a whole expression begin, its strings blank; undefined where all stand in brackets. */
function outerBar(blank: string): number | undefined {
  let depth = 0;
  for (let at = 0; at < blank.length; at++) {
    const unit = blank[at] ?? "";
    if (/[([{]/.test(unit)) depth++;
    else if (/[)\]}]/.test(unit)) depth--;
    else if (unit === "|" && depth <= 0) {
      if (blank[at + 1] !== "|") return at;
      at++;
    }
  }
  return undefined;
}

/** Code without the filters that stand in brackets, which are none of a script: `open ? ('key' | text) : ''`. */
function withoutInnerFilters(code: string): string {
  if (!code.includes("|") || !/[([]/.test(code)) return code;
  const blank = withoutQuoted(code, "\"'`", (quoted) => "_".repeat(quoted.end - quoted.start));
  let result = "";
  let from = 0;
  for (let at = 0; at < blank.length; at++) {
    if (blank[at] !== "|") continue;
    if (blank[at + 1] === "|") {
      at++;
      continue;
    }
    const end = closeOf(blank, at);
    result += code.slice(from, at) + code.slice(at, end).replace(/[^\r\n]/g, " ");
    from = end;
    at = end;
  }
  return result + code.slice(from);
}

/** The names of the values that a filter passes: `: { name: x }` or `(name=x)`; undefined where that cannot be told. */
function valuesBehind(rest: string): readonly string[] | undefined {
  if (rest.trim() === "") return [];
  const [, object, list] = /^\s*(?::\s*\{([^{}]{0,500})\}|\(([^()]{0,500})\))\s*$/.exec(rest) ?? [];
  const inner = object ?? list;
  if (inner === undefined) return undefined;
  const pairs = inner.split(",").filter((pair) => pair.trim() !== "");
  const names = pairs.map((pair) => /^\s*["']?([\w$]+)["']?\s*(?:[:=]|$)/.exec(pair)?.[1]);
  return names.every((name) => name !== undefined) ? names : undefined;
}

/** No lookup passes more values by name. */
const mostNames = 40;

/** So far before a string is looked for what it is given to, in code units. */
const longestName = 300;

/** Members of objects of texts: `$texts.cart.title`, `texts['cart'].title`. */
function readMembers(code: string, start: number, { members, separators }: LookupShapes): Lookup[] {
  if (members.size === 0) return [];
  const chain =
    /(?<![\w$.])\$?([A-Za-z_]\w{0,60})((?:\.[A-Za-z_][\w-]{0,60}|\[(?:"[^"\]]{1,60}"|'[^'\]]{1,60}')\]){1,20})/g;
  return [...code.matchAll(chain)].flatMap((match): Lookup[] => {
    const [whole, root = "", path = ""] = match;
    if (!members.has(root)) return [];
    const parts = [...path.matchAll(/\.([\w-]+)|\[["']([^"'\]]*)["']\]/g)].map(
      ([, name, quoted]) => name ?? quoted ?? "",
    );
    const end = start + match.index + whole.length;
    const closed = /["']\]$/.exec(whole)?.[0].length ?? 0;
    const keySpan = { start: end - closed - (parts.at(-1)?.length ?? 0), end: end - closed };
    const key = { kind: "fixed", value: parts.join(separators.parts) } as const;
    const span = { start: start + match.index, end };
    return [{ span, keySpan, key, argumentNames: undefined, isMember: true }];
  });
}

/** Functions of templates that compare, in front of what they are given. */
const comparer = /^\s{0,9}(?:not\s{1,9})?(?:eq|ne|lt|le|gt|ge|hasPrefix|hasSuffix|contains|in)\s/;

/** So far before a string is looked for what holds it, in code units. */
const farthest = 2_000;

/**
 * What a string inside brackets or behind a filter is given to, by the code before it, with its strings and without: the
 * property of an object, an argument of a call or of a filter. Undefined for what stands by itself.
 */
function givenTo(code: string, before: string, isBeforeColon: boolean): LiteralContext | undefined {
  const plain = { language: "markup", atLoad: false } as const;
  let depth = 0;
  let commas = 0;
  for (let at = before.length - 1; at >= 0; at--) {
    const unit = before[at] ?? "";
    if (/[)\]}]/.test(unit)) depth++;
    else if (/[([{]/.test(unit)) depth--;
    else if (depth === 0 && unit === ",") commas++;
    if (depth > 0) continue;
    if (depth === 0) {
      if (unit !== "|" || before[at - 1] === "|" || before[at + 1] === "|") continue;
      // Behind a filter's name stand its arguments, each behind a colon.
      const [, filter, rest] = /^\|\s*([\w$]+)\s*(:[^]*)?$/.exec(before.slice(at)) ?? [];
      // A filter in front of a comma belongs to what was given before.
      if (filter === undefined && commas > 0) continue;
      if (filter === undefined || rest === undefined) return undefined;
      const named = /(?<![\w-])([\w-]{1,60})\s{0,9}=(?!=)[^=]{0,200}$/.exec(code.slice(0, at))?.[1];
      if (named !== undefined) return { ...plain, role: "property", name: named, properties: [named] };
      const index = rest.split(/[:,]/).length - 2;
      return { ...plain, role: "argument", name: filter, index };
    }
    if (unit === "(") {
      const callee = /(?<![\w$.])([\w$.]{1,60})\s{0,20}$/.exec(before.slice(Math.max(at - 80, 0), at))?.[1];
      // A call inside of another stands in brackets with its name: `(eq .Kind "boat")`.
      if (comparer.test(code.slice(at + 1, at + 40))) return { ...plain, role: "compared", name: "==" };
      if (callee !== undefined && !/^(?:and|or|not|in|if|is)$/.test(callee))
        return { ...plain, role: "argument", name: callee, index: commas };
    }
    // What picks a member of something: `row['Name']`.
    if (unit === "[" && /[\w)\]"']$/.test(before.slice(Math.max(at - 1, 0), at)))
      return { ...plain, role: "index" };
    if (unit === "{") {
      const own = code.slice(Math.max(before.lastIndexOf(","), at) + 1);
      if (own.trim() === "" && isBeforeColon) return { ...plain, role: "key" };
      const name = /^\s*["']?([\w$-]+)["']?\s*:/.exec(own)?.[1] ?? "";
      return { ...plain, role: "property", name, properties: [name] };
    }
    depth = 0;
    commas = 0;
  }
  return undefined;
}

/** Filters that give a text in the reader's language, by their names, as those that a book does not name: `'All boats'|trans`. */
const lookupFilter = /^\s{0,9}\|(?!\|)\s{0,9}(trans(?:late)?|t|localize|i18n|l10n|lang|gettext|_)(?![\w-])/;

/** Reads an expression of a template's own small language: strings, and lookups as helpers, calls and filters. */
export function readPlainExpression(
  text: string,
  start: number,
  end: number,
  shapes: LookupShapes,
  place: LiteralContext | undefined,
): ExpressionContent {
  const { lookups } = readFilters(text, start, end, shapes);
  const code = text.slice(start, end);
  const literals: Literal[] = [];
  const mentions: string[] = [];
  lookups.push(...readMembers(code, start, shapes));
  const counted = place && chosenByNumber(code, start, shapes.sourceLanguage);
  if (counted)
    return {
      literals: [{ form: "string", span: counted.span, pieces: [counted], context: place }],
      lookups,
      mentions: [...quotedIn(code, `"'`)].map(({ value }) => withoutEscapes(value)),
    };
  const filtered = new Set(lookups.map(({ keySpan }) => keySpan.start));
  const blank = lazily(() => withoutQuoted(code, `"'`, ({ start, end }) => "_".repeat(end - start)));
  // A block that is shown where something is so compares what it is given.
  const isTest =
    /^\s*[#^]\s*(?:match|is|has|case|switch|compare|contains|includes|(?:if|unless)[-_]?\w{1,20}|(?:x|not|is)?[-_]?(?:eq|equals?|neq|ne|in))\s/i.test(
      code.slice(0, 60),
    ) || comparer.test(/^\s{0,9}(?:else\s{1,9})?(?:if|with)\s([^]{0,40})/.exec(code.slice(0, 80))?.[1] ?? "");
  const names = lazily(() => [...blank().matchAll(/(?<![\w-])([\w-]+)\s*=(?!=)/g)]);
  const namesBehind = (at: number) => {
    const end = closeOf(blank(), at);
    const first = names().findIndex(({ index }) => index >= at);
    return first < 0
      ? []
      : names()
          .slice(first, first + mostNames)
          .filter(({ index }) => index < end)
          .map((one) => one[1] ?? "");
  };
  const quoted = [...quotedIn(code, `"'`)];
  const chains =
    quoted.length > 0 && /[~+.]/.test(code)
      ? joinedIn(withoutQuoted(code, `"'`, ({ start, end }) => `"${"_".repeat(end - start - 2)}"`))
      : [];
  const read = new Set<Joined>();
  for (const { start: at, end: close, value: written } of quoted) {
    const value = withoutEscapes(written);
    mentions.push(value);
    const span = { start: start + at, end: start + close };
    const inner = { start: span.start + 1, end: span.end - 1 };
    if (filtered.has(inner.start)) continue;
    const before = code.slice(Math.max(at - longestName, 0), at);
    const callee =
      /(?<![\w$.])([\w$.]+)\s*(?:\(\s*)$/.exec(before)?.[1] ?? /^\s*#?([\w$.]+)\s+$/.exec(before)?.[1];
    const named = /(?<![\w-])([\w-]+)\s*=\s*$/.exec(before)?.[1];
    // A helper inside of another stands in brackets with its values: `(say "desk.title" name=x)`.
    const inside = callee ?? /\(\s{0,9}([\w$.]{1,60})\s{1,9}$/.exec(before)?.[1];
    if (inside !== undefined && shapes.calls.has(inside)) {
      // Joined to a value by what the templates have for it: `+`, `~`, or a dot with blanks around it.
      const isJoined = /^(?:\s*[+~]|\s+\.\s)/.test(code.slice(close, close + 40));
      lookups.push({
        span: { start, end },
        keySpan: inner,
        key: isJoined ? { kind: "composed", parts: [value, null] } : { kind: "fixed", value },
        argumentNames: namesBehind(at),
      });
      continue;
    }
    if (!/\p{L}/u.test(value)) continue;
    const filter = lookupFilter.exec(code.slice(close, close + 40))?.[1];
    if (filter !== undefined) {
      const context = {
        language: "markup",
        role: "argument",
        name: `|${filter}`,
        index: 0,
        atLoad: false,
      } as const;
      literals.push({ form: "string", span, pieces: [{ kind: "text", value, span: inner }], context });
      continue;
    }
    const chain = chains.find(({ operands }) =>
      operands.some((one) => one.start === at && one.end === close),
    );
    if (chain && read.has(chain)) continue;
    const [outer, outerEnd] = chain ? [chain.start, chain.end] : [at, close];
    const [ahead, behind] = chain
      ? [code.slice(Math.max(outer - longestName, 0), outer), code.slice(outerEnd, outerEnd + 40)]
      : [before, code.slice(close, close + 40)];
    const isCompared = /[=!]=\s*$|\b(?:eq|ne|in|is)\s+$/.test(ahead) || (isTest && named === undefined);
    const property = /(?<![\w-])([\w-]+)\s*=\s*$/.exec(ahead)?.[1];
    const from = Math.max(outer - farthest, 0);
    const context: LiteralContext = isCompared
      ? { language: "markup", role: "compared", name: "==", atLoad: false }
      : property !== undefined
        ? { language: "markup", role: "property", name: property, properties: [property], atLoad: false }
        : (givenTo(code.slice(from, outer), blank().slice(from, outer), /^\s*:/.test(behind)) ??
          (callee !== undefined
            ? { language: "markup", role: "argument", name: callee, index: 0, atLoad: false }
            : (place ?? { language: "markup", role: "other", atLoad: false })));
    if (chain) {
      read.add(chain);
      literals.push(joinedLiteral(chain, code, start, quoted, context));
      continue;
    }
    const isPattern =
      /%(?:\(\w+\))?[sdvq]/.test(value) &&
      (/^\s*(?:\|\s*format\b|%)/.test(behind) || /^s?printf$/i.test(callee ?? ""));
    const obstacle = isPattern
      ? say("filled-pattern", {})
      : holdsMarkup(value)
        ? say("string-markup", {})
        : undefined;
    literals.push({
      form: "string",
      span,
      pieces: [{ kind: "text", value, span: inner }],
      context,
      ...(obstacle && { obstacle }),
    });
  }
  return { literals, lookups, mentions };
}

/** What a string of a template's own language says: a backslash takes the next character as it is, but for line ends and tabs. */
function withoutEscapes(written: string): string {
  return written.replace(/\\([nt"'\\])/g, (_, unit: string) =>
    unit === "n" ? "\n" : unit === "t" ? "\t" : unit,
  );
}

/** Strings and values that an expression joins to one text. */
function joinedLiteral(
  { start, end, operands, isOpen }: Joined,
  code: string,
  offset: number,
  quoted: readonly Quoted[],
  context: LiteralContext,
): Literal {
  const unique = uniqueNames();
  let hasWords = false;
  const pieces = operands.map((operand): Piece => {
    const string = quoted.find((one) => one.start === operand.start && one.end === operand.end);
    const span = { start: offset + operand.start, end: offset + operand.end };
    if (string)
      return {
        kind: "text",
        value: withoutEscapes(string.value),
        span: { start: span.start + 1, end: span.end - 1 },
      };
    const value = code.slice(operand.start, operand.end);
    hasWords ||= [...quotedIn(value, `"'`)].some((one) => /\p{L}{2}\s|^\p{Lu}\p{Ll}/u.test(one.value));
    return {
      kind: "argument",
      name: unique(nameFromCode(value), value),
      code: value,
      span,
      mayBeAbsent: false,
    };
  });
  const text = pieces.map((piece) => (piece.kind === "text" ? piece.value : "")).join("");
  const obstacle = isOpen
    ? say("joined-open", {})
    : hasWords
      ? say("joined-words", {})
      : holdsMarkup(text)
        ? say("string-markup", {})
        : undefined;
  const isText = pieces.length === 1 && pieces[0]?.kind === "text";
  return {
    form: isText ? "string" : "template",
    span: { start: offset + start, end: offset + end },
    pieces,
    context,
    ...(obstacle && { obstacle }),
  };
}
