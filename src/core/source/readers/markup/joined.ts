import type { Span } from "../../../text/span.js";

/** Several operands that an expression joins to one text: `'Boat ' ~ name|upper ~ ' is here'`. */
export interface Joined extends Span {
  readonly operands: readonly Span[];
  /** Set where what stands behind may be done with all of it, or with the last operand alone: a filter behind `+`. */
  readonly isOpen?: true;
}

/** An operand of an expression of a template: its bounds without blanks, read forward or backward. */
const wordUnit = /[\w$.@]/;
const pairOf: Readonly<Record<string, string>> = {
  ")": "(",
  "]": "[",
  "}": "{",
  "(": ")",
  "[": "]",
  "{": "}",
};

/**
 * The texts that an expression of a template puts together by `~` or `+`. `blank` is its code with letters instead of each
 * string, quotes included.
 */
export function joinedIn(blank: string): readonly Joined[] {
  const found: Joined[] = [];
  for (const { 0: operator, index } of blank.matchAll(/[~+]/g)) {
    const last = found.at(-1);
    if (last && index < last.end) continue;
    if (operator === "+" && /[+=]/.test((blank[index - 1] ?? "") + (blank[index + 1] ?? ""))) continue;
    const first = operandBefore(blank, index);
    if (!first) continue;
    const operands = [first];
    let at = index;
    let isWhole = true;
    while (blank[at] === operator) {
      const next = operandBehind(blank, at + 1, operator === "~");
      if (!next) {
        isWhole = false;
        break;
      }
      operands.push(next);
      at = next.end + blanks(blank, next.end);
    }
    const end = operands.at(-1)?.end ?? index;
    if (operands.length < 2) continue;
    // Another operator takes the last operand first, or all of them.
    isWhole &&= !/^\s{0,20}(?:\|(?!\|)|[-*/%+~]|\.)/.test(blank.slice(end, end + 24));
    found.push({ start: first.start, end, operands, ...(!isWhole && { isOpen: true }) });
  }
  return found;
}

function blanks(blank: string, from: number): number {
  let at = from;
  while (/\s/.test(blank[at] ?? "")) at++;
  return at - from;
}

/** The operand that ends before a place: a name, a call, a group in brackets, with its filters. */
function operandBefore(blank: string, place: number): Span | undefined {
  let end = place;
  while (end > 0 && /\s/.test(blank[end - 1] ?? "")) end--;
  let start = end;
  for (;;) {
    const unit = blank[start - 1] ?? "";
    if (/[)\]]/.test(unit)) {
      const open = openOf(blank, start - 1);
      if (open === undefined) return undefined;
      start = open;
      // What is called or picked from stands right before.
      if (wordUnit.test(blank[start - 1] ?? "")) continue;
    } else if (wordUnit.test(unit)) {
      while (wordUnit.test(blank[start - 1] ?? "")) start--;
    } else return start < end ? { start, end } : undefined;
    const before = /\|\s{0,9}$/.exec(blank.slice(Math.max(start - 10, 0), start))?.[0];
    if (before === undefined || blank[start - before.length - 1] === "|") return { start, end };
    start -= before.length;
    while (start > 0 && /\s/.test(blank[start - 1] ?? "")) start--;
  }
}

/** The operand that begins behind a place; filters behind it are its own only where `takesFilters` says so. */
function operandBehind(blank: string, place: number, takesFilters: boolean): Span | undefined {
  const start = place + blanks(blank, place);
  let end = start;
  for (;;) {
    const from = end;
    while (wordUnit.test(blank[end] ?? "")) end++;
    while (/[([]/.test(blank[end] ?? "")) {
      const close = closeOf(blank, end);
      if (close === undefined) return undefined;
      end = close + 1;
      while (wordUnit.test(blank[end] ?? "")) end++;
    }
    if (end === from) return undefined;
    const filter = takesFilters ? /^\s{0,9}\|(?!\|)\s{0,9}(?=\w)/.exec(blank.slice(end, end + 20)) : null;
    if (!filter) return { start, end };
    end += filter[0].length;
  }
}

/** Larger groups in brackets are not followed, in code units. */
const largestGroup = 500;

function openOf(blank: string, close: number): number | undefined {
  return partnerOf(blank, close, -1);
}

function closeOf(blank: string, open: number): number | undefined {
  return partnerOf(blank, open, 1);
}

function partnerOf(blank: string, from: number, step: 1 | -1): number | undefined {
  const awaited: string[] = [];
  for (let at = from; Math.abs(at - from) < largestGroup; at += step) {
    const unit = blank[at];
    if (unit === undefined) return undefined;
    const partner = pairOf[unit];
    if (partner === undefined) continue;
    const opens = step === 1 ? /[([{]/.test(unit) : /[)\]}]/.test(unit);
    if (opens) awaited.push(partner);
    else if (awaited.pop() !== unit) return undefined;
    if (awaited.length === 0) return at;
  }
  return undefined;
}
