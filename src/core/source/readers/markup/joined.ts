import type { Span } from "../../../text/span.js";

/** Several operands that an expression joins to one text: `'Boat ' ~ name|upper ~ ' is here'`. */
export interface Joined extends Span {
  readonly operands: readonly Span[];
  /** Set where what stands behind may be done with all of it, or with the last operand alone: a filter behind `+`. */
  readonly isOpen?: true;
}

/** Whether a sign joins texts: `a.b` and `a++` do something else. */
function joins(blank: string, at: number): boolean {
  const unit = blank[at];
  if (unit === "~") return true;
  const [before, behind] = [blank.slice(Math.max(at - 20, 0), at), blank.slice(at + 1, at + 21)];
  if (unit === "+") return !/[+=]$/.test(before) && !/^[+=]/.test(behind);
  // Behind a blank and right before a name a dot begins the name: `printf "%s left" .Boat`.
  return (
    unit === "." &&
    (before.endsWith('"') || behind.startsWith('"') || (/\s$/.test(before) && /^\s/.test(behind)))
  );
}

/** Whether what stands at a place is part of a name or a string. */
function isWord(blank: string, at: number): boolean {
  const unit = blank[at] ?? "";
  // An arrow picks a member, as a dot does.
  if (unit === "-") return blank[at + 1] === ">";
  if (unit === ">") return blank[at - 1] === "-";
  return unit === "." ? !joins(blank, at) : /[\w$@"]/.test(unit);
}

const pairOf: Readonly<Record<string, string>> = {
  ")": "(",
  "]": "[",
  "}": "{",
  "(": ")",
  "[": "]",
  "{": "}",
};

/**
 * The texts that an expression of a template puts together by `~` or `+`, or by a dot beside a string. `blank` is its code with
 * quotes and letters instead of each string.
 */
export function joinedIn(blank: string): readonly Joined[] {
  const found: Joined[] = [];
  for (const { 0: operator, index } of blank.matchAll(/[~+.]/g)) {
    const last = found.at(-1);
    if ((last && index < last.end) || !joins(blank, index)) continue;
    const first = operandBefore(blank, index);
    if (!first) continue;
    const operands = [first];
    let at = index;
    let isWhole = true;
    while (blank[at] === operator && joins(blank, at)) {
      const next = operandBehind(blank, at + 1, operator !== "+");
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
      if (isWord(blank, start - 1) || /[)\]]/.test(blank[start - 1] ?? "")) continue;
    } else if (isWord(blank, start - 1)) {
      while (isWord(blank, start - 1)) start--;
      // A member of what a call or an index gives.
      if (/[)\]]/.test(blank[start - 1] ?? "") && /[.-]/.test(blank[start] ?? "")) continue;
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
    while (isWord(blank, end)) end++;
    while (/[([]/.test(blank[end] ?? "")) {
      const close = closeOf(blank, end);
      if (close === undefined) return undefined;
      end = close + 1;
      while (isWord(blank, end)) end++;
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
