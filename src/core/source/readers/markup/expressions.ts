import { lazily } from "../../../text/lazy.js";
import type { Literal, LiteralContext, Lookup, LookupShapes } from "../../model.js";
import { quotedIn, withoutQuoted } from "../../../text/delimited.js";
import { readScript } from "../script/script.js";
import { shiftLiteral, shiftLookup } from "../shift.js";

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
  const code = text.slice(start, filtered.codeEnd);
  if (!/["'`]/.test(code)) return { literals: [], lookups: filtered.lookups, mentions: [] };
  const source = readScript("expression.ts", `(${code}\n)`, false, shapes);
  const keySpans = filtered.lookups.map(({ keySpan }) => keySpan.start);
  const literals = source.literals
    .map((literal) => shiftLiteral(literal, start - 1))
    .filter((literal) => !keySpans.includes(literal.span.start + 1))
    .map((literal) =>
      place && literal.context.role === "other"
        ? { ...literal, context: place }
        : { ...literal, context: { ...literal.context, atLoad: false } },
    );
  return {
    literals,
    lookups: [...source.lookups.map((lookup) => shiftLookup(lookup, start - 1)), ...filtered.lookups],
    mentions: source.mentions,
  };
}

/** Splits `'key' | filter: argument` and reads the lookups by filter that it holds. */
function readFilters(
  text: string,
  start: number,
  end: number,
  shapes: LookupShapes,
): { codeEnd: number; lookups: Lookup[] } {
  const code = text.slice(start, end);
  const lookups: Lookup[] = [];
  const behind = /\s*\|(?!\|)\s*([\w$]+)/y;
  for (const { start: at, end: close, value: key } of quotedIn(code, "\"'`")) {
    behind.lastIndex = close;
    if (!shapes.filters.has(behind.exec(code)?.[1] ?? "")) continue;
    const keyStart = start + at + 1;
    lookups.push({
      span: { start, end },
      keySpan: { start: keyStart, end: keyStart + key.length },
      key: { kind: "fixed", value: key },
      argumentNames: undefined,
    });
  }
  const bar = /(?<!\|)\|(?!\|)/.exec(
    withoutQuoted(code, "\"'`", (quoted) => "_".repeat(quoted.end - quoted.start)),
  );
  return { codeEnd: bar ? start + bar.index : end, lookups };
}

/** No lookup passes more values by name. */
const mostNames = 40;

/** So far before a string is looked for what it is given to, in code units. */
const longestName = 300;

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
  const filtered = new Set(lookups.map(({ keySpan }) => keySpan.start));
  const names = lazily(() => [...code.matchAll(/(?<![\w-])([\w-]+)\s*=(?!=)/g)]);
  const namesBehind = (at: number) => {
    const first = names().findIndex(({ index }) => index >= at);
    return first < 0
      ? []
      : names()
          .slice(first, first + mostNames)
          .map((one) => one[1] ?? "");
  };
  for (const { start: at, end: close, value } of quotedIn(code, `"'`)) {
    mentions.push(value);
    const span = { start: start + at, end: start + close };
    const inner = { start: span.start + 1, end: span.end - 1 };
    if (filtered.has(inner.start)) continue;
    const before = code.slice(Math.max(at - longestName, 0), at);
    const callee =
      /(?<![\w$.])([\w$.]+)\s*(?:\(\s*)$/.exec(before)?.[1] ?? /^\s*#?([\w$.]+)\s+$/.exec(before)?.[1];
    const named = /(?<![\w-])([\w-]+)\s*=\s*$/.exec(before)?.[1];
    const shape = callee === undefined ? undefined : shapes.calls.get(callee);
    if (shape) {
      lookups.push({
        span: { start, end },
        keySpan: inner,
        key: { kind: "fixed", value },
        argumentNames: namesBehind(at),
      });
      continue;
    }
    if (!/\p{L}/u.test(value)) continue;
    const compared = /[=!]=\s*$|\b(?:eq|ne|in|is)\s+$/.test(before);
    const context: LiteralContext = compared
      ? { language: "markup", role: "compared", name: "==", atLoad: false }
      : named !== undefined
        ? { language: "markup", role: "property", name: named, properties: [named], atLoad: false }
        : callee !== undefined
          ? { language: "markup", role: "argument", name: callee, index: 0, atLoad: false }
          : (place ?? { language: "markup", role: "other", atLoad: false });
    literals.push({ form: "string", span, pieces: [{ kind: "text", value, span: inner }], context });
  }
  return { literals, lookups, mentions };
}
